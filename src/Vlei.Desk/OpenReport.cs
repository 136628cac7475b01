using Vlei.Books.Kept;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Core.Tables;
using Vlei.Output;

namespace Vlei.Desk;

/// <summary>
/// A report with the records that it is asked of: the one door to a finished one. Its rows may be read until it is closed.
/// </summary>
/// <param name="definition">The report.</param>
/// <param name="request">What is asked.</param>
/// <param name="context">The book and its records, which are closed with it.</param>
public sealed class OpenReport(ReportDefinition definition, ReportRequest request, ReportContext context) : IDisposable
{
    /// <summary>The report.</summary>
    public ReportDefinition Definition => definition;

    /// <summary>What is asked.</summary>
    public ReportRequest Request => request;

    /// <summary>The book and its records.</summary>
    public ReportContext Context => context;

    /// <summary>Builds it. Throws a <see cref="ProblemException"/> where it cannot be.</summary>
    /// <param name="formats">The formats that it is written in: what none of them has is not made.</param>
    public Report Build(params IReadOnlyList<ReportFormat> formats) => Build(definition, request, context, formats);

    /// <summary>Where it is of one contact each, those that are asked for, with their names; nothing where it is not.</summary>
    public IEnumerable<(string Name, Report Report)>? Each(params IReadOnlyList<ReportFormat> formats) =>
        definition.Each?.Invoke(context, request).Select(one => (one.Name, Build(definition, one.Request, context, formats)));

    /// <summary>Builds a report of records that are open already. Throws a <see cref="ProblemException"/> where it cannot be.</summary>
    public static Report Build(
        ReportDefinition definition, ReportRequest request, ReportContext context, params IReadOnlyList<ReportFormat> formats)
    {
        try
        {
            var report = definition.Make(context, formats.Any(format => format.Takes.Contains(LookOptions.Template))
                ? request with { Look = LookFiles.WithTemplate(request.Look) } : request);
            report = request.Explain ? Explanation.AddTo(report, report.MadeFrom ?? context.Ledger) : report;
            return formats.Any(format => format.Takes.Contains(LookOptions.WithDetail))
                ? Details.AddTo(report, context, Library.Standard("lines")!) : report;
        }
        catch (OverflowException tooLarge)
        {
            throw new ProblemException(
                ProblemKind.BadData, $"{definition.Title}: a sum is larger than 64 bits hold.",
                "Look for an amount with too many digits.", tooLarge);
        }
    }

    /// <summary>Closes the records.</summary>
    public void Dispose() => (context.Ledger as IDisposable)?.Dispose();
}
