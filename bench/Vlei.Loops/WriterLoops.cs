using BenchmarkDotNet.Attributes;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Reports;
using Vlei.Output;

namespace Vlei.Loops;

/// <summary>What writers do for each row and cell of a list.</summary>
public class WriterLoops
{
    private const int Rows = 1000;

    private ReportWords? _words;

    /// <summary>Makes a list.</summary>
    [GlobalSetup]
    public void SetUp() => _words = new ReportWords(new Report
    {
        Key = "list", Title = "List", Book = "Reedwater Boatworks", Currency = Currency.None, Basis = AccountingBasis.Accrual,
        Period = new DateRange(new DateOnly(2026, 1, 1), new DateOnly(2026, 12, 31)), AsOf = null, PeriodInWords = "2026",
        Columns =
        [
            new ReportColumn("date", "Date", ColumnKind.Date), new ReportColumn("contact", "Contact", ColumnKind.Text),
            ReportColumn.Sum("amount", "Amount"),
        ],
        Rows = [.. Enumerable.Range(0, Rows).Select(row => new ReportRow(
            $"INV-{row}/1", $"INV-{row}", RowKind.Record, 0,
            [Cell.Of(new DateOnly(2026, 1, 1).AddDays(row % 365)), Cell.Of($"Customer {row % 97}"), new Cell(row * 7919L)]))],
        Checks = [], OriginOf = (_, _) => null, Revision = 1,
    });

    /// <summary>A sum of money as text.</summary>
    [Benchmark]
    public int Money()
    {
        Span<char> room = stackalloc char[DecimalText.Longest];
        return DecimalText.Write(-1_234_567_890, 2, room);
    }

    /// <summary>A row as CSV.</summary>
    [Benchmark(OperationsPerInvoke = Rows)]
    public void Csv() => CsvReport.Write(_words!, Stream.Null);

    /// <summary>A row as JSON.</summary>
    [Benchmark(OperationsPerInvoke = Rows)]
    public void Json() => JsonReport.Write(_words!.Report, Stream.Null);

    /// <summary>A row as text.</summary>
    [Benchmark(OperationsPerInvoke = Rows)]
    public void Text() => TextReport.Write(_words!, Stream.Null, Surface.OfFile(null));
}
