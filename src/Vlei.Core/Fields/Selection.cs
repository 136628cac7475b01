using Vlei.Core.Calendar;
using Vlei.Core.Problems;

namespace Vlei.Core.Fields;

/// <summary>
/// Which rows of a table are taken. Values of the same field are alternatives, different fields must all hold, what is left
/// out wins, and the predicate must hold besides.
/// </summary>
public sealed class Selection
{
    private readonly List<Func<RowSet, bool[]>> _conditions = [];
    private readonly List<string> _words = [];
    private readonly TableContext _context;

    private Selection(TableContext context) => _context = context;

    /// <summary>What it says, in words, a condition each.</summary>
    public IReadOnlyList<string> InWords => [.. _words.Distinct()];

    /// <summary>Makes one. Throws a <see cref="ProblemException"/> where a field or a value is not there, or a predicate makes no sense.</summary>
    /// <param name="choices">What is taken alone, and what is left out.</param>
    /// <param name="where">Predicates; all must hold.</param>
    /// <param name="fields">The fields of the table.</param>
    /// <param name="context">The book.</param>
    public static Selection Of(
        IReadOnlyList<FieldChoice> choices, IReadOnlyList<PredicateText> where, TableFields fields, TableContext context)
    {
        var selection = new Selection(context);
        foreach (var ofField in FieldChoice.Together(choices))
        {
            selection.Add(Naming.Of(ofField[0].Source, () => fields.Named(ofField[0].Field)), ofField);
        }

        foreach (var (text, source) in where)
        {
            selection._conditions.AddRange(Naming.Of(source, () => PredicateTest.Of(text, fields, context)).Select(test =>
                new Func<RowSet, bool[]>(rows => [.. test(rows).Select(truth => truth == Truth.True)])));
            selection._words.Add($"Where {text}");
        }

        return selection;
    }

    /// <summary>The rows of a block that are taken. What is cheap to ask comes first, and later questions are asked of fewer rows.</summary>
    public RowSet Taken(RowBlock block)
    {
        var rows = new RowSet(block);
        foreach (var condition in _conditions)
        {
            if (rows.Count == 0)
            {
                break;
            }

            var taken = condition(rows);
            rows = rows.Where(row => taken[row]);
        }

        return rows;
    }

    private void Add(BoundField field, IReadOnlyList<FieldChoice> choices)
    {
        var asked = Naming.Of(choices[0].Source, () =>
            field.Field.IsDay ? OfDays(field, choices) : field.Field.IsNumber ? OfNumbers(field, choices) : OfWords(field, choices));
        bool[] Ask(RowSet rows) => Naming.Of(choices[0].Source, () => asked(rows));
        _conditions.Add(Ask);

        // Asked of no rows at all, it tells mistakes before any are read.
        _ = Ask(new RowSet(new RowBlock(0, _ => [])));
    }

    private static bool Takes(IReadOnlyList<FieldChoice> choices, Func<ValueList, bool> means) =>
        !choices.Any(choice => choice.IsExcept && means(choice.List))
        && (choices.All(choice => choice.IsExcept) || choices.Any(choice => !choice.IsExcept && means(choice.List)));

    private Func<RowSet, bool[]> OfNumbers(BoundField field, IReadOnlyList<FieldChoice> choices)
    {
        Say(field, choices, list => list.AsTyped);
        _ = Means(0);
        return rows => [.. field.Read(rows).Numbers.Select(Means)];

        bool Means(long number) => Takes(choices, list => number == FieldCells.Nothing
            ? list.HasNone : list.WithoutNone.Takes(field.Field.Name, number, field.Decimals));
    }

    private Func<RowSet, bool[]> OfDays(BoundField field, IReadOnlyList<FieldChoice> choices)
    {
        var periods = new Dictionary<string, OpenPeriod>(StringComparer.Ordinal);
        var known = new Dictionary<long, bool>();
        Say(field, choices, list => list.AsTyped);
        _ = Means(_context.Today.Date.DayNumber);
        return rows => [.. field.Read(rows).Numbers.Select(Means)];

        bool Means(long day)
        {
            if (!known.TryGetValue(day, out var means))
            {
                known[day] = means = Takes(choices, list => day == FieldCells.Nothing
                    ? list.HasNone : list.WithoutNone.Takes(DateOnly.FromDayNumber((int)day), PeriodOf));
            }

            return means;
        }

        OpenPeriod PeriodOf(string text)
        {
            if (!periods.TryGetValue(text, out var period))
            {
                periods[text] = period = PeriodGrammar.Parse(text, _context.Today, _context.Calendar);
            }

            return period;
        }
    }

    private Func<RowSet, bool[]> OfWords(BoundField field, IReadOnlyList<FieldChoice> choices)
    {
        var (pool, allowed) = (default(WordPool), Array.Empty<bool>());
        var isSaid = false;
        return rows =>
        {
            var cells = field.Read(rows);
            if (cells.Pool != pool)
            {
                pool = cells.Pool!;
                var values = ValuesOf(pool);
                allowed = new bool[values.Count];
                Array.Fill(allowed, choices.All(choice => choice.IsExcept));
                foreach (var choice in choices)
                {
                    // What is read bit by bit may well have a word further on that it does not have here.
                    var meant = pool.IsShared ? choice.List.MeantOf(field.Field.Name, values) : choice.List.NamedOf(field.Field.Name, values, mayNameNone: true);
                    for (var value = 0; value < allowed.Length; value++)
                    {
                        allowed[value] = choice.IsExcept ? allowed[value] && !meant[value] : allowed[value] || meant[value];
                    }
                }

                if (!isSaid)
                {
                    isSaid = true;
                    Say(field, choices, list => pool.IsShared ? list.InWords(field.Field.Name, values) : list.AsTyped);
                }
            }

            return [.. cells.Numbers.Select(number => allowed[(int)number])];
        };
    }

    private static List<FieldValue> ValuesOf(WordPool pool)
    {
        var values = new List<FieldValue>(pool.Words.Count) { new(Field.None, Field.None) };
        for (var number = 1; number < pool.Words.Count; number++)
        {
            values.Add(new FieldValue(
                pool.Ids[number], pool.Names[number], pool.Parents is { } parents && parents[number] > 0 ? pool.Ids[parents[number]] : null));
        }

        return values;
    }

    private void Say(BoundField field, IReadOnlyList<FieldChoice> choices, Func<ValueList, string> inWords) =>
        _words.AddRange(choices.Select(choice => $"{(choice.IsExcept ? "Without" : "Only")} {field.Field.Name} {inWords(choice.List)}"));
}
