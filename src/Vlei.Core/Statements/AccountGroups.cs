using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Core.Tables;

namespace Vlei.Core.Statements;

/// <summary>The accounts of a trial balance in groups by what is said of accounts, each group with its total.</summary>
/// <param name="context">The book.</param>
/// <param name="request">What is asked.</param>
internal sealed class AccountGroups(ReportContext context, ReportRequest request)
{
    private const string Total = "total";

    private readonly List<FigureRow<TermSums>> _rows = [];

    /// <summary>
    /// The rows in those groups; what is of no account stays behind them. Throws a <see cref="ProblemException"/> where there is
    /// no such field, or where accounts have none of it.
    /// </summary>
    public IReadOnlyList<FigureRow<TermSums>> Of(IReadOnlyList<FigureRow<TermSums>> rows)
    {
        if (request.List.GroupBy.Count == 0)
        {
            return !request.Summary ? rows : throw new ProblemException(
                ProblemKind.Usage, "--summary shows groups alone, and there are none.", "Add --group-by account.type.");
        }

        var byCode = rows.ToDictionary(row => row.Key);
        var accounts = context.Ledger.Accounts.Where(account => byCode.ContainsKey(account.Code)).ToList();
        var codes = accounts.Select(account => account.Code).ToHashSet();
        var tree = new GroupTree([.. request.List.GroupBy.Select(Field)]);
        if (accounts.Count == 0)
        {
            return rows;
        }

        var groups = tree.Of(new RowSet(PostingColumns.BlockOf(accounts)));
        var own = groups.Zip(accounts).ToLookup(pair => pair.First, pair => byCode[pair.Second.Code]);
        Add(0, tree, tree.InOrder(), own);
        return [.. _rows, .. rows.Where(row => !codes.Contains(row.Key))];
    }

    private FieldIndex Field(string name)
    {
        var bound = new PostingFields(context, request).Named(name);
        return bound.IsOfAccounts ? new FieldIndex(bound, context.Calendar) : throw new ProblemException(
            ProblemKind.Usage, $"Accounts have no {name} by which a trial balance could be grouped; postings have.",
            $"Take --group-by account.type, or vlei show postings --group-by {name},account --summary.");
    }

    private TermSums Add(int group, GroupTree tree, ValuesByKey<int> children, ILookup<int, FigureRow<TermSums>> own)
    {
        var (key, level, place) = (string.Join('/', tree.PathOf(group)), tree.LevelOf(group), _rows.Count);
        var parts = children.Of(group).Select(child => Add(child, tree, children, own)).ToList();
        var total = group == 0 ? Total : $"{Total}({key})";
        if (!request.Summary)
        {
            _rows.AddRange(own[group].Select(row => row with { Level = level, CountsIn = total, Group = tree.PathOf(group) }));
        }

        var sum = TermSums.Together([.. parts, .. own[group].Select(row => row.Of)]);
        if (group > 0)
        {
            AddAround(group, tree, place, sum);
        }

        return sum;
    }

    // Around what stands in it, a group has a heading and a total; alone it is one row.
    private void AddAround(int group, GroupTree tree, int place, TermSums sum)
    {
        var (path, level, label) = (tree.PathOf(group), tree.LevelOf(group) - 1, tree.LabelOf(group));
        var key = string.Join('/', path);
        var outer = path.Count > 1 ? $"{Total}({string.Join('/', path.SkipLast(1))})" : Total;
        if (_rows.Count == place)
        {
            _rows.Add(new FigureRow<TermSums>(key, label, RowKind.Group, level, sum) { CountsIn = outer, Group = path });
            return;
        }

        _rows.Insert(place, FigureRow<TermSums>.Heading(key, label, level) with { Group = path });
        _rows.Add(new FigureRow<TermSums>($"{Total}({key})", Caption.Ours("Total {0}", label), RowKind.Total, level, sum)
        {
            CountsIn = outer, Group = path,
        });
    }
}
