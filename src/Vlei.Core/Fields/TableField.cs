using Vlei.Core.Calendar;
using Vlei.Core.Ledger;

namespace Vlei.Core.Fields;

/// <summary>A field of a table, as people know it.</summary>
/// <param name="Name">Its name; a field of a related record has the name of the relation before it: <c>contact.email</c>.</param>
/// <param name="Type">What its values are.</param>
/// <param name="Meaning">What it says, in a line.</param>
public sealed record TableField(string Name, FieldType Type, string Meaning)
{
    private static readonly WordPool Kinds = new(["", .. DocumentKinds.Names]);

    /// <summary>The table of the records that it refers to, for a reference.</summary>
    public RecordTable? Target { get; init; }

    /// <summary>The unit of time that its days are the first of, for a part of a date.</summary>
    public TimeUnit? Unit { get; init; }

    /// <summary>The field of a line that it is, where lines themselves must be read for it.</summary>
    public RecordField? OfLine { get; init; }

    /// <summary>The words that its numbers stand for, where it has words of its own.</summary>
    public WordPool? Words { get; init; }

    /// <summary>Whether adding its values up makes sense.</summary>
    public bool AddsUp { get; init; } = Type is FieldType.Money;

    /// <summary>The field whose values it adds up within, and not across; nothing where it adds up over all rows.</summary>
    public string? AddsUpWithin { get; init; }

    /// <summary>Whether it is what was noted about documents, rather than what the records say.</summary>
    public bool IsNoted { get; init; }

    /// <summary>Whether most records have none of it, so that a list may leave it out where all are zero.</summary>
    public bool IsSeldom { get; init; }

    /// <summary>Whether its words are ours, and have another form in each language; those of records stay as they are.</summary>
    public bool HasOurWords { get; init; } = Type is FieldType.Choice;

    /// <summary>Whether it holds numbers that can be reckoned with.</summary>
    public bool IsNumber => Type is FieldType.Money or FieldType.Decimal or FieldType.Integer;

    /// <summary>Whether it holds days.</summary>
    public bool IsDay => Type == FieldType.Date;

    /// <summary>What stands above it: <c>Contact</c>, <c>Contact email</c>.</summary>
    public string Heading { get; init; } = HeadingOf(Name);

    /// <summary>The name of the type as people read it.</summary>
    public string TypeName => Unit is not null ? "period" : Type switch
    {
        FieldType.Decimal => "quantity",
        FieldType.Integer => "number",
        FieldType.Boolean => "true or false",
        FieldType.Choice => "word",
        FieldType.Reference => Target!.Singular,
        _ => Type.ToString().ToLowerInvariant(),
    };

    /// <summary>A field that refers to records of a table.</summary>
    public static TableField Reference(string name, RecordTable target, string meaning) =>
        new(name, FieldType.Reference, meaning) { Target = target };

    /// <summary>The field of the kind of a document.</summary>
    public static TableField DocumentKind(string meaning) => new("kind", FieldType.Choice, meaning) { Words = Kinds };

    /// <summary>A name as a heading.</summary>
    public static string HeadingOf(string name)
    {
        var words = name.Replace('.', ' ').Replace('-', ' ').Replace('_', ' ');
        return words.Length == 0 ? "" : char.ToUpperInvariant(words[0]) + words[1..];
    }
}
