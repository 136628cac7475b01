using System.Text;
using Vlei.Books.Kept;
using Vlei.Records.Maps;
using Vlei.Records.Maps.Finding;

namespace Vlei.Desk.Maps;

/// <summary>Writes a map that was found as a file that a person can read and change: each key with why it says what it says.</summary>
public static class MapText
{
    /// <summary>The text. What is not decided stands there as a comment, with what it can be.</summary>
    public static string Of(MapProposal proposal)
    {
        var (map, text) = (proposal.Map, new StringBuilder());
        text.Append("# How files like ").Append(proposal.File.Name.ReplaceLineEndings(" "))
            .Append(" are read. Made by vlei map; yours to change.\n\n");
        PutHead(map, Put);
        text.Append("\n[columns]\n");
        foreach (var column in proposal.Columns)
        {
            text.Append(column.Role is { } role ? $"{role.Name} = {TomlEdit.Quoted(column.Heading)}"
                : $"# {column.Month ?? "not taken"}: {TomlEdit.Quoted(column.Heading)}").Append("  # ")
                    .Append(column.Because.ReplaceLineEndings(" "))
                    .Append('\n');
        }

        AddTable("tags", map.Tags);
        AddTable("types", map.Types);
        AddTable("accounts", map.Accounts);
        AddTable("contacts", map.Contacts);
        AddTable("proof", map.Proof);
        return text.ToString();

        void Put(string key, string? value)
        {
            if (value is not null)
            {
                text.Append(key).Append(" = ").Append(TomlEdit.Quoted(value));
                var because = proposal.Findings.FirstOrDefault(finding => finding.Key == key)?.Because;
                text.Append(because is null ? "\n" : $"  # {because.ReplaceLineEndings(" ")}\n");
            }
            else if (proposal.Questions.FirstOrDefault(question => question.Key == key) is { } open)
            {
                text.Append("# ").Append(open.Question.ReplaceLineEndings(" ")).Append('\n').Append("# ").Append(key).Append(" = ")
                    .Append(open.Choices.Count == 0 ? "\"2026-03-31\"" : string.Join(" or ", open.Choices.Select(TomlEdit.Quoted)))
                    .Append('\n');
            }
        }

        void AddTable(string name, IReadOnlyDictionary<string, string> values)
        {
            if (values.Count > 0)
            {
                text.Append("\n[").Append(name).Append("]\n");
                foreach (var (key, value) in values)
                {
                    text.Append(TomlEdit.Quoted(key)).Append(" = ").Append(TomlEdit.Quoted(value)).Append('\n');
                }
            }
        }
    }

    private static void PutHead(SourceMap map, Action<string, string?> put)
    {
        put("shape", map.Shape.Name);
        put("sheet", map.Sheet);
        put("encoding", map.Encoding is "utf-8" ? null : map.Encoding);
        put("separator", map.Separator?.ToString());
        put("dates", map.Dates is { } dates ? MapFile.Keys.First(key => key.Name == "dates").Words[(int)dates] : null);
        put("decimal-mark", map.DecimalMark?.ToString());
        put("documents", map.Shape == Shape.Journal || map.Shape == Shape.Ledger ? SourceMap.Groupings[(int)map.Grouping] : null);
        put("prefix", map.Prefix.Length > 0 && map.Shape.HasDocuments ? map.Prefix : null);
        put("with", HasParty(map.Shape) ? map.IsPurchase ? "suppliers" : "customers" : null);
        put("signs", map.Signs == AmountSigns.Debit ? null : SourceMap.SignNames[(int)map.Signs]);
        put("day", map.Day?.ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture));
        put("figures", map.HasBalances ? "balances" : null);
        foreach (var (purpose, account) in map.Posting)
        {
            put(purpose, account);
        }
    }

    private static bool HasParty(Shape shape) => shape == Shape.Credits || shape == Shape.InvoiceLines || shape == Shape.Payments
        || shape == Shape.OpenItems || shape == Shape.Contacts || shape == Shape.Bills;
}
