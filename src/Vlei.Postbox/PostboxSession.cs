using System.Collections.Concurrent;
using System.Globalization;
using System.Net.Sockets;
using System.Text;

namespace Vlei.Postbox;

/// <summary>One connection to the server, as RFC 5321 has it.</summary>
internal sealed class PostboxSession(PostboxOptions options, ConcurrentDictionary<string, int> seen, Func<int> nextNumber) : IDisposable
{
    private const int LongestLine = 1 << 20;
    private const int MostBytes = 1 << 28;

    private readonly List<string> _recipients = [];
    private NetworkStream _stream = null!;
    private string? _sender;

    /// <summary>Talks until the other side goes, or is cut off.</summary>
    public void Run(TcpClient client)
    {
        _stream = client.GetStream();
        Answer("220 localhost vlei-postbox");
        while (ReadLine() is { } line && Obey(line))
        {
        }
    }

    /// <inheritdoc/>
    public void Dispose() => _stream?.Dispose();

    private bool Obey(string line)
    {
        switch (line.Split(' ')[0].ToUpperInvariant())
        {
            case "EHLO":
                Answer("250-localhost\r\n250-8BITMIME\r\n250-SMTPUTF8\r\n250 SIZE 268435456");
                return true;
            case "HELO" or "NOOP":
                Answer("250 localhost");
                return true;
            case "MAIL":
                Reset();
                _sender = AddressIn(line);
                Answer(options.IsFull ? "452 4.3.1 There is no room" : "250 2.1.0 Fine");
                return true;
            case "RCPT":
                Recipient(AddressIn(line));
                return true;
            case "DATA":
                return Data();
            case "RSET":
                Reset();
                Answer("250 2.0.0 Fine");
                return true;
            case "QUIT":
                Answer("221 2.0.0 Goodbye");
                return false;
            default:
                Answer("502 5.5.2 That is not known here");
                return true;
        }
    }

    private void Recipient(string address)
    {
        if (options.Refused.Contains(address))
        {
            Answer($"550 5.1.1 There is no {address}");
        }
        else if (options.Greylist > 0 && seen.AddOrUpdate($"rcpt {address}", 1, (_, times) => times + 1) <= options.Greylist)
        {
            Answer("450 4.7.1 Try again later");
        }
        else
        {
            _recipients.Add(address);
            Answer("250 2.1.5 Fine");
        }
    }

    private bool Data()
    {
        if (_sender is null || _recipients.Count == 0)
        {
            Answer("503 5.5.1 First MAIL and RCPT");
            return true;
        }

        var isCut = options.Drop is not null
            && seen.AddOrUpdate($"drop {string.Join(',', _recipients)}", 1, (_, times) => times + 1) == 1;
        if (isCut && options.Drop == "before")
        {
            return false;
        }

        Answer("354 Go on, and end with a point alone");
        var letter = new StringBuilder();
        for (var line = ReadLine(); line != "."; line = ReadLine())
        {
            if (line is null || letter.Length > MostBytes || (isCut && options.Drop == "within" && letter.Length > 200))
            {
                return false;
            }

            letter.Append(line.StartsWith('.') ? line[1..] : line).Append("\r\n");
        }

        Keep(letter.ToString());
        if (isCut)
        {
            return false;
        }

        Answer("250 2.0.0 Taken");
        Reset();
        return true;
    }

    // Beside its place first, so that whoever looks into the folder finds whole letters.
    private void Keep(string letter)
    {
        var name = nextNumber().ToString("D6", CultureInfo.InvariantCulture);
        var path = Path.Combine(options.Folder, $"{name}.eml");
        File.WriteAllBytes($"{path}.new", Encoding.Latin1.GetBytes(
            $"Return-Path: <{_sender}>\r\n{string.Concat(_recipients.Select(recipient => $"Delivered-To: {recipient}\r\n"))}{letter}"));
        File.Move($"{path}.new", path);
    }

    private void Reset()
    {
        _recipients.Clear();
        _sender = null;
    }

    private void Answer(string text)
    {
        if (options.Slow > TimeSpan.Zero)
        {
            Thread.Sleep(options.Slow);
        }

        _stream.Write(Encoding.ASCII.GetBytes($"{text}\r\n"));
    }

    private readonly byte[] _block = new byte[1 << 16];
    private int _at;
    private int _end;

    // Bytes as they are, one letter each; nothing where the other side is gone.
    private string? ReadLine()
    {
        var line = new StringBuilder();
        while (line.Length < LongestLine)
        {
            if (_at == _end)
            {
                (_at, _end) = (0, _stream.Read(_block));
                if (_end == 0)
                {
                    return null;
                }
            }

            var letter = (char)_block[_at++];
            if (letter == '\n')
            {
                return line.Length > 0 && line[^1] == '\r' ? line.ToString(0, line.Length - 1) : line.ToString();
            }

            line.Append(letter);
        }

        return null;
    }

    private static string AddressIn(string line)
    {
        var (open, close) = (line.IndexOf('<', StringComparison.Ordinal), line.IndexOf('>', StringComparison.Ordinal));
        return open >= 0 && close > open ? line[(open + 1)..close] : "";
    }
}
