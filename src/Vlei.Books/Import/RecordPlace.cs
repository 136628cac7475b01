namespace Vlei.Books.Import;

/// <summary>Where a record of a set stands.</summary>
/// <param name="File">The file, as messages call it.</param>
/// <param name="Line">The line, from 1.</param>
internal readonly record struct RecordPlace(string File, long Line);
