using Vlei.Core.Ledger;
using Vlei.Core.Reports;

namespace Vlei.Core.Statements;

/// <summary>
/// The order of accounts where one is asked for, and the first few of them. Accounts stay where the layout has them: those that
/// stand together are put in order among themselves, each with its parts below it.
/// </summary>
/// <param name="request">What is asked.</param>
/// <param name="columns">The columns.</param>
/// <param name="largest">The place of the column that says which accounts are the largest.</param>
/// <param name="cellOf">What a row has in a column.</param>
internal sealed class AccountOrder(
    ReportRequest request, IReadOnlyList<ReportColumn> columns, int largest, Func<FigureRow<TermSums>, int, Cell> cellOf)
{
    private const string Total = "total";

    private readonly HashSet<string> _rests = [];

    /// <summary>The rows in that order. Throws a <see cref="Problems.ProblemException"/> where there is no such column.</summary>
    /// <param name="rows">The rows of a statement.</param>
    /// <param name="accounts">The accounts of the book.</param>
    public IReadOnlyList<FigureRow<TermSums>> Of(IReadOnlyList<FigureRow<TermSums>> rows, IEnumerable<Account> accounts)
    {
        SortOrder.Refuse(request.Sort, columns, [RowOrder.Name]);
        if (request.Sort.Count == 0 && request.Top is null)
        {
            return rows;
        }

        var (codes, ordered) = (accounts.Select(account => account.Code).ToHashSet(), new List<FigureRow<TermSums>>());
        for (var place = 0; place < rows.Count;)
        {
            var end = place;
            while (end < rows.Count && rows[end].Level >= rows[place].Level
                && (rows[end].Kind == RowKind.Group || (rows[end].Kind == RowKind.Account && codes.Contains(rows[end].Key))))
            {
                end++;
            }

            ordered.AddRange(end == place ? [rows[place]] : Shortened(Sorted([.. rows.Skip(place).Take(end - place)])));
            place = Math.Max(end, place + 1);
        }

        return ordered;
    }

    // Accounts of one level, each with the rows of its parts behind it.
    private List<List<FigureRow<TermSums>>> Sorted(IReadOnlyList<FigureRow<TermSums>> run)
    {
        var trees = new List<List<FigureRow<TermSums>>>();
        foreach (var row in run)
        {
            if (row.Level == run[0].Level)
            {
                trees.Add([]);
            }

            trees[^1].Add(row);
        }

        var keys = RowOrder.Keys(request, columns[largest].Key);
        return [.. RowOrder.Sorted(trees, keys, key => ColumnNames.PlaceOf(key, columns) is >= 0 and var column
            ? tree => cellOf(tree[0], column) : tree => Cell.Of(tree[0].Label.English))
            .Select(tree => tree.Count == 1 ? tree : [tree[0], .. Sorted([.. tree.Skip(1)]).SelectMany(part => part)])];
    }

    private IEnumerable<FigureRow<TermSums>> Shortened(List<List<FigureRow<TermSums>>> trees)
    {
        var shown = trees.Take(request.Top ?? trees.Count).SelectMany(tree => tree);
        return request.Top is not { } top || trees.Count <= top ? shown : shown.Append(Rest([.. trees.Skip(top).Select(tree => tree[0])]));
    }

    // The rest of a section has a key of its own.
    private FigureRow<TermSums> Rest(IReadOnlyList<FigureRow<TermSums>> rows)
    {
        var section = rows[0].CountsIn is { } total && total.StartsWith(Total, StringComparison.Ordinal)
            ? total[Total.Length..].Trim('-', '(', ')') : "";
        var key = section.Length == 0 ? RowOrder.Rest : $"{RowOrder.Rest}({section})";
        return rows[0] with
        {
            Key = _rests.Add(key) ? key : $"{RowOrder.Rest}({rows[0].Key})",
            Label = RowOrder.RestLabel(rows.Count),
            Of = TermSums.Together(rows.Select(row => row.Of)),
        };
    }
}
