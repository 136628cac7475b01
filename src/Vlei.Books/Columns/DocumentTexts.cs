using Vlei.Books.Store;
using Vlei.Core.Ledger;

namespace Vlei.Books.Columns;

/// <summary>
/// What documents and lines say, looked up by their keys: a list asks for the texts of documents that may stand anywhere in the records.
/// What was read lately is kept within a bound.
/// </summary>
/// <param name="months">Where it is kept.</param>
internal sealed class DocumentTexts(DerivedMonths months)
{
    private const int MostBytes = 48 << 20;

    private readonly Dictionary<int, DocumentStretch> _stretches = [];
    private int _bytes;
    private (int Number, DocumentStretch Stretch)? _last;

    /// <summary>What a document says in a field.</summary>
    public RecordValue Of(int document, RecordField field) =>
        StretchOf(document).Column(field)?[document % DocumentStretch.Size] ?? default;

    /// <summary>What a line says in a field of <see cref="DocumentStretch.OfLines"/>.</summary>
    public RecordValue Of(int document, int line, RecordField field)
    {
        var stretch = StretchOf(document);
        return stretch.Column(field) is { } column
            && stretch.LineAt(document % DocumentStretch.Size, line) is >= 0 and var place ? column[place] : default;
    }

    /// <summary>The stretch that a document is part of, whether it is there or not.</summary>
    public DocumentStretch StretchOf(int document)
    {
        var number = document / DocumentStretch.Size;
        if (_last is { } last && last.Number == number)
        {
            return last.Stretch;
        }

        if (!_stretches.TryGetValue(number, out var stretch))
        {
            if (_bytes > MostBytes)
            {
                _stretches.Clear();
                _bytes = 0;
            }

            _stretches[number] = stretch = new DocumentStretch(name =>
            {
                var column = months.Words(DerivedKind.Texts, DocumentStretch.PlaceOf(number), name, out var bytes);
                _bytes += bytes;
                return column;
            });
        }

        _last = (number, stretch);
        return stretch;
    }
}
