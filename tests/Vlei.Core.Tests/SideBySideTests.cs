using CsCheck;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core.Tests;

/// <summary>Statements of many books side by side: nothing is lost, nothing is twice, and everything stands where it stood.</summary>
public class SideBySideTests
{
    // A statement as they all have it: headings with accounts, some of them parts of others, their totals, and what they come to.
    private static readonly (string Key, RowKind Kind, int Level)[] Whole =
    [
        ("income", RowKind.Heading, 0), ("4000", RowKind.Account, 1), ("4010", RowKind.Account, 1), ("4011", RowKind.Account, 2),
        ("4012", RowKind.Account, 2),
        ("4020", RowKind.Account, 1), ("4100", RowKind.Account, 1), ("total-income", RowKind.Total, 0),
        ("expenses", RowKind.Heading, 0), ("6000", RowKind.Account, 1),
        ("6010", RowKind.Account, 2), ("6100", RowKind.Account, 1), ("6110", RowKind.Account, 1), ("total-expenses", RowKind.Total, 0),
        ("net-profit", RowKind.Result, 0),
    ];

    private static readonly Currency[] Currencies =
        [.. new[] { "ZAR", "JPY", "KWD" }.Select(
            code => Currency.TryFind(code, out var known) ? known : throw new InvalidOperationException(code))];

    // Each book has some of the accounts; a part only with the account that it is of, a total only with something above it.
    private static readonly Gen<Report> GenReport = Gen.Select(
        Gen.Bool.Array[Whole.Length], Gen.Long[-1_000_000, 1_000_000].Array[Whole.Length], Gen.Int[0, 5]).Select((has, figures, currency) =>
    {
        var rows = Whole.Select((row, place) => (row, place)).Where(row =>
            row.row.Kind != RowKind.Account || (has[row.place] && (row.row.Level == 1 || has[row.row.Key.StartsWith('4') ? 2 : 9])));
        return new Report
        {
            Key = "profit-loss", Title = "T", Book = "B", Currency = Currencies[currency < 3 ? currency : 0],
            Basis = AccountingBasis.Accrual,
            Period = new DateRange(new DateOnly(2026, 1, 1), new DateOnly(2026, 1, 31)), AsOf = null, PeriodInWords = "January 2026",
            Columns = [new ReportColumn("2026-01", "Jan 2026", ColumnKind.Money)],
            Rows =
                [
                    .. rows.Select(
                        row => new ReportRow(
                            row.row.Key, row.row.Key, row.row.Kind, row.row.Level,
                            [row.row.Kind == RowKind.Heading ? Cell.Empty : new Cell(figures[row.place])]))],
            Checks = [new ReportCheck("Ends meet", Amount.Zero, Amount.Zero, "")], OriginOf = (_, _) => null, Revision = 1,
        };
    });

    [Fact]
    public void Every_figure_of_every_book_has_its_place_in_the_order_of_all() => GenReport.Array[1, 5].Sample(reports =>
    {
        var books = reports.Select((report, place) => ($"b{place}", report)).ToList();
        var whole = SideBySide.Of(books);
        var isOne = reports.Select(report => report.Currency).Distinct().Count() == 1;
        Assert.Equal([.. books.Select(book => book.Item1), .. isOne ? new[] { "total" } : []], whole.Columns.Select(column => column.Key));

        // As the chart has them, each once: heading, accounts by their codes, total.
        var order = Whole.Select(row => row.Key).Where(key => reports.Any(report => report.Rows.Any(row => row.Key == key)));
        Assert.Equal(order, whole.Rows.Select(row => row.Key));
        foreach (var row in whole.Rows.Where(row => row.Kind != RowKind.Heading))
        {
            for (var place = 0; place < reports.Length; place++)
            {
                var own = reports[place].Rows.FirstOrDefault(known => known.Key == row.Key)?.Cells[0].Units ?? 0;
                Assert.Equal(
                    own * (long)Math.Pow(10, whole.Currency.Decimals - reports[place].Currency.Decimals), row.Cells[place].Units ?? 0);
            }

            Assert.True(!isOne || row.Cells[^1].Units == row.Cells.SkipLast(1).Sum(cell => cell.Units));
        }

        Assert.Equal(reports.Length, whole.Checks.Count);
        Assert.NotNull(whole.OriginOf(0, 0)?.Refusal);
    });

    [Fact]
    public void What_has_other_columns_is_refused() =>
        GenReport.Sample(report => Assert.Contains("has 2 columns", Assert.Throws<ProblemException>(() =>
        SideBySide.Of([("a", report), ("b", report with { Columns = [.. report.Columns, .. report.Columns] })])).Message));
}
