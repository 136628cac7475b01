using System.Runtime.CompilerServices;

namespace Vlei.Core.Ledger;

/// <summary>What the values of a field are.</summary>
public enum FieldType
{
    /// <summary>Any text.</summary>
    Text,

    /// <summary>A day, ISO 8601; kept as text.</summary>
    Date,

    /// <summary>A moment, ISO 8601; kept as text.</summary>
    Moment,

    /// <summary>A month, ISO 8601: <c>2026-03</c>; kept as text.</summary>
    Month,

    /// <summary>Money in the book's currency; a number of minor units.</summary>
    Money,

    /// <summary>A number with up to six decimals; counted in millionths.</summary>
    Decimal,

    /// <summary>A whole number.</summary>
    Integer,

    /// <summary>True or false; 1 or 0.</summary>
    Boolean,

    /// <summary>One of a few words; kept as text.</summary>
    Choice,

    /// <summary>The id of a record of another table; a number, its key.</summary>
    Reference,
}

/// <summary>One field of a record.</summary>
/// <param name="Name">The name of its column, in record sets and in the store.</param>
/// <param name="Type">What its values are.</param>
/// <param name="Meaning">What it says, for people.</param>
public sealed record RecordField(string Name, FieldType Type, string Meaning)
{
    /// <summary>The decimals of a <see cref="FieldType.Decimal"/>.</summary>
    public const int DecimalPlaces = 6;

    /// <summary>Whether every record must have a value.</summary>
    public bool Required { get; init; }

    /// <summary>The words of a <see cref="FieldType.Choice"/>.</summary>
    public IReadOnlyList<string> Choices { get; init; } = [];

    /// <summary>The name of the table that a <see cref="FieldType.Reference"/> points into.</summary>
    public string? Target { get; init; }

    /// <summary>The value that a record has where the field is empty or missing, as record sets write it.</summary>
    public string? Default { get; init; }

    /// <summary>Whether values are numbers in the store, rather than text.</summary>
    public bool IsNumber => Type is FieldType.Money or FieldType.Decimal or FieldType.Integer or FieldType.Boolean
        or FieldType.Reference;
}

/// <summary>
/// One kind of record: the one description from which record sets are read and written, the store's tables are made
/// and changes are found.
/// </summary>
/// <param name="Name">The table's name; its file is this with <c>.csv</c>.</param>
/// <param name="Singular">What one record is called in a message.</param>
/// <param name="Fields">Its fields; where there is an id, it is the first.</param>
public sealed record RecordTable(string Name, string Singular, IReadOnlyList<RecordField> Fields)
{
    /// <summary>The name of the field by which a record is known, where there is one.</summary>
    public string? Id { get; init; }

    /// <summary>The field of every table that has the tags of a record, as <see cref="TagText"/> writes them.</summary>
    public static RecordField Tags { get; } = new("tags", FieldType.Text, "What it is tagged with");

    /// <summary>The name of its file in a record set.</summary>
    public string FileName => $"{Name}.csv";

    /// <summary>There is one of each kind: two are equal where they are the same. Tables are looked up for every record.</summary>
    public bool Equals(RecordTable? other) => ReferenceEquals(this, other);

    /// <inheritdoc/>
    public override int GetHashCode() => RuntimeHelpers.GetHashCode(this);

    /// <summary>Where the field of that name stands.</summary>
    public int IndexOf(string field)
    {
        for (var index = 0; index < Fields.Count; index++)
        {
            if (Fields[index].Name == field)
            {
                return index;
            }
        }

        throw new ArgumentException($"{Name} has no field {field}.", nameof(field));
    }
}
