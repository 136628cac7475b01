using Vlei.Core.Languages;

namespace Vlei.Core.Reports;

/// <summary>Finds the reports that answer a question, best first.</summary>
public static class ReportSearch
{
    private const double Exact = 1, Related = 0.9, SameMeaning = 0.7;
    private const double LeastShareOfBest = 0.4;
    private const int LeastStem = 3, MostEnding = 3;

    // What the trade calls a report says more than words that it has in common with the question.
    private const double PerWordOfPhrase = 9;

    // What says nothing about the report.
    private static readonly HashSet<string> Idle = new(StringComparer.OrdinalIgnoreCase)
    {
        "a", "an", "and", "any", "are", "as", "at", "be", "by", "can", "did", "do", "does", "for", "from", "give", "has", "have", "how",
        "i", "in", "is", "it",
        "list", "me", "much", "many", "my", "of", "on", "or", "our", "report", "reports", "see", "show", "so", "that", "the", "their",
        "them", "there", "they", "this", "to",
        "us", "was", "we", "were", "what", "when", "where", "which", "who", "with", "you",
        "der", "die", "das", "den", "dem", "des", "ein", "eine", "im", "ist", "sind", "hat", "haben", "und", "oder", "zu", "zum", "zur",
        "von", "nach", "je", "wie", "viel", "wer", "wen", "welche", "sich", "soll", "ich", "um",
        "le", "la", "les", "l", "un", "une", "du", "de", "d", "et", "ou", "au", "aux", "en", "est", "sont", "qui", "que", "quoi",
        "quel", "quelle", "quelles", "nos", "notre", "par", "pour", "a", "ils",
        "het", "wat", "wie", "en", "van", "per", "om", "te", "n", "deur", "moet", "ek", "hoe", "hoeveel", "watter", "sal",
    };

    private static readonly Dictionary<char, string> Plain = new()
    {
        ['ä'] = "a", ['ö'] = "o", ['ü'] = "u", ['ß'] = "ss", ['é'] = "e", ['è'] = "e", ['ê'] = "e", ['ë'] = "e", ['à'] = "a", ['â'] = "a",
        ['î'] = "i", ['ï'] = "i", ['ô'] = "o", ['û'] = "u", ['ù'] = "u", ['ç'] = "c", ['œ'] = "oe",
    };

    private static readonly Lazy<IReadOnlyList<Language>> Translations = new(
        () => [.. Language.Standard.Where(code => code != Language.English.Code).Select(code => Language.Find(code)!)]);

    private static readonly Lazy<IReadOnlyDictionary<string, IReadOnlyList<string[]>>> TradeWords = new(ReadTradeWords);

    // Who owes whom is in the order of the words.
    private static readonly (string Words, string Meaning)[] Phrases =
    [
        ("owes us", "receivables"), ("owe us", "receivables"), ("owed to us", "receivables"), ("owes me", "receivables"),
        ("owe me", "receivables"),
        ("we owe", "payables"), ("i owe", "payables"), ("owed by us", "payables"), ("are we owed", "receivables"),
    ];

    private static readonly string[][] Synonyms =
    [
        ["receivable", "debtor", "unpaid", "outstanding", "owed"], ["payable", "creditor", "owe"],
        ["profit", "earn", "earning", "income", "result", "loss", "margin"],
        ["cost", "spend", "spent", "expense"], ["money", "cash", "bank", "liquidity"], ["late", "overdue", "aging", "due"],
        ["supplier", "vendor", "creditor"], ["customer", "client", "debtor", "buyer"], ["stock", "inventory", "goods"],
        ["item", "product", "service"],
        ["tax", "vat", "gst"], ["sale", "sell", "sold", "revenue", "turnover"], ["purchase", "buy", "bought"],
        ["wages", "payroll", "worker", "salary"],
        ["owner", "drawings", "proprietor"], ["mistake", "wrong", "error", "odd", "review"], ["budget", "plan", "target"],
        ["worth", "assets", "net"],
        ["journal", "adjustment"], ["project", "job", "order"], ["change", "moved", "movement", "differ"],
    ];

    /// <summary>The reports that answer, best first; none where no word of the question is known.</summary>
    /// <param name="reports">All reports.</param>
    /// <param name="question">A question, names of reports or fields, or words for what they are about.</param>
    /// <param name="fieldsOf">Names of fields that a report can show, which count least.</param>
    public static IReadOnlyList<ReportDefinition> Answering(
        IReadOnlyList<ReportDefinition> reports, string question, Func<ReportDefinition, IEnumerable<string>> fieldsOf)
    {
        var asked = WordsOf(Spelled(question)).Where(word => !Idle.Contains(word)).Distinct().ToList();
        var places = reports.Select(report => PlacesOf(report, fieldsOf(report))).ToList();
        var scores = new double[reports.Count];
        foreach (var word in asked)
        {
            var found = places.Select(
                place => place.Max(words => words.Weight * words.Words.Select(other => Likeness(word, other)).DefaultIfEmpty(0).Max()))
                    .ToList();

            // What few reports speak of says more.
            var rarity = Math.Log(1 + ((double)reports.Count / Math.Max(1, found.Count(score => score > 0))));
            for (var place = 0; place < scores.Length; place++)
            {
                scores[place] += rarity * found[place];
            }
        }

        var all = WordsOf(Spelled(question)).Distinct().ToList();
        for (var place = 0; place < scores.Length; place++)
        {
            scores[place] += PerWordOfPhrase * LongestPhrase(reports[place].Key, all);
        }

        // A report that is named is meant.
        var least = LeastShareOfBest * scores.DefaultIfEmpty(0).Max();
        return [.. reports.Select((report, place) => (report, Score: scores[place]))
            .Where(scored => scored.Score > 0 && scored.Score >= least)
            .OrderByDescending(
                scored => new[] { scored.report.Key, scored.report.Title }.Any(name => WordsOf(name).SequenceEqual(WordsOf(question))))
                    .ThenByDescending(scored => scored.Score).Select(scored => scored.report)];
    }

    private static List<(double Weight, HashSet<string> Words)> PlacesOf(ReportDefinition report, IEnumerable<string> fields) =>
    [
        (5, WordsOf(report.Key).ToHashSet()), (4, WordsOf(report.Title).ToHashSet()),
            (4, Translations.Value.SelectMany(language => WordsOf(language.Say(report.Title))).ToHashSet()),
                (3, report.Words.SelectMany(WordsOf).ToHashSet()),
        (2, WordsOf(Spelled(report.Question)).Where(word => !Idle.Contains(word)).ToHashSet()), (1, WordsOf(report.Subject).ToHashSet()),
        (0.5, fields.SelectMany(field => WordsOf(field)).ToHashSet()),
    ];

    // How many words a phrase has that the question has all of; a phrase that is all of it counts one more.
    private static double LongestPhrase(string key, List<string> asked) =>
        TradeWords.Value.GetValueOrDefault(key,
            []).Where(phrase => phrase.All(word => asked.Any(other => other == word || IsSameStem(other, word))))
            .Select(phrase => phrase.Length + (phrase.Length == asked.Count ? 1 : 0)).DefaultIfEmpty(0).Max();

    private static Dictionary<string, IReadOnlyList<string[]>> ReadTradeWords()
    {
        using var stream = typeof(ReportSearch).Assembly.GetManifestResourceStream("trade-words.txt")!;
        using var reader = new StreamReader(stream);
        return reader.ReadToEnd().Split('\n').Where(line => line.Length > 0 && !line.StartsWith('#')).Select(line => line.Split(": "))
            .ToDictionary(parts => parts[0], parts => (IReadOnlyList<string[]>)
                [.. parts[1].Split(", ").Select(phrase => WordsOf(phrase).ToArray())]);
    }

    private static double Likeness(string asked, string word) =>
        asked == word ? Exact
        : IsSameStem(asked, word) ? Related
        : Synonyms.Any(same => same.Any(one => IsSameStem(one, asked)) && same.Any(one => IsSameStem(one, word))) ? SameMeaning
        : 0;

    // receivable and receivables, sell and selling: the same but for a short ending.
    private static bool IsSameStem(string one, string other)
    {
        var (shorter, longer) = one.Length <= other.Length ? (one, other) : (other, one);
        return shorter.Length >= LeastStem && longer.Length - shorter.Length <= Math.Min(MostEnding, shorter.Length - 1)
            && longer.StartsWith(shorter, StringComparison.Ordinal)
            && (longer.Length == shorter.Length || IsEnding(longer[shorter.Length..]));
    }

    private static bool IsEnding(string ending) => ending is "s" or "es" or "d" or "ed" or "ing" or "r" or "er" or "rs"
        or "ers" or "e" or "en" or "n" or "x";

    private static string Spelled(string text) =>
        Phrases.Aggregate(
            text.ToLowerInvariant(), (spelled, phrase) => spelled.Replace(phrase.Words, phrase.Meaning, StringComparison.Ordinal));

    private static IEnumerable<string> WordsOf(string text) =>
        string.Concat(text.ToLowerInvariant().Select(
            letter => Plain.TryGetValue(letter, out var plain) ? plain : char.IsLetterOrDigit(letter) ? $"{letter}" : " "))
        .Split(' ', StringSplitOptions.RemoveEmptyEntries);
}
