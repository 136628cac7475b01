using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core.OpenItems;

/// <summary>
/// What a customer is sent: the balance at the start of a period, the documents in it, the balance at its end, how late what
/// is open is, and how to pay; in the customer's language where its contact has a tag <c>language</c> that is known.
/// </summary>
public static class StatementOfAccountReport
{
    private const string LanguageTag = "language";

    private static readonly ContactLedgerWords Words = new(
        "Date", "Document", "Due", "Description", "Charged", "Paid or credited", "", "Balance", kind => kind == "opening"
            ? "brought forward" : kind.Replace('-', ' '));

    /// <summary>Its entry in the catalogue.</summary>
    public static ReportDefinition Definition { get; } = new()
    {
        Key = "statement-of-account",
        Title = "Statement of account",
        Asks = "contact",
        Subject = "Receivables and payables",
        Question = "What do we send a customer who owes us money?",
        Words = ["customers", "debtors", "reminder", "letter", "batch", "remittance", "pay", "send", "statements"],
        Options =
        [
            ReportOptions.Period, ReportOptions.Limits, ReportOptions.AgeBy, ReportOptions.Unapplied, ReportOptions.Only,
            ReportOptions.Except, ReportOptions.Where, ReportOptions.Select, ReportOptions.Columns, ReportOptions.Title,
        ],
        Examples =
        [
            ("--period last-month --only \"contact.name=Heron*\"", "for one customer"),
            ("--period last-month --to statements/", "for every customer with something to say, a file each"),
        ],
        Build = Build,
        Each = Each,
    };

    // Those who have any document in the period, or anything open at its end.
    private static IReadOnlyList<(string Name, ReportRequest Request)> Each(ReportContext context, ReportRequest request)
    {
        var range = context.PeriodOf(request).Range;
        var report = new ItemReport(Definition, context, request, AccountType.Receivable, range.To);
        var open = report.History.OpenAt(range.To);
        var keys = context.Ledger.Names(RecordTables.Contacts).All
            .ToDictionary(contact => contact.Id, contact => new ContactKey(contact.Key));
        return
        [
            .. report.ByContact()
                .Where(contact => contact.Key != FieldNames.None && contact.Items.Any(item =>
                    !open[item].IsZero || (report.History[item].Date >= range.From && !report.History[item].Total.IsZero)))
                .Select(contact => (contact.Key, request with { Items = request.Items with { Contact = keys[contact.Key] } })),
        ];
    }

    private static Report Build(ReportContext context, ReportRequest request)
    {
        var range = context.PeriodOf(request).Range;
        if (request.Items.Contact is not { } key)
        {
            var each = Each(context, request);
            return each.Count == 1 ? Build(context, each[0].Request) : throw new ProblemException(
                ProblemKind.Usage,
                each.Count == 0 ? "There is nothing to say to any of those customers in that period."
                    : $"A statement of account is for one customer, and {each.Count} are asked for.",
                each.Count == 0 ? "Choose another period, or others: vlei show customer-balances lists them."
                    : "Choose one with --only contact=ID, or write a file for each: --to FOLDER/");
        }

        var names = context.Ledger.Names(RecordTables.Contacts);
        var id = names.IdOf(key.Value);
        // What is chosen says whom a statement is for; what it says to them is always the whole of it.
        var report = new ItemReport(Definition, context, request with { Choices = [], Where = [] }, AccountType.Receivable, range.To);
        var ledger = new ContactLedger(context, report.History, range, Words, withApplied: false);
        List<int> items = [.. report.History.OfContact(key)];
        var closing = ledger.AddAlone(
            id, key, items, Caption.Ours("Opening balance"), Caption.Ours("Settled with other accounts"),
            Caption.Ours("Balance due"));
        var open = AddByAge(ledger, report.History, new Aging(report.History, range.To, request), request, items);
        var table = new ReportTable<ContactLedgerRow, OwnFigure<ContactLedgerRow>>(
            Definition.Title, ledger.Columns, ledger.Rows, new OwnFigures<ContactLedgerRow>());
        return table.In(report.Frame(range)) with
        {
            PeriodInWords = $"{PeriodText.Iso(range.From)} to {PeriodText.Iso(range.To)}",
            InWhat = $"Amounts in {context.Currency.Code}",
            AddressedTo = [names.NameOf(key.Value), .. Lines(context.Ledger.ContactAddress(key))],
            Letter = new ReportLetter(id, closing),
            Foot = context.Remittance.Length == 0 ? [] : ["How to pay", .. Lines(context.Remittance)],
            Checks = [new ReportCheck("What is open adds up to the balance", closing, open, "")],
            Look = new ReportLook { Language = LanguageOf(key, context.Ledger) is { } code ? context.LanguageOf(code) : null },
        };
    }

    private static string? LanguageOf(ContactKey contact, ILedger ledger) =>
        ledger.Tagged(RecordTables.Contacts).FirstOrDefault(record => record.Key == contact.Value).Tags?.GetValueOrDefault(LanguageTag);

    // How late what is open is, below the rows of the ledger; gives what it comes to.
    private static Amount AddByAge(ContactLedger ledger, ControlHistory history, Aging aging, ReportRequest request, List<int> items)
    {
        var total = Amount.Zero;
        ledger.AddHeading("by-age", Caption.Ours("By age"));
        foreach (var (key, place) in Aging.Classes(request).Select((known, place) => (known.Key, place)))
        {
            var open = items.Where(item => !aging.OpenIn(item, place).IsZero).ToList();
            var sum = open.Aggregate(Amount.Zero, (sum, item) => sum + aging.OpenIn(item, place));
            ledger.AddOpen(key, Caption.Ours(AgeOf(key)), sum, [.. open.Select(item => history.OriginOf(item, aging.Day))]);
            total += sum;
        }

        return total;
    }

    private static string AgeOf(string key) => key switch
    {
        "current" => "Not yet due",
        "unapplied" => "Not applied yet",
        _ when key.StartsWith("over-", StringComparison.Ordinal) => $"Over {key[5..]} days late",
        _ => $"{key} days late",
    };

    private static IEnumerable<string> Lines(string text) => text.Split('\n').Select(line => line.Trim()).Where(line => line.Length > 0);
}
