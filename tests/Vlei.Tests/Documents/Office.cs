using System.IO.Compression;
using System.Xml.Linq;

namespace Vlei.Tests.Documents;

/// <summary>LibreOffice, which opens what Vlei wrote as a person's program does.</summary>
internal static class Office
{
    private static readonly XNamespace Main = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";

    /// <summary>The workbook as LibreOffice saves it, in a folder of its own; every formula is worked out there, since none has a value.</summary>
    public static string Reckoned(string folder, string workbook)
    {
        var bare = Path.Combine(folder, $"bare-{workbook}");
        File.Copy(Path.Combine(folder, workbook), bare, overwrite: true);
        using (var archive = ZipFile.Open(bare, ZipArchiveMode.Update))
        {
            foreach (var name in archive.Entries.Select(entry => entry.FullName).Where(name => name.StartsWith("xl/worksheets/sheet", StringComparison.Ordinal)).ToList())
            {
                XDocument sheet;
                using (var stream = archive.GetEntry(name)!.Open())
                {
                    sheet = XDocument.Load(stream);
                }

                sheet.Descendants(Main + "c").Where(cell => cell.Element(Main + "f") is not null).Elements(Main + "v").Remove();
                archive.GetEntry(name)!.Delete();
                using var written = archive.CreateEntry(name).Open();
                sheet.Save(written);
            }
        }

        return Saved(folder, $"bare-{workbook}");
    }

    /// <summary>The workbook as LibreOffice saves it.</summary>
    public static string Saved(string folder, string workbook)
    {
        Shell.Run(folder, "soffice", "--headless", "--convert-to", "xlsx:Calc MS Excel 2007 XML", "--outdir", "saved", workbook);
        return Path.Combine(folder, "saved", workbook);
    }
}
