using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Reports;

namespace Vlei.Core.OpenItems;

/// <summary>Money that is expected to come or go for a document.</summary>
/// <param name="Day">The day that it is expected.</param>
/// <param name="Item">The place of the item.</param>
/// <param name="Amount">How much; positive.</param>
internal readonly record struct Expectation(DateOnly Day, int Item, Amount Amount);

/// <summary>
/// When what is open on a day is expected to be paid: by the day that was promised, else when it is due, or as late after
/// that as the contact usually is. What is disputed is not expected; what a contact has in credit is taken off what is
/// expected of it first.
/// </summary>
internal sealed class ExpectedMoney
{
    private readonly ControlHistory _history;

    private ExpectedMoney(ControlHistory history, IReadOnlyList<Expectation> all, IReadOnlyList<Expectation> disputed) =>
        (_history, All, Disputed) = (history, all, disputed);

    /// <summary>What is expected, by day.</summary>
    public IReadOnlyList<Expectation> All { get; }

    /// <summary>What is disputed of each item.</summary>
    public IReadOnlyList<Expectation> Disputed { get; }

    /// <summary>Works it out.</summary>
    /// <param name="ledger">The records.</param>
    /// <param name="report">Which items.</param>
    /// <param name="day">The day that they are open on.</param>
    /// <param name="asUsual">Whether contacts are expected to be as late as they usually are.</param>
    public static ExpectedMoney Of(ILedger ledger, ItemReport report, DateOnly day, bool asUsual)
    {
        var history = report.History;
        var open = history.OpenAt(day);
        var promises = new PromisedItems(ledger, history, day);
        var habits = new PayingHabits(history, DateOnly.MinValue, day);
        var late = new Dictionary<ContactKey, int>();
        var (all, disputed, credits) = (new List<Expectation>(), new List<Expectation>(), new Dictionary<ContactKey, Amount>());
        foreach (var item in report.Taken().Where(item => !open[item].IsZero))
        {
            var known = history[item];
            if (open[item].Sign < 0)
            {
                credits[known.Contact] = credits.GetValueOrDefault(known.Contact) - open[item];
                continue;
            }

            var left = open[item];
            Take(disputed, known.Due, promises.Disputed(item));
            foreach (var promised in promises.Of(item).Where(promised => promised.State == PromiseState.Pending))
            {
                Take(all, promised.Promise.By!.Value, promised.Standing);
            }

            Take(all, known.Due.AddDays(asUsual ? UsuallyLate(known.Contact) : 0), left);

            void Take(List<Expectation> into, DateOnly expected, Amount amount)
            {
                var part = amount < left ? amount : left;
                left -= part;
                if (!part.IsZero)
                {
                    into.Add(new Expectation(expected, item, part));
                }
            }
        }

        return new ExpectedMoney(
            history, [.. LessCredits(history, all.OrderBy(one => one.Day).ThenBy(one => one.Item), credits)], disputed);

        int UsuallyLate(ContactKey contact)
        {
            if (!late.TryGetValue(contact, out var days))
            {
                late[contact] = days = habits.UsuallyLate(contact);
            }

            return days;
        }
    }

    /// <summary>What is expected from one day to another, as a trace lists it.</summary>
    public IEnumerable<OriginItem> Behind(IEnumerable<Expectation> expected, int sign) => expected.Select(one =>
        _history.OriginOf(one.Item, null) with { Total = sign < 0 ? -one.Amount : one.Amount });

    private static IEnumerable<Expectation> LessCredits(
        ControlHistory history, IEnumerable<Expectation> expected, Dictionary<ContactKey, Amount> credits)
    {
        foreach (var one in expected)
        {
            var contact = history[one.Item].Contact;
            var credit = credits.GetValueOrDefault(contact);
            var used = credit < one.Amount ? credit : one.Amount;
            credits[contact] = credit - used;
            if (used != one.Amount)
            {
                yield return one with { Amount = one.Amount - used };
            }
        }
    }
}
