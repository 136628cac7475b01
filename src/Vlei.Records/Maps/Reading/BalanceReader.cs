using System.Globalization;
using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Records.Maps.Reading;

/// <summary>
/// Reads trial balances of a day, grids of accounts by months, and budgets. What is shown on a day becomes the document that brings the
/// book there: of what it has already only the difference.
/// </summary>
internal sealed class BalanceReader(MappedRow row)
{
    private readonly SourceRows _rows = row.Rows;
    private readonly List<(string Account, string Said, Dictionary<int, decimal> Figures, FilePoint At)> _shown = [];
    private readonly List<(int Column, DateOnly Day)> _days = [];
    private string _section = "";

    /// <summary>Reads the rows.</summary>
    public void Read()
    {
        _days.AddRange(MonthHeadings.In(_rows.Headings, _rows.Title, row.Reading.Words));
        while (_rows.Read())
        {
            if (_rows.Kind == SourceRowKind.Heading)
            {
                _section = _rows.Cells.First();
            }
            else if (_rows.Kind == SourceRowKind.Data)
            {
                Take();
            }
        }

        if (row.Map.Shape == Shape.Budget)
        {
            AddBudgets();
        }
        else if (_days.Count == 0)
        {
            var day = DayOf();
            row.Reading.AtEnd(day, 0, () => AddDay(day));
        }
        else
        {
            row.Reading.AtEnd(_days[0].Day, 0, AddMonths);
        }
    }

    private void Take()
    {
        var text = row.Text(ColumnRole.Account) is { Length: > 0 } code ? code : row.Text(ColumnRole.AccountName);
        if (text.Length == 0)
        {
            return;
        }

        var at = row.At(ColumnRole.Account);
        var account = row.Reading.Accounts.Find(text, row.Text(ColumnRole.AccountName), row.TypeWord(_section), row.Map, at);
        if (_shown.Find(shown => shown.Account == account) is { Account: not null } before)
        {
            _rows.Complain(ColumnRole.Account, $"\"{text}\" is there twice, first in line {before.At.Line}; a row is an account here.");
            return;
        }

        var figures = new Dictionary<int, decimal>();
        if (_days.Count == 0)
        {
            if (row.Posted(account) is not { } amount)
            {
                return;
            }

            figures[0] = amount;
            row.Reading.Accounts.Note(account, amount);
        }

        foreach (var (column, _) in _days)
        {
            if (_rows.TextAt(column).Length > 0 && Figure(column, account) is { } figure)
            {
                figures[column] = figure;
            }
        }

        _shown.Add((account, text, figures, at with { Column = _days.Count == 0 ? row.PostedColumn() : at.Column }));
    }

    private decimal? Figure(int column, string account)
    {
        if (!_rows.TryNumber(column, out var number))
        {
            row.Reading.Errors.Add(_rows.Name, _rows.Line, column + 1, $"\"{_rows.TextAt(column)}\" is no number.");
            return null;
        }

        return row.Signed(number, account);
    }

    private DateOnly DayOf()
    {
        if (row.Map.Day is { } said)
        {
            return said;
        }

        if (MonthHeadings.DayIn(_rows.Title, row.Map.Dates, row.Reading.Words) is { } titled)
        {
            return titled;
        }

        row.Reading.Errors.Add(
            _rows.Name, 1, 1,
            $"nothing above the headings says what day the balances are of; write day = \"2026-03-31\" into {row.Map.Path}.");
        return DateOnly.MaxValue;
    }

    private void AddDay(DateOnly day)
    {
        if (day == DateOnly.MaxValue || _shown.Count == 0)
        {
            return;
        }

        var sum = _shown.Sum(shown => shown.Figures[0]);
        if (sum != 0)
        {
            row.Reading.Proof.Fail(
                _rows.Name, _shown[^1].At.Line, _shown[^1].At.Column,
                $"the balances sum to {sum.ToString(CultureInfo.InvariantCulture)}; expected 0, debits and credits alike.");
        }

        AddDifference(day, _shown.ToDictionary(
            shown => shown.Account, shown => shown.Figures[0], StringComparer.Ordinal), "opening",
            "Balances as the trial balance shows them");
        Expect(day, _shown.Select(shown => (shown.Account, shown.Figures[0], shown.At)));
    }

    private void AddMonths()
    {
        foreach (var (column, day) in _days)
        {
            var figures = _shown.Where(shown => shown.Figures.ContainsKey(column)).ToDictionary(
                shown => shown.Account, shown => shown.Figures[column], StringComparer.Ordinal);
            if (row.Map.HasBalances)
            {
                AddDifference(day, figures, "journal", "Movement of the month");
                Expect(day, _shown.Where(shown => shown.Figures.ContainsKey(column))
                    .Select(shown => (shown.Account, shown.Figures[column], shown.At with { Column = column + 1 })));
            }
            else
            {
                Add(day, figures, "journal", "Movement of the month");
            }
        }
    }

    // What is already there, in the book or in these files, is not brought in again.
    private void AddDifference(DateOnly day, Dictionary<string, decimal> figures, string kind, string memo)
    {
        foreach (var (account, amount) in row.Reading.StandingAt(day, IdOf(day)))
        {
            figures[account] = figures.GetValueOrDefault(account) - amount;
        }

        Add(day, figures, kind, memo);
    }

    private string IdOf(DateOnly day) => $"{row.Map.Prefix}{day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture)}";

    private void Add(DateOnly day, Dictionary<string, decimal> figures, string kind, string memo)
    {
        var document = new DraftDocument
        {
            Id = IdOf(day), Kind = kind, Date = day, Memo = memo, Line = _shown.Count == 0 ? 1 : _shown[0].At.Line,
        };
        foreach (var (account, amount) in figures.Where(figure => figure.Value != 0))
        {
            var at = _shown.Find(shown => shown.Account == account).At;
            document.Lines.Add(
                new DraftLine { Account = account, Amount = amount, Line = Math.Max(1, at.Line), Column = Math.Max(1, at.Column) });
        }

        if (document.Lines.Sum(line => line.Amount) is not 0 and var sum && row.Map.Shape == Shape.Balances && _days.Count > 0)
        {
            var at = new FilePoint(_rows.Name, document.Line, 1);
            document.Lines.Add(new DraftLine
            {
                Account = row.Reading.AccountFor("opening", row.Map, at), Amount = -sum, Line = at.Line, Column = 1,
                Memo = "Result of the month",
            });
        }

        if (document.Lines.Count > 0)
        {
            row.Reading.Add(document, "");
        }
    }

    private void Expect(DateOnly day, IEnumerable<(string Account, decimal Balance, FilePoint At)> shown)
    {
        var decimals = (decimal)Math.Pow(10, row.Reading.Known.Currency.Decimals);
        foreach (var (account, balance, at) in shown)
        {
            row.Reading.Balances.Add(
                new BalanceProof(account, day, new Amount((long)(balance * decimals)), at.File, at.Line, at.Column));
        }
    }

    // A budget is positive where its account usually is.
    private void AddBudgets()
    {
        foreach (var (account, _, figures, at) in _shown)
        {
            var sign = AccountTypes.IsCreditPositive(row.Reading.Accounts.TypeOf(account)) ? -1 : 1;
            foreach (var (column, day) in _days.Where(day => figures.ContainsKey(day.Column)))
            {
                var records = row.Reading.Of(RecordTables.Budgets);
                records.Begin(at.Line);
                records.Put("account", account, at.Column);
                records.Put("month", day.ToString("yyyy-MM", CultureInfo.InvariantCulture), column + 1);
                records.Put("amount", sign * figures[column], column + 1);
                records.End();
            }
        }
    }
}
