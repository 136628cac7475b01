using Vlei.Core.Money;

namespace Vlei.Core.Reports;

/// <summary>What made a figure of a report change, in short.</summary>
/// <param name="Row">What the figure is called.</param>
/// <param name="Against">The heading of what it is compared with.</param>
/// <param name="Change">By how much it changed: more than nothing where it grew.</param>
/// <param name="Reasons">The largest reasons, which with what is left are the change: each with what else is to be said of it.</param>
/// <param name="Others">The reasons that are left together; nothing where none are.</param>
public sealed record ReportExplanation(
    Caption Row, string Against, Amount Change, IReadOnlyList<(Caption Name, Amount Change, string Remark)> Reasons,
    (Caption Name, Amount Change)? Others);
