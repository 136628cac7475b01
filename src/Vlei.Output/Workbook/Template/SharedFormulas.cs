using System.Xml.Linq;

namespace Vlei.Output.Workbook.Template;

/// <summary>
/// Formulas of a sheet that are written once where they are filled down, and referred to elsewhere: each cell gets its own.
/// </summary>
internal sealed class SharedFormulas
{
    private static readonly XNamespace Main = WorkbookPackage.Main;

    private readonly Dictionary<string, (string Formula, SheetRange Place)> _masters = [];

    /// <summary>Gives the cells of the next row theirs.</summary>
    public void Expand(XElement row)
    {
        foreach (var cell in row.Elements(Main + "c").Where(cell => (string?)cell.Element(Main + "f")?.Attribute("t") == "shared"))
        {
            var formula = cell.Element(Main + "f")!;
            var (number, place) = ((string?)formula.Attribute("si") ?? "", SheetRange.Parse((string?)cell.Attribute("r") ?? ""));
            if (place is not { } own)
            {
                continue;
            }

            if (formula.Value.Length > 0)
            {
                _masters[number] = (formula.Value, own);
            }
            else if (_masters.TryGetValue(number, out var master))
            {
                formula.Value = FormulaText.Moved(
                    master.Formula, own.First.Row - master.Place.First.Row, own.First.Column - master.Place.First.Column);
            }

            formula.RemoveAttributes();
        }
    }
}
