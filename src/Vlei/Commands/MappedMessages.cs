using System.Globalization;
using Vlei.Books.Import;
using Vlei.Core.Ledger;
using Vlei.Records.Maps;

namespace Vlei.Commands;

/// <summary>What is said of files that are read with maps.</summary>
internal static class MappedMessages
{
    private const int MostNew = 20;

    /// <summary>Says what the files prove of themselves, and of the book.</summary>
    public static void TellProof(TextWriter output, MappedImport mapped, ImportOutcome outcome)
    {
        output.WriteLine();
        foreach (var note in mapped.Notes)
        {
            output.WriteLine(note);
        }

        var proved = mapped.Balances.Count - outcome.Differences.Count;
        output.WriteLine(string.Create(
            CultureInfo.InvariantCulture,
            $"Proof: debits and credits alike in {mapped.Documents:N0} documents; {mapped.Proved:N0} figures of the files come to their rows; "
                + $"{proved:N0} of {mapped.Balances.Count:N0} balances are the book's."));
    }

    /// <summary>Lists what a book does not have and would get.</summary>
    public static void TellNew(TextWriter output, IReadOnlyList<NewRecord> records)
    {
        foreach (var kind in records.GroupBy(record => record.Table))
        {
            output.WriteLine(string.Create(
                CultureInfo.InvariantCulture, $"\n{kind.Count():N0} new {(kind.Count() == 1 ? kind.Key.Singular : $"{kind.Key.Singular}s")}:"));
            foreach (var record in kind.Take(MostNew))
            {
                var becomes = record.Detail.Length == 0 ? "" : record.Table == RecordTables.TaxCodes ? $", {record.Detail} percent" : $", {record.Detail}";
                output.WriteLine($"  {record.Id}  {record.Name}{becomes}{(record.Because.Length > 0 ? $" ({record.Because})" : "")}");
            }

            if (kind.Count() > MostNew)
            {
                output.WriteLine(string.Create(CultureInfo.InvariantCulture, $"  and {kind.Count() - MostNew:N0} more"));
            }
        }
    }
}
