namespace Vlei.Books.Kept;

/// <summary>Where a person's own files are.</summary>
internal static class PersonsFolder
{
    /// <summary>
    /// The home of the person: what <c>HOME</c> says, else what the system knows; nothing where there is none. A relative one is
    /// none, as the XDG Base Directory Specification has it: it would be another folder wherever one happens to be.
    /// </summary>
    public static string? Home => Environment.GetEnvironmentVariable("HOME") is { Length: > 0 } said
        ? Path.IsPathFullyQualified(said) ? said : null
        : Environment.GetFolderPath(Environment.SpecialFolder.UserProfile) is { Length: > 0 } known ? known : null;
}
