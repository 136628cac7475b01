using Vlei.Core.Ledger;
using Vlei.Core.Problems;

namespace Vlei.Core.Fields;

/// <summary>A formula over the number fields of a table, and what kind of number comes out of it.</summary>
internal sealed class ReckonedField
{
    private readonly Formula _formula;
    private readonly Dictionary<string, BoundField> _fields;

    /// <summary>
    /// Looks the fields up. Throws a <see cref="ProblemException"/> where there is no such field, or where one is no number.
    /// </summary>
    public ReckonedField(Formula formula, TableFields fields)
    {
        _formula = formula;
        _fields = formula.Keys.Distinct(StringComparer.OrdinalIgnoreCase)
            .ToDictionary(name => name, fields.Named, StringComparer.OrdinalIgnoreCase);
        if (_fields.Values.FirstOrDefault(bound => !bound.Field.IsNumber) is { } other)
        {
            const int MostNamed = 12;
            var numbers = fields.All().Where(known => known.IsNumber).Select(known => known.Name).Take(MostNamed);
            throw new ProblemException(
                ProblemKind.Usage, $"{other.Field.Name} is a {other.Field.TypeName}; only numbers can be reckoned with.",
                $"Numbers are {Suggestion.Listed([.. numbers], "and")}.");
        }

        Type = TypeOf(formula);
    }

    /// <summary>The fields that are in it.</summary>
    public IEnumerable<BoundField> Fields => _fields.Values;

    /// <summary>Money, a quantity, a whole number, or <see cref="FieldType.Decimal"/> for anything else.</summary>
    public FieldType Type { get; }

    /// <summary>
    /// Whether what it comes to for many rows is the sum of what it comes to for each. Where something is divided by fields it
    /// is not: the price of many is not the sum of their prices.
    /// </summary>
    public bool AddsUp => IsSum(_formula);

    /// <summary>What it comes to for each row; nothing where a field has nothing, or something is divided by zero.</summary>
    public Func<int, decimal?> Read(RowSet rows)
    {
        var cells = _fields.ToDictionary(
            pair => pair.Key, pair => (pair.Value.Read(rows).Numbers, Scale: ScaleOf(pair.Value)), StringComparer.OrdinalIgnoreCase);
        return _formula is Formula.Named single && cells[single.Name] is var (numbers, scale)
            ? row => numbers[row] == FieldCells.Nothing ? null : numbers[row] / scale
            : row => _formula.ValueOf(
                name => cells[name] is var (own, ownScale) && own[row] != FieldCells.Nothing ? own[row] / ownScale : null);
    }

    /// <summary>What it comes to where the fields are known, in their own units.</summary>
    public decimal? ValueOf(Func<BoundField, long?> unitsOf) =>
        _formula.ValueOf(name => unitsOf(_fields[name]) is { } units ? units / ScaleOf(_fields[name]) : null);

    /// <summary>A number in units of which there are 10^<paramref name="decimals"/> to one, half to even.</summary>
    public static long UnitsOf(decimal value, int decimals)
    {
        var scale = 1m;
        for (var place = 0; place < decimals; place++)
        {
            scale *= 10;
        }

        return checked((long)Math.Round(value * scale, MidpointRounding.ToEven));
    }

    private static decimal ScaleOf(BoundField field) => field.Decimals == 0 ? 1m : DecimalPowers[field.Decimals];

    private static readonly decimal[] DecimalPowers =
        [.. Enumerable.Range(0, RecordField.DecimalPlaces + 1).Select(power => (decimal)Math.Pow(10, power))];

    // Each part is looked at once, however many there are.
    private FieldType TypeOf(Formula formula) => formula switch
    {
        Formula.Named named => _fields[named.Name].Field.Type,
        Formula.Pair pair => TypeOf(pair.Operator, TypeOf(pair.Left), TypeOf(pair.Right)),
        _ => FieldType.Integer,
    };

    private static FieldType TypeOf(char sign, FieldType left, FieldType right) => sign switch
    {
        '+' or '-' => left is FieldType.Integer ? right : left,
        '*' when left == FieldType.Money != (right == FieldType.Money) => FieldType.Money,
        '/' when left == FieldType.Money && right != FieldType.Money => FieldType.Money,
        _ => FieldType.Decimal,
    };

    private static bool IsSum(Formula formula) => formula is not Formula.Pair pair
        || (IsSum(pair.Left) && IsSum(pair.Right) && (pair.Operator != '/' || !pair.Right.Names.Any()));
}
