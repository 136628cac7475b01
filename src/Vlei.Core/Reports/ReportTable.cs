using System.Runtime.InteropServices;
using Vlei.Core.Money;
using Vlei.Core.Problems;

namespace Vlei.Core.Reports;

/// <summary>
/// The one table under every report: rows and columns are given, and it makes the cells, changes, shares and formulas, and
/// says what is behind each figure. A sum that does not fit is told with its column.
/// </summary>
/// <param name="title">The title, for messages.</param>
/// <param name="columns">The columns.</param>
/// <param name="rows">The rows.</param>
/// <param name="figures">What rows come to.</param>
internal sealed class ReportTable<TRow, TFigure>(
    string title, FigureColumns<TFigure> columns, FigureRows<TRow> rows, IFigures<TRow, TFigure> figures)
    where TRow : struct
    where TFigure : notnull
{
    private readonly Dictionary<object, Dictionary<TFigure, decimal?>> _reckoned = new(ReferenceEqualityComparer.Instance);
    private ReportRow?[] _made = [];

    /// <summary>How many minor units the currency has to one, for formulas, which count in whole ones.</summary>
    public decimal MinorUnitsInOne { get; init; } = 1;

    /// <summary>Puts the columns, the rows and what is behind them into the frame of a report.</summary>
    public Report In(Report frame) => frame with
    {
        Columns = columns.Shown,
        Rows = new RowList(rows.Count, RowAt) { InRoom = RowAt },
        OriginOf = OriginOf,
    };

    /// <summary>What a row comes to in a column, exactly; nothing where there is nothing.</summary>
    public long? UnitsAt(TRow row, int column)
    {
        try
        {
            return columns[column] switch
            {
                FigureColumn<TFigure>.Base own => figures.At(row, own.Of),
                FigureColumn<TFigure>.Change change => ChangeOf(row, change.Current, change.Earlier),
                _ => null,
            };
        }
        catch (OverflowException tooLarge)
        {
            throw SumTooLarge.In(title, columns[column].Shown.Heading, tooLarge);
        }
    }

    /// <summary>The sum of rows in a column.</summary>
    public Amount SumAt(TRow row, int column) => new(UnitsAt(row, column) ?? 0);

    /// <summary>What is behind a figure, or why no records add up to it; nothing where there is none.</summary>
    public CellOrigin? OriginOf(int place, int column)
    {
        var row = rows[place];
        if (row.Formula is { } formula)
        {
            var records = new OriginRecords();
            records.Refuse(
                $"{row.Label.English} is worked out from other rows.",
                $"Trace {Suggestion.Listed([.. formula.Formula.Keys.Distinct()], "or")}.");
            return records.Of(0, null);
        }

        return row.Kind == RowKind.Heading || CellAt(row, column).Units is not { } units ? null : columns[column] switch
        {
            FigureColumn<TFigure>.Base own => Behind(row.Of, units, [(own.Of, 1)], null),
            FigureColumn<TFigure>.Change change => Behind(row.Of, units, [(change.Current, 1), (change.Earlier, -1)], null),
            FigureColumn<TFigure>.PercentChange change => Behind(
                row.Of, ChangeOf(row.Of, change.Current, change.Earlier) ?? 0, [(change.Current, 1), (change.Earlier, -1)],
                $"The figure is the change as a percentage of {change.EarlierHeading}."),
            FigureColumn<TFigure>.Share share => Behind(
                row.Of, figures.At(row.Of, share.Part) ?? 0, [(share.Part, 1)], $"The figure is a percentage of {figures.InWords(share)}."),
            var other => throw new InvalidOperationException($"There is no such column: {other}."),
        };
    }

    private CellOrigin? Behind(TRow row, long units, IReadOnlyList<(TFigure Figure, int Sign)> terms, string? note)
    {
        var records = new OriginRecords();
        foreach (var (figure, sign) in terms)
        {
            figures.AddBehind(row, figure, sign, records);
        }

        return records.IsNone ? null : records.Of(units, note);
    }

    // Rows of many records are made each time, since there may be any number of them; the others are sums of many.
    private ReportRow RowAt(int place)
    {
        var room = default(Cell[]);
        return RowAt(place, ref room);
    }

    private ReportRow RowAt(int place, ref Cell[]? room)
    {
        if (rows.AloneAt(place) is not { } alone)
        {
            return Made(rows[place], room ??= new Cell[columns.Count]);
        }

        _made = _made.Length > 0 ? _made : new ReportRow?[rows.Additions];
        return _made[alone] ??= Made(rows[place], new Cell[columns.Count]);
    }

    // What a row stands for may be large, and is not copied for each cell.
    private ReportRow Made(in FigureRow<TRow> row, Cell[] cells)
    {
        var (of, column) = (row.Of, 0);
        if (row.Kind == RowKind.Heading)
        {
            Array.Clear(cells);
        }

        try
        {
            for (; column < cells.Length && row.Kind != RowKind.Heading; column++)
            {
                cells[column] = CellAt(in row, in of, column);
            }
        }
        catch (OverflowException tooLarge)
        {
            throw SumTooLarge.In(title, columns[column].Shown.Heading, tooLarge);
        }

        return new ReportRow(row.Key, row.Label.English, row.Kind, row.Level, ImmutableCollectionsMarshal.AsImmutableArray(cells))
        {
            Caption = row.Label,
            InsteadOfMoney = row.Formula?.Kind ?? (row.Shows == ColumnKind.Money ? null : row.Shows), MadeOf = row.MadeOf,
            CountsIn = row.CountsIn, Group = row.Group,
        };
    }

    /// <summary>The cell of a row in a column.</summary>
    public Cell CellAt(in FigureRow<TRow> row, int column) => CellAt(in row, row.Of, column);

    private Cell CellAt(in FigureRow<TRow> row, in TRow of, int column) => row.Formula is { } formula ? CellOf(formula, column)
        : columns[column] switch
        {
            FigureColumn<TFigure>.Base own => figures.CellAt(in of, own.Of),
            FigureColumn<TFigure>.Change change => new Cell(ChangeOf(in of, change.Current, change.Earlier)),
            FigureColumn<TFigure>.PercentChange change => PercentageOf(
                ChangeOf(in of, change.Current, change.Earlier), new Amount(figures.At(in of, change.Earlier) ?? 0).Magnitude.MinorUnits),
            FigureColumn<TFigure>.Share share => figures.At(in of, share.Part) is { } part ? PercentageOf(part, WholeAt(in row, share))
                : Cell.Empty,
            var other => throw new InvalidOperationException($"There is no such column: {other}."),
        };

    private long? ChangeOf(in TRow row, TFigure current, TFigure earlier) => (figures.At(row, current), figures.At(row, earlier)) switch
    {
        (null, null) => null,
        var (now, then) => checked((now ?? 0) - (then ?? 0)),
    };

    private long? WholeAt(in FigureRow<TRow> row, FigureColumn<TFigure>.Share share) => share.Of switch
    {
        ShareOf.Row => figures.At(row.Of, share.Total),
        ShareOf.Group => row.Within is { } group ? figures.At(group, share.Part) : null,
        ShareOf.Whole => figures.WholeOf(ShareOf.Whole) is { } whole ? figures.At(whole, share.Total) : null,
        _ => figures.WholeOf(share.Of) is { } whole ? figures.At(whole, share.Part) : null,
    };

    private static Cell PercentageOf(long? part, long? whole) => Cell.Of(Percentage.Of(new Amount(part ?? 0), new Amount(whole ?? 0)));

    // A quotient changes by points; a percentage of it would say nothing.
    private Cell CellOf(RowFormula<TRow> formula, int column) => columns[column] switch
    {
        FigureColumn<TFigure>.Base own => Scaled(formula, ValueOf(formula, own.Of)),
        FigureColumn<TFigure>.Change change => Scaled(formula, ValueOf(formula, change.Current) - ValueOf(formula, change.Earlier)),
        _ => Cell.Empty,
    };

    // A row may be worked out from rows that are worked out from others: each is reckoned once.
    private decimal? ValueOf(RowFormula<TRow> formula, TFigure figure)
    {
        if (!_reckoned.TryGetValue(formula, out var known))
        {
            _reckoned[formula] = known = [];
        }

        if (!known.TryGetValue(figure, out var value))
        {
            known[figure] = value = formula.Formula.ValueOf(key => formula.Rows[key] is { Formula: { } inner }
                ? ValueOf(inner, figure) : (figures.At(formula.Rows[key].Of, figure) ?? 0) / MinorUnitsInOne);
        }

        return value;
    }

    private static Cell Scaled(RowFormula<TRow> formula, decimal? value)
    {
        const int TenThousandths = 10_000;
        var scale = formula.Kind == ColumnKind.Percent ? 100 * TenThousandths : TenThousandths;
        return value is { } number ? new Cell(checked((long)Math.Round(number * scale, MidpointRounding.ToEven))) : Cell.Empty;
    }
}
