using Vlei.Core.Fields;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core.Tables;

/// <summary>
/// The fields that postings are chosen by and spread over where they are added up: what postings themselves say, so that
/// months are read column by column, whether of a basis, of money or of a budget.
/// </summary>
public sealed class PostingFields
{
    // Most reports choose nothing and are spread over no field: then none is looked up.
    private readonly Lazy<(TableFields Fields, TableContext Context)> _known;

    /// <summary>Those of a book.</summary>
    public PostingFields(ReportContext context, ReportRequest request) =>
        _known = new Lazy<(TableFields, TableContext)>(() =>
        {
            var own = TableReport.ContextOf(PostingTables.Postings, context, request);
            return (new TableFields(PostingTables.Postings, own), own);
        });

    /// <summary>The field of that name. Throws a <see cref="ProblemException"/> that names the nearest where there is none.</summary>
    /// <param name="name">The name, in any case.</param>
    /// <param name="others">Other names that are known where it is asked for.</param>
    public BoundField Named(string name, params IReadOnlyList<string> others)
    {
        var fields = _known.Value.Fields;
        if (FieldNames.IsTag(name) || (fields.Has(name) && IsSaidByPostings(fields.Named(name))))
        {
            return fields.Named(name);
        }

        throw new ProblemException(
            ProblemKind.Usage, $"There is no field {name}.",
            Suggestion.DidYouMean(name, FieldNames.OfPostings.Concat(others))
            ?? $"There are {Suggestion.Listed([.. FieldNames.OfPostings, "tag.NAME", .. others], "and")}.");
    }

    /// <summary>
    /// Which postings are taken. Throws a <see cref="ProblemException"/> where there is no such field or no such value.
    /// </summary>
    /// <param name="choices">What is taken alone, and what is left out.</param>
    /// <param name="others">Names of other things that can be chosen by, for messages.</param>
    public Selection Select(IReadOnlyList<FieldChoice> choices, params IReadOnlyList<string> others) =>
        choices.Count == 0 ? Selection.Everything : Selection.Of(choices, name => Named(name, others), _known.Value.Context);

    // What they count is added up, not chosen by.
    private static bool IsSaidByPostings(BoundField field) =>
        field.Columns is { } columns && columns.All(column => PostingColumns.Find(column) is not null)
        && (field.Field.Target is not null || field.Field.Words is not null || field.Field.Name.Contains('.', StringComparison.Ordinal));
}
