using System.IO.Compression;
using System.Security.Cryptography;
using System.Text;
using Vlei.Books.Store;

namespace Vlei.Books.Tests;

/// <summary>
/// Books that earlier versions of this program made, each of its own step: they open, say what they said then, and know their
/// records again.
/// </summary>
public sealed class EarlierBooksTests : IDisposable
{
    private static readonly string Earlier = Path.Combine(AppContext.BaseDirectory, "earlier");

    private readonly string _folder = Directory.CreateTempSubdirectory("vlei-earlier-").FullName;

    public static TheoryData<string> Books => [.. Directory.EnumerateFiles(Earlier, "*.gz").Select(path => Path.GetFileName(path)!)];

    [Theory]
    [MemberData(nameof(Books))]
    public void A_book_of_an_earlier_step_says_what_it_said_then(string name)
    {
        File.WriteAllText(
            Path.Combine(_folder, "book.toml"), "name = \"Old Book\"\ncurrency = \"USD\"\nfiscal-year-start = 1\nclock = 2025-12-31\n");
        using (var packed = new GZipStream(File.OpenRead(Path.Combine(Earlier, name)), CompressionMode.Decompress))
        using (var unpacked = File.Create(Path.Combine(_folder, "records.db")))
        {
            packed.CopyTo(unpacked);
        }

        var book = Book.Open(_folder);
        Assert.Equal(Said("balance-sheet.csv"), TestBooks.Report(book, "balance-sheet", ("period", "2025")));
        Assert.Equal(Said("profit-loss-cash.csv"), TestBooks.Report(book, "profit-loss", ("period", "2025"), ("basis", "cash")));
        Assert.Equal(
            ["i2 Changed", "j2 Removed", "i3 Added"],
            Revisions.ChangesSince(book, 1).Select(change => $"{change.Id} {change.Kind}"));
        Assert.Equal([], BookCheck.Run(book, (_, _) => { }).SelectMany(result => result.Faults));
        Assert.StartsWith(": accounts 0 0 11 0, ", TestBooks.Take(book, Path.Combine(Earlier, "set"), complete: true));
    }

    [Fact]
    public void Steps_are_never_changed()
    {
        var sums = Enumerable.Range(1, 5).Select(step =>
            Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(StepText.Of("sqlite", step))))[..8]);
        Assert.Equal(["86aac77e", "4a066f06", "a674b5eb", "3b9b5d31", "bb9bbef3"], sums);
    }

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    // The rows with their figures, as they were written then.
    private static string Said(string file) => File.ReadAllText(Path.Combine(Earlier, file));
}
