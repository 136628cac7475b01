using Vlei.Core.Fields;
using Vlei.Core.Reports;

namespace Vlei.Core.Statements;

/// <summary>What a row's figures are made of.</summary>
internal abstract record RowValue
{
    /// <summary>A sum of postings, for each measure of the columns.</summary>
    /// <param name="Terms">What counts towards it, by measure.</param>
    public sealed record Sum(IReadOnlyList<IReadOnlyList<Term>> Terms) : RowValue
    {
        /// <summary>Of statements with one measure, what counts towards it.</summary>
        public IReadOnlyList<Term> Only => Terms[0];

        /// <summary>A sum with one measure.</summary>
        public static Sum Of(IEnumerable<Term> terms) => new([[.. terms]]);

        /// <summary>Several sums together, each as often as its sign says.</summary>
        public static Sum Of(IEnumerable<(Sum Part, int Sign)> parts) => Of(parts.SelectMany(part =>
            part.Part.Only.Select(term => term with { Sign = term.Sign * part.Sign })));
    }

    /// <summary>What a formula gives that is no sum.</summary>
    /// <param name="Formula">The formula.</param>
    /// <param name="Rows">The rows that it names.</param>
    /// <param name="Kind">Whether it is a percentage or a plain number.</param>
    public sealed record Quotient(Formula Formula, IReadOnlyDictionary<string, RowValue> Rows, ColumnKind Kind) : RowValue;
}

/// <summary>A row of a statement before it has cells.</summary>
/// <param name="Key">The name by which machines know it.</param>
/// <param name="Label">What stands before its figures.</param>
/// <param name="Kind">What it is.</param>
/// <param name="Level">How far it is indented.</param>
/// <param name="Value">What its figures are made of; nothing for a heading.</param>
/// <param name="Group">The total of the group that it stands in.</param>
internal sealed record StatementRow(
    string Key, string Label, RowKind Kind, int Level, RowValue? Value = null, RowValue.Sum? Group = null)
{
    /// <inheritdoc cref="ReportRow.MadeOf"/>
    public IReadOnlyList<(string Key, int Sign)>? MadeOf { get; init; }
}
