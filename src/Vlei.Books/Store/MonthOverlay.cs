using Vlei.Core.Calendar;

namespace Vlei.Books.Store;

/// <summary>
/// Months in memory, which hide those of the same month below them: what an earlier revision needs, and what is made anew only to
/// be compared. A month that is written again, be it empty now, hides that below.
/// </summary>
/// <param name="below">What is seen where nothing was written; nothing where all is made anew.</param>
internal sealed class MonthOverlay(IMonths? below = null) : IWritableMonths
{
    private readonly Dictionary<(DerivedKind Kind, YearMonth Month), (MonthHead Head, MonthColumn[] Columns)> _written = [];

    /// <summary>The months that were written, in their order; those that went have no rows.</summary>
    public IEnumerable<(DerivedKind Kind, MonthHead Head, IReadOnlyList<MonthColumn> Columns)> All => _written
        .OrderBy(month => month.Key.Kind).ThenBy(month => month.Key.Month)
        .Select(month => (month.Key.Kind, month.Value.Head, (IReadOnlyList<MonthColumn>)month.Value.Columns));

    /// <summary>Whether what is below was thrown away.</summary>
    public bool IsCleared { get; private set; }

    private IMonths? _below = below;

    /// <inheritdoc/>
    public IReadOnlyList<(YearMonth Month, int Rows)> Months(DerivedKind kind) =>
        [.. (_below?.Months(kind) ?? []).Where(month => !_written.ContainsKey((kind, month.Month)))
            .Concat(Written(kind).Select(head => (head.Month, head.Rows))).OrderBy(month => month.Month)];

    /// <inheritdoc/>
    public IReadOnlyList<MonthHead> Heads(DerivedKind kind, YearMonth first, YearMonth last) =>
        [.. (_below?.Heads(kind, first, last) ?? []).Where(head => !_written.ContainsKey((kind, head.Month)))
            .Concat(Written(kind).Where(head => head.Month.Index >= first.Index && head.Month.Index <= last.Index))
            .OrderBy(head => head.Month)];

    /// <inheritdoc/>
    public IReadOnlyList<YearMonth> AllMonths(DerivedKind kind) =>
        [.. (_below?.AllMonths(kind) ?? []).Where(month => !_written.ContainsKey((kind, month)))
            .Concat(Written(kind).Select(head => head.Month)).Order()];

    /// <inheritdoc/>
    public bool TryColumn(DerivedKind kind, YearMonth month, string name, out ReadOnlySpan<byte> data, out long checksum)
    {
        if (_written.TryGetValue((kind, month), out var written))
        {
            var column = Array.Find(written.Columns, column => column.Name == name);
            data = column.Data;
            checksum = column.Checksum;
            return column.Name is not null;
        }

        data = default;
        checksum = 0;
        return _below?.TryColumn(kind, month, name, out data, out checksum) == true;
    }

    /// <inheritdoc/>
    public IReadOnlyList<MonthColumn> Columns(DerivedKind kind, YearMonth month) =>
        !_written.TryGetValue((kind, month), out var written) ? _below?.Columns(kind, month) ?? []
            : [.. written.Columns.OrderBy(column => column.Name, StringComparer.Ordinal)];

    /// <inheritdoc/>
    public void PutMonth(DerivedKind kind, MonthHead head, IReadOnlyList<MonthColumn> columns) =>
        _written[(kind, head.Month)] = (head, head.Rows > 0 ? [.. columns] : []);

    /// <inheritdoc/>
    public void ClearMonths()
    {
        _written.Clear();
        _below = null;
        IsCleared = true;
    }

    private IEnumerable<MonthHead> Written(DerivedKind kind) =>
        _written.Where(month => month.Key.Kind == kind && month.Value.Head.Rows > 0).Select(month => month.Value.Head);
}
