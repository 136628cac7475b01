namespace Vlei.Tests.Maps;

/// <summary>
/// Lists, budgets, credit notes and totals by hand: everything that a business has beside its journal, mapped without a hand.
/// </summary>
public sealed class SourceListTests : IDisposable
{
    private readonly Tool _tool = new();

    public SourceListTests()
    {
        _tool.Run("init", "book", "--name", "Client", "--currency", "EUR", "--clock", "2026-06-30").Done();
        _tool.Write(
            "Kunden.csv",
            "Kundenliste\n\nKundennr;Kunde;E-Mail;Telefon;Anschrift;Zahlungsziel;Region\n"
                + "K-1;Jan Botha;jan@example.org;021 555;Hafenweg 3;30;Nord\nK-2;Jan Botha;;;;14;Süd\n");
        _tool.Write("item list.csv", "Code,Name,Unit\nOAR-1,Oar of ash,pair\nHUL-7,Hull no. 7,\n");
        _tool.Write("tax codes.csv", "Tax code,Description,Rate\nS,Standard,15%\nR,Reduced,0.05\nZ,Zero,0\n");
        _tool.Write("projects.csv", "Project,Name,Customer\nP1,Dinghy,K-1\n");
        _tool.Write(
            "Rechnungen.csv",
            "Nummer;Datum;Kundennr;Kunde;Netto;MwSt;Brutto\nR-1;13.01.2026;K-2;Jan Botha;200,00;30,00;230,00\n");
        _tool.Write(
            "Gutschriften.csv",
            "Gutschriften\nNummer;Datum;Kundennr;Kunde;Netto;MwSt;Brutto\nG-1;13.02.2026;K-2;Jan Botha;100,00;15,00;115,00\n"
                + "G-2;14.02.2026;K-1;Jan Botha;10,00;1,50;11,50\nSumme;;;;110,00;16,50;126,50\n");
    }

    /// <inheritdoc/>
    public void Dispose() => _tool.Dispose();

    [Fact]
    public void Lists_and_credit_notes_come_in_together_and_two_of_one_name_stay_two()
    {
        string[] files = ["Gutschriften.csv", "Kunden.csv", "Rechnungen.csv", "item list.csv", "projects.csv", "tax codes.csv"];
        foreach (var file in files)
        {
            Run("map", file).Done();
        }

        File.AppendAllText(_tool.PathOf("book/maps/kunden.toml"), "\n[tags]\nregion = \"Region\"\n");
        Run(["import", .. files, "--new", "take"]).Done();
        Assert.Equal(
            """
            row,label,kind,level,name,kind,email,terms-days,tag.region
            K-1,K-1,record,0,Jan Botha,customer,jan@example.org,30,Nord
            K-2,K-2,record,0,Jan Botha,customer,,14,Süd

            """,
            Run("show", "contacts", "--columns", "name,kind,email,terms-days,tag.region", "--format", "csv").Done().Output);
        Assert.Equal(
            """
            row,label,kind,level,opening,debit,credit,closing
            K-1,Jan Botha (K-1),account,0,0.00,0.00,11.50,-11.50
            K-2,Jan Botha (K-2),account,0,0.00,230.00,115.00,115.00
            total,Total,total,0,0.00,230.00,126.50,103.50

            """,
            Run("show", "customer-balances", "--period", "all", "--format", "csv").Done().Output);
        Assert.Equal(
            "row,label,kind,level,name,unit\nOAR-1,OAR-1,record,0,Oar of ash,pair\nHUL-7,HUL-7,record,0,Hull no. 7,\n",
            Run("show", "items", "--columns", "name,unit", "--format", "csv").Done().Output);
        Assert.Equal(
            "row,label,kind,level,name,rate\nR,R,record,0,Reduced,5\nS,S,record,0,Standard,15\nZ,Z,record,0,Zero,0\n",
            Run("show", "tax-codes", "--columns", "name,rate", "--sort", "code", "--format", "csv").Done().Output);
        Assert.Contains("P1,P1,record,0,Dinghy,Jan Botha (K-1)", Run("show", "projects", "--format", "csv").Done().Output);
        Assert.Contains("Nothing has changed", Run(["import", .. files]).Done().Output);
    }

    [Theory]
    [InlineData("-1.000,00;-2.000,00", "500,00;500,00", "debit")]
    [InlineData("1.000,00;2.000,00", "500,00;500,00", "natural")]
    [InlineData("1.000,00;2.000,00", "-500,00;-500,00", "credit")]
    public void A_budget_is_what_was_meant_whatever_its_signs(string sales, string rent, string signs)
    {
        _tool.Write("Budget 2026.csv", $"Konto;Jan 2026;Feb 2026\n4000 Erlöse;{sales}\n6000 Miete;{rent}\n");
        Assert.Contains($"signs         {signs}", Run("map", "Budget 2026.csv").Done().Output);
        Run("import", "Budget 2026.csv", "--new", "take").Done();
        Assert.Equal(
            """
            row,label,kind,level,2026-01-01/2026-02-28,budget(2026-01-01/2026-02-28)
            income,Income,heading,0,,
            4000,Erlöse,account,1,0.00,3000.00
            total-income,Total income,total,0,0.00,3000.00
            expenses,Expenses,heading,0,,
            6000,Miete,account,1,0.00,1000.00
            total-expenses,Total expenses,total,0,0.00,1000.00
            net-profit,Net profit,total,0,0.00,2000.00

            """,
            Run("show", "profit-loss", "--period", "2026-01/2026-02", "--compare", "budget", "--format", "csv", "--zeros").Done().Output);
    }

    [Fact]
    public void Totals_that_are_written_down_by_hand_are_held_against_the_rows()
    {
        Run("map", "Rechnungen.csv").Done();
        var map = _tool.PathOf("book/maps/rechnungen.toml");
        var sound = File.ReadAllText(map);
        File.WriteAllText(map, sound + "\n[proof]\ndocuments = \"2\"\ntotal = \"230.00\"\n");
        var refused = Run("import", "Rechnungen.csv", "--new", "take");
        Assert.Equal(65, refused.Status);
        Assert.Contains("rechnungen.toml:21:1: the number of documents is 1, but the map says 2.", refused.Messages);
        File.WriteAllText(map, sound + "\n[proof]\ndokuments = \"2\"\n");
        Assert.Contains("Did you mean documents?", Run("import", "Rechnungen.csv", "--new", "take").Messages);
        File.WriteAllText(map, sound + "\n[proof]\ndocuments = \"1\"\ntotal = \"230.00\"\n");
        Assert.Contains("2 totals and balances of the files", Run("import", "Rechnungen.csv", "--new", "take").Done().Output);
    }

    [Fact]
    public void Files_of_the_same_headings_are_told_apart_by_their_names_or_asked_for()
    {
        Run("map", "Rechnungen.csv").Done();
        Run("map", "Gutschriften.csv").Done();
        Run("import", "Rechnungen.csv", "Gutschriften.csv", "--new", "take").Done();
        Assert.Contains("103.50", Run("show", "receivables-aging", "--period", "2026-03").Done().Output);
        File.Move(_tool.PathOf("Gutschriften.csv"), _tool.PathOf("neu.csv"));
        var asked = Run("import", "neu.csv");
        Assert.Equal(2, asked.Status);
        Assert.Contains("neu.csv has the headings of gutschriften and rechnungen.", asked.Messages);
        Assert.Contains("Nothing has changed", Run("import", "neu.csv", "--map", "gutschriften").Done().Output);
    }

    private Outcome Run(params string[] arguments) => _tool.Run([], [.. arguments, "--book", "book"]);
}
