using Vlei.Core.Reports;

namespace Vlei.Output.Workbook;

/// <summary>A report, or several, as a workbook (Office Open XML, ECMA-376).</summary>
internal static class WorkbookReport
{
    /// <summary>The name of the cells that a report's table stands in.</summary>
    public const string TableName = "report";

    private const string RepeatedName = "_xlnm.Print_Titles";

    /// <summary>Writes the report.</summary>
    public static void Write(Report report, Stream stream)
    {
        using var package = new WorkbookPackage(stream, report.Title);
        AddReport(package, report, WorkbookPackage.SheetName(report.Title, []), null);
        package.Finish();
    }

    /// <summary>Writes the cover, what there is, and each report on a sheet of its own.</summary>
    public static void WritePack(ReportPack pack, Stream stream)
    {
        using var package = new WorkbookPackage(stream, pack.Title);
        var names = new List<string> { "Contents" };
        foreach (var report in pack.Whole)
        {
            names.Add(WorkbookPackage.SheetName(report.Title, names));
        }

        var contents = new ContentsSheet(pack, [.. names.Skip(1)], package.Looks);
        package.AddSheet(names[0], contents.Write);
        var place = 1;
        foreach (var report in pack.Whole)
        {
            AddReport(package, report, names[place++], CellText.Place(names[0], "A1"));
        }

        package.Finish();
    }

    private static void AddReport(WorkbookPackage package, Report report, string name, string? back)
    {
        var sheet = new ReportSheet(report, package.Looks, back);
        package.AddSheet(name, sheet.Write);
        package.AddName(TableName, sheet.Table);
        package.AddName(RepeatedName, sheet.RepeatedRows);
    }
}
