namespace Corpus;

/// <summary>Everything that is asked.</summary>
internal static class Questions
{
    private const int Mixtures = 900;
    private const int TracesOfPlain = 8, TracesOfOthers = 3;

    private static readonly string[] Formats = ["json", "txt", "csv", "md", "html", "xlsx"];

    // Each option with values that make sense of some report; the first is asked of every book, the others of the demo alone.
    private static readonly (string Option, string[] Values)[] Options =
    [
        ("--period", ["2026-03", "fy2026", "last-3-months", "2026-02-11/2026-04-20", "all"]), ("--as-of", ["2026-04-17", "last-month"]),
        ("--basis", ["cash", "accrual"]),
        ("--by", ["month", "quarter", "project", "department", "contact", "item", "week", "tag.season", "nothing"]),
        ("--compare", ["prior-year", "prior-period:2", "budget", "2025-05"]), ("--change", [""]),
        ("--share", ["column", "income", "assets", "row", "group", "whole"]),
        ("--only",
            ["account=4000/4999", "contact.name=A/M", "kind=invoice,bill", "tag.season=high", "project=none", "department=*",
                "item=none", "open=100/", "days-late=31/", "total=/5000", "nowhere=1"]),
        ("--except", ["kind=journal", "account=4010", "contact=none"]),
        ("--where", ["amount > 100", "contact.kind = 'customer'", "date in 'last-quarter' or amount < 0", "nowhere = 1"]),
        ("--columns",
            ["+kind", "date,contact.name:Customer,amount", "-memo",
                "date,amount * 0.5:Half,running(amount),share(amount),average(amount)"]),
        ("--group-by", ["contact", "account,month", "none"]), ("--total", ["count", "average(amount),max(amount)"]),
        ("--group-by", ["contact", "account,item"]), ("--by", ["month"]),
        ("--measure", ["amount", "count,average(amount)"]), ("--method", ["direct"]), ("--layout", ["profit-loss", "balance-sheet"]),
        ("--limits", ["15,45"]), ("--age-by", ["document"]), ("--unapplied", [""]),
        ("--summary", [""]), ("--detail", [""]), ("--sort", ["-amount", "name", "-total", "-oldest", "-open", "date"]),
        ("--top", ["3", "1"]), ("--money", ["1000"]), ("--as-usual", [""]),
        ("--zeros", [""]), ("--depth", ["1", "0", "2"]), ("--title", ["A title"]), ("--select", ["none"]),
    ];

    private static readonly (string Option, string[] Values)[] Looks =
    [
        ("--chart", ["auto", "bars", "lines", "share", "stacked"]), ("--with-detail", ["records", "documents"]),
        ("--lang", ["de", "fr", "af"]), ("--negatives", ["brackets", "trailing-minus"]),
        ("--thousands", ["space"]), ("--decimal-mark", ["comma"]), ("--scale", ["thousands"]), ("--decimals", ["0"]),
        ("--dates", ["dd.MM.yyyy"]), ("--paper", ["letter"]), ("--orientation", ["landscape"]),
        ("--font-size", ["7"]), ("--widths", ["label=20"]), ("--align", ["label=right"]), ("--subtitle", ["Below"]),
        ("--footer", ["At the foot"]), ("--accent", ["#1f5f8b"]), ("--csv-style", ["bare", "headings,safe"]),
    ];

    private static readonly string[][] Together =
    [
        ["--compare", "prior-year", "--change"], ["--period", "fy2026", "--by", "month"],
        ["--period", "2026-03/2026-05", "--by", "month", "--compare", "prior-year", "--change", "--share", "column"],
        ["--period", "fy2026", "--by", "quarter", "--basis", "cash", "--depth", "0", "--share", "row"],
        ["--group-by", "contact,month", "--sort", "-amount"],
        ["--group-by", "contact", "--summary", "--compare", "prior-period:2", "--change"],
        ["--group-by", "contact", "--summary", "--share", "group,row,whole"],
        ["--group-by", "contact", "--by", "quarter", "--measure", "amount,count", "--share", "row", "--top", "3"],
        ["--group-by", "account,contact", "--by", "kind", "--measure", "average(amount)"],
        ["--group-by", "contact", "--measure", "amount", "--compare", "prior-year", "--change"],
        ["--compare", "2026-01-31", "--change", "--share", "row", "--top", "2", "--sort", "-total"],
        ["--detail", "--compare", "2026-01-31", "--unapplied", "--limits", "10,20"],
        ["--by", "department", "--compare", "prior-year", "--change"], ["--by", "contact", "--only", "account=4*", "--share", "row"],
        ["--period", "2026-05", "--compare", "budget", "--compare", "prior-year", "--change"],
        ["--group-by", "account", "--columns", "date,amount,running(amount),group-share(amount)", "--total", "count,min(amount)"],
        ["--top", "4", "--columns", "+amount"], ["--group-by", "kind", "--depth", "1", "--top", "2"],
    ];

    /// <summary>
    /// All of them; where only every Nth is wanted, traces are looked for with the same fewer reports. What imports changed has
    /// the time of the import in it, and is not asked.
    /// </summary>
    public static IReadOnlyList<Question> All(Runner runner, IReadOnlyList<string> books, int step)
    {
        var reports = runner.Output("reports", "--format", "csv").Split('\n').Skip(1).Select(line => line.Split(',')[0])
            .Where(report => report.Length > 0 && report != "changes").Distinct().Order(StringComparer.Ordinal).ToList();
        var questions = new List<Question>();
        foreach (var (book, place) in books.Select((book, place) => (book, place)))
        {
            var isDemo = place == 0;
            foreach (var report in reports)
            {
                string[] plain = ["show", report, "--book", book, .. report switch
                {
                    "statement-of-account" => ["--only", $"contact={(isDemo ? "C0023" : "C1")}"],
                    "journals-by-batch" => ["--where", "document.batch is not null"],
                    _ => Array.Empty<string>(),
                }];
                questions.Add(new Question(plain, isDemo ? [.. Formats, "pdf"] : Formats));
                foreach (var (option, values) in Options)
                {
                    questions.AddRange(values.Take(isDemo ? int.MaxValue : place % 3 == 0 ? 2 : 1)
                        .Select(
                            value => new Question(
                                [.. plain, option, .. value.Length > 0 ? new[] { value } : []], isDemo ? Formats : ["json", "txt"])));
                }

                questions.AddRange(
                    Together.Select(mixed => new Question([.. plain, .. mixed], isDemo ? Formats : ["json", "txt", "xlsx"])));
                questions.AddRange(Traces(runner, plain, TracesOfPlain));
                questions.AddRange(
                    Together.Select(mixed => (string[])[.. plain, .. mixed]).Where(shown => new Question(shown).IsTakenBy(step))
                    .SelectMany(shown => Traces(runner, shown, isDemo ? TracesOfOthers : 1)));
            }
        }

        foreach (var report in reports)
        {
            questions.AddRange(
                from look in Looks from value in look.Values select new Question(
                    ["show", report, "--book", "reedwater", look.Option, value], ["txt", "csv", "html", "xlsx"]));
        }

        questions.AddRange(Mixed(reports, books));
        questions.AddRange(Others(reports));
        return [.. questions.DistinctBy(question => question.ToString())];
    }

    private static IEnumerable<Question> Mixed(List<string> reports, IReadOnlyList<string> books)
    {
        var random = new Random(1);
        for (var count = 0; count < Mixtures; count++)
        {
            var arguments = new List<string> { "show", reports[random.Next(reports.Count)], "--book", books[random.Next(books.Count)] };
            for (var options = random.Next(2, 5); options > 0; options--)
            {
                var (option, values) = Options[random.Next(Options.Length)];
                var value = values[random.Next(values.Length)];
                if (!arguments.Contains(option))
                {
                    arguments.AddRange(value.Length > 0 ? [option, value] : [option]);
                }
            }

            yield return new Question(arguments, "json", "txt", "xlsx");
        }
    }

    // Figures of a report, spread over its rows and columns.
    private static IEnumerable<Question> Traces(Runner runner, string[] shown, int most)
    {
        List<string[]> lines;
        try
        {
            lines = [.. runner.Output([.. shown, "--format", "csv"]).TrimEnd().Split('\n').Select(line => line.Split(','))];
        }
        catch (InvalidOperationException)
        {
            yield break;
        }

        var random = new Random(lines.Count);
        for (var count = 0; count < most && lines.Count > 1; count++)
        {
            var row = lines[random.Next(1, lines.Count)];
            if (lines[0].Length > 4)
            {
                yield return new Question(
                    ["trace", .. shown.Skip(1), "--row", row[0].Trim('"'), "--column",
                        lines[0][random.Next(4, lines[0].Length)].Trim('"'), "--format", "json"]);
            }
        }
    }

    private static IEnumerable<Question> Others(List<string> reports)
    {
        string[] tables =
            ["accounts", "changes", "contacts", "departments", "documents", "findings", "items", "lines", "open-items", "postings",
                "projects", "settlements", "stock", "tax", "tax-codes"];
        string[] commands =
            ["demo", "init", "import", "check", "reports", "fields", "show", "trace", "save", "group", "layout", "schema", "run",
                "promise", "close", "changes", "completion", "manual"];
        foreach (var command in commands)
        {
            yield return new Question([command, "--help"]);
        }

        foreach (var table in tables)
        {
            yield return new Question(["fields", table, "--book", "reedwater", "--format", "json"]);
        }

        foreach (var report in reports)
        {
            yield return new Question(["reports", report]);
        }

        string[][] lines =
        [
            ["--help"], ["manual"], ["completion", "bash"], ["schema", "report"], ["schema", "group"], ["schema", "selection"],
            ["fields", "--book", "reedwater"], ["reports", "who", "owes", "us"],
            ["fields", "postings.kind", "--values", "--book", "reedwater"],
            ["fields", "postings.contact", "--values", "A*", "--book", "reedwater"], ["check", "--book", "reedwater"],
            ["check", "--review", "last-3-months", "--book", "reedwater"],
            ["changes", "--since", "0", "--book", "reedwater"], ["group", "--book", "reedwater"],
            ["group", "month-end", "--book", "reedwater"], ["layout", "profit-loss"], ["[suggest:10]", "vlei show p"],
            ["show", "nothing", "--book", "reedwater"],
            ["show", "profit-loss", "--books", "reedwater/clients/*", "--by", "book", "--period", "2026-05"],
            ["show", "balance-sheet", "--books", "reedwater/clients/*", "--by", "book", "--as-of", "2026-05-31", "--format", "json"],
            ["show", "open-receivables", "--book", "reedwater", "--peroid", "2026"],
            ["trace", "profit-loss", "--book", "reedwater", "--row", "4010", "--all"],
            ["trace", "profit-loss", "--book", "reedwater", "--row", "nowhere"],
            ["trace", "balance-sheet", "--book", "reedwater", "--row", "1000", "--all", "--format", "json"],
            ["show", "statement-of-account", "--book", "reedwater", "--period", "2026-05", "--format", "csv"],
        ];
        foreach (var line in lines)
        {
            yield return new Question(line);
        }

        yield return new Question(
            ["run", "month-end", "--book", "reedwater", "--period", "2026-04", "--format",
                "text,csv,json,markdown,html,xlsx,pdf"]) { Folder = "reedwater/out" };
        yield return new Question(
            ["run", "month-end", "--books", "reedwater/clients/*", "--period", "2026-05", "--summary", "summary.csv"]) { Folder =
                "reedwater/clients/none" };
        yield return new Question(
            ["show", "statement-of-account", "--book", "reedwater", "--period", "2026-05", "--to", "each/", "--format",
                "json"]) { Folder = "each" };
    }
}
