using System.Globalization;
using System.Runtime.InteropServices;

namespace Vlei.Records.Maps.Reading;

/// <summary>Puts lines together into documents, as a map says: by their numbers, by their days, or until they sum to zero.</summary>
internal sealed class LineGrouping(MappedRow row)
{
    private readonly Dictionary<string, (DraftDocument Document, decimal Sum)> _documents = [];
    private readonly SourceMap _map = row.Map;
    private readonly MapReading _reading = row.Reading;
    private readonly SourceRows _rows = row.Rows;
    private DraftDocument? _open;
    private decimal _sum;

    /// <summary>Takes some lines that the row at hand has.</summary>
    /// <param name="date">The day of the document.</param>
    /// <param name="contact">Its contact; that of the first of its lines counts, as all else of it does.</param>
    /// <param name="lines">Its lines.</param>
    public void Add(DateOnly date, string contact, params ReadOnlySpan<DraftLine> lines)
    {
        if (_map.Grouping == DocumentGrouping.Balance)
        {
            AddUntilZero(date, contact, lines);
            return;
        }

        var number = _rows.Text(ColumnRole.Document);
        if (number.Length == 0 && _map.Grouping != DocumentGrouping.Day)
        {
            _rows.Complain(ColumnRole.Document, "is empty; lines are put together by it.");
            return;
        }

        var key = _map.Grouping switch
        {
            DocumentGrouping.Day => Iso(date),
            DocumentGrouping.NumberAndDay => $"{Iso(date)}-{number}",
            _ => number,
        };
        ref var known = ref CollectionsMarshal.GetValueRefOrAddDefault(_documents, key, out var isKnown);
        if (!isKnown)
        {
            known = (JournalReader.DocumentOf(row, date, contact), 0);
            known.Document.Id = _map.Prefix + key;
            _reading.Begin(known.Document);
        }
        else if (known.Document.Date != date)
        {
            _rows.Complain(
                ColumnRole.Date, $"document {number} has another day in line {known.Document.Line}; set documents = \"number-and-day\" in "
                    + $"{_map.PlaceOf("documents")} where numbers begin anew.");
        }

        foreach (var line in lines)
        {
            _reading.AddLine(known.Document, line);
            known.Sum += line.Amount;
        }
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

    private void Complain(DraftDocument document, decimal sum) => _reading.Errors.Add(
        _rows.Name, document.Line, 1,
        $"the lines of {Called(document)} sum to {Text(sum)}; expected 0, debits and credits alike.");

    private static string Called(DraftDocument document) => document.Number.Length > 0 ? $"document {document.Number}"
        : Iso(document.Date);

    private static string Text(decimal amount) => amount.ToString(CultureInfo.InvariantCulture);

    private static string Iso(DateOnly day) => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);

    private void AddUntilZero(DateOnly date, string contact, ReadOnlySpan<DraftLine> lines)
    {
        if (_open is not null && _open.Date != date)
        {
            _reading.Errors.Add(
                _rows.Name, _rows.Line, 1,
                $"a new day begins, but the lines since line {_open.Line} sum to {Text(_sum)}; expected 0.");
            (_open, _sum) = (null, 0);
        }

        _open ??= JournalReader.DocumentOf(row, date, contact);
        foreach (var line in lines)
        {
            _open.Lines.Add(line);
            _sum += line.Amount;
        }

        if (_sum == 0)
        {
            _reading.Add(_open, _map.Prefix);
            _open = null;
        }
    }
}
