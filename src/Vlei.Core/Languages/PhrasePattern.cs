namespace Vlei.Core.Languages;

/// <summary>A phrase with places, and the same in another language.</summary>
internal sealed class PhrasePattern
{
    private readonly string[] _parts;
    private readonly string[] _places;
    private readonly string _translation;

    /// <summary>Reads one.</summary>
    public PhrasePattern(string phrase, string translation)
    {
        var (parts, places, start) = (new List<string>(), new List<string>(), 0);
        for (var open = phrase.IndexOf('{', StringComparison.Ordinal); open >= 0; open = phrase.IndexOf('{', start))
        {
            var close = phrase.IndexOf('}', open);
            parts.Add(phrase[start..open]);
            places.Add(phrase[open..(close + 1)]);
            start = close + 1;
        }

        (_parts, _places) = ([.. parts, phrase[start..]], [.. places]);
        _translation = translation;
        Letters = _parts.Sum(part => part.Length);
    }

    /// <summary>How many letters it has besides its places: of two patterns that fit, the longer one says more.</summary>
    public int Letters { get; }

    /// <summary>What a phrase that fits it is; nothing for any other.</summary>
    /// <param name="phrase">The phrase.</param>
    /// <param name="dates">How days are written.</param>
    /// <param name="inner">What stands in a place; nothing where that is not known, and stays as it is.</param>
    public string? Say(string phrase, DateWords dates, Func<string, string?> inner)
    {
        if (!phrase.StartsWith(_parts[0], StringComparison.Ordinal) || !phrase.EndsWith(_parts[^1], StringComparison.Ordinal)
            || phrase.Length <= Letters)
        {
            return null;
        }

        return Filled(_translation, phrase, 0, _parts[0].Length, dates, inner);
    }

    // Words before a day may have any number of blanks, so that every place where a part can end is tried.
    private string? Filled(string said, string phrase, int place, int at, DateWords dates, Func<string, string?> inner)
    {
        if (place == _places.Length)
        {
            return at == phrase.Length ? said : null;
        }

        var next = _parts[place + 1];
        var isLast = place == _places.Length - 1;
        for (var end = isLast ? phrase.Length - next.Length : phrase.IndexOf(next, at, StringComparison.Ordinal); end > at;
            end = isLast ? -1 : phrase.IndexOf(next, end + 1, StringComparison.Ordinal))
        {
            var value = phrase[at..end];
            if ((_places[place].StartsWith("{day", StringComparison.Ordinal) ? DayOf(value, dates) : inner(value) ?? value) is { } known
                && Filled(
                    said.Replace(_places[place], known, StringComparison.Ordinal), phrase, place + 1, end + next.Length, dates,
                    inner) is { } filled)
            {
                return filled;
            }
        }

        return null;
    }

    // A number alone is a day where another one follows: 1 to 15 March. Else it is any number, as that of a boat.
    private string? DayOf(string value, DateWords dates) =>
        value.All(char.IsAsciiDigit) && value.Length <= 2 && !_places.Contains("{day1}") ? null : dates.Say(value);
}
