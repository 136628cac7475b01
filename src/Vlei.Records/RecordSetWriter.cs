using CsvHelper;
using Vlei.Core.Ledger;
using Vlei.Core.Money;

namespace Vlei.Records;

/// <summary>Writes a record set: a CSV file per kind of record, as a stream, and the package that describes them.</summary>
public sealed class RecordSetWriter(string folder, string title, Currency currency) : IDisposable
{
    private readonly Dictionary<RecordTable, (CsvWriter Writer, IReadOnlyList<string> Tags)> _writers = [];

    /// <summary>Starts the file of one kind of record, with its header.</summary>
    /// <param name="table">The kind.</param>
    /// <param name="tags">The names of its tags.</param>
    public void Begin(RecordTable table, params IReadOnlyList<string> tags)
    {
        Directory.CreateDirectory(folder);
        var writer = CsvWriter.ToFile(Path.Combine(folder, table.FileName), new CsvWriterOptions { NewLine = "\n" });
        writer.WriteHeader([.. table.Fields.Select(field => field.Name), .. tags.Select(tag => $"tag.{tag}")]);
        _writers.Add(table, (writer, tags));
    }

    /// <summary>Writes one record, its values in the order of the fields, then of the tags.</summary>
    public void Write(RecordTable table, params ReadOnlySpan<string?> values) =>
        _writers[table].Writer.WriteRecord(values!);

    /// <summary>Finishes the files and writes the package that describes them.</summary>
    public void Complete()
    {
        Dispose();
        DataPackage.Write(
            Path.Combine(folder, "datapackage.json"), title, currency,
            RecordTables.All.Where(_writers.ContainsKey).Select(table => (table, _writers[table].Tags)));
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        foreach (var (writer, _) in _writers.Values)
        {
            writer.Dispose();
        }
    }
}
