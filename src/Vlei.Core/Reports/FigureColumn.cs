namespace Vlei.Core.Reports;

/// <summary>
/// What a column of a report shows. This is the one closed set that there is: a figure that the records come to, or something
/// that follows from such figures. <typeparamref name="TFigure"/> is how a kind of report names its figures: over which days,
/// of what, narrowed to what.
/// </summary>
/// <param name="Shown">The column as readers see it.</param>
internal abstract record FigureColumn<TFigure>(ReportColumn Shown)
{
    /// <summary>A figure that the records come to, or something that is said of single records.</summary>
    /// <param name="Shown">The column.</param>
    /// <param name="Of">The figure.</param>
    public sealed record Base(ReportColumn Shown, TFigure Of) : FigureColumn<TFigure>(Shown);

    /// <summary>What one figure is more than an earlier one.</summary>
    /// <param name="Shown">The column.</param>
    /// <param name="Current">The figure.</param>
    /// <param name="Earlier">The earlier one.</param>
    public sealed record Change(ReportColumn Shown, TFigure Current, TFigure Earlier) : FigureColumn<TFigure>(Shown);

    /// <summary>The change as a percentage of the size of the earlier figure.</summary>
    /// <param name="Shown">The column.</param>
    /// <param name="Current">The figure.</param>
    /// <param name="Earlier">The earlier one.</param>
    /// <param name="EarlierHeading">What the earlier one is called.</param>
    public sealed record PercentChange(ReportColumn Shown, TFigure Current, TFigure Earlier, string EarlierHeading)
        : FigureColumn<TFigure>(Shown);

    /// <summary>A figure as a percentage of a whole.</summary>
    /// <param name="Shown">The column.</param>
    /// <param name="Part">The figure.</param>
    /// <param name="Of">What the whole is.</param>
    /// <param name="Total">The same over all the columns that the figure is spread over; the figure itself where it is not.</param>
    public sealed record Share(ReportColumn Shown, TFigure Part, ShareOf Of, TFigure Total) : FigureColumn<TFigure>(Shown);
}
