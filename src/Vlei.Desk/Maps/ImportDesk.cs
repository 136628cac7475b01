using Vlei.Books.Kept;
using Vlei.Core.Ledger;
using Vlei.Core.Problems;
using Vlei.Records;
using Vlei.Records.Audit;
using Vlei.Records.Maps;
using Vlei.Records.Maps.Finding;
using Vlei.Records.Maps.Reading;

namespace Vlei.Desk.Maps;

/// <summary>Where it is worked out how files are read: which are record sets, and which maps the others are read with.</summary>
public sealed class ImportDesk
{
    private readonly ReportDesk _desk;
    private readonly Lazy<MapWords> _words;
    private readonly Lazy<IReadOnlyList<SourceMap>> _maps;
    private readonly Dictionary<string, IReadOnlyList<SourceFile>> _opened = [];

    /// <summary>Sits down with a book.</summary>
    public ImportDesk(ReportDesk desk)
    {
        _desk = desk;
        _words = new Lazy<MapWords>(() => WordLists.Of(desk.Library));
        _maps = new Lazy<IReadOnlyList<SourceMap>>(() => [.. desk.Library.All(KeptKind.Map).Select(MapFile.Read)]);
    }

    /// <summary>
    /// Parts files into those that are record sets by their names, and those that are read with a map: the one that is named, else the one
    /// whose headings fit. Throws a <see cref="ProblemException"/> where there is none for a file.
    /// </summary>
    /// <param name="paths">The files, and folders of record sets.</param>
    /// <param name="map">The map to read with; nothing to find one.</param>
    public (IReadOnlyList<string> RecordSets, IReadOnlyList<(SourceFile File, SourceMap Map)> Mapped) Sort(
        IReadOnlyList<string> paths, string? map)
    {
        var named = map is null ? null : MapFile.Read(_desk.Library.Named(KeptKind.Map, map));
        var (sets, mapped) = (new List<string>(), new List<(SourceFile, SourceMap)>());
        foreach (var path in paths)
        {
            if (named is null && RecordSet.IsNamedAsOne(path) && !IsMapped(path))
            {
                sets.Add(path);
            }
            else if (Directory.Exists(path))
            {
                throw new ProblemException(ProblemKind.Usage, $"{path} is a folder; a map is for files.", "Name the files in it.");
            }
            else
            {
                mapped.AddRange(Mapped(path, named));
            }
        }

        return (sets, mapped);
    }

    /// <summary>Reads files with their maps. Row by row what is wrong goes to the errors.</summary>
    public MappedImport Read(
        IReadOnlyList<(SourceFile File, SourceMap Map)> mapped, RecordErrors errors, Action<string, long> progress)
    {
        using var known = new RecordsOfBook(_desk.Book);
        return MappedImport.Read(mapped, known, _words.Value, errors, progress);
    }

    /// <summary>
    /// Finds the maps of a file, one for each sheet that is understood. Throws a <see cref="ProblemException"/> where none is.
    /// </summary>
    /// <param name="path">The file.</param>
    /// <param name="name">The name of the map; nothing to take the file's.</param>
    /// <param name="shape">What the rows are; nothing to find out.</param>
    /// <param name="before">What was found for other files just before.</param>
    public IReadOnlyList<MapProposal> Propose(string path, string? name, Shape? shape, params IReadOnlyList<MapProposal> before)
    {
        using var known = new RecordsOfBook(_desk.Book);
        var (sheets, proposals, problems) = (Open(path), new List<MapProposal>(), new List<ProblemException>());
        foreach (var sheet in sheets)
        {
            var own = name ?? NameOf(path);
            own = sheets.Count > 1 ? $"{own}-{NameOf(sheet.Sheet!)}" : own;
            try
            {
                var proposal = MapFinder.Find(
                    sheet, own, _desk.Library.ShelfOf("book").Place(KeptKind.Map, own).Path, shape, known, _words.Value);
                proposal = WithOwnPrefix(
                    proposal, [.. _maps.Value, .. before.Select(other => other.Map), .. proposals.Select(other => other.Map)]);
                proposals.Add(sheets.Count > 1 ? proposal with { Map = proposal.Map with { Sheet = sheet.Sheet } } : proposal);
            }
            catch (ProblemException unknown) when (unknown.Kind == ProblemKind.BadData)
            {
                problems.Add(unknown);
            }
        }

        return proposals.Count > 0 ? proposals : throw (problems.Count > 0 ? problems[0] : Empty(path));
    }

    /// <summary>What a map that was found comes to when the file is read with it.</summary>
    /// <param name="proposal">The map.</param>
    /// <param name="others">What was found for other files, which the file may speak of.</param>
    /// <param name="errors">Where errors go.</param>
    public MappedImport Try(MapProposal proposal, IEnumerable<MapProposal> others, RecordErrors errors)
    {
        using var known = new RecordsOfBook(_desk.Book);
        var context = others.Where(other => other != proposal && other.Questions.Count == 0 && other.Map.Shape != Shape.Payments)
            .Select(other => (other.File, other.Map)).ToList();
        return MappedImport.Read(
            [(proposal.File, proposal.Map)], proposal.Map.Shape != Shape.Payments ? known
                : new RecordsOfFiles(known, MappedImport.Read(context, known, _words.Value, new RecordErrors(), (_, _) => { })),
            _words.Value, errors, (_, _) => { });
    }

    // A workbook is unpacked once, however often it is looked at.
    private IReadOnlyList<SourceFile> Open(string path) =>
        _opened.TryGetValue(path, out var files) ? files : _opened[path] = SourceFile.Open(path);

    // A file of another program may well be called accounts.csv.
    private bool IsMapped(string path) => File.Exists(path) && _maps.Value.Count > 0 && !AuditFileReader.IsOne(path)
        && Open(path).Any(sheet => BestFor(sheet) is not null);

    // Two programs may number alike; what has the numbers of another map's files would take the place of what came of these.
    private static MapProposal WithOwnPrefix(MapProposal proposal, IEnumerable<SourceMap> others)
    {
        var (map, prefix) = (proposal.Map, $"{proposal.Map.Name}-");
        return !map.Shape.HasDocuments
            || others.FirstOrDefault(other => other.Name != map.Name && other.Prefix == map.Prefix && other.Shape.HasDocuments)
                is not { } other ? proposal
            : proposal with
            {
                Map = map with { Prefix = prefix },
                Findings =
                [
                    .. proposal.Findings,
                    new MapFinding(
                        "prefix", prefix, $"{other.Prefix} is that of {other.Name}; where both have the same numbers, take the same"),
                ],
            };
    }

    private List<(SourceFile, SourceMap)> Mapped(string path, SourceMap? named)
    {
        var sheets = Open(path);
        if (named is not null)
        {
            return sheets.Count == 0 ? throw Empty(path) : [(sheets.FirstOrDefault(sheet => sheet.Fits(named)) ?? sheets[0], named)];
        }

        var mapped = sheets.Select(sheet => (sheet, Map: BestFor(sheet))).Where(sheet => sheet.Map is not null)
            .Select(sheet => (sheet.sheet, sheet.Map!)).ToList();
        return mapped.Count > 0 ? mapped : throw new ProblemException(
            ProblemKind.BadData,
            _maps.Value.Count == 0 ? $"{path} is no record set, and there are no maps of other files yet."
                : $"{path} is no record set, and has the headings of no "
                    + $"map: {Suggestion.Listed([.. _maps.Value.Select(map => map.Name)], "or")}.",
            (Suggestion.DidYouMean(Path.GetFileName(path), RecordTables.All.Select(table => table.FileName)) is { } nearest
                ? $"{nearest} Or make" : "Make") + $" a map of it: vlei map {path}");
    }

    private static ProblemException Empty(string path) => new(ProblemKind.BadData, $"{path} has no rows.", "Is it another file?");

    // That with the most headings, as it has all of them; of several, that which is called as the file is.
    private SourceMap? BestFor(SourceFile sheet)
    {
        var fitting = _maps.Value.Where(sheet.Fits).ToList();
        var best = fitting.Where(map => HeadingsOf(map) == fitting.Max(HeadingsOf)).ToList();
        return best.Count < 2 ? best.FirstOrDefault()
            : best.Find(map => map.Name == NameOf(sheet.Path)) ?? throw new ProblemException(
                ProblemKind.Usage,
                $"{sheet.Name} has the headings of {Suggestion.Listed([.. best.Select(map => map.Name)], "and")}.",
                $"Name one of them: --map {best[0].Name}");
    }

    private static int HeadingsOf(SourceMap map) => map.Columns.Count + map.Tags.Count;

    // Of "Journal March 2026.csv" what stays when it is April.
    private string NameOf(string path)
    {
        var words = MapWords.Plain(Path.GetFileNameWithoutExtension(path)).Split(' ', StringSplitOptions.RemoveEmptyEntries)
            .Where(word => !word.Any(char.IsDigit) && _words.Value.MonthOf(word) == 0).ToList();
        return words.Count == 0 ? "file" : string.Join('-', words);
    }
}
