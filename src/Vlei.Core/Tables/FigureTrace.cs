using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Reports;

namespace Vlei.Core.Tables;

/// <summary>
/// What is behind a figure of a report: its records, or the figures of the same report that it is made of, so that no record is told
/// twice.
/// </summary>
/// <param name="Figure">Where the figure stands.</param>
/// <param name="Parts">The figures that it is made of, with what they count in it.</param>
/// <param name="IsSum">Whether the parts add up to it; they do not to a percentage of one of another.</param>
/// <param name="Records">The records, besides the parts; nothing where the parts are all.</param>
internal sealed record FigureTrace(
    CellPlace Figure, IReadOnlyList<(CellPlace Figure, long Units)> Parts, bool IsSum, Report? Records)
{
    /// <summary>What is behind each figure, in the order of rows.</summary>
    /// <param name="report">The report.</param>
    /// <param name="ledger">The records of the book.</param>
    public static IReadOnlyList<FigureTrace> Of(Report report, ILedger ledger)
    {
        var (records, texts) = (report.MadeFrom ?? ledger, new PostingTexts(report.MadeFrom ?? ledger));
        var workings = ReportWorkings.Of(report);
        var (traces, place) = (new List<FigureTrace>(), 0);
        var places = report.Rows.Index().Where(known => known.Item.Kind != RowKind.Heading).DistinctBy(known => known.Item.Key)
            .ToDictionary(known => known.Item.Key, known => known.Index);
        foreach (var row in report.Rows)
        {
            var origins = new List<(CellPlace Figure, CellOrigin Origin)>();
            workings.Take(row, place);
            for (var column = 0; column < report.Columns.Count; column++)
            {
                var figure = new CellPlace(place, column);

                // What is worked out from other figures has no records of its own; those figures have.
                if (row.Cells[column].Units is null || report.OriginOf(place, column) is not { Refusal: null } origin)
                {
                    continue;
                }

                var joined = Joined(origin);
                if (PartsOf(report, workings.Of(row, place, column)) is var (parts, isSum))
                {
                    origins.Add((figure, joined));
                    traces.Add(new FigureTrace(figure, parts, isSum, null));
                    continue;
                }

                var (before, more) = Continued(origins, joined, origin);
                IReadOnlyList<CellPlace> within = before is { } part ? [part] : [];
                if (before is null && row is { Kind: RowKind.Account, MadeOf: { } made } && origin is { Postings.Count: 0, Items.Count: 0 })
                {
                    var below = made.Where(part => places.ContainsKey(part.Key)).Select(part => new CellPlace(places[part.Key], column));
                    (within, more) = Besides(report, below, origin);
                }

                origins.Add((figure, joined));
                traces.Add(new FigureTrace(
                    figure, [.. within.Select(part => (part, report.Rows[part.Row].Cells[part.Column].Units!.Value))], IsSum: true,
                    more is null ? null : TraceList.Of(report, records, figure, more, all: false, texts)));
            }

            place++;
        }

        return traces;
    }

    private static (IReadOnlyList<(CellPlace, long)> Parts, bool IsSum)? PartsOf(Report report, Working? working) => working switch
    {
        Working.Sum sum => Explained(report, [.. sum.Terms.SelectMany(term => CellsOf(term).Select(cell =>
            (cell, (report.Rows[cell.Row].Cells[cell.Column].Units ?? 0) * term.Sign)))], isSum: true),
        Working.Share share => Explained(
            report, [.. new[] { share.Part, share.Whole }.Select(cell => (cell, report.Rows[cell.Row].Cells[cell.Column].Units ?? 0))],
            isSum: false),
        _ => null,
    };

    // Parts that have no records themselves would leave the figure without any. What comes to nothing adds nothing to a sum; where
    // its records cancel out, they stand with it.
    private static (IReadOnlyList<(CellPlace, long)>, bool)? Explained(
        Report report, IReadOnlyList<(CellPlace Cell, long Units)> parts, bool isSum)
    {
        var counting = isSum ? [.. parts.Where(part => part.Units != 0)] : parts;
        return parts.Count > 0
            && (counting.Count > 0 ? counting : parts).All(part => report.OriginOf(part.Cell.Row, part.Cell.Column) is { Refusal: null })
            ? (counting, isSum) : null;
    }

    private static IEnumerable<CellPlace> CellsOf(SumTerm term) =>
        from row in Enumerable.Range(term.First.Row, term.Last.Row - term.First.Row + 1)
        from column in Enumerable.Range(term.First.Column, term.Last.Column - term.First.Column + 1)
        select new CellPlace(row, column);

    // What a figure has more than one before it in its row: nothing where it is the same, a later balance the days since then.
    private static (CellPlace? Before, CellOrigin? More) Continued(
        List<(CellPlace Figure, CellOrigin Origin)> known, CellOrigin origin, CellOrigin own)
    {
        foreach (var (figure, before) in Enumerable.Reverse(known).Where(known => HasSameRecords(known.Origin, origin)))
        {
            if (before.Parts.Count == 0 || before.Parts[^1].Range == origin.Parts[^1].Range)
            {
                return (figure, null);
            }

            if (before.Parts[^1].Range is var done && origin.Parts[^1].Range is var all && done.From == all.From && done.To < all.To)
            {
                return (figure, origin with
                {
                    Figure = origin.Figure - before.Figure,
                    Parts = [origin.Parts[^1] with { Range = all with { From = done.To.AddDays(1) } }],
                    Postings = [],
                    Items = [],
                });
            }
        }

        return (null, own);
    }

    // What an account has itself, besides those below it that stand in the report.
    private static (IReadOnlyList<CellPlace> Below, CellOrigin Own) Besides(
        Report report, IEnumerable<CellPlace> below, CellOrigin origin)
    {
        var (taken, own) = (new List<CellPlace>(), origin);
        foreach (var cell in below.Where(cell => report.Rows[cell.Row].Cells[cell.Column].Units is not (null or 0)))
        {
            if (report.OriginOf(cell.Row, cell.Column) is { Refusal: null, Kind: ColumnKind.Money } part
                && part.Parts.Count == own.Parts.Count && own.Parts.Zip(part.Parts).All(pair => Holds(pair.First, pair.Second)))
            {
                taken.Add(cell);
                own = own with
                {
                    Figure = own.Figure - part.Figure,
                    Parts =
                    [
                        .. own.Parts.Zip(part.Parts, (all, less) => all with { Terms = [.. all.Terms.Except(less.Terms)] }),
                    ],
                };
            }
        }

        return (taken, own);
    }

    private static bool Holds(OriginPart all, OriginPart part) => IsSame(all.Filter, part.Filter) && !part.Terms.Except(all.Terms).Any()
        && all with { Heading = part.Heading, Terms = part.Terms, Filter = part.Filter } == part;

    // Parts that follow one another and are of the same are one: the days before a month and those of it.
    private static CellOrigin Joined(CellOrigin origin)
    {
        var parts = new List<OriginPart>();
        foreach (var part in origin.Parts)
        {
            if (parts.FindIndex(known => !known.IsBroughtForward && known.Range.To.AddDays(1) == part.Range.From
                && known.Terms.SequenceEqual(part.Terms)
                && known with { Terms = part.Terms, Range = part.Range, Heading = part.Heading } == part) is >= 0 and var before)
            {
                parts[before] = part with { Range = parts[before].Range with { To = part.Range.To } };
            }
            else
            {
                parts.Add(part);
            }
        }

        return origin with { Parts = parts };
    }

    // But for how far their last part goes.
    private static bool HasSameRecords(CellOrigin one, CellOrigin other) => one.Kind == other.Kind
        && one.Items.SequenceEqual(other.Items) && one.Postings.SequenceEqual(other.Postings)
        && one.Parts.Count == other.Parts.Count && one.Parts.Zip(other.Parts).Index().All(pair =>
            pair.Item.First.Terms.SequenceEqual(pair.Item.Second.Terms) && IsSame(pair.Item.First.Filter, pair.Item.Second.Filter)
            && pair.Item.First with
            {
                Heading = pair.Item.Second.Heading,
                Terms = pair.Item.Second.Terms,
                Filter = pair.Item.Second.Filter,
                Range = pair.Index == one.Parts.Count - 1 ? pair.Item.Second.Range : pair.Item.First.Range,
            } == pair.Item.Second);

    private static bool IsSame(Selection one, Selection other) =>
        ReferenceEquals(one, other) || (one.IsEverything && other.IsEverything);
}
