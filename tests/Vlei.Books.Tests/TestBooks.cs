using Vlei.Books.Import;
using Vlei.Books.Store;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Desk;
using Vlei.Output;
using Vlei.Records;
using Vlei.Sample;

namespace Vlei.Books.Tests;

/// <summary>Record sets in a folder of their own, books that take them in, and what the books say then.</summary>
internal sealed class TestBooks : IDisposable
{
    private static readonly ReportFormat Csv = ReportFormat.Named("csv", ["csv"])[0];

    private static readonly BookSettings Settings = new(
        "Reedwater Boatworks", Currency.TryFind("ZAR", out var rand) ? rand : throw new InvalidOperationException(),
        new FiscalCalendar(BoatworksGenerator.FiscalYearStart), AccountingBasis.Accrual,
        BoatworksGenerator.Today);

    public string Folder { get; } = Directory.CreateTempSubdirectory("vlei-books-").FullName;

    /// <summary>A book on a store that has nothing in it.</summary>
    public Book BookOn(IBookStore store, bool oldestFirst = false) =>
        Book.On(store, Folder, Settings with { SettlesOldestFirst = oldestFirst });

    /// <summary>A record set of the boatworks.</summary>
    public string Set(string name, ulong seed, int documents)
    {
        var folder = Path.Combine(Folder, name);
        BoatworksGenerator.Write(folder, new SampleSize(documents, 1, seed), (_, _) => { });
        return folder;
    }

    /// <summary>The same set without every document that a dice says, and with other notes on some of those that stay.</summary>
    public string Altered(string set, string name, int seed)
    {
        var folder = Directory.CreateDirectory(Path.Combine(Folder, name)).FullName;
        var dice = new Random(seed);
        var gone = new HashSet<string>();
        foreach (var table in RecordTables.All)
        {
            var lines = File.ReadAllLines(Path.Combine(set, table.FileName));
            var kept = new List<string> { lines[0] };
            foreach (var line in lines.Skip(1))
            {
                var ids = line.Split(',');
                if (table == RecordTables.Documents && dice.Next(4) == 0)
                {
                    gone.Add(ids[0]);
                }

                var refers = table == RecordTables.Settlements ? ids.Take(2) : ids.Take(1);
                if (!refers.Any(gone.Contains))
                {
                    var second = line.IndexOf(',') + 1;
                    kept.Add(table == RecordTables.Projects && dice.Next(2) == 0 && line[second] != '"' ? line.Insert(second, "x") : line);
                }
            }

            File.WriteAllLines(Path.Combine(folder, table.FileName), kept);
        }

        return folder;
    }

    /// <summary>Takes a record set in, and says what that did.</summary>
    public static string Take(Book book, string set, bool complete)
    {
        var outcome = Import(book, set, (_, _) => { }, complete);
        return string.Create(CultureInfo.InvariantCulture, $"{outcome.Revision}: ") + string.Join(", ", outcome.Counts.Select(one =>
            $"{one.Table.Name} {one.Counts.Added} {one.Counts.Changed} {one.Counts.Unchanged} {one.Counts.Removed}"));
    }

    /// <summary>Takes a record set in, and tells how far it is.</summary>
    public static ImportOutcome Import(Book book, string set, Action<string, long> progress, bool complete = false)
    {
        var errors = new RecordErrors();
        var order = new ImportOrder(
            "Anna", new DateTimeOffset(2026, 6, 30, 12, 0, 0, TimeSpan.Zero), complete, Trial: false);
        var outcome = Importer.Run(book, RecordSet.Open([set], Settings.Currency, errors), errors, order, progress);
        Assert.Equal([], errors.First.Select(error => error.ToString()));
        return outcome;
    }

    /// <summary>Every standard report of the records as an import left them, one after the other.</summary>
    public static string Reports(Book book, long revision) => string.Concat(ReportCatalogue.Standard
        .Where(definition => definition.Asks is null)
        .Select(definition => $"== {definition.Key}\n{Report(book, revision, definition.Key)}"));

    /// <summary>A report as CSV, with options as they are typed.</summary>
    public static string Report(Book book, string name, params ReadOnlySpan<(string Name, string Value)> options) =>
        Report(book, null, name, options);

    public void Dispose() => Directory.Delete(Folder, recursive: true);

    /// <summary>A report of the records as an import left them.</summary>
    public static string Report(
        Book book, long? revision, string name, params ReadOnlySpan<(string Name, string Value)> options)
    {
        var typed = new Dictionary<string, IReadOnlyList<string>>();
        foreach (var (option, value) in options)
        {
            typed[option] = [value];
        }

        using var written = new MemoryStream();
        using var open = new ReportDesk(book, null).Open(new ReportOrder(name, typed)
        {
            Revision = revision?.ToString(CultureInfo.InvariantCulture),
        });
        Csv.Write(open.Build(), written, Surface.OfFile(null));
        return System.Text.Encoding.UTF8.GetString(written.ToArray());
    }
}
