using Vlei.Books.Kept;

namespace Vlei.Books.Tests;

/// <summary>A run sees what is kept as it was when it first asked; whoever asks later sees what is there then.</summary>
public sealed class StillLibraryTests : IDisposable
{
    private readonly TestBooks _books = new();

    public void Dispose() => _books.Dispose();

    [Fact]
    public void What_changes_while_a_run_lasts_is_of_the_next()
    {
        Keep("own", "Before");
        var library = Library.Of(_books.BookOn(new MemoryStore()));
        var still = library.Still();
        Assert.Equal("Before", still.FindReport("own")!.Title);
        Keep("own", "After");
        Keep("new", "New");

        Assert.Equal("Before", still.FindReport("own")!.Title);
        Assert.Null(still.FindReport("new"));
        Assert.DoesNotContain("new", still.All(KeptKind.Report).Select(file => file.Name));
        foreach (var later in new[] { library, library.Still(), still.Still() })
        {
            Assert.Equal("After", later.FindReport("own")!.Title);
            Assert.Equal("New", later.FindReport("new")!.Title);
        }
    }

    private void Keep(string name, string title)
    {
        var folder = Directory.CreateDirectory(Path.Combine(_books.Folder, KeptKind.Report.Folder)).FullName;
        File.WriteAllText(Path.Combine(folder, $"{name}.toml"), $"from = \"profit-loss\"\ntitle = \"{title}\"\n");
    }
}
