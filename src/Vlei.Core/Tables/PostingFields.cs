using Vlei.Core.Fields;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core.Tables;

/// <summary>
/// The fields that postings are chosen by and spread over where they are added up. What postings themselves say is read
/// column by column, so that a month is quick, whether of a basis, of money or of a budget; for the rest, records are looked up.
/// </summary>
public sealed class PostingFields
{
    private readonly ReportContext _context;

    // Most reports choose nothing and are spread over no field: then none is looked up.
    private readonly Lazy<(TableFields Fields, TableContext Context)> _known;

    /// <summary>Those of a book.</summary>
    public PostingFields(ReportContext context, ReportRequest request)
    {
        _context = context;
        _known = new Lazy<(TableFields, TableContext)>(() =>
        {
            var own = TableReport.ContextOf(PostingTables.Postings, context, request);
            return (new TableFields(PostingTables.Postings, own), own);
        });
    }

    /// <summary>The field of that name. Throws a <see cref="ProblemException"/> that names the nearest where there is none.</summary>
    /// <param name="name">The name, in any case.</param>
    /// <param name="others">Other names that are known where it is asked for.</param>
    public BoundField Named(string name, params IReadOnlyList<string> others) => _known.Value.Fields.Has(name)
        ? _known.Value.Fields.Named(name)
        : throw new ProblemException(
            ProblemKind.Usage, $"There is no field {name}.",
            Suggestion.DidYouMean(name, FieldNames.OfPostings.Concat(others)) ?? _known.Value.Fields.Meant(name)
            ?? $"There are {Suggestion.Listed([.. FieldNames.OfPostings.Append("tag.NAME").Union(others)], "and")}, and what vlei fields "
                + $"postings lists.");

    /// <summary>
    /// Which postings are taken. Throws a <see cref="ProblemException"/> where there is no such field or no such value.
    /// </summary>
    /// <param name="choices">What is taken alone, and what is left out.</param>
    /// <param name="where">Predicates; all must hold.</param>
    /// <param name="others">Names of other things that can be chosen by, for messages.</param>
    public Selection Select(
        IReadOnlyList<FieldChoice> choices, IReadOnlyList<PredicateText> where, params IReadOnlyList<string> others) =>
        choices.Count + where.Count == 0 ? Selection.Everything : Selection.Of(
            choices, where, _known.Value.Fields, _known.Value.Context, name => Named(name, others), MonthOf);

    /// <summary>
    /// The values of a field that columns are spread over. Throws a <see cref="ProblemException"/> where there is no such field,
    /// or where it has too many values.
    /// </summary>
    public Slicing Spread(string name)
    {
        var field = Named(name, [.. FieldNames.Spreading, .. Calendar.FiscalCalendar.UnitNames]);
        if (field.Field.IsNumber)
        {
            throw new ProblemException(
                ProblemKind.Usage, $"--by does not take {field.Field.Name}, which is a number.",
                $"Take a word, a date or a record: {Suggestion.Listed([.. FieldNames.Spreading, "tag.NAME"], "or")}.");
        }

        return field.ColumnsOfPostings is { } columns ? new Slicing(field.Field, field.Values, rows => field.Chosen(rows).Numbers)
        {
            Columns = columns, MonthOf = MonthOf,
        } : Found(field);
    }

    // What postings do not say themselves is looked up once to know which values there are.
    private Slicing Found(BoundField field)
    {
        var (index, known) = (new FieldIndex(field, _context.Calendar), new HashSet<long>());
        foreach (var (month, _) in Postings.Months(_context.Ledger, PostingSource.Accrual, _context.Records))
        {
            known.UnionWith(index.NumbersOf(new RowSet(MonthOf(PostingSource.Accrual, month))));
            index.RefuseTooManyColumns(known.Count, $"Take it as rows: vlei show postings --group-by {field.Field.Name} --summary.");
        }

        var numbers = known.Where(number => !index.IsNothing(number)).Order(Comparer<long>.Create(index.Compare)).ToList();
        var places = numbers.Select((number, place) => (number, place)).ToDictionary(pair => pair.number, pair => pair.place + 1L);
        return new Slicing(
            field.Field,
            [new FieldValue(FieldNames.None, FieldNames.None),
                .. numbers.Select(number => new FieldValue(index.KeyOf(number), index.LabelOf(number)))],
            rows => [.. index.NumbersOf(rows).Select(number => places.GetValueOrDefault(number))])
        { MonthOf = MonthOf };
    }

    private RowBlock MonthOf(PostingSource source, Calendar.YearMonth month) => PostingTables.MonthOf(_context.Ledger, source, month);
}
