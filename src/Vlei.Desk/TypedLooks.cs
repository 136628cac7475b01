using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Output;

namespace Vlei.Desk;

/// <summary>Looks that are typed and that a report has nothing of: what is kept may be of other reports and other months too.</summary>
public static class TypedLooks
{
    /// <summary>
    /// Refuses looks that no format has that is written. Throws a <see cref="ProblemException"/> that says which have them.
    /// </summary>
    /// <param name="typed">The names of what is typed.</param>
    /// <param name="formats">The formats that are written.</param>
    public static void RefuseOfNoFormat(IReadOnlyCollection<string> typed, IReadOnlyList<ReportFormat> formats)
    {
        foreach (var option in ReportFormat.All.SelectMany(format => format.Takes).Where(option => typed.Contains(option.Name)).Distinct())
        {
            if (!formats.Any(format => format.Takes.Contains(option)))
            {
                var takers = ReportFormat.All.Where(format => format.Takes.Contains(option)).ToList();
                throw new ProblemException(
                    ProblemKind.Usage,
                    $"--{option.Name} is for {Suggestion.Listed([.. takers.Select(format => format.Name)], "and")}, and nothing of "
                        + $"that kind is written.",
                    $"Add --to FILE.{takers.Last(format => !format.IsPicture).Ending}, or leave --{option.Name} out.");
            }
        }
    }

    /// <summary>Refuses looks of columns that a report does not have, and a chart where there is nothing to draw.</summary>
    /// <param name="typed">What is typed.</param>
    /// <param name="report">The report.</param>
    public static void RefuseOfNothing(IReadOnlyDictionary<string, IReadOnlyList<string>> typed, Report report)
    {
        if (typed.ContainsKey(LookOptions.Chart.Name) && report.Look.Chart is not null
            && ReportChart.Of(report, out var refusal) is null)
        {
            throw refusal!.AsProblem();
        }

        foreach (var option in new[] { LookOptions.Widths, LookOptions.Align }.Where(option => typed.ContainsKey(option.Name)))
        {
            var asked = LookText.Read(new Dictionary<string, IReadOnlyList<string>> { [option.Name] = typed[option.Name] });
            foreach (var name in asked.Widths.Keys.Concat(asked.Aligns.Keys).Where(name => name != "label"))
            {
                _ = ColumnNames.Named(option.Name, name, report.Columns, "label");
            }
        }
    }

    /// <summary>Refuses a chart that is typed where no format has a place for it, before anything is read.</summary>
    /// <param name="look">What is asked.</param>
    /// <param name="formats">The formats that are written.</param>
    public static void RefuseChartWithoutPlace(ReportLook look, IReadOnlyList<ReportFormat> formats)
    {
        if (look.Chart is null && formats.All(format => format.IsPicture))
        {
            throw new ProblemException(
                ProblemKind.Usage, "--chart none leaves nothing of a picture.",
                "Leave --chart out for the chart that suits the report, or say which.");
        }

        if (look.Chart is not null && look.TemplateFile is not null
            && formats.Where(format => format.Takes.Contains(LookOptions.Chart)).All(format => format.Takes.Contains(LookOptions.Template)))
        {
            throw new ProblemException(
                ProblemKind.Usage, "--chart adds none to a template: the charts in it are yours.",
                "Leave --chart out, or draw one in the template.");
        }
    }
}
