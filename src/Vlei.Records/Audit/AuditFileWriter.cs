using System.Globalization;
using System.Text;
using System.Xml;
using Vlei.Core.Ledger;

namespace Vlei.Records.Audit;

/// <summary>
/// Writes an audit file as the OECD's Standard Audit File for Tax 2.0 has it: header, master files, general ledger entries, invoices and
/// payments, with control totals. The same records give the same bytes.
/// </summary>
/// <param name="header">What it says of itself.</param>
/// <param name="records">The records of a table, documents and lines in the same order; they are asked for several times.</param>
public sealed class AuditFileWriter(AuditHeader header, Func<RecordTable, IEnumerable<RecordText>> records)
{
    private readonly Dictionary<string, (decimal Opening, decimal Closing)> _balances = [];
    private readonly Dictionary<string, RecordText> _contacts = records(RecordTables.Contacts).ToDictionary(contact => contact["id"]);
    private readonly Dictionary<string, string> _types =
        records(RecordTables.Accounts).ToDictionary(account => account["code"], account => account["type"]);
    private readonly Dictionary<string, string> _rates = records(RecordTables.TaxCodes)
        .ToDictionary(code => code["code"], code => code["rate"]);
    private XmlWriter _xml = null!;

    /// <summary>Writes it.</summary>
    public void Write(Stream stream)
    {
        using (_xml = XmlWriter.Create(stream, new XmlWriterSettings
        {
            Indent = true, NewLineChars = "\n", CheckCharacters = false, Encoding = new UTF8Encoding(false),
        }))
        {
            var totals = AddUp();
            _xml.WriteStartDocument();
            _xml.WriteStartElement(AuditNames.Root, AuditNames.Space);
            WriteHeader();
            Within("MasterFiles", WriteMasterFiles);
            Within("GeneralLedgerEntries", () => WriteEntries(totals));
            Within("SourceDocuments", WriteSourceDocuments);
            _xml.WriteEndElement();
        }
    }

    private IEnumerable<AuditDocument> Documents => AuditDocument.Of(records(RecordTables.Documents), records(RecordTables.Lines));

    private static decimal Amount(RecordText line) => decimal.Parse(line["amount"], CultureInfo.InvariantCulture);

    private static DateOnly Day(RecordText document) => DateOnly.ParseExact(document["date"], "yyyy-MM-dd", CultureInfo.InvariantCulture);

    private static string Text(DateOnly day) => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);

    private static string Text(decimal amount) => amount.ToString(CultureInfo.InvariantCulture);

    // The control totals stand before what they are the totals of.
    private (long Count, decimal Debit, decimal Credit) AddUp()
    {
        var (count, debit, credit) = (0L, 0m, 0m);
        foreach (var document in Documents)
        {
            count++;
            var day = Day(document.Head);
            foreach (var line in document.Lines)
            {
                var amount = Amount(line);
                (debit, credit) = amount > 0 ? (debit + amount, credit) : (debit, credit - amount);
                var (opening, closing) = _balances.GetValueOrDefault(line["account"]);
                _balances[line["account"]] =
                    (day < header.From ? opening + amount : opening, day <= header.To ? closing + amount : closing);
            }
        }

        return (count, debit, credit);
    }

    private void WriteHeader() => Within("Header", () =>
    {
        Put("AuditFileVersion", "2.00");
        Put("AuditFileDateCreated", Text(header.Created));
        Put("SoftwareCompanyName", "Vlei");
        Put("SoftwareID", "Vlei");
        Put("SoftwareVersion", header.Version);
        Within("Company", () => Put("Name", header.Company));
        Put("DefaultCurrencyCode", header.Currency);
        Within("SelectionCriteria", () =>
        {
            Put("SelectionStartDate", Text(header.From));
            Put("SelectionEndDate", Text(header.To));
        });
        Put("TaxAccountingBasis", "A");
    });

    private void WriteMasterFiles()
    {
        Within("GeneralLedgerAccounts", () =>
        {
            foreach (var account in records(RecordTables.Accounts))
            {
                Within("Account", () => WriteAccount(account));
            }
        });
        Within("Customers", () => WriteParties("Customer", contact => contact["kind"] is "customer" or "both"));
        Within("Suppliers", () => WriteParties("Supplier", contact => contact["kind"] is not "customer"));
        Within("TaxTable", WriteTaxes);
        Within("UOMTable", () =>
        {
            foreach (var unit in records(RecordTables.Items).Select(item => item["unit"]).Where(unit => unit.Length > 0).Distinct())
            {
                Within("UOMTableEntry", () =>
                {
                    Put("UnitOfMeasure", unit);
                    Put("Description", unit);
                });
            }
        });
        Within("AnalysisTypeTable", () =>
        {
            WriteAnalyses(RecordTables.Projects, AuditNames.Project, "Project");
            WriteAnalyses(RecordTables.Departments, AuditNames.Department, "Department");
        });
        Within("Products", () =>
        {
            foreach (var item in records(RecordTables.Items))
            {
                Within("Product", () => WriteProduct(item));
            }
        });
    }

    private void WriteAccount(RecordText account)
    {
        var (opening, closing) = _balances.GetValueOrDefault(account["code"]);
        Put("AccountID", account["code"]);
        Put("AccountDescription", account["name"]);
        Put("GroupingCategory", account["cash_flow"].Length > 0 ? $"{account["type"]} ({account["cash_flow"]})" : account["type"]);
        Put("GroupingCode", account["parent"]);
        Put("AccountType", account["active"] == "false" ? "GL (inactive)" : "GL");
        Put(opening < 0 ? "OpeningCreditBalance" : "OpeningDebitBalance", Text(Math.Abs(opening)));
        Put(closing < 0 ? "ClosingCreditBalance" : "ClosingDebitBalance", Text(Math.Abs(closing)));
    }

    private void WriteParties(string element, Func<RecordText, bool> isOne)
    {
        foreach (var contact in _contacts.Values.Where(isOne))
        {
            Within(element, () =>
            {
                Put("Name", contact["name"]);
                Within("Address", () => Put("StreetName", contact["address"]), contact["address"]);
                Within("Contact", () =>
                {
                    Put("Telephone", contact["phone"]);
                    Put("Email", contact["email"]);
                }, contact["phone"] + contact["email"]);
                Put($"{element}ID", contact["id"]);
                Within("PartyInfo", () =>
                {
                    Within("PaymentTerms", () => Put("Days", contact["terms_days"]), contact["terms_days"]);
                    Put("Type", contact["kind"]);
                    Put("Status", contact["active"] == "false" ? "inactive" : "active");
                    foreach (var (tag, value) in contact.Tags)
                    {
                        WriteAnalysis(AuditNames.Tag + tag, value);
                    }
                });
            });
        }
    }

    private void WriteTaxes()
    {
        foreach (var direction in records(RecordTables.TaxCodes).GroupBy(code => code["direction"]))
        {
            Within("TaxTableEntry", () =>
            {
                Put("TaxType", "VAT");
                Put("Description", direction.Key.Length > 0 ? direction.Key : "any");
                foreach (var code in direction)
                {
                    Within("TaxCodeDetails", () =>
                    {
                        Put("TaxCode", code["code"]);
                        Put("Description", code["name"]);
                        Put("TaxPercentage", code["rate"]);
                    });
                }
            });
        }
    }

    private void WriteAnalyses(RecordTable table, string type, string description)
    {
        foreach (var record in records(table))
        {
            Within("AnalysisTypeTableEntry", () =>
            {
                Put("AnalysisType", type);
                Put("AnalysisTypeDescription", description);
                Put("AnalysisID", record["id"]);
                Put("AnalysisIDDescription", record["name"]);
                Put("Status", record["active"] == "false" ? "inactive" : "active");
            });
        }
    }

    private void WriteProduct(RecordText item)
    {
        Put("ProductCode", item["id"]);
        Put("GoodsServicesID", item["kind"] == "service" ? "S" : "G");
        Put("ProductGroup", item["kind"]);
        Put("Description", item["name"]);
        Put("UOMBase", item["unit"]);
    }

    private void WriteEntries((long Count, decimal Debit, decimal Credit) totals)
    {
        WriteTotals(totals.Count, totals.Debit, totals.Credit);
        Within("Journal", () =>
        {
            Put("JournalID", AuditNames.Journal);
            Put("Description", "General ledger");
            Put("Type", "GL");
            foreach (var document in Documents)
            {
                Within("Transaction", () => WriteTransaction(document));
            }
        });
    }

    private void WriteTotals(long count, decimal debit, decimal credit)
    {
        Put("NumberOfEntries", count.ToString(CultureInfo.InvariantCulture));
        Put("TotalDebit", Text(debit));
        Put("TotalCredit", Text(credit));
    }

    private void WriteTransaction(AuditDocument document)
    {
        var (head, day) = (document.Head, Day(document.Head));
        Put("TransactionID", document.Id);
        Put("Period", day.Month.ToString(CultureInfo.InvariantCulture));
        Put("PeriodYear", day.Year.ToString(CultureInfo.InvariantCulture));
        Put("TransactionDate", head["date"]);
        Put("SourceID", head["created_by"]);
        Put("TransactionType", head["kind"]);
        Put("Description", head["memo"]);
        Put("BatchID", head["batch"]);
        Put("SystemEntryDate", head["created_at"]);
        Put("GLPostingDate", head["date"]);
        WriteParty(head["contact"]);
        Put("SystemID", head["number"]);
        foreach (var line in document.Lines)
        {
            Within("Line", () => WriteLine(head, line));
        }
    }

    private void WriteParty(string contact)
    {
        if (contact.Length > 0)
        {
            Put(_contacts[contact]["kind"] is "customer" or "both" ? "CustomerID" : "SupplierID", contact);
        }
    }

    private void WriteLine(RecordText head, RecordText line)
    {
        Put("RecordID", line["line"]);
        Put("AccountID", line["account"]);
        foreach (var (type, field) in new[]
        {
            (AuditNames.Project, "project"), (AuditNames.Department, "department"), (AuditNames.Item, "item"),
            (AuditNames.Quantity, "quantity"), (AuditNames.UnitPrice, "unit_price"),
        })
        {
            WriteAnalysis(type, line[field]);
        }

        foreach (var (tag, value) in head.Tags.Where(tag => !line.Tags.ContainsKey(tag.Key)).Concat(line.Tags))
        {
            WriteAnalysis(AuditNames.Tag + tag, value);
        }

        WriteParty(line["contact"]);
        Put("Description", line["memo"]);
        var amount = Amount(line);
        Within(amount < 0 ? "CreditAmount" : "DebitAmount", () => Put("Amount", Text(Math.Abs(amount))));
        WriteTax(line);
    }

    private void WriteTax(RecordText line) => Within("TaxInformation", () =>
    {
        Put("TaxType", "VAT");
        Put("TaxCode", line["tax_code"]);
        Put("TaxPercentage", _rates[line["tax_code"]]);
        if (line["tax_part"] == "tax")
        {
            Within("TaxAmount", () => Put("Amount", Text(Math.Abs(Amount(line)))));
        }
        else
        {
            Put("TaxBase", Text(Math.Abs(Amount(line))));
        }
    }, line["tax_code"]);

    private void WriteAnalysis(string type, string id) => Within("Analysis", () =>
    {
        Put("AnalysisType", type);
        Put("AnalysisID", id);
    }, id);

    private void WriteSourceDocuments()
    {
        WriteInvoices("SalesInvoices", AuditNames.Sales, "receivable", "Customer");
        WriteInvoices("PurchaseInvoices", AuditNames.Purchases, "payable", "Supplier");
        Within("Payments", WritePayments);
    }

    private string? ControlOf(AuditDocument document, string type) =>
        document.Lines.Select(line => line["account"]).FirstOrDefault(account => _types[account] == type);

    // Other documents that fall due, such as what was open when a book began, are listed with what they are like.
    private bool IsListed(AuditDocument document, IReadOnlyList<string> kinds, string control) => kinds.Contains(document.Head["kind"])
        || (!AuditNames.Sales.Contains(document.Head["kind"]) && !AuditNames.Purchases.Contains(document.Head["kind"])
            && (document.Head["due"] + document.Head["reference"] + document.Head["terms_days"]).Length > 0
            && (ControlOf(document, "receivable") is not null) == (control == "receivable"));

    private void WriteInvoices(string section, IReadOnlyList<string> kinds, string control, string party) => Within(section, () =>
    {
        var (count, debit, credit) = (0L, 0m, 0m);
        foreach (var line in Documents.Where(document => IsListed(document, kinds, control)).SelectMany(document => document.Lines
            .Select((line, place) => (line, place))))
        {
            count += line.place == 0 ? 1 : 0;
            var amount = Amount(line.line);
            (debit, credit) = amount > 0 ? (debit + amount, credit) : (debit, credit - amount);
        }

        WriteTotals(count, debit, credit);
        foreach (var document in Documents.Where(document => IsListed(document, kinds, control)))
        {
            Within("Invoice", () => WriteInvoice(document, control, party));
        }
    });

    private void WriteInvoice(AuditDocument document, string control, string party)
    {
        var head = document.Head;
        Put("InvoiceNo", document.Id);
        Within($"{party}Info", () => Put($"{party}ID", head["contact"]), head["contact"]);
        Put("AccountID", ControlOf(document, control) ?? "");
        Put("InvoiceDate", head["date"]);
        Put("InvoiceType", head["kind"]);
        Put("PaymentTerms", head["due"].Length > 0 ? head["due"] : head["terms_days"]);
        Put("GLPostingDate", head["date"]);
        Put("TransactionID", document.Id);
        foreach (var line in document.Lines.Where(
            line => _types[line["account"]] is not ("receivable" or "payable") && line["tax_part"] != "tax"))
        {
            Within("Line", () => WriteInvoiceLine(head, line));
        }

        var tax = document.Lines.Where(line => line["tax_part"] == "tax").Sum(Amount);
        var gross = document.Lines.Where(line => Amount(line) > 0).Sum(Amount);
        Within("DocumentTotals", () =>
        {
            Put("TaxPayable", Text(Math.Abs(tax)));
            Put("NetTotal", Text(gross - Math.Abs(tax)));
            Put("GrossTotal", Text(gross));
        });
    }

    private void WriteInvoiceLine(RecordText head, RecordText line)
    {
        Put("LineNumber", line["line"]);
        Put("AccountID", line["account"]);
        Within("OrderReferences", () => Put("OriginatingON", head["reference"]), head["reference"]);
        Put("ProductCode", line["item"]);
        Put("Quantity", line["quantity"]);
        Put("UnitPrice", line["unit_price"]);
        Put("TaxPointDate", head["date"]);
        Put("Description", line["memo"].Length > 0 ? line["memo"] : head["memo"]);
        Within("InvoiceLineAmount", () => Put("Amount", Text(Math.Abs(Amount(line)))));
        Put("DebitCreditIndicator", Amount(line) < 0 ? "C" : "D");
        WriteTax(line);
    }

    // What was set against what, as payments with the documents that they pay.
    private void WritePayments()
    {
        var kinds = records(RecordTables.Documents).ToDictionary(
            document => document["id"], document => (document["kind"], document["date"]));
        var settled = records(RecordTables.Settlements).Select(settlement =>
        {
            var isFrom = IsPayer(kinds[settlement["from"]].Item1);
            return (Payer: settlement[isFrom ? "from" : "to"], Paid: settlement[isFrom ? "to" : "from"], Settlement: settlement);
        }).GroupBy(settlement => settlement.Payer).ToList();
        WriteTotals(settled.Count, settled.Sum(payment => payment.Sum(settlement => Amount(settlement.Settlement))), 0);
        foreach (var payment in settled)
        {
            Within("Payment", () =>
            {
                Put("PaymentRefNo", payment.Key);
                Put("TransactionID", payment.Key);
                Put("TransactionDate", kinds[payment.Key].Item2);
                Put("PaymentMethod", IsPayer(kinds[payment.Key].Item1) ? "money" : "offset");
                foreach (var (number, (_, paid, settlement)) in payment.Index())
                {
                    Within("Line", () =>
                    {
                        Put("LineNumber", (number + 1).ToString(CultureInfo.InvariantCulture));
                        Put("SourceDocumentID", paid);
                        Put("TaxPointDate", settlement["date"]);
                        Put("DebitCreditIndicator", "D");
                        Within("PaymentLineAmount", () => Put("Amount", settlement["amount"]));
                    });
                }

                Within("DocumentTotals", () => Put("GrossTotal", Text(payment.Sum(settlement => Amount(settlement.Settlement)))));
            });
        }
    }

    private static bool IsPayer(string kind) => kind is "receipt" or "payment" or "refund" or "deposit" or "transfer";

    private void Within(string element, Action write, string unlessEmpty = "x")
    {
        if (unlessEmpty.Length == 0)
        {
            return;
        }

        _xml.WriteStartElement(element, AuditNames.Space);
        write();
        _xml.WriteEndElement();
    }

    private void Put(string element, string text)
    {
        if (text.Length > 0)
        {
            _xml.WriteElementString(element, AuditNames.Space, XmlText.Of(text));
        }
    }
}
