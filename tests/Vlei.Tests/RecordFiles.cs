namespace Vlei.Tests;

/// <summary>A small record set that is right in every way, to be broken or changed in one.</summary>
public static class RecordFiles
{
    public static readonly IReadOnlyDictionary<string, string> Sound = new Dictionary<string, string>
    {
        ["accounts.csv"] = """
            code,name,type,parent,active,cash_flow
            1000,Bank,bank,,,
            1100,Receivables,receivable,,,
            2000,Payables,payable,,,
            2200,Tax,tax,,,
            4000,Sales,income,,,
            4010,Sales of boats,income,4000,,
            5000,Materials,cost-of-sales,,,
            6000,Rent,expense,,,
            6900,Old rent,expense,,false,

            """,
        ["contacts.csv"] = """
            id,name,kind,email,tag.region
            C1,Alma Acker,customer,alma@example.com,north
            C2,"Barrow, Bram",customer,,
            S1,Three Firs Timber,supplier,,

            """,
        ["items.csv"] = "id,name,kind,unit\nOAR,Oars,stock,pair\n",
        ["projects.csv"] = "id,name,contact\nB1,Hull 1,C1\n",
        ["departments.csv"] = "id,name\nSHOP,Shop\n",
        ["tax_codes.csv"] = "code,name,rate,direction\nS15,Standard,15,sales\n",
        ["documents.csv"] = """
            id,kind,date,due,contact,memo
            INV-1,invoice,2026-03-02,2026-04-01,C1,Oars
            INV-2,invoice,2026-03-20,2026-04-19,C2,"Two boats,
            one old"
            REC-1,receipt,2026-04-10,,C1,
            BILL-1,bill,2026-03-05,,S1,

            """,
        ["lines.csv"] = """
            document,account,amount,item,quantity,unit_price,tax_code,tax_part,project,department
            INV-1,1100,115.00,,,,,,,
            INV-1,4000,-100.00,OAR,2,50,S15,,,SHOP
            INV-1,2200,-15.00,,,,S15,tax,,
            INV-2,1100,230.00,,,,,,,
            INV-2,4010,-230.00,,,,,,B1,
            REC-1,1000,57.50,,,,,,,
            REC-1,1100,-57.50,,,,,,,
            BILL-1,2000,-40.00,,,,,,,
            BILL-1,6000,40.00,,,,,,,

            """,
        ["settlements.csv"] = "from,to,amount,date\nINV-1,REC-1,57.50,2026-04-10\n",
        ["budgets.csv"] = "account,month,amount\n4000,2026-03,150.00\n6000,2026-03,40.00\n",
    };

    /// <summary>Writes the record set into <c>set</c> with some texts in its files replaced, and a book to take it.</summary>
    public static Tool WithRecords(this Tool tool, params (string File, string From, string To)[] changes)
    {
        if (!Directory.Exists(tool.PathOf("book")))
        {
            tool.Run("init", "book", "--name", "Test", "--currency", "ZAR", "--fiscal-year-start", "3").Done();
        }

        foreach (var (name, text) in Sound)
        {
            var changed = text;
            foreach (var (_, from, to) in changes.Where(change => change.File == name))
            {
                Assert.Contains(from, changed);
                changed = changed.Replace(from, to);
            }

            tool.Write($"set/{name}", changed);
        }

        return tool;
    }
}
