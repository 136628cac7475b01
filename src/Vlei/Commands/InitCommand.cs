using System.CommandLine;
using Vlei.Books;
using Vlei.Books.Store.Postgres;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Problems;

namespace Vlei.Commands;

/// <summary><c>vlei init</c>: makes an empty book.</summary>
internal static class InitCommand
{
    private static readonly Argument<string> Folder = new("DIR") { Description = "The folder to make" };

    private static readonly Option<string> Name = new("--name")
    {
        Description = "Whose book it is", HelpName = "NAME", Required = true,
    };

    private static readonly Option<string> CurrencyCode = new("--currency")
    {
        Description = "The currency of all amounts, by its ISO 4217 code: ZAR", HelpName = "CODE", Required = true,
    };

    private static readonly Option<int> StartMonth = new("--fiscal-year-start")
    {
        Description = "The month, 1 to 12, in which the fiscal year starts", HelpName = "MONTH",
        DefaultValueFactory = _ => 1,
    };

    private static readonly Option<string?> Store = new("--store")
    {
        Description = "Where on a server its records are to be: postgresql://host/database?book=NAME; in the folder without it",
        HelpName = "ADDRESS",
    };

    /// <summary>The command.</summary>
    public static DocumentedCommand Create()
    {
        var command = new DocumentedCommand("init", "Make an empty book")
        {
            Examples =
            [
                ("vlei init acme --name \"Acme Joinery\" --currency ZAR --fiscal-year-start 3", "a book whose year starts in March"),
                ("vlei init acme --name \"Acme\" --currency ZAR --store 'postgresql://localhost/firm?book=acme'",
                    "its records on a server"),
            ],
        };
        command.Arguments.Add(Folder);
        command.Options.Add(Name);
        command.Options.Add(CurrencyCode);
        command.Options.Add(StartMonth);
        command.Options.Add(Store);
        command.SetAction(Run);
        return command;
    }

    private static int Run(ParseResult result)
    {
        var code = result.GetRequiredValue(CurrencyCode);
        if (!Currency.TryFind(code, out var currency))
        {
            throw new ProblemException(
                ProblemKind.Usage, $"\"{code}\" is no currency.",
                Suggestion.DidYouMean(code, Currency.Codes) ?? "Write its ISO 4217 code, as ZAR.");
        }

        var month = result.GetValue(StartMonth);
        if (month is < 1 or > 12)
        {
            throw new ProblemException(ProblemKind.Usage, $"There is no month {month}.", "Write a number from 1 to 12.");
        }

        var name = result.GetRequiredValue(Name).Trim();
        if (name.Length == 0)
        {
            throw new ProblemException(ProblemKind.Usage, "The name is empty.", "Write --name \"Acme Joinery\".");
        }

        var folder = result.GetRequiredValue(Folder);
        Book.Create(folder, new BookSettings(name, currency, new FiscalCalendar(month), AccountingBasis.Accrual, null)
        {
            Store = result.GetValue(Store) is { } address ? PostgresAddress.Parse(address).OfBook().ToString() : null,
        });
        Terminal.Say($"{folder} is a book now. Next: vlei map FILE --book {folder}; or, for a record set, vlei import DIR --book {folder}");
        return ExitStatus.Done;
    }
}
