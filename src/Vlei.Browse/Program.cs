using Vlei.Browse;
using Vlei.Core.Problems;
using Vlei.Desk;

// Walks through reports on the full screen. vlei starts it: vlei browse profit-loss.
if (BrowseOrder.Of(args) is not { } order || Console.IsInputRedirected || Console.IsOutputRedirected)
{
    Console.Error.WriteLine("vlei-browse walks through reports for vlei: vlei browse profit-loss");
    return (int)ProblemKind.Usage;
}

try
{
    using var walk = Walk.Start(order);
    using var screen = new Screen();
    walk.Run(screen);
    return ExitStatus.Done;
}
catch (ProblemException problem)
{
    Console.Error.WriteLine($"vlei: {problem.Message}{(problem.Advice is { } advice ? $"\n      {advice}" : "")}");
    return (int)problem.Kind;
}
