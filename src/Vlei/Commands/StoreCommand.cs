using System.CommandLine;
using Vlei.Books;
using Vlei.Books.Store.Postgres;
using Vlei.Core.Problems;

namespace Vlei.Commands;

/// <summary><c>vlei store</c>: the books of a firm on its server.</summary>
internal static class StoreCommand
{
    private static readonly (string Name, string Takes, int Least, int Most, Func<string[], int> Run)[] Actions =
    [
        ("init", "ADDRESS", 1, 1, Init), ("list", "ADDRESS", 1, 1, List), ("copy", "FROM TO", 2, 2, Copy),
        ("check", "BOOK [OTHER]", 1, 2, Check), ("grant", "ADDRESS LOGIN read|write|none", 3, 3, Grant),
    ];

    private static readonly Argument<string> Action = new("ACTION")
    {
        Description = "init: make the tables of a firm in a database, or bring them forward; list: name the books that the login may see; "
            + "copy: take a book with all its history to a server or back; check: prove a book and compare it with its copy; "
            + "grant: say what a login may do with a book",
    };

    private static readonly Argument<string[]> Words = new("WORDS")
    {
        Description = "A folder of a book, or an address: postgresql://host/database?book=NAME. The password is looked up in ~/.pgpass "
            + "(PGPASSFILE) or PGPASSWORD; PGSERVICE and the other variables of PostgreSQL count too",
        Arity = ArgumentArity.ZeroOrMore,
    };

    /// <summary>The command.</summary>
    public static DocumentedCommand Create()
    {
        var command = new DocumentedCommand("store", "Keep the books of a firm on a PostgreSQL server")
        {
            Examples =
            [
                ("vlei store init postgresql://localhost/firm", "make the tables of the firm in a database that is there"),
                ("vlei store copy acme 'postgresql://localhost/firm?book=acme'", "take a book there, with all its history"),
                ("vlei store grant 'postgresql://localhost/firm?book=acme' anna write",
                    "let a bookkeeper work on it; read and none are the others"),
                ("vlei store check acme 'postgresql://localhost/firm?book=acme'", "prove both, and that they are the same"),
                ("vlei store list postgresql://localhost/firm", "the books that you may see"),
                ("vlei show balance-sheet --book 'postgresql://localhost/firm?book=acme'", "any command takes such a book"),
            ],
        };
        Action.CompletionSources.Add([.. Actions.Select(action => action.Name)]);
        command.Arguments.Add(Action);
        command.Arguments.Add(Words);
        command.SetAction(Run);
        return command;
    }

    private static int Run(ParseResult result)
    {
        var name = result.GetRequiredValue(Action);
        var names = Actions.Select(action => action.Name).ToList();
        if (Array.FindIndex(Actions, action => action.Name == name) is var place && place < 0)
        {
            throw new ProblemException(
                ProblemKind.Usage, $"vlei store does not {name}.",
                Suggestion.DidYouMean(name, names) ?? $"Expected {Suggestion.Listed(names, "or")}.");
        }

        var (words, action) = (result.GetValue(Words) ?? [], Actions[place]);
        return words.Length >= action.Least && words.Length <= action.Most ? action.Run(words) : throw new ProblemException(
            ProblemKind.Usage, $"vlei store {name} takes {action.Takes}.", "vlei store --help shows examples.");
    }

    private static int Init(string[] words)
    {
        var address = PostgresAddress.Parse(words[0]).With(null);
        Terminal.Say(PostgresServer.Init(address)
            ? $"{address} holds books now. Next: vlei store copy DIR '{address.With("NAME")}'"
            : $"{address} is as this vlei needs it; nothing was to be done.");
        return ExitStatus.Done;
    }

    private static int List(string[] words)
    {
        using var output = Terminal.Output();
        foreach (var book in PostgresServer.Books(PostgresAddress.Parse(words[0])))
        {
            output.WriteLine(book);
        }

        return ExitStatus.Done;
    }

    private static int Copy(string[] words)
    {
        var book = Book.Open(words[0]);
        Terminal.WithProgress(progress =>
        {
            StoreCopy.Run(book, words[1], progress);
            return 0;
        });
        Terminal.Say(PostgresAddress.IsOne(words[1])
            ? $"The book is at {words[1]} too.\nTo go on there, write into its book.toml:\nstore = \"{words[1]}\""
            : $"{words[1]} is a book now, the same as {words[0]}.");
        return ExitStatus.Done;
    }

    private static int Check(string[] words)
    {
        var books = words.Select(Book.Open).ToList();
        var faults = 0;
        using var output = Terminal.Output();
        foreach (var (book, name) in books.Zip(words))
        {
            foreach (var result in Terminal.WithProgress(progress => BookCheck.Run(book, progress)))
            {
                output.WriteLine($"{(result.Ok ? "ok    " : "FAILED")}  {name}: {result.Name}");
                result.Faults.ToList().ForEach(fault => output.WriteLine($"        {fault}"));
                faults += result.Faults.Count;
            }
        }

        if (books is [var one, var other])
        {
            var differences = StoreCopy.Differences(one, other);
            output.WriteLine(differences.Count == 0 ? "ok      Both are the same, in every version"
                : $"FAILED  They differ in {Suggestion.Listed([.. differences], "and")}");
            faults += differences.Count;
        }

        return faults == 0 ? ExitStatus.Done : ExitStatus.CheckFailed;
    }

    private static int Grant(string[] words)
    {
        var address = PostgresAddress.Parse(words[0]).OfBook();
        if (!Enum.TryParse<BookRight>(words[2], ignoreCase: true, out var right) || !Enum.IsDefined(right))
        {
            throw new ProblemException(ProblemKind.Usage, $"There is no right {words[2]}.", "Write read, write or none.");
        }

        PostgresServer.Grant(address, words[1], right);
        Terminal.Say(right == BookRight.None ? $"{words[1]} does not see {address.Book} any more."
            : $"{words[1]} may {(right == BookRight.Write ? "read and write" : "read")} {address.Book}.");
        return ExitStatus.Done;
    }
}
