namespace Vlei.Core.Problems;

/// <summary>What kind of thing went wrong; the number is the exit status, as <c>sysexits.h</c> has it.</summary>
public enum ProblemKind
{
    /// <summary>The command was written wrongly.</summary>
    Usage = 2,

    /// <summary>Records or a definition are not as they should be.</summary>
    BadData = 65,

    /// <summary>There is no such book, file, report, row or column.</summary>
    NotFound = 66,

    /// <summary>Something cannot be written.</summary>
    CannotWrite = 73,

    /// <summary>It may work later: somebody else is writing.</summary>
    TryAgain = 75,

    /// <summary>The book's configuration is wrong.</summary>
    BadConfiguration = 78,
}

/// <summary>
/// Something that the person can put right. The message says what is wrong and where; the advice says what was
/// expected or what to do.
/// </summary>
public sealed class ProblemException : Exception
{
    /// <summary>Makes a problem to be told to the person.</summary>
    /// <param name="kind">Which exit status it leads to.</param>
    /// <param name="message">What is wrong, and where.</param>
    /// <param name="advice">What was expected, or what to do; may be left out.</param>
    /// <param name="cause">The exception behind it, where there is one.</param>
    public ProblemException(ProblemKind kind, string message, string? advice = null, Exception? cause = null)
        : base(message, cause)
    {
        Kind = kind;
        Advice = advice;
    }

    /// <summary>Which exit status it leads to.</summary>
    public ProblemKind Kind { get; }

    /// <summary>What was expected, or what to do.</summary>
    public string? Advice { get; }
}
