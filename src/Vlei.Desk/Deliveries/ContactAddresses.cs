using Vlei.Books.Kept;
using Vlei.Core;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Desk.Deliveries;

/// <summary>
/// Where mail to contacts goes: to what they have as their e-mail, in the language of their tag <c>language</c>.
/// </summary>
internal static class ContactAddresses
{
    private static readonly string[] Columns = ["name", "email", "tag.language"];

    /// <summary>Of every contact the name, the address and the code of the language, by its id; nothing where it has none.</summary>
    public static IReadOnlyDictionary<string, (string Name, Recipient? Address, string? Language)> Of(ReportContext context)
    {
        var definition = Library.Standard("contacts")!;
        var report = OpenReport.Build(
            definition,
            RequestText.Read(
                RequestText.Merged(definition, new Dictionary<string, IReadOnlyList<string>> { ["columns"] = [string.Join(',', Columns)] }),
                context.Today, context.Calendar, context.Currency),
            context);
        var places = Columns.Select(name => report.Columns.Select(column => column.Key).ToList().IndexOf(name)).ToList();
        return report.Rows.Where(row => row.Kind == RowKind.Record).ToDictionary(row => row.Key, row => (
            Words(row, places[0]) ?? row.Key, AddressIn(Words(row, places[1])), Words(row, places[2])));
    }

    private static string? Words(ReportRow row, int place) =>
        place < 0 ? null : row.Cells[place].Words is { Length: > 0 } words ? words : null;

    // What is no address is none; who has it is listed with those that have none.
    private static Recipient? AddressIn(string? text)
    {
        try
        {
            return text is null ? null : Recipient.Parse(text) is { Kind: RecipientKind.Mail } address ? address : null;
        }
        catch (ProblemException)
        {
            return null;
        }
    }
}
