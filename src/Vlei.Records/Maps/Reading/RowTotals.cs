namespace Vlei.Records.Maps.Reading;

/// <summary>Adds up the figures of a file, and holds its own totals against them.</summary>
internal sealed class RowTotals(SourceRows rows, SourceColumns columns, SourceProof proof)
{
    private readonly (decimal All, decimal Part)[] _sums = new (decimal, decimal)[ColumnRole.All.Count];
    private readonly ColumnRole[] _summed = [.. Summed.Where(rows.Has)];
    private int _rowsOfPart;

    /// <summary>The columns that a total can be of.</summary>
    public static IReadOnlyList<ColumnRole> Summed { get; } =
    [
        ColumnRole.Debit, ColumnRole.Credit, ColumnRole.Amount, ColumnRole.Net, ColumnRole.Tax, ColumnRole.Total, ColumnRole.Open,
        ColumnRole.MoneyIn, ColumnRole.MoneyOut,
    ];

    /// <summary>What a column adds up to so far.</summary>
    public decimal Of(ColumnRole role) => _sums[role.Place].All;

    /// <summary>Begins to add up anew, as behind the heading of an account.</summary>
    public void BeginPart()
    {
        _rowsOfPart = 0;
        for (var role = 0; role < _sums.Length; role++)
        {
            _sums[role].Part = 0;
        }
    }

    /// <summary>Adds the row at hand.</summary>
    public void Add()
    {
        _rowsOfPart++;
        foreach (var role in _summed)
        {
            if (rows.Text(role).Length > 0 && rows.TryNumber(columns.Of(role), out var number))
            {
                ref var sum = ref _sums[role.Place];
                var value = number.Side == NumberSide.Credit ? -number.Value : number.Value;
                sum = (sum.All + value, sum.Part + value);
            }
        }
    }

    /// <summary>Holds the row at hand, which is a total, against the rows since the one before it, or against all.</summary>
    public void Prove()
    {
        foreach (var role in _summed)
        {
            var column = columns.Of(role);
            if (rows.Text(role).Length == 0 || !rows.TryNumber(column, out var number))
            {
                continue;
            }

            var (all, part) = _sums[role.Place];
            proof.Hold(
                rows.Name, rows.Line, column + 1, $"the total of {rows.HeadingOf(role)}", number.Value,
                number.Value == part || (number.Value != all && _rowsOfPart > 0) ? part : all);
        }

        BeginPart();
    }
}
