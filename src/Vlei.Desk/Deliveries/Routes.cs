using Vlei.Books.Kept;

namespace Vlei.Desk.Deliveries;

/// <summary>What came of a try.</summary>
/// <param name="Problem">Why it was not sent; nothing where it was.</param>
/// <param name="IsFinal">Whether another try would come to the same.</param>
internal sealed record TryOutcome(string? Problem, bool IsFinal)
{
    /// <summary>It was sent.</summary>
    public static TryOutcome Sent { get; } = new(null, false);
}

/// <summary>A way that letters go: by mail, into a folder, to a printer.</summary>
internal interface IRoute : IDisposable
{
    /// <summary>Sends a letter. What goes wrong is its outcome, and no exception.</summary>
    /// <param name="delivery">What the outbox has of it.</param>
    /// <param name="to">Where it goes.</param>
    /// <param name="letter">The letter as mail has it.</param>
    TryOutcome Send(Delivery delivery, IReadOnlyList<Recipient> to, byte[] letter);
}
