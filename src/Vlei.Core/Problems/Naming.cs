namespace Vlei.Core.Problems;

/// <summary>Lets a problem name what it comes from, where that is not what the person has just typed.</summary>
public static class Naming
{
    /// <summary>
    /// Does something for <paramref name="source"/>: a <see cref="ProblemException"/> on the way is thrown on with the source
    /// before its message.
    /// </summary>
    /// <param name="source">What it is done for, as <c>selection coast (selections/coast.toml)</c>; nothing for what was typed.</param>
    /// <param name="what">What is done.</param>
    public static T Of<T>(string? source, Func<T> what)
    {
        try
        {
            return what();
        }
        catch (ProblemException problem) when (source is not null && !problem.Message.StartsWith(source, StringComparison.Ordinal))
        {
            throw new ProblemException(problem.Kind, $"{source}: {problem.Message}", problem.Advice, problem);
        }
    }
}
