using Vlei.Books;
using Vlei.Core.Problems;
using Vlei.Desk.Deliveries;

namespace Vlei.Tests.Deliveries;

/// <summary>The log of an outbox against a model: whatever is added, changed, and cut off in the middle.</summary>
public sealed class DeliveryLogTests : IDisposable
{
    private static readonly DateTimeOffset Start = new(2026, 6, 30, 12, 0, 0, TimeSpan.Zero);

    private readonly Tool _tool = new();
    private readonly Book _book;

    public DeliveryLogTests()
    {
        _tool.Run("init", "book", "--name", "Client", "--currency", "EUR").Done();
        _book = Book.Open(_tool.PathOf("book"));
    }

    public void Dispose() => _tool.Dispose();

    [Fact]
    public void A_log_that_is_cut_off_anywhere_stands_as_it_stood_after_one_of_its_lines()
    {
        var (random, log, states) = (new Random(8), new DeliveryLog(_book), new List<string> { "" });
        for (var step = 0; step < 60; step++)
        {
            Step(random, log, step);
            states.Add(Stand(log));
        }

        var path = _tool.PathOf("book/outbox/log.jsonl");
        var whole = File.ReadAllBytes(path);
        Assert.Equal(states[^1], Stand(new DeliveryLog(_book)));
        for (var cut = 0; cut < 80; cut++)
        {
            var length = random.Next(whole.Length);
            File.WriteAllBytes(path, whole[..length]);
            var again = new DeliveryLog(_book);
            Assert.Contains(Stand(again), states);

            // It goes on from there: what was half written is no line, and what is added is.
            var added = again.Add(New("after the cut", random), null)!;
            Assert.Equal(Stand(again), Stand(new DeliveryLog(_book)));
            Assert.Equal(added.Number, new DeliveryLog(_book).All[^1].Number);
            Assert.EndsWith("\n", File.ReadAllText(path), StringComparison.Ordinal);
        }
    }

    [Fact]
    public void Several_that_add_and_change_at_once_lose_nothing_and_overwrite_nothing()
    {
        const int Writers = 6;
        const int Each = 12;
        var taken = new System.Collections.Concurrent.ConcurrentBag<int>();
        Parallel.For(0, Writers, writer =>
        {
            var log = new DeliveryLog(_book);
            for (var number = 0; number < Each; number++)
            {
                // Half of the keys are everybody's, and one of them gets each.
                var key = number % 2 == 0 ? $"shared {number}" : $"own {writer} {number}";
                var added = log.Add(New(key, new Random(writer)), System.Text.Encoding.ASCII.GetBytes($"letter of {writer} {number}"));
                log.Catch();
                var known = log.All.Single(delivery => delivery.Key == key);
                if (log.Note(known, known with { State = DeliveryState.Sending, Noted = Start.AddMinutes(writer + 1) }))
                {
                    taken.Add(known.Number);
                }

                Assert.True(added is null || log.LetterPath(added).EndsWith(".eml", StringComparison.Ordinal));
            }
        });
        var all = new DeliveryLog(_book).All;
        Assert.Equal((Each / 2) + (Writers * Each / 2), all.Count);
        Assert.Equal(Enumerable.Range(1, all.Count), all.Select(delivery => delivery.Number));
        Assert.Equal(all.Count, all.Select(delivery => delivery.Key).Distinct().Count());
        Assert.All(all, delivery => Assert.Equal(DeliveryState.Sending, delivery.State));
        Assert.Equal(all.Count, taken.Distinct().Count());
        Assert.Equal(all.Count, Directory.GetFiles(_tool.PathOf("book/outbox/letters")).Length);
    }

    [Fact]
    public void What_is_no_line_is_told_with_the_file_and_a_letter_that_is_gone_too()
    {
        var log = new DeliveryLog(_book);
        var letter = System.Text.Encoding.ASCII.GetBytes("letter");
        var added = log.Add(
            New("one", new Random(1)) with { LetterSum = Convert.ToHexStringLower(System.Security.Cryptography.SHA256.HashData(letter)) },
            letter)!;
        Assert.Equal(letter, log.Letter(added));
        Assert.Equal(UnixFileMode.UserRead | UnixFileMode.UserWrite, File.GetUnixFileMode(log.LetterPath(added)));
        File.Delete(log.LetterPath(added));
        Assert.Contains("is not there", Assert.Throws<ProblemException>(() => log.Letter(added)).Message, StringComparison.Ordinal);
        File.AppendAllText(_tool.PathOf("book/outbox/log.jsonl"), "no line\n");
        Assert.Contains(
            "log.jsonl is damaged: \"no line\" is no line.", Assert.Throws<ProblemException>(() => new DeliveryLog(_book)).Message,
            StringComparison.Ordinal);
        var told = _tool.Run("outbox", "--book", "book");
        Assert.Equal(65, told.Status);
        Assert.Contains("Put back a copy of it", told.Messages);
        Assert.Equal(0, _tool.Run("reports", "--book", "book").Status);
    }

    [Theory]
    [InlineData(0, 1, 1)]
    [InlineData(1, 2, 5)]
    [InlineData(100, 4, 30)]
    [InlineData(2000, 30, 240)]
    public void Pauses_grow_and_end_after_two_days(int minutesSince, int tries, int pause)
    {
        var now = Start.AddMinutes(minutesSince);
        Assert.Equal(now.AddMinutes(pause), RetryPauses.Next(Start, now, tries));
        Assert.Null(RetryPauses.Next(Start, Start.AddDays(2).AddMinutes(-pause + 1), tries));
        var (at, count) = (Start, 0);
        for (DateTimeOffset? next = at; next is { } then; next = RetryPauses.Next(Start, at, count))
        {
            (at, count) = (then, count + 1);
        }

        Assert.InRange(count, 15, 25);
        Assert.InRange(at - Start, TimeSpan.FromDays(1.8), TimeSpan.FromDays(2));
    }

    private static void Step(Random random, DeliveryLog log, int step)
    {
        var all = log.All;
        if (all.Count == 0 || random.Next(3) == 0)
        {
            Assert.NotNull(log.Add(New($"key {step}", random), random.Next(2) == 0 ? [1, 2, 3] : null));
            Assert.Null(log.Add(New($"key {step}", random), null));
        }
        else if (random.Next(5) == 0)
        {
            log.NoteSchedule($"schedule {random.Next(4)}|{step}", Start.AddHours(step));
        }
        else
        {
            var seen = all[random.Next(all.Count)];
            var now = seen with
            {
                State = (DeliveryState)random.Next(7),
                Tries = step,
                Noted = Start.AddMinutes(step),
                Problem = "Ω \"quoted\"\nline",
            };
            Assert.True(log.Note(seen, now));

            // What was seen before that is not as it is any more.
            Assert.False(log.Note(seen, now with { Noted = Start.AddYears(1) }));
        }
    }

    private static Delivery New(string key, Random random) =>
        new(0, key, "what", ["a@example.org", "Ü <b@example.org>"], DeliveryState.Waiting)
        {
            Title = "Title", Period = "2026-05", Schedule = $"schedule {random.Next(3)}", Due = Start.AddDays(random.Next(9)),
            Noted = Start,
            Attachments = [new Attachment("f.pdf", 12, "00")], Made = Start,
        };

    private static string Stand(DeliveryLog log)
    {
        var deliveries = log.All.Select(delivery => string.Join(
            ' ', delivery.Number, delivery.Key, delivery.State, delivery.ToInWords, delivery.Problem, delivery.Tries,
            delivery.Due?.ToString("O"),
            delivery.Noted.ToString("O"), delivery.Attachments.Count));
        var schedules = Enumerable.Range(0, 60).SelectMany(step => Enumerable.Range(0, 4)
            .Select(number => log.Since($"schedule {number}|{step}")?.ToString("O") ?? ""));
        return string.Join('\n', deliveries.Concat(schedules));
    }
}
