using Vlei.Core.Reports;

namespace Vlei.Output.Pages;

/// <summary>A row, or a part of its lines, that stands on one page.</summary>
/// <param name="Row">The row.</param>
/// <param name="Place">Its place in the report.</param>
/// <param name="Height">How high it is, in points.</param>
/// <param name="HasRule">Whether a rule stands above its figures.</param>
/// <param name="FirstLine">The first of its lines that stands there, from 0.</param>
/// <param name="Lines">How many lines stand there.</param>
/// <param name="EndsRow">Whether its last line stands there.</param>
internal readonly record struct PageRow(
    ReportRow Row, int Place, double Height, bool HasRule, int FirstLine, int Lines, bool EndsRow);
