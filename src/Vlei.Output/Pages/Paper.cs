using Vlei.Core.Reports;

namespace Vlei.Output.Pages;

/// <summary>A size of paper, upright.</summary>
/// <param name="Width">In points.</param>
/// <param name="Height">In points.</param>
internal sealed record Paper(double Width, double Height)
{
    /// <summary>The paper that a report is printed on.</summary>
    public static Paper Of(ReportLook look) => look.Paper == PaperSize.Letter ? new Paper(612, 792) : new Paper(595.276, 841.89);
}
