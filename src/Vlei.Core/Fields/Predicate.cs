using Parlot.Fluent;
using Vlei.Core.Problems;

namespace Vlei.Core.Fields;

/// <summary>One side of a comparison.</summary>
/// <param name="Place">Where it stands in the text, from 0.</param>
public abstract record Operand(int Place)
{
    /// <summary>A formula over fields; mostly a single field or a number.</summary>
    public sealed record Reckoned(Formula Formula, int Place) : Operand(Place);

    /// <summary>A text in quotes: a word, a day or a period.</summary>
    public sealed record Quoted(string Text, int Place) : Operand(Place);
}

/// <summary>
/// What must hold for a row to be taken: the condition behind WHERE of SQL (ISO/IEC 9075), over the fields of a table. What
/// is compared with nothing neither holds nor fails.
/// </summary>
public abstract record Predicate
{
    private const int MostNested = 64;

    private static readonly string[] Words = ["and", "or", "not", "between", "in", "like", "is", "null"];

    private static readonly Lazy<Parser<Predicate>> Grammar = new(Build);

    /// <summary>All of them.</summary>
    public sealed record All(IReadOnlyList<Predicate> Of) : Predicate;

    /// <summary>Any of them.</summary>
    public sealed record Any(IReadOnlyList<Predicate> Of) : Predicate;

    /// <summary>The contrary.</summary>
    public sealed record Opposite(Predicate Of) : Predicate;

    /// <summary>A comparison.</summary>
    public sealed record Compared(Operand Left, string Operator, Operand Right) : Predicate;

    /// <summary>One of several values, or within a period.</summary>
    public sealed record OneOfThese(Operand Left, IReadOnlyList<Operand> Values) : Predicate;

    /// <summary>A text that fits a pattern: % stands for anything, _ for one letter.</summary>
    public sealed record Fitting(Operand Left, Operand.Quoted Pattern) : Predicate;

    /// <summary>Nothing.</summary>
    public sealed record Missing(Operand Left) : Predicate;

    /// <summary>The names of the fields in it.</summary>
    public IEnumerable<string> Names => this switch
    {
        All all => all.Of.SelectMany(part => part.Names),
        Any any => any.Of.SelectMany(part => part.Names),
        Opposite opposite => opposite.Of.Names,
        Compared compared => NamesIn(compared.Left).Concat(NamesIn(compared.Right)),
        OneOfThese among => among.Values.Prepend(among.Left).SelectMany(NamesIn),
        Fitting fitting => NamesIn(fitting.Left),
        Missing missing => NamesIn(missing.Left),
        _ => [],
    };

    /// <summary>The names of those that are compared with something, rather than asked whether they are there.</summary>
    public IEnumerable<string> Compares => this switch
    {
        All all => all.Of.SelectMany(part => part.Compares),
        Any any => any.Of.SelectMany(part => part.Compares),
        Opposite opposite => opposite.Of.Compares,
        Missing => [],
        _ => Names,
    };

    /// <summary>Reads one. Throws a <see cref="ProblemException"/> that points at the place where it is none.</summary>
    /// <param name="text">The text.</param>
    /// <param name="option">The option that it was given to, for messages.</param>
    public static Predicate Parse(string text, string option = "where")
    {
        if (text.Length > Formula.MostLetters)
        {
            throw new ProblemException(
                ProblemKind.Usage, $"--{option} is longer than {Formula.MostLetters} letters.",
                "Take --only with a list, or a saved selection for part of it.");
        }

        if (Formula.Nesting(text) > MostNested)
        {
            throw Wrong(option, text, null, $"brackets are nested more than {MostNested} deep.", "Leave out brackets that are not needed.");
        }

        return Grammar.Value.TryParse(text, out var predicate, out var error) && predicate is not null
            ? predicate
            : throw Wrong(
                option, text, error?.Position.Offset ?? 0, error?.Message ?? "it is no condition.",
                "Write it as kind = 'invoice' and amount > 100.");
    }

    /// <summary>A problem with a predicate, pointing at its place.</summary>
    /// <param name="option">The option that it was given to.</param>
    /// <param name="text">The whole text.</param>
    /// <param name="place">The place, from 0; nothing for all of it.</param>
    /// <param name="message">What is wrong.</param>
    /// <param name="advice">What to do.</param>
    public static ProblemException Wrong(string option, string text, int? place, string message, string? advice)
    {
        const int Before = 40;
        const int Shown = 72;
        if (place is not { } at)
        {
            return new ProblemException(ProblemKind.Usage, $"--{option}: {message}", advice);
        }

        while (at < text.Length && char.IsWhiteSpace(text[at]))
        {
            at++;
        }

        var start = Math.Max(0, at - Before);
        var line = text.Substring(start, Math.Min(Shown, text.Length - start)).Replace('\n', ' ').Replace('\t', ' ');
        return new ProblemException(
            ProblemKind.Usage, $"--{option}, at character {at + 1}: {message}",
            $"{line}\n{new string(' ', at - start)}^{(advice is null ? "" : $"\n{advice}")}");
    }

    private static Parser<Predicate> Build()
    {
        Parser<string> Word(string word) => Terms.Keyword(word, "abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789_-.", true);

        var predicate = Deferred<Predicate>();
        var quoted = SkipWhiteSpace(Capture(Between(
            Literals.Char('\''), ZeroOrMany(OneOf(Literals.Text("''"), Literals.NoneOf("'").Then(span => span.ToString()))),
            Literals.Char('\'').ElseError("the quote is not closed."))))
            .Then(span => new Operand.Quoted(Unquoted(span.ToString()), span.Offset));
        var reckoned = SkipWhiteSpace(Capture(Formula.Build(Words)))
            .Then<Operand>(span => new Operand.Reckoned(Formula.Parse(span.ToString())!, span.Offset));
        var operand = OneOf(quoted.Then<Operand>(text => text), reckoned);
        var needed = operand.ElseError("a field, a number or a text in single quotes is missing here.");

        var sign = OneOf(
            Terms.Text("<>"), Terms.Text("!="), Terms.Text("<="), Terms.Text(">="), Terms.Text("="), Terms.Text("<"), Terms.Text(">"));
        var compared = sign.And(needed).Then<Func<Operand, Predicate>>(
            x => left => new Compared(left, x.Item1 == "!=" ? "<>" : x.Item1, x.Item2));
        var between = Word("between").SkipAnd(needed).AndSkip(Word("and").ElseError("\"and\" is missing here, and the other end."))
            .And(needed).Then<Func<Operand, Predicate>>(
                x => left => new All([new Compared(left, ">=", x.Item1), new Compared(left, "<=", x.Item2)]));
        var list = Terms.Char('(').SkipAnd(Separated(Terms.Char(','), needed)).AndSkip(Terms.Char(')').ElseError("\")\" is missing here."));
        var among = Word("in").SkipAnd(OneOf(list, quoted.Then<IReadOnlyList<Operand>>(text => [text]))
            .ElseError("values in brackets, or a period in quotes, are missing here."))
            .Then<Func<Operand, Predicate>>(values => left => new OneOfThese(left, values));
        var fitting = Word("like").SkipAnd(quoted.ElseError("a pattern in single quotes is missing here."))
            .Then<Func<Operand, Predicate>>(pattern => left => new Fitting(left, pattern));
        var missing = Word("is").SkipAnd(ZeroOrMany(Word("not"))).AndSkip(Word("null").ElseError("\"null\" is missing here."))
            .Then<Func<Operand, Predicate>>(nots => left => Negated(new Missing(left), nots.Count % 2 == 1));
        var negatable = OneOf(between, among, fitting);
        var tail = OneOf(
            compared, missing, negatable,
            Word("not").SkipAnd(negatable.ElseError("between, in or like is missing here."))
                .Then<Func<Operand, Predicate>>(make => left => Negated(make(left), true)));
        var comparison = operand.And(tail).Then(x => x.Item2(x.Item1));
        var bracketed = Terms.Char('(').SkipAnd(predicate).AndSkip(Terms.Char(')').ElseError("\")\" is missing here."));
        var unfinished = operand.AndSkip(tail.ElseError("a comparison is missing here: = <> < <= > >= between, in, like, is null."))
            .Then<Predicate>(_ => null!);
        var condition = OneOf(comparison, bracketed, unfinished);
        var negated = ZeroOrMany(Word("not")).And(condition).Then(x => Negated(x.Item2, x.Item1.Count % 2 == 1));
        var wanted = negated.ElseError("a condition is missing here.");
        var all = negated.And(ZeroOrMany(Word("and").SkipAnd(wanted)))
            .Then(x => x.Item2.Count == 0 ? x.Item1 : new All([x.Item1, .. x.Item2]));
        var allWanted = all.ElseError("a condition is missing here.");
        predicate.Parser = allWanted.And(ZeroOrMany(Word("or").SkipAnd(allWanted)))
            .Then(x => x.Item2.Count == 0 ? x.Item1 : new Any([x.Item1, .. x.Item2]));
        return predicate.AndSkip(SkipWhiteSpace(Always()).Eof().ElseError("\"and\" or \"or\" is missing here, or this is too much."));
    }

    private static IEnumerable<string> NamesIn(Operand operand) => operand is Operand.Reckoned { Formula: var formula } ? formula.Keys : [];

    private static Predicate Negated(Predicate predicate, bool isNegated) => isNegated ? new Opposite(predicate) : predicate;

    private static string Unquoted(string text) => text[1..^1].Replace("''", "'", StringComparison.Ordinal);
}
