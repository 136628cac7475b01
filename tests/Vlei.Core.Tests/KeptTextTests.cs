using CsCheck;
using Vlei.Books.Kept;
using Vlei.Core.Reports;

namespace Vlei.Core.Tests;

/// <summary>Files that people keep, changed by commands: the keys say what was asked, and everything else is as it was.</summary>
public class KeptTextTests
{
    private static readonly ReportOption[] Options =
        [ReportOptions.Period, ReportOptions.Basis, ReportOptions.Only, ReportOptions.Where, ReportOptions.Top, ReportOptions.Summary,
            ReportOptions.Sort, ReportOptions.Columns];

    private static readonly Gen<string> GenText = Choose.One(
        "last-month", "a \"b\" \\ c", "x # no comment", "'", "[1]", "ünï\tcode\u0007", "5", "= = =", "日本");

    private static readonly Gen<Dictionary<string, IReadOnlyList<string>>> GenOptions = Gen.Select(
        Gen.Int[0, Options.Length - 1], GenText.Array[1, 3]).Array[0, 5].Select(chosen =>
        chosen.DistinctBy(option => option.Item1).ToDictionary(
            option => Options[option.Item1].Name, option => (IReadOnlyList<string>)ValuesOf(Options[option.Item1], option.Item2)));

    // Comments, blank lines and other ways to write the same, between and behind the keys.
    private static readonly Gen<string> GenBetween = Choose.One("", "\n", "# a note\n", "\n# period = \"not this\"\n", "  # indented\n\n");

    [Fact]
    public void A_file_says_what_it_was_told_and_keeps_every_comment() =>
        Gen.Select(GenOptions, GenOptions, GenBetween.Array[12], Gen.Bool, Gen.Bool)
            .Sample((first, second, between, isUnfinished, isWindows) =>
        {
            var written = ReportText.WithOptions(
                ReportText.New("x", "postings"), "x.toml", new Dictionary<string, IReadOnlyList<string>>(), first);
            Assert.Equal(Sorted(first), Sorted(Read(written)));

            // A person edits it: notes between the lines, notes behind them, no end of line at the end.
            var lines = written.Split('\n', StringSplitOptions.RemoveEmptyEntries)
                .Select(
                    (
                        line, place) =>
                            $"{between[place % between.Length]}{line}{(line.Contains('=', StringComparison.Ordinal) ? " # mine" : "")}");
            var edited = string.Join('\n', lines) + (isUnfinished ? "" : "\n");
            edited = isWindows ? edited.Replace("\n", "\r\n", StringComparison.Ordinal) : edited;
            var changed = ReportText.WithOptions(edited, "x.toml", first, second);
            Assert.Equal(Sorted(second), Sorted(Read(changed)));

            // Every line of a note is there still, and every key that is not changed is on its line as it was.
            var was = edited.Split('\n').Select(line => line.Trim()).Where(line => line.StartsWith('#') || first.Any(option =>
                line.StartsWith($"{option.Key} =", StringComparison.Ordinal) && second.TryGetValue(option.Key, out var same)
                    && same.SequenceEqual(option.Value)));
            Assert.All(was, line => Assert.Contains(line, changed.Split('\n').Select(other => other.Trim())));
            Assert.Equal(changed, ReportText.WithOptions(changed, "x.toml", second, second));
        });

    [Fact]
    public void Reports_come_into_a_group_and_go_and_the_others_stay_as_they_were() =>
        Gen.Select(Gen.Select(Gen.Int[0, 7], GenText, GenOptions, Gen.Bool).Array[1, 8], GenBetween.Array[8], Gen.Int[0, 7])
            .Sample((added, between, gone) =>
        {
            var file = new KeptFile(KeptKind.Group, "g", "groups/g.toml", new Shelf("book", ""));
            var members = added.DistinctBy(member => member.Item1)
                .Select(member => (Name: $"r{member.Item1}", Note: member.Item4 ? member.Item2 : null, Options: member.Item3)).ToList();
            var text = GroupText.New("g");
            for (var place = 0; place < members.Count; place++)
            {
                text = GroupText.With(text + between[place], "postings", members[place].Name, members[place].Note, members[place].Options);
            }

            Same(members);
            if (members.Find(member => member.Name == $"r{gone}") is { Name: not null } leaving && members.Count > 1)
            {
                text = GroupText.Without(text, file, leaving.Name);
                members.Remove(leaving);
                Same(members);
            }

            // What stands before the first report is of the group, and is there still.
            Assert.StartsWith("# vlei run g\n", text);
            Assert.Equal("last-month", GroupFile.Read(file, text).Period);
            Assert.Contains(
                "has no report nobody", Assert.Throws<Problems.ProblemException>(() => GroupText.Without(text, file, "nobody")).Message);

            void Same(List<(string Name, string? Note, Dictionary<string, IReadOnlyList<string>> Options)> expected)
            {
                var read = GroupFile.Read(file, text);
                Assert.Equal(
                    expected.Select(member => (member.Name, member.Note ?? "", Sorted(member.Options))),
                    read.Members.Select(member => (member.Name, member.Note, Sorted(member.Options))));
                Assert.All(read.Members, member => Assert.Equal("postings", member.Report));
            }
        });

    private static IReadOnlyDictionary<string, IReadOnlyList<string>> Read(string text) =>
        ReportFile.Read(text, "x", "x.toml", Library.Standard, () => []).Own;

    private static string[] ValuesOf(ReportOption option, string[] texts) =>
        option.ValueName is null ? ["true"] : option.Repeatable ? texts : [texts[0]];

    private static string Sorted(IReadOnlyDictionary<string, IReadOnlyList<string>> options) =>
        string.Join(
            "; ", options.OrderBy(option => option.Key, StringComparer.Ordinal)
                .Select(option => $"{option.Key}: {string.Join(" & ", option.Value)}"));
}
