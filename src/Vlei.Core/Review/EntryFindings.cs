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

    /// <summary>Documents with the same contact, kind and amount, a few days apart; or with the same reference.</summary>
    public static IEnumerable<Finding> Duplicates(ReviewRecords records)
    {
        var same = records.Documents.Where(document => !document.Contact.IsNone && !document.Total.IsZero)
            .ToLookup(document => (document.Contact, document.Kind, document.Total));
        var byReference = records.Documents.Where(
            document => !document.Contact.IsNone && !IsOwn(document) && records.ReferenceOf(document).Length > 0)
            .ToLookup(document => (document.Contact, document.Kind, Reference: records.ReferenceOf(document)));
        foreach (var document in records.Within.Where(document => !document.Contact.IsNone))
        {
            var before = same[(document.Contact, document.Kind, document.Total)].Where(other => IsBefore(other, document)).ToList();

            // What comes again and again at the same amount is rent, or wages.
            var isRegular = before.Count(
                other => document.Date.DayNumber - other.Date.DayNumber is > NearDays and < YearDays) >= RegularTimes;
            var near = before.Where(other => document.Date.DayNumber - other.Date.DayNumber <= NearDays && !isRegular)
                .Cast<ReviewDocument?>().LastOrDefault();
            var reference = records.ReferenceOf(document);
            var twin = reference.Length == 0 || IsOwn(document) ? null : byReference[(document.Contact, document.Kind, reference)]
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
                ReviewRecords.ShowLines(new DateRange(earlier.Date, document.Date), other, id), records.FingerprintOf(earlier, document))
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
        foreach (var document in records.Within)
        {
            if (records.EnteredOn(document) is { } entered && entered.DayNumber - document.Date.DayNumber > LateDays)
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
        var numbered = records.Documents.Select(document => (Document: document, Number: records.NumberOf(document)))
            .Where(known => known.Number.Length > 0).ToList();
        foreach (var repeated in numbered.GroupBy(
            known => (known.Document.Kind, known.Number, Contact: IsOwn(known.Document) ? default : known.Document.Contact))
            .Where(group => group.Count() > 1))
        {
            var last = repeated.Last().Document;
            if (last.Date >= records.Range.From)
            {
                var ids = repeated.Select(known => records.IdOf(known.Document)).ToArray();
                yield return records.Of(
                    "repeated-number", last, $"The number {repeated.Key.Number} is on {string.Join(", ", ids.SkipLast(1))} too") with
                {
                    Records = ReviewRecords.ShowLines(new DateRange(repeated.First().Document.Date, last.Date), ids),
                    Fingerprint = records.FingerprintOf(repeated.Select(known => known.Document)),
                };
            }
        }

        foreach (var series in numbered.Where(known => IsOwn(known.Document)).Select(known => (known.Document, Cut: Cut(known.Number)))
            .Where(known => known.Cut is not null).GroupBy(known => (known.Document.Kind, known.Cut!.Value.Prefix, known.Cut.Value.Digits)))
        {
            foreach (var gap
                in Gaps(
                    records, [.. series.Select(known => (known.Document, known.Cut!.Value.Number))], series.Key.Prefix, series.Key.Digits))
            {
                yield return gap;
            }
        }
    }

    private static IEnumerable<Finding> Gaps(
        ReviewRecords records, List<(ReviewDocument Document, long Number)> series, string prefix, int digits)
    {
        var sorted = series.OrderBy(known => known.Number).ToList();
        if (sorted.Count(known => known.Document.Date >= records.Range.From) < LeastInSeries)
        {
            yield break;
        }

        foreach (var (before, after) in sorted.Zip(sorted.Skip(1)))
        {
            var missing = after.Number - before.Number - 1;
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

    // What we write ourselves has numbers of our own; on bills and supplier credits they are the supplier's.
    private static bool IsOwn(ReviewDocument document) =>
        DocumentKinds.Names[document.Kind - 1] is not ("bill" or "supplier-credit" or "expense" or "opening");

    private static (string Prefix, long Number, int Digits)? Cut(string number)
    {
        const int MostDigits = 15;
        var end = number.AsSpan().TrimEnd("0123456789").Length;
        var digits = number.Length - end;
        return digits is > 0 and <= MostDigits
            ? (number[..end], long.Parse(number.AsSpan(end), System.Globalization.CultureInfo.InvariantCulture), digits) : null;
    }

    private static bool IsBefore(ReviewDocument other, ReviewDocument document) =>
        other.Key != document.Key && (other.Date, other.Key).CompareTo((document.Date, document.Key)) < 0;
}
