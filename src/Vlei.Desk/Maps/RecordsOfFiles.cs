using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Records.Maps;
using Vlei.Records.Maps.Reading;

namespace Vlei.Desk.Maps;

/// <summary>What a book has, together with the documents that other files have, which a file may pay.</summary>
internal sealed class RecordsOfFiles(IKnownRecords book, MappedImport files) : IKnownRecords
{
    /// <inheritdoc/>
    public Currency Currency => book.Currency;

    /// <inheritdoc/>
    public IReadOnlyList<KnownAccount> Accounts => book.Accounts;

    /// <inheritdoc/>
    public IReadOnlyList<KnownName> Named(RecordTable table) => book.Named(table);

    /// <inheritdoc/>
    public IReadOnlyList<KnownDocument> DocumentsNumbered(string number) =>
        files.Payable(number) is { Count: > 0 } here ? here : book.DocumentsNumbered(number);

    /// <inheritdoc/>
    public DateOnly YearStart(DateOnly day) => book.YearStart(day);

    /// <inheritdoc/>
    public IReadOnlyDictionary<string, decimal> BalancesAt(DateOnly day, IReadOnlyCollection<string> without) =>
        book.BalancesAt(day, without);
}
