using Vlei.Core.Money;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core.Statements;

/// <summary>The cells of a statement: what each row comes to in each column, and what is behind it.</summary>
/// <param name="figures">The sums.</param>
/// <param name="rows">The rows.</param>
/// <param name="wholes">What percentages of the same column are taken of.</param>
internal sealed class StatementCells(
    StatementFigures figures, IReadOnlyList<StatementRow> rows, IReadOnlyDictionary<PercentOf, RowValue.Sum> wholes)
{
    private readonly StatementColumns _columns = figures.Columns;

    /// <summary>The rows with their cells.</summary>
    public List<ReportRow> Rows() =>
    [
        .. rows.Select(row => new ReportRow(
            row.Key, row.Label, row.Kind, row.Level,
            [.. Enumerable.Range(0, _columns.Columns.Count).Select(column => CellOf(row, column))])
        {
            InsteadOfMoney = (row.Value as RowValue.Quotient)?.Kind,
            MadeOf = row.MadeOf,
        }),
    ];

    /// <summary>The postings behind a figure; nothing where there is none.</summary>
    public CellOrigin? OriginOf(int place, int column)
    {
        var row = rows[place];
        return row.Value switch
        {
            null => null,
            RowValue.Quotient quotient => throw new ProblemException(
                ProblemKind.Usage, $"{row.Label} is worked out from other rows.",
                $"Trace {Suggestion.Listed([.. quotient.Formula.Keys.Distinct()], "or")}."),
            RowValue.Sum sum => OriginOf(row, sum, column),
            _ => throw new InvalidOperationException($"There is no such value: {row.Value}."),
        };
    }

    private CellOrigin? OriginOf(StatementRow row, RowValue.Sum sum, int column)
    {
        switch (_columns.Sources[column])
        {
            case ColumnSource.Postings:
                return new CellOrigin(figures.Of(sum, column), [.. figures.PartsOf(sum, column, 1)]);
            case ColumnSource.Change change:
                return ChangeOf(sum, change.Current, change.Earlier, null);
            case ColumnSource.PercentChange change:
                return ChangeOf(
                    sum, change.Current, change.Earlier,
                    $"The figure is the change as a percentage of {_columns.Columns[change.Earlier].Heading}.");
            case ColumnSource.Percent share:
                var whole = WholeOf(row, share);
                return whole is null ? null : new CellOrigin(
                    figures.Of(sum, share.Column), [.. figures.PartsOf(sum, share.Column, 1)],
                    $"The figure is a percentage of {NameOf(share.Of)}.");
            default:
                return null;
        }
    }

    private static string NameOf(PercentOf of) => of switch
    {
        PercentOf.Income => "total income",
        PercentOf.Assets => "total assets",
        PercentOf.Column => "the last row of the column",
        PercentOf.Row => "the row's total",
        _ => "the total of its group",
    };

    private CellOrigin ChangeOf(RowValue.Sum sum, int current, int earlier, string? note) => new(
        figures.Of(sum, current) - figures.Of(sum, earlier),
        [.. figures.PartsOf(sum, current, 1), .. figures.PartsOf(sum, earlier, -1)], note);

    private Cell CellOf(StatementRow row, int column) => row.Value switch
    {
        RowValue.Sum sum => CellOf(row, sum, column),
        RowValue.Quotient quotient => CellOf(quotient, column),
        _ => Cell.Empty,
    };

    private Cell CellOf(StatementRow row, RowValue.Sum sum, int column) => _columns.Sources[column] switch
    {
        ColumnSource.Postings => Cell.Of(figures.Of(sum, column)),
        ColumnSource.Change change => Cell.Of(figures.Of(sum, change.Current) - figures.Of(sum, change.Earlier)),
        ColumnSource.PercentChange change => Cell.Of(Percentage.Of(
            figures.Of(sum, change.Current) - figures.Of(sum, change.Earlier), figures.Of(sum, change.Earlier).Magnitude)),
        ColumnSource.Percent share when WholeOf(row, share) is { } whole =>
            Cell.Of(Percentage.Of(figures.Of(sum, share.Column), whole)),
        _ => Cell.Empty,
    };

    // A quotient changes by points; a percentage of it would say nothing.
    private Cell CellOf(RowValue.Quotient quotient, int column) => _columns.Sources[column] switch
    {
        ColumnSource.Postings => Scaled(quotient, ValueOf(quotient, column)),
        ColumnSource.Change change => Scaled(quotient, ValueOf(quotient, change.Current) - ValueOf(quotient, change.Earlier)),
        _ => Cell.Empty,
    };

    private decimal? ValueOf(RowValue value, int column) => value switch
    {
        RowValue.Sum sum => figures.Of(sum, column).MinorUnits / figures.MinorUnitsInOne,
        RowValue.Quotient quotient => quotient.Formula.ValueOf(key => ValueOf(quotient.Rows[key], column)),
        _ => throw new InvalidOperationException($"There is no such value: {value}."),
    };

    private static Cell Scaled(RowValue.Quotient quotient, decimal? value)
    {
        const int TenThousandths = 10_000;
        var scale = quotient.Kind == ColumnKind.Percent ? 100 * TenThousandths : TenThousandths;
        return value is { } number
            ? new Cell(checked((long)Math.Round(number * scale, MidpointRounding.ToEven)))
            : Cell.Empty;
    }

    private Amount? WholeOf(StatementRow row, ColumnSource.Percent share) => share.Of switch
    {
        PercentOf.Row => figures.Of((RowValue.Sum)row.Value!, _columns.Whole),
        PercentOf.Group => row.Group is { } group ? figures.Of(group, share.Column) : null,
        _ => figures.Of(wholes[share.Of], share.Column),
    };
}
