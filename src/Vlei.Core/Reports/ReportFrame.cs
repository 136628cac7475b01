using Vlei.Core.Calendar;
using Vlei.Core.Ledger;

namespace Vlei.Core.Reports;

/// <summary>What stands around the rows of a report: its title, its days in words, its basis, what it was narrowed to, its notes.</summary>
internal static class ReportFrame
{
    /// <summary>The report without its rows and columns.</summary>
    /// <param name="key">The key of the report.</param>
    /// <param name="title">Its usual title.</param>
    /// <param name="context">The book.</param>
    /// <param name="request">What is asked.</param>
    /// <param name="days">The days that it covers; for a report of a moment the last of them is meant.</param>
    /// <param name="isOfMoment">Whether it shows a moment.</param>
    /// <param name="basis">Its basis.</param>
    public static Report Of(
        string key, string title, ReportContext context, ReportRequest request, DateRange days, bool isOfMoment,
        AccountingBasis basis) => new()
        {
            Key = key,
            Title = request.Title ?? title,
            Book = context.Name,
            Currency = context.Currency,
            Basis = request.HasBothBases ? AccountingBasis.Accrual : basis,
            HasBothBases = request.HasBothBases,
            Period = isOfMoment ? null : days,
            AsOf = isOfMoment ? days.To : null,
            PeriodInWords = isOfMoment ? $"As of {PeriodText.Words(days.To)}" : PeriodText.Words(days, context.Calendar),
            Columns = [],
            Rows = [],
            Checks = [],
            OriginOf = (_, _) => null,
            Revision = context.Ledger.Revision,
        };
}
