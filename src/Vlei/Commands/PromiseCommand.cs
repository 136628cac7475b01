using System.CommandLine;
using Vlei.Books;
using Vlei.Books.Files;
using Vlei.Books.Kept;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.OpenItems;
using Vlei.Core.Problems;
using Vlei.Desk;

namespace Vlei.Commands;

/// <summary><c>vlei promise</c>: notes what a contact has committed to, or disputes; nothing in the ledger changes.</summary>
internal static class PromiseCommand
{
    // The report of all that is noted.
    private const string Noted = "promises";

    private static readonly Argument<string?> Document = new("DOCUMENT")
    {
        Description = "The document, by its id or its number; without one, everything that is noted is listed",
        Arity = ArgumentArity.ZeroOrOne,
    };

    private static readonly Option<string?> By = new("--by")
    {
        Description = "The day by which it is promised, or the end of any period: 2026-07-15, this-month", HelpName = "D",
    };

    private static readonly Option<bool> Dispute = new("--dispute") { Description = "It is not accepted, rather than promised" };

    private static readonly Option<string?> Amount = new("--amount")
    {
        Description = "How much of it; all that is open where nothing is said", HelpName = "A",
    };

    private static readonly Option<string?> Note = new("--note") { Description = "What was said", HelpName = "TEXT" };

    private static readonly Option<int?> Withdraw = new("--withdraw")
    {
        Description = "Take back what is noted under a number", HelpName = "N",
    };

    /// <summary>The command.</summary>
    public static DocumentedCommand Create()
    {
        var command = new DocumentedCommand("promise", "Note what a contact has promised to pay, or disputes")
        {
            Examples =
            [
                ("vlei promise INV-00730 --by 2026-07-15 --note \"Will pay after the regatta\"", "all that is open of it"),
                ("vlei promise INV-00764 --by this-month --amount 5000", "a part of it"),
                ("vlei promise INV-00792 --dispute --note \"Wrong colour\"", "it is not accepted"),
                ("vlei promise", "everything that is noted, and what has become of it"),
                ("vlei promise --withdraw 2", "it no longer stands"),
            ],
        };
        command.Arguments.Add(Document);
        foreach (var option in new Option[] { By, Dispute, Amount, Note, Withdraw })
        {
            command.Options.Add(option);
        }

        var destination = new ReportDestination(command);
        command.SetAction(result => Run(result, destination));
        return command;
    }

    private static int Run(ParseResult result, ReportDestination destination)
    {
        var desk = BookOptions.OpenDesk(result);
        var (book, today) = (desk.Book, desk.Today.Date);
        if (result.GetValue(Withdraw) is { } number)
        {
            TakeBack(book, number, today);
            return ExitStatus.Done;
        }

        // What is open and what of it is promised already is read and changed in one turn.
        using var turn = result.GetValue(Document) is null ? null : FileTurn.Take(book.Folder);
        using var ledger = LedgerReader.Open(book);
        if (result.GetValue(Document) is { } document)
        {
            Keep(result, book, ledger, document, today);
            return ExitStatus.Done;
        }

        var all = Library.Standard(Noted)!;
        return destination.Write(
            result, destination.TargetsOf(result),
            OpenReport.Build(all, desk.RequestOf(all, new Dictionary<string, IReadOnlyList<string>>()), desk.ContextOf(ledger)));
    }

    private static void Keep(ParseResult result, Book book, LedgerReader ledger, string named, DateOnly today)
    {
        var isDispute = result.GetValue(Dispute);
        if (result.GetValue(By) is null == !isDispute || (result.GetValue(By) is not null && isDispute))
        {
            throw new ProblemException(
                ProblemKind.Usage, "It is either promised by a day, or disputed.", "Add --by DAY, or --dispute.");
        }

        var key = ledger.FindDocument(named) ?? throw new ProblemException(
            ProblemKind.NotFound, $"There is no document {named}, or several have that number.",
            Suggestion.DidYouMean(named, ledger.DocumentNames()) ?? "vlei show open-receivables lists what is open.");
        DateOnly? by = result.GetValue(By) is { } text
            ? PeriodGrammar.Parse(text, today, book.Settings.Calendar).Within(ledger.Extent ?? new DateRange(today, today)).Range.To : null;
        if (by < today)
        {
            throw new ProblemException(
                ProblemKind.Usage, $"{PeriodText.Iso(by.Value)} has passed: today is {PeriodText.Iso(today)}.", "Name a day to come.");
        }

        var id = ledger.Document(key).Id;
        var open = PromisedItems.OpenOf(ledger, key, today);
        var taken = Standing(ledger, key, today, isDispute);
        var amount = result.GetValue(Amount) is { } said ? AmountText.Read("amount", said, book.Settings.Currency) : open - taken;
        if (amount.Sign <= 0 && !(open - taken).IsZero)
        {
            throw new ProblemException(
                ProblemKind.Usage, "What is promised or disputed is more than nothing.", "Give a positive --amount.");
        }

        if (amount > open - taken || amount.IsZero)
        {
            throw new ProblemException(
                ProblemKind.Usage,
                open.IsZero ? $"Nothing is open of {id} on {PeriodText.Iso(today)}."
                    : $"{Text(book, amount)} is more than can "
                        + $"be {(isDispute ? "disputed" : "promised")} of {id}: {Text(book, open)} is open"
                        + (taken.IsZero ? "." : $", and {Text(book, taken)} of it is {(isDispute ? "disputed" : "promised")} already."),
                open.IsZero ? "vlei show open-receivables lists what is." : taken.IsZero ? "Give a smaller --amount."
                    : "Take back the other with --withdraw N; vlei promise lists them.");
        }

        var number = 0;
        PromiseFile.Change(book, records =>
        {
            number = records.Select(other => other.Number).DefaultIfEmpty(0).Max() + 1;
            return [.. records, new PromiseRecord(
                number, isDispute, id, amount, by, open, today, Environment.UserName, null, result.GetValue(Note) ?? "")];
        });
        Terminal.Say(
            $"Noted under {number}: {Text(book, amount)} of {id} {(by is { } day ? $"promised by {PeriodText.Iso(day)}" : "disputed")}.");
    }

    // What stands already of the same kind cannot be promised, or disputed, once more.
    private static Amount Standing(LedgerReader ledger, DocumentKey document, DateOnly today, bool isDispute) =>
        new[] { AccountType.Receivable, AccountType.Payable }
            .SelectMany(type => new PromisedItems(ledger, ControlHistory.Of(ledger, type, today), today).All)
            .Where(promised => promised.Promise.Document == document
                && promised.State == (isDispute ? PromiseState.Disputed : PromiseState.Pending))
            .Aggregate(Core.Money.Amount.Zero, (sum, promised) => sum + promised.Standing);

    private static void TakeBack(Book book, int number, DateOnly today)
    {
        PromiseFile.Change(book, records => records.Any(record => record.Number == number && record.Withdrawn is null)
            ? records.Select(record => record.Number == number ? record with { Withdrawn = today } : record)
            : throw new ProblemException(
                ProblemKind.NotFound, $"Nothing stands under {number}.", "vlei promise lists what is noted."));
        Terminal.Say($"What is noted under {number} is taken back.");
    }

    private static string Text(Book book, Amount amount) => DecimalText.Write(amount.MinorUnits, book.Settings.Currency.Decimals);
}
