using System.CommandLine.Completions;
using Vlei.Books;
using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Desk;

namespace Vlei.Commands;

/// <summary>
/// Completes what stands behind options of reports from the book itself: the values of a field behind its equals sign, and the
/// fields of the report's table in lists. To complete a word is no occasion to complain.
/// </summary>
internal static class ValueCompletion
{
    private const int Most = 500;

    private static readonly ReportOption[] OfFields =
        [ReportOptions.Columns, ReportOptions.GroupBy, ReportOptions.Sort, ReportOptions.By, ReportOptions.Measure];

    private static readonly Dictionary<string, RecordTable> Records = new()
    {
        ["contact"] = RecordTables.Contacts, ["item"] = RecordTables.Items, ["project"] = RecordTables.Projects,
        ["department"] = RecordTables.Departments,
    };

    /// <summary>The words that fit what is typed of an option so far.</summary>
    /// <param name="option">The option.</param>
    /// <param name="context">What is typed.</param>
    /// <param name="report">The report that is named; nothing where none is.</param>
    public static IEnumerable<CompletionItem> Of(ReportOption option, CompletionContext context, string? report)
    {
        var typed = context.WordToComplete;
        var comma = typed.LastIndexOf(',') + 1;
        if (option == ReportOptions.Only || option == ReportOptions.Except)
        {
            var equals = typed.IndexOf('=');
            return equals < 0 ? [] : Completed(typed, Math.Max(equals + 1, comma), Silently(() => ValuesOf(typed[..equals], context)));
        }

        return OfFields.Contains(option) && report is not null
            ? Completed(typed, comma, Silently(() => FieldsOf(report, context))) : [];
    }

    private static IEnumerable<CompletionItem> Completed(string typed, int at, IEnumerable<string> words) =>
        words.Where(word => word.StartsWith(typed[at..], StringComparison.OrdinalIgnoreCase)).Take(Most)
            .Select(word => new CompletionItem(typed[..at] + word));

    private static IEnumerable<string> ValuesOf(string field, CompletionContext context)
    {
        if (field == "kind")
        {
            return DocumentKinds.Names;
        }

        if (BookOptions.BookIfAny(context.ParseResult) is not { } book || (field != "account" && !Records.ContainsKey(field)))
        {
            return [];
        }

        using var ledger = LedgerReader.Open(book);
        return [.. (field == "account" ? ledger.Accounts.Select(account => account.Code)
            : ledger.Names(Records[field]).All.Select(record => record.Id)).Append(FieldNames.None)];
    }

    private static IEnumerable<string> FieldsOf(string report, CompletionContext context)
    {
        var table = new ReportCatalogue(ReportArguments.LibraryOf(context)).Find(report).Table;
        return table is null ? [] : [.. table.Fields.Select(field => field.Name), .. FiscalCalendar.UnitNames];
    }

    private static IEnumerable<string> Silently(Func<IEnumerable<string>> words)
    {
        try
        {
            return words();
        }
        catch (ProblemException)
        {
            return [];
        }
    }
}
