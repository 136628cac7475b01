using System.Text;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Problems;

namespace Vlei.Core.Fields;

/// <summary>
/// A list of values as people type it: <c>4000,41*,5000/5999,&gt;=7000,"Oak, Elm and Co"</c>. A value is an id or a
/// name; ranges, which are written as ISO 8601 writes intervals, and comparisons look at ids, or at names where the field is
/// a name; what is there as it is typed, and what is in quotes, is a value as it stands, and <c>none</c> is what has none.
/// </summary>
/// <remarks>
/// What is typed in the very letters of a value is that value; only where there is none such, capitals do not matter.
/// </remarks>
public sealed class ValueList
{
    private const int MostListed = 16;

    private static readonly string[] Operators = [">=", "<=", ">", "<"];

    private readonly IReadOnlyList<Entry> _entries;

    private ValueList(IReadOnlyList<Entry> entries) => _entries = entries;

    /// <summary>Reads a list. Throws a <see cref="ProblemException"/> where it is empty or a quote is not closed.</summary>
    public static ValueList Parse(string text)
    {
        var entries = Cut(text).ToList();
        return entries.Any(entry => entry.Text.Length == 0 && !entry.IsQuoted)
            ? throw new ProblemException(
                ProblemKind.Usage, $"\"{text}\" has an empty place where a value should be.",
                "Write values, ranges and patterns with commas between them: 4000,41*,5000/5999.")
            : new ValueList(entries);
    }

    /// <summary>
    /// Which of the values are meant, by their places: those that the list names, and what is part of them. Throws a
    /// <see cref="ProblemException"/> where something of the list means no value.
    /// </summary>
    public bool[] MeantOf(string field, IReadOnlyList<FieldValue> values)
    {
        var meant = NamedOf(field, values, mayNameNone: false);
        if (values.All(value => value.Parent is null))
        {
            return meant;
        }

        var plain = _entries.Select(entry => entry.Among(values)).Where(entry => entry.IsPlain).ToList();
        var whole = values.Skip(1).Where(value => plain.Any(entry => entry.Means(field, value, isNone: false)))
            .Select(value => value.Id).ToHashSet();
        for (var before = -1; before != whole.Count;)
        {
            before = whole.Count;
            whole.UnionWith(values.Where(value => value.Parent is { } parent && whole.Contains(parent)).Select(value => value.Id));
        }

        for (var place = 1; place < meant.Length; place++)
        {
            meant[place] |= whole.Contains(values[place].Id);
        }

        return meant;
    }

    /// <summary>
    /// Which of the values the list itself names, by their places. Throws a <see cref="ProblemException"/> where something
    /// of it names none of them, unless it may.
    /// </summary>
    public bool[] NamedOf(string field, IReadOnlyList<FieldValue> values, bool mayNameNone)
    {
        var meant = new bool[values.Count];
        foreach (var typed in _entries)
        {
            var (entry, any) = (typed.Among(values), false);
            for (var place = 0; place < meant.Length; place++)
            {
                if (entry.Means(field, values[place], place == 0))
                {
                    meant[place] = any = true;
                }
            }

            if (!any && !mayNameNone)
            {
                throw new ProblemException(
                    ProblemKind.NotFound,
                    entry.IsPlain ? $"There is no {field} \"{entry.Text}\"." : $"No {field} fits \"{entry.Text}\".",
                    DidYouMean(entry.Text, values));
            }
        }

        return meant;
    }

    /// <summary>
    /// Whether a number is one of those that the list means. Throws a <see cref="ProblemException"/> where something of it
    /// is no number, no range of numbers and no comparison with one.
    /// </summary>
    /// <param name="field">What the number is called, for messages.</param>
    /// <param name="units">The number, in units of which there are 10^<paramref name="decimals"/> to one.</param>
    /// <param name="decimals">See there.</param>
    public bool Takes(string field, long units, int decimals) =>
        _entries.Aggregate(false, (takes, entry) => takes | entry.Takes(field, units, decimals));

    /// <summary>
    /// Whether a day is one of those that the list means: days, periods, ranges of them and comparisons. Throws a
    /// <see cref="ProblemException"/> where something of it is none.
    /// </summary>
    /// <param name="day">The day.</param>
    /// <param name="read">Reads a period.</param>
    public bool Takes(DateOnly day, Func<string, OpenPeriod> read) => _entries.Any(entry => entry.Takes(day, read));

    /// <summary>Whether the list has <c>none</c> in it.</summary>
    public bool HasNone => _entries.Any(entry => entry.IsNone);

    /// <summary>The list without <c>none</c>.</summary>
    public ValueList WithoutNone => new([.. _entries.Where(entry => !entry.IsNone)]);

    /// <summary>The same list, where what is there in the very letters that are typed is a value, whatever else it could mean.</summary>
    /// <param name="isThere">Whether there is such a value.</param>
    public ValueList Among(Predicate<string> isThere) => new([.. _entries.Select(entry => entry.Among(isThere))]);

    /// <summary>A value as it is typed so that it means itself: in quotes where it would mean something else.</summary>
    public static string Typed(string value) =>
        value.Length == 0 || value.AsSpan().IndexOfAny("\",*") >= 0 || value.Trim() != value || value[0] is '<' or '>'
            ? $"\"{value.Replace("\"", "\"\"")}\"" : value;

    /// <summary>The list as it was typed.</summary>
    public string AsTyped => string.Join(", ", _entries.Select(entry => entry.Text));

    /// <summary>The list in words: plain values with their names, the rest as it was typed.</summary>
    public string InWords(string field, IReadOnlyList<FieldValue> values) => string.Join(
        ", ", _entries.Select(entry => entry.Among(values)).SelectMany(entry => !entry.IsPlain || entry.IsNone ? [entry.Text]
            : values.Skip(1).Where(value => entry.Means(field, value, isNone: false)).ToList() is { Count: > 0 } meant
                ? meant.Select(value => value.Id != value.Name ? $"{value.Id} {value.Name}" : value.Id) : [entry.Text]));

    /// <summary>The order of texts: without regard to capitals, runs of digits by their value.</summary>
    public static int Compare(string one, string other) => CodeOrder.OfNames.Compare(one, other);

    private static IEnumerable<Entry> Cut(string text)
    {
        for (var start = 0; start <= text.Length;)
        {
            var rest = text[start..].TrimStart();
            if (rest.StartsWith('"'))
            {
                var open = text.IndexOf('"', start);
                var close = CloseOf(text, open);
                if (close < 0)
                {
                    throw new ProblemException(
                        ProblemKind.Usage, $"The quote in {text} is not closed.", "Close it: \"Oak, Elm and Co\".");
                }

                var comma = text.IndexOf(',', close);
                yield return new Entry(text[(open + 1)..close].Replace("\"\"", "\""), IsQuoted: true);
                start = comma < 0 ? text.Length + 1 : comma + 1;
            }
            else
            {
                var comma = text.IndexOf(',', start);
                yield return new Entry((comma < 0 ? text[start..] : text[start..comma]).Trim(), IsQuoted: false);
                start = comma < 0 ? text.Length + 1 : comma + 1;
            }
        }
    }

    // A quote within quotes is written twice.
    private static int CloseOf(string text, int open)
    {
        for (var at = open + 1; at < text.Length; at++)
        {
            if (text[at] == '"' && ++at is var next && (next == text.Length || text[next] != '"'))
            {
                return next - 1;
            }
        }

        return -1;
    }

    private static string? DidYouMean(string text, IReadOnlyList<FieldValue> values) =>
        Suggestion.Nearest(text, values.SelectMany(value => new[] { value.Id, value.Name }).Distinct()) is { Count: > 0 } near
            ? $"Did you mean {Suggestion.Listed([.. near.Select(Typed)], "or")}?"
            : values.Count is > 1 and <= MostListed
                ? Suggestion.ThereAre([.. values.Skip(1).Select(value => value.Id)]) : null;

    // One entry of the list: a value, a range, a comparison or a pattern.
    private sealed record Entry(string Text, bool IsQuoted)
    {
        private readonly string? _operator = IsQuoted ? null
            : Operators.FirstOrDefault(sign => Text.StartsWith(sign, StringComparison.Ordinal));
        private readonly bool _isPattern = !IsQuoted && Text.Contains('*');
        private readonly int _slash = IsQuoted || Text.Contains('*') ? -1 : Text.IndexOf('/');

        public bool IsRange => _operator is null && _slash >= 0;

        public bool IsPlain => _operator is null && _slash < 0 && !_isPattern;

        public bool IsNone => IsPlain && !IsQuoted && Text.Equals(FieldNames.None, StringComparison.OrdinalIgnoreCase);

        private Entry InTheseLetters => new(Text, IsQuoted: true) { Letters = StringComparison.Ordinal };

        // In what letters a value must be written to be meant.
        private StringComparison Letters { get; init; } = StringComparison.OrdinalIgnoreCase;

        public Entry Among(Predicate<string> isThere) => isThere(Text) ? InTheseLetters : this;

        // What is there as it is typed is a value, however it is written.
        public Entry Among(IReadOnlyList<FieldValue> values)
        {
            if (IsNone)
            {
                return this;
            }

            var isAsTyped = false;
            for (var place = 1; place < values.Count; place++)
            {
                if (!Is(values[place], StringComparison.OrdinalIgnoreCase))
                {
                    continue;
                }

                if (Is(values[place], StringComparison.Ordinal))
                {
                    return InTheseLetters;
                }

                isAsTyped = true;
            }

            return isAsTyped ? new Entry(Text, IsQuoted: true) : this;
        }

        public bool Takes(DateOnly day, Func<string, OpenPeriod> read)
        {
            var period = read(_operator is null ? Text : Text[_operator.Length..].Trim());
            return _operator switch
            {
                ">=" => !(day < period.From),
                "<=" => !(day > period.To),
                ">" => day > period.To,
                "<" => day < period.From,
                _ => !(day < period.From) && !(day > period.To),
            };
        }

        public bool Means(string field, FieldValue value, bool isNone)
        {
            if (isNone)
            {
                return IsNone;
            }

            if (IsPlain)
            {
                return Is(value, Letters);
            }

            var own = FieldNames.IsNameOf(field) ? value.Name : value.Id;
            return _operator is not null ? Compares(own)
                : IsRange ? (_slash == 0 || Compare(own, Text[.._slash]) >= 0)
                    && (_slash + 1 == Text.Length || IsUpTo(own, Text[(_slash + 1)..]))
                : Fits(own, Text) || Fits(value.Name, Text);
        }

        public bool Takes(string field, long units, int decimals)
        {
            if (IsRange)
            {
                return (_slash == 0 || units >= Number(Text[.._slash]))
                    && (_slash + 1 == Text.Length || units <= Number(Text[(_slash + 1)..]));
            }

            var number = Number(_operator is null ? Text : Text[_operator.Length..]);
            return _operator switch
            {
                ">=" => units >= number,
                "<=" => units <= number,
                ">" => units > number,
                "<" => units < number,
                _ => units == number,
            };

            long Number(string text) => DecimalText.Read(
                Encoding.UTF8.GetBytes(text.Trim()), decimals, out var read) == DecimalTextResult.Read
                ? read
                : throw new ProblemException(
                    ProblemKind.Usage, $"{field} is a number, and \"{Text}\" says none{(decimals == 0 ? " that is whole" : "")}.",
                    $"Write a number, a range or a comparison: {field}=100, {field}=100/500, \"{field}=>=100\".");
        }

        private bool Is(FieldValue value, StringComparison letters) => Text.Equals(value.Id, letters) || Text.Equals(value.Name, letters);

        private bool Compares(string own)
        {
            var order = Compare(own, Text[_operator!.Length..].Trim());
            return _operator switch
            {
                ">=" => order >= 0,
                "<=" => IsUpTo(own, Text[_operator.Length..].Trim()),
                ">" => order > 0,
                _ => order < 0,
            };
        }

        private static int Compare(string own, string bound) => ValueList.Compare(own, bound);

        // A to M has the names that start with M too; 4000/4999 does not have 49990.
        private static bool IsUpTo(string own, string bound) => Compare(own, bound) <= 0
            || (bound.Length > 0 && !char.IsAsciiDigit(bound[^1]) && own.StartsWith(bound, StringComparison.OrdinalIgnoreCase));

        private static bool Fits(string own, string pattern)
        {
            var parts = pattern.Split('*');
            if (!own.StartsWith(parts[0], StringComparison.OrdinalIgnoreCase))
            {
                return false;
            }

            var place = parts[0].Length;
            foreach (var part in parts[1..^1])
            {
                var found = own.IndexOf(part, place, StringComparison.OrdinalIgnoreCase);
                if (found < 0)
                {
                    return false;
                }

                place = found + part.Length;
            }

            return own.Length - place >= parts[^1].Length && own.EndsWith(parts[^1], StringComparison.OrdinalIgnoreCase);
        }
    }
}
