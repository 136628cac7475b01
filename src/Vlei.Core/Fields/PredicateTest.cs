using System.Text;
using Vlei.Core.Calendar;
using Vlei.Core.Money;
using Vlei.Core.Problems;

namespace Vlei.Core.Fields;

/// <summary>
/// Asks a predicate of rows. Fields are looked up and types compared when it is made, so that every mistake is told before
/// any row is read.
/// </summary>
internal sealed class PredicateTest
{
    private readonly TableFields _fields;
    private readonly TableContext _context;
    private readonly string _option;
    private readonly string _text;

    private PredicateTest(TableFields fields, TableContext context, string text, string option) =>
        (_fields, _context, _text, _option) = (fields, context, text, option);

    private const int MostListed = 12;

    private delegate Truth[] Answer(RowSet rows);

    /// <summary>
    /// The conditions that must all hold, each as a question to rows. Throws a <see cref="ProblemException"/> that points at
    /// the place where one makes no sense.
    /// </summary>
    public static IReadOnlyList<(Func<RowSet, Truth[]> Ask, IReadOnlyList<string> Names)> Of(
        string text, TableFields fields, TableContext context, string option = "where")
    {
        var predicate = Predicate.Parse(text, option);
        var test = new PredicateTest(fields, context, text, option);
        return [.. (predicate is Predicate.All all ? all.Of : [predicate]).Select(part =>
            (new Func<RowSet, Truth[]>(test.Make(part)), (IReadOnlyList<string>)[.. part.Names]))];
    }

    private Answer Make(Predicate predicate) => predicate switch
    {
        Predicate.All all => Joined([.. all.Of.Select(Make)], (left, right) => left < right ? left : right),
        Predicate.Any any => Joined([.. any.Of.Select(Make)], (left, right) => left > right ? left : right),
        Predicate.Opposite opposite when Make(opposite.Of) is var answer =>
            rows => [.. answer(rows).Select(truth => Truth.True - (byte)truth)],
        Predicate.Missing missing when FieldOf(missing.Left) is var field => rows =>
        {
            var cells = field.Read(rows);
            return [.. cells.Numbers.Select(number => cells.IsNothing(number) ? Truth.True : Truth.False)];
        }
        ,
        Predicate.Fitting fitting when WordsOf(fitting.Left) is var field => Asked(
            field, (word, id) => Fits(word, fitting.Pattern.Text) || Fits(id, fitting.Pattern.Text)),
        Predicate.OneOfThese among => Joined(
            [.. among.Values.Select(value => Compared(among.Left, "=", value))], (left, right) => left > right ? left : right),
        Predicate.Compared compared => Compared(compared.Left, compared.Operator, compared.Right),
        _ => throw new InvalidOperationException($"There is no such predicate: {predicate}."),
    };

    private static Answer Joined(IReadOnlyList<Answer> answers, Func<Truth, Truth, Truth> join) => rows =>
    {
        var joined = answers[0](rows);
        foreach (var answer in answers.Skip(1))
        {
            var other = answer(rows);
            for (var row = 0; row < joined.Length; row++)
            {
                joined[row] = join(joined[row], other[row]);
            }
        }

        return joined;
    };

    private Answer Compared(Operand left, string sign, Operand right)
    {
        if (left is Operand.Quoted && right is not Operand.Quoted)
        {
            return Compared(right, sign switch { "<" => ">", "<=" => ">=", ">" => "<", ">=" => "<=", _ => sign }, left);
        }

        if (left is Operand.Quoted || (IsNumber(left) && IsNumber(right)))
        {
            throw Predicate.Wrong(
                _option, _text, left.Place, "neither side is a field.",
                "Compare a field with something; texts stand in single quotes, fields do not.");
        }

        var single = SingleFieldOf(left);
        if (single is { Field: { IsNumber: false, IsDay: false } })
        {
            RefuseBareText(right);
        }

        return (single, SingleFieldOf(right)) switch
        {
            ({ Field.IsDay: true } day, { Field.IsDay: true } other) => Days(day, sign, other),
            ({ Field.IsDay: true } day, _) => Days(day, sign, right),
            ({ Field.IsNumber: false } words, { Field: { IsNumber: false, IsDay: false } } other) => Words(words, sign, other),
            ({ Field.IsNumber: false } words, _) when TextOf(right) is { } text =>
                Words(words, sign, KnownIn(words, text, sign, right.Place)),
            (null or { Field.IsNumber: true }, _) when right is Operand.Quoted && !IsNumber(right) => IsNumber(left)
                ? throw Predicate.Wrong(_option, _text, left.Place, "neither side is a field.", "Compare a field with something.")
                : throw Predicate.Wrong(
                    _option, _text, right.Place, "a number is expected here.", "Write it without quotes: amount > 100."),
            ({ Field.IsNumber: false } words, _) => throw Predicate.Wrong(
                _option, _text, right.Place, $"{words.Field.Name} is a {words.Field.TypeName}, and this is a number.",
                "Compare it with a text in single quotes, or with a field like it."),
            _ when IsNumber(left) && SingleFieldOf(right) is { Field.IsNumber: false } => Compared(
                right, sign switch { "<" => ">", "<=" => ">=", ">" => "<", ">=" => "<=", _ => sign }, left),
            _ => Numbers(left, sign, right),
        };
    }

    // Where words are compared, a name that is no field is a text that was not quoted.
    private void RefuseBareText(Operand right)
    {
        if (right is Operand.Reckoned { Formula: Formula.Named named } && !_fields.Has(named.Name) && right.Place + named.Place is var at
            && (at == 0 || _text[at - 1] != '"') && !IsPeriod(named.Name))
        {
            throw Predicate.Wrong(
                _option, _text, at, $"{named.Name} is no field, and a text stands in single quotes.", $"Write '{named.Name}'.");
        }
    }

    private static Answer Days(BoundField left, string sign, BoundField right) => rows =>
    {
        var (one, other) = (left.Read(rows).Numbers, right.Read(rows).Numbers);
        return [
            .. one.Select(
                (day, row) => day == FieldCells.Nothing || other[row] == FieldCells.Nothing ? Truth.Unknown
                    : TruthOf(sign, day.CompareTo(other[row])))];
    };

    private Answer Days(BoundField field, string sign, Operand period)
    {
        if (TextOf(period) is not { } text)
        {
            throw Predicate.Wrong(
                _option, _text, period.Place, $"{field.Field.Name} is a date.",
                "Compare it with a day or a period in quotes: '2026-03-15', '2026-03', 'last-month'.");
        }

        OpenPeriod days;
        try
        {
            days = PeriodGrammar.Parse(text, _context.Today, _context.Calendar);
        }
        catch (ProblemException noPeriod)
        {
            throw Predicate.Wrong(_option, _text, period.Place, noPeriod.Message, noPeriod.Advice);
        }

        // A day before a period is before its first day, one after it is after its last.
        var (from, to) = (days.From?.DayNumber ?? long.MinValue + 1, days.To?.DayNumber ?? long.MaxValue);
        return rows => [.. field.Read(rows).Numbers.Select(day => day == FieldCells.Nothing ? Truth.Unknown
            : TruthOf(sign, day < from ? -1 : day > to ? 1 : 0))];
    }

    private static Answer Words(BoundField left, string sign, BoundField right) => rows =>
    {
        var (one, other) = (left.Read(rows), right.Read(rows));
        return [.. one.Numbers.Select((number, row) => one.IsNothing(number) || other.IsNothing(other.Numbers[row]) ? Truth.Unknown
            : TruthOf(sign, ValueList.Compare(one.Pool!.Ids[(int)number], other.Pool!.Ids[(int)other.Numbers[row]])))];
    };

    // What no record can have is a slip, where it is known what they have.
    private string KnownIn(BoundField field, string text, string sign, int place)
    {
        if (sign is not "=" || text.Length == 0 || (field.Field.Target is null && field.Field.Words is null)
            || field.Read(new RowSet(new RowBlock(0, _ => []))).Pool is not { IsShared: true } pool)
        {
            return text;
        }

        var known = pool.Words.Concat(pool.Ids).Concat(pool.Names).Where(word => word.Length > 0).Distinct().ToList();
        return known.Exists(word => Same(word, text)) ? text : throw Predicate.Wrong(
            _option, _text, place, $"no {field.Field.Name} is \"{text}\".", Suggestion.DidYouMean(text, known)
                ?? (known.Count <= MostListed ? Suggestion.ThereAre(known) : "Use like for a part of it."));
    }

    private static Answer Words(BoundField field, string sign, string text) => Asked(field, (word, id) => sign switch
    {
        "=" => Same(word, text) || Same(id, text),
        "<>" => !Same(word, text) && !Same(id, text),
        _ => TruthOf(sign, ValueList.Compare(id, text)) == Truth.True,
    });

    private static Answer Asked(BoundField field, Func<string, string, bool> holds)
    {
        var test = new WordTest(holds);
        return rows => test.Of(field.Read(rows));
    }

    private Answer Numbers(Operand left, string sign, Operand right)
    {
        var (one, other) = (NumberOf(left), NumberOf(right));
        return rows =>
        {
            var (of, with) = (one(rows), other(rows));
            var answers = new Truth[rows.Count];
            for (var row = 0; row < answers.Length; row++)
            {
                answers[row] = of(row) is { } number && with(row) is { } compared ? TruthOf(sign, number.CompareTo(compared))
                    : Truth.Unknown;
            }

            return answers;
        };
    }

    private Func<RowSet, Func<int, decimal?>> NumberOf(Operand operand)
    {
        if (operand is not Operand.Reckoned { Formula: var formula })
        {
            var value = IsNumber(operand, out var read) ? read
                : throw Predicate.Wrong(_option, _text, operand.Place, "a number is expected here.", null);
            return _ => _ => value;
        }

        try
        {
            return new ReckonedField(formula, _fields).Read;
        }
        catch (ProblemException problem)
        {
            var place = formula.Names.Where(name => !IsNumberField(name.Name)).Select(name => name.Place).FirstOrDefault();
            throw Predicate.Wrong(_option, _text, operand.Place + place, problem.Message, problem.Advice);
        }
    }

    private bool IsNumberField(string name) => _fields.Has(name) && _fields.Named(name).Field.IsNumber;

    // The one field that an operand is; nothing where it is something else.
    private BoundField? SingleFieldOf(Operand operand) =>
        operand is Operand.Reckoned { Formula: Formula.Named named } ? Named(named, operand.Place) : null;

    private BoundField FieldOf(Operand operand) => SingleFieldOf(operand)
        ?? throw Predicate.Wrong(_option, _text, operand.Place, "a field is expected here.", null);

    private BoundField WordsOf(Operand operand) => FieldOf(operand) is { Field: { IsNumber: false, IsDay: false } } field ? field
        : throw Predicate.Wrong(
            _option, _text, operand.Place, "like is for words, and this has none.", "Compare numbers and dates with =, <, > or between.");

    private BoundField Named(Formula.Named named, int place)
    {
        try
        {
            return _fields.Named(named.Name);
        }
        catch (ProblemException unknown)
        {
            var at = place + named.Place;
            throw at > 0 && _text[at - 1] == '"'
                ? Predicate.Wrong(
                    _option, _text, at, $"\"{named.Name}\" is no field, and texts stand in single quotes.",
                    $"Write '{named.Name.Replace("'", "''", StringComparison.Ordinal)}'.")
                : IsPeriod(named.Name)
                    ? Predicate.Wrong(
                        _option, _text, at, $"{named.Name} is a day or a period, and those stand in single quotes.",
                        $"Write '{named.Name}'.")
                    : Predicate.Wrong(_option, _text, at, unknown.Message, unknown.Advice);
        }
    }

    private bool IsPeriod(string text)
    {
        try
        {
            _ = PeriodGrammar.Parse(text, _context.Today, _context.Calendar);
            return true;
        }
        catch (ProblemException)
        {
            return false;
        }
    }

    private static string? TextOf(Operand operand) => operand switch
    {
        Operand.Quoted quoted => quoted.Text,
        Operand.Reckoned { Formula: Formula.Number number } => number.Text,
        _ => null,
    };

    private static bool IsNumber(Operand operand) => IsNumber(operand, out _);

    private static bool IsNumber(Operand operand, out decimal value)
    {
        const decimal Millionths = 1_000_000m;
        value = operand is Operand.Reckoned { Formula: Formula.Number { Value: var number } } ? number : 0;
        if (operand is Operand.Quoted quoted
            && DecimalText.Read(
                Encoding.UTF8.GetBytes(quoted.Text), Ledger.RecordField.DecimalPlaces, out var units) == DecimalTextResult.Read)
        {
            value = units / Millionths;
            return true;
        }

        return operand is Operand.Reckoned { Formula: Formula.Number };
    }

    private static Truth TruthOf(string sign, int order) => sign switch
    {
        "=" => order == 0,
        "<>" => order != 0,
        "<" => order < 0,
        "<=" => order <= 0,
        ">" => order > 0,
        _ => order >= 0,
    } ? Truth.True : Truth.False;

    private static bool Same(string one, string other) => one.Equals(other, StringComparison.OrdinalIgnoreCase);

    // Greedy, going back to the last % where it does not fit: no pattern takes longer than its length times the text's.
    private static bool Fits(string text, string pattern)
    {
        var (at, place, lastAny, resume) = (0, 0, -1, 0);
        while (at < text.Length)
        {
            if (place < pattern.Length && pattern[place] == '%')
            {
                (lastAny, resume) = (place++, at);
            }
            else if (place < pattern.Length
                && (pattern[place] == '_' || char.ToUpperInvariant(pattern[place]) == char.ToUpperInvariant(text[at])))
            {
                (at, place) = (at + 1, place + 1);
            }
            else if (lastAny >= 0)
            {
                (place, at) = (lastAny + 1, ++resume);
            }
            else
            {
                return false;
            }
        }

        return pattern.AsSpan(place).Trim('%').IsEmpty;
    }
}
