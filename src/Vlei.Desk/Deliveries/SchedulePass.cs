using Vlei.Books.Kept;
using Vlei.Core.Problems;

namespace Vlei.Desk.Deliveries;

/// <summary>What a pass came to, and how the outbox stands behind it.</summary>
/// <param name="Waiting">How many wait to be tried again.</param>
/// <param name="Troubled">How many are held or failed.</param>
/// <param name="IsBusy">Whether another program was at it, so that this one did nothing.</param>
public sealed record PassOutcome(int Waiting, int Troubled, bool IsBusy);

/// <summary>
/// One pass over a book: notes what is due, produces it, and sends what waits. Whatever stops it, the next one goes on where it was.
/// </summary>
/// <param name="desk">The book.</param>
/// <param name="clock">What time it is.</param>
public sealed class SchedulePass(ReportDesk desk, Func<DateTimeOffset> clock)
{
    private readonly DeliveryLog _log = new(desk.Book);
    private readonly BookSchedules _schedules = new(desk);

    /// <summary>
    /// Does it. A file that is not as it should be is told, and keeps no other from being done. Throws a
    /// <see cref="ProblemException"/> where the outbox cannot be written.
    /// </summary>
    /// <param name="say">Tells what goes wrong on the way.</param>
    public PassOutcome Run(Action<string> say)
    {
        var isIdle = _schedules.All() is { Count: 0 } && !Directory.Exists(_log.Folder);
        foreach (var problem in _schedules.Problems)
        {
            say($"{problem.Message} {problem.Advice}".TrimEnd());
        }

        var outcome = isIdle ? new PassOutcome(0, 0, IsBusy: false) : InTurn(say, () =>
        {
            _schedules.NoteAll(_log, clock());
            NoteDue(say);
        });
        return outcome with { Troubled = outcome.Troubled + _schedules.Problems.Count };
    }

    /// <summary>Goes on with what is in the outbox already, and looks at no schedule.</summary>
    public PassOutcome GoOn(Action<string> say) => InTurn(say, () => { });

    private PassOutcome InTurn(Action<string> say, Action begin)
    {
        bool isBusy;
        using (var turn = _log.TakeSending())
        {
            isBusy = turn is null;
            if (turn is not null)
            {
                _log.Catch();
                begin();
                Produce(say);
            }
        }

        isBusy = isBusy || !new Dispatcher(desk, _log, clock).Send();
        _log.Catch();
        return new PassOutcome(
            _log.All.Count(delivery => delivery.State is DeliveryState.Waiting or DeliveryState.Sending or DeliveryState.Due),
            _log.All.Count(delivery => delivery.State is DeliveryState.Held or DeliveryState.Failed), isBusy);
    }

    // Written before anything is produced: of what has its line nothing is forgotten, and nothing is made twice.
    private void NoteDue(Action<string> say)
    {
        var now = clock();
        foreach (var (schedule, due, missed) in _schedules.Due(_log, now).ToList())
        {
            try
            {
                var order = _schedules.OrderOf(schedule);
                _ = _log.Add(
                    new Delivery(
                        0, KeyOf(schedule.Key, due), schedule.File.Name, [.. order.Plan.To.Select(one => one.Text)], DeliveryState.Due)
                    {
                        Title = order.Group.Title, Schedule = schedule.Key, Due = due, Missed = missed,
                        IsLate = BookSchedules.IsLate(due, now), Noted = now,
                    },
                    null);
            }
            catch (ProblemException problem) when (problem.Kind is ProblemKind.BadData or ProblemKind.NotFound or ProblemKind.Usage)
            {
                // It stays due, and is said until it is mended.
                say($"{schedule.File.Path}: {problem.Message} {problem.Advice}".TrimEnd());
            }
        }
    }

    private void Produce(Action<string> say)
    {
        foreach (var due in _log.All.Where(delivery => delivery.State == DeliveryState.Due))
        {
            try
            {
                ProduceOne(due, say);
            }
            catch (ProblemException problem)
            {
                _ = _log.Note(due, due with
                {
                    State = DeliveryState.Failed,
                    Noted = clock(),
                    Problem = $"It could not be produced: {problem.Message} {problem.Advice}".TrimEnd(),
                });
            }
        }
    }

    private void ProduceOne(Delivery due, Action<string> say)
    {
        var schedule = _schedules.All().FirstOrDefault(schedule => schedule.Key == due.Schedule) ?? throw new ProblemException(
            ProblemKind.NotFound, "its schedule is not there any more.",
            "vlei outbox --withdraw takes it back; vlei send sends it by hand.");
        var zone = schedule.Schedule.TimeZone;
        var day = DateOnly.FromDateTime(TimeZoneInfo.ConvertTime(due.Due!.Value, zone).Date);
        var order = _schedules.OrderOf(schedule);
        var mail = order.IsEach || order.Plan.To.Any(one => one.Kind == RecipientKind.Mail) ? MailFile.Of(desk.Library) : null;
        var made = new DeliveryMaker(new ReportDesk(desk.Book, day), mail, clock())
            .Make(order, to => $"{due.Key}|{to}", isBySelf: true, say);
        var without = made.WithoutAddress.Count == 0 ? "" : $"Without an address: {string.Join(", ", made.WithoutAddress)}.";
        if (made.Ready.Count == 0)
        {
            throw new ProblemException(ProblemKind.NotFound, $"there is nobody to send it to. {without}".TrimEnd());
        }

        // The others first: stopped between, they are there the next time, and what was noted as due still is.
        foreach (var ready in made.Ready.Skip(1))
        {
            _ = _log.Add(Of(ready.Delivery), ready.Letter);
        }

        _ = _log.Note(due, Of(made.Ready[0].Delivery) with { Number = due.Number, Key = due.Key, Remark = without }, made.Ready[0].Letter);

        Delivery Of(Delivery ready) => ready with
        {
            Schedule = due.Schedule,
            Due = due.Due,
            Missed = due.Missed,
            IsLate = due.IsLate,
            Noted = clock(),
        };
    }

    private static string KeyOf(string schedule, DateTimeOffset due) =>
        $"{schedule}|{due.UtcDateTime.ToString("yyyy-MM-ddTHH:mmZ", System.Globalization.CultureInfo.InvariantCulture)}";
}
