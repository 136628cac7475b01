using System.Text;

namespace Vlei.Output.Web;

/// <summary>Text on its way into a web page.</summary>
internal static class PageText
{
    /// <summary>Harmless text, with what HTML takes for markup written so that it is shown.</summary>
    public static string Of(string text)
    {
        var harmless = DisplayText.Harmless(text, ascii: false);
        if (!harmless.AsSpan().ContainsAny("&<>\"'"))
        {
            return harmless;
        }

        var safe = new StringBuilder(harmless.Length + 16);
        foreach (var letter in harmless)
        {
            _ = letter switch
            {
                '&' => safe.Append("&amp;"),
                '<' => safe.Append("&lt;"),
                '>' => safe.Append("&gt;"),
                '"' => safe.Append("&quot;"),
                '\'' => safe.Append("&#39;"),
                _ => safe.Append(letter),
            };
        }

        return safe.ToString();
    }

    /// <summary>A file that is part of every page.</summary>
    public static string Part(string name)
    {
        using var stream = typeof(PageText).Assembly.GetManifestResourceStream(name)!;
        using var reader = new StreamReader(stream);
        return reader.ReadToEnd();
    }
}
