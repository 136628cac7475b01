using System.Text;
using System.Text.Json;
using Vlei.Books;
using Vlei.Books.Files;
using Vlei.Core.Problems;

namespace Vlei.Desk.Deliveries;

/// <summary>
/// The outbox of a book: a log to which a line is added whenever something happens, and the letters as they were sent. A line is on the
/// disk before what it says is done, so that whatever stops the program, nothing is lost.
/// </summary>
public sealed class DeliveryLog
{
    /// <summary>The folder of the outbox in that of the book.</summary>
    public const string FolderName = "outbox";

    private const string FileName = "log.jsonl";
    private const string LettersName = "letters";
    private const string LetterEnding = ".eml";
    private const string SendingName = "sending";

    private readonly string _folder;
    private readonly Dictionary<int, Delivery> _deliveries = [];
    private readonly Dictionary<string, int> _numbers = [];
    private readonly Dictionary<string, DateTimeOffset> _since = [];
    private long _read;

    /// <summary>The outbox of a book, as it stands.</summary>
    public DeliveryLog(Book book)
    {
        _folder = book.PathOf(FolderName);
        Catch();
    }

    /// <summary>All deliveries, in the order in which they came.</summary>
    public IReadOnlyList<Delivery> All => [.. _deliveries.Values.OrderBy(delivery => delivery.Number)];

    /// <summary>Where it is.</summary>
    public string Folder => _folder;

    private string LogPath => Path.Combine(_folder, FileName);

    /// <summary>The delivery of that number. Throws a <see cref="ProblemException"/> where there is none.</summary>
    public Delivery this[int number] => _deliveries.GetValueOrDefault(number) ?? throw new ProblemException(
        ProblemKind.NotFound, $"The outbox has no number {number}.", "vlei outbox --all lists all there are.");

    /// <summary>Whether there is a delivery of that key.</summary>
    public bool Has(string key) => _numbers.ContainsKey(key);

    /// <summary>Since when a schedule is known; nothing where it is not known yet.</summary>
    public DateTimeOffset? Since(string schedule) => _since.TryGetValue(schedule, out var since) ? since : null;

    /// <summary>The last time that something of a schedule was due and noted; nothing where there was none.</summary>
    public DateTimeOffset? LastDue(string schedule) => _deliveries.Values.Where(delivery => delivery.Schedule == schedule).Max(
        delivery => delivery.Due);

    /// <summary>
    /// Takes the turn of sending: of several programs one sends. Nothing where another has it; where the folder cannot be written, a
    /// <see cref="ProblemException"/> is thrown.
    /// </summary>
    public FileTurn? TakeSending()
    {
        try
        {
            return FileTurn.Take(Path.Combine(_folder, SendingName), TimeSpan.Zero);
        }
        catch (ProblemException busy) when (busy.Kind == ProblemKind.TryAgain)
        {
            return null;
        }
    }

    /// <summary>Reads what others have added meanwhile.</summary>
    public void Catch()
    {
        if (File.Exists(LogPath))
        {
            using var file = new FileStream(LogPath, FileMode.Open, FileAccess.Read, FileShare.ReadWrite | FileShare.Delete);
            file.Seek(_read, SeekOrigin.Begin);
            using var rest = new MemoryStream();
            file.CopyTo(rest);
            var bytes = rest.GetBuffer().AsSpan(0, (int)rest.Length);
            for (int end; (end = bytes.IndexOf((byte)'\n')) >= 0; bytes = bytes[(end + 1)..])
            {
                _read += end + 1;
                Take(bytes[..end]);
            }
        }
    }

    /// <summary>Notes since when a schedule is known, unless it is.</summary>
    public void NoteSchedule(string schedule, DateTimeOffset since)
    {
        using var turn = Turn();
        if (!_since.ContainsKey(schedule))
        {
            Append(new DeliveryLine(null, schedule, since));
        }
    }

    /// <summary>
    /// Adds a delivery, and gives it its number; nothing where there is one of its key already. Its letter is there before it is.
    /// </summary>
    public Delivery? Add(Delivery delivery, byte[]? letter)
    {
        using var turn = Turn();
        if (Has(delivery.Key))
        {
            return null;
        }

        var numbered = delivery with { Number = _deliveries.Keys.DefaultIfEmpty().Max() + 1 };
        PutLetter(numbered, letter);
        Append(new DeliveryLine(numbered, null, null));
        return numbered;
    }

    /// <summary>
    /// Notes how a delivery stands now, as long as it stands as it was seen; false where somebody else has changed it meanwhile.
    /// </summary>
    public bool Note(Delivery seen, Delivery now, byte[]? letter = null)
    {
        using var turn = Turn();
        if (this[seen.Number] is var known && (known.State != seen.State || known.Noted != seen.Noted))
        {
            return false;
        }

        PutLetter(now, letter);
        Append(new DeliveryLine(now, null, null));
        return true;
    }

    /// <summary>
    /// The letter of a delivery, as it was or will be sent. Throws a <see cref="ProblemException"/> where it is not there, or is not as
    /// it was noted.
    /// </summary>
    public byte[] Letter(Delivery delivery)
    {
        var path = LetterPath(delivery);
        if (!File.Exists(path))
        {
            throw new ProblemException(
                ProblemKind.NotFound, delivery.LetterSum.Length == 0 ? $"Number {delivery.Number} has no letter." : $"{path} is not there.",
                "vlei outbox --show tells what is known of it.");
        }

        var letter = File.ReadAllBytes(path);
        return Hashes.Of(letter) == delivery.LetterSum ? letter : throw new ProblemException(
            ProblemKind.BadData, $"{path} is not as it was written.", "Put back a copy of it; it is not sent like that.");
    }

    /// <summary>Where the letter of a delivery is.</summary>
    public string LetterPath(Delivery delivery) => Path.Combine(
        _folder, LettersName, delivery.Number.ToString("D6", System.Globalization.CultureInfo.InvariantCulture) + LetterEnding);

    private FileTurn Turn()
    {
        var turn = FileTurn.Take(_folder);
        Catch();
        return turn;
    }

    private void PutLetter(Delivery delivery, byte[]? letter)
    {
        if (letter is not null)
        {
            _ = Directory.CreateDirectory(Path.Combine(_folder, LettersName));
            WholeFile.Write(LetterPath(delivery), stream => stream.Write(letter), isPrivate: true);
        }
    }

    private void Append(DeliveryLine line)
    {
        var bytes = JsonSerializer.SerializeToUtf8Bytes(line, DeliveryJson.Default.DeliveryLine);
        try
        {
            using var file = new FileStream(LogPath, new FileStreamOptions
            {
                Mode = FileMode.OpenOrCreate, Access = FileAccess.ReadWrite, Share = FileShare.Read,
                UnixCreateMode = UnixFileMode.UserRead | UnixFileMode.UserWrite,
            });

            // What a program that was stopped left half written is no line.
            file.SetLength(_read);
            file.Seek(_read, SeekOrigin.Begin);
            file.Write([.. bytes, (byte)'\n']);
            file.Flush(flushToDisk: true);
        }
        catch (Exception cannot) when (cannot is IOException or UnauthorizedAccessException)
        {
            throw new ProblemException(
                ProblemKind.CannotWrite, $"{LogPath} cannot be written: {cannot.Message}", "Make room, or let it be written to.", cannot);
        }

        Catch();
    }

    private void Take(ReadOnlySpan<byte> bytes)
    {
        DeliveryLine line;
        try
        {
            line = JsonSerializer.Deserialize(bytes, DeliveryJson.Default.DeliveryLine)!;
        }
        catch (JsonException damaged)
        {
            throw new ProblemException(
                ProblemKind.BadData,
                $"{LogPath} is damaged: \"{Encoding.UTF8.GetString(bytes[..Math.Min(bytes.Length, 40)])}\" is no line.",
                "Put back a copy of it; what was sent is in the letters beside it.", damaged);
        }

        if (line.Delivery is { } delivery)
        {
            (_deliveries[delivery.Number], _numbers[delivery.Key]) = (delivery, delivery.Number);
        }
        else if (line is { Schedule: { } schedule, Since: { } since })
        {
            _since[schedule] = since;
        }
    }
}
