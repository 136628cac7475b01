namespace Vlei.Core.Tables;

/// <summary>What a column shows of a table: what rows say, or what is made of what they come to.</summary>
/// <param name="Heading">What it is called.</param>
/// <param name="Planned">The place of the column among those that were asked for, where it is what rows say; else less than 0.</param>
/// <param name="Measure">In which measure, where it is what they come to.</param>
/// <param name="Function">What is made of it.</param>
/// <param name="Period">The place of the period.</param>
/// <param name="Across">The column that it is spread to; nothing for all.</param>
internal sealed record TableFigure(string Heading, int Planned, int Measure, Function Function, int Period, int? Across)
{
    /// <summary>What rows say.</summary>
    public static TableFigure Fact(string heading, int planned) => new(heading, planned, -1, Function.Own, 0, null);

    /// <summary>Whether it is what rows say.</summary>
    public bool IsFact => Planned >= 0;

    /// <summary>Whether it is a sum, or what a share is a part of, which is one.</summary>
    public bool IsSum => Function is Function.Sum or Function.Share or Function.GroupShare;
}

/// <summary>What a row of a list or a cross-table stands for.</summary>
/// <param name="Group">The group, or the one that a record lies in.</param>
/// <param name="Record">The place of the record in the order of the list; less than 0 for a group as a whole.</param>
internal readonly record struct TableRow(int Group, int Record)
{
    /// <summary>A group as a whole; 0 for all rows.</summary>
    public static TableRow OfGroup(int group) => new(group, -1);
}
