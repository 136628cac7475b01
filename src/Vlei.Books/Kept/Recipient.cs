using System.Net.Mail;
using Vlei.Core.Problems;

namespace Vlei.Books.Kept;

/// <summary>What a recipient is.</summary>
public enum RecipientKind
{
    /// <summary>An address of electronic mail.</summary>
    Mail,

    /// <summary>A folder, into which files are put.</summary>
    Folder,

    /// <summary>A printer.</summary>
    Printer,
}

/// <summary>Where something goes: to an address, into a folder, or to a printer.</summary>
/// <param name="Kind">What it is.</param>
/// <param name="Place">The address alone, the folder, or the name of the printer; empty for the printer that is usual.</param>
/// <param name="Text">How it was written, with the name that may stand before an address.</param>
public sealed record Recipient(RecipientKind Kind, string Place, string Text)
{
    private const string FolderMark = "folder:";
    private const string PrinterMark = "printer:";
    private const string Printer = "printer";

    // RFC 5321, 4.5.3.1.3: a path has at most 256 octets with its brackets.
    private const int LongestAddress = 254;

    /// <summary>
    /// Reads one: <c>name@example.org</c>, <c>Mara Meyer &lt;mara@example.org&gt;</c>, <c>folder:PATH</c>, <c>printer</c> or
    /// <c>printer:NAME</c>. Throws a <see cref="ProblemException"/> where it is none of these.
    /// </summary>
    public static Recipient Parse(string text)
    {
        if (text.Any(char.IsControl))
        {
            throw Wrong(text);
        }

        var plain = text.Trim();
        if (plain.StartsWith(FolderMark, StringComparison.Ordinal) && plain.Length > FolderMark.Length)
        {
            return new Recipient(RecipientKind.Folder, plain[FolderMark.Length..], plain);
        }

        if (plain == Printer || (plain.StartsWith(PrinterMark, StringComparison.Ordinal) && plain.Length > PrinterMark.Length))
        {
            return new Recipient(RecipientKind.Printer, plain == Printer ? "" : plain[PrinterMark.Length..], plain);
        }

        // A name needs its address in brackets: else a blank too many would make one.
        return MailAddress.TryCreate(plain, out var address) && IsAddress(address.Address)
            && (address.Address == plain || plain.EndsWith($"<{address.Address}>", StringComparison.Ordinal))
            ? new Recipient(RecipientKind.Mail, address.Address, plain) : throw Wrong(text);
    }

    /// <summary>Whether two go to the same place, whatever name stands before it.</summary>
    public bool IsSameAs(Recipient other) => Kind == other.Kind && Place.Equals(
        other.Place, Kind == RecipientKind.Mail ? StringComparison.OrdinalIgnoreCase : StringComparison.Ordinal);

    private static bool IsAddress(string address)
    {
        var at = address.LastIndexOf('@');
        return at > 0 && address.Length <= LongestAddress
            && !address.Any(letter => char.IsWhiteSpace(letter) || letter is '<' or '>' or ',')
            && address[(at + 1)..] is { Length: > 0 } host && !host.StartsWith('.') && !host.EndsWith('.')
            && !host.Contains("..", StringComparison.Ordinal);
    }

    private static ProblemException Wrong(string text)
    {
        var shown = string.Concat(text.Select(letter => char.IsControl(letter) ? '?' : letter));
        return new ProblemException(
            ProblemKind.Usage, $"\"{shown}\" is no address.",
            "Write name@example.org, Mara Meyer <mara@example.org>, folder:PATH, printer or printer:NAME.");
    }
}
