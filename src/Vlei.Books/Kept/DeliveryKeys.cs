using Tomlyn.Syntax;
using Vlei.Core.Problems;

namespace Vlei.Books.Kept;

/// <summary>Reads where a group or a report goes, with which letter, and when.</summary>
public static class DeliveryKeys
{
    /// <summary>The table of a schedule.</summary>
    public const string ScheduleTable = "schedule";

    private static readonly string[] HoldWords = [.. Enum.GetNames<HoldReason>().Select(name => name.ToLowerInvariant())];

    private static readonly FileKey Recipients = new(
        "to", FileKeyKind.Texts, "Where it goes: addresses, \"folder:PATH\", \"printer\" or \"printer:NAME\".");

    private static readonly FileKey LetterFormats = new(
        "formats", FileKeyKind.Texts, "The formats of what goes along.");

    private static readonly FileKey Letter = new(
        "message", FileKeyKind.Text,
        "The letter; {period}, {book}, {title}, {findings} and {REPORT.ROW} or {REPORT.ROW.COLUMN} in it are replaced.");

    /// <summary>The keys of a file, beside its formats.</summary>
    public static IReadOnlyList<FileKey> Keys { get; } =
    [
        Recipients,
        new("cc", FileKeyKind.Texts, "The addresses that get a copy of each letter."),
        new("reply-to", FileKeyKind.Text, "The address that answers go to; the sender's, where nothing is said."),
        Letter,
        new(
            "hold", FileKeyKind.Text,
            "What keeps it back until vlei outbox --approve: a failed check, where nothing is said; findings of the review too; "
                + "always; or never.") { Words = HoldWords },
        new("together", FileKeyKind.Flag, "Whether all recipients get one letter, rather than each one of their own."),
    ];

    /// <summary>The keys of a schedule.</summary>
    public static IReadOnlyList<FileKey> ScheduleKeys { get; } =
    [
        new("when", FileKeyKind.Text, $"When it is due: {ScheduleTime.Forms}.") { IsRequired = true },
        new("time-zone", FileKeyKind.Text, "The time zone, as \"Africa/Johannesburg\"; that of the computer, where nothing is said."),
        new("period", FileKeyKind.Text, "The period that it is produced for, seen from the day that it is due."),
        Recipients, LetterFormats, Letter,
    ];

    /// <summary>
    /// Reads it. Throws a <see cref="ProblemException"/> that names the place where it is not as it should be.
    /// </summary>
    /// <param name="toml">The file.</param>
    /// <param name="head">The values of its keys.</param>
    /// <param name="reports">The names of the reports that go along; nothing where they are not known yet.</param>
    public static DeliveryPlan Read(TomlText toml, Dictionary<string, KeyValueSyntax> head, IReadOnlyList<string>? reports)
    {
        var plan = new DeliveryPlan
        {
            To = Places(toml, head, "to"),
            Copies = Addresses(toml, head, "cc"),
            ReplyTo = Addresses(toml, head, "reply-to").FirstOrDefault(),
            Formats = toml.Texts(head, "formats"),
            Message = LetterIn(toml, head, reports),
            Hold = HoldIn(toml, head),
            IsTogether = toml.Flag(head, "together", otherwise: false),
            Schedules = [.. toml.Document.Tables.Where(IsSchedule).Select(table => ScheduleOf(toml, table, reports))],
        };
        plan = plan with
        {
            Schedules =
            [
                .. plan.Schedules.Select((schedule, at) => schedule with
                {
                    Number = 1 + plan.Schedules.Take(at).Count(before => before.Key == schedule.Key),
                }),
            ],
        };
        if (plan.Schedules.GroupBy(schedule => (schedule with { Number = 1 }).Key + string.Join(',', schedule.To.Select(one => one.Text)))
            .FirstOrDefault(same => same.Count() > 1) is { } twins)
        {
            throw new ProblemException(
                ProblemKind.BadData, $"{twins.Last().Place}: there is a schedule like that already, at {twins.First().Place}.",
                "Take one of them out.");
        }

        return plan.Schedules.FirstOrDefault(schedule => schedule.To.Count + plan.To.Count == 0) is { } lost
            ? throw new ProblemException(
                ProblemKind.BadData, $"{lost.Place}: it is not said where it goes.", "Add a line: to = [\"name@example.org\"].")
            : plan;
    }

    /// <summary>Whether a table is a schedule.</summary>
    public static bool IsSchedule(TableSyntaxBase table) =>
        table is TableArraySyntax && table.Name?.ToString().Trim() == ScheduleTable;

    private static string? LetterIn(TomlText toml, Dictionary<string, KeyValueSyntax> values, IReadOnlyList<string>? reports)
    {
        var letter = toml.Text(values, "message");
        if (letter is not null && reports is not null)
        {
            _ = At(toml, values["message"], () =>
            {
                LetterTemplate.Check(letter, reports);
                return letter;
            });
        }

        return letter;
    }

    private static DeliverySchedule ScheduleOf(TomlText toml, TableSyntaxBase table, IReadOnlyList<string>? reports)
    {
        var values = toml.Known(table.Items, [.. ScheduleKeys.Select(key => key.Name)]);
        var when = toml.Text(values, "when")
            ?? throw toml.Wrong(table.Span, "it is not said when.", "Add a line: when = \"monthly 3 07:00\".");
        var zone = toml.Text(values, "time-zone");
        return zone is null || TimeZoneInfo.TryFindSystemTimeZoneById(zone, out _)
            ? new DeliverySchedule(At(toml, values["when"], () => ScheduleTime.Parse(when)), zone, toml.PlaceOf(table.Span))
            {
                Period = toml.Text(values, "period"),
                To = Places(toml, values, "to"),
                Formats = toml.Texts(values, "formats"),
                Message = LetterIn(toml, values, reports),
            }
            : throw toml.Wrong(
                values["time-zone"].Span, $"there is no time zone {zone}.",
                Suggestion.DidYouMean(zone, TimeZoneInfo.GetSystemTimeZones().Select(known => known.Id))
                    ?? "Write it as the IANA has it: \"Africa/Johannesburg\".");
    }

    private static HoldReason HoldIn(TomlText toml, Dictionary<string, KeyValueSyntax> head) =>
        toml.Text(head, "hold") is not { } said ? HoldReason.Checks
        : Array.IndexOf(HoldWords, said) is >= 0 and var place ? (HoldReason)place
        : throw toml.Wrong(
            head["hold"].Span, $"hold is not \"{said}\".",
            Suggestion.DidYouMean(said, HoldWords) ?? $"Write {Suggestion.Listed(HoldWords, "or")}.");

    private static List<Recipient> Places(TomlText toml, Dictionary<string, KeyValueSyntax> values, string key)
    {
        var places = toml.Texts(values, key).Select(text => At(toml, values[key], () => Recipient.Parse(text))).ToList();
        return places.Where((one, at) => places.FindIndex(one.IsSameAs) < at).FirstOrDefault() is { } twice
            ? throw toml.Wrong(values[key].Span, $"{twice.Place} is there twice.", "Take one of them out.")
            : places;
    }

    private static List<Recipient> Addresses(TomlText toml, Dictionary<string, KeyValueSyntax> values, string key) =>
        Places(toml, values, key) is var places && places.Find(one => one.Kind != RecipientKind.Mail) is { } other
            ? throw toml.Wrong(values[key].Span, $"{other.Text} is no address of mail, as {key} needs.", "Write name@example.org.")
            : places;

    private static T At<T>(TomlText toml, KeyValueSyntax pair, Func<T> read)
    {
        try
        {
            return read();
        }
        catch (ProblemException wrong)
        {
            throw toml.Wrong(pair.Value!.Span, wrong.Message, wrong.Advice);
        }
    }
}
