using Vlei.Core.Languages;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Reports;

namespace Vlei.Output;

/// <summary>
/// A report as people read it: its words in its language, its numbers and days as its looks have them. Every format for people
/// says the same.
/// </summary>
internal sealed class ReportWords
{
    private const string Dash = "–";
    private const int PercentDecimalsShown = 1;
    private const int RatioDecimalsShown = 2;

    private readonly Report _own;
    private readonly NumberLook _numbers;

    /// <summary>Reads a report.</summary>
    public ReportWords(Report report)
    {
        _own = report;
        Language = report.Look.Language ?? Language.English;
        _numbers = new NumberLook(report.Look, Language);
        Report = Language == Language.English && _numbers.IsPlain ? report : ReportTranslation.Of(report, Language, _numbers);
        if (report.Look.Chart is not null)
        {
            // A document that is made every month is made in a month without figures too.
            Chart = ReportChart.Of(Report, out var refusal);
            NoChart = refusal is null ? null : $"{Language.Say("No chart")}: {refusal.Message}";
        }
    }

    private ReportWords(ReportWords words, Report report) =>
        (_own, _numbers, NoChart, Language, Report, Chart) =
            (words._own, words._numbers, words.NoChart, words.Language, report, words.Chart);

    /// <summary>Why there is no chart where one is asked for; nothing else.</summary>
    public string? NoChart { get; }

    /// <summary>
    /// The chart that goes with it; nothing where none is asked for, or there is nothing to draw, which its head says then.
    /// </summary>
    public ReportChart? Chart { get; }

    /// <summary>The report, in its language.</summary>
    public Report Report { get; }

    /// <summary>Its language.</summary>
    public Language Language { get; }

    /// <summary>How it looks.</summary>
    public ReportLook Look => Report.Look;

    /// <summary>The records that go along with it, with the names of its figures as their headings; nothing where none do.</summary>
    public ReportWords? Records
    {
        get
        {
            if (Report.Records is not { } records)
            {
                return null;
            }

            var list = new ReportWords(records.List);
            return list.With(list.Report with
            {
                Rows = new RowList(list.Report.Rows.Count, place => records.FigureOf(place) is { } figure
                    ? list.Report.Rows[place] with
                    {
                        Label =
                        $"{Report.Rows[figure.Row].Label}, {Report.Columns[figure.Column].Heading}"
                    } : list.Report.Rows[place]),
            });
        }
    }

    /// <summary>The documents that go along with those records; nothing where none do.</summary>
    public ReportWords? Documents => Report.Records?.Documents is { } documents ? new ReportWords(documents) : null;

    /// <summary>The places of the rows that documents begin with, by the documents' ids.</summary>
    public Dictionary<string, int> RowsOfDocuments()
    {
        var (rows, place) = (new Dictionary<string, int>(), 0);
        foreach (var row in Report.Rows)
        {
            _ = row.Document is { } id && rows.TryAdd(id, place);
            place++;
        }

        return rows;
    }

    /// <summary>The same with more to be shown.</summary>
    public ReportWords With(Report report) => new(this, report);

    /// <summary>What stands between thousands.</summary>
    public string ThousandsMark => _numbers.ThousandsMark;

    /// <summary>What stands before decimals.</summary>
    public string DecimalMark => _numbers.DecimalMark;

    /// <summary>What the report's amounts are.</summary>
    public string InWhat
    {
        get
        {
            var currency = Report.Currency.Code;
            var money = Look.ScaleDigits switch
            {
                0 => currency,
                3 => Language.Say("thousands of {0}", [currency]),
                _ =>
                Language.Say("millions of {0}", [currency])
            };
            return _own.InWhat is null ? Language.Say(
                _own.HasBothBases ? "Accrual and cash basis, in {0}" : _own.Basis == AccountingBasis.Cash ? "Cash basis, in {0}"
                    : "Accrual basis, in {0}", [money])
                : Look.ScaleDigits == 0 ? Language.Say(_own.InWhat) : $"{Language.Say(_own.InWhat)}, {money}";
        }
    }

    /// <summary>What stands below the title, a line each.</summary>
    public IReadOnlyList<string> Head =>
        [.. Look.Subtitle is { } subtitle ? new[] { subtitle } : [], Report.Book, Report.PeriodInWords, InWhat, .. Report.Narrowed,
            .. Report.Notes, .. NoChart is null ? [] : new[] { NoChart }];

    /// <summary>What stands below the rows: what is said there, what was checked, and what failed; each with whether it failed.</summary>
    public IReadOnlyList<(string Line, bool IsFailed)> Foot =>
    [
        .. Said(Report.Foot), .. Said(Explained), .. Said(Held), .. Said(Failed, isFailed: true),
        .. Look.Footer is { } footer ? new[] { (footer, false) } : [],
    ];

    private static IEnumerable<(string Line, bool IsFailed)> Said(IEnumerable<string> lines, bool isFailed = false)
    {
        foreach (var line in lines)
        {
            yield return (line, isFailed);
        }
    }

    /// <summary>What made its last total change, as it is counted: what makes a cost larger makes the profit smaller.</summary>
    public IEnumerable<string> Explained => Report.Explanation is not { } explanation ? [] :
    [
        Language.Say("What made {0} change by {1} against {2}:",
            [
                explanation.Row.In(Language, _numbers.WithDays), MoneyText(explanation.Change),
                _numbers.WithDays(Language.Say(explanation.Against)),
            ]),
        .. explanation.Reasons.Select(reason => $"{Signed(reason.Change)}  {reason.Name.In(Language, _numbers.WithDays)}"
            + (reason.Remark.Length == 0 ? "" : $" ({Language.Say(reason.Remark)})")),
        .. explanation.Others is not var (rest, change) ? [] : new[] { $"{Signed(change)}  {rest.In(Language, _numbers.WithDays)}" },
    ];

    private string Signed(Amount amount) => $"{(amount.Sign > 0 ? "+" : "")}{MoneyText(amount)}";

    /// <summary>What holds, each once.</summary>
    public IEnumerable<string> Held
    {
        get
        {
            foreach (var same in ShownChecks.GroupBy(check => check.Name))
            {
                if (same.All(check => check.Ok))
                {
                    yield return Language.Say("Checked: {0}.", [same.Key]);
                }
            }
        }
    }

    /// <summary>What does not.</summary>
    public IEnumerable<string> Failed => ShownChecks.Where(check => !check.Ok).ToList().ConvertAll(FailureOf);

    /// <summary>How a figure looks for people: percentages to one decimal, plain numbers to two.</summary>
    public string Readable(ReportRow row, int column)
    {
        if (row.Cells[column].Units is not { } units)
        {
            return row.Cells[column].Words ?? "";
        }

        if (units == 0 && Look.Nil == NilStyle.Dash && Report.Columns[column].Kind != ColumnKind.Date)
        {
            return Dash;
        }

        const int TenThousandthsToTenths = 1000;
        const int TenThousandthsToHundredths = 100;
        return row.KindIn(Report.Columns[column]) switch
        {
            ColumnKind.Money => Money(units),
            ColumnKind.Date => _numbers.Day(DateOnly.FromDayNumber((int)units)),
            ColumnKind.Count => _numbers.Number(units, 0),
            ColumnKind.Quantity => _numbers.Trimmed(units, Figures.QuantityDecimals),
            ColumnKind.Ratio => _numbers.Number(Rounding.Divide(units, TenThousandthsToHundredths), RatioDecimalsShown),
            _ => _numbers.Number(Rounding.Divide(units, TenThousandthsToTenths), PercentDecimalsShown)
                + (row.InsteadOfMoney is null ? "" : Report.Columns[column].IsChange ? $" {Language.Say("pts")}" : " %"),
        };
    }

    /// <summary>A figure for people; a change is marked as up, down or same.</summary>
    public string Figure(ReportRow row, int column, bool ascii)
    {
        var (readable, mark) = FigureAndMark(row, column);
        var figure = ascii && readable == Dash ? "-" : DisplayText.Harmless(readable, ascii);
        return mark is null ? figure : $"{figure} {(ascii ? "v=^"["▼=▲".IndexOf(mark.Value, StringComparison.Ordinal)] : mark)}";
    }

    /// <summary>A figure for people, and the mark of a change; nothing where it is none.</summary>
    public (string Figure, char? Mark) FigureAndMark(ReportRow row, int column)
    {
        var described = Report.Columns[column];
        var isMarked = described.IsChange && row.KindIn(described) is ColumnKind.Money or ColumnKind.Quantity or ColumnKind.Count;
        return (Readable(row, column), isMarked && row.Cells[column].Units is { } units ? "▼=▲"[Math.Sign(units) + 1] : null);
    }

    /// <summary>
    /// Whether a cell is a reason to show its column. A column of words that says nothing, or only what stands before the
    /// figures already, costs a reader its width; so does one of figures that need not be there.
    /// </summary>
    public bool Speaks(ReportRow row, int column) => Report.Columns[column].IsAskedFor
        || (Report.Columns[column].Kind == ColumnKind.Text ? row.Cells[column].Words is { } words && words != row.Label
        : !Report.Columns[column].IsLeftOutWhenIdle || row.Cells[column].Units is not (null or 0));

    /// <summary>
    /// The columns that readers are shown. It takes a pass over the rows, in which they can be looked at for something else too.
    /// </summary>
    public int[] ShownColumns(Action<ReportRow>? besides = null)
    {
        var speaks = new bool[Report.Columns.Count];
        foreach (var row in RowsAhead.Of(Report.Rows))
        {
            besides?.Invoke(row);
            for (var column = 0; column < speaks.Length; column++)
            {
                speaks[column] = speaks[column] || Speaks(row, column);
            }
        }

        return [.. Enumerable.Range(0, speaks.Length).Where(column => speaks[column])];
    }

    /// <summary>Where in its column something stands: words at the left and figures at the right, unless it is said otherwise.</summary>
    public ColumnAlign AlignOf(int column) => ReportLook.For(Look.Aligns, Report.Columns[column])
        ?? (Report.Columns[column].Kind == ColumnKind.Text ? ColumnAlign.Left : ColumnAlign.Right);

    /// <summary>How wide a column is to be, in letters; nothing where that follows from what is in it.</summary>
    public int? WidthOf(int column) => ReportLook.For(Look.Widths, Report.Columns[column]);

    /// <summary>The same for what stands before the figures.</summary>
    public int? LabelWidth => Look.Widths.TryGetValue("label", out var width) ? width : null;

    /// <summary>How many decimals money has.</summary>
    public int MoneyDecimals => Look.Decimals ?? (Look.ScaleDigits > 0 ? 0 : Report.Currency.Decimals);

    // Whom a letter is sent to has nothing to do with what was checked, unless something failed; then it should not be sent.
    private IEnumerable<ReportCheck> ShownChecks => Report.AddressedTo.Count > 0 ? Report.Checks.Where(check => !check.Ok) : Report.Checks;

    private string Money(long units)
    {
        var (decimals, own) = (MoneyDecimals, Report.Currency.Decimals + Look.ScaleDigits);
        var shown = units;
        for (var digits = own; digits < decimals; digits++)
        {
            shown = checked(shown * 10);
        }

        for (var (digits, divisor) = (own, 1L); digits > decimals; digits--)
        {
            divisor *= 10;
            shown = digits - 1 == decimals ? Rounding.Divide(units, divisor) : shown;
        }

        return _numbers.Number(shown, decimals);
    }

    /// <summary>A sum of money that is no cell, as those are written.</summary>
    public string MoneyText(Amount amount) => Money(amount.MinorUnits);

    private string FailureOf(ReportCheck check)
    {
        var where = check.Column.Length == 0 ? "" : $" ({check.Column})";
        return check.Fault is { } fault ? Language.Say("CHECK FAILED: {0}: {1}.", [check.Name + where, fault])
            : Language.Say("CHECK FAILED: {0}: expected {1}, came to {2}.", [check.Name + where, Text(check.Expected), Text(check.Actual)]);

        string Text(Amount amount) => DecimalText.Write(amount.MinorUnits, Report.Currency.Decimals);
    }
}
