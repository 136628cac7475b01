using System.IO.Compression;
using System.Xml.Linq;

namespace Vlei.Tests.Documents;

/// <summary>LibreOffice, which opens what Vlei wrote as a person's program does.</summary>
internal static class Office
{
    private static readonly XNamespace Main = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";
    private static readonly XNamespace Table = "urn:oasis:names:tc:opendocument:xmlns:table:1.0";
    private static readonly XNamespace Values = "urn:oasis:names:tc:opendocument:xmlns:office:1.0";

    /// <summary>
    /// The spreadsheets as LibreOffice saves them, as workbooks in a folder of its own; every formula is worked out there, since
    /// none has a value.
    /// </summary>
    public static IReadOnlyList<string> Reckoned(string folder, params string[] spreadsheets)
    {
        foreach (var spreadsheet in spreadsheets)
        {
            File.Copy(Path.Combine(folder, spreadsheet), Path.Combine(folder, $"bare-{spreadsheet}"), overwrite: true);
            using var archive = ZipFile.Open(Path.Combine(folder, $"bare-{spreadsheet}"), ZipArchiveMode.Update);
            foreach (var name in archive.Entries.Select(entry => entry.FullName).Where(IsOfCells).ToList())
            {
                XDocument sheet;
                using (var stream = archive.GetEntry(name)!.Open())
                {
                    sheet = XDocument.Load(stream, LoadOptions.PreserveWhitespace);
                }

                sheet.Descendants(Main + "c").Where(cell => cell.Element(Main + "f") is not null).Elements(Main + "v").Remove();
                sheet.Descendants(Table + "table-cell").Where(cell => cell.Attribute(Table + "formula") is not null)
                    .Attributes(Values + "value").Remove();
                archive.GetEntry(name)!.Delete();
                using var written = archive.CreateEntry(name).Open();
                sheet.Save(written, SaveOptions.DisableFormatting);
            }
        }

        return Saved(folder, [.. spreadsheets.Select(spreadsheet => $"bare-{spreadsheet}")]);
    }

    /// <summary>The spreadsheets as LibreOffice saves them, as workbooks.</summary>
    public static IReadOnlyList<string> Saved(string folder, params string[] spreadsheets)
    {
        Shell.Run(folder, "soffice", ["--headless", "--convert-to", "xlsx:Calc MS Excel 2007 XML", "--outdir", "saved", .. spreadsheets]);
        return [.. spreadsheets.Select(spreadsheet => Path.Combine(folder, "saved", Path.ChangeExtension(spreadsheet, "xlsx")))];
    }

    private static bool IsOfCells(string part) => part == "content.xml" || part.StartsWith("xl/worksheets/sheet", StringComparison.Ordinal);
}
