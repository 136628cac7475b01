using System.Globalization;
using System.Text;
using Vlei.Core.Calendar;
using Vlei.Core.Money;
using Vlei.Core.Problems;

namespace Vlei.Books;

/// <summary>A promise or a dispute as the book's file has it; see <see cref="Vlei.Core.Ledger.Promise"/>.</summary>
public sealed record PromiseRecord(
    int Number, bool IsDispute, string Document, Amount Amount, DateOnly? By, Amount Open, DateOnly Noted, string NotedBy,
    DateOnly? Withdrawn, string Note);

/// <summary>
/// Reads and writes <c>promises.csv</c>: what contacts have committed to. Documents are named by their ids.
/// </summary>
public static class PromiseFile
{
    private const string Promise = "promise";
    private const string Dispute = "dispute";

    /// <summary>Everything that is noted, in the order of the file. Throws a <see cref="ProblemException"/> where it is damaged.</summary>
    public static IReadOnlyList<PromiseRecord> Read(Book book) => [.. FileOf(book).Read().Select(row => RecordOf(book, row))];

    /// <summary>
    /// Changes what is noted; nobody else can meanwhile. Throws a <see cref="ProblemException"/> where somebody else does, or
    /// where the book cannot be written; then it is as it was.
    /// </summary>
    public static void Change(Book book, Func<IReadOnlyList<PromiseRecord>, IEnumerable<PromiseRecord>> change)
    {
        using var only = book.Store.Write();
        FileOf(book).Write(change(Read(book)).Select(record => TextsOf(book, record)));
    }

    /// <summary>What another file of the same kind says, such as one of a record set; none where it is not there.</summary>
    public static IReadOnlyList<PromiseRecord> Read(Book book, string path) => [.. At(path).Read().Select(row => RecordOf(book, row))];

    /// <summary>Writes a file of the same kind; none where there is nothing to say.</summary>
    public static void Write(Book book, string path, IReadOnlyList<PromiseRecord> records)
    {
        if (records.Count > 0)
        {
            At(path).Write(records.Select(record => TextsOf(book, record)));
        }
    }

    private static NotesFile FileOf(Book book) => At(book.PromisesPath);

    private static NotesFile At(string path) => new(
        path, ["number", "kind", "document", "amount", "by", "open", "noted", "noted_by", "withdrawn", "note"]);

    private static IReadOnlyList<string> TextsOf(Book book, PromiseRecord record) =>
    [
        record.Number.ToString(CultureInfo.InvariantCulture), record.IsDispute ? Dispute : Promise, record.Document,
        Text(book, record.Amount),
        Day(record.By), Text(book, record.Open), Day(record.Noted), record.NotedBy, Day(record.Withdrawn), record.Note,
    ];

    private static string Text(Book book, Amount amount) => DecimalText.Write(amount.MinorUnits, book.Settings.Currency.Decimals);

    private static string Day(DateOnly? day) => day is { } known ? PeriodText.Iso(known) : "";

    private static PromiseRecord RecordOf(Book book, NotesRow row)
    {
        var isDispute = row.Fields[1] == Dispute;
        if (!isDispute && row.Fields[1] != Promise)
        {
            throw row.Wrong($"\"{row.Fields[1]}\" is no kind", $"{Promise} or {Dispute}");
        }

        return new PromiseRecord(
            int.TryParse(row.Fields[0], NumberStyles.None, CultureInfo.InvariantCulture, out var number)
                ? number : throw row.Wrong($"\"{row.Fields[0]}\" is no number", "a whole number"),
            isDispute, row.Fields[2], AmountIn(book, row, 3), isDispute ? null : row.DayIn(4), AmountIn(book, row, 5), row.DayIn(6),
            row.Fields[7],
            row.Fields[8].Length == 0 ? null : row.DayIn(8), row.Fields[9]);
    }

    private static Amount AmountIn(Book book, NotesRow row, int place) =>
        DecimalText.Read(
            Encoding.UTF8.GetBytes(row.Fields[place]), book.Settings.Currency.Decimals, out var units) == DecimalTextResult.Read
                && units > 0
            ? new Amount(units)
            : throw row.Wrong($"the {row.File.Columns[place]} \"{row.Fields[place]}\" is no amount", "a positive amount, as 1250.00");
}
