using Vlei.Core.Ledger;
using Vlei.Records.Maps.Reading;

namespace Vlei.Records.Maps.Finding;

/// <summary>Finds how lines are put together into documents: the first way by which all of them sum to zero.</summary>
internal static class GroupingFinder
{
    /// <summary>Reads the whole file.</summary>
    public static (DocumentGrouping Grouping, string Because) Find(SourceFile file, SourceMap map, IKnownRecords known, MapWords words)
    {
        var sums = new Dictionary<(DocumentGrouping, string, DateOnly), decimal>();
        var reading = new MapReading(known, words, new RecordErrors());
        reading.BeginFile(file);
        using var rows = new SourceRows(file, map, words, reading.Errors, reading.Proof);
        var row = new MappedRow(rows, map, reading);
        var (run, runDay, broken, hasContra) = (0m, default(DateOnly), 0, rows.Has(ColumnRole.ContraAccount));
        while (rows.Read())
        {
            if (rows.Kind != SourceRowKind.Data || rows.Day(ColumnRole.Date) is not { } date || row.Posted(false) is not { } amount)
            {
                continue;
            }

            amount = hasContra && rows.Text(ColumnRole.ContraAccount).Length > 0 ? 0 : amount;
            var number = rows.Text(ColumnRole.Document);
            Add(DocumentGrouping.Number, number, default);
            Add(DocumentGrouping.NumberAndDay, number, date);
            Add(DocumentGrouping.Day, "", date);
            broken += run != 0 && date != runDay ? 1 : 0;
            run = run != 0 && date != runDay ? amount : run + amount;
            runDay = date;

            void Add(DocumentGrouping grouping, string key, DateOnly day) =>
                sums[(grouping, key, day)] = sums.GetValueOrDefault((grouping, key, day)) + amount;
        }

        broken += run != 0 ? 1 : 0;
        return rows.Has(ColumnRole.Document) && Holds(DocumentGrouping.Number) && OneDay() ? (DocumentGrouping.Number, "rows of the same number sum to zero")
            : rows.Has(ColumnRole.Document) && Holds(DocumentGrouping.NumberAndDay)
                ? (DocumentGrouping.NumberAndDay, "rows of the same number and day sum to zero; numbers begin anew")
            : broken == 0 && map.Shape == Shape.Journal ? (DocumentGrouping.Balance, "rows that follow one another sum to zero")
            : Holds(DocumentGrouping.Day) ? (DocumentGrouping.Day, "only the rows of a whole day sum to zero: each day becomes one journal")
            : rows.Has(ColumnRole.Document) ? (DocumentGrouping.Number, "rows have numbers, though not all of them sum to zero")
            : map.Shape == Shape.Journal ? (DocumentGrouping.Balance, "rows have no numbers")
            : (DocumentGrouping.Day, "rows have no numbers");

        bool Holds(DocumentGrouping grouping) => sums.All(sum =>
            sum.Key.Item1 != grouping || (sum.Value == 0 && (sum.Key.Item2.Length > 0 || grouping == DocumentGrouping.Day)));
        bool OneDay() => sums.Keys.Where(key => key.Item1 == DocumentGrouping.NumberAndDay).CountBy(key => key.Item2).All(key => key.Value == 1);
    }
}
