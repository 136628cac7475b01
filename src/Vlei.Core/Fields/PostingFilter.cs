using Vlei.Core.Ledger;
using Vlei.Core.Problems;

namespace Vlei.Core.Fields;

/// <summary>
/// Which postings are taken: for each field, the values that are allowed; all fields must allow a posting. What is left
/// out wins over what is taken.
/// </summary>
public sealed class PostingFilter
{
    private readonly IReadOnlyList<(FieldValues Values, bool[] Allowed)> _conditions;

    private PostingFilter(IReadOnlyList<(FieldValues, bool[])> conditions, IReadOnlyList<string> inWords) =>
        (_conditions, InWords) = (conditions, inWords);

    /// <summary>Takes every posting.</summary>
    public static PostingFilter Everything { get; } = new([], []);

    /// <summary>What it says, in words, a condition each.</summary>
    public IReadOnlyList<string> InWords { get; }

    /// <summary>Whether it takes every posting.</summary>
    public bool IsEverything => _conditions.Count == 0;

    /// <summary>Whether the account of a posting alone says if it is taken.</summary>
    public bool IsOfAccounts => Columns.All(column => column == PostingField.Account);

    /// <summary>The columns that it looks at.</summary>
    public IEnumerable<PostingField> Columns => _conditions.SelectMany(condition => condition.Values.Columns).Distinct();

    /// <summary>
    /// Makes one of what was asked for. Values of the same field are alternatives, different fields must all hold.
    /// Throws a <see cref="ProblemException"/> where there is no such field or no such value.
    /// </summary>
    /// <param name="choices">What was asked for.</param>
    /// <param name="ledger">The book.</param>
    /// <param name="others">Names of other things that can be chosen by, for messages.</param>
    public static PostingFilter Of(IReadOnlyList<FieldChoice> choices, ILedger ledger, params IReadOnlyList<string> others)
    {
        if (choices.Count == 0)
        {
            return Everything;
        }

        var conditions = new List<(FieldValues, bool[])>();
        var words = new List<string>();
        foreach (var ofField in FieldChoice.Together(choices))
        {
            var field = Naming.Of(ofField[0].Source, () => Field.Named(ofField[0].Field, ledger, others));
            var values = field.Read(ledger);
            var allowed = new bool[values.Values.Count];
            Array.Fill(allowed, ofField.All(choice => choice.IsExcept));
            foreach (var choice in ofField)
            {
                var meant = Naming.Of(choice.Source, () => choice.List.MeantOf(field.Name, values.Values));
                for (var place = 0; place < allowed.Length; place++)
                {
                    allowed[place] = choice.IsExcept ? allowed[place] && !meant[place] : allowed[place] || meant[place];
                }

                words.Add($"{(choice.IsExcept ? "Without" : "Only")} {field.Name} {choice.List.InWords(field.Name, values.Values)}");
            }

            conditions.Add((values, allowed));
        }

        return new PostingFilter(conditions, [.. words.Distinct()]);
    }

    /// <summary>The same, and of a field only the value at that place.</summary>
    public PostingFilter And(FieldValues values, int place)
    {
        var allowed = new bool[values.Values.Count];
        allowed[place] = true;
        return new PostingFilter([.. _conditions, (values, allowed)], InWords);
    }

    /// <summary>Whether postings on the account are taken; only where <see cref="IsOfAccounts"/>.</summary>
    public bool Takes(Account account) =>
        _conditions.All(condition => condition.Allowed[condition.Values.PlaceOf(account)]);

    /// <summary>Which postings of a month are taken; nothing where all are.</summary>
    public bool[]? TakenOf(PostingMonth postings)
    {
        if (IsEverything)
        {
            return null;
        }

        var taken = new bool[postings.Count];
        Array.Fill(taken, true);
        foreach (var (values, allowed) in _conditions)
        {
            var places = values.PlacesIn(postings);
            for (var posting = 0; posting < taken.Length; posting++)
            {
                taken[posting] &= allowed[places[posting]];
            }
        }

        return taken;
    }
}
