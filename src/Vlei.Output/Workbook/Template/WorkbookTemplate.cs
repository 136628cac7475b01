using System.Xml.Linq;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Output.Workbook.Template;

/// <summary>
/// Fills a workbook that was written from a report, and that a person has given other looks, sheets, charts and formulas, with
/// the report as it is now. Everything that was put there stays, and follows the size of the table.
/// </summary>
internal sealed class WorkbookTemplate
{
    private static readonly XNamespace Main = WorkbookPackage.Main;

    private readonly TemplatePackage _package;
    private readonly Dictionary<string, string> _sheets;
    private readonly string[] _strings;
    private readonly Dictionary<string, (string Sheet, SheetRange Table)> _filled = [];

    private WorkbookTemplate(TemplatePackage package)
    {
        _package = package;
        var relations = package.Relations("xl/workbook.xml");
        XNamespace numbers = WorkbookPackage.Relations;
        _sheets = package.Workbook.Descendants(Main + "sheet")
            .Where(sheet => (string?)sheet.Attribute(numbers + "id") is { } id && relations.ContainsKey(id))
            .DistinctBy(sheet => TemplateXml.Text(sheet, "name"), StringComparer.OrdinalIgnoreCase)
            .ToDictionary(
                sheet => TemplateXml.Text(sheet, "name"), sheet => relations[TemplateXml.Text(sheet, numbers + "id")],
                StringComparer.OrdinalIgnoreCase);
        _strings = [.. package.Elements("xl/sharedStrings.xml", Main + "si").Select(TextIn)];
        foreach (var name in new[] { WorkbookReport.TableName, WorkbookReport.RecordsName, WorkbookReport.DocumentsName })
        {
            if (PlaceOf(name) is var (sheet, table) && IsTable(table))
            {
                package.Take(_sheets[sheet], new TakenRows(table, TextOf));
            }
        }
    }

    /// <summary>
    /// Writes the filled workbook. Throws a <see cref="ProblemException"/> where the template cannot be read, or does not say
    /// where the report belongs.
    /// </summary>
    public static void Write(ReportWords words, ReportTemplate file, Stream stream)
    {
        var package = TemplatePackage.Open(file);
        try
        {
            var template = new WorkbookTemplate(package);
            template.Fill(WorkbookReport.TableName, words, isNeeded: true);
            template.Fill(WorkbookReport.RecordsName, words.Records, isNeeded: false);
            template.Fill(WorkbookReport.DocumentsName, words.Documents, isNeeded: false);
            template.AddLinks(words);
            template.RefuseTooLong();
            package.Remove("xl/calcChain.xml");
            template.AskForReckoning();
            package.Write(stream);
        }
        catch (InvalidDataException damaged)
        {
            throw package.Wrong($"is damaged: {damaged.Message}", damaged);
        }
    }

    private void Fill(string name, ReportWords? words, bool isNeeded)
    {
        if (PlaceOf(name) is not var (sheet, table) || !IsTable(table))
        {
            if (isNeeded)
            {
                throw _package.Wrong($"has no cells named {name}, so it is not said where the report belongs");
            }

            if (words is not null)
            {
                throw _package.Wrong(
                    name == WorkbookReport.DocumentsName ? "has no place for the documents of records"
                        : "has no place for the records behind figures",
                    advice: "Leave --with-detail out, or make the template anew from a workbook with as much detail.");
            }

            return;
        }

        if (words is null)
        {
            throw _package.Wrong(
                $"has the records behind figures on its sheet {sheet}, and the report comes without",
                advice: $"Add --with-detail{(name == WorkbookReport.DocumentsName ? " documents" : "")}, or take that sheet out of it.");
        }

        WorkbookPackage.RefuseTooLarge(
            words.Report.Title, table.First.Row + words.Report.Rows.Count, table.First.Column + words.Report.Columns.Count);
        bool IsThis(string? other) => sheet.Equals(other ?? sheet, StringComparison.OrdinalIgnoreCase);
        var part = _package.Part(_sheets[sheet]);
        var filling = new TemplateTable(part, table, words, TextOf, IsThis);
        if (isNeeded && filling.IsOfOther)
        {
            throw _package.Wrong(
                $"was made for another report: none of its rows is one of {words.Report.Title}",
                advice: "Take a template that was made from this report.");
        }

        new TemplateLinks(part).Clear(table);
        filling.Fill();
        _filled[name] = (sheet, filling.Filled);
        new TemplateReferences(_package, _sheets, sheet, table, filling).Shift();
        FillWords(words, sheet);
    }

    // Whole rows or columns do not say where a table begins.
    private static bool IsTable(SheetRange range) => range.Last is { } last && range.First is { Row: > 0, Column: > 0 } first
        && last.Row >= first.Row && last.Column >= first.Column;

    // A figure leads to the records behind it, the heading of those back, and a record on to its document.
    private void AddLinks(ReportWords words)
    {
        if (words.Report.Records is not { } records || !_filled.TryGetValue(WorkbookReport.RecordsName, out var list))
        {
            return;
        }

        var report = _filled[WorkbookReport.TableName];
        var documents = _filled.TryGetValue(WorkbookReport.DocumentsName, out var known) ? known : default;
        var rows = words.Documents?.RowsOfDocuments() ?? [];
        var (ofFigures, ofRecords) =
            (new TemplateLinks(_package.Part(_sheets[report.Sheet])), new TemplateLinks(_package.Part(_sheets[list.Sheet])));
        var room = CellText.MostLinks - ofRecords.Count - records.Figures.Count;
        for (var place = 0; place < records.List.Rows.Count; place++)
        {
            var heading = CellText.Name(list.Table.First.Row + 1 + place, list.Table.First.Column - 1);
            if (records.Figures.TryGetValue(place, out var figure))
            {
                var cell = CellText.Name(report.Table.First.Row + 1 + figure.Row, report.Table.First.Column + figure.Column);
                ofFigures.Add(cell, CellText.Place(list.Sheet, heading));
                ofRecords.Add(heading, CellText.Place(report.Sheet, cell));
            }
            else if (records.HeadingBehind(place) is { } behind && room-- > 0)
            {
                ofRecords.Add(
                    heading, CellText.Place(list.Sheet, CellText.Name(list.Table.First.Row + 1 + behind, list.Table.First.Column - 1)));
            }
            else if (documents.Sheet is not null && records.List.Rows[place].Document is { } id
                && rows.TryGetValue(id, out var document) && room-- > 0)
            {
                ofRecords.Add(
                    heading,
                    CellText.Place(
                        documents.Sheet, CellText.Name(documents.Table.First.Row + 1 + document, documents.Table.First.Column - 1)));
            }
        }
    }

    // The cells that lines above and below the table are in, by their names.
    private void FillWords(ReportWords words, string own)
    {
        foreach (var (name, lines) in WorkbookReport.Lines(words))
        {
            if (PlaceOf(name, own) is not var (sheet, range) || range.First is not { Row: > 0, Column: > 0 })
            {
                continue;
            }

            var part = _package.Part(_sheets[sheet]);
            var count = (range.Last?.Row ?? range.First.Row) - range.First.Row + 1;
            for (var line = 0; line < count; line++)
            {
                var text = line == count - 1 ? string.Join('\n', lines.Skip(line)) : lines.ElementAtOrDefault(line) ?? "";
                var was = SetText(part, range.First.Row + line, range.First.Column, text);

                // The foot of pages may say it too.
                foreach (var foot in was.Length == 0 ? [] : part.Descendants(Main + "headerFooter").Elements().ToList())
                {
                    foot.Value = foot.Value.Replace(
                        was.Replace("&", "&&", StringComparison.Ordinal), text.Replace("&", "&&", StringComparison.Ordinal),
                        StringComparison.Ordinal);
                }
            }
        }
    }

    private string SetText(XDocument sheet, int row, int column, string text)
    {
        var name = CellText.Name(row, column - 1);
        var line = sheet.Descendants(Main + "row").FirstOrDefault(one => (string?)one.Attribute("r") == SheetWriter.Text(row));
        var cell = line?.Elements(Main + "c").FirstOrDefault(one => (string?)one.Attribute("r") == name);
        var (was, filled) = (cell is null ? "" : TextOf(cell), TemplateTable.Cell(row, column, (string?)cell?.Attribute("s"), text));
        if (cell is not null)
        {
            cell.ReplaceWith(filled);
        }
        else if (line?.Elements(Main + "c").FirstOrDefault() is { } first && column == 1)
        {
            first.AddBeforeSelf(filled);
        }
        else
        {
            line?.Add(filled);
        }

        return was;
    }

    private (string Sheet, SheetRange Range)? PlaceOf(string name, string? own = null) =>
        _package.Workbook.Descendants(Main + "definedName")
            .Where(defined => ((string?)defined.Attribute("name"))?.Equals(name, StringComparison.OrdinalIgnoreCase) == true)
            .Select(defined => TemplateReferences.Place(defined.Value))
            .FirstOrDefault(
                place => place is var (sheet, _) && _sheets.ContainsKey(sheet)
                    && (own is null || sheet.Equals(own, StringComparison.OrdinalIgnoreCase)));

    private string TextOf(XElement cell) => (string?)cell.Attribute("t") switch
    {
        "s" => int.TryParse(cell.Element(Main + "v")?.Value, out var place) && place >= 0 && place < _strings.Length ? _strings[place] : "",
        "inlineStr" => cell.Element(Main + "is") is { } text ? TextIn(text) : "",
        _ => cell.Element(Main + "v")?.Value ?? "",
    };

    private static string TextIn(XElement item) =>
        string.Concat(item.Descendants(Main + "t").Where(text => text.Parent!.Name != Main + "rPh").Select(text => text.Value));

    // What programs take for damaged, and would repair by leaving it out.
    private void RefuseTooLong()
    {
        foreach (var part in _sheets.Values.Select(_package.Part))
        {
            if (part.Descendants(Main + "row").LastOrDefault() is { } last && last.Attribute("r") is not null
                && TemplateXml.Number(last, "r") > CellText.MostRows)
            {
                throw _package.Wrong("has more below the table than a sheet has room for, now that it is longer");
            }
        }
    }

    // What was worked out was so from other figures.
    private void AskForReckoning()
    {
        var root = _package.Workbook.Root!;
        var properties = root.Element(Main + "calcPr");
        if (properties is null)
        {
            properties = new XElement(Main + "calcPr");
            root.Element(Main + "definedNames")!.AddAfterSelf(properties);
        }

        properties.SetAttributeValue("fullCalcOnLoad", "1");
    }
}
