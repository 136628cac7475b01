using CsvHelper;

namespace Vlei.Records;

/// <summary>How the CSV files of a record set are read: RFC 4180, with line numbers, and never guessing.</summary>
internal static class CsvFiles
{
    // A quote that is never closed would otherwise swallow the rest of the file.
    private const int LongestRecord = 1 << 20;

    /// <summary>Begins to read before the header. Broken quoting is told to <paramref name="malformed"/>.</summary>
    public static CsvReader Open(Stream file, Action<CsvMalformedReason> malformed) => CsvReader.Create(
        file,
        new CsvReaderOptions
        {
            TrackLineNumbers = true,
            MaxRecordSize = LongestRecord,
            OnMalformedRecord = record => malformed(record.Reason),
        },
        leaveOpen: true);
}
