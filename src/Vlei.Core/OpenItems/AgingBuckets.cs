using System.Globalization;
using Vlei.Core.Problems;

namespace Vlei.Core.OpenItems;

/// <summary>How many days late an item is, in a few classes: not late, then up to each limit, then later than the last.</summary>
public sealed class AgingBuckets
{
    private readonly int[] _limits;

    private AgingBuckets(IReadOnlyList<int> limits) => _limits = [.. limits];

    /// <summary>Up to 30, 60 and 90 days.</summary>
    public static AgingBuckets Usual { get; } = new([30, 60, 90]);

    /// <summary>How many there are.</summary>
    public int Count => _limits.Length + 2;

    /// <summary>Their keys: <c>current</c>, <c>1-30</c> … <c>over-90</c>.</summary>
    public IEnumerable<string> Keys =>
    [
        "current", .. _limits.Select((limit, place) => $"{(place == 0 ? 1 : _limits[place - 1] + 1)}-{limit}"), $"over-{_limits[^1]}",
    ];

    /// <summary>Those of a list of growing limits.</summary>
    public static AgingBuckets Of(IReadOnlyList<int> limits) => new(limits);

    /// <summary>
    /// Reads limits in days: <c>15,30,60</c>. Throws a <see cref="ProblemException"/> where they are no whole numbers that
    /// grow.
    /// </summary>
    public static IReadOnlyList<int> Parse(string text)
    {
        var limits = new List<int>();
        foreach (var part in text.Split(','))
        {
            if (!int.TryParse(part.Trim(), NumberStyles.None, CultureInfo.InvariantCulture, out var limit) || limit < 1)
            {
                throw new ProblemException(
                    ProblemKind.Usage, $"\"{part}\" is no number of days.", "Write whole numbers of days, growing: 15,30,60.");
            }

            if (limits.Count > 0 && limit <= limits[^1])
            {
                var growing = text.Split(',').Select(part => part.Trim()).Distinct().OrderBy(part => part.Length)
                    .ThenBy(part => part, StringComparer.Ordinal);
                throw new ProblemException(
                    ProblemKind.Usage, $"The limits are out of order: {limit} comes after {limits[^1]}.",
                    $"Write them growing: {string.Join(',', growing)}.");
            }

            limits.Add(limit);
        }

        return limits;
    }

    /// <summary>The place of the bucket for an item that is that many days late; less than 1 is not late.</summary>
    public int PlaceOf(int daysLate)
    {
        // There are few limits, and lateness is in no order: to compare with all of them costs less than to guess where to stop.
        var place = daysLate > 0 ? 1 : 0;
        foreach (var limit in _limits)
        {
            place += daysLate > limit ? 1 : 0;
        }

        return place;
    }

    /// <summary>What stands above the columns.</summary>
    public static string HeadingOf(string key) => key == "current" ? "Current"
        : key.StartsWith("over-", StringComparison.Ordinal) ? $"Over {key[5..]}"
        : key;
}
