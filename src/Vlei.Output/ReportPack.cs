using Vlei.Core.Pages;
using Vlei.Core.Reports;

namespace Vlei.Output;

/// <summary>Reports that are read together, in one file.</summary>
/// <param name="Name">The name of the group that they are.</param>
/// <param name="Title">Its title.</param>
/// <param name="Cover">What stands before them; nothing where there is none.</param>
/// <param name="Reports">The reports, each with its name in the group.</param>
public sealed record ReportPack(string Name, string Title, Report? Cover, IReadOnlyList<(string Name, Report Report)> Reports)
{
    /// <summary>The page of panels that it begins with, in text, PDF and on a web page; nothing where there is none.</summary>
    public Page? Front { get; init; }

    /// <summary>The cover and the reports, as they follow each other.</summary>
    public IEnumerable<Report> Whole => Cover is null ? Reports.Select(named => named.Report)
        : Reports.Select(named => named.Report).Prepend(Cover);

    /// <summary>How the file looks where it is one: as its last report does.</summary>
    public ReportLook Look => Whole.LastOrDefault()?.Look ?? new ReportLook();
}
