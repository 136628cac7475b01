using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Desk;

namespace Vlei.Browse;

/// <summary>What is asked of a report, with one thing changed.</summary>
internal static class OptionChange
{
    /// <summary>With an option as it is typed: empty takes it away, and one that may be repeated is added.</summary>
    public static ReportOrder With(this ReportOrder order, ReportOption option, string text)
    {
        var options = order.Options.Where(known => known.Key != option.Name).ToDictionary(known => known.Key, known => known.Value);
        if (text.Length > 0)
        {
            options[option.Name] = option.Repeatable ? [.. order.Options.GetValueOrDefault(option.Name, []), text] : [text];
        }

        return order with { Options = options };
    }

    /// <summary>What is typed for an option; empty where nothing is.</summary>
    public static string TextOf(this ReportOrder order, ReportOption option) =>
        order.Options.GetValueOrDefault(option.Name, []) is [.., var text] ? text : "";

    /// <summary>With a switch on, or off where it was on.</summary>
    public static ReportOrder Switched(this ReportOrder order, ReportOption option) =>
        order.With(option, order.TextOf(option) == "true" ? "" : "true");

    /// <summary>
    /// With any option, as it stands on a command line: <c>top 5</c>. Throws a <see cref="ProblemException"/> where there is none of
    /// that name.
    /// </summary>
    public static ReportOrder WithTyped(this ReportOrder order, string typed)
    {
        var (name, text) = typed.TrimStart('-').IndexOfAny([' ', '=']) is > 0 and var end
            ? (typed.TrimStart('-')[..end], typed.TrimStart('-')[(end + 1)..].Trim()) : (typed.TrimStart('-'), "");
        var option = ReportOptions.All.FirstOrDefault(known => known.Name == name) ?? throw new ProblemException(
            ProblemKind.Usage, $"There is no option {name}.", Suggestion.DidYouMean(name, ReportOptions.All.Select(known => known.Name)));
        return option.ValueName is null && text.Length == 0 ? order.Switched(option)
            : order.With(option, text.Length == 0 && !order.Options.ContainsKey(name) ? option.WhenBare ?? "" : text);
    }

    /// <summary>On the next basis.</summary>
    public static ReportOrder OnNextBasis(this ReportOrder order, AccountingBasis shown) => order.With(
        ReportOptions.Basis, order.TextOf(ReportOptions.Basis) switch
        {
            "both" => "accrual",
            "" when shown == AccountingBasis.Cash => "both",
            "cash" => "both",
            _ => "cash",
        });

    /// <summary>Of the period before or after the one that is shown, as long as that; the moment a month before or after it.</summary>
    public static ReportOrder InAnotherPeriod(this ReportOrder order, OpenReport open, Report shown, int by)
    {
        if (shown.AsOf is { } day)
        {
            return order.With(ReportOptions.Period, "").With(ReportOptions.AsOf, PeriodText.Iso(day.PlusMonths(by)));
        }

        var period = open.Context.PeriodOf(open.Request);
        return order.With(ReportOptions.Period, PeriodText.Key(period.Prior(-by, [period.Range])[0], open.Context.Calendar));
    }

    /// <summary>In the order of a column: the largest first, the smallest first, as it was.</summary>
    public static ReportOrder SortedBy(this ReportOrder order, string column) => order.With(
        ReportOptions.Sort, order.TextOf(ReportOptions.Sort) is var sorted && sorted == $"-{column}" ? column
            : sorted == column ? "" : $"-{column}");
}
