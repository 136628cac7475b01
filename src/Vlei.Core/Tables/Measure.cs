using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Reports;

namespace Vlei.Core.Tables;

/// <summary>A number that every row has, to be added up: a field, a formula over fields, or one for each row.</summary>
internal sealed class Measure
{
    private readonly ReckonedField? _formula;
    private readonly BoundField? _field;

    private Measure(string key, string heading, FieldType type, int decimals) =>
        (Key, Heading, Type, Decimals) = (key, heading, type, decimals);

    private Measure(BoundField field)
        : this(field.Field.Name, field.Field.Heading, field.Field.Type, field.Decimals) => _field = field;

    private Measure(string text, ReckonedField formula, int moneyDecimals)
        : this(
            text, text, formula.Type, formula.Type == FieldType.Money ? moneyDecimals : formula.Type == FieldType.Integer ? 0
                : RecordField.DecimalPlaces) =>
        _formula = formula;

    /// <summary>One for each row.</summary>
    public static Measure Rows { get; } = new("count", "Count", FieldType.Integer, 0);

    /// <summary>The name by which it is asked for.</summary>
    public string Key { get; }

    /// <summary>What stands above it.</summary>
    public string Heading { get; }

    /// <summary>What it is.</summary>
    public FieldType Type { get; }

    /// <summary>How many decimals its units are.</summary>
    public int Decimals { get; }

    /// <summary>The kind of a column of it.</summary>
    public ColumnKind Kind => FigureFields.KindOf(Type);

    /// <summary>Whether what many rows have is the sum of what each has.</summary>
    public bool AddsUp => _formula?.AddsUp ?? _field?.Field.AddsUp ?? true;

    /// <summary>The field whose values it adds up within, and not across; nothing where it adds up over all rows.</summary>
    public string? Within => _field?.Field.AddsUpWithin;

    /// <summary>The formula, where what many rows have is worked out from the sums of its fields.</summary>
    public ReckonedField? Quotient => _formula is { AddsUp: false } ? _formula : null;

    /// <summary>The measure of a number field.</summary>
    public static Measure Of(BoundField field) => new(field);

    /// <summary>The measure of a formula.</summary>
    public static Measure Of(string text, Formula formula, TableFields fields, int moneyDecimals) =>
        new(text, new ReckonedField(formula, fields), moneyDecimals);

    /// <summary>What each row has; <see cref="FieldCells.Nothing"/> for nothing.</summary>
    public long[] Read(RowSet rows)
    {
        if (_field is not null)
        {
            return _field.Read(rows).Numbers;
        }

        var numbers = new long[rows.Count];
        var valueOf = _formula?.Read(rows);
        for (var row = 0; row < numbers.Length; row++)
        {
            numbers[row] = valueOf is null ? 1 : valueOf(row) is { } value ? ReckonedField.UnitsOf(value, Decimals) : FieldCells.Nothing;
        }

        return numbers;
    }
}
