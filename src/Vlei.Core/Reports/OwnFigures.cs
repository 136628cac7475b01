namespace Vlei.Core.Reports;

/// <summary>A figure, or something said, that carries how it is read from what a row stands for.</summary>
internal sealed class OwnFigure<TRow>
    where TRow : struct
{
    private OwnFigure(Func<TRow, long?> at, Func<TRow, Cell> cell, Action<TRow, int, OriginRecords> addBehind) =>
        (At, CellAt, AddBehind) = (at, cell, addBehind);

    /// <summary>What a row comes to; nothing where it comes to nothing, or where this says something instead.</summary>
    public Func<TRow, long?> At { get; }

    /// <summary>The same as readers see it.</summary>
    public Func<TRow, Cell> CellAt { get; }

    /// <summary>Adds the records behind it, as often as the sign says.</summary>
    public Action<TRow, int, OriginRecords> AddBehind { get; }

    /// <summary>What it is called, where a share is taken of it.</summary>
    public string Heading { get; private init; } = "";

    /// <summary>The same, with a name.</summary>
    public OwnFigure<TRow> Called(string heading) => new(At, CellAt, AddBehind) { Heading = heading };

    /// <summary>A figure with records behind it.</summary>
    /// <param name="at">What a row comes to.</param>
    /// <param name="addBehind">Adds the records.</param>
    /// <param name="cellAt">The same as readers see it, where that differs.</param>
    public static OwnFigure<TRow> Of(Func<TRow, long?> at, Action<TRow, int, OriginRecords> addBehind, Func<TRow, Cell>? cellAt = null) =>
        new(at, cellAt ?? (row => new Cell(at(row))), addBehind);

    /// <summary>A figure that is worked out from several records, none of which add up to it.</summary>
    /// <param name="at">What a row comes to.</param>
    /// <param name="refusal">What is told who asks for the records, and the advice.</param>
    public static OwnFigure<TRow> WorkedOut(Func<TRow, long?> at, Func<TRow, (string Message, string Advice)> refusal) => Of(
        at, (row, _, records) => records.Refuse(refusal(row).Message, refusal(row).Advice));

    /// <summary>Something that is said, with no records behind it.</summary>
    public static OwnFigure<TRow> Said(Func<TRow, Cell> cell) => new(_ => null, cell, (_, _, records) => records.IsNone = true);
}

/// <summary>Figures that are read from what rows stand for, column by column.</summary>
internal sealed class OwnFigures<TRow> : IFigures<TRow, OwnFigure<TRow>>
    where TRow : struct
{
    /// <summary>The row that all others come to; nothing where there is none.</summary>
    public TRow? Total { get; set; }

    /// <inheritdoc/>
    public long? At(in TRow row, OwnFigure<TRow> figure) => figure.At(row);

    /// <inheritdoc/>
    public Cell CellAt(in TRow row, OwnFigure<TRow> figure) => figure.CellAt(row);

    /// <inheritdoc/>
    public TRow? WholeOf(ShareOf whole) => whole == ShareOf.Column ? Total : null;

    /// <inheritdoc/>
    public void AddBehind(TRow row, OwnFigure<TRow> figure, int sign, OriginRecords records) => figure.AddBehind(row, sign, records);

    /// <inheritdoc/>
    public string InWords(FigureColumn<OwnFigure<TRow>>.Share share) =>
        share.Of == ShareOf.Row ? share.Total.Heading : "the last row of the column";
}
