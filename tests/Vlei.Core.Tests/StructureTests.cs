using System.Text.RegularExpressions;

namespace Vlei.Core.Tests;

/// <summary>
/// Projects and folders use only what lies below them, also where a name is written in full; the core uses nothing that belongs
/// to the outside, and only the command line knows of a command line.
/// </summary>
public partial class StructureTests
{
    private static readonly string[] FromTheGroundUp =
        ["Problems", "Money", "Calendar", "Languages", "Ledger", "Basis", "Fields", "Reports", "Tables", "Statements", "OpenItems",
            "Review", "Pages"];

    // What each project may use besides itself.
    private static readonly Dictionary<string, string[]> Projects = new()
    {
        ["Vlei.Core"] = [],
        ["Vlei.Records"] = ["Vlei.Core"],
        ["Vlei.Books"] = ["Vlei.Core"],
        ["Vlei.Output"] = ["Vlei.Core"],
        ["Vlei.Desk"] = ["Vlei.Core", "Vlei.Books", "Vlei.Output", "Vlei.Records"],
        ["Vlei.Sample"] = ["Vlei.Core", "Vlei.Records"],
        ["Vlei"] = ["Vlei.Core", "Vlei.Books", "Vlei.Output", "Vlei.Records", "Vlei.Desk", "Vlei.Sample"],
        ["Vlei.Browse"] = ["Vlei.Core", "Vlei.Books", "Vlei.Output", "Vlei.Desk"],
        ["Vlei.Charts"] = [],
        ["Vlei.Postbox"] = [],
    };

    [Fact]
    public void Each_project_uses_only_what_it_may()
    {
        var folders = Directory.GetDirectories(Path.Combine(Root(), "src")).Select(folder => Path.GetFileName(folder)!).ToList();
        Assert.Equal(Projects.Keys.Order(StringComparer.Ordinal), folders.Order(StringComparer.Ordinal));
        foreach (var project in folders)
        {
            foreach (var (file, text) in FilesOf(project))
            {
                foreach (var used in Names().Matches(text).Select(name => Projects.Keys.Where(known =>
                    name.Value == known || name.Value.StartsWith($"{known}.", StringComparison.Ordinal)).MaxBy(known => known.Length))
                        .OfType<string>())
                {
                    Assert.True(used == project || used == "Vlei" || Projects[project].Contains(used), $"{file} uses {used}");
                }
            }
        }
    }

    [Fact]
    public void Each_folder_of_the_core_uses_only_those_before_it()
    {
        foreach (var (file, text) in FilesOf("Vlei.Core"))
        {
            var folder = Path.GetRelativePath(Path.Combine(Root(), "src", "Vlei.Core"), Path.GetDirectoryName(file)!);
            var own = Array.IndexOf(FromTheGroundUp, folder);
            Assert.True(folder == "." || own >= 0, $"{folder} has no place in the order");
            Assert.DoesNotMatch(Outside(), text);
            foreach (var used in Names().Matches(text).Select(name => name.Value.Split('.'))
                .Where(parts => parts.Length > 2 && parts[1] == "Core").Select(parts => parts[2])
                .Concat(folder == "." ? [] : InFull().Matches(text).Select(name => name.Groups[1].Value)))
            {
                Assert.True(folder == "." || Array.IndexOf(FromTheGroundUp, used) <= own, $"{file} uses {used}");
            }
        }
    }

    [Fact]
    public void Folders_of_the_other_projects_go_round_in_no_circle()
    {
        foreach (var project in Projects.Keys.Where(project => project != "Vlei.Core"))
        {
            var uses = FilesOf(project).GroupBy(file => FolderOf(project, file.Path)).ToDictionary(
                folder => folder.Key,
                folder => folder.SelectMany(file => Names().Matches(file.Text)).Select(name => name.Value)
                    .Where(name => name.StartsWith($"{project}.", StringComparison.Ordinal))
                    .Select(name => name[(project.Length + 1)..].Replace('.', '/')).ToHashSet());
            foreach (var folder in uses.Keys.Where(folder => folder.Length > 0))
            {
                Assert.False(
                    Reached(uses, folder).Contains(folder),
                    $"{project}/{folder} comes back to itself: {string.Join(", ", Reached(uses, folder))}");
            }
        }
    }

    [Fact]
    public void The_desk_and_what_is_below_it_know_of_no_terminal_and_writers_open_nothing()
    {
        foreach (var (file, text) in Projects.Keys
            .Where(project => project is not ("Vlei" or "Vlei.Browse" or "Vlei.Charts" or "Vlei.Postbox"))
            .SelectMany(FilesOf))
        {
            Assert.DoesNotMatch(CommandLine(), text);
            Assert.True(!file.Contains("Vlei.Output", StringComparison.Ordinal) || !Opening().IsMatch(text), file);
        }
    }

    [Fact]
    public void Only_stores_speak_to_a_database()
    {
        foreach (var (file, text) in Projects.Keys.SelectMany(FilesOf))
        {
            Assert.True(
                file.Contains("/Vlei.Books/Store/Sqlite/", StringComparison.Ordinal)
                    || file.Contains("/Vlei.Books/Store/Postgres/", StringComparison.Ordinal) || !Database().IsMatch(text),
                file);
        }
    }

    internal static string Root()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (!File.Exists(Path.Combine(folder!.FullName, "Vlei.slnx")))
        {
            folder = folder.Parent;
        }

        return folder.FullName;
    }

    // The folders that a folder uses, through others too; the project's own files at its root belong to no folder.
    private static HashSet<string> Reached(Dictionary<string, HashSet<string>> uses, string folder)
    {
        var (reached, next) = (new HashSet<string>(), new Queue<string>([folder]));
        while (next.TryDequeue(out var at))
        {
            foreach (var used in uses.Keys.Where(
                known => known.Length > 0 && known != at && uses[at]
                    .Any(name => name == known || name.StartsWith($"{known}/", StringComparison.Ordinal))))
            {
                if (reached.Add(used))
                {
                    next.Enqueue(used);
                }
            }
        }

        return reached;
    }

    [Fact]
    public void Lines_end_before_column_140()
    {
        const int Most = 140;
        var tooLong = new[] { "src", "tests", "bench" }.SelectMany(folder =>
                Directory.EnumerateFiles(Path.Combine(Root(), folder), "*.cs", SearchOption.AllDirectories))
            .Where(file => !file.Contains("/obj/", StringComparison.Ordinal))
            .SelectMany(file => File.ReadLines(file).Select((line, place) => (line, $"{file}:{place + 1}")))
            .Where(line => line.line.Length > Most).Select(line => line.Item2);
        Assert.Empty(tooLong);
    }

    private static string FolderOf(string project, string file) =>
        Path.GetRelativePath(Path.Combine(Root(), "src", project), Path.GetDirectoryName(file)!) is var folder && folder == "." ? ""
            : folder;

    private static List<(string Path, string Text)> FilesOf(string project) =>
    [
        .. Directory.EnumerateFiles(Path.Combine(Root(), "src", project), "*.cs", SearchOption.AllDirectories)
            .Select(path => (path, Comments().Replace(File.ReadAllText(path), ""))),
    ];

    [GeneratedRegex(@"\bVlei(?:\.[A-Z]\w+)+")]
    private static partial Regex Names();

    // Within the core a folder's name may stand before a type without Vlei.Core.
    [GeneratedRegex(@"(?<![.\w])(Reports|Tables|Statements|OpenItems|Review)\.[A-Z]\w+")]
    private static partial Regex InFull();

    [GeneratedRegex(@"^\s*//.*$", RegexOptions.Multiline)]
    private static partial Regex Comments();

    [GeneratedRegex(@"\bConsole\b|\bFile\.|DateTime\.Now|DateTime\.Today|UtcNow|Environment\.|Sqlite")]
    private static partial Regex Outside();

    [GeneratedRegex(@"\bSELECT\b|INSERT INTO|DELETE FROM|CREATE TABLE|\bUPDATE \w+ SET|PRAGMA|SQLitePCL|Microsoft\.Data|Npgsql")]
    private static partial Regex Database();

    [GeneratedRegex(@"\bConsole\b|ParseResult|System\.CommandLine|Spectre")]
    private static partial Regex CommandLine();

    [GeneratedRegex(@"\bFile\.|\bProcess\b|FileStream|ZipFile")]
    private static partial Regex Opening();
}
