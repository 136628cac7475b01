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

    private readonly string _path;
    private readonly List<string> _names = [];
    private readonly Dictionary<string, byte[]> _bytes = [];
    private readonly Dictionary<string, XDocument> _read = [];

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

                using var stream = entry.Open();
                using var bytes = new MemoryStream();
                stream.CopyTo(bytes);
                package._names.Add(entry.FullName);
                package._bytes[entry.FullName] = bytes.ToArray();
            }
        }
        catch (Exception unreadable) when (unreadable is InvalidDataException or IOException)
        {
            throw package.Wrong($"is no workbook that can be read: {unreadable.Message}", unreadable);
        }

        return package._bytes.ContainsKey(WorkbookPart) ? package : throw package.Wrong($"is no workbook: it has no {WorkbookPart}");
    }

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
            using var reader = XmlReader.Create(
                new MemoryStream(bytes), new XmlReaderSettings { DtdProcessing = DtdProcessing.Prohibit, CheckCharacters = false });
            return _read[name] = XDocument.Load(reader, LoadOptions.PreserveWhitespace);
        }
        catch (XmlException unreadable)
        {
            throw Wrong($"has a damaged part {name}: {unreadable.Message}", unreadable);
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
            using var reader = XmlReader.Create(
                new MemoryStream(bytes), new XmlReaderSettings { DtdProcessing = DtdProcessing.Prohibit, CheckCharacters = false });
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
                document.Save(xml);
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
