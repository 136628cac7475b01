using System.Globalization;

namespace Vlei.Core.Ledger;

/// <summary>
/// Places in files of records, as those who open the files see them: a line and a field of a text file (<c>lines.csv:17:3</c>), a cell
/// of a spreadsheet (<c>[records.xlsx]lines!C17</c>).
/// </summary>
public static class FilePlace
{
    private const int Letters = 26;

    /// <summary>What a sheet of a file is called.</summary>
    public static string Sheet(string file, string sheet) => $"[{file}]{sheet}";

    /// <summary>A place.</summary>
    /// <param name="file">A file, or a sheet of one.</param>
    /// <param name="line">The line, from 1.</param>
    /// <param name="column">The column, from 1.</param>
    public static string Text(string file, long line, int column) => file.StartsWith('[')
        ? string.Create(CultureInfo.InvariantCulture, $"{file}!{ColumnName(column)}{line}")
        : string.Create(CultureInfo.InvariantCulture, $"{file}:{line}:{column}");

    /// <summary>What a column of a spreadsheet is called, from 1: A, B, ... Z, AA.</summary>
    public static string ColumnName(int column)
    {
        var name = "";
        for (var left = column; left > 0; left = (left - 1) / Letters)
        {
            name = (char)('A' + ((left - 1) % Letters)) + name;
        }

        return name;
    }
}
