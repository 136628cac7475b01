using System.Collections.Concurrent;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Problems;
using Vlei.Records.Audit;
using Vlei.Records.Cells;
using Vlei.Records.Maps.Reading;

namespace Vlei.Records;

/// <summary>
/// A record set on disk: folders of CSV files, or single ones, each named after its kind of record, or workbooks with a sheet for each
/// kind. CSV files are read as a stream, each once; only their hashes and places are kept.
/// </summary>
public sealed class RecordSet : IRecordSet
{
    /// <summary>What people noted beside the records, which goes along with a record set and is no record: promises.</summary>
    public const string PromisesName = "promises.csv";

    /// <summary>The same: what was said about findings of the review.</summary>
    public const string MarksName = "review.csv";

    private const string PackageName = "datapackage.json";

    private static readonly string[] NotesNames = [PromisesName, MarksName];

    private static readonly Dictionary<string, RecordKeys> NoKeys = [];

    private readonly Currency _currency;
    // A file that is looked at as it stands has its path; what is unpacked or mapped first has none.
    private readonly List<(RecordTable Table, Func<RecordErrors, ICellSource> SourceOf, string? Path)> _tables = [];
    private readonly List<RecordFile> _files = [];

    private RecordSet(Currency currency) => _currency = currency;

    /// <inheritdoc/>
    public IReadOnlyList<RecordFile> Files => _files;

    /// <inheritdoc/>
    public IReadOnlyList<BalanceProof> Balances { get; private init; } = [];

    /// <summary>
    /// Finds the files behind the paths. Throws a <see cref="ProblemException"/>
    /// where there is no such file, or one whose name says no kind of record.
    /// </summary>
    /// <param name="paths">Folders, or single files.</param>
    /// <param name="currency">The currency that amounts are in.</param>
    /// <param name="errors">Where errors go of files that are read at once.</param>
    /// <param name="mapped">What other files come to, which were read with maps; nothing for none.</param>
    public static RecordSet Open(IEnumerable<string> paths, Currency currency, RecordErrors errors, MappedImport? mapped = null)
    {
        var set = new RecordSet(currency) { Balances = mapped?.Balances ?? [] };
        foreach (var path in paths)
        {
            if (Directory.Exists(path))
            {
                set.AddFolder(path);
            }
            else if (!File.Exists(path))
            {
                throw new ProblemException(
                    ProblemKind.NotFound, $"{path} is not there.", "Name a folder of CSV files, single CSV files, or a workbook.");
            }
            else if (AuditFileReader.IsOne(path))
            {
                set._tables.AddRange(AuditFileReader.Read(path, currency.Code, errors)
                    .Select(records => (records.Table, (Func<RecordErrors, ICellSource>)(_ => records.Source), default(string?))));
            }
            else if (Spreadsheet.IsOne(path))
            {
                set.AddSpreadsheet(path);
            }
            else
            {
                set.AddFile(path, Path.GetFileName(path));
            }
        }

        foreach (var (table, source) in mapped?.Tables ?? [])
        {
            set._tables.Add((table, _ => source, null));
        }

        return set._tables.Count > 0 || mapped is not null
            ? set
            : throw new ProblemException(
                ProblemKind.NotFound,
                $"There are no records in {Suggestion.Listed([.. paths], "or")}.",
                $"Expected {Suggestion.Listed([.. RecordTables.All.Select(table => table.FileName)], "or")}.");
    }

    /// <summary>
    /// Whether a file is part of a record set by its name: that of a kind of record, or a workbook with sheets of such names.
    /// </summary>
    public static bool IsNamedAsOne(string path) => Directory.Exists(path) || AuditFileReader.IsOne(path) || (Spreadsheet.IsOne(path)
        ? Named(Path.GetFileNameWithoutExtension(path)) is not null
            || (File.Exists(path) && Spreadsheet.Open(path).Sheets.Any(sheet => Named(sheet) is not null))
        : RecordTables.All.Any(table => table.FileName == Path.GetFileName(path)));

    /// <inheritdoc/>
    public bool Has(RecordTable table) => _tables.Any(file => file.Table == table);

    /// <inheritdoc/>
    public bool IsMadeOf(IReadOnlyList<RecordFile> files)
    {
        var paths = _tables.Select(file => file.Path).OfType<string>().OrderBy(NameOf, StringComparer.Ordinal).ToList();
        if (paths.Count != _tables.Count || paths.Count != files.Count)
        {
            return false;
        }

        // How long files are is looked at before what is in them.
        var pairs = files.OrderBy(file => NameOf(file.Path), StringComparer.Ordinal).Zip(paths).ToList();
        return pairs.TrueForAll(pair => NameOf(pair.First.Path) == NameOf(pair.Second)
                && new FileInfo(pair.Second).Length == pair.First.Bytes)
            && pairs.TrueForAll(pair => CsvCells.Fingerprint(pair.Second).Sha256 == pair.First.Sha256);

        static string NameOf(string path) => Path.GetFileName(path);
    }

    /// <inheritdoc/>
    public IEnumerable<RecordRow> Read(
        RecordTable table, IReadOnlyDictionary<string, RecordKeys> keys, RecordErrors errors)
    {
        // A record of a list may refer to another of it, which whoever looks at them gives its key; of other kinds more is read meanwhile.
        var free = new ConcurrentBag<ReadRows>();
        var read = ReadAll(table, keys, free);
        foreach (var rows in RecordTables.Lists.Contains(table) ? read : Ahead.Of(read))
        {
            foreach (var row in rows.TakeOut(errors))
            {
                yield return row;
            }

            free.Add(rows);
        }
    }

    private IEnumerable<ReadRows> ReadAll(
        RecordTable table, IReadOnlyDictionary<string, RecordKeys> keys, ConcurrentBag<ReadRows> free)
    {
        var rows = new ReadRows(table);
        foreach (var (_, sourceOf, _) in _tables.Where(known => known.Table == table))
        {
            var errors = new RecordErrors(told: error => rows.Note(error));
            var source = sourceOf(errors);
            if (RecordTables.Lists.Contains(table))
            {
                FindIds(table, source, keys[table.Name]);
            }

            using var reader = new RecordReader(table, source, _currency, keys, errors);
            while (reader.Read(rows.Next))
            {
                rows.Take();
                if (rows.IsFull)
                {
                    yield return rows;
                    rows = free.TryTake(out var again) ? again : new ReadRows(table);
                }
            }

            if (!_files.Contains(source.File))
            {
                _files.Add(source.File);
            }
        }

        yield return rows;
    }

    // Lists are short enough to be looked through twice.
    private void FindIds(RecordTable table, ICellSource source, RecordKeys keys)
    {
        using var reader = new RecordReader(table, source, _currency, NoKeys, new RecordErrors());
        while (reader.Next())
        {
            keys.FindOrAdd(reader.Value(table.IndexOf(table.Id!)));
        }
    }

    private void AddFolder(string folder)
    {
        var package = Path.Combine(folder, PackageName);
        if (File.Exists(package))
        {
            DataPackage.Check(package, _currency);
        }

        foreach (var path in Directory.EnumerateFiles(folder, "*.csv").Order(StringComparer.Ordinal)
            .Where(path => !NotesNames.Contains(Path.GetFileName(path))))
        {
            AddFile(path, Path.GetFileName(path));
        }
    }

    // A sheet per kind of record, named after it; or the one sheet of a file that is.
    private void AddSpreadsheet(string path)
    {
        var file = Spreadsheet.Open(path);
        var known = file.Sheets.Select(sheet => (Sheet: sheet, Table: Named(sheet))).ToList();
        if (known.All(sheet => sheet.Table is null) && Named(Path.GetFileNameWithoutExtension(path)) is { } own)
        {
            known = [(file.Sheets[0], own)];
        }

        foreach (var (sheet, table) in known)
        {
            var cells = file.Sheet(sheet);
            if (table is not null)
            {
                _tables.Add((table, _ => cells, null));
            }
            else if (!IsEmpty(cells))
            {
                throw new ProblemException(
                    ProblemKind.BadData, $"{cells.Name} is not named after a kind of record.",
                    Suggestion.DidYouMean(sheet, RecordTables.All.Select(kind => kind.Name))
                    ?? $"Expected sheets {Suggestion.Listed([.. RecordTables.All.Select(kind => kind.Name)], "or")}.");
            }
        }
    }

    private static RecordTable? Named(string sheet) => RecordTables.All.FirstOrDefault(table => table.Name.Equals(
        sheet.Trim().Replace(' ', '_').Replace('-', '_'), StringComparison.OrdinalIgnoreCase));

    private static bool IsEmpty(ICellSource cells)
    {
        using var reader = cells.Open();
        return reader.Headings.Count == 0;
    }

    private void AddFile(string path, string name)
    {
        var table = RecordTables.All.FirstOrDefault(table => table.FileName == name)
            ?? throw new ProblemException(
                ProblemKind.BadData,
                $"{path} is not named after a kind of record.",
                Suggestion.DidYouMean(name, RecordTables.All.Select(known => known.FileName))
                ?? $"Expected {Suggestion.Listed([.. RecordTables.All.Select(known => known.FileName)], "or")}.");
        _tables.Add((table, errors => new CsvCells(path, name, errors, isKept: RecordTables.Lists.Contains(table)), path));
    }
}
