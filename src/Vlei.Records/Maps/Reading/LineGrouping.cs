using System.Globalization;

namespace Vlei.Records.Maps.Reading;

/// <summary>Puts lines together into documents, as a map says: by their numbers, by their days, or until they sum to zero.</summary>
internal sealed class LineGrouping(SourceMap map, MapReading reading, SourceRows rows)
{
    private readonly Dictionary<string, (DraftDocument Document, decimal Sum)> _documents = [];
    private DraftDocument? _open;
    private decimal _sum;

    /// <summary>Takes some lines that a row has.</summary>
    /// <param name="row">The document as the row has it; it counts where it is the first of its lines.</param>
    /// <param name="lines">Its lines.</param>
    public void Add(DraftDocument row, params ReadOnlySpan<DraftLine> lines)
    {
        if (map.Grouping == DocumentGrouping.Balance)
        {
            AddUntilZero(row, lines);
            return;
        }

        row.Id = map.Grouping switch
        {
            DocumentGrouping.Day => map.Prefix + row.Date.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
            DocumentGrouping.NumberAndDay => $"{map.Prefix}{row.Date.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture)}-{row.Number}",
            _ => map.Prefix + row.Number,
        };
        if (row.Number.Length == 0 && map.Grouping != DocumentGrouping.Day)
        {
            rows.Complain(ColumnRole.Document, "is empty; lines are put together by it.");
            return;
        }

        if (!_documents.TryGetValue(row.Id, out var known))
        {
            known = (row, 0);
            reading.Begin(row);
        }
        else if (known.Document.Date != row.Date)
        {
            rows.Complain(
                ColumnRole.Date, $"document {row.Number} has another day in line {known.Document.Line}; set documents = \"number-and-day\" in "
                    + $"{map.PlaceOf("documents")} where numbers begin anew.");
        }

        foreach (var line in lines)
        {
            reading.AddLine(known.Document, line);
            known.Sum += line.Amount;
        }

        _documents[row.Id] = known;
    }

    /// <summary>Ends the file; documents whose lines do not sum to zero are errors at the line that they begin on.</summary>
    public void End()
    {
        foreach (var (document, sum) in _documents.Values.Where(document => document.Sum != 0))
        {
            Complain(document, sum);
        }

        if (_open is not null)
        {
            Complain(_open, _sum);
        }
    }

    private void Complain(DraftDocument document, decimal sum) => reading.Errors.Add(
        rows.Name, document.Line, 1,
        $"the lines of {Called(document)} sum to {sum.ToString(CultureInfo.InvariantCulture)}; expected 0, debits and credits alike.");

    private static string Called(DraftDocument document) => document.Number.Length > 0 ? $"document {document.Number}"
        : $"{document.Date.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture)}";

    private void AddUntilZero(DraftDocument row, ReadOnlySpan<DraftLine> lines)
    {
        if (_open is not null && _open.Date != row.Date)
        {
            reading.Errors.Add(
                rows.Name, rows.Line, 1,
                $"a new day begins, but the lines since line {_open.Line} sum to {_sum.ToString(CultureInfo.InvariantCulture)}; expected 0.");
            (_open, _sum) = (null, 0);
        }

        _open ??= row;
        foreach (var line in lines)
        {
            _open.Lines.Add(line);
            _sum += line.Amount;
        }

        if (_sum == 0)
        {
            reading.Add(_open, map.Prefix);
            _open = null;
        }
    }
}
