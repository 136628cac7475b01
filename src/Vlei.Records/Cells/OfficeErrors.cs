using System.IO.Compression;
using System.Xml;

namespace Vlei.Records.Cells;

/// <summary>
/// The cells of a sheet of an Office Open XML workbook whose formulas gave an error, as <c>#REF!</c> (ECMA-376, part 1, 18.18.11). The
/// library that reads the others takes them for empty, and a figure that is lost without a word is worse than one that is refused.
/// </summary>
internal static class OfficeErrors
{
    private const string Main = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";
    private const string Relations = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";

    /// <summary>What stands in them, by their names, as <c>C17</c>.</summary>
    public static Dictionary<string, string> In(byte[] file, string sheet)
    {
        using var archive = new ZipArchive(new MemoryStream(file, writable: false), ZipArchiveMode.Read);
        var errors = new Dictionary<string, string>(StringComparer.Ordinal);
        if (PartOf(archive, sheet) is not { } part)
        {
            return errors;
        }

        using var xml = Open(part);
        while (xml.ReadToFollowing("c", Main))
        {
            if (xml.GetAttribute("t") == "e" && xml.GetAttribute("r") is { } place && xml.ReadToDescendant("v", Main))
            {
                errors[place] = xml.ReadElementContentAsString();
            }
        }

        return errors;
    }

    private static ZipArchiveEntry? PartOf(ZipArchive archive, string sheet)
    {
        string? id = null;
        if (archive.GetEntry("xl/workbook.xml") is { } workbook)
        {
            using var xml = Open(workbook);
            while (id is null && xml.ReadToFollowing("sheet", Main))
            {
                id = xml.GetAttribute("name") == sheet ? xml.GetAttribute("id", Relations) : null;
            }
        }

        if (id is null || archive.GetEntry("xl/_rels/workbook.xml.rels") is not { } relations)
        {
            return null;
        }

        using var known = Open(relations);
        while (known.Read())
        {
            if (known.NodeType == XmlNodeType.Element && known.GetAttribute("Id") == id && known.GetAttribute("Target") is { } target)
            {
                return archive.GetEntry(target.StartsWith('/') ? target[1..] : $"xl/{target}");
            }
        }

        return null;
    }

    private static XmlReader Open(ZipArchiveEntry entry) => XmlReader.Create(
        entry.Open(), new XmlReaderSettings { DtdProcessing = DtdProcessing.Prohibit, CheckCharacters = false });
}
