using Vlei.Books;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Records.Maps;

namespace Vlei.Desk.Maps;

/// <summary>What a book has that a file may speak of.</summary>
internal sealed class RecordsOfBook : IKnownRecords, IDisposable
{
    private static readonly IReadOnlyList<RecordField> DocumentFields =
        [.. new[] { "id", "number", "contact" }.Select(name => RecordTables.Documents.Fields[RecordTables.Documents.IndexOf(name)])];

    private readonly LedgerReader _ledger;
    private readonly BookSettings _settings;
    private readonly Dictionary<RecordTable, IReadOnlyList<KnownName>> _named = [];
    private readonly Lazy<IReadOnlyList<KnownAccount>> _accounts;
    private readonly Lazy<ILookup<string, KnownDocument>> _documents;

    /// <summary>Opens the records.</summary>
    public RecordsOfBook(Book book)
    {
        (_ledger, _settings) = (LedgerReader.Open(book), book.Settings);
        _accounts = new Lazy<IReadOnlyList<KnownAccount>>(() => [.. _ledger.Accounts.Select(account => new KnownAccount(
            account.Code, account.Name, account.Type, account.Tags.ContainsKey(Account.TypeGuess)))]);
        _documents = new Lazy<ILookup<string, KnownDocument>>(ReadDocuments);
    }

    /// <inheritdoc/>
    public Currency Currency => _settings.Currency;

    /// <inheritdoc/>
    public IReadOnlyList<KnownAccount> Accounts => _accounts.Value;

    /// <inheritdoc/>
    public IReadOnlyList<KnownName> Named(RecordTable table)
    {
        if (!_named.TryGetValue(table, out var named))
        {
            var fields = new[] { table.Id!, "name" }.Select(name => table.Fields[table.IndexOf(name)]).ToList();
            _named[table] = named =
                [.. _ledger.ReadRecords(table, fields).Select(record => new KnownName(record.Values[0].Text!, record.Values[1].Text!))];
        }

        return named;
    }

    /// <inheritdoc/>
    public IReadOnlyList<KnownDocument> DocumentsNumbered(string number) => [.. _documents.Value[MapWords.Plain(number)]];

    /// <inheritdoc/>
    public DateOnly YearStart(DateOnly day) => _settings.Calendar.FiscalYear(_settings.Calendar.FiscalYearOf(day)).From;

    /// <inheritdoc/>
    public IReadOnlyDictionary<string, decimal> BalancesAt(DateOnly day, IReadOnlyCollection<string> without)
    {
        var units = (decimal)Math.Pow(10, Currency.Decimals);
        var codes = _ledger.Accounts.ToDictionary(account => account.Key, account => account.Code);
        var documents = without.Where(id => _ledger.HasRecord(RecordTables.Documents, id)).Select(id => _ledger.FindDocument(id)!.Value);
        return _ledger.BalancesAt(day, _settings.Calendar, [.. documents])
            .Where(balance => balance.Value != Amount.Zero)
            .ToDictionary(balance => codes[balance.Key], balance => balance.Value.MinorUnits / units);
    }

    /// <inheritdoc/>
    public void Dispose() => _ledger.Dispose();

    private ILookup<string, KnownDocument> ReadDocuments()
    {
        var units = (decimal)Math.Pow(10, Currency.Decimals);
        var totals = new Dictionary<int, decimal>();
        foreach (var item in _ledger.Extent is { } extent ? _ledger.ControlItems(extent.To) : Enumerable.Empty<ItemAt>())
        {
            totals[item.Document.Value] = totals.GetValueOrDefault(item.Document.Value) + (item.Total.MinorUnits / units);
        }

        var contacts = _ledger.Names(RecordTables.Contacts);
        return _ledger.ReadRecords(RecordTables.Documents, DocumentFields)
            .Where(document => totals.ContainsKey(document.Key) && document.Values[1].Text is { Length: > 0 })
            .ToLookup(
                document => MapWords.Plain(document.Values[1].Text!),
                document => new KnownDocument(
                    document.Values[0].Text!, document.Values[1].Text!,
                    contacts.IdOf((int)(document.Values[2].Number ?? 0)), totals[document.Key]));
    }
}
