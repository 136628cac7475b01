namespace Vlei.Core.Reports;

/// <summary>The columns of a report, in their order, as they are laid out.</summary>
internal sealed class FigureColumns<TFigure>
{
    private readonly List<FigureColumn<TFigure>> _columns = [];

    /// <summary>The columns, each with what it shows.</summary>
    public IReadOnlyList<FigureColumn<TFigure>> All => _columns;

    /// <summary>The columns as readers see them.</summary>
    public IReadOnlyList<ReportColumn> Shown => [.. _columns.Select(column => column.Shown)];

    /// <summary>How many there are.</summary>
    public int Count => _columns.Count;

    /// <summary>The column at a place.</summary>
    public FigureColumn<TFigure> this[int place] => _columns[place];

    /// <summary>The place of the column with that key, in any case; less than 0 where there is none.</summary>
    public int PlaceOf(string key) => _columns.FindIndex(column => column.Shown.Key.Equals(key, StringComparison.OrdinalIgnoreCase));

    /// <summary>The figure that a column shows itself. Throws where it follows from others.</summary>
    public TFigure FigureAt(int place) => ((FigureColumn<TFigure>.Base)_columns[place]).Of;

    /// <summary>Adds a figure, and gives its place.</summary>
    public int Add(ReportColumn shown, TFigure figure)
    {
        _columns.Add(new FigureColumn<TFigure>.Base(shown, figure));
        return _columns.Count - 1;
    }

    /// <summary>Adds a share that is a column of its own.</summary>
    public void AddShare(ReportColumn shown, TFigure part, ShareOf of, TFigure total) =>
        _columns.Add(new FigureColumn<TFigure>.Share(shown, part, of, total));

    /// <summary>Adds, beside a figure, its percentages.</summary>
    /// <param name="place">The place of the figure.</param>
    /// <param name="percents">What of.</param>
    /// <param name="total">The same over all the columns that it is spread over.</param>
    public void AddShares(int place, IEnumerable<ShareOf> percents, TFigure total)
    {
        foreach (var percent in percents.Distinct())
        {
            AddShare(ReportColumn.ShareOf(percent, _columns[place].Shown), FigureAt(place), percent, total);
        }
    }

    /// <summary>Adds what a figure is more than an earlier one, in its own units and as a percentage.</summary>
    /// <param name="current">The place of the figure.</param>
    /// <param name="earlier">The place of the earlier one.</param>
    /// <param name="isOfBases">Whether they are the same on two bases: that one is more than the other is no change.</param>
    public void AddChange(int current, int earlier, bool isOfBases = false)
    {
        var (now, then) = (_columns[current].Shown, _columns[earlier].Shown);
        var shown = ReportColumn.ChangeOf(now, then);
        _columns.Add(
            new FigureColumn<TFigure>.Change(
                isOfBases ? shown with { Heading = "Difference" } : shown, FigureAt(current), FigureAt(earlier)));
        _columns.Add(new FigureColumn<TFigure>.PercentChange(
            ReportColumn.PercentChangeOf(now, then), FigureAt(current), FigureAt(earlier), then.Heading));
    }

    /// <summary>Says of a column that it adds up others.</summary>
    public void AddUp(int total, IEnumerable<int> parts) => AddUp(total, parts.Select(part => (part, 1)));

    /// <summary>Says of a column that it adds up others, each as often as its sign says.</summary>
    public void AddUp(int total, IEnumerable<(int Place, int Sign)> parts) => _columns[total] = _columns[total] with
    {
        Shown = _columns[total].Shown with { MadeOf = [.. parts.Select(part => (_columns[part.Place].Shown.Key, part.Sign))] },
    };
}
