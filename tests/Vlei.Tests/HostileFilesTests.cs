using System.IO.Compression;
using System.Text;
using System.Text.Json.Nodes;
using Vlei.Tests.Documents;

namespace Vlei.Tests;

/// <summary>Files that are not as the program left them, and places without room: nothing is lost, and nothing hangs.</summary>
public sealed class HostileFilesTests : IDisposable
{
    private const string Produced = "reedwater/out/month-end/2026-05";

    private readonly Tool _tool = new Tool().WithDemo();

    /// <inheritdoc/>
    public void Dispose() => _tool.Dispose();

    [Fact]
    public void What_a_person_puts_among_produced_files_stays_whatever_it_is()
    {
        Run();
        Shell.Run(
            _tool.PathOf(Produced), "sh", "-c",
            "mkdir -p notes/empty x cash.d && ln -s /nowhere dangling && ln -s . loop && ln -s ../../../records away && echo mine > "
                + "x/y.txt "
                + "&& rm cash-flow.txt balance-sheet.txt && ln -s /etc/hostname cash-flow.txt && mkdir balance-sheet.txt "
                + "&& echo z > balance-sheet.txt/z && echo edited >> month-end.txt");
        var sheet = "";
        foreach (var times in new[] { 1, 2 })
        {
            var said = Run();
            Assert.Equal(times == 1 ? 3 : 0, said.Split("was edited; what it said is in").Length - 1);
            Assert.Equal(
                "/etc/hostname . /nowhere mine z", string.Join(' ', [
                    Link("cash-flow.edited.txt"), Link("loop"), Link("dangling"), Text("x/y.txt"), Text("balance-sheet.edited.txt/z")]));
            Assert.Equal("../../../records", Link("away"));
            Assert.True(Directory.Exists(Of("notes/empty")) && Directory.Exists(Of("cash.d")));
            Assert.EndsWith("edited", Text("month-end.edited.txt"));
            Assert.DoesNotContain("edited", Text("month-end.txt"));
            Assert.Contains("Total assets", sheet = Text("balance-sheet.txt"));
        }

        // What can neither be copied nor moved stands in nobody's way as long as there is nothing to write; else it is told, and
        // everything is as it was.
        Shell.Run(_tool.PathOf(Produced), "mkfifo", "pipe");
        _ = Run();
        Shell.Run(_tool.PathOf(Produced), "rm", "month-end.txt");
        var outcome = _tool.Run("run", "month-end", "--book", "reedwater");
        Assert.Equal(73, outcome.Status);
        Assert.Contains("pipe is a pipe or a device; take it out of the folder", outcome.Messages);
        Assert.Equal(sheet, Text("balance-sheet.txt"));
    }

    [Fact]
    public void What_a_run_kept_for_the_next_may_be_damaged_and_only_what_has_moved_is_not_known()
    {
        Run("--period", "2026-04");
        Run();
        var dice = new Random(3);
        var names = new[] { "2026-05/.run/run", "2026-05/.run/balance-sheet", "2026-05/.run/receivables-aging", "2026-04/.run/run" };
        foreach (var round in Enumerable.Range(0, 24))
        {
            var path = _tool.PathOf($"reedwater/out/month-end/{names[round % names.Length]}.json");
            var sound = File.ReadAllText(path);
            File.WriteAllText(path, round < names.Length ? sound[..(sound.Length / 2)] : Damaged(JsonNode.Parse(sound)!, dice));
            var said = Run();
            Assert.True(round >= names.Length || said.Contains("is damaged, so that what has moved since is not known"), said);
            Assert.Equal(10, Directory.GetFiles(_tool.PathOf(Produced)).Length);
            File.WriteAllText(path, sound);
        }
    }

    [Theory]
    [InlineData("demo d", "d")]
    [InlineData("demo d --record-set", "d")]
    [InlineData("init d --name D --currency ZAR", "d/book.toml")]
    [InlineData("run month-end --book disk/b", "b/out/month-end/2026-05")]
    [InlineData("show general-ledger --period all --book disk/b --to disk/d.pdf", "d.pdf")]
    public void Where_there_is_no_room_nothing_is_left_half_made(string command, string made)
    {
        Assert.SkipUnless(Environment.UserName == "root", "Only root can make a small disk.");
        var disk = Directory.CreateDirectory(_tool.PathOf("disk")).FullName;
        Shell.Run(disk, "mount", "-t", "tmpfs", "-o", "size=64m", "none", disk);
        try
        {
            Shell.Run(_tool.Folder, "cp", "-r", "reedwater", "disk/b");
            Shell.Run(disk, "sh", "-c", "df --output=avail -k . | tail -1 | xargs -I {} expr {} - 24 | xargs -I {} fallocate -l {}k rest");
            var words = command.Replace(" d ", " disk/d ", StringComparison.Ordinal).Split(' ');
            words = [.. words.Select(word => word == "d" ? "disk/d" : word)];
            var outcome = _tool.Run(words);
            Assert.Equal(73, outcome.Status);
            Assert.True(outcome.Messages.Contains("room") || outcome.Messages.Contains("No space left"), outcome.Messages);
            Assert.False(Path.Exists(Path.Combine(disk, made)), made);
            Assert.DoesNotContain(Directory.EnumerateFileSystemEntries(disk), path => path.EndsWith(".tmp"));

            // With room, the same is done.
            File.Delete(Path.Combine(disk, "rest"));
            _tool.Run(words).Done();
            Assert.True(Path.Exists(Path.Combine(disk, made)), made);
        }
        finally
        {
            Shell.Run(_tool.Folder, "umount", "-l", disk);
        }
    }

    [Theory]
    [InlineData("[Content_Types].xml", null, null, "it has no [Content_Types].xml")]
    [InlineData(null, "../../evil.txt", "x", "its part ../../evil.txt has no path of a part")]
    [InlineData(null, "xl/workbook.xml", "x", "or there twice")]
    [InlineData("xl/worksheets/sheet1.xml", "xl/worksheets/sheet1.xml", "deep", "more than 256 elements are within each other")]
    public void A_template_that_is_no_workbook_is_refused_at_once(string? without, string? with, string? text, string words)
    {
        _tool.Run("show", "balance-sheet", "--book", "reedwater", "--to", "t.xlsx").Done();
        using (var archive = ZipFile.Open(_tool.PathOf("t.xlsx"), ZipArchiveMode.Update))
        {
            if (without is not null)
            {
                archive.GetEntry(without)!.Delete();
            }

            if (with is not null)
            {
                using var stream = archive.CreateEntry(with).Open();
                stream.Write(Encoding.UTF8.GetBytes(text == "deep"
                    ? string.Concat(Enumerable.Repeat("<a>", 200_000)) + string.Concat(Enumerable.Repeat("</a>", 200_000)) : text!));
            }
        }

        var outcome = _tool.Run("show", "balance-sheet", "--book", "reedwater", "--template", "t.xlsx", "--to", "u.xlsx");
        Assert.Equal(65, outcome.Status);
        Assert.Contains(words, outcome.Messages);
        Assert.False(File.Exists(_tool.PathOf("u.xlsx")));
    }

    [Fact]
    public void A_letter_with_an_accent_of_its_own_is_whole_on_a_page()
    {
        _tool.Run(
            "show", "balance-sheet", "--book", "reedwater", "--title", "Cafe\u0301 A\u030Angstro\u0308m E\u0302\u0301", "--to", "t.pdf")
                .Done();
        var text = Shell.Run(_tool.Folder, "pdftotext", "-layout", "t.pdf", "-");
        Assert.Contains("Caf\u00E9 \u00C5ngstr\u00F6m \u1EBE", text);
        Assert.DoesNotContain("has no letters for", text);
    }

    // One value somewhere in it is another, or gone.
    private static string Damaged(JsonNode json, Random dice)
    {
        JsonNode at = json;
        for (var level = 0; level < 12; level++)
        {
            JsonNode?[] within = at is JsonObject children ? [.. children.Select(child => child.Value)] : [.. (JsonArray)at];
            if (within[dice.Next(within.Length)] is JsonObject or JsonArray && dice.Next(4) > 0
                && within.OfType<JsonNode>().Where(node => node is JsonObject { Count: > 0 } or JsonArray { Count: > 0 }).ToList()
                    is { Count: > 0 } deeper)
            {
                at = deeper[dice.Next(deeper.Count)];
            }
        }

        JsonNode? other = new JsonNode?[] { null, "x", -1, new JsonArray(), new JsonObject() }[dice.Next(5)];
        if (at is JsonArray array)
        {
            array[dice.Next(array.Count)] = other;
        }
        else if (at is JsonObject known && known.ElementAt(dice.Next(known.Count)).Key is var key
            && !(dice.Next(3) == 0 && known.Remove(key)))
        {
            known[key] = other;
        }

        return json.ToJsonString();
    }

    private string Run(params string[] more) => _tool.Run(["run", "month-end", "--book", "reedwater", .. more]).Done().Messages;

    private string Of(string name) => Path.Combine(_tool.PathOf(Produced), name);

    private string Text(string name) => File.ReadAllText(Of(name)).TrimEnd();

    private string? Link(string name) => new FileInfo(Of(name)).LinkTarget;
}
