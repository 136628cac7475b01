using Vlei.Core.Problems;

namespace Vlei.Desk.Deliveries;

/// <summary>What a person does with what is in the outbox.</summary>
/// <param name="log">The outbox.</param>
/// <param name="clock">What time it is.</param>
public sealed class Outbox(DeliveryLog log, Func<DateTimeOffset> clock)
{
    /// <summary>Lets something go that is held. Throws a <see cref="ProblemException"/> where it is not.</summary>
    public void Approve(int number)
    {
        var delivery = log[number];
        Refuse(delivery, delivery.State != DeliveryState.Held, "only what is held can be approved");
        Change(
            delivery, delivery with { State = DeliveryState.Waiting, Remark = $"{delivery.Remark} Approved: {delivery.Problem}".Trim() });
    }

    /// <summary>
    /// Tries something once more that failed or waits; what has no letter yet is produced anew. Throws a
    /// <see cref="ProblemException"/> where it is done, or held.
    /// </summary>
    public void Retry(int number)
    {
        var delivery = log[number];
        Refuse(
            delivery, delivery.State is not (DeliveryState.Failed or DeliveryState.Waiting),
            "only what failed or waits can be tried again");
        Change(delivery, delivery with
        {
            State = delivery.LetterSum.Length > 0 ? DeliveryState.Waiting : DeliveryState.Due,
            NextTry = null,
            FirstTry = null,
            Tries = 0,
        });
    }

    /// <summary>Takes something back that was not sent. Throws a <see cref="ProblemException"/> where it was.</summary>
    public void Withdraw(int number)
    {
        var delivery = log[number];
        Refuse(delivery, delivery.IsDone || delivery.State == DeliveryState.Sending, "only what was not sent can be taken back");
        Change(delivery, delivery with { State = DeliveryState.Withdrawn });
    }

    private static void Refuse(Delivery delivery, bool isWrong, string why)
    {
        if (isWrong)
        {
            throw new ProblemException(
                ProblemKind.Usage, $"Number {delivery.Number} is {Words(delivery.State)}; {why}.", "vlei outbox lists what there is.");
        }
    }

    /// <summary>A state in a word.</summary>
    public static string Words(DeliveryState state) => state.ToString().ToLowerInvariant();

    private void Change(Delivery seen, Delivery now)
    {
        if (!log.Note(seen, now with { Problem = "", Noted = clock() }))
        {
            throw new ProblemException(
                ProblemKind.TryAgain, $"Number {seen.Number} has changed meanwhile.", "vlei outbox shows how it is now.");
        }
    }
}
