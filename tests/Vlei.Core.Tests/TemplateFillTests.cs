using System.IO.Compression;
using System.Xml.Linq;
using CsCheck;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Output;

namespace Vlei.Core.Tests;

/// <summary>
/// A workbook of one random report is filled with another: what comes out is what the other is by itself, and a damaged workbook
/// is refused or filled, never a fault.
/// </summary>
public sealed class TemplateFillTests : IDisposable
{
    private static readonly XNamespace Main = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";

    private readonly DirectoryInfo _folder = Directory.CreateTempSubdirectory("vlei");

    [Fact]
    public void A_filled_workbook_holds_what_the_report_written_by_itself_does() =>
        Gen.Select(OutputTests.GenReport, OutputTests.GenReport).Sample((first, then) =>
    {
        // What has no row in common is taken for another report.
        static ReportRow[] Known(Report report) =>
            [.. report.Rows.Select((row, place) => place > 0 ? row : row with { Label = "Known", Kind = RowKind.Account })];
        first = first with { Rows = Known(first) };
        then = then with { Notes = first.Notes, AddressedTo = first.AddressedTo, Rows = Known(then) };
        var path = Path.Combine(_folder.FullName, $"{Guid.NewGuid()}.xlsx");
        File.WriteAllBytes(path, Workbook(first, null));
        var (filled, plain) = (Read(Workbook(then, path)), Read(Workbook(then, null)));
        var (old, expected, now) = (Read(File.ReadAllBytes(path)), Table(plain), Table(filled));
        Assert.Equal(expected, now);

        // The foot stands where it stood, as many rows further down or up as the table is longer or shorter.
        var growth = then.Rows.Count - first.Rows.Count;
        Assert.Equal(Row(Name(old, "report_foot"), 0) + growth, Row(Name(filled, "report_foot"), 0));
        Assert.Equal(
            filled["xl/worksheets/sheet1.xml"].Descendants(Main + "row").Select(row => (int)row.Attribute("r")!).Order(),
            filled["xl/worksheets/sheet1.xml"].Descendants(Main + "row").Select(row => (int)row.Attribute("r")!).Distinct());
        File.Delete(path);
    });

    [Fact]
    public void A_damaged_workbook_is_refused_in_words_or_filled() =>
        Gen.Select(OutputTests.GenReport, Gen.Int[0, 20], Gen.Int[0, int.MaxValue], Gen.Int[0, 4]).Sample((report, part, place, how) =>
    {
        var path = Path.Combine(_folder.FullName, $"{Guid.NewGuid()}.xlsx");
        File.WriteAllBytes(path, Workbook(report, null, new ChartText(ChartKind.Auto, [])));
        Damage(path, part, place, how);
        try
        {
            _ = Read(Workbook(report, path));
        }
        catch (ProblemException refused)
        {
            Assert.Contains(path, refused.Message, StringComparison.Ordinal);
            Assert.NotNull(refused.Advice);
        }

        File.Delete(path);
    }, iter: 400);

    [Fact]
    [Trait("Speed", "slow")]
    public void A_sheet_has_no_more_links_than_there_is_room_for_and_those_back_are_not_the_ones_that_are_spared()
    {
        const int Most = 65_530;
        const int Figures = 40;
        const int Records = 1_700;
        var figures = OutputTests.GenReport.Single() with
        {
            Columns = [new ReportColumn("k0", "Amount", ColumnKind.Money)],
            Rows = [.. Enumerable.Range(0, Figures)
                .Select(place => new ReportRow($"f{place}", $"Figure {place}", RowKind.Account, 0, [new Cell(Records)]))],
        };
        var list = figures with
        {
            Title = "Records",
            Rows = [.. Enumerable.Range(0, Figures * (Records + 1)).Select(place => place % (Records + 1) == 0
                ? new ReportRow($"h{place}", "Figure", RowKind.Heading, 0, [Cell.Empty])
                : new ReportRow($"r{place}", "D", RowKind.Record, 1, [new Cell(1)]) { Document = "D" })],
        };
        var documents = figures with
        {
            Title = "Documents",
            Rows = [new ReportRow("D", "D", RowKind.Heading, 0, [Cell.Empty]) { Document = "D" }],
        };
        var report = figures with
        {
            Records = new ReportRecords(
                list, Enumerable.Range(0, Figures)
                    .ToDictionary(place => place * (Records + 1), place => new CellPlace(place, 0)), new Dictionary<int, CellPlace>())
            { Documents = documents },
        };
        var path = Path.Combine(_folder.FullName, "links.xlsx");
        File.WriteAllBytes(path, Workbook(report, null));
        foreach (var workbook in new[] { Read(File.ReadAllBytes(path)), Read(Workbook(report, path)) })
        {
            Assert.Equal(Figures, Links(workbook, 1).Count);
            Assert.Equal(Most, Links(workbook, 2).Count);
            Assert.Equal(Figures, Links(workbook, 2).Count(target => target.StartsWith("'Test'!B", StringComparison.Ordinal)));
        }

        static List<string> Links(Dictionary<string, XDocument> workbook, int sheet) =>
            [.. workbook[$"xl/worksheets/sheet{sheet}.xml"].Descendants(Main + "hyperlink")
                .Select(link => (string)link.Attribute("location")!)];
    }

    public void Dispose() => _folder.Delete(recursive: true);

    // Takes an attribute or an element out, writes nonsense into it, or has an element twice.
    private static void Damage(string path, int number, int place, int how)
    {
        using var archive = ZipFile.Open(path, ZipArchiveMode.Update);
        var part = archive.Entries[number % archive.Entries.Count].FullName;
        XDocument document;
        using (var read = archive.GetEntry(part)!.Open())
        {
            document = XDocument.Load(read);
        }

        var elements = document.Root!.Descendants().ToList();
        var element = elements[place % elements.Count];
        var attributes = element.Attributes()
            .Where(attribute => !attribute.IsNamespaceDeclaration && attribute.Name.Namespace != XNamespace.Xml).ToList();
        var attribute = attributes.Count == 0 ? null : attributes[place % attributes.Count];
        switch (how)
        {
            case 0:
                element.Remove();
                break;
            case 1:
                element.AddAfterSelf(new XElement(element));
                break;
            case 2:
                attribute?.Remove();
                break;
            case 3:
                attribute?.SetValue("nonsense");
                break;
            default:
                element.Value = new[] { "99999999999", "'Test'!$A:$C", "'Test'!$7:$9", "'Test'!$C$9:$A$2", "'Test'!$A$7", "" }[place % 6];
                break;
        }

        archive.GetEntry(part)!.Delete();
        using var written = archive.CreateEntry(part).Open();
        document.Save(written);
    }

    private static byte[] Workbook(Report report, string? template, ChartText? chart = null)
    {
        using var stream = new MemoryStream();
        ReportFormat.All.Single(format => format.Name == "xlsx")
            .Write(
                report with
                {
                    Look = new ReportLook
                    {
                        Template = template is null ? null
                    : new ReportTemplate(template, File.ReadAllBytes(template)), Chart = chart
                    }
                }, stream,
                    new Surface(null, false, false));
        return stream.ToArray();
    }

    private static Dictionary<string, XDocument> Read(byte[] workbook)
    {
        using var archive = new ZipArchive(new MemoryStream(workbook));
        return archive.Entries.ToDictionary(entry => entry.FullName, entry =>
        {
            using var part = entry.Open();
            return XDocument.Load(part, LoadOptions.PreserveWhitespace);
        });
    }

    private static string Name(Dictionary<string, XDocument> workbook, string name) =>
        workbook["xl/workbook.xml"].Descendants(Main + "definedName").Single(defined => (string)defined.Attribute("name")! == name).Value;

    private static int Row(string place, int end) =>
        int.Parse(place[(place.LastIndexOf('!') + 1)..].Split(':')[end].Split('$')[2], System.Globalization.CultureInfo.InvariantCulture);

    // The cells of the table, each with its place as seen from the first, and what is in it.
    private static List<(string Cell, string? Formula, string Value)> Table(Dictionary<string, XDocument> workbook)
    {
        var place = Name(workbook, "report");
        var (first, last, column) = (Row(place, 0), Row(place, 1), place.Split('$')[^2]);
        return [.. workbook["xl/worksheets/sheet1.xml"].Descendants(Main + "row")
            .Where(row => (int)row.Attribute("r")! >= first && (int)row.Attribute("r")! <= last)
            .SelectMany(row => row.Elements(Main + "c")).Select(
                cell =>
                    ((string)cell.Attribute("r")!, (string?)cell.Element(Main + "f"),
                        string.Concat(cell.Elements().Where(element => element.Name != Main + "f").Select(element => element.Value))))
            .Where(cell => cell.Item3.Length > 0).Append(("last", null, $"{column}{last - first}"))];
    }
}
