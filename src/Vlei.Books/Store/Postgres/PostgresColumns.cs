using Vlei.Core.Calendar;

namespace Vlei.Books.Store.Postgres;

/// <summary>
/// The columns of months. Who asks for a column of one month asks for it, and for the others that were asked for, of the next
/// months too: they come together, of more and more months.
/// </summary>
internal sealed class PostgresColumns(PostgresSession session, int book, Func<DerivedKind, IReadOnlyList<YearMonth>> monthsOf)
{
    private const int FirstMonths = 8;
    private const int MostMonths = 64;

    private readonly Dictionary<(DerivedKind Kind, YearMonth Month, string Name), (byte[] Data, long Checksum)?> _known = [];
    private readonly Dictionary<DerivedKind, (HashSet<string> Names, int Months)> _asked = [];

    /// <summary>A column of a month; false where it is not there.</summary>
    public bool TryColumn(DerivedKind kind, YearMonth month, string name, out ReadOnlySpan<byte> data, out long checksum)
    {
        if (!_known.TryGetValue((kind, month, name), out var column))
        {
            Bring(kind, month, name);
            column = _known[(kind, month, name)];
        }

        data = column?.Data;
        checksum = column?.Checksum ?? 0;
        return column is not null;
    }

    /// <summary>Takes columns that were brought: their kinds, months and names, their bytes and checksums.</summary>
    public void Take(BufferedRows rows)
    {
        while (rows.Next())
        {
            _known[((DerivedKind)rows.Int(0), YearMonth.FromNumber(rows.Int(1)), rows.Text(2))] = (rows.Blob(3), rows.Number(4));
        }
    }

    private void Bring(DerivedKind kind, YearMonth month, string name)
    {
        var (names, ahead) = _asked.GetValueOrDefault(kind, ([], FirstMonths));
        var isNew = names.Add(name);
        _asked[kind] = (names, isNew ? ahead : Math.Min(2 * ahead, MostMonths));
        foreach (var past in _known.Keys.Where(known => known.Kind == kind && known.Month.Index < month.Index).ToList())
        {
            _known.Remove(past);
        }

        YearMonth[] months = [month, .. monthsOf(kind).Where(next => next.Index > month.Index).Take(ahead - 1)];
        string[] missing = isNew ? [name] : [.. names];
        foreach (var one in months)
        {
            foreach (var column in missing)
            {
                _known.TryAdd((kind, one, column), null);
            }
        }

        Take(session.Query(
            "SELECT kind::bigint, month::bigint, name, data, checksum FROM derived_columns "
                + "WHERE book = $1 AND kind = $2 AND month = ANY ($3) AND name = ANY ($4)",
            book, (int)kind, months.Select(one => one.Number).ToArray(), missing));
    }
}
