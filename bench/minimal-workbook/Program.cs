// What the bench compares workbooks with: the rows of a CSV file as a workbook, with nothing but their values, by the most
// frugal way that a general library has.
using CsvHelper;
using DocumentFormat.OpenXml;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Spreadsheet;

using var csv = CsvReader.FromFile(args[0]);
using var document = SpreadsheetDocument.Create(args[1], SpreadsheetDocumentType.Workbook);
var workbook = document.AddWorkbookPart();
var sheet = workbook.AddNewPart<WorksheetPart>();
using (var writer = OpenXmlWriter.Create(sheet))
{
    writer.WriteStartElement(new Worksheet());
    writer.WriteStartElement(new SheetData());
    while (csv.Read())
    {
        writer.WriteStartElement(new Row());
        for (var column = 0; column < csv.FieldCount; column++)
        {
            var text = csv.GetSpan(column).ToString();
            writer.WriteElement(decimal.TryParse(text, out _)
                ? new Cell { CellValue = new CellValue(text) }
                : new Cell { DataType = CellValues.InlineString, InlineString = new InlineString(new Text(text)) });
        }

        writer.WriteEndElement();
    }

    writer.WriteEndElement();
    writer.WriteEndElement();
}

workbook.Workbook = new Workbook(new Sheets(new Sheet { Id = workbook.GetIdOfPart(sheet), SheetId = 1, Name = "Rows" }));
workbook.Workbook.Save();
