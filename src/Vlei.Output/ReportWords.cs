using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Reports;

namespace Vlei.Output;

/// <summary>What every form that people read says in the same words.</summary>
internal static class ReportWords
{
    /// <summary>What the report's amounts are.</summary>
    public static string InWhat(Report report) =>
        report.InWhat ?? $"{(report.Basis == AccountingBasis.Cash ? "Cash" : "Accrual")} basis, in {report.Currency.Code}";

    /// <summary>A check that failed.</summary>
    public static string Failed(Report report, ReportCheck check)
    {
        var where = check.Column.Length == 0 ? "" : $" ({check.Column})";
        return check.Fault is { } fault ? $"CHECK FAILED: {check.Name}{where}: {fault}."
            : $"CHECK FAILED: {check.Name}{where}: expected {Text(check.Expected)}, came to {Text(check.Actual)}.";

        string Text(Amount amount) => DecimalText.Write(amount.MinorUnits, report.Currency.Decimals);
    }

    /// <summary>The checks that people are shown: whom a letter is sent to has nothing to do with them, unless one fails; then it should not be sent.</summary>
    public static IReadOnlyList<ReportCheck> ShownChecks(Report report) =>
        report.AddressedTo.Count > 0 ? [.. report.Checks.Where(check => !check.Ok)] : report.Checks;

    /// <summary>What holds, each once.</summary>
    public static IEnumerable<string> Held(IEnumerable<ReportCheck> checks) =>
        checks.GroupBy(check => check.Name).Where(same => same.All(check => check.Ok)).Select(same => $"Checked: {same.Key}.");

    /// <summary>
    /// Whether a cell is a reason to show its column. A column of words that says nothing, or only what stands before the
    /// figures already, costs a reader its width; so does one of figures that need not be there.
    /// </summary>
    public static bool Speaks(Report report, ReportRow row, int column) => report.Columns[column].Kind == ColumnKind.Text
        ? row.Cells[column].Words is { } words && words != row.Label
        : !report.Columns[column].IsLeftOutWhenIdle || row.Cells[column].Units is not (null or 0);

    /// <summary>The columns that readers are shown.</summary>
    public static int[] ShownColumns(Report report)
    {
        var speaks = new bool[report.Columns.Count];
        foreach (var row in report.Rows)
        {
            for (var column = 0; column < speaks.Length; column++)
            {
                speaks[column] = speaks[column] || Speaks(report, row, column);
            }
        }

        return [.. Enumerable.Range(0, speaks.Length).Where(column => speaks[column])];
    }

    /// <summary>A figure for people; a change is marked as up, down or same.</summary>
    public static string Figure(Report report, ReportRow row, int column, bool ascii)
    {
        var (readable, mark) = FigureAndMark(report, row, column);
        var figure = DisplayText.Harmless(readable, ascii);
        return mark is null ? figure : $"{figure} {(ascii ? "v=^"["▼=▲".IndexOf(mark.Value, StringComparison.Ordinal)] : mark)}";
    }

    /// <summary>A figure for people, and the mark of a change; nothing where it is none.</summary>
    public static (string Figure, char? Mark) FigureAndMark(Report report, ReportRow row, int column)
    {
        var described = report.Columns[column];
        var isMarked = described.IsChange && row.KindIn(described) is ColumnKind.Money or ColumnKind.Quantity or ColumnKind.Count;
        return (Figures.Readable(report, row, column), isMarked && row.Cells[column].Units is { } units ? "▼=▲"[Math.Sign(units) + 1] : null);
    }
}
