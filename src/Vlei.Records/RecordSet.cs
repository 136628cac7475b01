using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Problems;

namespace Vlei.Records;

/// <summary>
/// A record set on disk: folders of CSV files, or single ones, each named after its kind of record. Files are read as
/// a stream, each once; only their hashes and places are kept.
/// </summary>
public sealed class RecordSet : IRecordSet
{
    private const string PackageName = "datapackage.json";

    private static readonly Dictionary<string, RecordKeys> NoKeys = [];

    private readonly Currency _currency;
    private readonly List<(RecordTable Table, string Path, string Name)> _tables = [];
    private readonly List<RecordFile> _files = [];

    private RecordSet(Currency currency) => _currency = currency;

    /// <inheritdoc/>
    public IReadOnlyList<RecordFile> Files => _files;

    /// <summary>
    /// Finds the files behind the paths. Throws a <see cref="ProblemException"/>
    /// where there is no such file, or one whose name says no kind of record.
    /// </summary>
    /// <param name="paths">Folders, or single files.</param>
    /// <param name="currency">The currency that amounts are in.</param>
    public static RecordSet Open(IEnumerable<string> paths, Currency currency)
    {
        var set = new RecordSet(currency);
        foreach (var path in paths)
        {
            if (Directory.Exists(path))
            {
                set.AddFolder(path);
            }
            else if (File.Exists(path))
            {
                set.AddFile(path, Path.GetFileName(path));
            }
            else
            {
                throw new ProblemException(
                    ProblemKind.NotFound, $"{path} is not there.", "Name a folder of CSV files, or single CSV files.");
            }
        }

        return set._tables.Count > 0
            ? set
            : throw new ProblemException(
                ProblemKind.NotFound,
                $"There are no records in {Suggestion.Listed([.. paths], "or")}.",
                $"Expected {Suggestion.Listed([.. RecordTables.All.Select(table => table.FileName)], "or")}.");
    }

    /// <inheritdoc/>
    public bool Has(RecordTable table) => _tables.Any(file => file.Table == table);

    /// <inheritdoc/>
    public IEnumerable<RecordRow> Read(
        RecordTable table, IReadOnlyDictionary<string, RecordKeys> keys, RecordErrors errors)
    {
        foreach (var (_, path, name) in _tables.Where(file => file.Table == table))
        {
            using var file = new FingerprintStream(path, name, errors);
            using Stream read = RecordTables.Lists.Contains(table) ? WithIdsKnown(table, file, name, keys[table.Name]) : file;
            using var reader = new RecordFileReader(table, read, name, _currency, keys, errors);
            while (reader.Read())
            {
                yield return reader.Row;
            }

            _files.Add(file.Finish());
        }
    }

    // Lists are short enough to be looked through twice in memory.
    private MemoryStream WithIdsKnown(RecordTable table, FingerprintStream file, string name, RecordKeys keys)
    {
        var bytes = new MemoryStream();
        file.CopyTo(bytes);
        bytes.Position = 0;
        using (var reader = new RecordFileReader(table, bytes, name, _currency, NoKeys, new RecordErrors()))
        {
            while (reader.Next())
            {
                keys.FindOrAdd(reader.Value(table.IndexOf(table.Id!)));
            }
        }

        bytes.Position = 0;
        return bytes;
    }

    private void AddFolder(string folder)
    {
        var package = Path.Combine(folder, PackageName);
        if (File.Exists(package))
        {
            DataPackage.Check(package, _currency);
        }

        foreach (var path in Directory.EnumerateFiles(folder, "*.csv").Order(StringComparer.Ordinal))
        {
            AddFile(path, Path.GetFileName(path));
        }
    }

    private void AddFile(string path, string name)
    {
        var table = RecordTables.All.FirstOrDefault(table => table.FileName == name)
            ?? throw new ProblemException(
                ProblemKind.BadData,
                $"{path} is not named after a kind of record.",
                Suggestion.DidYouMean(name, RecordTables.All.Select(known => known.FileName))
                ?? $"Expected {Suggestion.Listed([.. RecordTables.All.Select(known => known.FileName)], "or")}.");
        _tables.Add((table, path, name));
    }
}
