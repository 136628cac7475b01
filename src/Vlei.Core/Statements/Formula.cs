using System.Text;
using Parlot.Fluent;
using Vlei.Core.Money;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core.Statements;

/// <summary>
/// A formula over rows: their keys, numbers, + - * / and brackets. A key may have hyphens, so a minus stands between
/// blanks.
/// </summary>
internal abstract record Formula
{
    private static readonly Parser<Formula> Grammar = Build();

    /// <summary>The row of that key.</summary>
    public sealed record Row(string Key) : Formula;

    /// <summary>A number.</summary>
    public sealed record Number(decimal Value) : Formula;

    /// <summary>Two formulas and what is done with them.</summary>
    public sealed record Pair(char Operator, Formula Left, Formula Right) : Formula;

    /// <summary>The keys that it names.</summary>
    public IEnumerable<string> Keys => this switch
    {
        Row row => [row.Key],
        Pair pair => pair.Left.Keys.Concat(pair.Right.Keys),
        _ => [],
    };

    /// <summary>Whether it only adds rows and takes them away, so that it is a sum of postings itself.</summary>
    public bool IsSum => this is Row or Pair { Operator: '+' or '-', Left.IsSum: true, Right.IsSum: true };

    /// <summary>The rows that a sum adds, with their signs.</summary>
    public IEnumerable<(string Key, int Sign)> Parts => this switch
    {
        Row row => [(row.Key, 1)],
        Pair pair => pair.Left.Parts.Concat(pair.Right.Parts.Select(part =>
            (part.Key, pair.Operator == '-' ? -part.Sign : part.Sign))),
        _ => throw new InvalidOperationException("It is no sum."),
    };

    /// <summary>What it comes to; nothing where something is divided by zero.</summary>
    public decimal? ValueOf(Func<string, decimal?> rowOf) => this switch
    {
        Row row => rowOf(row.Key),
        Number number => number.Value,
        Pair pair => Apply(pair.Operator, pair.Left.ValueOf(rowOf), pair.Right.ValueOf(rowOf)),
        _ => throw new InvalidOperationException($"There is no such formula: {this}."),
    };

    /// <summary>Reads one. Throws a <see cref="ProblemException"/> with its place where it is none.</summary>
    public static Formula Parse(string text, LayoutRowText row)
    {
        if (!Grammar.TryParse(text, out var formula) || formula is null)
        {
            throw new ProblemException(
                ProblemKind.BadData, $"{row.Place}: \"{text}\" is not a formula.",
                "Write keys of rows above, numbers, + - * / with blanks around them, and brackets: gross-profit / income.");
        }

        return row.Show == "money" && !formula.IsSum
            ? throw new ProblemException(
                ProblemKind.BadData, $"{row.Place}: money comes from adding rows and taking them away.",
                "Where rows are divided, add show = \"percent\" or show = \"ratio\".")
            : formula;
    }

    private static decimal? Apply(char sign, decimal? left, decimal? right) => sign switch
    {
        '+' => left + right,
        '-' => left - right,
        '*' => left * right,
        _ => right == 0 ? null : left / right,
    };

    private static Parser<Formula> Build()
    {
        var formula = Deferred<Formula>();
        var key = Terms.Pattern(c => char.IsAsciiLetterOrDigit(c) || c is '-' or '.' or '_').Then(span => Leaf(span.ToString()));
        var bracketed = Between(Terms.Char('('), formula, Terms.Char(')'));
        var unit = key.Or(bracketed);
        var product = unit.And(ZeroOrMany(Terms.Char('*').Or(Terms.Char('/')).And(unit))).Then(Joined);
        formula.Parser = product.And(ZeroOrMany(Terms.Char('+').Or(Terms.Char('-')).And(product))).Then(Joined);
        return formula.Eof();
    }

    private static Formula Leaf(string text)
    {
        const int Decimals = 6;
        const decimal Millionths = 1_000_000m;
        return DecimalText.Read(Encoding.UTF8.GetBytes(text), Decimals, out var units) == DecimalTextResult.Read
            ? new Number(units / Millionths)
            : new Row(text);
    }

    private static Formula Joined((Formula First, IReadOnlyList<(char, Formula)> More) parts) =>
        parts.More.Aggregate(parts.First, (left, next) => new Pair(next.Item1, left, next.Item2));
}
