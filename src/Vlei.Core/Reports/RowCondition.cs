using Vlei.Core.Fields;
using Vlei.Core.Problems;

namespace Vlei.Core.Reports;

/// <summary>
/// What rows must come to so that they are shown: the condition behind HAVING of SQL (ISO/IEC 9075). It is asked of the figures
/// that stand in the columns, after everything is added up.
/// </summary>
internal sealed class RowCondition
{
    private readonly IReadOnlyList<Func<RowSet, Truth[]>> _tests;

    private readonly FigureFields _fields;

    private RowCondition(IReadOnlyList<Func<RowSet, Truth[]>> tests, FigureFields fields, IReadOnlyList<string> inWords) =>
        (_tests, _fields, InWords) = (tests, fields, inWords);

    /// <summary>What it says, in words, a condition each.</summary>
    public IReadOnlyList<string> InWords { get; }

    /// <summary>
    /// Reads predicates; nothing where there are none. Throws a <see cref="ProblemException"/> where one names no column, or makes
    /// no sense.
    /// </summary>
    /// <param name="having">The predicates; all must hold.</param>
    /// <param name="columns">The columns.</param>
    /// <param name="context">The book.</param>
    public static RowCondition? Of(IReadOnlyList<PredicateText> having, IReadOnlyList<ReportColumn> columns, TableContext context)
    {
        if (having.Count == 0)
        {
            return null;
        }

        var names = having.SelectMany(predicate => Naming.Of(
            predicate.Source, () => Predicate.Parse(predicate.Text, ReportOptions.Having.Name).Names.ToList()))
            .Distinct(StringComparer.OrdinalIgnoreCase).ToList();
        var fields = new FigureFields(ReportOptions.Having.Name, names, columns, context);
        return new RowCondition(
            [.. having.SelectMany(predicate => Naming.Of(
                predicate.Source, () => PredicateTest.Of(predicate.Text, fields.Fields, context, ReportOptions.Having.Name))
                    .Select(test => test.Ask))], fields, [.. having.Select(predicate => $"Having {predicate.Text}")]);
    }

    /// <summary>Those of the rows that it holds for, in their order.</summary>
    /// <param name="rows">The rows.</param>
    /// <param name="cellOf">What a row has in the column at a place.</param>
    public IReadOnlyList<T> Taken<T>(IReadOnlyList<T> rows, Func<T, int, Cell> cellOf)
    {
        var set = _fields.RowsOf(rows.Count, (row, column) => cellOf(rows[row], column));
        var answers = _tests.Select(test => test(set)).ToList();
        return [.. rows.Where((_, row) => answers.TrueForAll(answer => answer[row] == Truth.True))];
    }
}
