using System.Globalization;
using System.Text;
using CsvHelper;
using Vlei.Books.Store;
using Vlei.Core.Calendar;
using Vlei.Core.Money;
using Vlei.Core.Problems;

namespace Vlei.Books;

/// <summary>A promise or a dispute as the book's file has it; see <see cref="Vlei.Core.Ledger.Promise"/>.</summary>
public sealed record PromiseRecord(
    int Number, bool IsDispute, string Document, Amount Amount, DateOnly? By, Amount Open, DateOnly Noted, string NotedBy,
    DateOnly? Withdrawn, string Note);

/// <summary>
/// Reads and writes <c>promises.csv</c>: what contacts have committed to, beside the records and never part of them, so that
/// no import changes it. Documents are named by their ids. Whatever is not understood is refused, with its place in the file.
/// </summary>
public static class PromiseFile
{
    private const string Promise = "promise";
    private const string Dispute = "dispute";

    private static readonly string[] Columns =
        ["number", "kind", "document", "amount", "by", "open", "noted", "noted_by", "withdrawn", "note"];

    /// <summary>Everything that is noted, in the order of the file. Throws a <see cref="ProblemException"/> where it is damaged.</summary>
    public static IReadOnlyList<PromiseRecord> Read(Book book)
    {
        if (!File.Exists(book.PromisesPath))
        {
            return [];
        }

        var records = new List<PromiseRecord>();
        using var csv = CsvReader.FromFile(book.PromisesPath, new CsvReaderOptions { TrackLineNumbers = true });
        var line = 1;
        csv.ReadHeader();
        if (csv.Headers?.SequenceEqual(Columns) != true)
        {
            throw Wrong(book, line, "the header is another one", string.Join(',', Columns));
        }

        while (csv.Read())
        {
            line = (int)csv.LineNumber;
            if (csv.FieldCount != Columns.Length)
            {
                throw Wrong(book, line, $"there are {csv.FieldCount} columns", $"{Columns.Length}: {string.Join(',', Columns)}");
            }

            var row = new Row(book, line, [.. Enumerable.Range(0, Columns.Length).Select(place => Encoding.UTF8.GetString(csv.GetSpan(place)))]);
            records.Add(row.Record());
        }

        return records;
    }

    /// <summary>
    /// Changes what is noted; nobody else can meanwhile. Throws a <see cref="ProblemException"/> where somebody else does, or
    /// where the book cannot be written; then it is as it was.
    /// </summary>
    public static void Change(Book book, Func<IReadOnlyList<PromiseRecord>, IEnumerable<PromiseRecord>> change)
    {
        using var only = Database.OpenToWrite(book.RecordsPath);
        Write(book, change(Read(book)));
    }

    private static void Write(Book book, IEnumerable<PromiseRecord> records)
    {
        var decimals = book.Settings.Currency.Decimals;
        var unfinished = $"{book.PromisesPath}.{Environment.ProcessId}.tmp";
        try
        {
            using (var stream = File.Create(unfinished))
            using (var csv = CsvWriter.Create(stream, new CsvWriterOptions { NewLine = "\n" }, leaveOpen: true))
            {
                csv.WriteHeader(Columns);
                foreach (var record in records)
                {
                    csv.WriteField(record.Number);
                    csv.WriteField(record.IsDispute ? Dispute : Promise);
                    csv.WriteField(record.Document);
                    csv.WriteField(DecimalText.Write(record.Amount.MinorUnits, decimals));
                    csv.WriteField(Day(record.By));
                    csv.WriteField(DecimalText.Write(record.Open.MinorUnits, decimals));
                    csv.WriteField(Day(record.Noted));
                    csv.WriteField(record.NotedBy);
                    csv.WriteField(Day(record.Withdrawn));
                    csv.WriteField(record.Note);
                    csv.EndRecord();
                }
            }

            File.Move(unfinished, book.PromisesPath, overwrite: true);
        }
        catch (Exception cannot) when (cannot is IOException or UnauthorizedAccessException)
        {
            File.Delete(unfinished);
            throw new ProblemException(
                ProblemKind.CannotWrite, $"{book.PromisesPath} cannot be written: {cannot.Message}",
                "Choose a book that you may write to.", cannot);
        }
    }

    private static string Day(DateOnly? day) => day is { } known ? PeriodText.Iso(known) : "";

    private static ProblemException Wrong(Book book, int line, string what, string expected) => new(
        ProblemKind.BadData, $"{book.PromisesPath}:{line}: {what}.", $"Expected {expected}.");

    private sealed record Row(Book Book, int Line, string[] Fields)
    {
        public PromiseRecord Record()
        {
            var isDispute = Fields[1] == Dispute;
            if (!isDispute && Fields[1] != Promise)
            {
                throw Wrong(Book, Line, $"\"{Fields[1]}\" is no kind", $"{Promise} or {Dispute}");
            }

            return new PromiseRecord(
                int.TryParse(Fields[0], NumberStyles.None, CultureInfo.InvariantCulture, out var number)
                    ? number : throw Wrong(Book, Line, $"\"{Fields[0]}\" is no number", "a whole number"),
                isDispute, Fields[2], AmountIn(3), isDispute ? null : DayIn(4), AmountIn(5), DayIn(6), Fields[7],
                Fields[8].Length == 0 ? null : DayIn(8), Fields[9]);
        }

        private Amount AmountIn(int place) =>
            DecimalText.Read(Encoding.UTF8.GetBytes(Fields[place]), Book.Settings.Currency.Decimals, out var units) == DecimalTextResult.Read && units > 0
                ? new Amount(units)
                : throw Wrong(Book, Line, $"the {Columns[place]} \"{Fields[place]}\" is no amount", "a positive amount, as 1250.00");

        private DateOnly DayIn(int place) => IsoText.TryDay(Encoding.UTF8.GetBytes(Fields[place]), out var day)
            ? day
            : throw Wrong(Book, Line, $"the {Columns[place]} \"{Fields[place]}\" is no day", "a day, as 2026-06-30");
    }
}
