using System.Collections.Immutable;
using Vlei.Core.Money;
using Vlei.Core.Reports;

namespace Vlei.Core.OpenItems;

/// <summary>What is open of each item at the end of a day, and in which class of lateness it is.</summary>
internal sealed class Aging
{
    private const int HalfWidth = 32;

    private readonly ControlHistory _history;
    private readonly ImmutableArray<Amount> _open;
    private readonly AgingBuckets _buckets;
    private readonly bool _byDocument;
    private readonly bool _keepsUnappliedApart;

    // The class of each item that is open; where it is asked for.
    private int[]? _classes;

    // A row asks for one class after the other: what its items have in each, and last in all together.
    private readonly Int128[] _sums;
    private ArraySegment<int>? _summed;

    // What is open of the items of an array of which parts are asked for, and their classes, in the order of the array: items lie
    // anywhere in memory, and looked up in a loop that does nothing else, they are waited for together. An array that is asked for as
    // a whole is not kept, so that sums of other groups do not take the place of this.
    private (int[]? Items, long[] Open, int[] Classes) _gathered = (null, [], []);

    /// <summary>Works it out.</summary>
    public Aging(ControlHistory history, DateOnly day, ReportRequest request)
    {
        (_history, Day, _open) = (history, day, history.OpenAt(day));
        (_byDocument, _keepsUnappliedApart) = (request.Items.AgesByDocument, request.Items.KeepsUnappliedApart);
        _buckets = BucketsOf(request);
        _sums = new Int128[ClassCount + 1];
    }

    /// <summary>The day.</summary>
    public DateOnly Day { get; }

    /// <summary>The keys and headings of the classes; where it is asked for, with one for what is not applied.</summary>
    public static IReadOnlyList<(string Key, string Heading)> Classes(ReportRequest request) =>
    [
        .. BucketsOf(request).Keys.Select(key => (key, AgingBuckets.HeadingOf(key))),
        .. request.Items.KeepsUnappliedApart ? new[] { ("unapplied", "Unapplied") } : [],
    ];

    /// <summary>What is open of an item.</summary>
    public Amount Open(int item) => _open[item];

    /// <summary>What is open of each.</summary>
    public ImmutableArray<Amount> OpenOfEach => _open;

    /// <summary>What is open of an item, if it is in that class.</summary>
    public Amount OpenIn(int item, int place) => (_classes ??= ClassOfEach())[item] == place ? _open[item] : Amount.Zero;

    /// <summary>
    /// What is open of some items in that class; in all together where it is the one after the last. Throws
    /// <see cref="OverflowException"/> where the sum does not fit.
    /// </summary>
    public long SumIn(ArraySegment<int> items, int place)
    {
        if (items != _summed)
        {
            Array.Clear(_sums);
            if (items.Count == items.Array!.Length)
            {
                AddWhole(items, _sums, _classes ??= ClassOfEach());
            }
            else
            {
                AddPart(items, _sums);
            }

            _summed = items;
        }

        return checked((long)_sums[place]);
    }

    /// <summary>How many classes there are.</summary>
    public int ClassCount => _buckets.Count + (_keepsUnappliedApart ? 1 : 0);

    /// <summary>
    /// How many days an item is late; less than 1 where it is not. What is on the other side (money not yet applied, a
    /// credit) counts from its own date.
    /// </summary>
    public int DaysLate(int item)
    {
        var items = _history.Items;
        return Day.DayNumber - (_byDocument || items.Totals[item].Sign < 0 ? items.Dates : items.Dues)[item];
    }

    private void AddWhole(ReadOnlySpan<int> items, Int128[] sums, int[] classes)
    {
        // The upper and the lower halves of all numbers of a class do not come to more than 64 bits each.
        var (high, low) = (new long[ClassCount], new long[ClassCount]);
        var open = _open.AsSpan();
        foreach (var item in items)
        {
            var (place, minor) = (classes[item], open[item].MinorUnits);
            high[place] += minor >> HalfWidth;
            low[place] += (uint)minor;
        }

        for (var place = 0; place < high.Length; place++)
        {
            sums[place] = ((Int128)high[place] << HalfWidth) + low[place];
            sums[^1] += sums[place];
        }
    }

    private void AddPart(ArraySegment<int> items, Int128[] sums)
    {
        if (items.Array != _gathered.Items)
        {
            _gathered = Gathered(items.Array!);
        }

        var open = _gathered.Open.AsSpan(items.Offset, items.Count);
        var classes = _gathered.Classes.AsSpan(items.Offset, items.Count);
        for (var at = 0; at < open.Length; at++)
        {
            sums[classes[at]] += open[at];
            sums[^1] += open[at];
        }
    }

    private (int[] Items, long[] Open, int[] Classes) Gathered(int[] items)
    {
        _classes ??= ClassOfEach();
        var (open, classes) = (new long[items.Length], new int[items.Length]);
        for (var place = 0; place < items.Length; place++)
        {
            open[place] = _open[items[place]].MinorUnits;
            classes[place] = _classes[items[place]];
        }

        return (items, open, classes);
    }

    private int[] ClassOfEach()
    {
        var classes = new int[_open.Length];
        var totals = _history.Items.Totals;
        for (var item = 0; item < classes.Length; item++)
        {
            if (!_open[item].IsZero)
            {
                classes[item] = _keepsUnappliedApart && totals[item].Sign < 0 ? _buckets.Count : _buckets.PlaceOf(DaysLate(item));
            }
        }

        return classes;
    }

    private static AgingBuckets BucketsOf(ReportRequest request) =>
        request.Items.Limits is { } limits ? AgingBuckets.Of(limits) : AgingBuckets.Usual;
}
