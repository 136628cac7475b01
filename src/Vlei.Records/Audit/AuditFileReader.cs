using System.Globalization;
using System.Xml;
using Vlei.Core.Ledger;
using Vlei.Core.Problems;
using Vlei.Records.Cells;
using Vlei.Records.Maps.Reading;

namespace Vlei.Records.Audit;

/// <summary>
/// Reads an audit file as records: accounts, customers and suppliers, tax codes, products, entries, and what payments pay. Its control
/// totals, and what each account opens and closes with, are held against its entries.
/// </summary>
public sealed class AuditFileReader
{
    private static readonly XmlReaderSettings Settings = new()
    {
        DtdProcessing = DtdProcessing.Prohibit, IgnoreWhitespace = true, IgnoreComments = true, CheckCharacters = false,
    };

    private readonly string _name;
    private readonly RecordErrors _errors;
    private readonly Dictionary<RecordTable, MappedRecords> _records;
    private readonly Dictionary<string, AuditEntry> _entries = [];
    private readonly HashSet<string> _contacts = [];
    private readonly AuditTotals _totals;
    private readonly string _currency;
    private string _direction = "";
    private DateOnly _from = DateOnly.MinValue;

    private AuditFileReader(string path, string currency, RecordErrors errors)
    {
        (_name, _errors) = (Path.GetFileName(path), errors);
        var file = TextDialect.Of(path).File;
        _records = RecordTables.All.ToDictionary(table => table, table => new MappedRecords(table, _name, file, []));
        (_totals, _currency) = (new AuditTotals(_name, errors), currency);
    }

    /// <summary>Whether a file is one, by its root.</summary>
    public static bool IsOne(string path)
    {
        if (!path.EndsWith(".xml", StringComparison.OrdinalIgnoreCase) || !File.Exists(path))
        {
            return false;
        }

        try
        {
            using var xml = XmlReader.Create(path, Settings);
            return xml.MoveToContent() == XmlNodeType.Element && xml.LocalName == AuditNames.Root;
        }
        catch (XmlException)
        {
            return false;
        }
    }

    /// <summary>
    /// Reads one. What is wrong with it goes to the errors; throws a <see cref="ProblemException"/> where it is no XML.
    /// </summary>
    /// <param name="path">The file.</param>
    /// <param name="currency">The book's currency, which must be the file's.</param>
    /// <param name="errors">Where errors go.</param>
    internal static IEnumerable<(RecordTable Table, ICellSource Source)> Read(string path, string currency, RecordErrors errors)
    {
        var reader = new AuditFileReader(path, currency, errors);
        try
        {
            using var xml = XmlReader.Create(path, Settings);
            reader.ReadAll(xml);
        }
        catch (XmlException broken)
        {
            throw new ProblemException(
                ProblemKind.BadData,
                $"{Path.GetFileName(path)}:{broken.LineNumber}:{broken.LinePosition}: this is not XML: {broken.Message}",
                "Export the file anew.", broken);
        }

        reader.Finish();
        return reader._records.Where(records => records.Value.Count > 0).Select(records => (records.Key, (ICellSource)records.Value));
    }

    private void ReadAll(XmlReader xml)
    {
        var section = "";
        while (xml.Read())
        {
            if (xml.NodeType != XmlNodeType.Element)
            {
                continue;
            }

            switch (xml.LocalName)
            {
                case "Header" or "Account" or "Customer" or "Supplier" or "TaxTableEntry" or "AnalysisTypeTableEntry" or "Product"
                    or "Transaction" or "Invoice" or "Payment":
                    Take(AuditElement.Read(xml), section);
                    break;
                case "GeneralLedgerEntries" or "SalesInvoices" or "PurchaseInvoices" or "Payments":
                    section = xml.LocalName;
                    break;
                case "NumberOfEntries" or "TotalDebit" or "TotalCredit" when section == "GeneralLedgerEntries":
                    var total = AuditElement.Read(xml);
                    _totals.Say(total.Name, total);
                    break;
            }
        }
    }

    private void Take(AuditElement element, string section)
    {
        switch (element.Name)
        {
            case "Header":
                TakeHeader(element);
                break;
            case "Account":
                TakeAccount(element);
                break;
            case "Customer" or "Supplier":
                TakeParty(element);
                break;
            case "TaxTableEntry":
                TakeTaxes(element);
                break;
            case "AnalysisTypeTableEntry":
                TakeAnalysis(element);
                break;
            case "Product":
                Put(
                    RecordTables.Items, element, ("id", "ProductCode"), ("name", "Description"), ("kind", "ProductGroup"),
                    ("unit", "UOMBase"));
                break;
            case "Transaction":
                TakeTransaction(element);
                break;
            case "Invoice" when section.EndsWith("Invoices", StringComparison.Ordinal):
                TakeInvoice(element);
                break;
            case "Payment":
                TakePayment(element);
                break;
        }
    }

    private void TakeHeader(AuditElement header)
    {
        if (header["DefaultCurrencyCode"] is var currency && currency != _currency)
        {
            _errors.Add(
                _name, header.Line, header.Column,
                $"the file is in {currency}; the book is in {_currency}, and takes in no other currency.");
        }

        if (DateOnly.TryParseExact(
            header.Child("SelectionCriteria")?["SelectionStartDate"], "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None,
            out var from))
        {
            _from = from;
        }
    }

    private void TakeAccount(AuditElement account)
    {
        var (type, activity) = Parts(account["GroupingCategory"]);
        var records = Begin(RecordTables.Accounts, account);
        records.Put("code", account["AccountID"], account.Column);
        records.Put("name", account["AccountDescription"], account.Column);
        records.Put("type", type, account.Column);
        records.Put("cash_flow", activity, account.Column);
        records.Put("parent", account["GroupingCode"], account.Column);
        records.Put("active", account["AccountType"].Contains("inactive", StringComparison.Ordinal) ? "false" : "", account.Column);
        records.End();
        _totals.SayAccount(account);
    }

    // "current-asset (investing)"
    private static (string Type, string More) Parts(string text) => text.IndexOf(" (", StringComparison.Ordinal) is > 0 and var at
        ? (text[..at], text[(at + 2)..].TrimEnd(')')) : (text, "");

    private void TakeParty(AuditElement party)
    {
        var id = party[$"{party.Name}ID"];
        if (!_contacts.Add(id))
        {
            return;
        }

        var (info, contact) = (party.Child("PartyInfo"), party.Child("Contact"));
        var records = Begin(RecordTables.Contacts, party);
        records.Put("id", id, party.Column);
        records.Put("name", party["Name"], party.Column);
        records.Put("kind", info?["Type"] is { Length: > 0 } kind ? kind : party.Name.ToLowerInvariant(), party.Column);
        records.Put("email", contact?["Email"] ?? "", party.Column);
        records.Put("phone", contact?["Telephone"] ?? "", party.Column);
        records.Put("address", party.Child("Address")?["StreetName"] ?? "", party.Column);
        records.Put("terms_days", info?.Child("PaymentTerms")?["Days"] ?? "", party.Column);
        records.Put("active", info?["Status"] == "inactive" ? "false" : "", party.Column);
        PutTags(records, info);
        records.End();
    }

    private void TakeTaxes(AuditElement entry)
    {
        _direction = entry["Description"] is "sales" or "purchases" or "both" ? entry["Description"] : "";
        foreach (var code in entry.Children("TaxCodeDetails"))
        {
            var records = Begin(RecordTables.TaxCodes, code);
            records.Put("code", code["TaxCode"], code.Column);
            records.Put("name", code["Description"] is { Length: > 0 } name ? name : code["TaxCode"], code.Column);
            records.Put("rate", code["TaxPercentage"], code.Column);
            records.Put("direction", _direction, code.Column);
            records.End();
        }
    }

    private void TakeAnalysis(AuditElement entry)
    {
        if (entry["AnalysisType"] is AuditNames.Project or AuditNames.Department)
        {
            var records = Begin(
                entry["AnalysisType"] == AuditNames.Project ? RecordTables.Projects : RecordTables.Departments, entry);
            records.Put("id", entry["AnalysisID"], entry.Column);
            records.Put("name", entry["AnalysisIDDescription"], entry.Column);
            records.Put("active", entry["Status"] == "inactive" ? "false" : "", entry.Column);
            records.End();
        }
    }

    private void TakeTransaction(AuditElement transaction)
    {
        var id = transaction["TransactionID"];
        if (!_entries.TryAdd(id, new AuditEntry(transaction)))
        {
            _errors.Add(_name, transaction.Line, transaction.Column, $"TransactionID \"{id}\" is there twice; ids must differ.");
            return;
        }

        foreach (var line in transaction.Children("Line"))
        {
            TakeLine(id, line, transaction);
        }
    }

    private void TakeLine(string document, AuditElement line, AuditElement transaction)
    {
        var (debit, credit) = (line.Child("DebitAmount")?["Amount"] ?? "", line.Child("CreditAmount")?["Amount"] ?? "");
        var amount = debit.Length > 0 ? debit : credit.StartsWith('-') ? credit[1..] : credit.Length > 0 ? $"-{credit}" : "";
        var tax = line.Child("TaxInformation");
        var records = Begin(RecordTables.Lines, line);
        records.Put("document", document, line.Column);
        records.Put("account", line["AccountID"], line.Column);
        records.Put("amount", amount == "-0" ? "0" : amount, line.Column);
        records.Put("line", line["RecordID"], line.Column);
        records.Put("contact", Party(line), line.Column);
        records.Put("memo", line["Description"], line.Column);
        records.Put("tax_code", tax?["TaxCode"] ?? "", line.Column);
        records.Put("tax_part", tax is null ? "" : tax.Child("TaxAmount") is null ? "base" : "tax", line.Column);
        foreach (var (type, field) in new[]
        {
            (AuditNames.Project, "project"), (AuditNames.Department, "department"), (AuditNames.Item, "item"),
            (AuditNames.Quantity, "quantity"), (AuditNames.UnitPrice, "unit_price"),
        })
        {
            records.Put(
                field, line.Children("Analysis").FirstOrDefault(analysis => analysis["AnalysisType"] == type)?["AnalysisID"] ?? "",
                line.Column);
        }

        PutTags(records, line);
        records.End();
        _totals.Add(line["AccountID"], transaction["TransactionDate"], amount, _from);
    }

    private static string Party(AuditElement element) =>
        element["CustomerID"] is { Length: > 0 } customer ? customer : element["SupplierID"];

    private void TakeInvoice(AuditElement invoice)
    {
        if (_entries.TryGetValue(invoice["TransactionID"], out var entry))
        {
            entry.Due = invoice["PaymentTerms"];
            entry.Reference = invoice.Children("Line").Select(line => line.Child("OrderReferences")?["OriginatingON"])
                .FirstOrDefault(reference => reference is { Length: > 0 }) ?? "";
        }
    }

    private void TakePayment(AuditElement payment)
    {
        foreach (var line in payment.Children("Line"))
        {
            var records = Begin(RecordTables.Settlements, line);
            records.Put("from", payment["TransactionID"], line.Column);
            records.Put("to", line["SourceDocumentID"], line.Column);
            records.Put("amount", line.Child("PaymentLineAmount")?["Amount"] ?? "", line.Column);
            records.Put("date", line["TaxPointDate"], line.Column);
            records.End();
        }
    }

    private void Finish()
    {
        foreach (var (id, entry) in _entries)
        {
            var transaction = entry.Transaction;
            var records = Begin(RecordTables.Documents, transaction);
            records.Put("id", id, transaction.Column);
            records.Put(
                "kind", DocumentKinds.Names.Contains(transaction["TransactionType"]) ? transaction["TransactionType"] : "journal",
                transaction.Column);
            records.Put("date", transaction["TransactionDate"], transaction.Column);
            records.Put(entry.Due.Contains('-', StringComparison.Ordinal) ? "due" : "terms_days", entry.Due, transaction.Column);
            records.Put("number", transaction["SystemID"], transaction.Column);
            records.Put("contact", Party(transaction), transaction.Column);
            records.Put("reference", entry.Reference, transaction.Column);
            records.Put("memo", transaction["Description"], transaction.Column);
            records.Put("batch", transaction["BatchID"], transaction.Column);
            records.Put("created_at", transaction["SystemEntryDate"], transaction.Column);
            records.Put("created_by", transaction["SourceID"], transaction.Column);
            records.End();
        }

        AddOpening();
        _totals.Prove(_entries.Count);
    }

    // Other programs say what was there before in the accounts alone.
    private void AddOpening()
    {
        var openings = _totals.OpeningsWithoutEntries();
        if (openings.Count == 0)
        {
            return;
        }

        var (day, first) = (Iso(_from.AddDays(-1)), openings[0].Account);
        var records = Begin(RecordTables.Documents, first);
        records.Put("id", $"opening-{day}", first.Column);
        records.Put("kind", "opening", first.Column);
        records.Put("date", day, first.Column);
        records.Put("memo", "Opening balances", first.Column);
        records.End();
        foreach (var (account, amount) in openings)
        {
            records = Begin(RecordTables.Lines, account);
            records.Put("document", $"opening-{day}", account.Column);
            records.Put("account", account["AccountID"], account.Column);
            records.Put("amount", amount, account.Column);
            records.End();
        }
    }

    private static string Iso(DateOnly day) => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);

    private MappedRecords Begin(RecordTable table, AuditElement element)
    {
        _records[table].Begin(element.Line);
        return _records[table];
    }

    private void Put(RecordTable table, AuditElement element, params ReadOnlySpan<(string Field, string Element)> fields)
    {
        var records = Begin(table, element);
        foreach (var (field, name) in fields)
        {
            records.Put(field, element[name], element.Column);
        }

        records.End();
    }

    private static void PutTags(MappedRecords records, AuditElement? element)
    {
        foreach (var analysis in element?.Children("Analysis") ?? [])
        {
            if (analysis["AnalysisType"].StartsWith(AuditNames.Tag, StringComparison.Ordinal))
            {
                records.PutTag(analysis["AnalysisType"][AuditNames.Tag.Length..], analysis["AnalysisID"]);
            }
        }
    }

    private sealed record AuditEntry(AuditElement Transaction)
    {
        public string Due { get; set; } = "";

        public string Reference { get; set; } = "";
    }
}
