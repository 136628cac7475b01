namespace Vlei.Core.Problems;

/// <summary>What the program ends with; the other statuses are those of <see cref="ProblemKind"/>.</summary>
public static class ExitStatus
{
    /// <summary>Done.</summary>
    public const int Done = 0;

    /// <summary>Done, but a check of the report failed.</summary>
    public const int CheckFailed = 1;

    /// <summary>A bug of the program.</summary>
    public const int Bug = 70;
}
