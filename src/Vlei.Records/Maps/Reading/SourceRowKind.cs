namespace Vlei.Records.Maps.Reading;

/// <summary>What a row of a file is.</summary>
internal enum SourceRowKind
{
    /// <summary>A record.</summary>
    Data,

    /// <summary>A text alone, such as the heading of an account or of a section.</summary>
    Heading,

    /// <summary>What rows before it add up to.</summary>
    Total,

    /// <summary>What was there before the first row of an account.</summary>
    Opening,

    /// <summary>What is there behind the last row of an account.</summary>
    Closing,
}
