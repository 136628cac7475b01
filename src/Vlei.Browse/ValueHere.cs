using Vlei.Core;
using Vlei.Core.Fields;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Core.Tables;

namespace Vlei.Browse;

/// <summary>What the cell that a person stands in says, as a condition that narrows a report to it: <c>contact=C0026</c>.</summary>
internal static class ValueHere
{
    // What the rows of a report without a table of its own can stand for.
    private static readonly string[] OfRows = ["account", "contact", "item", "project", "department"];

    /// <summary>The condition. Throws a <see cref="ProblemException"/> where nothing there can be chosen by.</summary>
    public static string Of(Step step)
    {
        if (step.Open is not { } open || step.Current is not { } row)
        {
            throw Nothing();
        }

        var table = open.Definition.Table ?? StandardTables.Find("postings")!;
        return InCell(step, row, table) ?? OfGroup(row, open.Request.List.GroupBy) ?? OfRow(open, row, table) ?? throw Nothing();
    }

    private static string? InCell(Step step, ReportRow row, TableDefinition table)
    {
        if (step.ColumnPlace is not { } column || step.Open!.Context is not { } context)
        {
            return null;
        }

        var (described, cell) = (step.Table.Report.Columns[column], row.Cells[column]);
        return described.Kind == ColumnKind.Date && cell.Units is { } day
            ? $"{described.Key}={DateOnly.FromDayNumber((int)day):yyyy-MM-dd}"
            : described.Kind == ColumnKind.Text && cell.Words is { } words
                && ValuesOf(context, table, described.Key).FirstOrDefault(value => value.Label == words || value.Key == words) is { } found
            ? Condition(described.Key, found.Key) : null;
    }

    private static string? OfGroup(ReportRow row, IReadOnlyList<string> groups) =>
        row.Group is { Count: > 0 } path && path.Count <= groups.Count ? Condition(groups[path.Count - 1], path[^1]) : null;

    private static string? OfRow(Desk.OpenReport open, ReportRow row, TableDefinition table) =>
        row.Document is { } document ? Condition("document", document)
            : OfRows.FirstOrDefault(field => ValuesOf(open.Context, table, field).Any(value => value.Key == row.Key)) is { } found
                ? Condition(found, row.Key) : null;

    private static IEnumerable<ReportRow> ValuesOf(ReportContext context, TableDefinition table, string field)
    {
        try
        {
            return FieldLists.Values(context, table, field, null).Rows.Where(row => row.Kind == RowKind.Group);
        }
        catch (ProblemException)
        {
            // A column that is worked out from others is no field.
            return [];
        }
    }

    private static string Condition(string field, string value) => $"{field}={(value == FieldNames.None ? value : ValueList.Typed(value))}";

    private static ProblemException Nothing() => new(
        ProblemKind.Usage, "There is nothing in this cell that a report can be narrowed by.", "Go to a name, a kind or a day.");
}
