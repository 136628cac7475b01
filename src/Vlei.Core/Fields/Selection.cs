using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Problems;

namespace Vlei.Core.Fields;

/// <summary>
/// Which rows of a table are taken: the one filter of all reports. Values of the same field are alternatives, different fields
/// must all hold, what is left out wins, and the predicate must hold besides. Where all that it looks at is what postings say
/// themselves, it can be asked of them month by month; where that is their accounts alone, of accounts.
/// </summary>
public sealed class Selection
{
    // The name of no column.
    private const string NotSaid = "";

    private readonly List<Condition> _conditions = [];
    private readonly List<string> _words = [];
    private readonly TableContext? _context;

    private Selection(TableContext? context) => _context = context;

    /// <summary>Takes every row.</summary>
    public static Selection Everything { get; } = new(null);

    /// <summary>What it says, in words, a condition each.</summary>
    public IReadOnlyList<string> InWords => [.. _words.Distinct()];

    /// <summary>Whether it takes every row.</summary>
    public bool IsEverything => _conditions.Count == 0;

    /// <summary>Whether the account of a posting alone says if it is taken.</summary>
    public bool IsOfAccounts => Columns?.All(column => column == PostingField.Account) ?? false;

    /// <summary>Whether anything is asked of accounts alone.</summary>
    public bool ChoosesAccounts => _conditions.Exists(condition => condition.IsOfAccounts);

    /// <summary>The columns of postings that it looks at; nothing where it looks at something else besides.</summary>
    public IReadOnlyList<PostingField>? Columns => _conditions.TrueForAll(condition => condition.Columns is not null)
        ? [.. _conditions.SelectMany(condition => condition.Columns!).Distinct()] : null;

    /// <summary>The postings of a month as rows with every field; only needed where <see cref="Columns"/> are not all.</summary>
    public Func<PostingSource, YearMonth, RowBlock>? MonthOf { get; init; }

    /// <summary>
    /// Makes one. Throws a <see cref="ProblemException"/> where a field or a value is not there, or a predicate makes no sense.
    /// </summary>
    /// <param name="choices">What is taken alone, and what is left out.</param>
    /// <param name="where">Predicates; all must hold.</param>
    /// <param name="fields">The fields of the table.</param>
    /// <param name="context">The book.</param>
    /// <param name="named">The field of a name, where not all are to be known by the same.</param>
    /// <param name="monthOf">The postings of a month as rows with every field, where it is asked of postings.</param>
    public static Selection Of(
        IReadOnlyList<FieldChoice> choices, IReadOnlyList<PredicateText> where, TableFields fields, TableContext context,
        Func<string, BoundField>? named = null, Func<PostingSource, YearMonth, RowBlock>? monthOf = null)
    {
        var selection = new Selection(context) { MonthOf = monthOf };
        foreach (var ofField in FieldChoice.Together(choices))
        {
            selection.Add(Naming.Of(ofField[0].Source, () => (named ?? fields.Named)(ofField[0].Field)), ofField);
        }

        foreach (var (text, source) in where)
        {
            selection._conditions.AddRange(Naming.Of(source, () => PredicateTest.Of(text, fields, context)).Select(test =>
                new Condition(
                    rows => [.. test.Ask(rows).Select(truth => truth == Truth.True)],
                    PostingColumns.Found(test.Names.SelectMany(name => fields.Named(name).Columns ?? [NotSaid]).ToList()))));
            selection._words.Add($"Where {text}");
        }

        return selection;
    }

    /// <summary>The same without what is asked of accounts alone.</summary>
    public Selection WithoutAccounts()
    {
        var wider = new Selection(_context) { MonthOf = MonthOf };
        wider._words.AddRange(_words);
        wider._conditions.AddRange(_conditions.Where(condition => !condition.IsOfAccounts));
        return wider;
    }

    /// <summary>Whether postings on an account can be taken: what is asked of accounts alone holds for it.</summary>
    public bool TakesAccount(Account account) => _conditions.Where(condition => condition.IsOfAccounts)
        .All(condition => condition.Ask(new RowSet(PostingColumns.BlockOf([account])))[0]);

    /// <summary>The same, and of a field only the value at that place.</summary>
    public Selection And(Slicing field, int place)
    {
        var narrower = new Selection(_context) { MonthOf = field.MonthOf };
        narrower._words.AddRange(_words);
        narrower._conditions.AddRange(_conditions);
        narrower._conditions.Add(new Condition(rows => [.. field.PlacesOf(rows).Select(number => number == place)], field.Columns));
        return narrower;
    }

    /// <summary>Which postings of a month are taken; nothing where all are. They must have the <see cref="Columns"/>.</summary>
    public bool[]? TakenOf(PostingMonth postings, PostingSource source, YearMonth month) => IsEverything ? null
        : Columns is not null ? TakenOf(postings) : TakenIn(MonthOf!(source, month));

    /// <summary>Which of some postings are taken; only where they have all <see cref="Columns"/>, and there are any.</summary>
    public bool[] TakenOf(PostingMonth postings) => TakenIn(PostingColumns.BlockOf(postings));

    /// <summary>Whether postings on each of the accounts are taken; only where <see cref="IsOfAccounts"/>.</summary>
    public bool[] TakenOf(IReadOnlyList<Account> accounts) => TakenIn(PostingColumns.BlockOf(accounts));

    /// <summary>
    /// The rows of a block that are taken. What is cheap to ask comes first, and later questions are asked of fewer rows.
    /// </summary>
    public RowSet Taken(RowBlock block)
    {
        var rows = new RowSet(block);
        foreach (var condition in _conditions)
        {
            if (rows.Count == 0)
            {
                break;
            }

            rows = rows.Where(condition.Ask(rows));
        }

        return rows;
    }

    // Where all is asked of columns, asking all rows is quicker than passing on those that are left.
    private bool[] TakenIn(RowBlock block)
    {
        var rows = new RowSet(block);
        var taken = _conditions[0].Ask(rows);
        foreach (var condition in _conditions.Skip(1))
        {
            var also = condition.Ask(rows);
            for (var row = 0; row < taken.Length; row++)
            {
                taken[row] &= also[row];
            }
        }

        return taken;
    }

    private void Add(BoundField field, IReadOnlyList<FieldChoice> choices)
    {
        var asked = Naming.Of(choices[0].Source, () =>
            field.Field.IsDay ? OfDays(field, choices) : field.Field.IsNumber ? OfNumbers(field, choices) : OfWords(field, choices));
        bool[] Ask(RowSet rows) => Naming.Of(choices[0].Source, () => asked(rows));
        _conditions.Add(new Condition(Ask, field.ColumnsOfPostings));

        // Asked of no rows at all, it tells mistakes before any are read.
        _ = Ask(new RowSet(new RowBlock(0, _ => [])));
    }

    private Func<RowSet, bool[]> OfNumbers(BoundField field, IReadOnlyList<FieldChoice> choices)
    {
        Say(field, choices, list => list.AsTyped);
        _ = Means(0);
        return rows => [.. field.Read(rows).Numbers.Select(Means)];

        bool Means(long number) => FieldChoice.Take(choices, choice => number == FieldCells.Nothing
            ? choice.List.HasNone : choice.List.WithoutNone.Takes(field.Field.Name, number, field.Decimals));
    }

    private Func<RowSet, bool[]> OfDays(BoundField field, IReadOnlyList<FieldChoice> choices)
    {
        var periods = new Dictionary<string, OpenPeriod>(StringComparer.Ordinal);
        var known = new Dictionary<long, bool>();
        Say(field, choices, list => list.AsTyped);
        _ = Means(_context!.Today.Date.DayNumber);
        return rows => [.. field.Read(rows).Numbers.Select(Means)];

        bool Means(long day)
        {
            if (!known.TryGetValue(day, out var means))
            {
                known[day] = means = FieldChoice.Take(choices, choice => day == FieldCells.Nothing
                    ? choice.List.HasNone : choice.List.WithoutNone.Takes(DateOnly.FromDayNumber((int)day), PeriodOf));
            }

            return means;
        }

        OpenPeriod PeriodOf(string text)
        {
            if (!periods.TryGetValue(text, out var period))
            {
                periods[text] = period = PeriodGrammar.Parse(text, _context!.Today, _context.Calendar);
            }

            return period;
        }
    }

    private Func<RowSet, bool[]> OfWords(BoundField field, IReadOnlyList<FieldChoice> choices)
    {
        var (pool, allowed) = (default(WordPool), Array.Empty<bool>());
        var isSaid = false;
        if (field.Field.Target is { } target && RelatedRecords.AreMany(target))
        {
            choices = [.. choices.Select(choice => choice with { List = choice.List.Among(id => _context!.Ledger.HasRecord(target, id)) })];
        }

        return rows =>
        {
            var cells = field.Chosen(rows);
            if (cells.Pool != pool)
            {
                pool = cells.Pool!;
                var values = pool.Values;
                allowed = new bool[values.Count];
                Array.Fill(allowed, choices.All(choice => choice.IsExcept));
                foreach (var choice in choices)
                {
                    // What is read bit by bit may well have a word further on that it does not have here.
                    var meant = pool.IsShared ? choice.List.MeantOf(field.Field.Name, values)
                        : choice.List.NamedOf(field.Field.Name, values, mayNameNone: true);
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

            var taken = new bool[cells.Numbers.Length];
            for (var row = 0; row < taken.Length; row++)
            {
                taken[row] = allowed[(int)cells.Numbers[row]];
            }

            return taken;
        };
    }

    private void Say(BoundField field, IReadOnlyList<FieldChoice> choices, Func<ValueList, string> inWords) =>
        _words.AddRange(choices.Select(choice => $"{(choice.IsExcept ? "Without" : "Only")} {field.Field.Name} {inWords(choice.List)}"));

    // What is asked of rows, and the columns that are looked at for it; nothing where records are looked up besides.
    private sealed record Condition(Func<RowSet, bool[]> Ask, IReadOnlyList<PostingField>? Columns)
    {
        public bool IsOfAccounts => Columns is not null && Columns.All(column => column == PostingField.Account);
    }
}
