using System.CommandLine;
using Vlei.Books;
using Vlei.Books.Files;
using Vlei.Books.Import;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.OpenItems;
using Vlei.Core.Problems;
using Vlei.Desk;
using Vlei.Output;
using Vlei.Records;
using Vlei.Sample;

namespace Vlei.Commands;

/// <summary><c>vlei demo</c>: writes the demo book and shows what to try first.</summary>
internal static class DemoCommand
{
    private static readonly (string Report, string Options)[] Tries =
    [
        ("profit-loss", "--period last-month"), ("profit-loss", "--period fiscal-year-to-date --compare prior-year --change"),
        ("profit-loss", "--period fy2026 --by fiscal-quarter --basis cash --depth 1"),
        ("open-receivables", "--only days-late=31/ --sort -open"),
    ];

    private static readonly Argument<string> Folder = new("DIR")
    {
        Description = "The folder to make", DefaultValueFactory = _ => "reedwater",
    };

    private static readonly Option<bool> RecordSetOnly = new("--record-set")
    {
        Description = "Write the records alone, as a record set, without making a book",
    };

    private static readonly Option<int> Documents = new("--documents")
    {
        Description = "About how many documents to make up", HelpName = "N", DefaultValueFactory = _ => SampleSize.Demo.Documents,
    };

    private static readonly Option<int> Years = new("--years")
    {
        Description = "How many whole fiscal years before the current one", HelpName = "N",
        DefaultValueFactory = _ => SampleSize.Demo.Years,
    };

    private static readonly Option<int> Seed = new("--seed")
    {
        Description = "Another number gives another business", HelpName = "S", DefaultValueFactory = _ => (int)SampleSize.Demo.Seed,
    };

    /// <summary>The command.</summary>
    public static DocumentedCommand Create()
    {
        var command = new DocumentedCommand("demo", "Write the demo book, and show what to try first")
        {
            Examples =
            [
                ("vlei demo", "into the folder reedwater"),
                ("vlei demo large --record-set --documents 300000 --years 5 --seed 7", "records of any size, for measuring"),
            ],
        };
        command.Arguments.Add(Folder);
        foreach (var option in new Option[] { RecordSetOnly, Documents, Years, Seed })
        {
            command.Options.Add(option);
        }

        command.SetAction(Run);
        return command;
    }

    private static int Run(ParseResult result)
    {
        var folder = result.GetValue(Folder)!;
        var size = SizeOf(result);
        if (result.GetValue(RecordSetOnly))
        {
            WholeFolder.Make(folder, unfinished => WriteRecords(unfinished, size));
            Terminal.Say($"The record set is in {folder}.");
            return ExitStatus.Done;
        }

        if (Book.IsBook(folder))
        {
            throw new ProblemException(
                ProblemKind.CannotWrite, $"{folder} is a book already.", "Choose another folder, or remove that one first.");
        }

        WholeFolder.Make(folder, unfinished => MakeAll(unfinished, size));
        ShowWhatToTry(Book.Open(folder));
        return ExitStatus.Done;
    }

    private static void MakeAll(string folder, SampleSize size)
    {
        var book = Make(folder, BoatworksGenerator.Name, size, settings => settings with { Remittance = BoatworksGenerator.Remittance });
        NotePromises(book);
        KeptFiles.Write(folder);
        foreach (var client in BoatworksGenerator.Clients)
        {
            _ = Make(
                Path.Combine(folder, "clients", client.Folder), client.Name, client.Size, settings => settings with { Library = "../.." });
        }
    }

    private static Book Make(string folder, string name, SampleSize size, Func<BookSettings, BookSettings> with)
    {
        _ = Currency.TryFind("ZAR", out var currency);
        var book = Book.Create(folder, with(new BookSettings(
            name, currency!, new FiscalCalendar(BoatworksGenerator.FiscalYearStart), AccountingBasis.Accrual, BoatworksGenerator.Today)));
        var records = Path.Combine(folder, "records");
        WriteRecords(records, size);
        Import(book, records);
        return book;
    }

    private static SampleSize SizeOf(ParseResult result)
    {
        const int MostYears = 50;
        const int MostDocuments = 50_000_000;
        var (documents, years, seed) = (result.GetValue(Documents), result.GetValue(Years), result.GetValue(Seed));
        return documents is < 1 or > MostDocuments
            ? throw new ProblemException(
                ProblemKind.Usage, $"--documents does not take {documents}.", $"Write a number from 1 to {MostDocuments}.")
            : years is < 0 or > MostYears
            ? throw new ProblemException(ProblemKind.Usage, $"--years does not take {years}.", $"Write a number from 0 to {MostYears}.")
            : new SampleSize(documents, years, (ulong)seed);
    }

    private static void WriteRecords(string folder, SampleSize size) => Terminal.WithProgress(progress =>
    {
        BoatworksGenerator.Write(folder, size, progress);
        return true;
    });

    private static void Import(Book book, string records)
    {
        var errors = new RecordErrors();
        var order = new ImportOrder("demo", ReportDesk.MomentOf(BoatworksGenerator.Today), Complete: false, Trial: false);
        Terminal.WithProgress(progress => Importer.Run(
            book, RecordSet.Open([records], book.Settings.Currency, errors), errors, order, progress));
        if (errors.Count > 0)
        {
            throw new InvalidOperationException($"The demo's own records are broken: {errors.First[0]}");
        }
    }

    // Those whose documents a demo of this size has, and of which so much was open then.
    private static void NotePromises(Book book)
    {
        var decimals = (decimal)Math.Pow(10, book.Settings.Currency.Decimals);
        using var ledger = LedgerReader.Open(book);
        var notes = BoatworksGenerator.Promises
            .Select(
                said => (said, Amount: new Amount((long)(said.Amount * decimals)), Open: ledger.FindDocument(said.Document) is { } document
                ? PromisedItems.OpenOf(ledger, document, said.Noted) : Amount.Zero))
            .Where(note => note.Amount <= note.Open)
            .Select((note, place) => new PromiseRecord(
                place + 1, note.said.By is null, note.said.Document, note.Amount, note.said.By, note.Open, note.said.Noted, "demo",
                null, note.said.Note))
            .ToList();
        if (notes.Count > 0)
        {
            PromiseFile.Change(book, _ => notes);
        }
    }

    // Options as they would be typed, each with one value or none.
    private static Dictionary<string, IReadOnlyList<string>> Asked(string options) =>
        options.Split("--", StringSplitOptions.RemoveEmptyEntries)
        .Select(option => option.Trim().Split(' ', 2)).ToDictionary(
            parts => parts[0], parts => (IReadOnlyList<string>)[parts.Length > 1 ? parts[1] : "true"]);

    private static void ShowWhatToTry(Book book)
    {
        Terminal.Say($"{BoatworksGenerator.Name} is in {book.Folder}. Four things to try:");
        using var ledger = LedgerReader.Open(book);
        var desk = new ReportDesk(book, BoatworksGenerator.Today);
        foreach (var (key, options) in Tries)
        {
            var definition = ReportCatalogue.FindStandard(key);
            var report = OpenReport.Build(definition, desk.RequestOf(definition, Asked(options)), desk.ContextOf(ledger));
            Destination.Write(null, (stream, look) =>
            {
                stream.Write(System.Text.Encoding.UTF8.GetBytes($"\n$ vlei show {key} {options} --book {book.Folder}\n\n"));
                ReportFormat.All[0].Write(report, stream, look);
            });
        }
    }
}
