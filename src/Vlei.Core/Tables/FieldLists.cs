using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core.Tables;

/// <summary>The tables, the fields of one and the values of a field, as lists.</summary>
public static class FieldLists
{
    /// <summary>The tables.</summary>
    public static Report Tables(ReportContext context, IReadOnlyList<TableDefinition> tables) => Frame(context, "Tables") with
    {
        Columns = [new("meaning", "What its rows are", ColumnKind.Text)],
        Rows = [.. tables.Select(table => new ReportRow(table.Name, table.Name, RowKind.Record, 0, [Cell.Of(table.Meaning)]))],
    };

    /// <summary>
    /// The fields of a table; with words, those whose name or meaning has all of them. Throws a
    /// <see cref="ProblemException"/> where there is no such field.
    /// </summary>
    public static Report Fields(ReportContext context, TableDefinition table, IReadOnlyList<string> words)
    {
        var fields = new TableFields(table, TableReport.ContextOf(table, context, new ReportRequest()));
        var all = fields.All().ToList();
        var found = all.Where(field => words.All(word =>
            field.Name.Contains(word, StringComparison.OrdinalIgnoreCase)
                || field.Meaning.Contains(word, StringComparison.OrdinalIgnoreCase))).ToList();
        if (found.Count == 0 && words.Count == 1 && fields.Has(words[0]))
        {
            found.Add(fields.Named(words[0]).Field);
        }

        return found.Count == 0
            ? throw new ProblemException(
                ProblemKind.NotFound, $"{table.Name} have no field \"{string.Join(' ', words)}\".",
                Suggestion.DidYouMean(words[0], all.Select(field => field.Name)) ?? $"vlei fields {table.Name} lists them.")
            : Frame(context, $"Fields of {table.Name}") with
            {
                Columns = [new("type", "Type", ColumnKind.Text), new("meaning", "Meaning", ColumnKind.Text)],
                Rows = [.. found.Select(field => new ReportRow(
                    field.Name, field.Name, RowKind.Record, 0, [Cell.Of(field.TypeName), Cell.Of(field.Meaning)]))],
            };
    }

    /// <summary>
    /// What a field holds in all records of a table, most often first. Throws a <see cref="ProblemException"/> where there is no
    /// such field.
    /// </summary>
    /// <param name="context">The book.</param>
    /// <param name="table">The table.</param>
    /// <param name="field">The field.</param>
    /// <param name="list">Which values, as in <c>--only</c>; all of them where it is nothing.</param>
    public static Report Values(ReportContext context, TableDefinition table, string field, string? list) => TableReport.Build(
        "fields", $"Values of {table.Name}.{field}", table, context, new ReportRequest
        {
            Period = table.IsOfMoment ? null : new OpenPeriod(null, null),
            Choices = list is null ? [] : [new FieldChoice(field, ValueList.Parse(list), IsExcept: false)],
            Columns = [[new ColumnText(null, Measure.Rows.Key, null)]],
            List = new ListRequest { GroupBy = [field] },
            Summary = true,
            Sort = [new SortOrder(Measure.Rows.Key, Downwards: true)],
        });

    private static Report Frame(ReportContext context, string title) => new()
    {
        Key = "fields",
        Title = title,
        Book = context.Name,
        Currency = context.Currency,
        Basis = AccountingBasis.Accrual,
        Period = null,
        AsOf = null,
        PeriodInWords = "What can be shown, filtered, grouped and summed",
        InWhat = "A field of a related record is reached by its name behind a point: contact.email",
        Columns = [],
        Rows = [],
        Checks = [],
        OriginOf = (_, _) => null,
        Revision = context.Ledger.Revision,
    };
}
