using Vlei.Core.Reports;
using Vlei.Desk;
using Vlei.Output;

namespace Vlei.Browse;

/// <summary>A report on the way, with where a person stands in it.</summary>
internal sealed class Step : IDisposable
{
    private readonly OpenReport? _owned;

    /// <summary>Looks at a report.</summary>
    /// <param name="table">The report.</param>
    /// <param name="command">The command that gives this very report.</param>
    public Step(ScreenTable table, string command)
    {
        (Table, Command, Folds) = (table, command, new Folds(table, new HashSet<string>()));
        Row = Math.Max(0, Enumerable.Range(0, Math.Min(Folds.Count, 100)).FirstOrDefault(row => !IsBare(table.RowAt(row))));
        Column = table.Columns.Count > 0 ? 1 : 0;
    }

    /// <summary>Looks at a report of a book, which is closed with it.</summary>
    public Step(ScreenTable table, string command, ReportOrder order, OpenReport open)
        : this(table, command) => (Order, _owned) = (order, open);

    /// <summary>The report.</summary>
    public ScreenTable Table { get; }

    /// <summary>The command that gives this very report.</summary>
    public string Command { get; }

    /// <summary>What was asked; nothing for records behind a figure, and for the list of reports.</summary>
    public ReportOrder? Order { get; }

    /// <summary>The report with its records; nothing for records behind a figure, and for the list of reports.</summary>
    public OpenReport? Open => _owned;

    /// <summary>What is folded away.</summary>
    public Folds Folds { get; set; }

    /// <summary>The row that a person stands in, of those that are shown.</summary>
    public int Row { get; private set; }

    /// <summary>The column that a person stands in: 0 for the labels, from 1 for those that are shown.</summary>
    public int Column { get; private set; }

    /// <summary>The first row and the first column after the labels on the screen.</summary>
    public (int Row, int Column) Corner { get; set; }

    /// <summary>The place in the report of the row that a person stands in.</summary>
    public int RowPlace => Folds.PlaceOf(Row);

    /// <summary>The row that a person stands in; nothing where there are none.</summary>
    public ReportRow? Current => Folds.Count == 0 ? null : Table.RowAt(RowPlace);

    /// <summary>The column of the report that a person stands in; nothing for the labels.</summary>
    public int? ColumnPlace => Column == 0 ? null : Table.Columns[Column - 1];

    /// <summary>Goes somewhere, as near as there is.</summary>
    public void GoTo(int row, int column) =>
        (Row, Column) = (Math.Clamp(row, 0, Math.Max(0, Folds.Count - 1)), Math.Clamp(column, 0, Table.Columns.Count));

    /// <summary>Stands where a person stood in another state of the same report, as near as there is.</summary>
    public void StandAs(Step before)
    {
        Folds = new Folds(Table, before.Folds.Folded);
        var row = before.Current is { } stood
            ? Enumerable.Range(0, Folds.Count).Select(place => (int?)place)
                .FirstOrDefault(place => Table.RowAt(Folds.PlaceOf(place!.Value)).Key == stood.Key) : null;
        var column = before.ColumnPlace is not { } place ? 0
            : Table.Columns.ToList().FindIndex(known =>
                Table.Report.Columns[known].Key == before.Table.Report.Columns[place].Key) is >= 0 and var found ? found + 1
            : before.Column;
        GoTo(row ?? Row, column);
        Corner = before.Corner;
    }

    /// <summary>
    /// Goes to the next cell, from this one on or back from it, that has some words in it; says whether there is one.
    /// </summary>
    public bool Find(string words, bool backwards)
    {
        var (rows, step) = (Folds.Count, backwards ? -1 : 1);
        for (var tried = 1; tried <= rows; tried++)
        {
            var row = (((Row + (tried * step)) % rows) + rows) % rows;
            var shown = Table.RowAt(Folds.PlaceOf(row));
            if (shown.Label.Contains(words, StringComparison.CurrentCultureIgnoreCase))
            {
                GoTo(row, Column);
                return true;
            }

            for (var column = 0; column < Table.Columns.Count; column++)
            {
                if (Table.FigureOf(shown, Table.Columns[column]).Contains(words, StringComparison.CurrentCultureIgnoreCase))
                {
                    GoTo(row, column + 1);
                    return true;
                }
            }
        }

        return false;
    }

    /// <summary>Closes its records.</summary>
    public void Dispose() => _owned?.Dispose();

    private static bool IsBare(ReportRow row) => row.Cells.All(cell => cell is { Units: null, Words: null });
}
