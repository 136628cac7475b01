using System.Collections;
using System.Runtime.InteropServices;
using Vlei.Core.Money;

namespace Vlei.Core.Ledger;

/// <summary>
/// What documents put on control accounts, by date and document, as columns that belong to whoever asked for them: there are hundreds
/// of thousands of items, most reports look at two or three things of each, and whom each is with and what kind it is are read where
/// somebody asks.
/// </summary>
public sealed class ItemColumns : IReadOnlyList<ItemAt>
{
    private const int IntColumns = 6;
    private const int AmountWidth = sizeof(long) / sizeof(int);

    // All of them in one array: of several large ones, each would bring a collection nearer.
    private readonly int[] _columns;
    private readonly int _room;

    // Where the columns are that are filled in when somebody asks.
    private readonly Lazy<int> _contacts;
    private readonly Lazy<int> _kinds;

    /// <summary>Makes room for some.</summary>
    /// <param name="count">How many; what they are is filled in.</param>
    /// <param name="fillContacts">Fills in the keys of the contacts.</param>
    /// <param name="fillKinds">Fills in the numbers of the documents' kinds.</param>
    public ItemColumns(int count, Action<Span<int>> fillContacts, Action<Span<int>> fillKinds)
    {
        (_room, Count, _contacts, _kinds) = (count, count, Later(4, fillContacts), Later(5, fillKinds));
        _columns = GC.AllocateUninitializedArray<int>(checked(count * (IntColumns + AmountWidth)));
    }

    /// <summary>How many they are.</summary>
    public int Count { get; private set; }

    /// <summary>What the documents put there; debit positive.</summary>
    public Span<Amount> Totals => MemoryMarshal.Cast<int, Amount>(_columns.AsSpan(0, Count * AmountWidth));

    /// <summary>The keys of the documents.</summary>
    public Span<int> Documents => Column(0);

    /// <summary>The keys of the control accounts.</summary>
    public Span<int> Accounts => Column(1);

    /// <summary>The numbers of the days of the documents' dates, which never go back.</summary>
    public Span<int> Dates => Column(2);

    /// <summary>The numbers of the days by which they should be settled.</summary>
    public Span<int> Dues => Column(3);

    /// <summary>The keys of the contacts, 0 for none.</summary>
    public ReadOnlySpan<int> Contacts => Column(_contacts.Value);

    /// <summary>The numbers of the documents' kinds.</summary>
    public ReadOnlySpan<int> Kinds => Column(_kinds.Value);

    /// <inheritdoc/>
    public ItemAt this[int index] => new(this, index);

    /// <summary>Lets go of those behind the first few.</summary>
    public void Keep(int count) => Count = count;

    /// <summary>How many are of a day or of earlier ones.</summary>
    public int CountUntil(DateOnly day)
    {
        var (low, high) = (0, Count);
        while (low < high)
        {
            var middle = low + ((high - low) / 2);
            (low, high) = Dates[middle] <= day.DayNumber ? (middle + 1, high) : (low, middle);
        }

        return low;
    }

    /// <inheritdoc/>
    public IEnumerator<ItemAt> GetEnumerator() => Enumerable.Range(0, Count).Select(place => this[place]).GetEnumerator();

    /// <inheritdoc/>
    IEnumerator IEnumerable.GetEnumerator() => GetEnumerator();

    private Span<int> Column(int place) => _columns.AsSpan((AmountWidth + place) * _room, Count);

    private Lazy<int> Later(int place, Action<Span<int>> fill) => new(() =>
    {
        fill(_columns.AsSpan((AmountWidth + place) * _room, _room));
        return place;
    });
}
