using Vlei.Books.Columns;
using Vlei.Books.Import;
using Vlei.Books.Store;

namespace Vlei.Books;

/// <summary>
/// Opens the records of a book, and brings what is made from them to the way in which this program and the book's settings ask for
/// it.
/// </summary>
internal static class Upkeep
{
    /// <summary>Begins to read what is made as it should be; where it was made another way, it is made anew first.</summary>
    public static IStoreReading Read(Book book)
    {
        var reading = book.Store.Read();
        if (reading.State.Made == Wanted(book.Settings))
        {
            return reading;
        }

        reading.Dispose();
        using (var writing = Write(book))
        {
            writing.Commit();
        }

        return book.Store.Read();
    }

    /// <summary>Begins to write, on what is made as it should be.</summary>
    public static IStoreWriting Write(Book book, Action<string, long>? progress = null)
    {
        var writing = book.Store.Write(progress);
        try
        {
            Adopt(writing, book.Settings, progress ?? ((_, _) => { }));
            return writing;
        }
        catch
        {
            writing.Dispose();
            throw;
        }
    }

    /// <summary>Makes everything anew that was made another way.</summary>
    public static void Adopt(IStoreWriting writing, BookSettings settings, Action<string, long> progress)
    {
        var (made, wanted) = (writing.State.Made, Wanted(settings));
        if (made.HashFormat != wanted.HashFormat)
        {
            Rehash.Run(writing);
        }

        if (made.DerivedFormat != wanted.DerivedFormat || made.OldestFirst != wanted.OldestFirst)
        {
            Rebuild(writing, settings, progress);
        }

        if (made != wanted)
        {
            writing.SetMade(wanted);
        }
    }

    /// <summary>Makes all months anew from the records.</summary>
    public static void Rebuild(IStoreWriting writing, BookSettings settings, Action<string, long> progress)
    {
        var months = new WritableDerivedMonths(writing);
        months.Clear();
        new Derivation(writing, new TagSets(writing, writing.AddTagSet), settings.SettlesOldestFirst, progress).Run(months, null);
        NameColumns.Write(months, NameColumns.Tables, writing);
    }

    private static MadeHow Wanted(BookSettings settings) => new(settings.SettlesOldestFirst, Derivation.Format, RecordHash.Format);
}
