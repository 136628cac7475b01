using System.IO.Compression;
using System.Text;
using Vlei.Core.Problems;

namespace Vlei.Tests.Maps;

/// <summary>
/// Whatever becomes of a file by chance, mapping and importing it end with an answer: it is taken in, or it is refused with a place; no
/// fault of the program, and never a book that does not balance.
/// </summary>
public sealed class HostileSourceTests : IDisposable
{
    private static readonly string[] Insertions =
    [
        "\"", ";", ",", "\t", "\r\n", "\0", "\u0001", "(", "-", "e9", "999999999999999999999999", "Total", "ÿ", "=1/0", "2026-02-30",
        "\u00a0", "\u2212", "[", "Opening balance", "0",
    ];

    private readonly Tool _tool = new Tool().WithDemo();

    /// <inheritdoc/>
    public void Dispose() => _tool.Dispose();

    [Theory]
    [InlineData("chart.csv")]
    [InlineData("trial-balance-2025-02-28.csv")]
    [InlineData("joernaal-2026-03.csv")]
    [InlineData("invoices-2026.csv")]
    public void A_text_that_is_damaged_is_answered(string name)
    {
        var bytes = File.ReadAllBytes(_tool.PathOf($"reedwater/foreign/{name}"));
        var (taken, refused) = (0, 0);
        for (var seed = 1; seed <= 60; seed++)
        {
            using var trial = new MapTrial("ZAR", yearStart: 3);
            File.WriteAllBytes(trial.PathOf(name), Damaged(bytes, new Random(seed)));
            if (Answer(trial, name, $"{name}, seed {seed}"))
            {
                taken++;
            }
            else
            {
                refused++;
            }
        }

        Assert.True(taken > 0 && refused > 0, $"{taken} taken, {refused} refused");
    }

    [Fact]
    public void A_workbook_that_is_damaged_is_answered()
    {
        var bytes = File.ReadAllBytes(_tool.PathOf("reedwater/foreign/ledger-2025-26.xlsx"));
        for (var seed = 1; seed <= 25; seed++)
        {
            var random = new Random(seed);
            using var trial = new MapTrial("ZAR", yearStart: 3);
            File.WriteAllBytes(trial.PathOf("ledger.xlsx"), seed % 3 == 0 ? Flipped(bytes, random) : WithSheet(bytes, random));
            _ = Answer(trial, "ledger.xlsx", $"seed {seed}");
        }
    }

    [Fact]
    public void A_map_that_is_damaged_is_answered()
    {
        using var trial = new MapTrial("ZAR", yearStart: 3);
        File.Copy(_tool.PathOf("reedwater/foreign/invoices-2026.csv"), trial.PathOf("invoices.csv"));
        trial.Take("invoices.csv");
        var path = trial.PathOf("book/maps/invoices.toml");
        var text = File.ReadAllBytes(path);
        for (var seed = 1; seed <= 150; seed++)
        {
            File.WriteAllBytes(path, Damaged(text, new Random(seed)));
            _ = Answer(trial, "invoices.csv", $"seed {seed}");
        }
    }

    // Taken in, with every account in balance, or refused with a place.
    private static bool Answer(MapTrial trial, string name, string what)
    {
        try
        {
            var outcome = trial.ImportIfClear(name);
            Assert.True(outcome is not null || trial.Errors.Count > 0 || trial.HasQuestions, what);
            Assert.True(trial.Balances().Values.Sum() == 0, $"{what}: the book does not balance");
            return outcome is not null;
        }
        catch (ProblemException refused)
        {
            Assert.True(refused.Message.Length > 0 && refused.Advice is { Length: > 0 }, what);
            return false;
        }
        catch (Exception fault) when (fault is not Xunit.Sdk.XunitException)
        {
            throw new InvalidOperationException($"{what}: {fault.Message}", fault);
        }
    }

    private static byte[] Damaged(byte[] bytes, Random random)
    {
        var text = Encoding.Latin1.GetString(bytes);
        for (var change = 0; change <= random.Next(3); change++)
        {
            var at = random.Next(text.Length);
            var length = Math.Min(text.Length - at, random.Next(4) == 0 ? random.Next(200) : 1);
            text = random.Next(4) switch
            {
                0 => text.Remove(at, length),
                1 => text.Insert(at, text.Substring(at, length)),
                2 => text.Insert(at, Insertions[random.Next(Insertions.Length)]),
                _ => text.Remove(at, 1).Insert(at, ((char)random.Next(256)).ToString()),
            };
            text = text.Length == 0 ? "\n" : text;
        }

        return Encoding.Latin1.GetBytes(text);
    }

    private static byte[] Flipped(byte[] bytes, Random random)
    {
        byte[] flipped = [.. bytes];
        flipped[random.Next(flipped.Length)] ^= (byte)(1 << random.Next(8));
        return flipped;
    }

    private static byte[] WithSheet(byte[] bytes, Random random)
    {
        using var stream = new MemoryStream();
        stream.Write(bytes);
        using (var archive = new ZipArchive(stream, ZipArchiveMode.Update, leaveOpen: true))
        {
            var entry = archive.GetEntry("xl/worksheets/sheet1.xml")!;
            using var content = new MemoryStream();
            using (var from = entry.Open())
            {
                from.CopyTo(content);
            }

            entry.Delete();
            using var to = archive.CreateEntry("xl/worksheets/sheet1.xml").Open();
            to.Write(Damaged(content.ToArray(), random));
        }

        return stream.ToArray();
    }
}
