using System.Text.RegularExpressions;

namespace Vlei.Core.Tests;

/// <summary>The core's folders use only those below them, and nothing that belongs to the outside.</summary>
public partial class StructureTests
{
    private static readonly string[] FromTheGroundUp =
        ["Problems", "Money", "Calendar", "Languages", "Ledger", "Basis", "Fields", "Reports", "Tables", "Statements", "OpenItems", "Review"];

    [Fact]
    public void Each_folder_uses_only_those_before_it()
    {
        var core = Path.Combine(Root(), "src", "Vlei.Core");
        var files = Directory.EnumerateFiles(core, "*.cs", SearchOption.AllDirectories).ToList();
        Assert.NotEmpty(files);
        foreach (var file in files)
        {
            var folder = Path.GetRelativePath(core, Path.GetDirectoryName(file)!);
            var own = Array.IndexOf(FromTheGroundUp, folder);
            Assert.True(folder == "." || own >= 0, $"{folder} has no place in the order");
            var text = File.ReadAllText(file);
            Assert.DoesNotMatch(Outside(), text);
            foreach (Match use in Uses().Matches(text))
            {
                Assert.True(
                    folder == "." || Array.IndexOf(FromTheGroundUp, use.Groups[1].Value) <= own,
                    $"{file}: {use.Value}");
            }
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

    [GeneratedRegex(@"\bVlei\.Core\.([A-Z]\w+)(?=[.;])")]
    private static partial Regex Uses();

    [GeneratedRegex(@"\bConsole\b|\bFile\.|DateTime\.Now|DateTime\.Today|UtcNow|Environment\.|Sqlite")]
    private static partial Regex Outside();
}
