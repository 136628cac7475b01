using Vlei.Books.Kept;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Reports;

namespace Vlei.Core.Tests;

/// <summary>Builds reports of random books, whose fiscal year starts in March.</summary>
public static class Statements
{
    public static readonly FiscalCalendar March = new(3);

    public static Spread? By(TimeUnit? unit) => unit is { } known ? Spread.Of(known) : null;

    public static Report Build(string report, ILedger book, ReportRequest request) =>
        StandardReports.Find(report)!.Build(Context(book), request);

    public static ReportContext Context(ILedger book) => new(
        "Test", Currency.TryFind("ZAR", out var zar) ? zar : throw new InvalidOperationException(), March,
        AccountingBasis.Accrual, new DateOnly(2026, 6, 30), book, name => LayoutFile.Find(name, Library.Of(null)));
}
