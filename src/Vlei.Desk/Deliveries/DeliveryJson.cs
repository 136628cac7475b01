using System.Text.Json.Serialization;

namespace Vlei.Desk.Deliveries;

/// <summary>A line of the log of an outbox: how a delivery stands, or since when a schedule is known.</summary>
/// <param name="Delivery">The delivery; nothing where it is about a schedule.</param>
/// <param name="Schedule">The key of a schedule; nothing where it is about a delivery.</param>
/// <param name="Since">Since when the schedule is known: what was due before is not made up for.</param>
internal sealed record DeliveryLine(Delivery? Delivery, string? Schedule, DateTimeOffset? Since);

/// <summary>How lines of the log are written: as JSON, without what says nothing.</summary>
[JsonSourceGenerationOptions(
    PropertyNamingPolicy = JsonKnownNamingPolicy.SnakeCaseLower, UseStringEnumConverter = true,
    DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingDefault)]
[JsonSerializable(typeof(DeliveryLine))]
internal sealed partial class DeliveryJson : JsonSerializerContext;
