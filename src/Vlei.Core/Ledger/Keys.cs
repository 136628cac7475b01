using System.Globalization;

namespace Vlei.Core.Ledger;

/// <summary>The number by which a book's columns know an account; it never changes.</summary>
/// <param name="Value">The number, from 1.</param>
public readonly record struct AccountKey(int Value) : IComparable<AccountKey>
{
    /// <summary>A number in a column of accounts.</summary>
    public static explicit operator AccountKey(long number) => new((int)number);

    /// <inheritdoc/>
    public int CompareTo(AccountKey other) => Value.CompareTo(other.Value);

    /// <inheritdoc/>
    public override string ToString() => Value.ToString(CultureInfo.InvariantCulture);
}

/// <summary>The number by which a book's columns know a document; their order is that in which documents came in.</summary>
/// <param name="Value">The number, from 1; 0 for none.</param>
public readonly record struct DocumentKey(int Value) : IComparable<DocumentKey>
{
    /// <summary>A number in a column of documents.</summary>
    public static explicit operator DocumentKey(long number) => new((int)number);

    /// <summary>Whether it is none.</summary>
    public bool IsNone => Value == 0;

    /// <inheritdoc/>
    public int CompareTo(DocumentKey other) => Value.CompareTo(other.Value);

    /// <inheritdoc/>
    public override string ToString() => Value.ToString(CultureInfo.InvariantCulture);
}

/// <summary>The number by which a book's columns know a contact.</summary>
/// <param name="Value">The number, from 1; 0 for none.</param>
public readonly record struct ContactKey(int Value) : IComparable<ContactKey>
{
    /// <summary>A number in a column of contacts.</summary>
    public static explicit operator ContactKey(long number) => new((int)number);

    /// <summary>Whether it is none.</summary>
    public bool IsNone => Value == 0;

    /// <inheritdoc/>
    public int CompareTo(ContactKey other) => Value.CompareTo(other.Value);

    /// <inheritdoc/>
    public override string ToString() => Value.ToString(CultureInfo.InvariantCulture);
}

/// <summary>The number by which a book's columns know a settlement; their order is that of the records.</summary>
/// <param name="Value">The number, from 1; 0 for none.</param>
public readonly record struct SettlementKey(int Value) : IComparable<SettlementKey>
{
    /// <summary>A number in a column of settlements.</summary>
    public static explicit operator SettlementKey(long number) => new((int)number);

    /// <summary>Whether it is none.</summary>
    public bool IsNone => Value == 0;

    /// <inheritdoc/>
    public int CompareTo(SettlementKey other) => Value.CompareTo(other.Value);

    /// <inheritdoc/>
    public override string ToString() => Value.ToString(CultureInfo.InvariantCulture);
}
