using CsCheck;
using Vlei.Core.Ledger;

namespace Vlei.Books.Tests;

/// <summary>What contacts are called is what the imports so far said last, in the order of names, and as each import left it.</summary>
public sealed class RecordNamesTests
{
    private static readonly Gen<string> Name = Gen.OneOf(
        Gen.Int[1, 12].Select(number => $"Cove {number}"), Gen.String[Gen.Char["aÄ "], 1, 4].Select(name => $"b{name}d"));

    private static readonly Gen<(int Id, string Name)[]> Contacts = Gen.Select(Gen.Int[1, 40], Name)
        .Array[0, 12].Select(contacts => contacts.DistinctBy(contact => contact.Item1).ToArray());

    [Fact]
    public void Names_are_those_of_the_last_import_and_of_each_before_it() =>
        Gen.Select(Contacts, Gen.Bool).Array[1, 4].Sample(Check, iter: 12);

    private static void Check(((int Id, string Name)[] Contacts, bool IsComplete)[] imports)
    {
        using var books = new TestBooks();
        var (book, revision) = (books.BookOn(new MemoryStore()), 0L);
        var stood = new List<SortedDictionary<string, string>> { new(StringComparer.Ordinal) };
        foreach (var ((contacts, isComplete), number) in imports.Select((import, number) => (import, number)))
        {
            var set = Directory.CreateDirectory(Path.Combine(books.Folder, $"set{number}")).FullName;
            File.WriteAllLines(
                Path.Combine(set, RecordTables.Contacts.FileName),
                ["id,name,kind", .. contacts.Select(contact => $"C{contact.Id},{contact.Name},customer")]);
            if (TestBooks.Import(book, set, (_, _) => { }, isComplete).Revision is { } kept)
            {
                revision = kept;
                var now = new SortedDictionary<string, string>(StringComparer.Ordinal);
                foreach (var (id, name) in isComplete ? [] : stood[^1])
                {
                    now[id] = name;
                }

                foreach (var (id, name) in contacts)
                {
                    now[$"C{id}"] = name;
                }

                stood.Add(now);
            }
        }

        Assert.Equal(stood.Count - 1, revision);
        for (var earlier = 0; earlier <= revision; earlier++)
        {
            using var ledger = LedgerReader.Open(book, earlier);
            Same(stood[earlier], ledger.Names(RecordTables.Contacts));
        }

        Assert.Equal([], BookCheck.Run(book, (_, _) => { }).SelectMany(check => check.Faults));
    }

    private static void Same(SortedDictionary<string, string> expected, RecordNames names)
    {
        Assert.Equal(expected, new SortedDictionary<string, string>(
            names.All.ToDictionary(contact => contact.Id, contact => contact.Name), StringComparer.Ordinal));
        Assert.All(names.All, contact => Assert.Equal(
            expected.Values.Count(name => name == contact.Name) > 1 ? $"{contact.Name} ({contact.Id})" : contact.Name,
            names.Shown[contact.Key]));
        Assert.All(names.All.SelectMany(_ => names.All, (one, other) => (one.Key, Other: other.Key)), pair => Assert.Equal(
            Math.Sign(CodeOrder.OfNames.Compare(names.Shown[pair.Key], names.Shown[pair.Other])),
            Math.Sign(names.Places[pair.Key].CompareTo(names.Places[pair.Other]))));
    }
}
