using System.Globalization;
using Vlei.Core.Ledger;
using Vlei.Core.Problems;
using Vlei.Records.Cells;
using Vlei.Records.Maps.Reading;

namespace Vlei.Records.Maps.Finding;

/// <summary>Finds the map of a file by evidence, and says what the evidence is.</summary>
public static class MapFinder
{
    /// <summary>
    /// Looks at a file and finds its map. Throws a <see cref="ProblemException"/> where its rows are nothing that is known.
    /// </summary>
    /// <param name="file">The file.</param>
    /// <param name="name">What the map is to be called.</param>
    /// <param name="path">Where it will be kept.</param>
    /// <param name="shape">What the rows are, where a person says so; else nothing.</param>
    /// <param name="known">What the book has.</param>
    /// <param name="words">What files call things.</param>
    public static MapProposal Find(
        SourceFile file, string name, string path, Shape? shape, IKnownRecords known, MapWords words)
    {
        var sample = new FileSample(file, words);
        var roles = new RoleFinder(sample, words, known);
        var shapes = new ShapeFinder(sample, roles, file, words);
        var found = shapes.Find();
        var (rows, because) = shape is not null ? (shape, "you say so") : found ?? throw Unknown(file, sample, roles);
        if (!rows.Fits(roles.Roles))
        {
            throw Missing(file, rows, roles);
        }

        var marks = new MarkFinder(file, sample, Columns(RoleContent.Day), Columns(RoleContent.Number), words);
        var map = new SourceMap
        {
            Name = name,
            Path = path,
            Shape = rows,
            Columns = ColumnRole.All.Where(roles.Has).ToDictionary(role => role, role => roles.Of(role)!.Heading),
            Dates = marks.Dates,
            DecimalMark = marks.DecimalMark,
            IsPurchase = shapes.IsPurchase,
            Prefix = PrefixOf(rows, shapes.IsPurchase),
        };
        var findings = new List<MapFinding> { new("shape", rows.Name, because) };
        findings.AddRange(Dialect(file, sample));
        findings.AddRange(marks.Findings);
        map = WithGrouping(map, file, known, words, findings);
        map = rows == Shape.Budget ? WithBudgetSigns(map, sample, known, words, findings) : WithSigns(map, file, known, words, findings);
        var questions = marks.Questions.ToList();
        WithDay(map, sample, words, findings, questions);
        map = WithPosting(map, known, findings);
        var months = MonthsOf(sample, words);
        return new MapProposal(
            file, map, [.. roles.Findings().Select((column, place) => WithMonth(column, place, months))], findings, questions);

        List<ColumnProfile> Columns(RoleContent content) => [.. ColumnRole.All.Where(role => role.Content == content && roles.Has(role))
            .Select(role => roles.Of(role)!),
            .. content == RoleContent.Number ? MonthsOf(sample, words).Select(month => sample.Columns[month.Column]) : []];
    }

    private static IReadOnlyList<(int Column, DateOnly Day)> MonthsOf(FileSample sample, MapWords words) =>
        MonthHeadings.In([.. sample.Columns.Select(column => column.Heading)], sample.Title, words);

    private static ColumnFinding WithMonth(ColumnFinding column, int place, IReadOnlyList<(int Column, DateOnly Day)> months) =>
        column.Role is null && months.FirstOrDefault(month => month.Column == place) is { Day.Year: > 1 } month
            ? column with
            {
                Month = month.Day.ToString("yyyy-MM", CultureInfo.InvariantCulture),
                Because = "its heading is a month, and below it are figures",
            }
            : column;

    private static ProblemException Unknown(SourceFile file, FileSample sample, RoleFinder roles) => new(
        ProblemKind.BadData,
        sample.Columns.Count == 0 ? $"{file.Name} has no rows." : $"{file.Name}: what its rows are cannot be told from its columns: "
            + string.Join(", ", roles.Findings().Select(column => $"{column.Heading} ({column.Role?.Name ?? column.Because})")) + ".",
        sample.Columns.Count == 0 ? "Is it another file?"
            : $"Say it with --shape: {Suggestion.Listed([.. Shape.All.Select(known => known.Name)], "or")}.");

    private static ProblemException Missing(SourceFile file, Shape shape, RoleFinder roles)
    {
        var needed = shape.Needs.First(group => !group.Any(roles.Has));
        return new ProblemException(
            ProblemKind.BadData,
            $"{file.Name} has no column for {Suggestion.Listed([.. needed.Select(role => role.Name)], "or")}, which {shape.Name} need.",
            "Take another --shape, or give the column a heading that says what it has.");
    }

    private static string PrefixOf(Shape shape, bool isPurchase) => shape == Shape.Invoices || shape == Shape.InvoiceLines ? "invoice-"
        : shape == Shape.Bills ? "bill-" : shape == Shape.Credits ? "credit-" : shape == Shape.Payments ? isPurchase ? "payment-"
        : "receipt-"
        : shape == Shape.OpenItems ? "open-" : shape == Shape.SingleEntry ? "money-" : shape == Shape.Balances ? "balances-" : "journal-";

    private static IEnumerable<MapFinding> Dialect(SourceFile file, FileSample sample)
    {
        if (file.Dialect is { } dialect)
        {
            yield return new MapFinding(
                "encoding", dialect.Encoding, dialect.Encoding switch
                {
                    "utf-8" => "all of it is UTF-8",
                    "windows-1252" => "not all of it is UTF-8",
                    _ => "its first letters say so",
                });
            yield return new MapFinding(
                "separator", dialect.Separator == '\t' ? "\\t" : dialect.Separator.ToString(),
                "it parts the rows into the same number of values");
        }

        yield return new MapFinding(
            "headings", sample.HeadingLine == 0 ? "none" : $"line {sample.HeadingLine}",
            sample.HeadingLine == 0 ? "no row has words for columns" : sample.Title.Length > 0 ? "what stands above is a title"
                : "the first row");
    }

    private static SourceMap WithGrouping(
        SourceMap map, SourceFile file, IKnownRecords known, MapWords words, List<MapFinding> findings)
    {
        if (map.Shape != Shape.Journal && map.Shape != Shape.Ledger)
        {
            return map;
        }

        var (grouping, because) = GroupingFinder.Find(file, map, known, words);
        findings.Add(new MapFinding("documents", SourceMap.Groupings[(int)grouping], because));
        return map with { Grouping = grouping };
    }

    // Where amounts have signs only, those under which a trial balance sums to zero.
    private static SourceMap WithSigns(SourceMap map, SourceFile file, IKnownRecords known, MapWords words, List<MapFinding> findings)
    {
        if (map.Shape != Shape.Balances || map.Columns.ContainsKey(ColumnRole.Debit) || map.Columns.ContainsKey(ColumnRole.Credit)
            || map.DecimalMark is null)
        {
            return map;
        }

        foreach (var signs in (AmountSigns[])[AmountSigns.Debit, AmountSigns.Natural])
        {
            var tried = map with { Signs = signs, Day = DateOnly.MinValue.AddYears(1999), Dates = map.Dates ?? DateOrder.YearMonthDay };
            if (MappedImport.Read([(file, tried)], known, words, new RecordErrors(), (_, _) => { }).Faults.Count == 0)
            {
                findings.Add(new MapFinding("signs", SourceMap.SignNames[(int)signs], "so the balances sum to zero"));
                return map with { Signs = signs };
            }
        }

        return map;
    }

    // Budgets are written as the reports show them, or as a ledger has them; then income or costs are negative, row for row.
    private static SourceMap WithBudgetSigns(
        SourceMap map, FileSample sample, IKnownRecords known, MapWords words, List<MapFinding> findings)
    {
        var (accounts, months) = (new AccountFinder(known, words), MonthsOf(sample, words));
        var column = map.Columns.GetValueOrDefault(ColumnRole.Account) ?? map.Columns.GetValueOrDefault(ColumnRole.AccountName);
        var place = sample.Columns.First(known => known.Heading == column).Column;
        var negative = sample.Body.Where(IsNegative).Select(cells => accounts.TypeOf(accounts.Find(
            cells[place].Text, "", "", map, new FilePoint(map.Path, 1, 1)))).ToList();
        var (signs, because) = negative.Count == 0 ? (AmountSigns.Natural, "no row is negative")
            : negative.TrueForAll(AccountTypes.IsCreditPositive) ? (AmountSigns.Debit, "income is negative")
            : negative.TrueForAll(type => !AccountTypes.IsCreditPositive(type)) ? (AmountSigns.Credit, "costs are negative")
            : (AmountSigns.Natural, "income and costs are alike");
        findings.Add(new MapFinding("signs", SourceMap.SignNames[(int)signs], because));
        return map with { Signs = signs };

        bool IsNegative(FileCell[] cells) => cells.Length > place && months.Where(month => month.Column < cells.Length)
            .Sum(month => SourceNumbers.TryRead(
                cells[month.Column].Text, cells[month.Column].IsNumber ? '.' : map.DecimalMark ?? '.', out var number)
                ? number.Value : 0) < 0;
    }

    // Each file says its own, so that it is not part of the map.
    private static void WithDay(
        SourceMap map, FileSample sample, MapWords words, List<MapFinding> findings, List<OpenQuestion> questions)
    {
        if (map.Shape != Shape.Balances
            || MonthsOf(sample, words).Count > 0)
        {
            return;
        }

        if (MonthHeadings.DayIn(sample.Title, map.Dates, words) is { } day)
        {
            findings.Add(new MapFinding(
                "day", day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture), "the title, or the name of the file, says so"));
        }
        else
        {
            questions.Add(
                new OpenQuestion("day", "nothing above the headings, nor the name of the file, says what day the balances are of.", []));
        }
    }

    private static SourceMap WithPosting(SourceMap map, IKnownRecords known, List<MapFinding> findings)
    {
        var posting = new Dictionary<string, string>();
        foreach (var purpose in PurposesOf(map))
        {
            var (types, code, name) = PostingAccounts.Of(purpose);
            var fitting = types.SelectMany(type => known.Accounts.Where(account => account.Type == type)
                .OrderBy(account => account.Code, CodeOrder.Instance)).ToList();
            posting[purpose] = fitting.Count > 0 ? fitting[0].Code : $"{code} {name}";
            findings.Add(new MapFinding(
                purpose, fitting.Count > 0 ? $"{fitting[0].Code} {fitting[0].Name}" : $"{code} {name}",
                fitting.Count == 0 ? "the book has none, and gets it" : fitting.Count == 1 ? "the only such account"
                    : $"the first of {fitting.Count} such accounts"));
        }

        return map with { Posting = posting };
    }

    private static IEnumerable<string> PurposesOf(SourceMap map)
    {
        var (shape, has) = (map.Shape, map.Columns);
        var isDocuments = shape == Shape.Invoices || shape == Shape.Bills || shape == Shape.Credits || shape == Shape.InvoiceLines;
        if (isDocuments || shape == Shape.Payments || shape == Shape.OpenItems)
        {
            yield return map.IsPurchase ? "payable" : "receivable";
        }

        if (isDocuments && !has.ContainsKey(ColumnRole.Account))
        {
            yield return map.IsPurchase ? "expense" : "income";
        }

        if (has.ContainsKey(ColumnRole.Tax) && (isDocuments || shape == Shape.SingleEntry))
        {
            yield return "tax";
        }

        if ((shape == Shape.Payments || shape == Shape.SingleEntry) && !has.ContainsKey(ColumnRole.MoneyAccount))
        {
            yield return "money";
        }

        if (shape == Shape.OpenItems)
        {
            yield return "opening";
        }
    }
}
