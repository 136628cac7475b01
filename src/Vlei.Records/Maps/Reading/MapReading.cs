using System.Globalization;
using System.IO.Hashing;
using System.Text;
using Vlei.Core.Ledger;

namespace Vlei.Records.Maps.Reading;

/// <summary>What the files of one import come to: the records that they make, those that they speak of, and what they prove.</summary>
internal sealed class MapReading
{
    private readonly Dictionary<(RecordTable Table, string File), MappedRecords> _records = [];
    private readonly Dictionary<RecordTable, NameFinder> _names;
    private readonly Dictionary<string, List<KnownDocument>> _payable = [];
    private readonly Dictionary<UInt128, int> _contents = [];
    private readonly Dictionary<string, SortedDictionary<DateOnly, decimal>> _posted = [];
    private readonly HashSet<(RecordTable Table, string Id)> _described = [];
    private readonly List<(string Id, DateOnly Date)> _ids = [];
    private readonly List<(DateOnly Day, int Rank, Action Action)> _atEnd = [];
    private (RecordTable? Table, MappedRecords? Records) _last;
    private SourceFile _file = null!;

    /// <summary>Begins with what the book has.</summary>
    public MapReading(IKnownRecords known, MapWords words, RecordErrors errors)
    {
        (Known, Words, Errors) = (known, words, errors);
        Accounts = new AccountFinder(known, words);
        _names = RecordTables.Lists.Where(table => table != RecordTables.Accounts)
            .ToDictionary(table => table, table => new NameFinder(table, known));
    }

    /// <summary>What the book has.</summary>
    public IKnownRecords Known { get; }

    /// <summary>What things are called.</summary>
    public MapWords Words { get; }

    /// <summary>What is wrong.</summary>
    public RecordErrors Errors { get; }

    /// <summary>What proves, and what does not.</summary>
    public SourceProof Proof { get; } = new();

    /// <summary>The accounts.</summary>
    public AccountFinder Accounts { get; }

    /// <summary>What a file cannot say, and what follows from that.</summary>
    public List<string> Notes { get; } = [];

    /// <summary>What accounts must come to in the book.</summary>
    public List<BalanceProof> Balances { get; } = [];

    /// <summary>The first documents, to be shown.</summary>
    public List<DraftDocument> First { get; } = [];

    /// <summary>Whether some of the files have balances, which what the others post is held against.</summary>
    public bool KeepsBalances { get; init; }

    /// <summary>How many documents there are.</summary>
    public int DocumentCount { get; private set; }

    /// <summary>The days of the documents; nothing where there are none.</summary>
    public (DateOnly From, DateOnly To)? Days { get; private set; }

    /// <summary>Everything that was found, ready to be read as records.</summary>
    public IEnumerable<(RecordTable Table, MappedRecords Records)> Records =>
        _records.Where(records => records.Value.Count > 0).Select(records => (records.Key.Table, records.Value));

    /// <summary>The finder of a list.</summary>
    public NameFinder Names(RecordTable table) => _names[table];

    /// <summary>Whether a list describes a record, rather than a document that only speaks of it.</summary>
    public bool IsDescribed(RecordTable table, string id) => _described.Contains((table, id));

    /// <summary>Says that a list describes a record.</summary>
    public void Describe(RecordTable table, string id) => _described.Add((table, id));

    /// <summary>Goes on with another file.</summary>
    public void BeginFile(SourceFile file)
    {
        (_file, _last) = (file, default);
        Accounts.BeginFile();
        foreach (var finder in _names.Values)
        {
            finder.BeginFile();
        }
    }

    /// <summary>The records of a kind that come of the file at hand.</summary>
    public MappedRecords Of(RecordTable table)
    {
        if (ReferenceEquals(table, _last.Table))
        {
            return _last.Records!;
        }

        if (!_records.TryGetValue((table, _file.Name), out var records))
        {
            _records[(table, _file.Name)] = records = new MappedRecords(table, _file.Name, _file.File, Accounts.Later);
        }

        _last = (table, records);
        return records;
    }

    /// <summary>
    /// Takes a document; one without an id gets one of its content, and of how many there were of the same content before, so that it has
    /// the same one in every file that has it.
    /// </summary>
    public void Add(DraftDocument document, string prefix)
    {
        if (document.Id.Length == 0)
        {
            document.Id = prefix + IdOf(document);
        }

        Begin(document);
        foreach (var line in document.Lines)
        {
            AddLine(document, line);
        }
    }

    /// <summary>Takes a document whose lines follow one by one.</summary>
    public void Begin(DraftDocument document)
    {
        const int Shown = 3;
        DocumentCount++;
        if (KeepsBalances)
        {
            _ids.Add((document.Id, document.Date));
        }

        if (First.Count < Shown)
        {
            First.Add(document);
        }

        Days = Days is var (from, to)
            ? (document.Date < from ? document.Date : from, document.Date > to ? document.Date : to) : (document.Date, document.Date);
        var records = Of(RecordTables.Documents);
        records.Begin(document.Line);
        records.Put("id", document.Id, 1);
        records.Put("kind", document.Kind, 1);
        records.Put("date", Iso(document.Date), 1);
        records.Put("due", document.Due is { } due ? Iso(due) : "", 1);
        records.Put("number", document.Number, 1);
        records.Put("contact", document.Contact, 1);
        records.Put("reference", document.Reference, 1);
        records.Put("memo", document.Memo, 1);
        foreach (var (tag, value) in document.Tags)
        {
            records.PutTag(tag, value);
        }

        records.End();
    }

    /// <summary>Takes a line of a document.</summary>
    public void AddLine(DraftDocument document, DraftLine line)
    {
        Accounts.Note(line.Account, line.Amount);
        if (KeepsBalances)
        {
            NotePosted(line.Account, document.Date, line.Amount);
        }

        var records = Of(RecordTables.Lines);
        records.Begin(line.Line);
        records.Put("document", document.Id, 1);
        records.Put("account", line.Account, line.Column);
        records.Put("amount", line.Amount, line.Column);
        records.Put("contact", line.Contact == document.Contact ? "" : line.Contact, 1);
        records.Put("item", line.Item, 1);
        if (line.Quantity is { } quantity)
        {
            records.Put("quantity", quantity, 1);
        }

        if (line.UnitPrice is { } price)
        {
            records.Put("unit_price", price, 1);
        }

        records.Put("tax_code", line.TaxCode, 1);
        records.Put("tax_part", line.TaxCode.Length == 0 ? "" : line.IsTax ? "tax" : "base", 1);
        records.Put("project", line.Project, 1);
        records.Put("department", line.Department, 1);
        records.Put("memo", line.Memo, 1);
        records.End();
    }

    /// <summary>Takes an account of the chart.</summary>
    /// <param name="line">The line of the file.</param>
    /// <param name="code">Its code.</param>
    /// <param name="name">Its name.</param>
    /// <param name="type">What it is.</param>
    /// <param name="guess">Why it is taken for that, where that is a guess; else empty.</param>
    public void DescribeAccount(long line, string code, string name, string type, string guess = "")
    {
        if (_described.Add((RecordTables.Accounts, code)))
        {
            var records = Of(RecordTables.Accounts);
            records.Begin(line);
            records.Put("code", code, 1);
            records.Put("name", name, 1);
            records.Put("type", type, 1);
            if (guess.Length > 0)
            {
                records.PutTag(Account.TypeGuess, guess);
            }

            records.End();
        }
    }

    /// <summary>Says that a document can be paid.</summary>
    public void AddPayable(KnownDocument document)
    {
        if (!_payable.TryGetValue(MapWords.Plain(document.Number), out var same))
        {
            _payable[MapWords.Plain(document.Number)] = same = [];
        }

        same.Add(document);
    }

    /// <summary>The documents of a number that can be paid: those of these files, else those of the book.</summary>
    public IReadOnlyList<KnownDocument> Payable(string number) =>
        _payable.TryGetValue(MapWords.Plain(number), out var here) ? here : Known.DocumentsNumbered(number);

    /// <summary>
    /// Puts something off until all files are read, when what they post is known: what happens earliest is done first.
    /// </summary>
    /// <param name="day">The day that it is about.</param>
    /// <param name="rank">Of the same day, what goes first.</param>
    /// <param name="action">What is done.</param>
    public void AtEnd(DateOnly day, int rank, Action action)
    {
        var file = _file;
        _atEnd.Add((day, rank, () =>
        {
            BeginFile(file);
            action();
        }
        ));
    }

    /// <summary>Does what was put off.</summary>
    public void End()
    {
        foreach (var (_, _, action) in _atEnd.OrderBy(put => put.Day).ThenBy(put => put.Rank))
        {
            action();
        }
    }

    /// <summary>
    /// What accounts stand at on a day as a trial balance shows them, in the book and by what the files have so far, by code.
    /// </summary>
    /// <param name="day">The day.</param>
    /// <param name="without">The id of a document that is not counted.</param>
    public Dictionary<string, decimal> StandingAt(DateOnly day, string without)
    {
        var standing = Known.BalancesAt(day, [.. _ids.Where(id => id.Date <= day).Select(id => id.Id), without]).ToDictionary();
        var (start, retained) = (Known.YearStart(day), Accounts.FirstOf(AccountType.RetainedEarnings));
        foreach (var (account, posted) in _posted)
        {
            var isOfProfit = retained is not null && AccountTypes.IsProfitAndLoss(Accounts.TypeOf(account));
            foreach (var (date, amount) in posted.TakeWhile(posted => posted.Key <= day))
            {
                var shown = isOfProfit && date < start ? retained! : account;
                standing[shown] = standing.GetValueOrDefault(shown) + amount;
            }
        }

        return standing.Where(account => account.Value != 0).ToDictionary();
    }

    /// <summary>
    /// The account that rows are posted to for a purpose: what the map says, else the first of the book's accounts for it, else a new one.
    /// </summary>
    public string AccountFor(string purpose, SourceMap map, FilePoint at)
    {
        var (types, code, name) = PostingAccounts.Of(purpose);
        return map.Posting.TryGetValue(purpose, out var said) ? Accounts.Find(said, "", AccountTypes.NameOf(types[0]), map, at)
            : Accounts.FirstOf([.. types]) ?? Accounts.Find(code, name, AccountTypes.NameOf(types[0]), map, at);
    }

    private static string Iso(DateOnly day) => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);

    private void NotePosted(string account, DateOnly day, decimal amount)
    {
        if (!_posted.TryGetValue(account, out var posted))
        {
            _posted[account] = posted = [];
        }

        posted[day] = posted.GetValueOrDefault(day) + amount;
    }

    private string IdOf(DraftDocument document)
    {
        var content = new StringBuilder();
        content.Append(Iso(document.Date)).Append('|').Append(document.Number).Append('|').Append(document.Contact)
            .Append('|').Append(document.Memo);
        foreach (var line in document.Lines)
        {
            content.Append(CultureInfo.InvariantCulture, $"|{line.Said}:{line.Amount:0.######}:{line.Memo}");
        }

        var hash = XxHash128.HashToUInt128(Encoding.UTF8.GetBytes(content.ToString()));
        var occurrence = _contents[hash] = _contents.GetValueOrDefault(hash) + 1;
        var id = $"{Iso(document.Date)}-{(ulong)hash & 0xFFFF_FFFF_FFFF:x12}";
        return occurrence == 1 ? id : $"{id}-{occurrence}";
    }
}
