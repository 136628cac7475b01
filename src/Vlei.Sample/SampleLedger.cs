using System.Globalization;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Records;

namespace Vlei.Sample;

/// <summary>A line on its way out; amounts in minor units, debit positive.</summary>
internal sealed record DraftLine(string Account, long Amount)
{
    public string? Item { get; init; }

    public decimal? Quantity { get; init; }

    public long? UnitPrice { get; init; }

    public string? TaxCode { get; init; }

    public string? TaxPart { get; init; }

    public string? Project { get; init; }

    public string? Department { get; init; }

    public string? Memo { get; init; }
}

/// <summary>A document on its way out.</summary>
internal sealed record Draft(string Kind, DateOnly Date, string? Contact)
{
    public int? TermsDays { get; init; }

    public string? Reference { get; init; }

    public string? Memo { get; init; }

    public string? Batch { get; init; }

    public DateOnly? EnteredOn { get; init; }

    public bool Disputed { get; init; }

    public string? Season { get; init; }

    public List<DraftLine> Lines { get; } = [];
}

/// <summary>Writes documents as they happen, gives them their numbers, and keeps the balances that decisions rest on.</summary>
internal sealed class SampleLedger(RecordSetWriter writer, Dice dice)
{
    private static readonly Dictionary<string, string> Prefixes = new(StringComparer.Ordinal)
    {
        ["invoice"] = "INV", ["credit-note"] = "CN", ["receipt"] = "REC", ["refund"] = "RFD", ["cash-sale"] = "CS",
        ["bill"] = "BILL", ["supplier-credit"] = "SC", ["purchase-return"] = "PR", ["payment"] = "PAY",
        ["expense"] = "EXP", ["deposit"] = "DEP", ["transfer"] = "TRF", ["journal"] = "JNL", ["opening"] = "OPEN",
    };

    private static readonly string[] Clerks = ["lindi", "tobias", "lindi", "alma"];

    private readonly Dictionary<string, int> _numbers = [];
    private readonly Dictionary<string, long> _balances = [];

    /// <summary>How many documents there are.</summary>
    public int Documents { get; private set; }

    /// <summary>What is posted to the account so far; debit positive.</summary>
    public long BalanceOf(string account) => _balances.GetValueOrDefault(account);

    /// <summary>Writes a document and returns its id. Throws where its lines do not sum to zero.</summary>
    public string Write(Draft draft)
    {
        if (draft.Lines.Sum(line => line.Amount) != 0)
        {
            throw new InvalidOperationException($"A {draft.Kind} of {draft.Date:yyyy-MM-dd} does not sum to zero.");
        }

        Documents++;
        var number = _numbers[draft.Kind] = _numbers.GetValueOrDefault(draft.Kind) + 1;
        var id = $"{Prefixes[draft.Kind]}-{number:D5}";
        var entered = (draft.EnteredOn ?? draft.Date).ToDateTime(new TimeOnly(dice.Between(8, 16), dice.Between(0, 59)));
        var enteredAt = entered.ToString("yyyy-MM-dd'T'HH:mm:ss", CultureInfo.InvariantCulture);
        var sent = draft.Kind is "invoice" or "credit-note"
            ? entered.AddHours(1).ToString("yyyy-MM-dd'T'HH:mm:ss", CultureInfo.InvariantCulture) : null;
        var due = draft.TermsDays is { } days ? Day(draft.Date.AddDays(days)) : null;
        writer.Write(
            RecordTables.Documents, id, draft.Kind, Day(draft.Date), due, id, draft.Contact, draft.Reference, draft.Memo,
            draft.Batch, draft.TermsDays?.ToString(CultureInfo.InvariantCulture), enteredAt, dice.Of(Clerks), null, null,
            sent, draft.Disputed ? "yes" : null, draft.Season);
        var place = 0;
        foreach (var line in draft.Lines)
        {
            _balances[line.Account] = BalanceOf(line.Account) + line.Amount;
            writer.Write(
                RecordTables.Lines, id, line.Account, Money(line.Amount), (++place).ToString(CultureInfo.InvariantCulture),
                null, line.Item, line.Quantity?.ToString(CultureInfo.InvariantCulture),
                line.UnitPrice is { } price ? Money(price) : null, line.TaxCode, line.TaxPart, line.Project,
                line.Department, line.Memo);
        }

        return id;
    }

    /// <summary>Sets two documents against each other.</summary>
    public void Settle(string from, string to, long amount, DateOnly date) =>
        writer.Write(RecordTables.Settlements, from, to, Money(amount), Day(date));

    /// <summary>An amount as record sets write it.</summary>
    public static string Money(long amount) => DecimalText.Write(amount, 2);

    private static string Day(DateOnly day) => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);
}

/// <summary>Lines that come in pairs: a base and its sales tax.</summary>
internal static class DraftLines
{
    private const int StandardRate = 15;

    /// <summary>The tax on a net amount.</summary>
    public static long TaxOn(long net, bool zeroRated) => zeroRated ? 0 : Rounding.Divide((Int128)net * StandardRate, 100);

    /// <summary>Adds what is sold, as a credit, with its tax; returns what the customer owes for it.</summary>
    public static long Sell(this Draft draft, DraftLine credit, bool zeroRated = false) =>
        -draft.AddWithTax(credit with { Amount = -credit.Amount }, zeroRated ? "S0" : "S15", zeroRated);

    /// <summary>Adds what is bought, as a debit, with its tax; returns what we owe for it.</summary>
    public static long Buy(this Draft draft, DraftLine debit, bool zeroRated = false) =>
        draft.AddWithTax(debit, zeroRated ? "P0" : "P15", zeroRated);

    private static long AddWithTax(this Draft draft, DraftLine line, string code, bool zeroRated)
    {
        var tax = TaxOn(line.Amount, zeroRated);
        draft.Lines.Add(line with { TaxCode = code, TaxPart = "base" });
        if (!zeroRated)
        {
            draft.Lines.Add(new DraftLine(Chart.Tax, tax)
            {
                TaxCode = code, TaxPart = "tax", Project = line.Project, Department = line.Department,
            });
        }

        return line.Amount + tax;
    }
}
