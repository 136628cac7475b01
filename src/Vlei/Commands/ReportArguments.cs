using System.CommandLine;
using System.CommandLine.Completions;
using Vlei.Books;
using Vlei.Books.Kept;
using Vlei.Core;
using Vlei.Core.Fields;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Core.Tables;
using Vlei.Desk;

namespace Vlei.Commands;

/// <summary>How many reports a command line names.</summary>
internal enum ReportCount
{
    /// <summary>None: the command says itself which report its options are of.</summary>
    None,

    /// <summary>One, or none: then the command says something else.</summary>
    ZeroOrOne,

    /// <summary>Exactly one.</summary>
    One,

    /// <summary>Any number.</summary>
    Any,
}

/// <summary>
/// Reports as the command line asks for them: which, with which options, of which book. Every command that builds reports
/// has these arguments.
/// </summary>
internal sealed class ReportArguments
{
    private const int MostOffered = 12;

    private static readonly ReportOption[] Narrowing =
        [ReportOptions.Only, ReportOptions.Except, ReportOptions.Where, ReportOptions.Select];

    private readonly Func<ParseResult, IReadOnlyList<string>> _named = _ => [];

    private readonly Option<string?> _revision = new("--revision")
    {
        Description = "The records as they were after import N, or on a day", HelpName = "N|DATE",
    };

    private readonly Option<bool> _standard = new("--standard")
    {
        Description = "Without what this book keeps of it",
    };

    private readonly List<Option> _options;

    /// <summary>Adds them to a command.</summary>
    /// <param name="command">The command.</param>
    /// <param name="count">How many reports it takes; those that take one take any revision too.</param>
    /// <param name="orGroup">Whether it takes a group as well.</param>
    public ReportArguments(DocumentedCommand command, ReportCount count = ReportCount.One, bool orGroup = false)
    {
        if (count == ReportCount.Any)
        {
            var many = new Argument<string[]>("REPORT") { Arity = ArgumentArity.ZeroOrMore };
            _named = result => result.GetValue(many) ?? [];
            command.Arguments.Add(Described(many));
        }
        else if (count != ReportCount.None)
        {
            var one = new Argument<string?>(orGroup ? "GROUP|REPORT" : "REPORT")
            {
                Arity = count == ReportCount.One ? ArgumentArity.ExactlyOne : ArgumentArity.ZeroOrOne,
            };
            _named = result => result.GetValue(one) is { } name ? [name] : [];
            command.Arguments.Add(Described(one, orGroup));
        }

        _options = [.. ReportOptions.All.Select(CommandLineOption)];
        foreach (var option in _options)
        {
            command.Options.Add(option);
        }

        if (count is ReportCount.One or ReportCount.ZeroOrOne)
        {
            command.Options.Add(_revision);
            command.Options.Add(_standard);
        }

        command.OfReports = [.. _options, _revision, _standard];
    }

    /// <summary>Whether a report is named.</summary>
    public bool IsNamed(ParseResult result) => _named(result).Count > 0;

    /// <summary>The options that are typed and belong to reports, by their names without dashes.</summary>
    public IReadOnlyList<string> TypedNames(ParseResult result)
    {
        Option[] all = [.. _options, _revision, _standard];
        return [.. Array.FindAll(all, option => result.GetResult(option) is { Implicit: false }).Select(option => option.Name[2..])];
    }

    /// <summary>
    /// The reports that are asked for, each with what is typed. Throws a <see cref="ProblemException"/> where there are none,
    /// and options of reports all the same.
    /// </summary>
    public IReadOnlyList<ReportOrder> OrdersOf(ParseResult result)
    {
        var names = _named(result);
        if (names.Count == 0 && TypedNames(result) is [var option, ..])
        {
            throw new ProblemException(
                ProblemKind.Usage, $"--{option} is for reports, and none is named.", "Name a report, as profit-loss, or leave it out.");
        }

        return [
            .. names.Select(
                name => new ReportOrder(
                    name, Typed(result)) { IsStandard = result.GetValue(_standard), Revision = result.GetValue(_revision) })];
    }

    /// <summary>
    /// Tells of the report that is named, on a page of help; says whether one is. Throws a <see cref="ProblemException"/> where there
    /// is none of that name.
    /// </summary>
    public bool Tell(ParseResult result, HelpPage page)
    {
        if (_named(result) is not [var name])
        {
            return false;
        }

        var reports = new ReportsOverview(BookOptions.DeskIfAny(result));
        if (!ReportHelp.Tell(reports, name, page))
        {
            _ = new ReportCatalogue(reports.Library).Find(name);
        }

        return true;
    }

    /// <summary>
    /// Opens the records that the report is asked of. Throws a <see cref="ProblemException"/> where the arguments make no sense.
    /// </summary>
    /// <param name="result">What is typed.</param>
    /// <param name="desk">The book.</param>
    /// <param name="completed">What is asked besides what is typed; nothing where nothing is.</param>
    public OpenReport Open(ParseResult result, ReportDesk desk, Func<ReportOrder, ReportOrder>? completed = null)
    {
        var order = desk.Meant(OrdersOf(result)[0]);
        order = completed?.Invoke(order) ?? order;
        _ = desk.Find(order);
        if (desk.ShownAs(order) is { } file)
        {
            Terminal.Say($"{order.Name} is shown as {file} has it; --standard shows it without.");
        }

        return desk.Open(Answered(desk, order));
    }

    // What a report has to be told is asked for where somebody is there to answer; elsewhere the report says so.
    private static ReportOrder Answered(ReportDesk desk, ReportOrder order)
    {
        var definition = desk.Find(order);
        if (definition.Asks is not { } field || Narrowing.Any(option => order.Options.ContainsKey(option.Name)) || !Terminal.CanAsk)
        {
            return order;
        }

        var table = definition.Table ?? StandardTables.Find("postings")!;
        using (var ledger = LedgerReader.Open(desk.Book))
        {
            var known = FieldLists.Values(desk.ContextOf(ledger), table, field, null).Rows
                .Where(row => row.Kind == RowKind.Group && row.Key != FieldNames.None).Take(MostOffered).Select(row => row.Label);
            Terminal.Say($"{definition.Title} is of some {field}: {string.Join(", ", known)} …");
        }

        var answer = Terminal.Ask($"Which {field}, or nothing to leave it");
        return answer.Length == 0 ? order : order with
        {
            Options = new Dictionary<string, IReadOnlyList<string>>(order.Options) { [ReportOptions.Only.Name] = [$"{field}={answer}"] },
        };
    }

    /// <summary>
    /// The page of panels that is named; nothing where a report is. Throws a <see cref="ProblemException"/> where something is asked
    /// of it that it does not take.
    /// </summary>
    public KeptPage? PageOf(ParseResult result, ReportDesk desk)
    {
        if (_named(result) is not [var name] || !PageFile.NamesIn(desk.Library).Contains(name)
            || desk.Library.FindReport(name) is not null || PageFile.Find(desk.Library, name) is not { } page)
        {
            return null;
        }

        var other = TypedNames(result).FirstOrDefault(option => !PageHelp.Looks.Any(known => known.Name == option));
        return other is null ? page
            : throw new ProblemException(
                ProblemKind.Usage, $"--{other} does not apply to {name}, which is a page of panels.",
                $"It takes {Suggestion.Listed([.. PageHelp.Looks.Select(option => $"--{option.Name}")], "and")}; "
                    + $"each report on it takes its own: write pages/{name}.toml.");
    }

    /// <summary>How a page is to look.</summary>
    public ReportLook LookOf(ParseResult result, ReportDesk desk) =>
        LookFiles.Of(LookText.Read(RequestText.WithLook(Typed(result), desk.Settings.Look)), desk.Library);

    /// <summary>What is typed, as texts by the names of options.</summary>
    public Dictionary<string, IReadOnlyList<string>> Typed(ParseResult result) => _options
        .Where(option => result.GetResult(option) is { Implicit: false })
        .ToDictionary(option => option.Name[2..], option => option switch
        {
            Option<bool> => (IReadOnlyList<string>)[result.GetValue<bool>(option.Name) ? "true" : "false"],
            Option<string?> when result.GetResult(option) is { Tokens.Count: 0 } =>
                [ReportOptions.All.First(known => $"--{known.Name}" == option.Name).WhenBare!],
            Option<string[]> => result.GetValue<string[]>(option.Name) ?? [],
            _ => [result.GetValue<string?>(option.Name) ?? ""],
        });

    /// <summary>What is kept, for completion: to complete a word is no occasion to complain.</summary>
    public static Library LibraryOf(CompletionContext context)
    {
        try
        {
            return Library.Of(BookOptions.BookIfAny(context.ParseResult));
        }
        catch (ProblemException)
        {
            return Library.Of(null);
        }
    }

    private static Argument Described(Argument argument, bool orGroup = false)
    {
        argument.HelpName = orGroup ? "GROUP|REPORT" : "REPORT";
        argument.Description = orGroup ? "Which group, report or page; vlei group and vlei reports list them"
            : "Which report; vlei reports lists them";
        argument.CompletionSources.Clear();
        if (orGroup)
        {
            argument.CompletionSources.Add(
                context => LibraryOf(context).All(KeptKind.Group).Select(file => new CompletionItem(file.Name)));
        }

        argument.CompletionSources.Add(context => LibraryOf(context) is var library
            ? new ReportCatalogue(library).Names.Concat(PageFile.NamesIn(library)).Select(name => new CompletionItem(name)) : []);
        return argument;
    }

    // The command line's options come from the catalogue; what their values mean is read in one place.
    private Option CommandLineOption(ReportOption option)
    {
        var name = $"--{option.Name}";
        if (option.ValueName is null)
        {
            return new Option<bool>(name) { Description = option.Explained };
        }

        Option made = option.Repeatable ? new Option<string[]>(name) : new Option<string?>(name);
        made.Description = option.Explained;
        made.HelpName = option.ValueName;
        made.Arity = option.WhenBare is not null ? ArgumentArity.ZeroOrOne : made.Arity;
        made.CompletionSources.Add([.. option.Words]);
        made.CompletionSources.Add(context => ValueCompletion.Of(
            option, context, _named(context.ParseResult) is [var named, ..] ? named : null));
        if (option == ReportOptions.Select)
        {
            made.CompletionSources.Add(context => LibraryOf(context).All(KeptKind.Selection).Select(file => new CompletionItem(file.Name)));
        }

        return made;
    }
}
