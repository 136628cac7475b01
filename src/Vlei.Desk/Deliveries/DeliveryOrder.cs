using Vlei.Books.Kept;

namespace Vlei.Desk.Deliveries;

/// <summary>What is to be produced and sent.</summary>
/// <param name="Group">The group; a report alone is a group of one.</param>
/// <param name="Plan">Where it goes, with which letter.</param>
public sealed record DeliveryOrder(ReportGroup Group, DeliveryPlan Plan)
{
    /// <summary>The period; nothing for that of the group.</summary>
    public string? Period { get; init; }

    /// <summary>What is asked of the report, where it is one; none for a group.</summary>
    public IReadOnlyDictionary<string, IReadOnlyList<string>> Options { get; init; } = new Dictionary<string, IReadOnlyList<string>>();

    /// <summary>Whether each customer gets a report of their own.</summary>
    public bool IsEach { get; init; }

    /// <summary>The formats of what goes along.</summary>
    public IReadOnlyList<string> Formats => Plan.Formats.Count > 0 ? Plan.Formats : ["pdf"];
}

/// <summary>A delivery that is ready, with its letter.</summary>
/// <param name="Delivery">What the outbox will have of it.</param>
/// <param name="Letter">The letter, as mail has it.</param>
/// <param name="Text">The words of the letter.</param>
public sealed record ReadyDelivery(Delivery Delivery, byte[] Letter, string Text);

/// <summary>What was made ready, and what could not be.</summary>
/// <param name="Ready">The deliveries.</param>
/// <param name="WithoutAddress">Those who have no address.</param>
public sealed record ReadyDeliveries(IReadOnlyList<ReadyDelivery> Ready, IReadOnlyList<string> WithoutAddress);
