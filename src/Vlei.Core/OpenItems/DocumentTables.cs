using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Tables;

namespace Vlei.Core.OpenItems;

/// <summary>The tables whose rows are documents: all of them, those that are open, and what was set against what.</summary>
public static class DocumentTables
{
    private static readonly WordPool Sides = new(["", "receivable", "payable"]);

    private static readonly WordPool Statuses = new(["", "open", "part-settled", "settled"]);

    /// <summary>Every document of a period, with what is settled of it at the end of the period.</summary>
    public static TableDefinition Documents { get; } = new()
    {
        Name = "documents",
        Meaning = "Every invoice, bill, receipt, payment, journal and other document, with what is settled of it at the end of the period",
        Fields =
        [
            TableField.Reference("document", RecordTables.Documents, "The document itself"),
            new("date", FieldType.Date, "Its date"),
            TableField.DocumentKind("What it is"),
            new("lines", FieldType.Integer, "How many lines it has") { AddsUp = true },
            new("total", FieldType.Money, "The sum of its debits, which is that of its credits"),
            new("owed", FieldType.Money, "What it puts on control accounts: what is owed to us or by us positive, receipts, payments and credits negative"),
            new("settled", FieldType.Money, "What was set against that by the end of the period, with the same sign"),
            new("open", FieldType.Money, "What is left of it then"),
            new("status", FieldType.Choice, "Whether it is open, part-settled or settled then; nothing where it owes nothing") { Words = Statuses },
        ],
        Columns = ["date", "kind", "number", "contact", "memo", "total", "open"],
        Key = ["document"],
        Examples =
        [
            ("--period last-month --where \"created-by = 'lindi' and total >= 5000\"", "what one of us entered"),
            ("--only kind=invoice --columns +due,+contact.email,-memo --sort -total --top 20", "the twenty largest invoices"),
        ],
        Self = "document",
        Date = "date",
        IsOfDocuments = true,
        RestsOnSettlements = true,
        Read = ReadDocuments,
    };

    /// <summary>Every document that is open on a day, once for each control account and contact that it stands with.</summary>
    public static TableDefinition OpenItems { get; } = new()
    {
        Name = "open-items",
        Meaning = "Every document that is not settled on a day: what it came to, what was set against it, what is left",
        Fields =
        [
            TableField.Reference("document", RecordTables.Documents, "The document"),
            new("side", FieldType.Choice, "Whether it is receivable or payable") { Words = Sides },
            TableField.Reference("account", RecordTables.Accounts, "The control account"),
            TableField.Reference("contact", RecordTables.Contacts, "Whom it is with there"),
            new("date", FieldType.Date, "Its date"),
            new("due", FieldType.Date, "The day by which it should be settled"),
            TableField.DocumentKind("What it is"),
            new("total", FieldType.Money, "What it came to: what is owed positive, receipts, payments and credits negative"),
            new("settled", FieldType.Money, "What was set against it"),
            new("open", FieldType.Money, "What is left"),
            new("days-late", FieldType.Integer, "Days since it was due, for receipts, payments and credits since their own date; 0 where it is not late"),
        ],
        Columns = ["contact", "kind", "document.number", "date", "due", "days-late", "total", "settled", "open"],
        Key = ["document"],
        Examples = [("--only side=receivable --where \"open > 5000 and days-late > 30\" --sort -open", "whom to call first")],
        IsOfMoment = true,
        IsOfDocuments = true,
        RestsOnSettlements = true,
        Read = (context, range) => new[] { AccountType.Receivable, AccountType.Payable }.Select(type => OpenBlock(context, type, range.To)),
    };

    /// <summary>What was set against what.</summary>
    public static TableDefinition Settlements { get; } = new()
    {
        Name = "settlements",
        Meaning = "Which document was set against which, when and how much",
        Fields =
        [
            new("date", FieldType.Date, "The day that it took effect"),
            TableField.Reference("document", RecordTables.Documents, "One of the two documents"),
            TableField.Reference("with", RecordTables.Documents, "The other one"),
            TableField.Reference("account", RecordTables.Accounts, "The control account"),
            TableField.Reference("contact", RecordTables.Contacts, "Whom the one is with"),
            TableField.Reference("with-contact", RecordTables.Contacts, "Whom the other is with"),
            new("amount", FieldType.Money, "How much; positive"),
            new("settlement", FieldType.Integer, "Its number"),
        ],
        Columns = ["date", "contact", "document.kind", "with", "with.kind:With kind", "account", "amount"],
        Key = ["document", "settlement"],
        Date = "date",
        IsOfDocuments = true,
        RestsOnSettlements = true,
        Read = ReadSettlements,
    };

    private static IEnumerable<RowBlock> ReadDocuments(TableContext context, DateRange range)
    {
        var (ledger, owed) = (context.Ledger, new Lazy<Dictionary<int, (long Total, long Open)>>(() => Owed(context.Ledger, range.To)));
        foreach (var lines in PostingTables.Lines.Read(context, range))
        {
            var (documents, firsts, count) = (lines["document"], new List<int>(), lines.Count);
            for (var row = 0; row < documents.Length; row++)
            {
                if (row == 0 || documents[row] != documents[row - 1])
                {
                    firsts.Add(row);
                }
            }

            yield return new RowBlock(firsts.Count, name => name switch
            {
                "lines" => Each((first, end) => end - first),
                "total" => Each((first, end) => Sum(lines["amount"].AsSpan(first, end - first))),
                "contact" => Each((first, end) => lines["contact"][first..end].FirstOrDefault(contact => contact > 0)),
                "owed" => OfOwed(own => own.Total),
                "settled" => OfOwed(own => own.Total - own.Open),
                "open" => OfOwed(own => own.Open),
                "status" => OfOwed(own => own.Open == 0 ? 3 : own.Open == own.Total ? 1 : 2, 0),
                _ => [.. firsts.Select(first => lines[name][first])],
            }, lines);

            long[] Each(Func<int, int, long> of) => [.. firsts.Select((first, place) => of(first, place + 1 < firsts.Count ? firsts[place + 1] : count))];
            long[] OfOwed(Func<(long Total, long Open), long> of, long nothing = FieldCells.Nothing) =>
                [.. firsts.Select(first => owed.Value.TryGetValue((int)lines["document"][first], out var own) ? of(own) : nothing)];
        }
    }

    private static long Sum(ReadOnlySpan<long> amounts)
    {
        var sum = 0L;
        foreach (var amount in amounts)
        {
            sum = checked(sum + Math.Max(0, amount));
        }

        return sum;
    }

    private static Dictionary<int, (long Total, long Open)> Owed(ILedger ledger, DateOnly day)
    {
        var owed = new Dictionary<int, (long Total, long Open)>();
        foreach (var history in new[] { AccountType.Receivable, AccountType.Payable }.Select(type => ControlHistory.Of(ledger, type, day)))
        {
            var open = history.OpenAt(day);
            for (var item = 0; item < history.Count; item++)
            {
                var (total, left) = owed.GetValueOrDefault(history[item].Document);
                owed[history[item].Document] = checked((total + history[item].Total.MinorUnits, left + open[item].MinorUnits));
            }
        }

        return owed;
    }

    private static RowBlock OpenBlock(TableContext context, AccountType type, DateOnly day)
    {
        var history = ControlHistory.Of(context.Ledger, type, day);
        var open = history.OpenAt(day);
        int[] items = [.. Enumerable.Range(0, history.Count).Where(item => !open[item].IsZero)];
        return new RowBlock(items.Length, name => [.. items.Select(item => name switch
        {
            "document" => history[item].Document,
            "side" => type == AccountType.Receivable ? 1 : 2,
            "account" => history[item].Account,
            "contact" => history[item].Contact,
            "date" => history[item].Date.DayNumber,
            "due" => history[item].Due.DayNumber,
            "kind" => history[item].Kind,
            "total" => history[item].Total.MinorUnits,
            "settled" => (history[item].Total - open[item]).MinorUnits,
            "open" => open[item].MinorUnits,
            _ => Math.Max(0, day.DayNumber - (history[item].Total.Sign < 0 ? history[item].Date : history[item].Due).DayNumber),
        })]);
    }

    private static IEnumerable<RowBlock> ReadSettlements(TableContext context, DateRange range)
    {
        var applied = context.Ledger.Applications(range.To).Where(application => application.Day >= range.From).ToList();
        yield return new RowBlock(applied.Count, name => [.. applied.Select(application => name switch
        {
            "date" => application.Day.DayNumber,
            "document" => application.From,
            "with" => application.To,
            "account" => application.Account,
            "contact" => application.FromContact,
            "with-contact" => application.ToContact,
            "amount" => application.Amount.MinorUnits,
            _ => (long)application.Settlement,
        })]);
    }
}
