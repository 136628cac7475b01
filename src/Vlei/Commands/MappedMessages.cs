using System.Globalization;
using Vlei.Books.Import;
using Vlei.Core.Ledger;
using Vlei.Records.Maps;
using Vlei.Records.Maps.Reading;

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

        output.WriteLine(Proved(mapped));
        if (mapped.Balances.Count > 0)
        {
            var proved = mapped.Balances.Count - outcome.Differences.Count;
            output.WriteLine(string.Create(
                CultureInfo.InvariantCulture,
                $"Proof: {proved:N0} of {Count(mapped.Balances.Count, "balance")} of accounts that the files show are the book's."));
        }
    }

    /// <summary>What the files prove of themselves.</summary>
    public static string Proved(MappedImport mapped)
    {
        var parts = new List<string>();
        if (mapped.Documents > 0)
        {
            parts.Add($"debits and credits are alike in {Count(mapped.Documents, "document")}");
        }

        if (mapped.Proved > 0)
        {
            parts.Add(mapped.Proved == 1 ? "the one total of the files comes to its rows"
                : string.Create(CultureInfo.InvariantCulture, $"{mapped.Proved:N0} totals and balances of the files come to their rows"));
        }

        return parts.Count == 0 ? "Proof: the files show no totals and no balances."
            : $"Proof: {string.Join("; ", parts)}{(mapped.Proved == 0 ? "; the files show no totals and no balances" : "")}.";
    }

    /// <summary>How many there are of something.</summary>
    public static string Count(int number, string what, string? many = null) =>
        string.Create(CultureInfo.InvariantCulture, $"{number:N0} {(number == 1 ? what : many ?? $"{what}s")}");

    /// <summary>Lists what a book does not have and would get.</summary>
    public static void TellNew(TextWriter output, IReadOnlyList<NewRecord> records)
    {
        foreach (var kind in records.GroupBy(record => record.Table))
        {
            output.WriteLine(string.Create(
                CultureInfo.InvariantCulture,
                $"\n{kind.Count():N0} new {(kind.Count() == 1 ? kind.Key.Singular : $"{kind.Key.Singular}s")}:"));
            foreach (var record in kind.Take(MostNew))
            {
                var becomes = record.Detail.Length == 0 ? "" : record.Table == RecordTables.TaxCodes ? $", {record.Detail} percent"
                    : $", {record.Detail}";
                output.WriteLine($"  {record.Id}  {record.Name}{becomes}{(record.Because.Length > 0 ? $" ({record.Because})" : "")}");
            }

            if (kind.Count() > MostNew)
            {
                output.WriteLine(string.Create(CultureInfo.InvariantCulture, $"  and {kind.Count() - MostNew:N0} more"));
            }
        }
    }
}
