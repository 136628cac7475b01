using System.IO.Compression;
using System.Text;
using System.Text.RegularExpressions;

namespace Vlei.Tests.Maps;

/// <summary>
/// The files of other programs that the demo has: each is mapped without a hand, and proves. One figure, one day, one account that is not
/// as it was, anywhere in them, is named.
/// </summary>
public sealed partial class ForeignTests : IDisposable
{
    private static readonly string[] Files =
    [
        "chart.csv", "trial-balance-2025-02-28.csv", "ledger-2025-26.xlsx", "joernaal-2026-03.csv", "invoices-2026.csv",
        "payments-2026.csv",
    ];

    private readonly Tool _tool = new Tool().WithDemo();
    private readonly MapTrial _trial = new("ZAR", yearStart: 3);

    /// <inheritdoc/>
    public void Dispose()
    {
        _tool.Dispose();
        _trial.Dispose();
    }

    [Fact]
    public void Each_file_comes_in_without_a_hand_and_one_cell_that_is_not_as_it_was_is_named()
    {
        Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);
        var random = new Random(18);
        foreach (var name in Files)
        {
            var path = _tool.PathOf($"reedwater/foreign/{name}");
            File.Copy(path, _trial.PathOf(name));
            Assert.NotNull(_trial.Take(name).Revision);
            Assert.Null(_trial.Take(name).Revision);
            for (var round = 0; round < 12; round++)
            {
                var (bytes, change) = Corrupted(File.ReadAllBytes(path), name, random);
                File.WriteAllBytes(_trial.PathOf(name), bytes);
                _ = _trial.Try(name);
                Assert.True(
                    _trial.Errors.Count > 0 || _trial.New.Count > 0, $"{name}: {change} was taken in without a word");
                Assert.All(_trial.Errors.First, error => Assert.Contains(Path.GetFileNameWithoutExtension(name), error.File));
            }

            File.Copy(path, _trial.PathOf(name), overwrite: true);
        }

        Assert.Equal(0, _trial.Balances().Values.Sum());
    }

    // A digit of a figure, a day that is none, an account or a contact with another letter.
    private static (byte[] Bytes, string Change) Corrupted(byte[] bytes, string name, Random random)
    {
        if (name.EndsWith(".xlsx", StringComparison.Ordinal))
        {
            return Zipped(bytes, sheet => OneOf(sheet, SheetFigure(), random, name));
        }

        var text = Encoding.GetEncoding(1252).GetString(bytes);
        var head = text.IndexOf(name switch
        {
            "joernaal-2026-03.csv" => "Krediet",
            "trial-balance-2025-02-28.csv" => "Credit",
            "payments-2026.csv" => "Amount",
            "invoices-2026.csv" => "Total",
            _ => "type",
        }, StringComparison.Ordinal);
        var (changed, change) = OneOf(text[head..], name == "chart.csv" ? Word() : Figure(), random, name);
        return (Encoding.GetEncoding(1252).GetBytes(text[..head] + changed), change);
    }

    private static (string Text, string Change) OneOf(string text, Regex what, Random random, string name)
    {
        var found = what.Matches(text);
        var groups = found[random.Next(found.Count)].Groups;
        var at = groups[1].Success ? groups[1] : groups[2];
        var digits = at.Value.Select((letter, place) => (letter, place)).Where(digit => char.IsAsciiLetterOrDigit(digit.letter)).ToList();
        var (was, place) = digits[random.Next(digits.Count)];
        if (name == "chart.csv")
        {
            return (string.Concat(text.AsSpan(0, at.Index), "Xyzzy", text.AsSpan(at.Index + at.Length)), at.Value);
        }

        var becomes = at.Value.Contains('/', StringComparison.Ordinal) || !char.IsAsciiDigit(was) ? 'x'
            : (char)('0' + ((was - '0' + 1 + random.Next(9)) % 10));
        var changed = string.Concat(at.Value.AsSpan(0, place), becomes.ToString(), at.Value.AsSpan(place + 1));
        return (string.Concat(text.AsSpan(0, at.Index), changed, text.AsSpan(at.Index + at.Length)), $"{at.Value} that became {changed}");
    }

    private static (byte[] Bytes, string Change) Zipped(byte[] bytes, Func<string, (string Text, string Change)> change)
    {
        using var stream = new MemoryStream();
        stream.Write(bytes);
        var told = "";
        using (var archive = new ZipArchive(stream, ZipArchiveMode.Update, leaveOpen: true))
        {
            var entry = archive.GetEntry("xl/worksheets/sheet1.xml")!;
            string sheet;
            using (var reader = new StreamReader(entry.Open()))
            {
                sheet = reader.ReadToEnd();
            }

            (sheet, told) = change(sheet);
            entry.Delete();
            using var writer = new StreamWriter(archive.CreateEntry("xl/worksheets/sheet1.xml").Open());
            writer.Write(sheet);
        }

        return (stream.ToArray(), told);
    }

    [GeneratedRegex("[,;]\"?([0-9][0-9 ,.]*[.,][0-9]{2})\"?|([0-9]{2}/[0-9]{2}/[0-9]{4})[,;]")]
    private static partial Regex Figure();

    [GeneratedRegex(",([A-Z][a-z ]+)\n")]
    private static partial Regex Word();

    [GeneratedRegex("<c r=\"[DE][0-9]+\" s=\"2\"><v>([0-9.]+)</v>|<t>([0-9,.]+) [DC]R</t>")]
    private static partial Regex SheetFigure();
}
