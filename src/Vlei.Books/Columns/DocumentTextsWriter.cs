using Vlei.Books.Store;
using Vlei.Core.Ledger;

namespace Vlei.Books.Columns;

/// <summary>
/// Writes what documents and their lines say, a stretch of keys at a time: what was there of stale documents goes, the rest stays.
/// </summary>
internal sealed class DocumentTextsWriter
{
    private readonly WritableDerivedMonths _months;
    private readonly HashSet<int>? _stale;
    private readonly Dictionary<string, WordColumnWriter> _columns = new(StringComparer.Ordinal);
    private readonly (bool IsNumber, WordColumnWriter Column)[] _ofFields;
    private readonly WordColumnWriter _tags, _lineCounts, _lineNumbers, _unitPrices, _memos;
    private readonly HashSet<int> _written = [];
    private DocumentStretch? _before;
    private int _stretch = -1;
    private int _next;
    private int _lines;
    private int _documents;

    /// <summary>Begins.</summary>
    /// <param name="months">Where it goes.</param>
    /// <param name="stale">The documents that are no longer as they were; all where nothing is named: nothing is there then.</param>
    public DocumentTextsWriter(WritableDerivedMonths months, HashSet<int>? stale)
    {
        (_months, _stale) = (months, stale);
        _ofFields = [.. RecordTables.Documents.Fields.Select(field => (field.IsNumber, ColumnOf(field.Name)))];
        (_tags, _lineCounts, _lineNumbers) = (
            ColumnOf(RecordQuery.Tags), ColumnOf(DocumentStretch.LineCount), ColumnOf(DocumentStretch.LineNumber));
        (_unitPrices, _memos) = (
            ColumnOf(DocumentStretch.NameOfLine(DocumentStretch.UnitPrice)), ColumnOf(DocumentStretch.NameOfLine(DocumentStretch.Memo)));
    }

    /// <summary>Adds a document; they come in the order of their keys.</summary>
    public void Add(DerivedDocument document)
    {
        if (document.Key / DocumentStretch.Size != _stretch)
        {
            End();
            Begin(document.Key / DocumentStretch.Size);
        }

        var row = document.Key % DocumentStretch.Size;
        KeepUntil(row);
        _next = row + 1;
        _documents++;
        for (var field = 0; field < _ofFields.Length; field++)
        {
            if (!document.Fields.Has(field))
            {
                continue;
            }

            if (_ofFields[field].IsNumber)
            {
                _ofFields[field].Column.Put(row, document.Fields.Number(field));
            }
            else
            {
                _ofFields[field].Column.Put(row, document.Fields.Text(field));
            }
        }

        if (!document.Fields.Tags.IsEmpty)
        {
            _tags.Put(row, document.Fields.Tags);
        }

        AddLines(document, row);
    }

    /// <summary>Brings the store up to date.</summary>
    public void Complete()
    {
        End();
        foreach (var stretch in (_stale ?? []).Select(document => document / DocumentStretch.Size).Distinct().Order().ToList())
        {
            if (!_written.Contains(stretch))
            {
                Begin(stretch);
                End();
            }
        }
    }

    private void AddLines(DerivedDocument document, int row)
    {
        _lineCounts.Put(row, document.Lines.Count);
        for (var line = 0; line < document.Lines.Count; line++, _lines++)
        {
            _lineNumbers.Put(_lines, document.Lines[line].Number);
            if (document.UnitPriceOf(line) is { } price)
            {
                _unitPrices.Put(_lines, price);
            }

            if (document.MemoOf(line) is { IsEmpty: false } memo)
            {
                _memos.Put(_lines, memo);
            }
        }
    }

    private void Begin(int stretch)
    {
        (_stretch, _next, _lines, _documents) = (stretch, 0, 0, 0);
        _before = _stale is null ? null : new DocumentStretch(name =>
            _months.Words(DerivedKind.Texts, DocumentStretch.PlaceOf(stretch), name, out _));
        _ = _written.Add(stretch);
    }

    private void End()
    {
        if (_stretch < 0)
        {
            return;
        }

        KeepUntil(DocumentStretch.Size);
        _months.Write(
            DerivedKind.Texts, DocumentStretch.PlaceOf(_stretch), _documents,
            [.. _columns.Where(column => !column.Value.IsEmpty).OrderBy(column => column.Key, StringComparer.Ordinal)
                .Select(column => (column.Key, column.Value.Take()))]);
        _stretch = -1;
    }

    // What was there, up to a row, of documents that are as they were.
    private void KeepUntil(int end)
    {
        for (; _before is { } before && _next < end; _next++)
        {
            var row = _next;
            if (_stale!.Contains((_stretch * DocumentStretch.Size) + row) || !before.Has(row))
            {
                continue;
            }

            _documents++;
            foreach (var field in DocumentStretch.OfDocuments)
            {
                before.Column(field.Name)?.CopyTo(ColumnOf(field.Name), row, row);
            }

            before.Column(DocumentStretch.LineCount)?.CopyTo(ColumnOf(DocumentStretch.LineCount), row, row);
            for (var line = before.FirstLineOf(row); line < before.FirstLineOf(row + 1); line++, _lines++)
            {
                before.Column(DocumentStretch.LineNumber)?.CopyTo(ColumnOf(DocumentStretch.LineNumber), line, _lines);
                foreach (var field in DocumentStretch.OfLines)
                {
                    var name = DocumentStretch.NameOfLine(field);
                    before.Column(name)?.CopyTo(ColumnOf(name), line, _lines);
                }
            }
        }
    }

    private WordColumnWriter ColumnOf(string name)
    {
        if (!_columns.TryGetValue(name, out var column))
        {
            _columns[name] = column = new WordColumnWriter();
        }

        return column;
    }
}
