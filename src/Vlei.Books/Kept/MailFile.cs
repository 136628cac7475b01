using System.Globalization;
using Tomlyn.Syntax;
using Vlei.Core.Problems;

namespace Vlei.Books.Kept;

/// <summary>How mail is secured on its way to the server.</summary>
public enum MailSecurity
{
    /// <summary>From the first byte on (RFC 8314).</summary>
    Tls,

    /// <summary>After a greeting in clear (RFC 3207); where the server does not offer it, nothing is sent.</summary>
    StartTls,

    /// <summary>Not at all.</summary>
    None,
}

/// <summary>How mail is sent: which server, as whom, and where it may go.</summary>
/// <param name="Path">The file that says so, for messages.</param>
/// <param name="Server">The server.</param>
/// <param name="Port">Its port.</param>
/// <param name="From">The sender.</param>
public sealed record MailSettings(string Path, string Server, int Port, Recipient From)
{
    /// <summary>How it is secured.</summary>
    public MailSecurity Security { get; init; } = MailSecurity.StartTls;

    /// <summary>The login; nothing where the server wants none.</summary>
    public string? User { get; init; }

    /// <summary>Where the password is: <c>env:NAME</c>, <c>file:PATH</c> or <c>command:…</c>; nothing where there is none.</summary>
    public string? Password { get; init; }

    /// <summary>A file of certificates that the server's may be signed with, beside those that the computer trusts.</summary>
    public string? Trust { get; init; }

    /// <summary>The addresses, or domains as <c>@example.org</c>, where anything may go; none for everywhere.</summary>
    public IReadOnlyList<string> Allow { get; init; } = [];

    /// <summary>How many bytes a letter may have.</summary>
    public long MaxSize { get; init; }

    /// <summary>How many letters one command may make.</summary>
    public int MaxLetters { get; init; }

    /// <summary>Who is told of what failed; nothing where nobody is.</summary>
    public Recipient? Notify { get; init; }

    /// <summary>How many seconds the server has for an answer.</summary>
    public int Timeout { get; init; }

    /// <summary>Whether an address is one of those where anything may go.</summary>
    public bool Allows(string address) => Allow.Count == 0 || Allow.Any(allowed => allowed.StartsWith('@')
        ? address.EndsWith(allowed, StringComparison.OrdinalIgnoreCase)
        : address.Equals(allowed, StringComparison.OrdinalIgnoreCase));
}

/// <summary>Reads <c>mail.toml</c>, of the book or of the person.</summary>
public static class MailFile
{
    /// <summary>Its name.</summary>
    public const string Name = "mail.toml";

    private const int DefaultMegabytes = 20;
    private const int DefaultLetters = 1000;
    private const int DefaultTimeout = 60;

    private const string CommandMark = "command:";

    private static readonly string[] Marks = ["env:", "file:", CommandMark];
    private static readonly string[] Securities = ["tls", "starttls", "none"];
    private static readonly int[] Ports = [465, 587, 25];

    /// <summary>Its keys.</summary>
    public static IReadOnlyList<FileKey> Keys { get; } =
    [
        new("server", FileKeyKind.Text, "The server that takes mail.") { IsRequired = true },
        new("port", FileKeyKind.Number, "Its port; 465 with tls, 587 with starttls, 25 with none, where nothing is said."),
        new("security", FileKeyKind.Text, "How the way there is secured; starttls, where nothing is said.") { Words = Securities },
        new("user", FileKeyKind.Text, "The login, where the server wants one."),
        new(
            "password", FileKeyKind.Text,
            "Where the password is: \"env:NAME\", \"file:PATH\" of a file that nobody else may read, or \"command:…\" that prints it."),
        new("from", FileKeyKind.Text, "The sender.") { IsRequired = true },
        new("trust", FileKeyKind.Text, "A file of certificates (PEM) that the server's may be signed with, beside the computer's own."),
        new("allow", FileKeyKind.Texts, "The addresses, or domains as \"@example.org\", where anything may go; everywhere, if none."),
        new("max-size", FileKeyKind.Number, $"How many megabytes a letter may have; {DefaultMegabytes}, where nothing is said."),
        new("max-letters", FileKeyKind.Number, $"How many letters one command may make; {DefaultLetters}, where nothing is said."),
        new("notify", FileKeyKind.Text, "The address that is told when something could not be sent."),
        new("timeout", FileKeyKind.Number, $"How many seconds the server has to answer; {DefaultTimeout}, where nothing is said."),
    ];

    /// <summary>
    /// The book's own, else the person's. Throws a <see cref="ProblemException"/> where there is none, or it is not as it should be.
    /// </summary>
    public static MailSettings Of(Library library) => Find(library) ?? throw new ProblemException(
        ProblemKind.BadConfiguration, $"Nothing says how mail is sent: there is no {Suggestion.Listed(Places(library), "and no")}.",
        "Write one: server = \"mail.example.org\", from = \"name@example.org\"; vlei schema mail says what else there is.");

    /// <summary>
    /// The same; nothing where there is none. Throws a <see cref="ProblemException"/> where it is not as it should be.
    /// </summary>
    public static MailSettings? Find(Library library)
    {
        var places = Places(library);
        if (places.Find(File.Exists) is not { } path)
        {
            return null;
        }

        var settings = Read(KeptFile.Read(path), path);
        return settings.Password?.StartsWith(CommandMark, StringComparison.Ordinal) == true && path != places[^1]
            ? throw new ProblemException(
                ProblemKind.BadConfiguration, $"{path}: a book may come from anybody, so that it starts no command.",
                $"Write password = \"command:…\" into {places[^1]}, or take env: or file: here.")
            : settings;
    }

    private static List<string> Places(Library library) => [.. library.Shelves.Select(shelf => Path.Combine(shelf.Folder, Name))];

    /// <summary>Reads one. Throws a <see cref="ProblemException"/> that names the place where it is not as it should be.</summary>
    public static MailSettings Read(string text, string path)
    {
        var toml = TomlText.Parse(text, path, ProblemKind.BadConfiguration);
        var values = toml.Head(Keys);
        var security = toml.Text(values, "security") is not { } said ? MailSecurity.StartTls
            : Array.IndexOf(Securities, said) is >= 0 and var place ? (MailSecurity)place
            : throw toml.Wrong(
                values["security"].Span, $"security is not \"{said}\".",
                Suggestion.DidYouMean(said, Securities) ?? $"Write {Suggestion.Listed(Securities, "or")}.");
        var (user, password) = (toml.Text(values, "user"), toml.Text(values, "password"));
        if (password is not null && !Marks.Any(
            mark => password.StartsWith(mark, StringComparison.Ordinal) && password.Length > mark.Length))
        {
            // What stands there may be the password itself, so that it is not repeated.
            throw toml.Wrong(
                values["password"].Span, "password does not say where the password is, and must not be one itself.",
                "Write \"env:NAME\", \"file:PATH\" or \"command:…\".");
        }

        return user is null != password is null
            ? throw toml.Wrong(
                values[user is null ? "password" : "user"].Span, "user and password go together.", "Write both, or neither.")
            : new MailSettings(
                path, toml.Text(values, "server") ?? throw toml.Missing("server"),
                Number("port", Ports[(int)security], ushort.MaxValue),
                AddressIn(toml, values, "from") ?? throw toml.Missing("from"))
            {
                Security = security,
                User = user,
                Password = password,
                Trust = toml.Text(values, "trust") is { } trust ? Path.Combine(Path.GetDirectoryName(path)!, trust) : null,
                Allow = toml.Texts(values, "allow"),
                MaxSize = Number("max-size", DefaultMegabytes, 1 << 10) * (1L << 20),
                MaxLetters = Number("max-letters", DefaultLetters, int.MaxValue),
                Notify = AddressIn(toml, values, "notify"),
                Timeout = Number("timeout", DefaultTimeout, 3600),
            };

        int Number(string key, int otherwise, int most) => !values.TryGetValue(key, out var pair) ? otherwise
            : int.TryParse(pair.Value!.ToString().Trim().Trim('"'), NumberStyles.None, CultureInfo.InvariantCulture, out var number)
                && number > 0 && number <= most ? number
            : throw toml.Wrong(
                pair.Value.Span, $"{key} is no whole number from 1 to {most.ToString(CultureInfo.InvariantCulture)}.",
                $"Write {key} = {otherwise}.");
    }

    private static Recipient? AddressIn(TomlText toml, Dictionary<string, KeyValueSyntax> values, string key)
    {
        if (toml.Text(values, key) is not { } text)
        {
            return null;
        }

        try
        {
            return Recipient.Parse(text) is { Kind: RecipientKind.Mail } address ? address
                : throw new ProblemException(ProblemKind.BadConfiguration, $"{text} is no address of mail.", "Write name@example.org.");
        }
        catch (ProblemException wrong)
        {
            throw toml.Wrong(values[key].Value!.Span, wrong.Message, wrong.Advice);
        }
    }
}
