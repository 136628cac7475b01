namespace Vlei.Books.Kept;

/// <summary>What keeps a delivery back until somebody approves it.</summary>
public enum HoldReason
{
    /// <summary>Nothing.</summary>
    Never,

    /// <summary>A check that failed, or a report that could not be made.</summary>
    Checks,

    /// <summary>Findings of the review of the period, too.</summary>
    Findings,

    /// <summary>Every delivery waits.</summary>
    Always,
}

/// <summary>When something is produced and sent, and what is then otherwise than its file says.</summary>
/// <param name="Time">When it is due.</param>
/// <param name="Zone">The name of the time zone, as the IANA has it; nothing for that of the computer.</param>
/// <param name="Place">Where the file says so, for messages.</param>
public sealed record DeliverySchedule(ScheduleTime Time, string? Zone, string Place)
{
    /// <summary>The period that it is produced for; nothing for that of the file.</summary>
    public string? Period { get; init; }

    /// <summary>Where it goes; none for where the file says.</summary>
    public IReadOnlyList<Recipient> To { get; init; } = [];

    /// <summary>The formats of what goes along; none for those of the file.</summary>
    public IReadOnlyList<string> Formats { get; init; } = [];

    /// <summary>The letter; nothing for that of the file.</summary>
    public string? Message { get; init; }

    /// <summary>Its time zone.</summary>
    public TimeZoneInfo TimeZone => Zone is null ? TimeZoneInfo.Local : TimeZoneInfo.FindSystemTimeZoneById(Zone);

    /// <summary>Which one it is of those of the same time, zone and period, from 1.</summary>
    public int Number { get; init; } = 1;

    /// <summary>What tells it from the other schedules of its file. Where it goes may change without its being another.</summary>
    public string Key => string.Join('|', new[] { Time.Text, Zone ?? "", Period ?? "" }) + (Number == 1 ? "" : $"|{Number}");
}

/// <summary>Where a group or a report goes, with which letter, and when by itself.</summary>
public sealed record DeliveryPlan
{
    /// <summary>Where it goes.</summary>
    public IReadOnlyList<Recipient> To { get; init; } = [];

    /// <summary>Who gets a copy of each letter.</summary>
    public IReadOnlyList<Recipient> Copies { get; init; } = [];

    /// <summary>The address that answers go to; nothing for that of the sender.</summary>
    public Recipient? ReplyTo { get; init; }

    /// <summary>The formats of what goes along.</summary>
    public IReadOnlyList<string> Formats { get; init; } = [];

    /// <summary>The letter; nothing for a short one in the language of the recipient.</summary>
    public string? Message { get; init; }

    /// <summary>What keeps it back.</summary>
    public HoldReason Hold { get; init; } = HoldReason.Checks;

    /// <summary>Whether all recipients get one letter, and see each other.</summary>
    public bool IsTogether { get; init; }

    /// <summary>When it is produced and sent by itself.</summary>
    public IReadOnlyList<DeliverySchedule> Schedules { get; init; } = [];
}
