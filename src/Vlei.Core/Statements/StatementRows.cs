using Vlei.Core.Ledger;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core.Statements;

/// <summary>The rows of a layout for one book: what each adds up, and which of them are shown.</summary>
internal sealed class StatementRows
{
    private readonly ReportRequest _request;
    private readonly StatementFigures _figures;
    private readonly int? _depth;
    private readonly ILookup<AccountKey, Account> _children;
    private readonly Account? _retained;
    private readonly List<FigureRow<TermSums>> _rows = [];
    private readonly Dictionary<string, bool> _wanted = [];
    private readonly Dictionary<string, FigureRow<TermSums>> _values = [];
    private readonly Dictionary<string, List<(Account Account, int Depth, TermSums Sum)>> _rowsOf = [];
    private readonly IReadOnlyList<StatementPart> _parts;
    private readonly StatementPart? _last;

    /// <summary>Makes the rows.</summary>
    public StatementRows(
        StatementLayout layout, ReportRequest request, StatementFigures figures, IReadOnlyList<Account> accounts)
    {
        (_request, _figures, _depth) = (request, figures, DepthOf(request));
        _children = accounts.OrderBy(account => account.Code, CodeOrder.Instance).ToLookup(account => account.ParentKey ?? default);
        _retained = accounts.FirstOrDefault(account => account.Type == AccountType.RetainedEarnings);
        _parts = [.. layout.AllParts];
        Lines = [.. _parts.OfType<StatementLine>()];
        _last = layout.Parts.LastOrDefault(IsWanted);
        foreach (var part in layout.Parts.Where(IsWanted))
        {
            Value(part);
        }

        foreach (var part in layout.Parts.Where(IsWanted))
        {
            Add(part, 0, null, null);
        }
    }

    /// <summary>The rows that are shown, from the top down.</summary>
    public IReadOnlyList<FigureRow<TermSums>> Rows => _rows;

    /// <summary>The lines that accounts stand in.</summary>
    public IReadOnlyList<StatementLine> Lines { get; }

    private static int? DepthOf(ReportRequest request) => !request.Summary ? request.Depth : request.Depth is null or 0 ? 0
        : throw new ProblemException(
            ProblemKind.Usage, "--summary shows totals alone, as --depth 0 does.", "Give --summary, or --depth with more levels.");

    // What rests on a row that is left out is left out with it.
    private bool IsWanted(StatementPart part)
    {
        if (!_wanted.TryGetValue(part.Text.Key, out var isWanted))
        {
            _wanted[part.Text.Key] = isWanted = (!part.Text.IsOfWhole || (_figures.Filter.IsEverything && !_figures.IsSliced))
                && (part is not StatementResult result || result.Formula.Keys.All(IsWanted));
        }

        return isWanted;
    }

    private bool IsWanted(string key) => IsWanted(PartOf(key));

    private StatementPart PartOf(string key) => _parts.First(part => part.Text.Key == key);

    // What a part comes to, as a row that nobody need show.
    private FigureRow<TermSums> Value(StatementPart part)
    {
        var (sums, formula) = part switch
        {
            StatementGroup group => (TermSums.Of(group.Parts.Where(IsWanted)
                .Select(inner => (Value: Value(inner), IsOwn: inner is not StatementResult)).ToList()
                .FindAll(inner => inner.IsOwn).ConvertAll(inner => (inner.Value.Of, 1))), null),
            StatementLine line => (TermSums.Of([.. line.Accounts.Select(account => OwnTerm(account, line.Sign))]), null),
            StatementComputed computed => (TermSums.Of([.. computed.Terms]), null),
            StatementResult { Formula.IsSum: true } result when result.Formula.Keys.All(key => _values[key].Formula is null) =>
                (TermSums.Of([.. result.Formula.Parts.Select(part => (_values[part.Key].Of, part.Sign))]), null),
            StatementResult result => (default(TermSums), new RowFormula<TermSums>(
                result.Formula, result.Formula.Keys.Distinct().ToDictionary(key => key, key => _values[key]),
                result.Text.Show == "percent" ? ColumnKind.Percent : ColumnKind.Ratio)),
            _ => throw new InvalidOperationException($"There is no such part: {part}."),
        };
        return _values[part.Text.Key] = new FigureRow<TermSums>(
            part.Text.Key, Caption.Ours(part.Text.Label), RowKind.Account, 0, sums)
        { Formula = formula };
    }

    // A part stands in a group, and counts in the total of one that is shown.
    private void Add(StatementPart part, int level, TermSums? group, string? total)
    {
        var (place, own) = (_rows.Count, $"total-{part.Text.Key}");
        switch (part)
        {
            case StatementGroup parts:
                foreach (var inner in parts.Parts.Where(IsWanted))
                {
                    Add(inner, level + 1, TotalOf(part), own);
                }

                Enclose(part, level, place, total);
                break;
            case StatementLine { Text.IsEach: false } line:
                AddLine(line, level, group ?? TotalOf(part), total);
                break;
            case StatementLine { Text.HasHeading: true } line:
                AddAccounts(line, level + 1, TotalOf(part), own);
                Enclose(part, level, place, total);
                break;
            case StatementLine line:
                AddAccounts(line, level, group ?? TotalOf(part), total);
                break;
            case StatementComputed computed:
                _rows.Add(_values[part.Text.Key] with { Label = LabelOf(computed), Level = level, Within = group, CountsIn = total });
                break;
            case StatementResult result when part.Text.OnlyWith.Count == 0 || part.Text.OnlyWith.Any(IsShown):
                _rows.Add(_values[part.Text.Key] with
                {
                    Kind = part == _last ? RowKind.GrandTotal : RowKind.Result,
                    Level = level,
                    MadeOf = _values[part.Text.Key].Formula is null ? [.. result.Formula.Parts.Select(made => (made.Key, made.Sign))]
                        : null,
                });
                break;
        }
    }

    private bool IsShown(string key) => IsWanted(key) && HasRows(PartOf(key));

    private TermSums TotalOf(StatementPart part) => _values[part.Text.Key].Of;

    private Caption LabelOf(StatementComputed computed) => computed.Text.Computed == ComputedRow.RetainedEarnings && _retained is not null
        ? Caption.Name(_retained.Name) : Caption.Ours(computed.Text.Label);

    // Where anything is shown, a heading goes above it and the total below; the depth may hide what was shown between.
    private void Enclose(StatementPart part, int level, int place, string? total)
    {
        if (!HasRows(part))
        {
            return;
        }

        if (_depth != 0)
        {
            _rows.Insert(place, FigureRow<TermSums>.Heading(part.Text.Key, Caption.Ours(part.Text.Label), level));
        }

        var label = part.Text.Label;
        _rows.Add(new FigureRow<TermSums>(
            $"total-{part.Text.Key}", Caption.Ours($"Total {char.ToLowerInvariant(label[0])}{label[1..]}"), RowKind.Total, level,
            TotalOf(part))
        {
            Within = TotalOf(part), CountsIn = total,
        });
    }

    private bool HasRows(StatementPart part) => part switch
    {
        StatementGroup group => group.Parts.Where(IsWanted).Any(HasRows),
        StatementLine { Text.IsEach: true } line => RowsOf(line).Count > 0,
        StatementLine line => _figures.Has(TotalOf(line)) || _request.Statement.Zeros,
        _ => true,
    };

    private void AddLine(StatementLine line, int level, TermSums group, string? total)
    {
        if (HasRows(line))
        {
            _rows.Add(_values[line.Text.Key] with { Level = level, Within = group, CountsIn = total });
        }
    }

    // An account's parts stand below it, and are in its figure already.
    private void AddAccounts(StatementLine line, int level, TermSums group, string? total)
    {
        var shown = RowsOf(line).Where(row => row.Depth <= (_depth ?? int.MaxValue)).ToList();
        foreach (var (place, (account, depth, sum)) in shown.Index())
        {
            var parts = shown.Skip(place + 1).TakeWhile(row => row.Depth > depth).Where(row => row.Depth == depth + 1).ToList();
            _rows.Add(new FigureRow<TermSums>(account.Code, account.Name, RowKind.Account, level + depth - 1, sum)
            {
                Within = group,
                CountsIn = depth == 1 ? total : null,
                MadeOf = parts.Count == 0 ? null : [.. parts.Select(part => (part.Account.Code, 1))],
            });
        }
    }

    // They are asked for to see whether there are any, and then to be shown.
    private List<(Account Account, int Depth, TermSums Sum)> RowsOf(StatementLine line)
    {
        if (_rowsOf.TryGetValue(line.Text.Key, out var rows))
        {
            return rows;
        }

        _rowsOf[line.Text.Key] = rows = [];
        var own = line.Accounts.Select(account => account.Key).ToHashSet();
        foreach (var account in line.Accounts.Where(account => account.ParentKey is not { } parent || !own.Contains(parent)))
        {
            AddAccount(account, 1, line, own, rows);
        }

        return rows;
    }

    // An account and its parts, as far as they stand in the same line: its own postings and theirs make its figure.
    private TermSums AddAccount(
        Account account, int depth, StatementLine line, HashSet<AccountKey> own, List<(Account, int, TermSums)> rows)
    {
        var place = rows.Count;
        var sum = TermSums.Of(OwnTerm(account, line.Sign));
        foreach (var part in _children[account.Key].Where(part => own.Contains(part.Key)))
        {
            sum = TermSums.Of([(sum, 1), (AddAccount(part, depth + 1, line, own, rows), 1)]);
        }

        if (rows.Count > place || _figures.Has(sum) || (_request.Statement.Zeros && account.Active))
        {
            rows.Insert(place, (account, depth, sum));
        }

        return sum;
    }

    private static Term OwnTerm(Account account, int sign) => new(account.Key, Span.Days, sign);
}
