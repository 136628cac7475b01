using System.Collections.Immutable;
using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Tables;

namespace Vlei.Core.OpenItems;

/// <summary>The tables whose rows are documents: all of them, those that are open, and what was set against what.</summary>
public static class DocumentTables
{
    private static readonly WordPool Sides = new(["", "receivable", "payable"]);

    private static readonly WordPool Statuses = new(["", "open", "part-settled", "settled"]);

    private static readonly FieldList<DocumentBlock> OfDocuments = new()
    {
        { TableField.Reference("document", RecordTables.Documents, "The document itself"), (rows, _) => rows.First("document") },
        { new("date", FieldType.Date, "Its date"), (rows, _) => rows.First("date") },
        { TableField.DocumentKind("What it is"), (rows, _) => rows.First("kind") },
        { new("lines", FieldType.Integer, "How many lines it has") { AddsUp = true }, (rows, _) => rows.Each((first, end) => end - first) },
        {
            new(
                "total", FieldType.Money,
                "What it was made out for: what it puts on control accounts, else on money accounts; receipts, payments, credits and "
                    + "money that goes out are negative"),
            (rows, _) => rows.Each(rows.TotalOf)
        },
        {
            new(
                "owed", FieldType.Money,
                "What it puts on control accounts: what is owed to us or by us positive, receipts, payments and credits negative"),
            (rows, _) => rows.OfOwed(own => own.Total)
        },
        { new("settled", FieldType.Money, "What was set against that by the end of the period, with the same sign"),
            (rows, _) => rows.OfOwed(own => own.Total - own.Open) },
        { new("open", FieldType.Money, "What is left of it then"), (rows, _) => rows.OfOwed(own => own.Open) },
        {
            new("days-open", FieldType.Integer, "Days since its date where it is open then; nothing where it is not"),
            (rows, block) =>
            [
                .. rows.OfOwed(own => own.IsOpen ? 1 : FieldCells.Nothing).Select((open, row) =>
                    open == FieldCells.Nothing ? open : rows.Day.DayNumber - block["date"][row]),
            ]
        },
        {
            new(
                "status", FieldType.Choice,
                "Whether it is open, part-settled or settled then; nothing where it owes nothing") { Words = Statuses },
            (rows, _) => rows.OfOwed(own => !own.IsOpen ? 3 : own.IsTouched ? 2 : 1, 0)
        },
    };

    private static readonly FieldList<OpenBlock> OfOpenItems = new()
    {
        { TableField.Reference("document", RecordTables.Documents, "The document"),
            (rows, _) => rows.Each(item => item.Document.Value) },
        { new("side", FieldType.Choice, "Whether it is receivable or payable") { Words = Sides },
            (rows, _) => rows.Each(_ => rows.History.Type == AccountType.Receivable ? 1 : 2) },
        { TableField.Reference("account", RecordTables.Accounts, "The control account"),
            (rows, _) => rows.Each(item => item.Account.Value) },
        { TableField.Reference("contact", RecordTables.Contacts, "Whom it is with there"),
            (rows, _) => rows.Each(item => item.Contact.Value) },
        { new("date", FieldType.Date, "Its date"), (rows, _) => rows.Each(item => item.Date.DayNumber) },
        { new("due", FieldType.Date, "The day by which it should be settled"), (rows, _) => rows.Each(item => item.Due.DayNumber) },
        { TableField.DocumentKind("What it is"), (rows, _) => rows.Each(item => item.Kind) },
        {
            new("total", FieldType.Money, "What it came to: what is owed positive, receipts, payments and credits negative"),
            (rows, _) => rows.Each(item => item.Total.MinorUnits)
        },
        {
            new("settled", FieldType.Money, "What was set against it") { IsSeldom = true },
            (rows, _) => [.. rows.Items.Select(item => (rows.History[item].Total - rows.Open[item]).MinorUnits)]
        },
        {
            new("part", FieldType.Integer, "Where its document has several parts there: which of them it is, from 1; 0 for the only one"),
            (rows, _) => rows.Parts()
        },
        { new("open", FieldType.Money, "What is left"), (rows, _) => [.. rows.Items.Select(item => rows.Open[item].MinorUnits)] },
        {
            new(
                "days-late", FieldType.Integer,
                "Days since it was due, for receipts, payments and credits since their own date; 0 where it is not late"),
            (rows, _) => rows.Each(
                item => Math.Max(
                    0, rows.Day.DayNumber - (item.Total.Sign < 0 || rows.AgesByDocument ? item.Date : item.Due).DayNumber))
        },
        { new("days-open", FieldType.Integer, "Days since its own date"),
            (rows, _) => rows.Each(item => rows.Day.DayNumber - item.Date.DayNumber) },
        {
            new("promised", FieldType.Money, "What was promised of it and is still expected") { IsNoted = true, IsSeldom = true },
            (rows, _) => rows.Noted((promises, item) => promises.Promised(item))
        },
        {
            new("disputed", FieldType.Money, "What is disputed of it and still open") { IsNoted = true, IsSeldom = true },
            (rows, _) => rows.Noted((promises, item) => promises.Disputed(item))
        },
        {
            new("promise", FieldType.Text, "What was promised of it by when, or is disputed, in a few words") { IsNoted = true },
            (rows, row) => rows.Promises.Value.InWords(rows.Items[row])
        },
    };

    private static readonly AccountType[] ControlTypes = [AccountType.Receivable, AccountType.Payable];

    private static readonly RecordFields<Application> OfSettlements = new()
    {
        { new("date", FieldType.Date, "The day that it took effect"), applied => applied.Day.DayNumber },
        { TableField.Reference("document", RecordTables.Documents, "One of the two documents"), applied => applied.From.Value },
        { TableField.Reference("with", RecordTables.Documents, "The other one"), applied => applied.To.Value },
        { TableField.Reference("account", RecordTables.Accounts, "The control account"), applied => applied.Account.Value },
        { TableField.Reference("contact", RecordTables.Contacts, "Whom the one is with"), applied => applied.FromContact.Value },
        { TableField.Reference("with-contact", RecordTables.Contacts, "Whom the other is with"), applied => applied.ToContact.Value },
        { new("amount", FieldType.Money, "How much; positive"), applied => applied.Amount.MinorUnits },
        { new("settlement", FieldType.Integer, "Its number"), applied => applied.Settlement.Value },
    };

    /// <summary>Every document of a period, with what is settled of it at the end of the period.</summary>
    public static TableDefinition Documents { get; } = new()
    {
        Name = "documents",
        Meaning = "Every document, and what of it is settled",
        Fields = [.. OfDocuments],
        Columns = ["date", "kind", "number", "contact", "memo", "total", "open"],
        Key = ["document"],
        Examples =
        [
            ("--period last-month --where \"created-by = 'lindi' and total >= 5000\"", "what one of us entered"),
            ("--only kind=invoice --columns +due,+contact.email,-memo --sort -total --top 20", "the twenty largest invoices"),
        ],
        MainFigure = "total",
        Self = "document",
        Date = "date",
        IsOfDocuments = true,
        RestsOnSettlements = true,
        OpenBefore = ReadOpenBefore,
        Read = (context, range) => ReadDocuments(context, range, range.To),
    };

    /// <summary>Every document that is open on a day, once for each control account and contact that it stands with.</summary>
    public static TableDefinition OpenItems { get; } = new()
    {
        Name = "open-items",
        Meaning = "Every document that is not settled on a day",
        Fields = [.. OfOpenItems],
        Columns =
        [
            "contact", "kind", "document.number", "date", "due", "days-late", "total", "settled", "open", "promised", "disputed", "promise",
        ],
        Key = ["document", "part"],
        Examples = [("--only side=receivable --where \"open > 5000 and days-late > 30\" --sort -open", "whom to call first")],
        MainFigure = "open",
        IsOfMoment = true,
        IsOfDocuments = true,
        RestsOnSettlements = true,
        TiesTo = new TableTie(
            ControlBalance.TieName, "open", (context, range, side) => ControlBalance.Of(context.Ledger, ControlTypes[side], range.To)),
        Read = (context, range) => ControlTypes.Select(type => OpenBlockOf(context, type, range.To)),
    };

    /// <summary>What was set against what.</summary>
    public static TableDefinition Settlements { get; } = new()
    {
        Name = "settlements",
        Meaning = "What was set against what, when and how much",
        Fields = [.. OfSettlements],
        Columns = ["date", "contact", "document.kind", "with", "with.kind:With kind", "account", "amount"],
        Key = ["document", "settlement"],
        MainFigure = "amount",
        Date = "date",
        IsOfDocuments = true,
        RestsOnSettlements = true,
        Read = ReadSettlements,
    };

    static DocumentTables() => OfDocuments.AddHidden("contact", (rows, _) =>
        rows.Each((first, end) => rows.Lines["contact"][first..end].FirstOrDefault(contact => contact > 0)));

    // Only months are read that have a document of which anything is open.
    private static IEnumerable<RowBlock> ReadOpenBefore(TableContext context, DateRange range)
    {
        var months = ControlTypes.SelectMany(type =>
        {
            var history = ControlHistory.Of(context.Ledger, type, range.To);
            var open = history.OpenAt(range.To);
            return Enumerable.Range(0, history.Count).Where(item => !open[item].IsZero && history[item].Date < range.From)
                .Select(item => YearMonth.Of(history[item].Date));
        }).Distinct().Order().ToList();
        foreach (var days in months.Select(month => month.Range.Intersect(new DateRange(month.First, range.From.AddDays(-1)))))
        {
            foreach (var block in ReadDocuments(context, days, range.To))
            {
                int[] rows = [.. Enumerable.Range(0, block.Count).Where(row => block["open"][row] is not (0 or FieldCells.Nothing))];
                yield return new RowBlock(rows.Length, name => [.. rows.Select(row => block[name][row])], block);
            }
        }
    }

    private static IEnumerable<RowBlock> ReadDocuments(TableContext context, DateRange range, DateOnly day)
    {
        var owed = new Lazy<Dictionary<DocumentKey, OwedDocument>>(() => Owed(context.Ledger, day));
        var types = context.Ledger.Accounts.ToDictionary(account => (long)account.Key.Value, account => account.Type);
        foreach (var lines in PostingTables.Lines.Read(context, range))
        {
            var documents = lines["document"];
            int[] firsts = [.. Enumerable.Range(0, documents.Length).Where(row => row == 0 || documents[row] != documents[row - 1])];
            yield return OfDocuments.BlockOf(
                new DocumentBlock(lines, firsts, owed, types, day), firsts.Length, new RowBlock(0, NoColumn, lines));
        }
    }

    private static IEnumerable<RowBlock> ReadSettlements(TableContext context, DateRange range) =>
        [
            OfSettlements.BlockOf(
                [.. context.Ledger.Applications(range.To).SelectMany(part => part.Where(application => application.Day >= range.From))]),
        ];

    private static RowBlock OpenBlockOf(TableContext context, AccountType type, DateOnly day)
    {
        var history = ControlHistory.Of(context.Ledger, type, day);
        var open = history.OpenAt(day);
        int[] items = [.. Enumerable.Range(0, history.Count).Where(item => !open[item].IsZero)];
        return OfOpenItems.BlockOf(new OpenBlock(context, history, open, items, day), items.Length);
    }

    /// <summary>How many days documents, by their keys, are open at the end of a day; nothing where one is not.</summary>
    public static Func<long[], long[]> DaysOpen(ILedger ledger, DateOnly day)
    {
        var open = new Dictionary<long, long>();
        foreach (var history in ControlTypes.Select(type => ControlHistory.Of(ledger, type, day)))
        {
            var left = history.OpenAt(day);
            for (var item = 0; item < history.Count; item++)
            {
                if (!left[item].IsZero)
                {
                    open[history[item].Document.Value] = day.DayNumber - history[item].Date.DayNumber;
                }
            }
        }

        return keys => [.. keys.Select(key => open.GetValueOrDefault(key, FieldCells.Nothing))];
    }

    /// <summary>Some items of a history, by their places, as rows of open items, with what is open of them on a day.</summary>
    internal static RowBlock BlockOf(TableContext context, ControlHistory history, DateOnly day, int[] items, bool agesByDocument) =>
        OfOpenItems.BlockOf(
            new OpenBlock(context, history, history.OpenAt(day), items, day)
            {
                AgesByDocument = agesByDocument,
            }, items.Length);

    private static long[] NoColumn(string name) => throw new InvalidOperationException($"There is no column {name}.");

    private static Dictionary<DocumentKey, OwedDocument> Owed(ILedger ledger, DateOnly day)
    {
        var owed = new Dictionary<DocumentKey, OwedDocument>();
        foreach (var history in ControlTypes.Select(type => ControlHistory.Of(ledger, type, day)))
        {
            var open = history.OpenAt(day);
            for (var item = 0; item < history.Count; item++)
            {
                var known = owed.GetValueOrDefault(history[item].Document);
                owed[history[item].Document] = new OwedDocument(
                    checked(known.Total + history[item].Total.MinorUnits), checked(known.Open + open[item].MinorUnits),
                    known.IsOpen || !open[item].IsZero, known.IsTouched || open[item] != history[item].Total);
            }
        }

        return owed;
    }

    // What a document puts on control accounts, what is left of it, and whether of any part anything is, or is not.
    private readonly record struct OwedDocument(long Total, long Open, bool IsOpen, bool IsTouched);

    // The lines of some documents, where each of these begins among them, and the day that they are seen on.
    private sealed record DocumentBlock(
        RowBlock Lines, int[] Firsts, Lazy<Dictionary<DocumentKey, OwedDocument>> Owed, Dictionary<long, AccountType> Types, DateOnly Day)
    {
        public long TotalOf(int first, int end)
        {
            var (accounts, amounts) = (Lines["account"], Lines["amount"]);
            var (control, money, hasControl, hasMoney) = (0L, 0L, false, false);
            for (var line = first; line < end; line++)
            {
                switch (AccountTypes.ClassOf(Types[accounts[line]]))
                {
                    case AccountClass.Control:
                        hasControl = true;
                        control = checked(control + (Types[accounts[line]] == AccountType.Payable ? -amounts[line] : amounts[line]));
                        break;
                    case AccountClass.Money:
                        hasMoney = true;
                        money = checked(money + amounts[line]);
                        break;
                }
            }

            return hasControl ? control : hasMoney ? money : FieldCells.Nothing;
        }

        public long[] First(string name) => [.. Firsts.Select(first => Lines[name][first])];

        public long[] Each(Func<int, int, long> of) =>
            [.. Firsts.Select((first, place) => of(first, place + 1 < Firsts.Length ? Firsts[place + 1] : Lines.Count))];

        public long[] OfOwed(Func<OwedDocument, long> of, long nothing = FieldCells.Nothing) =>
            [.. Firsts.Select(first => Owed.Value.TryGetValue((DocumentKey)Lines["document"][first], out var own) ? of(own) : nothing)];
    }

    // Items that are open at the end of a day.
    private sealed record OpenBlock(TableContext Context, ControlHistory History, ImmutableArray<Amount> Open, int[] Items, DateOnly Day)
    {
        // What was noted of them, looked up where somebody asks.
        public Lazy<PromisedItems> Promises { get; } = new(() => new PromisedItems(Context.Ledger, History, Day, Context.Known));

        // Whether they are late from their own dates on, rather than from the days that they are due.
        public bool AgesByDocument { get; init; }

        public long[] Each(Func<ItemAt, long> of) => Array.ConvertAll(Items, item => of(History[item]));

        public long[] Noted(Func<PromisedItems, int, Amount> of) => [.. Items.Select(item =>
            of(Promises.Value, item) is { IsZero: false } noted ? noted.MinorUnits : FieldCells.Nothing)];

        // Parts of a document that are settled have their numbers too, so that those of the others stay.
        public long[] Parts()
        {
            var counts = new Dictionary<DocumentKey, int>();
            var numbers = new int[History.Count];
            for (var item = 0; item < History.Count; item++)
            {
                counts[History[item].Document] = numbers[item] = counts.GetValueOrDefault(History[item].Document) + 1;
            }

            return [.. Items.Select(item => counts[History[item].Document] > 1 ? numbers[item] : 0L)];
        }
    }
}
