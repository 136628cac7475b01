using System.Globalization;
using Vlei.Core.Ledger;

namespace Vlei.Records.Maps.Reading;

/// <summary>
/// Finds the account that a file means by a code, a name, or both in one cell, and gathers those that the book does not have. What type
/// a new one is follows from the file's own word, else from its name, else from the accounts around its code, else from how it is posted
/// to; all but the first are guesses.
/// </summary>
internal sealed class AccountFinder
{
    private static readonly (AccountType Last, int First)[] Ranges =
    [
        (AccountType.NonCurrentAsset, 1000), (AccountType.NonCurrentLiability, 2000), (AccountType.RetainedEarnings, 3000),
        (AccountType.Income, 4000), (AccountType.CostOfSales, 5000), (AccountType.Expense, 6000), (AccountType.OtherIncome, 8000),
        (AccountType.OtherExpense, 8500),
    ];

    private readonly MapWords _words;
    private readonly Dictionary<string, string> _found = [];
    private readonly Dictionary<string, KnownAccount> _byCode = [];
    private readonly Dictionary<string, string> _byName = [];
    private readonly List<Added> _added = [];
    private readonly Dictionary<string, Added> _addedByCode = [];
    private readonly List<string> _later = [];

    /// <summary>Starts with the accounts of the book.</summary>
    public AccountFinder(IKnownRecords known, MapWords words)
    {
        _words = words;
        foreach (var account in known.Accounts)
        {
            _byCode[account.Code] = account;
            _byName.TryAdd(MapWords.Plain(account.Name), account.Code);
        }
    }

    /// <summary>The codes of those that were only known by their names, in the order in which they were found.</summary>
    public IReadOnlyList<string> Later => _later;

    /// <summary>The code behind what stands for an account; known once the new ones are.</summary>
    public string CodeOf(string reference) => _addedByCode.TryGetValue(reference, out var added) ? added.Code : reference;

    /// <summary>The account of the book with that code; nothing where the book has none.</summary>
    public KnownAccount? InBook(string code) => _byCode.GetValueOrDefault(code);

    /// <summary>The type that a file's own word says an account has; nothing where it says none.</summary>
    public AccountType? SaidType(string word, string name, SourceMap map) => word.Length == 0 ? null
        : map.Types.TryGetValue(word, out var said) ? AccountTypes.FromName(said)
        : _words.TypeOf(word) is { } own ? Finer(own.Type, name) : null;

    /// <summary>Forgets what the last map called the accounts.</summary>
    public void BeginFile() => _found.Clear();

    /// <summary>
    /// The code of the account that a text means; a new account where the book and the files before have none.
    /// </summary>
    /// <param name="text">What stands in the file.</param>
    /// <param name="name">The name of the account, where it stands beside the code; else empty.</param>
    /// <param name="typeWord">The file's own word for its type; else empty.</param>
    /// <param name="map">The map, which may say which account is meant.</param>
    /// <param name="at">Where it stands.</param>
    public string Find(string text, string name, string typeWord, SourceMap map, FilePoint at)
    {
        if (!_found.TryGetValue(text, out var code))
        {
            _found[text] = code = Known(map.Accounts.GetValueOrDefault(text, text), name)
                ?? Add(map.Accounts.GetValueOrDefault(text, text), name, typeWord, map, at);
        }

        return code;
    }

    /// <summary>The code of an account that there is already; nothing where a text means none.</summary>
    public string? Known(string text, string name)
    {
        if (Exact(text) is { } exact)
        {
            return exact;
        }

        var (code, rest) = Split(text);
        return code.Length > 0 ? Exact(code)
            : name.Length > 0 && _byName.TryGetValue(MapWords.Plain(name), out var named) ? named
            : rest.LastIndexOf(':') is > 0 and var colon && _byName.TryGetValue(MapWords.Plain(rest[(colon + 1)..]), out var last)
                ? last : null;
    }

    /// <summary>Whether a text begins with the code of an account, or is the name of one.</summary>
    public bool LooksLikeOne(string text) => Split(text).Code.Length > 0 || Known(text, "") is not null;

    /// <summary>Notes that something was posted to an account, which tells what a new one is.</summary>
    public void Note(string code, decimal amount)
    {
        if (_addedByCode.Count > 0 && _addedByCode.TryGetValue(code, out var added))
        {
            added.Sum += amount;
        }
    }

    /// <summary>Notes what an account opens with, which tells what a new one is.</summary>
    public void NoteOpening(string code, decimal amount)
    {
        if (_addedByCode.TryGetValue(code, out var added))
        {
            added.Opening = amount;
        }
    }

    /// <summary>The first account of a type by its code; nothing where there is none.</summary>
    public string? FirstOf(params AccountType[] types) =>
        _byCode.Values.Where(account => types.Contains(account.Type)).OrderBy(account => account.Code, CodeOrder.Instance)
            .FirstOrDefault()?.Code
        ?? _added.Where(added => types.Contains(TypeOf(added).Type)).Select(added => added.Reference).FirstOrDefault();

    /// <summary>The type of an account as far as it is known by now.</summary>
    public AccountType TypeOf(string code) =>
        _byCode.TryGetValue(code, out var known) ? known.Type
        : _addedByCode.TryGetValue(code, out var added) ? TypeOf(added).Type : AccountType.Expense;

    /// <summary>Says what an account is that a list describes; one that was only spoken of is what the list says from then on.</summary>
    public string Describe(string code, string name, string typeWord, SourceMap map, FilePoint at)
    {
        var found = Find(code.Length > 0 ? code : name, name, typeWord, map, at);
        if (_addedByCode.TryGetValue(found, out var added) && typeWord.Length > 0)
        {
            added.TypeWord = typeWord;
        }

        return found;
    }

    /// <summary>The new accounts, each with its type; those that have no code get one within the range of their type.</summary>
    public IReadOnlyList<NewRecord> New()
    {
        var taken = _byCode.Keys.Concat(_added.Select(added => added.Code)).ToHashSet();
        foreach (var added in _added.Where(added => added.Code.Length == 0))
        {
            var number = Ranges.First(range => TypeOf(added).Type <= range.Last).First;
            while (!taken.Add(number.ToString(CultureInfo.InvariantCulture)))
            {
                number += 10;
            }

            added.Code = number.ToString(CultureInfo.InvariantCulture);
            _later[added.LaterPlace] = added.Code;
        }

        return
        [
            .. _added.Select(added =>
            {
                var (type, because, isGuess) = TypeOf(added);
                return new NewRecord(
                    RecordTables.Accounts, added.Code, added.Name, AccountTypes.NameOf(type), because, isGuess, added.At.File,
                    added.At.Line,
                    added.At.Column);
            }),
        ];
    }

    /// <summary>Accounts of the book whose types were guesses and are said by a map now.</summary>
    public IEnumerable<(KnownAccount Account, string Type)> Confirmed(SourceMap map) =>
        _byCode.Values.Where(account => account.IsGuess)
            .Select(account => (account, Type: map.Types.GetValueOrDefault(account.Code) ?? map.Types.GetValueOrDefault(account.Name)))
            .Where(account => account.Type is not null).Select(account => (account.account, account.Type!));

    /// <summary>A code at the start of a text, and what stands behind it; an empty code where there is none.</summary>
    public static (string Code, string Name) Split(string text)
    {
        var end = 0;
        while (end < text.Length && (char.IsLetterOrDigit(text[end]) || text[end] is '.' or '-' or '/'))
        {
            end++;
        }

        var code = text[..end].TrimEnd('.', '-', '/');
        return code.Any(char.IsAsciiDigit) && (end == text.Length || text[end] is ' ' or ':' or '\u00a0' or '\t' or '\u2013' or ',')
            ? (code, text[code.Length..].Trim(' ', '-', ':', '.', '\u2013', '\u00a0', '\t', ',')) : ("", text);
    }

    private string? Exact(string text) => _byCode.ContainsKey(text) ? text : _addedByCode.ContainsKey(text) ? text
        : _byName.GetValueOrDefault(MapWords.Plain(text));

    private string Add(string text, string name, string typeWord, SourceMap map, FilePoint at)
    {
        var (code, rest) = Split(text);
        var called = name.Length > 0 ? name : rest.Length > 0 ? rest : text;
        var added = new Added(code, called, at) { TypeWord = typeWord, Said = SaidType(map, code, called, typeWord) };
        if (code.Length == 0)
        {
            added.LaterPlace = _later.Count;
            _later.Add("");
            added.Reference = MappedRecords.LaterText(added.LaterPlace);
        }

        _added.Add(added);
        _addedByCode[added.Reference] = added;
        _byName.TryAdd(MapWords.Plain(called), added.Reference);
        _byName.TryAdd(MapWords.Plain(text), added.Reference);
        return added.Reference;
    }

    private static AccountType? SaidType(SourceMap map, params string[] words) => words.Where(word => word.Length > 0)
        .Select(word => map.Types.GetValueOrDefault(word)).FirstOrDefault(type => type is not null) is { } said
        ? AccountTypes.FromName(said) : null;

    private (AccountType Type, string Because, bool IsGuess) TypeOf(Added added)
    {
        if (added.Said is { } said)
        {
            return (said, "the map says so", false);
        }

        if (added.TypeWord.Length > 0 && _words.TypeOf(added.TypeWord) is { } own)
        {
            return (Finer(own.Type, added.Name), $"the file says {added.TypeWord}", false);
        }

        // What opens with a balance is no income and no cost, unless its name says that, and its side is what these have.
        var named = _words.TypeOf(added.Name);
        var isOpen = added.Opening != 0 && (named is null
            || (AccountTypes.IsProfitAndLoss(named.Value.Type) && AccountTypes.IsCreditPositive(named.Value.Type) != (added.Opening < 0)));
        if (named is not null && !isOpen)
        {
            return (WithoutSecond(named.Value.Type), $"its name has \"{named.Value.Word}\"", true);
        }

        if (isOpen)
        {
            return (added.Opening > 0 ? AccountType.CurrentAsset : AccountType.CurrentLiability,
                $"it opens with a {(added.Opening > 0 ? "debit" : "credit")}", true);
        }

        return Around(added.Code) is { } around ? (around, "the accounts around its code are", true)
            : added.Sum < 0 ? (AccountType.Income, "it is credited", true) : (AccountType.Expense, "it is debited", true);
    }

    // A file that says asset may well call the account a bank.
    private AccountType Finer(AccountType said, string name) =>
        said is AccountType.NonCurrentAsset or AccountType.CurrentAsset or AccountType.CurrentLiability or AccountType.NonCurrentLiability
            or AccountType.Equity && _words.TypeOf(name) is { } named
        && !AccountTypes.IsProfitAndLoss(named.Type) && AccountTypes.IsCreditPositive(named.Type) == AccountTypes.IsCreditPositive(said)
            ? WithoutSecond(named.Type) : said;

    private AccountType WithoutSecond(AccountType type) =>
        type == AccountType.RetainedEarnings && _byCode.Values.Any(account => account.Type == type) ? AccountType.Equity : type;

    private AccountType? Around(string code)
    {
        if (code.Length == 0)
        {
            return null;
        }

        var sorted = _byCode.Values.OrderBy(account => account.Code, CodeOrder.Instance).ToList();
        var below = sorted.LastOrDefault(account => CodeOrder.Instance.Compare(account.Code, code) < 0);
        var above = sorted.FirstOrDefault(account => CodeOrder.Instance.Compare(account.Code, code) > 0);
        return below is not null && below.Type == above?.Type
            && below.Type is not (AccountType.RetainedEarnings or AccountType.Receivable or AccountType.Payable) ? below.Type : null;
    }

    private sealed class Added(string code, string name, FilePoint at)
    {
        public string Code { get; set; } = code;

        public string Reference { get; set; } = code;

        public int LaterPlace { get; set; } = -1;

        public string Name { get; } = name;

        public FilePoint At { get; } = at;

        public AccountType? Said { get; init; }

        public string TypeWord { get; set; } = "";

        public decimal Sum { get; set; }

        public decimal Opening { get; set; }
    }
}
