using System.Text;

namespace Vlei.Tests.Maps;

/// <summary>A way in which a program writes its files: language, marks, encoding, and what stands around the rows.</summary>
internal sealed class SourceDialect
{
    private static readonly Dictionary<string, Dictionary<string, string>> Words = new()
    {
        ["en"] = new()
        {
            ["date"] = "Date|Posting date", ["number"] = "Voucher no|Number", ["account"] = "Account|Account no",
            ["memo"] = "Description|Details",
            ["debit"] = "Debit", ["credit"] = "Credit", ["amount"] = "Amount", ["side"] = "Dr/Cr", ["balance"] = "Balance",
            ["contra"] = "Contra account",
            ["customer"] = "Customer", ["supplier"] = "Supplier", ["due"] = "Due date", ["net"] = "Net amount|Net", ["tax"] = "VAT|Tax",
            ["total"] = "Total|Gross",
            ["pays"] = "Invoice paid", ["in"] = "Money in", ["out"] = "Money out", ["category"] = "Category", ["open"] = "Outstanding",
            ["item"] = "Item", ["quantity"] = "Qty", ["name"] = "Account name", ["type"] = "Type", ["Total"] = "Total",
            ["Opening"] = "Opening balance",
            ["Page"] = "Page", ["payee"] = "Payee",
        },
        ["de"] = new()
        {
            ["date"] = "Datum|Buchungsdatum", ["number"] = "Belegnr.|Nummer", ["account"] = "Konto|Kontonr.",
            ["memo"] = "Buchungstext|Text",
            ["debit"] = "Soll", ["credit"] = "Haben", ["amount"] = "Betrag", ["side"] = "S/H", ["balance"] = "Saldo",
            ["contra"] = "Gegenkonto",
            ["customer"] = "Kunde", ["supplier"] = "Lieferant", ["due"] = "Fällig am", ["net"] = "Netto", ["tax"] = "MwSt",
            ["total"] = "Brutto|Gesamtbetrag",
            ["pays"] = "zu Rechnung", ["in"] = "Eingang", ["out"] = "Ausgang", ["category"] = "Kategorie", ["open"] = "Offener Betrag",
            ["item"] = "Artikel", ["quantity"] = "Menge", ["name"] = "Kontobezeichnung", ["type"] = "Kontoart", ["Total"] = "Summe",
            ["Opening"] = "Saldovortrag",
            ["Page"] = "Seite", ["payee"] = "Empfänger",
        },
        ["fr"] = new()
        {
            ["date"] = "Date|Date écriture", ["number"] = "Pièce|N° pièce", ["account"] = "Compte|N° compte", ["memo"] = "Libellé",
            ["debit"] = "Débit", ["credit"] = "Crédit", ["amount"] = "Montant", ["side"] = "Sens", ["balance"] = "Solde",
            ["contra"] = "Contrepartie",
            ["customer"] = "Client", ["supplier"] = "Fournisseur", ["due"] = "Échéance", ["net"] = "Montant HT", ["tax"] = "TVA",
            ["total"] = "Montant TTC",
            ["pays"] = "Facture réglée", ["in"] = "Recettes", ["out"] = "Dépenses", ["category"] = "Catégorie", ["open"] = "Reste dû",
            ["item"] = "Article", ["quantity"] = "Quantité", ["name"] = "Intitulé du compte", ["type"] = "Type de compte",
            ["Total"] = "Total", ["Opening"] = "Report à nouveau",
            ["Page"] = "Page", ["payee"] = "Bénéficiaire",
        },
        ["af"] = new()
        {
            ["date"] = "Datum", ["number"] = "Bewysnr|Nommer", ["account"] = "Rekening", ["memo"] = "Beskrywing|Besonderhede",
            ["debit"] = "Debiet", ["credit"] = "Krediet", ["amount"] = "Bedrag", ["side"] = "Dt/Kt", ["balance"] = "Saldo",
            ["contra"] = "Kontrarekening",
            ["customer"] = "Kliënt", ["supplier"] = "Verskaffer", ["due"] = "Betaalbaar op", ["net"] = "Netto", ["tax"] = "BTW",
            ["total"] = "Totaal",
            ["pays"] = "Vir faktuur", ["in"] = "Ontvang", ["out"] = "Uitbetaal", ["category"] = "Kategorie", ["open"] = "Uitstaande",
            ["item"] = "Item", ["quantity"] = "Hoeveelheid", ["name"] = "Rekeningnaam", ["type"] = "Rekeningtipe", ["Total"] = "Totaal",
            ["Opening"] = "Openingsaldo",
            ["Page"] = "Bladsy", ["payee"] = "Begunstigde",
        },
    };

    private readonly Random _random;
    private readonly string _language;
    private readonly int _dates;
    private readonly int _numbers;
    private readonly char _separator;
    private readonly Encoding _encoding;
    private readonly bool _isNoisy;

    /// <summary>Makes one up.</summary>
    public SourceDialect(Random random, char? separator = null, bool isUtf8 = false)
    {
        Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);
        _random = random;
        _language = new[] { "en", "de", "fr", "af" }[random.Next(4)];
        (_dates, _numbers, _isNoisy) = (random.Next(6), random.Next(6), random.Next(3) > 0);
        _separator = separator ?? ";\t,|"[random.Next(4)];
        _encoding = isUtf8 ? new UTF8Encoding(false)
            : new[] { new UTF8Encoding(false), new UTF8Encoding(true), Encoding.GetEncoding(1252), Encoding.Unicode }[random.Next(4)];
    }

    /// <summary>A word of the language.</summary>
    public string Word(string key)
    {
        var words = Words[_language][key].Split('|');
        return words[_random.Next(words.Length)];
    }

    /// <summary>A day as the program writes it; every order that it can be told in.</summary>
    public string Day(DateOnly day) => day.ToString(
        new[] { "yyyy-MM-dd", "dd.MM.yyyy", "dd/MM/yyyy", "MM/dd/yyyy", "d MMM yyyy", "dd-MM-yy" }[_dates], CultureInfo.InvariantCulture);

    /// <summary>An amount as the program writes it.</summary>
    public string Amount(decimal amount)
    {
        var digits = Math.Abs(amount).ToString("#,##0.00", CultureInfo.InvariantCulture);
        digits = _numbers switch
        {
            0 => digits.Replace(",", "", StringComparison.Ordinal),
            1 or 4 => digits,
            5 => digits.Replace(',', '\''),
            _ => digits.Replace(',', '_').Replace('.', ',').Replace('_', _numbers == 2 ? '.' : '\u00a0'),
        };
        return amount >= 0 ? digits : _numbers switch { 1 => $"({digits})", 2 => $"{digits}-", _ => $"-{digits}" };
    }

    /// <summary>A debit or a credit, as D or C.</summary>
    public string Side(bool isDebit) =>
        _language switch { "de" => isDebit ? "S" : "H", "af" => isDebit ? "DT" : "KT", _ => isDebit ? "D" : "C" };

    /// <summary>
    /// Writes rows below headings, with titles, blank lines, repeated headings and ends of pages where the program is like that.
    /// </summary>
    public void Write(string path, string title, IReadOnlyList<string> headings, IEnumerable<string[]> rows, string[]? total = null)
    {
        var text = new StringBuilder();
        if (_isNoisy)
        {
            Line("Reedwater Boatworks");
            Line(title);
            Line();
        }

        Line([.. headings]);
        var count = 0;
        foreach (var row in rows)
        {
            Line(row);
            if (_isNoisy && ++count % 17 == 0)
            {
                Line($"{Word("Page")} {count / 17}");
                Line();
                Line([.. headings]);
            }
        }

        if (total is not null)
        {
            Line(total);
        }

        File.WriteAllText(path, text.ToString(), _encoding);

        void Line(params string[] values) => text.Append(
            string.Join(_separator, values.Concat(Enumerable.Repeat("", Math.Max(0, headings.Count - values.Length))).Select(Quoted)))
                .Append("\r\n");
    }

    private string Quoted(string value) =>
        value.Contains(_separator) || value.Contains('"') ? $"\"{value.Replace("\"", "\"\"", StringComparison.Ordinal)}\"" : value;

    /// <inheritdoc/>
    public override string ToString() =>
        $"{_language} dates {_dates} numbers {_numbers} '{_separator}' {_encoding.WebName} noisy {_isNoisy}";
}
