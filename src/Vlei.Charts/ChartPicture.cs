using System.Globalization;
using System.Text;
using ScottPlot;

namespace Vlei.Charts;

/// <summary>Draws a chart.</summary>
internal sealed class ChartPicture : IDisposable
{
    private const float TextSize = 15;
    private const float TitleSize = 17;
    private const int SharpPng = 2;
    private const double GroupWidth = 0.8;

    private static readonly LinePattern[] Patterns = [LinePattern.Solid, LinePattern.Dashed, LinePattern.Dotted, LinePattern.DenselyDashed];
    private static readonly MarkerShape[] Markers =
        [MarkerShape.FilledCircle, MarkerShape.FilledSquare, MarkerShape.FilledTriangleUp, MarkerShape.FilledDiamond,
            MarkerShape.OpenCircle, MarkerShape.OpenSquare];

    private const float RoomAtRight = 48;

    private readonly ChartRequest _request;
    private readonly Plot _plot = new();

    /// <summary>Lays a chart out.</summary>
    public ChartPicture(ChartRequest request)
    {
        _request = request;
        Fonts.FontResolvers.Clear();
        Fonts.FontResolvers.Add(new EmbeddedFont());
        Fonts.Default = EmbeddedFont.Name;
        _plot.Font.Set(EmbeddedFont.Name);
    }

    // What runs along the categories: the axis below for time, the one at the left for rows, which are read downwards.
    private bool IsUpright => _request.OfTime || _request.Kind == "lines";

    /// <summary>The picture.</summary>
    public byte[] Draw(bool isSvg)
    {
        _plot.Title($"{_request.Title}\n{_request.Subtitle}", TitleSize);
        switch (_request.Kind)
        {
            case "lines":
                AddLines();
                break;
            case "share":
                AddShares();
                break;
            default:
                AddBars(isStacked: _request.Kind == "stacked");
                break;
        }

        if (_request.Kind == "share")
        {
            _plot.Axes.Frameless();
            _plot.HideGrid();
            _plot.Axes.SquareUnits();
        }
        else
        {
            AddAxes();
        }

        if (_request.Series.Count > 1 || _request.Kind == "share")
        {
            _plot.ShowLegend(_request.Kind == "share" ? Edge.Right : Edge.Bottom);
            _plot.Legend.OutlineWidth = 0;
            _plot.Legend.ShadowColor = Colors.Transparent;
            _plot.Legend.FontSize = TextSize;
            _plot.Legend.FontName = EmbeddedFont.Name;
            _plot.Legend.SetBestFontOnEachRender = false;
        }
        else
        {
            _plot.HideLegend();
        }

        if (isSvg)
        {
            return Encoding.UTF8.GetBytes(_plot.GetSvgXml(_request.Width, _request.Height));
        }

        _plot.ScaleFactor = SharpPng;
        return _plot.GetImage(_request.Width * SharpPng, _request.Height * SharpPng).GetImageBytes(ImageFormat.Png);
    }

    /// <inheritdoc/>
    public void Dispose() => _plot.Dispose();

    private Color ColourAt(int place) => Color.FromHex($"#{_request.Colours[place]:X6}");

    private void AddLines()
    {
        for (var place = 0; place < _request.Series.Count; place++)
        {
            var series = _request.Series[place];
            double[] along = [.. Enumerable.Range(0, series.Values.Count)];
            var line = _plot.Add.Scatter(along, [.. series.Values.Select(value => value ?? double.NaN)], ColourAt(place));
            line.LegendText = series.Name;
            line.LineWidth = 2.5f;
            line.LinePattern = Patterns[place % Patterns.Length];
            line.MarkerShape = Markers[place % Markers.Length];
            line.MarkerSize = 9;
        }
    }

    private void AddBars(bool isStacked)
    {
        var count = _request.Series.Count;
        var size = isStacked ? GroupWidth : GroupWidth / count;
        double[] above = new double[_request.Categories.Count], below = new double[_request.Categories.Count];
        for (var place = 0; place < count; place++)
        {
            var bars = new List<Bar>();
            for (var category = 0; category < _request.Categories.Count; category++)
            {
                if (_request.Series[place].Values[category] is not { } value)
                {
                    continue;
                }

                var ends = value < 0 ? below : above;
                var start = isStacked ? ends[category] : 0;
                ends[category] += value;
                var offset = isStacked ? 0 : (place - ((count - 1) / 2.0)) * size;
                bars.Add(new Bar
                {
                    Position = IsUpright ? category + offset : -category - offset, ValueBase = start, Value = start + value,
                    Size = size * 0.94,
                    FillColor = ColourAt(place), LineWidth = 0, Orientation = IsUpright ? Orientation.Vertical : Orientation.Horizontal,
                    FillHatch = place % 2 == 1 ? new ScottPlot.Hatches.Striped(
                        place % 4 == 1 ? ScottPlot.Hatches.StripeDirection.DiagonalUp : ScottPlot.Hatches.StripeDirection.DiagonalDown)
                            : null,
                    FillHatchColor = ColourAt(place).Lighten(0.35),
                });
            }

            var drawn = _plot.Add.Bars(bars);
            drawn.LegendText = _request.Series[place].Name;
            drawn.Horizontal = !IsUpright;
        }
    }

    private void AddShares()
    {
        var values = _request.Series[0].Values.Select(value => value ?? 0).ToList();
        var whole = values.Sum();
        var pie = _plot.Add.Pie([.. values.Select((value, place) => new PieSlice
        {
            Value = value, FillColor = ColourAt(place),
            LegendText = $"{_request.Categories[place]}  {Number(whole == 0 ? 0 : 100 * value / whole, 1)} %",
        })]);
        pie.LineColor = Colors.White;
        pie.LineWidth = 2;
        pie.DonutFraction = 0.5;
    }

    private void AddAxes()
    {
        var (categories, values) = IsUpright ? ((IAxis)_plot.Axes.Bottom, (IAxis)_plot.Axes.Left) : (_plot.Axes.Left, _plot.Axes.Bottom);
        var every = Math.Max(
            1, IsUpright ? (int)Math.Ceiling(
                _request.Categories.Count * _request.Categories.Max(name => name.Length) * 8.5 / _request.Width) : 1);
        categories.TickGenerator = new ScottPlot.TickGenerators.NumericManual(
            [.. _request.Categories.Select((name, place) => (name, place)).Where(one => one.place % every == 0)
                .Select(one => new Tick(IsUpright ? one.place : -one.place, one.name))]);
        values.TickGenerator = new ScottPlot.TickGenerators.NumericAutomatic
        {
            LabelFormatter = value => Number(value, DecimalsOf(value)),
            TargetTickCount = 7,
        };
        foreach (var axis in new[] { categories, values })
        {
            axis.TickLabelStyle.FontSize = TextSize;
            axis.TickLabelStyle.FontName = EmbeddedFont.Name;
            axis.MajorTickStyle.Length = 0;
            axis.MinorTickStyle.Length = 0;
            axis.FrameLineStyle.Width = 0;
        }

        _plot.Axes.Top.IsVisible = false;

        // Room at the right, where the last label of the axis below stands half outside.
        _plot.Axes.Right.TickLabelStyle.IsVisible = false;
        _plot.Axes.Right.MajorTickStyle.Length = _plot.Axes.Right.MinorTickStyle.Length = 0;
        _plot.Axes.Right.FrameLineStyle.Width = 0;
        _plot.Axes.Right.MinimumSize = _plot.Axes.Right.MaximumSize = RoomAtRight;
        _plot.Grid.XAxisStyle.IsVisible = !IsUpright;
        _plot.Grid.YAxisStyle.IsVisible = IsUpright;
        _plot.Grid.MajorLineColor = Color.FromHex("#D5DADF");
        var all = _request.Series.SelectMany(series => series.Values).OfType<double>().ToList();
        if (_request.Kind == "stacked")
        {
            all.AddRange(
                Enumerable.Range(0, _request.Categories.Count).Select(
                    place => _request.Series.Sum(series => Math.Max(0, series.Values[place] ?? 0))));
            all.AddRange(
                Enumerable.Range(0, _request.Categories.Count).Select(
                    place => _request.Series.Sum(series => Math.Min(0, series.Values[place] ?? 0))));
        }

        var (least, most) = (Math.Min(0, all.DefaultIfEmpty(0).Min()), Math.Max(0, all.DefaultIfEmpty(0).Max()));
        var room = most == least ? 1 : (most - least) * 0.06;
        var (from, to) = (least < 0 ? least - room : 0, most > 0 ? most + room : room);
        if (IsUpright)
        {
            _plot.Axes.SetLimits(-0.6, _request.Categories.Count - 0.4, from, to);
            _plot.Add.HorizontalLine(0, 1.2f, Color.FromHex("#4A545E"));
        }
        else
        {
            _plot.Axes.SetLimits(from, to, -_request.Categories.Count + 0.4, 0.6);
            _plot.Add.VerticalLine(0, 1.2f, Color.FromHex("#4A545E"));
        }
    }

    private static int DecimalsOf(double value) => Math.Abs(value) is > 0 and < 10 && value != Math.Round(value) ? 2 : 0;

    private string Number(double value, int decimals)
    {
        var format = (NumberFormatInfo)NumberFormatInfo.InvariantInfo.Clone();
        (format.NumberGroupSeparator, format.NumberDecimalSeparator) = (_request.Thousands, _request.DecimalMark);
        return value.ToString($"N{decimals}", format);
    }
}
