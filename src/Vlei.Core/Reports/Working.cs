namespace Vlei.Core.Reports;

/// <summary>Where in a report a figure stands.</summary>
/// <param name="Row">The place of its row.</param>
/// <param name="Column">The place of its column.</param>
public readonly record struct CellPlace(int Row, int Column);

/// <summary>Cells that follow one another down a column, or along a row, and count towards a sum.</summary>
/// <param name="First">The first of them.</param>
/// <param name="Last">The last of them.</param>
/// <param name="Sign">1 where they are added, -1 where they are taken away.</param>
public readonly record struct SumTerm(CellPlace First, CellPlace Last, int Sign);

/// <summary>How a figure follows from other figures of its report.</summary>
public abstract record Working
{
    /// <summary>It is a sum.</summary>
    /// <param name="Terms">What is added and taken away.</param>
    public sealed record Sum(IReadOnlyList<SumTerm> Terms) : Working;

    /// <summary>It is a percentage.</summary>
    /// <param name="Part">What is a part of the whole; in a change, the later figure.</param>
    /// <param name="Whole">The whole; in a change, the earlier figure.</param>
    /// <param name="IsChange">Whether it is the difference of the two that is a percentage of the size of the whole.</param>
    public sealed record Share(CellPlace Part, CellPlace Whole, bool IsChange) : Working;
}
