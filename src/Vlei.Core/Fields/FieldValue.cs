namespace Vlei.Core.Fields;

/// <summary>A value that a field in words can have.</summary>
/// <param name="Id">The word by which it is chosen, and its key as a column.</param>
/// <param name="Name">What people call it; the same as the id where there is nothing else.</param>
/// <param name="Parent">The id of the value that it is part of, where it is part of one.</param>
public sealed record FieldValue(string Id, string Name, string? Parent = null);
