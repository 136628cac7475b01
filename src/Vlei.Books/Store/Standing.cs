namespace Vlei.Books.Store;

/// <summary>
/// Which versions of the records stand: those of today, or those that stood when an earlier import was the last one.
/// </summary>
/// <param name="Revision">The last import that is seen; nothing for all of them.</param>
internal readonly record struct Standing(long? Revision)
{
    /// <summary>The records as they are today.</summary>
    public static Standing Now => default;
}
