using System.Collections.Immutable;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Problems;

namespace Vlei.Core.Reports;

/// <summary>
/// The same statement of several books side by side: a row per account, a column per book, and a total where all are in one
/// currency. An account is known by its code.
/// </summary>
public static class SideBySide
{
    /// <summary>
    /// Puts them together. Throws a <see cref="ProblemException"/> where the statement has more than one column of money.
    /// </summary>
    /// <param name="books">The statement of each book, under a key for its column.</param>
    public static Report Of(IReadOnlyList<(string Key, Report Report)> books)
    {
        RefuseUnlike(books);
        var first = books[0].Report;
        var rows = new List<ReportRow>();
        foreach (var (_, report) in books)
        {
            Merge(rows, report.Rows);
        }

        var currencies = books.Select(book => book.Report.Currency).DistinctBy(currency => currency.Code).ToList();
        var finest = currencies.MaxBy(currency => currency.Decimals)!;
        var cells = books.Select(
            book => book.Report.Rows.DistinctBy(row => row.Key)
                .ToDictionary(row => row.Key, row => Scaled(row.Cells[0], book.Report.Currency, finest))).ToList();
        var renamed = rows.Where(row => books.Any(book => book.Report.Rows.Any(same => same.Key == row.Key && same.Label != row.Label)))
            .Select(row => row.Key).ToList();
        return first with
        {
            Book = string.Join(", ", books.Select(book => book.Report.Book)),
            Currency = finest,
            InWhat = currencies.Count == 1 ? first.InWhat
                : $"{(first.Basis == AccountingBasis.Cash ? "Cash" : "Accrual")} basis, each book in its own currency",
            Columns =
            [
                .. books.Select(book => ReportColumn.Sum(
                    book.Key, currencies.Count == 1 ? book.Report.Book : $"{book.Report.Book} ({book.Report.Currency.Code})")),
                .. currencies.Count == 1
                    ? new[] { ReportColumn.Sum("total", "Total") with { MadeOf = [.. books.Select(book => (book.Key, 1))] } } : [],
            ],
            Rows =
            [
                .. rows.Select(row => row with
                {
                    Cells = row.Kind == RowKind.Heading ? [.. Enumerable.Repeat(Cell.Empty, books.Count + (currencies.Count == 1 ? 1 : 0))]
                        : CellsOf(
                            [.. cells.Select(book => book.GetValueOrDefault(row.Key, new Cell(0)))], currencies.Count == 1
                                && row.InsteadOfMoney is null),
                }),
            ],
            Checks = [.. books.SelectMany(book => book.Report.Checks.Select(check => check with { Column = book.Report.Book }))],
            Notes = [.. first.Notes, .. renamed.Count == 0 ? Array.Empty<string>()
                : [$"Called otherwise in some of the books: {Suggestion.Listed(renamed, "and")}."]],
            OriginOf = (_, _) => new CellOrigin(Amount.Zero, [])
            {
                Refusal = new OriginRefusal(
                    "A figure of several books is traced in one of them.", "Trace it in its book: vlei trace … --book DIR."),
            },
        };
    }

    private static void RefuseUnlike(IReadOnlyList<(string Key, Report Report)> books)
    {
        var first = books[0].Report;
        if (books.Select(book => book.Report).FirstOrDefault(report => report.Columns is not [{ Kind: ColumnKind.Money }]) is { } other)
        {
            throw new ProblemException(
                ProblemKind.Usage, $"{other.Key} has {other.Columns.Count} columns, so books have no column each.",
                "Take a statement with one figure per account, as profit-loss, balance-sheet or cash-flow.");
        }

        if (books.Select(book => book.Report).FirstOrDefault(
            report => report.Basis != first.Basis || report.Period != first.Period || report.AsOf != first.AsOf) is { } apart)
        {
            throw new ProblemException(
                ProblemKind.Usage, $"{first.Book} is of {Of(first)}, and {apart.Book} of {Of(apart)}.",
                "Name the basis and the days: --basis accrual --period 2026-03.");
        }
    }

    private static string Of(Report report) => $"{report.PeriodInWords}, {AccountingBases.NameOf(report.Basis)} basis";

    private static ImmutableArray<Cell> CellsOf(IReadOnlyList<Cell> books, bool hasTotal) =>
        hasTotal ? [.. books, new Cell(books.Sum(cell => cell.Units ?? 0))] : [.. books];

    private static Cell Scaled(Cell cell, Currency from, Currency to)
    {
        var units = cell.Units;
        for (var decimals = from.Decimals; decimals < to.Decimals; decimals++)
        {
            units *= 10;
        }

        return new Cell(units);
    }

    // A row that is not there yet comes behind the one before it in its own book; among accounts, in the order of their codes.
    private static void Merge(List<ReportRow> rows, IReadOnlyList<ReportRow> others)
    {
        var last = -1;
        foreach (var row in others)
        {
            var place = rows.FindIndex(known => known.Key == row.Key);
            if (place < 0)
            {
                place = last + 1;
                while (place < rows.Count && (rows[place].Level > row.Level
                    || (rows[place].Kind == RowKind.Account && row.Kind == RowKind.Account && rows[place].Level == row.Level
                        && CodeOrder.Instance.Compare(rows[place].Key, row.Key) < 0)))
                {
                    place++;
                }

                rows.Insert(place, row);
            }

            last = place;
        }
    }
}
