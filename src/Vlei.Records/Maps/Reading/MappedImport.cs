using System.Globalization;
using Vlei.Core.Ledger;
using Vlei.Core.Problems;
using Vlei.Records.Cells;

namespace Vlei.Records.Maps.Reading;

/// <summary>
/// Files of other programs, read with their maps: the records that they come to, what they speak of that the book does not have, and what
/// they prove. Lists are read first, then documents, then what pays them, and balances last, in whatever order the files are named.
/// </summary>
public sealed class MappedImport
{
    private static readonly IReadOnlyList<Shape> Order =
    [
        Shape.Accounts, Shape.Contacts, Shape.Items, Shape.Projects, Shape.TaxCodes, Shape.Invoices, Shape.Bills, Shape.Credits,
        Shape.InvoiceLines, Shape.Journal, Shape.Ledger, Shape.SingleEntry, Shape.OpenItems, Shape.Payments, Shape.Balances, Shape.Budget,
    ];

    private readonly MapReading _reading;
    private readonly Dictionary<string, SourceFile> _files;

    private MappedImport(MapReading reading, IEnumerable<SourceFile> files)
    {
        (_reading, _files) = (reading, files.DistinctBy(file => file.Name).ToDictionary(file => file.Name));
        New = FindNew();
        Tables = [.. reading.Records.Select(records => (records.Table, (ICellSource)records.Records))];
    }

    /// <summary>What the files speak of that the book does not have.</summary>
    public IReadOnlyList<NewRecord> New { get; }

    /// <summary>What the files say of themselves and their rows do not come to.</summary>
    public IReadOnlyList<ProofFault> Faults => _reading.Proof.Faults;

    /// <summary>How many figures of the files were held against their rows and are right.</summary>
    public int Proved => _reading.Proof.Proved;

    /// <summary>What accounts must come to in the book.</summary>
    public IReadOnlyList<BalanceProof> Balances =>
        [.. _reading.Balances.Select(balance => balance with { Account = _reading.Accounts.CodeOf(balance.Account) })];

    /// <summary>What the files cannot say, and what follows from that.</summary>
    public IReadOnlyList<string> Notes => _reading.Notes;

    /// <summary>How many documents there are.</summary>
    public int Documents => _reading.DocumentCount;

    /// <summary>The days of the documents; nothing where there are none.</summary>
    public (DateOnly From, DateOnly To)? Days => _reading.Days;

    /// <summary>The first documents, in words.</summary>
    public IReadOnlyList<string> FirstDocuments => [.. _reading.First.Select(Words)];

    /// <summary>The documents of a number that can be paid.</summary>
    public IReadOnlyList<KnownDocument> Payable(string number) => _reading.Payable(number);

    /// <summary>The records, by their kind.</summary>
    internal IReadOnlyList<(RecordTable Table, ICellSource Source)> Tables { get; }

    /// <summary>
    /// Reads files. What is wrong with a row goes to the errors; throws a <see cref="ProblemException"/> where a file does not have the
    /// headings of its map, or where the map has not decided something.
    /// </summary>
    /// <param name="sources">The files, each with its map.</param>
    /// <param name="known">What the book has.</param>
    /// <param name="words">What files call things.</param>
    /// <param name="errors">Where errors go.</param>
    /// <param name="progress">Is told which file is read.</param>
    public static MappedImport Read(
        IReadOnlyList<(SourceFile File, SourceMap Map)> sources, IKnownRecords known, MapWords words, RecordErrors errors,
        Action<string, long> progress)
    {
        var reading = new MapReading(known, words, errors)
        {
            KeepsBalances = sources.Any(source => source.Map.Shape == Shape.Balances || source.Map.Shape == Shape.Ledger),
        };
        foreach (var (file, map) in sources.OrderBy(source => Order.ToList().IndexOf(source.Map.Shape)))
        {
            progress($"reading {file.Name}", 0);
            reading.BeginFile(file);
            RefuseUndecided(map);
            using var rows = new SourceRows(file, map, words, errors, reading.Proof);
            ReadRows(new MappedRow(rows, map, reading));
            HoldControlTotals(rows, map, reading);
            foreach (var (account, type) in reading.Accounts.Confirmed(map))
            {
                reading.DescribeAccount(1, account.Code, account.Name, type);
            }
        }

        reading.End();
        return new MappedImport(reading, sources.Select(source => source.File));
    }

    private static void RefuseUndecided(SourceMap map)
    {
        if (map.Dates is null && map.Columns.Keys.Any(role => role.Content == RoleContent.Day))
        {
            throw new ProblemException(
                ProblemKind.BadData, $"{map.PlaceOf("dates")}: it is not decided which part of a date is the day.",
                $"Write dates = {Suggestion.Listed([.. SourceDates.OrderNames.Take(3).Select(name => $"\"{name}\"")], "or")} there.");
        }

        if (map.DecimalMark is null)
        {
            throw new ProblemException(
                ProblemKind.BadData, $"{map.PlaceOf("decimal-mark")}: it is not decided whether a point or a comma is the decimal mark.",
                "Write decimal-mark = \".\" or decimal-mark = \",\" there.");
        }
    }

    private static void ReadRows(MappedRow row)
    {
        var shape = row.Map.Shape;
        if (shape == Shape.Journal)
        {
            JournalReader.Read(row);
        }
        else if (shape == Shape.Ledger)
        {
            new LedgerRows(row).Read();
        }
        else if (shape == Shape.Payments || shape == Shape.SingleEntry)
        {
            new PaymentReader(row).Read();
        }
        else if (shape == Shape.Balances || shape == Shape.Budget)
        {
            new BalanceReader(row).Read();
        }
        else if (shape == Shape.Accounts || shape == Shape.Contacts || shape == Shape.Items || shape == Shape.Projects
            || shape == Shape.TaxCodes)
        {
            new ListReader(row).Read();
        }
        else
        {
            new InvoiceReader(row).Read();
        }

        if ((shape == Shape.Journal || shape == Shape.Ledger) && !row.Rows.Has(ColumnRole.Contact) && !row.Rows.Has(ColumnRole.ContactId))
        {
            row.Reading.Notes.Add(
                $"{row.Rows.Name} does not say with whom documents are: reports per customer and supplier have \"No contact\" for them.");
        }
    }

    // What a person wrote down by hand.
    private static void HoldControlTotals(SourceRows rows, SourceMap map, MapReading reading)
    {
        foreach (var (what, text) in map.Proof)
        {
            if (!SourceNumbers.TryRead(text, '.', out var shown))
            {
                throw new ProblemException(
                    ProblemKind.BadData, $"{map.PlaceOf(what)}: \"{text}\" is no number.", "Write it as 1234.50, in quotes.");
            }

            var line = map.Lines.GetValueOrDefault(what, 1);
            if (what == "documents")
            {
                HoldCount(reading, map.Path, line, shown.Value);
                continue;
            }

            var role = ColumnRole.Find(what) ?? throw new ProblemException(
                ProblemKind.BadData, $"{map.PlaceOf(what)}: there is nothing called {what} to be added up.",
                Suggestion.DidYouMean(what, [.. ColumnRole.All.Select(known => known.Name), "documents"])
                    ?? "Write documents, or what a column is taken as.");
            reading.Proof.Hold(map.Path, line, 1, $"what the map says {what} comes to", shown.Value, rows.SumOf(role));
        }
    }

    private static void HoldCount(MapReading reading, string path, long line, decimal shown)
    {
        if (shown == reading.DocumentCount)
        {
            reading.Proof.Right();
        }
        else
        {
            reading.Proof.Fail(
                path, line, 1, string.Create(
                    CultureInfo.InvariantCulture, $"the number of documents is {reading.DocumentCount}, but the map says {shown:0.##}."));
        }
    }

    private List<NewRecord> FindNew()
    {
        var all = _reading.Accounts.New().ToList();
        foreach (var account in all)
        {
            _reading.BeginFile(_files[account.File]);
            _reading.DescribeAccount(account.Line, account.Id, account.Name, account.Detail, account.IsGuess ? account.Because : "");
        }

        foreach (var table in RecordTables.Lists.Where(table => table != RecordTables.Accounts))
        {
            foreach (var record in _reading.Names(table).New())
            {
                all.Add(record);
                if (_reading.IsDescribed(table, record.Id))
                {
                    continue;
                }

                _reading.BeginFile(_files[record.File]);
                var records = _reading.Of(table);
                records.Begin(record.Line);
                records.Put(table.Id!, record.Id, record.Column);
                records.Put("name", record.Name, record.Column);
                records.Put(
                    table == RecordTables.Contacts ? "kind" : table == RecordTables.TaxCodes ? "rate" : "name",
                    record.Detail.Length > 0 ? record.Detail : table == RecordTables.Contacts ? "other" : record.Name, record.Column);
                records.End();
            }
        }

        return all;
    }

    private string Words(DraftDocument document)
    {
        var number = document.Number.Length > 0 ? $" {document.Number}" : "";
        var contact = document.Contact.Length > 0 ? $", {document.Contact}" : "";
        return $"{document.Date:yyyy-MM-dd}  {document.Kind}{number}{contact}{(document.Memo.Length > 0 ? $": {document.Memo}" : "")}";
    }
}
