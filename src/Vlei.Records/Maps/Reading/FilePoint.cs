namespace Vlei.Records.Maps.Reading;

/// <summary>A place of a file.</summary>
/// <param name="File">The file, as messages call it.</param>
/// <param name="Line">The line, from 1.</param>
/// <param name="Column">The column, from 1.</param>
internal readonly record struct FilePoint(string File, long Line, int Column);
