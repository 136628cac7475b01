using System.Runtime.InteropServices;
using Vlei.Core.Ledger;
using Vlei.Records.Maps.Reading;

namespace Vlei.Records.Maps.Finding;

/// <summary>Finds how lines are put together into documents: the first way by which all of them sum to zero.</summary>
internal static class GroupingFinder
{
    /// <summary>Reads the whole file.</summary>
    public static (DocumentGrouping Grouping, string Because) Find(SourceFile file, SourceMap map, IKnownRecords known, MapWords words)
    {
        var numbers = new Dictionary<string, (decimal Sum, DateOnly Day, bool IsOneDay)>();
        var numbersOfDays = new Dictionary<(string, DateOnly), decimal>();
        var days = new Dictionary<DateOnly, decimal>();
        var reading = new MapReading(known, words, new RecordErrors());
        reading.BeginFile(file);
        using var rows = new SourceRows(file, map, words, reading.Errors, reading.Proof);
        var row = new MappedRow(rows, map, reading);
        var (run, runDay, broken, hasContra) = (0m, default(DateOnly), 0, rows.Has(ColumnRole.ContraAccount));
        while (rows.Read())
        {
            if (rows.Kind != SourceRowKind.Data || rows.Day(ColumnRole.Date) is not { } date || row.Posted("") is not { } amount)
            {
                continue;
            }

            amount = hasContra && rows.Text(ColumnRole.ContraAccount).Length > 0 ? 0 : amount;
            var number = rows.Text(ColumnRole.Document);
            ref var ofNumber = ref CollectionsMarshal.GetValueRefOrAddDefault(numbers, number, out var isKnown);
            ofNumber = (ofNumber.Sum + amount, date, !isKnown || (ofNumber.IsOneDay && ofNumber.Day == date));
            CollectionsMarshal.GetValueRefOrAddDefault(numbersOfDays, (number, date), out _) += amount;
            CollectionsMarshal.GetValueRefOrAddDefault(days, date, out _) += amount;
            broken += run != 0 && date != runDay ? 1 : 0;
            run = run != 0 && date != runDay ? amount : run + amount;
            runDay = date;
        }

        broken += run != 0 ? 1 : 0;
        var hasNumbers = rows.Has(ColumnRole.Document) && !numbers.ContainsKey("");
        return hasNumbers && numbers.Values.All(number => number is { Sum: 0, IsOneDay: true })
                ? (DocumentGrouping.Number, "rows of the same number sum to zero")
            : hasNumbers && numbersOfDays.Values.All(sum => sum == 0)
                ? (DocumentGrouping.NumberAndDay, "rows of the same number and day sum to zero; numbers begin anew")
            : broken == 0 && map.Shape == Shape.Journal ? (DocumentGrouping.Balance, "rows that follow one another sum to zero")
            : days.Values.All(sum => sum == 0)
                ? (DocumentGrouping.Day, "only the rows of a whole day sum to zero: each day becomes one journal")
            : hasNumbers ? (DocumentGrouping.Number, "rows have numbers, though not all of them sum to zero")
            : (map.Shape == Shape.Journal ? DocumentGrouping.Balance : DocumentGrouping.Day, "rows have no numbers");
    }
}
