namespace Vlei.Core.Reports;

/// <summary>
/// What records come to: the sums of postings under a layout, the scan of a table, the history of open items. Reports differ
/// in this and in the order of their rows, and in nothing else.
/// </summary>
/// <typeparam name="TRow">What a row stands for.</typeparam>
/// <typeparam name="TFigure">What a column asks of it.</typeparam>
internal interface IFigures<TRow, TFigure>
    where TRow : struct
{
    /// <summary>
    /// What a row comes to, in the smallest units of its column; nothing where there is nothing to add up. Throws
    /// <see cref="OverflowException"/> where it does not fit.
    /// </summary>
    long? At(in TRow row, TFigure figure);

    /// <summary>The same as readers see it: with words, or with nothing where a zero says nothing.</summary>
    Cell CellAt(in TRow row, TFigure figure) => new(At(in row, figure));

    /// <summary>What stands for the whole of a report; nothing where it has no such whole.</summary>
    TRow? WholeOf(ShareOf whole);

    /// <summary>
    /// Adds the records behind a figure to what is behind a cell, or says why no records add up to it.
    /// </summary>
    void AddBehind(TRow row, TFigure figure, int sign, OriginRecords records);

    /// <summary>What a share is a percentage of, for who asks what is behind it.</summary>
    string InWords(FigureColumn<TFigure>.Share share);
}

/// <summary>The records behind a cell, as they are gathered.</summary>
internal sealed class OriginRecords
{
    /// <summary>Postings of stretches of days.</summary>
    public List<OriginPart> Parts { get; } = [];

    /// <summary>Single postings.</summary>
    public List<PostingEntry> Postings { get; } = [];

    /// <summary>Documents.</summary>
    public List<OriginItem> Items { get; } = [];

    /// <summary>What else goes into the figure.</summary>
    public string? Note { get; set; }

    /// <summary>What the figure is, where that is not money.</summary>
    public ColumnKind Kind { get; set; }

    /// <summary>What they come to, where that is not the figure itself; the note says how it follows from them.</summary>
    public Money.Amount? Figure { get; set; }

    /// <summary>Whether a figure has nothing to do with records: it is said of one.</summary>
    public bool IsNone { get; set; }

    /// <summary>Why no records add up to the figure; nothing where they do.</summary>
    public OriginRefusal? Refusal { get; private set; }

    /// <summary>Says why no records add up to the figure.</summary>
    public void Refuse(string message, string advice) => Refusal ??= new OriginRefusal(message, advice);

    /// <summary>Them as what is behind a figure.</summary>
    public CellOrigin Of(long figure, string? note) =>
        new(Figure ?? new Money.Amount(figure), Parts, note ?? Note) { Postings = Postings, Items = Items, Kind = Kind, Refusal = Refusal };
}
