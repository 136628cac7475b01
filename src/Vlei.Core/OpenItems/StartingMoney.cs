using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Reports;

namespace Vlei.Core.OpenItems;

/// <summary>The money that there is on a day: what the money accounts come to, unless a person says otherwise.</summary>
internal sealed class StartingMoney
{
    private readonly IReadOnlyList<OriginPart> _parts;

    /// <summary>Works it out.</summary>
    public StartingMoney(ReportContext context, ReportRequest request, DateOnly day)
    {
        if (request.Items.Money is { } said)
        {
            (Amount, IsSaid, _parts) = (said, true, []);
            return;
        }

        var figure = new Figure(PostingSource.Accrual, new DateRange(context.Records.From < day ? context.Records.From : day, day));
        var sums = FigureSums.Of(context.Ledger, [figure], Selection.Everything, null);
        var accounts = context.Ledger.Accounts.Where(account => AccountTypes.ClassOf(account.Type) == AccountClass.Money).ToList();
        Amount = accounts.Aggregate(Amount.Zero, (sum, account) => sum + sums.Net(figure, account.Key));
        _parts =
        [
            new OriginPart(
                "Money", PostingSource.Accrual, figure.Range,
                [.. accounts.Select(account => new OriginTerm(account.Key, PostingSide.Both, 1))],
                Selection.Everything)
            {
                IsBroughtForward = true,
            },
        ];
    }

    /// <summary>How much.</summary>
    public Amount Amount { get; }

    /// <summary>Whether a person said it.</summary>
    public bool IsSaid { get; }

    /// <summary>Adds what is behind a balance: this, and what came and went since.</summary>
    public void AddBehind(IEnumerable<OriginItem> items, Amount balance, OriginRecords records)
    {
        records.Parts.AddRange(_parts);
        records.Items.AddRange(items);
        records.Figure = IsSaid ? balance - Amount : balance;
        records.Note = IsSaid ? "The figure starts from the money that --money says; these are what comes and goes." : null;
    }
}
