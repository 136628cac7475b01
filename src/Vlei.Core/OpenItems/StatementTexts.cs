namespace Vlei.Core.OpenItems;

/// <summary>Every word of a statement of account, in one language.</summary>
/// <param name="Title">Its title.</param>
/// <param name="To">What joins the first and the last day.</param>
/// <param name="AmountsIn">What stands before the currency.</param>
/// <param name="Opening">The balance at the start.</param>
/// <param name="Elsewhere">What others paid for the contact, or it for others.</param>
/// <param name="Closing">The balance at the end.</param>
/// <param name="ByAge">What stands above the classes of lateness.</param>
/// <param name="Current">What is not late.</param>
/// <param name="Late">What stands behind a number of days.</param>
/// <param name="Over">What stands before the last limit.</param>
/// <param name="Unapplied">Money that is not set against anything yet.</param>
/// <param name="PayTo">What stands above the details of how to pay.</param>
/// <param name="Columns">What its columns are called.</param>
/// <param name="Kinds">The kinds of documents; those that are not there keep their own name.</param>
internal sealed record StatementTexts(
    string Title, string To, string AmountsIn, string Opening, string Elsewhere, string Closing, string ByAge, string Current, string Late,
    string Over, string Unapplied, string PayTo, ContactLedgerWords Columns, IReadOnlyDictionary<string, string> Kinds)
{
    private static readonly StatementTexts English = new(
        "Statement of account", "to", "Amounts in", "Opening balance", "Settled with other accounts", "Balance due", "By age", "Not yet due", "days late",
        "Over", "Not applied yet", "How to pay",
        Words("Date", "Document", "Due", "Description", "Charged", "Paid or credited", "Balance"), new Dictionary<string, string>
        {
            ["credit-note"] = "credit note", ["cash-sale"] = "cash sale", ["opening"] = "brought forward",
        });

    private static readonly Dictionary<string, StatementTexts> Known = new(StringComparer.OrdinalIgnoreCase)
    {
        ["en"] = English,
        ["af"] = new(
            "Rekeningstaat", "tot", "Bedrae in", "Aanvangsaldo", "Met ander rekeninge verreken", "Saldo verskuldig", "Volgens ouderdom", "Nog nie betaalbaar nie",
            "dae laat", "Meer as", "Nog nie toegewys nie", "Hoe om te betaal",
            Words("Datum", "Dokument", "Betaalbaar", "Beskrywing", "Gehef", "Betaal of krediet", "Saldo"), new Dictionary<string, string>
            {
                ["invoice"] = "faktuur", ["credit-note"] = "kredietnota", ["receipt"] = "kwitansie", ["refund"] = "terugbetaling",
                ["deposit"] = "deposito", ["journal"] = "joernaal", ["opening"] = "oorgebring",
            }),
        ["de"] = new(
            "Kontoauszug", "bis", "Beträge in", "Anfangssaldo", "Mit anderen Konten verrechnet", "Offener Saldo", "Nach Alter", "Noch nicht fällig",
            "Tage überfällig", "Über", "Noch nicht zugeordnet", "Zahlungshinweise",
            Words("Datum", "Beleg", "Fällig", "Beschreibung", "Belastet", "Bezahlt oder gutgeschrieben", "Saldo"), new Dictionary<string, string>
            {
                ["invoice"] = "Rechnung", ["credit-note"] = "Gutschrift", ["receipt"] = "Zahlung", ["refund"] = "Erstattung",
                ["deposit"] = "Anzahlung", ["journal"] = "Buchung", ["opening"] = "Übertrag",
            }),
    };

    /// <summary>The languages that there are texts in, by their codes (ISO 639-1).</summary>
    public static IEnumerable<string> Languages => Known.Keys;

    /// <summary>Those of the first of the languages that is known; English where none is.</summary>
    public static StatementTexts In(params IEnumerable<string?> languages) =>
        languages.Select(language => Known.GetValueOrDefault(language ?? "")).FirstOrDefault(texts => texts is not null) ?? English;

    /// <summary>What its columns are called.</summary>
    public ContactLedgerWords ColumnWords => Columns with { KindOf = kind => Kinds.GetValueOrDefault(kind, kind) };

    /// <summary>What a class of lateness is called.</summary>
    public string AgeOf(string key) => key switch
    {
        "current" => Current,
        "unapplied" => Unapplied,
        _ when key.StartsWith("over-", StringComparison.Ordinal) => $"{Over} {key[5..]} {Late}",
        _ => $"{key} {Late}",
    };

    private static ContactLedgerWords Words(
        string date, string kind, string due, string memo, string charged, string settled, string balance) =>
        new(date, kind, due, memo, charged, settled, "", balance, name => name);
}
