using System.Text;
using Vlei.Core.Ledger;

namespace Vlei.Records.Maps;

/// <summary>What a word in a row of a file tells of the row.</summary>
public enum RowWord
{
    /// <summary>Nothing.</summary>
    None,

    /// <summary>It adds rows up.</summary>
    Total,

    /// <summary>It has what was there before the first row of an account.</summary>
    Opening,

    /// <summary>It has what is there behind the last row of an account.</summary>
    Closing,

    /// <summary>It belongs to the page, and not to the records.</summary>
    Page,
}

/// <summary>
/// What files call columns, kinds of rows, types of accounts, kinds of documents and whole lists, in every language that there is a
/// list of words of. Letters are compared without regard to capitals, and marks between them as blanks.
/// </summary>
public sealed class MapWords
{
    private const int MostTexts = 50_000;

    private static readonly RowWord[] RowWords = [RowWord.Total, RowWord.Opening, RowWord.Closing, RowWord.Page];

    private readonly Dictionary<string, ColumnRole> _columns = [];
    private readonly Dictionary<string, AccountType> _types = [];
    private readonly Dictionary<string, RowWord> _rows = [];
    private readonly Dictionary<string, string> _kinds = [];
    private readonly Dictionary<string, string> _subjects = [];
    private readonly Dictionary<string, int> _months = [];
    private readonly HashSet<string> _accountWords = [];
    private readonly Dictionary<string, RowWord> _rowsOfTexts = [];

    /// <summary>The sections that a list of words has, with the keys of each.</summary>
    public static IReadOnlyList<(string Section, IReadOnlyList<string> Keys)> Sections { get; } =
    [
        ("columns", [.. ColumnRole.All.Select(role => role.Name)]),
        ("rows", [.. RowWords.Select(NameOf), "account"]),
        ("types", AccountTypes.Names),
        ("kinds", DocumentKinds.Names),
        ("subjects", [.. Shape.All.Select(shape => shape.Name), "receipts", "suppliers", "customers"]),
    ];

    /// <summary>Adds a key of a section with its words; what an earlier list says stays.</summary>
    public void Add(string section, string key, IEnumerable<string> words)
    {
        foreach (var word in words.Select(Plain).Where(word => word.Length > 0))
        {
            switch (section)
            {
                case "columns":
                    _columns.TryAdd(word, ColumnRole.Find(key)!);
                    break;
                case "types":
                    _types.TryAdd(word, AccountTypes.FromName(key));
                    break;
                case "rows" when key == "account":
                    _accountWords.Add(word);
                    break;
                case "rows":
                    _rows.TryAdd(word, RowWords.First(row => NameOf(row) == key));
                    break;
                case "kinds":
                    _kinds.TryAdd(word, key);
                    break;
                default:
                    _subjects.TryAdd(word, key);
                    break;
            }
        }
    }

    /// <summary>Adds the names of the twelve months, long or short.</summary>
    public void AddMonths(IReadOnlyList<string> names)
    {
        for (var month = 0; month < names.Count; month++)
        {
            _months.TryAdd(Plain(names[month]), month + 1);
        }
    }

    /// <summary>A text as words are compared: small letters and digits, with one blank for whatever stands between them.</summary>
    public static string Plain(string text)
    {
        var plain = new StringBuilder(text.Length);
        foreach (var letter in text)
        {
            if (char.IsLetterOrDigit(letter))
            {
                plain.Append(char.ToLowerInvariant(letter));
            }
            else if (plain.Length > 0 && plain[^1] != ' ')
            {
                plain.Append(' ');
            }
        }

        return plain.ToString().TrimEnd();
    }

    /// <summary>What a heading is taken as, and the word that says so; nothing where no word does.</summary>
    public (ColumnRole Role, string Word, bool IsWhole)? RoleOf(string heading)
    {
        var plain = Plain(heading);
        return _columns.TryGetValue(plain, out var exact) ? (exact, plain, true)
            : Longest(plain, _columns) is { } word ? (_columns[word], word, false) : null;
    }

    /// <summary>The type of account that a name or a word for a type says, with the word; nothing where none does.</summary>
    public (AccountType Type, string Word)? TypeOf(string text)
    {
        var plain = Plain(text);
        return AccountTypes.Names.FirstOrDefault(name => Plain(name) == plain) is { } own ? (AccountTypes.FromName(own), own)
            : Longest(plain, _types) is { } word ? (_types[word], word) : null;
    }

    /// <summary>What the beginning of a text tells of its row.</summary>
    public RowWord RowOf(string text)
    {
        // Most notes of a file are there many times.
        if (_rowsOfTexts.TryGetValue(text, out var known))
        {
            return known;
        }

        if (_rowsOfTexts.Count > MostTexts)
        {
            _rowsOfTexts.Clear();
        }

        var plain = Plain(text);
        var end = plain.Length;
        while (end > 0 && !_rows.ContainsKey(plain[..end]))
        {
            end = plain.LastIndexOf(' ', end - 1);
        }

        return _rowsOfTexts[text] = end > 0 ? _rows[plain[..end]] : RowWord.None;
    }

    /// <summary>What is left of a text behind a word for an account at its start; nothing where there is no such word.</summary>
    public string? BehindAccountWord(string text)
    {
        foreach (var word in _accountWords)
        {
            if (text.StartsWith(word, StringComparison.OrdinalIgnoreCase) && text.Length > word.Length
                && !char.IsLetterOrDigit(text[word.Length]))
            {
                return text[word.Length..].TrimStart(' ', ':', '.', '-', '\u00a0', '\u2013');
            }
        }

        return null;
    }

    /// <summary>The kind of document that a word says; nothing where none does.</summary>
    public string? KindOf(string text) => _kinds.GetValueOrDefault(Plain(text));

    /// <summary>What a title says that a file is about; the longest word first.</summary>
    public IReadOnlyList<string> SubjectsOf(string title)
    {
        var plain = $" {Plain(title)} ";
        return [.. _subjects.Where(subject => plain.Contains($" {subject.Key} ", StringComparison.Ordinal))
            .OrderByDescending(subject => subject.Key.Length).Select(subject => subject.Value).Distinct()];
    }

    /// <summary>The number of a month by its name; 0 where it is none.</summary>
    public int MonthOf(string name) => _months.GetValueOrDefault(name);

    private static string NameOf(RowWord word) => word.ToString().ToLowerInvariant();

    private static string? Longest<T>(string plain, Dictionary<string, T> words)
    {
        string? best = null;
        for (var start = 0; start < plain.Length; start = NextWord(plain, start))
        {
            for (var end = plain.Length; end > start; end = plain.LastIndexOf(' ', end - 1))
            {
                if (end - start > (best?.Length ?? 0) && words.ContainsKey(plain[start..end]))
                {
                    best = plain[start..end];
                    break;
                }
            }
        }

        return best;
    }

    private static int NextWord(string plain, int start) => plain.IndexOf(' ', start) is >= 0 and var blank ? blank + 1 : plain.Length;
}
