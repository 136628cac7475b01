using System.Text;
using Vlei.Books.Kept;
using Vlei.Core.Calendar;
using Vlei.Core.Problems;

namespace Vlei.Desk.Deliveries;

/// <summary>Changes the schedules in the files of groups and reports: everything else that a person wrote there stays.</summary>
/// <param name="desk">The book.</param>
public sealed class KeptSchedules(ReportDesk desk)
{
    /// <summary>
    /// Adds a schedule. Throws a <see cref="ProblemException"/> where there is no such file of the book's own, or it would not be as it
    /// should be.
    /// </summary>
    /// <param name="name">The group or the kept report.</param>
    /// <param name="when">When it is due.</param>
    /// <param name="zone">The time zone; nothing for that of the computer.</param>
    /// <param name="period">The period; nothing for that of the file.</param>
    /// <param name="to">Where it goes; none for where the file says.</param>
    public BookSchedule Add(string name, string when, string? zone, string? period, IReadOnlyList<string> to)
    {
        var file = Own(name);
        _ = ScheduleTime.Parse(when);
        if (period is not null)
        {
            _ = PeriodGrammar.Parse(period, desk.Today, desk.Settings.Calendar);
        }

        var text = new StringBuilder(file.Read().TrimEnd()).Append("\n\n[[").Append(DeliveryKeys.ScheduleTable).Append("]]\n");
        Put("when", when);
        Put("time-zone", zone);
        Put("period", period);
        if (to.Count > 0)
        {
            text.Append("to = ").Append(TomlEdit.Quoted(to.Select(one => Recipient.Parse(one).Text))).Append('\n');
        }

        var plan = new BookSchedules(desk).Read(file, text.ToString());
        file.Write(text.ToString());
        return new BookSchedule(file, plan.Schedules[^1]);

        void Put(string key, string? value)
        {
            if (value is not null)
            {
                text.Append(key).Append(" = ").Append(TomlEdit.Quoted(value)).Append('\n');
            }
        }
    }

    /// <summary>
    /// Removes the schedules of a file, or the one of that time. Says what was done. Throws a <see cref="ProblemException"/> where there
    /// is none.
    /// </summary>
    public string Remove(string name, string? when)
    {
        var file = Own(name);
        var text = file.Read();
        var removed = 0;
        while (SpanOf(text, file, when) is var (from, to))
        {
            text = text[..from].TrimEnd() + "\n" + (to < text.Length ? "\n" + text[to..] : "");
            removed++;
        }

        if (removed == 0)
        {
            throw new ProblemException(
                ProblemKind.NotFound, when is null ? $"{file.Path} has no schedule." : $"{file.Path} has no schedule for {when}.",
                "vlei schedule lists what there is.");
        }

        _ = new BookSchedules(desk).Read(file, text);
        file.Write(text);
        return $"{file.Path}: {(removed == 1 ? "a schedule is" : $"{removed} schedules are")} taken out.";
    }

    private static (int From, int To)? SpanOf(string text, KeptFile file, string? when)
    {
        var tables = TomlText.Parse(text, file.Path, ProblemKind.BadData).Document.Tables.ToList();
        var place = tables.FindIndex(table => DeliveryKeys.IsSchedule(table) && (when is null || table.Items.Any(item =>
            item.Key!.ToString().Trim() == "when" && item.Value is Tomlyn.Syntax.StringValueSyntax { Value: { } said } && said == when)));
        return place < 0 ? null
            : (tables[place].Span.Start.Offset, place + 1 < tables.Count ? tables[place + 1].Span.Start.Offset : text.Length);
    }

    private KeptFile Own(string name) =>
        BookSchedules.Kinds.Select(kind => desk.Library.Find(kind, name)).FirstOrDefault(file => file is not null)
        ?? throw new ProblemException(
            ProblemKind.NotFound, $"There is no group, no kept report and no page of one's own {name}.",
            Suggestion.DidYouMean(name, BookSchedules.Kinds.SelectMany(desk.Library.All).Select(known => known.Name))
                ?? "Keep the report first: vlei save; a page of one's own is a file pages/NAME.toml in the book.");
}
