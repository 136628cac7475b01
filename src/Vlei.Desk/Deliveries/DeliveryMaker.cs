using System.Globalization;
using Vlei.Books.Kept;
using Vlei.Core.Calendar;
using Vlei.Core.Languages;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Core.Review;
using Vlei.Desk.Runs;
using Vlei.Output;

namespace Vlei.Desk.Deliveries;

/// <summary>Produces what is to be sent, and writes the letters to go with it. Nothing is sent here.</summary>
/// <param name="desk">The book, on the day that words like <c>last-month</c> are seen from.</param>
/// <param name="mail">How mail is sent; nothing where nothing goes by mail.</param>
/// <param name="now">The moment that letters are dated by.</param>
public sealed class DeliveryMaker(ReportDesk desk, MailSettings? mail, DateTimeOffset now)
{
    private static readonly Recipient Nobody = new(RecipientKind.Mail, "vlei@localhost", "vlei@localhost");

    /// <summary>
    /// Produces it, and writes a letter for each recipient. Throws a <see cref="ProblemException"/> where it cannot be produced.
    /// </summary>
    /// <param name="order">What.</param>
    /// <param name="keyOf">The key of the delivery to a recipient.</param>
    /// <param name="isBySelf">Whether nobody asked for it just now.</param>
    /// <param name="say">Tells what is not in the outcome.</param>
    public ReadyDeliveries Make(DeliveryOrder order, Func<string, string> keyOf, bool isBySelf, Action<string> say)
    {
        RefuseTooMany(order.Plan.To.Count);
        return order.IsEach ? MakeEach(order, keyOf, isBySelf)
            : GroupRun.Produce(desk, order.Group, order.Period, Formats(order), say, outcome => Of(outcome, order, keyOf, isBySelf));
    }

    private static IReadOnlyList<ReportFormat> Formats(DeliveryOrder order)
    {
        var formats = ReportFormat.Named(
            "formats", order.Plan.To.Any(one => one.Kind == RecipientKind.Printer) ? [.. order.Formats.Append("pdf").Distinct()]
                : order.Formats);
        foreach (var format in order.Group.IsPage ? formats : [])
        {
            PageFormats.RefuseOther(order.Group.Name, format);
        }

        return formats;
    }

    private ReadyDeliveries Of(ProducedGroup outcome, DeliveryOrder order, Func<string, string> keyOf, bool isBySelf)
    {
        if (!outcome.Group.IsPage && outcome.Reports.All(report => report.Report is null))
        {
            throw new ProblemException(
                ProblemKind.BadData, $"nothing of {outcome.Group.Name} could be produced: {outcome.Reports[0].Asked.Problem}");
        }

        var (run, language) = (outcome.Run, outcome.Run.Reports.Language ?? Language.English);
        var period = PeriodText.Key(run.Days, desk.Settings.Calendar);
        var files = Formats(order).Select(format => (
            Name: $"{outcome.Group.Name}-{FileName(period)}.{format.Ending}",
            Bytes: PackOf(outcome, format))).Where(file => file.Bytes.Length > 0).ToList();
        var words = InWords(run.Days, language);
        var problem = HeldBecause(outcome, order);
        var text = "";
        try
        {
            text = Text(order.Plan.Message, language, outcome.Group.Title, words, outcome.Reports, run);
        }
        catch (ProblemException wrong)
        {
            problem = $"{problem} {wrong.Message}".Trim();
        }

        var delivery = new Delivery(0, "", order.Group.Name, [], problem.Length > 0 ? DeliveryState.Held : DeliveryState.Waiting)
        {
            Title = outcome.Group.Title, Period = period, Revision = run.Ledger.Revision, Problem = problem,
        };
        var letter = new Letter($"{language.Say(outcome.Group.Title)}, {words} – {desk.Settings.Name}", text, language, files);
        var mails = order.Plan.To.Where(one => one.Kind == RecipientKind.Mail).ToList();
        IEnumerable<IReadOnlyList<Recipient>> letters = order.Plan.IsTogether && mails.Count > 1
            ? [mails, .. order.Plan.To.Where(one => one.Kind != RecipientKind.Mail).Select(one => (IReadOnlyList<Recipient>)[one])]
            : order.Plan.To.Select(one => (IReadOnlyList<Recipient>)[one]);
        return new ReadyDeliveries([.. letters.Select(to => Ready(delivery, letter, to, order.Plan, keyOf, isBySelf))], []);
    }

    // Each customer's own statement, to that customer's own address, in that customer's own language.
    private ReadyDeliveries MakeEach(DeliveryOrder order, Func<string, string> keyOf, bool isBySelf)
    {
        var (member, formats) = (order.Group.Members[0], ReportFormat.Named("formats", order.Formats));
        var asked = new Dictionary<string, IReadOnlyList<string>>(order.Options);
        if (order.Period is { } period)
        {
            asked[ReportOptions.Period.Name] = [period];
        }

        using var open = desk.Open(new ReportOrder(member.Report, asked));
        var addresses = ContactAddresses.Of(open.Context);
        var each = open.Definition.Each!(open.Context, open.Request);
        RefuseTooMany(each.Count);
        var (ready, without) = (new List<ReadyDelivery>(), new List<string>());
        foreach (var (contact, request) in each)
        {
            var (name, address, code) = addresses[contact];
            if (address is null)
            {
                without.Add($"{name} ({contact})");
                continue;
            }

            var language = (code is null ? null : LookFiles.Find(code, desk.Library)) ?? open.Context.Language ?? Language.English;
            var report = OpenReport.Build(
                open.Definition, request with { Look = request.Look with { Language = language } }, open.Context, formats);
            ready.Add(Ready(report, (contact, name, address), language, order, formats, keyOf, isBySelf));
        }

        return new ReadyDeliveries(ready, without);
    }

    private ReadyDelivery Ready(
        Report report, (string Id, string Name, Recipient Address) contact, Language language, DeliveryOrder order,
        IReadOnlyList<ReportFormat> formats, Func<string, string> keyOf, bool isBySelf)
    {
        var days = report.Period!.Value;
        var period = PeriodText.Key(days, desk.Settings.Calendar);
        var words = InWords(days, language);
        var failed = report.Checks.Where(check => !check.Ok).Select(check => check.Name).Distinct().ToList();
        var problem = order.Plan.Hold == HoldReason.Always ? "It is to be approved."
            : failed.Count > 0 && order.Plan.Hold != HoldReason.Never ? $"Check failed: {string.Join(", ", failed)}." : "";
        var text = LetterTemplate.Fill(order.Plan.Message ?? DefaultOf(language, report.Title, words), place => place.IsFigure
            ? ReportFigure.Of(report, place.Words[1], place.Words.ElementAtOrDefault(2)) : place.Words[0] switch
            {
                "contact" => contact.Name,
                "findings" => throw new ProblemException(
                    ProblemKind.BadData, "{findings} is of the letter of a group; a customer is told of none.",
                    "Take it out of the message."),
                var word => Word(word, language, report.Title, words),
            });
        var files = formats.Select(format => ($"{report.Key}-{FileName(contact.Id)}-{FileName(period)}.{format.Ending}", Bytes(stream =>
            format.Write(report, stream, Surface.OfFile(ChartProgram.Beside))))).ToList();
        return Ready(
            new Delivery(0, "", report.Key, [], problem.Length > 0 ? DeliveryState.Held : DeliveryState.Waiting)
            {
                Title = $"{report.Title}, {contact.Name}", Period = period, Revision = report.Revision, Problem = problem,
            },
            new Letter($"{language.Say(report.Title)}, {words} – {desk.Settings.Name}", text, language, files),
            [contact.Address], order.Plan, to => $"{keyOf(to)}|{contact.Id}", isBySelf);
    }

    private ReadyDelivery Ready(
        Delivery delivery, Letter letter, IReadOnlyList<Recipient> to, DeliveryPlan plan, Func<string, string> keyOf, bool isBySelf)
    {
        var (from, written) = (mail?.From ?? Nobody, string.Join(", ", to.Select(one => one.Text)));
        var key = keyOf(written);
        var id = Letter.IdOf(key, from);
        var (fitting, bytes) = Fitting(
            letter, whole => whole.Write(from, to[0].Kind == RecipientKind.Mail ? to : [], plan, id, now, isBySelf));
        return new ReadyDelivery(
            delivery with
            {
                Key = key,
                To = [.. to.Select(one => one.Text)],
                Subject = fitting.Subject,
                MessageId = id,
                LetterSum = Hashes.Of(bytes),
                Made = now,
                Attachments = [.. fitting.Files.Select(file => new Attachment(file.Name, file.Bytes.Length, Hashes.Of(file.Bytes)))],
            },
            bytes, fitting.Text);
    }

    // What is too large goes without its largest files, and says so.
    private (Letter Letter, byte[] Bytes) Fitting(Letter letter, Func<Letter, byte[]> write)
    {
        var bytes = write(letter);
        while (mail is not null && bytes.Length > mail.MaxSize && letter.Files.Count > 0)
        {
            var largest = letter.Files.MaxBy(file => file.Bytes.Length);
            letter = letter with
            {
                Files = [.. letter.Files.Where(file => file.Name != largest.Name)],
                Text = $"{letter.Text}\n\n{letter.Language.Say("{0} is too large to be sent, and is left out.", [largest.Name])}",
            };
            bytes = write(letter);
        }

        return (letter, bytes);
    }

    private string Text(
        string? message, Language language, string title, string period, IReadOnlyList<ProducedReport> reports, RunContext run) =>
        LetterTemplate.Fill(message ?? DefaultOf(language, title, period), place => place.IsFigure
            ? ReportFigure.Of(
                reports.FirstOrDefault(report => report.Member.Name == place.Words[0])?.Report ?? throw new ProblemException(
                    ProblemKind.NotFound, $"{place.Text}: there is no report {place.Words[0]}.",
                    $"Its reports are {Suggestion.Listed([.. reports.Select(report => report.Member.Name)], "and")}."),
                place.Words[1], place.Words.ElementAtOrDefault(2))
            : place.Words[0] == "findings" ? Findings(run).ToString(CultureInfo.InvariantCulture)
            : Word(place.Words[0], language, title, period));

    private string InWords(DateRange days, Language language) =>
        PeriodText.Words(days, desk.Settings.Calendar) is var words && language.Dates.Say(words) is { } said ? said : words;

    private string Word(string word, Language language, string title, string period) => word switch
    {
        "period" => period,
        "book" => desk.Settings.Name,
        "title" => language.Say(title),
        _ => throw new ProblemException(
            ProblemKind.BadData, $"{{{word}}} is of a letter to one contact.", "It is filled in for statements of account."),
    };

    private string DefaultOf(Language language, string title, string period)
    {
        // Braces in a name are meant as such.
        var said = language.Say("Attached is {0} of {1} for {2}.", [language.Say(title), desk.Settings.Name, period]);
        return $"{language.Say("Good day")},\n\n{said}\n\n{language.Say("Kind regards")}\n{desk.Settings.Name}"
            .Replace("{", "{{", StringComparison.Ordinal).Replace("}", "}}", StringComparison.Ordinal);
    }

    private static string HeldBecause(ProducedGroup outcome, DeliveryOrder order)
    {
        if (order.Plan.Hold == HoldReason.Never)
        {
            return "";
        }

        var reasons = outcome.Reports.Where(report => report.Report is null)
            .Select(report => $"{report.Member.Name}: {report.Asked.Problem}")
            .Concat(outcome.Reports.SelectMany(report => report.Report?.Checks.Where(check => !check.Ok) ?? []).Select(check => check.Name)
                .Distinct().Select(check => $"Check failed: {check}."));
        if (outcome.Incomplete is { } incomplete)
        {
            reasons = reasons.Append(incomplete);
        }

        if (order.Plan.Hold != HoldReason.Checks && Findings(outcome.Run) is > 0 and var found)
        {
            reasons = reasons.Append($"The review has {found.ToString(CultureInfo.InvariantCulture)} open findings.");
        }

        return string.Join(' ', order.Plan.Hold == HoldReason.Always ? reasons.Append("It is to be approved.") : reasons);
    }

    private static int Findings(RunContext run) => FindingsTable.Find(
        Core.Tables.TableReport.ContextOf(
            FindingsTable.Definition, run.Reports, new ReportRequest { Period = new OpenPeriod(run.Days) }), run.Days)
        .Count(finding => run.Ledger.Marks.All(mark => mark.Finding != finding.Key || mark.IsQuestion));

    private static byte[] PackOf(ProducedGroup outcome, ReportFormat format)
    {
        var path = Path.Combine(outcome.Folder, $"{outcome.Group.Name}.{format.Ending}");
        return File.Exists(path) ? File.ReadAllBytes(path) : [];
    }

    private static byte[] Bytes(Action<Stream> write)
    {
        using var bytes = new MemoryStream();
        write(bytes);
        return bytes.ToArray();
    }

    // What a file may be called everywhere.
    private static string FileName(string text) =>
        string.Concat(text.Select(letter => char.IsLetterOrDigit(letter) || letter is '-' or '_' or '.' ? letter : '-'));

    private void RefuseTooMany(int count)
    {
        if (mail is not null && count > mail.MaxLetters)
        {
            throw new ProblemException(
                ProblemKind.Usage, $"That would be {count} letters, and {mail.Path} allows {mail.MaxLetters} at once.",
                "Choose fewer, or set max-letters there.");
        }
    }
}
