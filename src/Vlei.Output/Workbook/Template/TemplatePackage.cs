using System.IO.Compression;
using System.Text;
using System.Xml;
using System.Xml.Linq;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Output.Workbook.Template;

/// <summary>
/// The parts of a workbook that a person has made, by their paths: read as XML where they are looked into, written back as they
/// were where they are not.
/// </summary>
internal sealed class TemplatePackage
{
    private const string ContentTypes = "[Content_Types].xml";
    private const string WorkbookPart = "xl/workbook.xml";
    private const long MostBytes = 512L << 20;
    private const int MostLevels = 256;

    private readonly string _path;
    private readonly List<string> _names = [];
    private readonly Dictionary<string, byte[]> _bytes = [];
    private readonly Dictionary<string, XDocument> _read = [];
    private readonly Dictionary<string, TakenRows> _taken = [];

    private TemplatePackage(string path) => _path = path;

    /// <summary>The part that says what is in the workbook.</summary>
    public XDocument Workbook => Part(WorkbookPart);

    /// <summary>The paths of all parts.</summary>
    public IReadOnlyList<string> Names => _names;

    /// <summary>Opens a workbook. Throws a <see cref="ProblemException"/> where it is none.</summary>
    public static TemplatePackage Open(ReportTemplate file)
    {
        var package = new TemplatePackage(file.Path);
        try
        {
            using var archive = new ZipArchive(new MemoryStream(file.Bytes.ToArray()), ZipArchiveMode.Read);
            var left = MostBytes;
            foreach (var entry in archive.Entries.Where(entry => !entry.FullName.EndsWith('/')))
            {
                left -= entry.Length;
                if (left < 0)
                {
                    throw new InvalidDataException("it is larger than 512 MiB");
                }

                package.Add(entry);
            }
        }
        catch (Exception unreadable) when (unreadable is InvalidDataException or IOException)
        {
            throw package.Wrong($"is no workbook that can be read: {unreadable.Message}", unreadable);
        }

        return package.NeedsNoMore();
    }

    // The bytes that it says it has, and no more: a small file can unfold to any length.
    private void Add(ZipArchiveEntry entry)
    {
        var (name, bytes) = (entry.FullName, new byte[entry.Length]);
        if (name.StartsWith('/') || name.Contains('\\', StringComparison.Ordinal) || name.Split('/').Any(part => part is "" or "." or ".."))
        {
            throw new InvalidDataException($"its part {name} has no path of a part");
        }

        using var stream = entry.Open();
        stream.ReadExactly(bytes);
        if (stream.ReadByte() >= 0 || !_bytes.TryAdd(name, bytes))
        {
            throw new InvalidDataException($"its part {name} is longer than it says, or there twice");
        }

        _names.Add(name);
    }

    private TemplatePackage NeedsNoMore() =>
        new[] { ContentTypes, WorkbookPart }.FirstOrDefault(part => !_bytes.ContainsKey(part)) is { } missing
        ? throw Wrong($"is no workbook: it has no {missing}") : this;

    /// <summary>A part. Throws a <see cref="ProblemException"/> where it is not there, or is no XML.</summary>
    public XDocument Part(string name)
    {
        if (_read.TryGetValue(name, out var known))
        {
            return known;
        }

        if (!_bytes.TryGetValue(name, out var bytes))
        {
            throw Wrong($"has no part {name}");
        }

        try
        {
            RefuseTooDeep(name, bytes);
            using var reader = ReaderOf(bytes);
            return _read[name] = _taken.TryGetValue(name, out var taken) ? SheetReader.Read(reader, taken)
                : XDocument.Load(reader, LoadOptions.PreserveWhitespace);
        }
        catch (XmlException unreadable)
        {
            throw Wrong($"has a damaged part {name}: {unreadable.Message}", unreadable);
        }
    }

    /// <summary>Has the rows of a table taken out of a sheet when it is read; of several tables of a sheet, those of the first.</summary>
    public void Take(string name, TakenRows rows) => _taken.TryAdd(name, rows);

    /// <summary>What the elements of a name hold, one after the other; none where there is no such part.</summary>
    public IEnumerable<XElement> Elements(string name, XName element)
    {
        if (!_bytes.TryGetValue(name, out var bytes))
        {
            yield break;
        }

        RefuseTooDeep(name, bytes);
        using var reader = ReaderOf(bytes);
        reader.MoveToContent();
        reader.Read();
        while (!reader.EOF)
        {
            if (reader.NodeType == XmlNodeType.Element && reader.LocalName == element.LocalName
                && reader.NamespaceURI == element.NamespaceName)
            {
                yield return (XElement)XNode.ReadFrom(reader);
            }
            else
            {
                reader.Read();
            }
        }
    }

    /// <summary>What a part begins with; nothing where it is not there, or is no XML.</summary>
    public string? RootOf(string name)
    {
        if (!name.EndsWith(".xml", StringComparison.Ordinal) || !_bytes.TryGetValue(name, out var bytes))
        {
            return null;
        }

        try
        {
            using var reader = ReaderOf(bytes);
            return reader.MoveToContent() == XmlNodeType.Element ? reader.LocalName : null;
        }
        catch (XmlException)
        {
            return null;
        }
    }

    /// <summary>The parts that a part refers to, by the numbers that it refers to them by.</summary>
    public Dictionary<string, string> Relations(string part)
    {
        var at = part.LastIndexOf('/') + 1;
        var name = $"{part[..at]}_rels/{part[at..]}.rels";
        return !_bytes.ContainsKey(name) ? [] : Part(name).Root!.Elements()
            .Where(relation => (string?)relation.Attribute("TargetMode") != "External")
            .DistinctBy(relation => TemplateXml.Text(relation, "Id"))
            .ToDictionary(
                relation => TemplateXml.Text(relation, "Id"), relation => Resolved(part[..at], TemplateXml.Text(relation, "Target")));
    }

    /// <summary>Takes a part out, with all that says it is there.</summary>
    public void Remove(string name)
    {
        if (!_names.Remove(name))
        {
            return;
        }

        _bytes.Remove(name);
        Part(ContentTypes).Root!.Elements().Where(type => (string?)type.Attribute("PartName") == $"/{name}").Remove();
        foreach (var relations in _names.Where(other => other.EndsWith(".rels", StringComparison.Ordinal)).ToList())
        {
            var folder = relations[..relations.IndexOf("_rels/", StringComparison.Ordinal)];
            Part(relations).Root!.Elements().Where(relation => Resolved(folder, (string?)relation.Attribute("Target") ?? "") == name)
                .Remove();
        }
    }

    /// <summary>Writes the workbook.</summary>
    public void Write(Stream stream)
    {
        using var archive = new ZipArchive(stream, ZipArchiveMode.Create, leaveOpen: true);
        foreach (var name in _names)
        {
            var entry = archive.CreateEntry(name, CompressionLevel.Fastest);
            entry.LastWriteTime = WorkbookPackage.Day;
            using var part = entry.Open();
            if (_read.TryGetValue(name, out var document))
            {
                using var xml = XmlWriter.Create(
                    part, new XmlWriterSettings { Encoding = new UTF8Encoding(false), CheckCharacters = false });
                MadeRows.Write(document, xml);
            }
            else
            {
                part.Write(_bytes[name]);
            }
        }
    }

    /// <summary>What is wrong with the workbook.</summary>
    public ProblemException Wrong(string what, Exception? cause = null, string? advice = null) => new(
        ProblemKind.BadData, $"{_path} {what.TrimEnd('.')}.", advice
            ?? "Take a workbook that was written with --to FILE.xlsx and given other looks, saved as .xlsx.", cause);

    // What looks into a part goes down into all that it holds, and no program saves so much within each other.
    private void RefuseTooDeep(string name, byte[] bytes)
    {
        using var reader = ReaderOf(bytes);
        while (reader.Read())
        {
            if (reader.Depth > MostLevels)
            {
                throw Wrong($"has a damaged part {name}: more than {MostLevels} elements are within each other");
            }
        }
    }

    private static XmlReader ReaderOf(byte[] bytes) => XmlReader.Create(
        new MemoryStream(bytes), new XmlReaderSettings { DtdProcessing = DtdProcessing.Prohibit, CheckCharacters = false });

    private static string Resolved(string folder, string target)
    {
        var parts = new List<string>();
        foreach (var part in (target.StartsWith('/') ? target : folder + target).Split('/', StringSplitOptions.RemoveEmptyEntries))
        {
            if (part == ".." && parts.Count > 0)
            {
                parts.RemoveAt(parts.Count - 1);
            }
            else if (part != ".")
            {
                parts.Add(part);
            }
        }

        return string.Join('/', parts);
    }
}
