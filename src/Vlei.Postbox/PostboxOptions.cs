using System.Globalization;

namespace Vlei.Postbox;

/// <summary>What the server is told to be like.</summary>
internal sealed class PostboxOptions
{
    /// <summary>How it is called, for help.</summary>
    public const string Usage = """
        vlei-postbox DIR [options]
        A small mail server on this computer alone, which keeps what it gets as .eml files in a folder.

          --port N          the port to listen at (else a free one, which it says)
          --slow MS         wait so long before each answer
          --full            say that there is no room (452)
          --refuse ADDRESS  refuse a recipient for ever (550); may be repeated
          --greylist N      put off each recipient N times (450)
          --drop WHERE      cut the connection: before, within or after the data, each letter once
        """;

    /// <summary>The folder of what it gets.</summary>
    public string Folder { get; private set; } = "";

    /// <summary>The port; 0 for a free one.</summary>
    public int Port { get; private set; }

    /// <summary>How long it waits before each answer.</summary>
    public TimeSpan Slow { get; private set; }

    /// <summary>Whether it says that there is no room.</summary>
    public bool IsFull { get; private set; }

    /// <summary>The recipients that it refuses.</summary>
    public HashSet<string> Refused { get; } = new(StringComparer.OrdinalIgnoreCase);

    /// <summary>How often it puts a recipient off.</summary>
    public int Greylist { get; private set; }

    /// <summary>Where it cuts the connection; nothing where it does not.</summary>
    public string? Drop { get; private set; }

    /// <summary>Reads what was typed; nothing where that is no call.</summary>
    public static PostboxOptions? Read(string[] args)
    {
        var options = new PostboxOptions();
        for (var at = 0; at < args.Length; at++)
        {
            if (args[at] == "--full")
            {
                options.IsFull = true;
            }
            else if (!args[at].StartsWith('-') && options.Folder.Length == 0)
            {
                options.Folder = args[at];
            }
            else if (at + 1 == args.Length || !options.Take(args[at], args[++at]))
            {
                return null;
            }
        }

        return options.Folder.Length > 0 ? options : null;
    }

    private bool Take(string name, string value)
    {
        var isNumber = int.TryParse(value, NumberStyles.None, CultureInfo.InvariantCulture, out var number);
        switch (name)
        {
            case "--port" when isNumber && number <= ushort.MaxValue:
                Port = number;
                return true;
            case "--slow" when isNumber:
                Slow = TimeSpan.FromMilliseconds(number);
                return true;
            case "--greylist" when isNumber:
                Greylist = number;
                return true;
            case "--refuse":
                return Refused.Add(value);
            case "--drop" when value is "before" or "within" or "after":
                Drop = value;
                return true;
            default:
                return false;
        }
    }
}
