using System.Text;
using Parlot.Fluent;
using Vlei.Core.Money;

namespace Vlei.Core.Fields;

/// <summary>
/// A formula over things that have names: names, numbers, + - * / and brackets. A name may have hyphens, so a minus stands
/// between blanks; what is in double quotes is a name whatever it is.
/// </summary>
public abstract record Formula
{
    // Text is nested no deeper than this, so that nothing that is typed can exhaust the stack.
    private const int MostNested = 64;

    /// <summary>How long a text may be, for the same reason: what is added up is a part within a part.</summary>
    internal const int MostLetters = 10_000;

    private static readonly Lazy<Parser<Formula>> Whole = new(() => Build().Eof());

    /// <summary>What has that name.</summary>
    /// <param name="Name">The name.</param>
    /// <param name="Place">Where it stands in the text, from 0.</param>
    public sealed record Named(string Name, int Place) : Formula;

    /// <summary>A number.</summary>
    /// <param name="Value">The number.</param>
    /// <param name="Text">How it was written.</param>
    public sealed record Number(decimal Value, string Text) : Formula;

    /// <summary>Two formulas and what is done with them.</summary>
    /// <param name="Operator">One of + - * /.</param>
    /// <param name="Left">The first.</param>
    /// <param name="Right">The second.</param>
    public sealed record Pair(char Operator, Formula Left, Formula Right) : Formula;

    /// <summary>The names in it.</summary>
    public IEnumerable<Named> Names => this switch
    {
        Named named => [named],
        Pair pair => pair.Left.Names.Concat(pair.Right.Names),
        _ => [],
    };

    /// <summary>The names in it, as text.</summary>
    public IEnumerable<string> Keys
    {
        get
        {
            foreach (var named in Names)
            {
                yield return named.Name;
            }
        }
    }

    /// <summary>Whether it only adds what is named and takes it away, so that it is a sum itself.</summary>
    public bool IsSum => this is Named or Pair { Operator: '+' or '-', Left.IsSum: true, Right.IsSum: true };

    /// <summary>What a sum adds, with its signs. Throws where it is none.</summary>
    public IEnumerable<(string Key, int Sign)> Parts => this switch
    {
        Named named => [(named.Name, 1)],
        Pair pair => pair.Left.Parts.Concat(pair.Right.Parts.Select(part =>
            (part.Key, pair.Operator == '-' ? -part.Sign : part.Sign))),
        _ => throw new InvalidOperationException("It is no sum."),
    };

    /// <summary>
    /// What it comes to; nothing where something is divided by zero. Throws <see cref="OverflowException"/> where it does
    /// not fit.
    /// </summary>
    public decimal? ValueOf(Func<string, decimal?> valueOf) => this switch
    {
        Named named => valueOf(named.Name),
        Number number => number.Value,
        Pair pair => Apply(pair.Operator, pair.Left.ValueOf(valueOf), pair.Right.ValueOf(valueOf)),
        _ => throw new InvalidOperationException($"There is no such formula: {this}."),
    };

    /// <summary>Reads one; nothing where the text is none.</summary>
    public static Formula? Parse(string text) =>
        text.Length <= MostLetters && Nesting(text) <= MostNested && Whole.Value.TryParse(text, out var formula) ? formula : null;

    /// <summary>How deep brackets are nested in a text, outside of what is quoted.</summary>
    public static int Nesting(string text)
    {
        var (depth, most, quote) = (0, 0, '\0');
        foreach (var letter in text)
        {
            if (quote != '\0')
            {
                quote = letter == quote ? '\0' : quote;
                continue;
            }

            quote = letter is '\'' or '"' ? letter : quote;
            depth += letter == '(' ? 1 : letter == ')' ? -1 : 0;
            most = Math.Max(most, depth);
        }

        return most;
    }

    private static decimal? Apply(char sign, decimal? left, decimal? right) => sign switch
    {
        '+' => left + right,
        '-' => left - right,
        '*' => left * right,
        _ => right == 0 ? null : left / right,
    };

    /// <summary>The grammar, for a larger one that has formulas in it.</summary>
    /// <param name="reserved">Words that are no names there.</param>
    internal static Parser<Formula> Build(params string[] reserved)
    {
        var formula = Deferred<Formula>();
        var plain = Terms.Pattern(c => char.IsAsciiLetterOrDigit(c) || c is '-' or '.' or '_')
            .When((_, span) => !reserved.Contains(span.ToString(), StringComparer.OrdinalIgnoreCase))
            .Then(span => Leaf(span.ToString(), span.Offset));
        var quoted = SkipWhiteSpace(Between(Literals.Char('"'), Literals.NoneOf("\""), Literals.Char('"')))
            .Then<Formula>(span => new Named(span.ToString(), span.Offset));
        var bracketed = Between(Terms.Char('('), formula, Terms.Char(')'));
        var unit = OneOf(plain, quoted, bracketed);
        var product = unit.And(ZeroOrMany(Terms.Char('*').Or(Terms.Char('/')).And(unit))).Then(Joined);
        formula.Parser = product.And(ZeroOrMany(Terms.Char('+').Or(Terms.Char('-')).And(product))).Then(Joined);
        return formula;
    }

    private static Formula Leaf(string text, int place)
    {
        const int Decimals = 6;
        const decimal Millionths = 1_000_000m;
        return DecimalText.Read(Encoding.UTF8.GetBytes(text), Decimals, out var units) == DecimalTextResult.Read
            ? new Number(units / Millionths, text)
            : new Named(text, place);
    }

    private static Formula Joined((Formula First, IReadOnlyList<(char, Formula)> More) parts) =>
        parts.More.Aggregate(parts.First, (left, next) => new Pair(next.Item1, left, next.Item2));
}
