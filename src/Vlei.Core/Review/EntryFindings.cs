using Vlei.Core.Calendar;
using Vlei.Core.Ledger;

namespace Vlei.Core.Review;

/// <summary>What looks off about how documents were entered: twice, late, on a weekend, as a round sum, with a number missing.</summary>
internal static class EntryFindings
{
    private const int NearDays = 10;
    private const int RegularTimes = 3;
    private const int YearDays = 365;
    private const int LateDays = 21;
    private const int RoundUnits = 1000;
    private const int LeastInSeries = 5;
    private const int LongestGap = 20;

    // More than that is no number that somebody counts.
    private const int MostDigits = 15;

    /// <summary>Documents with the same contact, kind and amount, a few days apart; or with the same reference.</summary>
    public static IEnumerable<Finding> Duplicates(ReviewRecords records)
    {
        var within = records.Within.Where(document => !document.Contact.IsNone).ToList();
        var sums = within.Where(document => !document.Total.IsZero)
            .Select(document => (document.Contact, document.Kind, document.Total)).ToHashSet();
        var same = records.Documents.Where(document => sums.Contains((document.Contact, document.Kind, document.Total)))
            .ToLookup(document => (document.Contact, document.Kind, document.Total));
        var senders = within.Where(document => !IsOwn(document)).Select(document => (document.Contact, document.Kind)).ToHashSet();
        var sent = records.Documents.Where(document => senders.Contains((document.Contact, document.Kind))).ToList();
        var references = records.TextsOf("reference", sent).ToDictionary(said => said.Document.Key, said => said.Text);
        var byReference = sent.Where(document => references.ContainsKey(document.Key))
            .ToLookup(document => (document.Contact, document.Kind, Reference: references[document.Key]));
        foreach (var document in within)
        {
            var before = same[(document.Contact, document.Kind, document.Total)].Where(other => IsBefore(other, document)).ToList();

            // What comes again and again at the same amount is rent, or wages.
            var isRegular = before.Count(
                other => document.Date.DayNumber - other.Date.DayNumber is > NearDays and < YearDays) >= RegularTimes;
            var near = before.Where(other => document.Date.DayNumber - other.Date.DayNumber <= NearDays && !isRegular)
                .Cast<ReviewDocument?>().LastOrDefault();
            var reference = IsOwn(document) ? null : references.GetValueOrDefault(document.Key);
            var twin = reference is null ? null : byReference[(document.Contact, document.Kind, reference)]
                .Where(other => IsBefore(other, document)).Cast<ReviewDocument?>().LastOrDefault();
            if ((twin ?? near) is not { } earlier)
            {
                continue;
            }

            var (id, other) = (records.IdOf(document), records.IdOf(earlier));
            var isSame = earlier.Total == document.Total;
            yield return new Finding(
                "duplicate", $"duplicate/{id}", document.Date,
                $"{(isSame ? "The same contact, kind and amount" : "The same contact and kind")} as {other} of "
                    + PeriodText.Iso(earlier.Date)
                    + (twin is null ? "" : $"; both have the reference {reference}"),
                ReviewRecords.ShowLines(new DateRange(earlier.Date, document.Date), other, id),
                ReviewRecords.FingerprintOf(earlier, document))
            {
                Document = document.Key,
                Contact = document.Contact,
                Amount = document.Total,
            };
        }
    }

    /// <summary>Journals on a Saturday or a Sunday, and those of whole thousands.</summary>
    public static IEnumerable<Finding> Journals(ReviewRecords records)
    {
        var unit = 1L;
        for (var place = 0; place < records.Context.Currency.Decimals; place++)
        {
            unit *= 10;
        }

        foreach (var document in records.Within.Where(document => document.Kind == DocumentKinds.NumberOf("journal")))
        {
            // What belongs to the end of a month is entered there, whatever day that is.
            if (document.Date.DayOfWeek is DayOfWeek.Saturday or DayOfWeek.Sunday && !document.Date.IsMonthEnd())
            {
                yield return records.Of("weekend-journal", document, $"A journal on a {document.Date.DayOfWeek}");
            }

            if (!document.Total.IsZero && document.Total.MinorUnits % (RoundUnits * unit) == 0)
            {
                yield return records.Of("round-journal", document, $"A journal of a round sum: {records.Text(document.Total)}");
            }
        }
    }

    /// <summary>Documents that were entered long after their date.</summary>
    public static IEnumerable<Finding> Late(ReviewRecords records)
    {
        foreach (var (document, moment) in records.TextsOf("created_at", records.Within))
        {
            if (EnteredOn(moment) is { } entered && entered.DayNumber - document.Date.DayNumber > LateDays)
            {
                yield return records.Of(
                    "late-entry", document,
                    $"Entered on {PeriodText.Iso(entered)}, {entered.DayNumber - document.Date.DayNumber} days after its date");
            }
        }
    }

    /// <summary>Numbers that are missing in a series, and numbers that are there twice.</summary>
    public static IEnumerable<Finding> Numbers(ReviewRecords records)
    {
        // A number that is on any of the days that are looked at is looked for in all documents, and so is a series that has several there.
        var within = records.TextsOf("number", records.Within).ToList();
        var repeated = within.Select(said => NumberOf(said.Document, said.Text)).Distinct()
            .ToDictionary(number => number, _ => new List<ReviewDocument>());
        var series = within.Where(said => IsOwn(said.Document) && DigitsOf(said.Text) is > 0 and <= MostDigits)
            .CountBy(said => (said.Document.Kind, Prefix: said.Text[..^DigitsOf(said.Text)], Digits: DigitsOf(said.Text)))
            .Where(series => series.Value >= LeastInSeries)
            .Select(series => (series.Key.Kind, series.Key.Prefix, series.Key.Digits, Numbers: new List<(long Number, int Place)>()))
            .ToList();
        foreach (var (document, text) in repeated.Count == 0 ? [] : records.TextsOf("number", records.Documents))
        {
            repeated.GetValueOrDefault(NumberOf(document, text))?.Add(document);
            var digits = DigitsOf(text);
            foreach (var one in series)
            {
                // There are few, so that nothing need be made of a number to find its own.
                if (one.Digits == digits && one.Kind == document.Kind && text.AsSpan(0, text.Length - digits).SequenceEqual(one.Prefix))
                {
                    one.Numbers.Add((
                        long.Parse(text.AsSpan(text.Length - digits), System.Globalization.CultureInfo.InvariantCulture), document.Place));
                }
            }
        }

        return
        [
            .. repeated.Where(number => number.Value.Count > 1).OrderBy(number => number.Value[0].Place)
                .Select(number => Repeated(records, number.Key.Number, number.Value)),
            .. series.OrderBy(one => one.Numbers.Min(numbered => numbered.Place))
                .SelectMany(one => Gaps(records, one.Numbers, one.Prefix, one.Digits)),
        ];
    }

    private static Finding Repeated(ReviewRecords records, string number, List<ReviewDocument> repeated)
    {
        var ids = repeated.Select(records.IdOf).ToArray();
        return records.Of("repeated-number", repeated[^1], $"The number {number} is on {string.Join(", ", ids.SkipLast(1))} too") with
        {
            Records = ReviewRecords.ShowLines(new DateRange(repeated[0].Date, repeated[^1].Date), ids),
            Fingerprint = ReviewRecords.FingerprintOf(repeated),
        };
    }

    // Numbers of our own are told apart by the kind of the document, those of others by who gave them too.
    private static (int Kind, string Number, ContactKey Contact) NumberOf(ReviewDocument document, string number) =>
        (document.Kind, number, IsOwn(document) ? default : document.Contact);

    private static IEnumerable<Finding> Gaps(
        ReviewRecords records, List<(long Number, int Place)> series, string prefix, int digits)
    {
        series.Sort();
        foreach (var ((earlier, place), (later, next)) in series.Zip(series.Skip(1)))
        {
            var missing = later - earlier - 1;
            var (before, after) = (
                (Document: records.Documents[place], Number: earlier), (Document: records.Documents[next], Number: later));
            if (missing is < 1 or > LongestGap || after.Document.Date < records.Range.From)
            {
                continue;
            }

            string Text(long number) => prefix + number.ToString(System.Globalization.CultureInfo.InvariantCulture).PadLeft(digits, '0');
            var (first, last) = (Text(before.Number + 1), Text(after.Number - 1));
            yield return new Finding(
                "missing-number", $"missing-number/{first}", after.Document.Date,
                missing == 1 ? $"{first} is missing: after {Text(before.Number)} comes {Text(after.Number)}"
                    : $"{first} to {last} are missing: after {Text(before.Number)} comes {Text(after.Number)}",
                ReviewRecords.ShowLines(
                    before.Document.Date < after.Document.Date ? new DateRange(before.Document.Date, after.Document.Date)
                        : new DateRange(after.Document.Date, before.Document.Date),
                    records.IdOf(before.Document), records.IdOf(after.Document)),
                Finding.FingerprintOf([before.Number, after.Number]));
        }
    }

    private static DateOnly? EnteredOn(string moment) => moment.Length >= 10
        && IsoText.TryDay(System.Text.Encoding.UTF8.GetBytes(moment[..10]), out var day) ? day : null;

    // What we write ourselves has numbers of our own; on bills and supplier credits they are the supplier's.
    private static bool IsOwn(ReviewDocument document) =>
        DocumentKinds.Names[document.Kind - 1] is not ("bill" or "supplier-credit" or "expense" or "opening");

    // How many digits a number ends with.
    private static int DigitsOf(string number) => number.Length - number.AsSpan().TrimEnd("0123456789").Length;

    private static bool IsBefore(ReviewDocument other, ReviewDocument document) =>
        other.Key != document.Key && (other.Date, other.Key).CompareTo((document.Date, document.Key)) < 0;
}
