using Vlei.Core.Ledger;

namespace Vlei.Records;

/// <summary>A record as a record set writes it: a text per field, references as ids, and its tags.</summary>
public sealed class RecordText(RecordTable table, IReadOnlyList<string> values, IReadOnlyDictionary<string, string> tags)
{
    /// <summary>The texts, in the order of the fields; empty where there is nothing.</summary>
    public IReadOnlyList<string> Values => values;

    /// <summary>Its tags.</summary>
    public IReadOnlyDictionary<string, string> Tags => tags;

    /// <summary>The text of a field.</summary>
    public string this[string field] => values[table.IndexOf(field)];
}
