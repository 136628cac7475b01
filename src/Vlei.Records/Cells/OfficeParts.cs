using System.IO.Compression;
using System.Xml;

namespace Vlei.Records.Cells;

/// <summary>
/// What the library that reads the rows of an Office Open XML workbook (ECMA-376, part 1) does not give: the names of the sheets without
/// a pass through all of them, and the cells whose formulas gave an error, which it takes for empty.
/// </summary>
internal static class OfficeParts
{
    private const string Main = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";
    private const string Relations = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";

    /// <summary>The names of the sheets, in their order.</summary>
    public static IReadOnlyList<string> Sheets(byte[] file)
    {
        using var archive = Open(file);
        return [.. References(archive).Select(sheet => sheet.Name)];
    }

    /// <summary>
    /// The cells of a sheet whose formulas gave an error, by their names, as <c>C17</c>, each with what it shows, as <c>#REF!</c>
    /// (18.18.11). A figure that is lost without a word is worse than one that is refused.
    /// </summary>
    public static Dictionary<string, string> Errors(byte[] file, string sheet)
    {
        using var archive = Open(file);
        var errors = new Dictionary<string, string>(StringComparer.Ordinal);
        if (PartOf(archive, sheet) is not { } part || !HasErrors(part))
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

    // Most sheets have none, and a look at the bytes is quicker than one at the elements.
    private static bool HasErrors(ZipArchiveEntry part)
    {
        const int Block = 1 << 16;
        const int Carried = 5;
        using var stream = part.Open();
        var bytes = new byte[Block];
        for (int read, kept = 0; (read = stream.Read(bytes, kept, Block - kept)) > 0;)
        {
            var seen = bytes.AsSpan(0, kept + read);
            if (seen.IndexOf("t=\"e\""u8) >= 0 || seen.IndexOf("t='e'"u8) >= 0)
            {
                return true;
            }

            kept = Math.Min(Carried, seen.Length);
            seen[^kept..].CopyTo(bytes);
        }

        return false;
    }

    private static List<(string Name, string Id)> References(ZipArchive archive)
    {
        var sheets = new List<(string, string)>();
        using var xml = Open(archive.GetEntry("xl/workbook.xml") ?? throw new InvalidDataException("it has no xl/workbook.xml."));
        while (xml.ReadToFollowing("sheet", Main))
        {
            sheets.Add((xml.GetAttribute("name") ?? "", xml.GetAttribute("id", Relations) ?? ""));
        }

        return sheets;
    }

    private static ZipArchiveEntry? PartOf(ZipArchive archive, string sheet)
    {
        var id = References(archive).FirstOrDefault(known => known.Name == sheet).Id;
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

    private static ZipArchive Open(byte[] file) => new(new MemoryStream(file, writable: false), ZipArchiveMode.Read);

    private static XmlReader Open(ZipArchiveEntry entry) => XmlReader.Create(
        entry.Open(), new XmlReaderSettings { DtdProcessing = DtdProcessing.Prohibit, CheckCharacters = false });
}
