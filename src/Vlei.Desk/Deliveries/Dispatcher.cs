using Vlei.Books.Kept;
using Vlei.Core.Problems;

namespace Vlei.Desk.Deliveries;

/// <summary>
/// Sends what waits. Of several programs one sends; what it is about to do is noted before it does it, so that whatever stops it, a
/// letter is lost never, and sent once more only where it was in the air.
/// </summary>
/// <param name="desk">The book.</param>
/// <param name="log">Its outbox.</param>
/// <param name="clock">What time it is.</param>
public sealed class Dispatcher(ReportDesk desk, DeliveryLog log, Func<DateTimeOffset> clock)
{
    // What a letter about trouble is called in the outbox.
    private const string Note = "note";

    /// <summary>
    /// Sends everything whose time it is; false where another program is sending just now. Throws a
    /// <see cref="ProblemException"/> where nothing says how mail is sent, and something is to be.
    /// </summary>
    public bool Send()
    {
        using var turn = log.TakeSending();
        if (turn is null)
        {
            return false;
        }

        log.Catch();
        var routes = new Dictionary<RecipientKind, IRoute>();
        try
        {
            foreach (var delivery in log.All.Where(IsReady))
            {
                SendOne(delivery, routes);
            }

            foreach (var note in NotesOfTrouble())
            {
                SendOne(note, routes);
            }
        }
        finally
        {
            foreach (var route in routes.Values)
            {
                route.Dispose();
            }
        }

        return true;
    }

    // Whoever is to know of it gets a short letter of what failed, and of what is held of what goes by itself; once.
    private List<Delivery> NotesOfTrouble()
    {
        var troubled = log.All.Where(delivery => delivery.What != Note && (delivery.State == DeliveryState.Failed
            || (delivery.State == DeliveryState.Held && delivery.Schedule.Length > 0))).ToList();
        if (troubled.Count == 0 || MailFile.Find(desk.Library) is not { Notify: { } notify } mail)
        {
            return [];
        }

        var notes = new List<Delivery>();
        foreach (var delivery in troubled)
        {
            var key = string.Create(System.Globalization.CultureInfo.InvariantCulture, $"{Note}|{delivery.Number}|{delivery.Noted:O}");
            if (log.Has(key))
            {
                continue;
            }

            var state = Outbox.Words(delivery.State);
            var letter = new Letter(
                $"{delivery.Title} {delivery.Period} is {state} – {desk.Settings.Name}",
                $"Number {delivery.Number} of the outbox, {delivery.What} for {delivery.Period} to {delivery.ToInWords}, is {state}:\n\n"
                    + $"{delivery.Problem}\n\nvlei outbox --show {delivery.Number} tells more.",
                Core.Languages.Language.English, []);
            var id = Letter.IdOf(key, mail.From);
            var bytes = letter.Write(mail.From, [notify], new DeliveryPlan(), id, clock(), isBySelf: true);
            if (log.Add(
                new Delivery(0, key, Note, [notify.Text], DeliveryState.Waiting)
                {
                    Title = letter.Subject, Subject = letter.Subject, MessageId = id, LetterSum = Hashes.Of(bytes), Made = clock(),
                    Noted = clock(),
                },
                bytes) is { } added)
            {
                notes.Add(added);
            }
        }

        return notes;
    }

    private bool IsReady(Delivery delivery) => delivery.State == DeliveryState.Sending
        || (delivery.State == DeliveryState.Waiting && (delivery.NextTry is not { } next || next <= clock()));

    private void SendOne(Delivery delivery, Dictionary<RecipientKind, IRoute> routes)
    {
        var now = clock();
        var sending = delivery with
        {
            State = DeliveryState.Sending,
            Tries = delivery.Tries + 1,
            FirstTry = delivery.FirstTry ?? now,
            Noted = now,
            NextTry = null,
        };
        if (!log.Note(delivery, sending))
        {
            return;
        }

        var outcome = Try(sending, routes);
        var then = clock();
        var next = outcome.Problem is null || outcome.IsFinal ? null : RetryPauses.Next(sending.FirstTry!.Value, then, sending.Tries);
        _ = log.Note(sending, sending with
        {
            State = outcome.Problem is null ? DeliveryState.Sent : next is null ? DeliveryState.Failed : DeliveryState.Waiting,
            Sent = outcome.Problem is null ? then : null,
            NextTry = next,
            Noted = then,
            Problem = outcome.Problem is null ? "" : next is null && !outcome.IsFinal ? $"Tried for two days: {outcome.Problem}"
                : outcome.Problem,
        });
    }

    private TryOutcome Try(Delivery delivery, Dictionary<RecipientKind, IRoute> routes)
    {
        try
        {
            var (to, letter) = (delivery.To.Select(Recipient.Parse).ToList(), log.Letter(delivery));
            if (!routes.TryGetValue(to[0].Kind, out var route))
            {
                routes[to[0].Kind] = route = to[0].Kind switch
                {
                    RecipientKind.Mail => new MailRoute(MailFile.Of(desk.Library)),
                    RecipientKind.Folder => new FolderRoute(desk.Book),
                    _ => new PrinterRoute(),
                };
            }

            return route.Send(delivery, to, letter);
        }
        catch (ProblemException problem)
        {
            return new TryOutcome($"{problem.Message} {problem.Advice}".TrimEnd(), IsFinal: problem.Kind != ProblemKind.BadConfiguration);
        }
    }
}
