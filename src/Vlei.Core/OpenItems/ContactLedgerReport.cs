using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Reports;

namespace Vlei.Core.OpenItems;

/// <summary>The documents of each contact with the balance after each, and what was set against what.</summary>
public static class ContactLedgerReport
{
    private static readonly ContactLedgerWords CustomerWords = new(
        "Date", "Kind", "Due", "Memo", "Charged", "Settled", "Set against", "Balance", kind => kind);

    /// <summary>That of customers.</summary>
    public static ReportDefinition Customers { get; } = new()
    {
        Key = "customer-ledger",
        Title = "Customer ledger",
        Subject = "Receivables and payables",
        Question = "What was charged to a customer, paid, and set off?",
        Words = ["debtors", "receivables", "history", "invoices", "receipts", "credits", "applied", "settlements", "account"],
        Options = [ReportOptions.Period, ReportOptions.Only, ReportOptions.Except, ReportOptions.Where, ReportOptions.Select,
            ReportOptions.Columns, ReportOptions.Title],
        Examples =
        [
            ("--period last-3-months --only \"contact.name=Heron*\"", "one customer, the last three months"),
            ("--period /2026-05 --only contact=C0012", "everything up to the end of May"),
        ],
        Build = (context, request) => Build(Customers!, AccountType.Receivable, context, request),
    };

    /// <summary>That of suppliers.</summary>
    public static ReportDefinition Suppliers { get; } = Customers with
    {
        Key = "supplier-ledger",
        Title = "Supplier ledger",
        Question = "What did a supplier charge, and what did we pay?",
        Words = ["creditors", "payables", "history", "bills", "payments", "credits", "applied", "settlements", "account"],
        Examples = [("--period last-month", "every supplier, last month")],
        Build = (context, request) => Build(Suppliers!, AccountType.Payable, context, request),
    };

    private static Report Build(ReportDefinition definition, AccountType type, ReportContext context, ReportRequest request)
    {
        var range = context.PeriodOf(request).Range;
        var report = new ItemReport(definition, context, request, type, range.To);
        var ledger = new ContactLedger(context, report.History, range, CustomerWords, withApplied: true);
        var (shown, opening, closing) = (new List<int>(), Amount.Zero, Amount.Zero);
        foreach (var contact in report.ByContact())
        {
            // A contact with nothing in the period and nothing left from before is not worth a heading.
            var before = contact.Items.Where(item => report.History[item].Date < range.From).ToList();
            if (before.Count < contact.Items.Count || before.Sum(item => report.History[item].Total.MinorUnits) != 0)
            {
                var (opened, closed) = ledger.Add(
                    contact.Key, contact.Name, contact.Items, Caption.Ours("Opening balance"),
                    Caption.Ours("Balance of {0}", contact.Name), isOneOfSeveral: true);
                shown.AddRange(contact.Items);
                (opening, closing) = (opening + opened, closing + closed);
            }
        }

        ledger.AddTotal(Caption.Ours("Total"), shown);
        var table = new ReportTable<ContactLedgerRow, OwnFigure<ContactLedgerRow>>(
            definition.Title, ledger.Columns, ledger.Rows, new OwnFigures<ContactLedgerRow>());
        return report.OfBalances(table.In(report.Frame(range)) with
        {
            Checks = report.TiesToControl([(range.From.AddDays(-1), opening), (range.To, closing)]),
        });
    }
}
