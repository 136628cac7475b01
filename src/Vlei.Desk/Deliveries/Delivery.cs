using System.Text.Json.Serialization;

namespace Vlei.Desk.Deliveries;

/// <summary>Where a delivery stands.</summary>
public enum DeliveryState
{
    /// <summary>Its time has come, and it is not produced yet.</summary>
    Due,

    /// <summary>It waits for somebody to approve it.</summary>
    Held,

    /// <summary>It is to be sent, or to be tried again.</summary>
    Waiting,

    /// <summary>It is on its way; one that is found so was in the air when the program was stopped.</summary>
    Sending,

    /// <summary>It was taken by the server, put into the folder, or handed to the printer.</summary>
    Sent,

    /// <summary>It cannot be sent as it is.</summary>
    Failed,

    /// <summary>Somebody took it back.</summary>
    Withdrawn,
}

/// <summary>A file that goes along.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Bytes">How many bytes it has.</param>
/// <param name="Sum">Its sum, SHA-256 as hexadecimal digits.</param>
public sealed record Attachment(string Name, long Bytes, string Sum);

/// <summary>A group, a report or a statement of account, for a period, to a recipient: what the outbox has of it.</summary>
/// <param name="Number">Its number in the outbox.</param>
/// <param name="Key">What it is known by, so that it is never made twice: its schedule, its time and its recipient.</param>
/// <param name="What">The name of the group or the report.</param>
/// <param name="To">Where it goes, as it was written; several where one letter goes to all.</param>
/// <param name="State">Where it stands.</param>
public sealed record Delivery(int Number, string Key, string What, IReadOnlyList<string> To, DeliveryState State)
{
    /// <summary>Its title.</summary>
    public string Title { get; init; } = "";

    /// <summary>The period that it is for, as it is written.</summary>
    public string Period { get; init; } = "";

    /// <summary>The key of its schedule; empty where a person sent it.</summary>
    public string Schedule { get; init; } = "";

    /// <summary>When it was due; nothing where a person sent it.</summary>
    public DateTimeOffset? Due { get; init; }

    /// <summary>How many due times before it were missed and are not made up for.</summary>
    public int Missed { get; init; }

    /// <summary>Whether its time came while nothing was there to see it.</summary>
    public bool IsLate { get; init; }

    /// <summary>When it was produced.</summary>
    public DateTimeOffset? Made { get; init; }

    /// <summary>The revision of the records that it was made from.</summary>
    public long Revision { get; init; }

    /// <summary>The line for the subject.</summary>
    public string Subject { get; init; } = "";

    /// <summary>The Message-ID of its letter; empty where there is none.</summary>
    public string MessageId { get; init; } = "";

    /// <summary>The sum of the letter, SHA-256 as hexadecimal digits; empty where there is none.</summary>
    public string LetterSum { get; init; } = "";

    /// <summary>What goes along.</summary>
    public IReadOnlyList<Attachment> Attachments { get; init; } = [];

    /// <summary>How often it was tried.</summary>
    public int Tries { get; init; }

    /// <summary>When it was tried first.</summary>
    public DateTimeOffset? FirstTry { get; init; }

    /// <summary>When it is tried next; nothing for at once.</summary>
    public DateTimeOffset? NextTry { get; init; }

    /// <summary>When it was sent.</summary>
    public DateTimeOffset? Sent { get; init; }

    /// <summary>Why it is held, waits, or failed; empty where nothing is to be said.</summary>
    public string Problem { get; init; } = "";

    /// <summary>What else is to be said of it, whatever comes of it; empty where there is nothing.</summary>
    public string Remark { get; init; } = "";

    /// <summary>When this was noted.</summary>
    public DateTimeOffset Noted { get; init; }

    /// <summary>Where it goes, in words.</summary>
    [JsonIgnore]
    public string ToInWords => string.Join(", ", To);

    /// <summary>Whether it is over and done with.</summary>
    [JsonIgnore]
    public bool IsDone => State is DeliveryState.Sent or DeliveryState.Withdrawn;
}
