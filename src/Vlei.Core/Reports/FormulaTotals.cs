namespace Vlei.Core.Reports;

/// <summary>
/// What totals come to in a column that is rounded in each row: where a total adds up its rows in the columns that the formula is
/// about, it adds them up in the column of the formula too, so that the column foots.
/// </summary>
internal sealed class FormulaTotals
{
    private readonly int[] _sources;
    private readonly Dictionary<string, long[]> _counted = new(StringComparer.Ordinal);
    private readonly Dictionary<string, long[]> _rows = new(StringComparer.Ordinal);
    private readonly Dictionary<string, long> _totals = new(StringComparer.Ordinal);

    /// <summary>Goes over the rows of a report once.</summary>
    /// <param name="rows">The rows.</param>
    /// <param name="sources">The places of the columns that the formula is about.</param>
    /// <param name="ownOf">What a row comes to by itself.</param>
    public FormulaTotals(IEnumerable<ReportRow> rows, int[] sources, Func<ReportRow, long?> ownOf)
    {
        _sources = sources;
        foreach (var row in rows.Where(row => row.Kind != RowKind.Heading && row.InsteadOfMoney is null))
        {
            var figures = FiguresOf(row);
            var sum = SumOf(row) is { } parts && parts.SkipLast(1).SequenceEqual(figures) ? parts[^1] : default(long?);
            if (sum is { } total)
            {
                _totals[row.Key] = total;
            }

            long[] all = [.. figures, sum ?? ownOf(row) ?? 0];
            _rows[row.Key] = all;
            if (row.CountsIn is { } counts)
            {
                _counted[counts] = Together(_counted.GetValueOrDefault(counts), all, 1);
            }
        }
    }

    /// <summary>What a total comes to; nothing for a row that adds up none.</summary>
    public long? Of(string key) => _totals.TryGetValue(key, out var total) ? total : null;

    private long[] FiguresOf(ReportRow row) => [.. _sources.Select(source => row.Cells[source].Units ?? 0)];

    private long[]? SumOf(ReportRow row)
    {
        if (_counted.TryGetValue(row.Key, out var counted))
        {
            return counted;
        }

        var sum = default(long[]);
        foreach (var (key, sign) in row.MadeOf ?? [])
        {
            if ((_rows.GetValueOrDefault($"total-{key}") ?? _rows.GetValueOrDefault(key)) is not { } part)
            {
                return null;
            }

            sum = Together(sum, part, sign);
        }

        return sum;
    }

    private static long[] Together(long[]? sum, long[] more, int sign) =>
        sum is null ? [.. more.Select(units => checked(sign * units))] : [.. sum.Zip(more, (one, other) => checked(one + (sign * other)))];
}
