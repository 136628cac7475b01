using Vlei.Output;

namespace Vlei.Commands;

/// <summary>
/// Help as it is laid out, whatever it is about: paragraphs, headings, and names with their meanings beside them. No line is
/// longer than the terminal, or than is pleasant to read.
/// </summary>
internal sealed class HelpPage(TextWriter output)
{
    private const int WidthWithoutScreen = 80, WidestToRead = 100, NarrowestToRead = 40;
    private const int WidestName = 22;
    private const string Indent = "  ";

    private readonly int _width = Math.Clamp(Terminal.Width() ?? WidthWithoutScreen, NarrowestToRead, WidestToRead);

    private bool _begun;

    /// <summary>How many letters a line has.</summary>
    public int Width => _width;

    /// <summary>Words that run on, below what there is and with a line between.</summary>
    public void Paragraph(string text)
    {
        Gap();
        Lines(text, "");
    }

    /// <summary>A heading, with a line before it, and names with what they mean below it; nothing where there are none.</summary>
    /// <param name="heading">The heading; nothing for none.</param>
    /// <param name="pairs">The names and their meanings.</param>
    /// <param name="isTight">Whether no line stands before the heading.</param>
    /// <param name="named">How wide names are; nothing for as wide as these are.</param>
    public void Pairs(string? heading, IReadOnlyList<(string Name, string Meaning)> pairs, bool isTight = false, int? named = null)
    {
        if (pairs.Count == 0)
        {
            return;
        }

        if (heading is not null)
        {
            Heading(heading, isTight);
        }

        var beside = named ?? pairs.Select(pair => DisplayText.Width(pair.Name)).Where(width => width <= WidestName)
            .DefaultIfEmpty(WidestName).Max();
        foreach (var (name, meaning) in pairs)
        {
            Pair(name, meaning, beside);
        }
    }

    /// <summary>A heading, and words below it that run on.</summary>
    public void Words(string heading, string text)
    {
        Heading(heading);
        Lines(text, Indent);
    }

    /// <summary>A heading, and command lines that work, each with what it does: beside it where all have room, else below.</summary>
    public void Examples(IReadOnlyList<(string Line, string Meaning)> examples)
    {
        if (examples.Count == 0)
        {
            return;
        }

        Heading("Examples:");
        var widest = examples.Max(example => example.Line.Length);
        var isBeside = examples.All(example => Indent.Length + widest + 2 + DisplayText.Width(example.Meaning) <= _width);
        foreach (var (line, meaning) in examples)
        {
            if (isBeside)
            {
                output.WriteLine($"{Indent}{line.PadRight(widest)}  {meaning}");
                continue;
            }

            CommandLines(line);
            Lines(meaning, Indent + Indent + Indent);
        }
    }

    /// <summary>A heading, and command lines below it.</summary>
    public void CommandLines(string heading, IReadOnlyList<string> lines)
    {
        Heading(heading);
        foreach (var line in lines)
        {
            CommandLines(line);
        }
    }

    /// <summary>Lines as they are, with a line before them.</summary>
    public void Verbatim(string text)
    {
        Gap();
        output.Write(text);
    }

    private void Heading(string heading, bool isTight = false)
    {
        if (!isTight)
        {
            Gap();
        }

        _begun = true;
        Lines(heading, "");
    }

    private void Gap()
    {
        if (_begun)
        {
            output.WriteLine();
        }

        _begun = true;
    }

    private void Pair(string name, string meaning, int named)
    {
        var beside = new string(' ', Indent.Length + named + 2);
        var first = true;
        if (DisplayText.Width(name) > named)
        {
            Lines(name, Indent);
            first = false;
        }

        foreach (var line in meaning.Length == 0 && !first ? [] : DisplayText.Wrap(meaning, _width - beside.Length))
        {
            output.WriteLine(((first ? $"{Indent}{name}".PadRight(beside.Length) : beside) + line).TrimEnd());
            first = false;
        }
    }

    private void Lines(string text, string indent)
    {
        foreach (var line in text.Split('\n').SelectMany(part => DisplayText.Wrap(part, _width - indent.Length)))
        {
            output.WriteLine((indent + line).TrimEnd());
        }
    }

    // As a shell takes it on: a line that is too long is broken before an option, so that it can be pasted whole.
    private void CommandLines(string line)
    {
        var (indent, rest) = (Indent, line);
        while (indent.Length + rest.Length > _width && BreakIn(rest, _width - indent.Length - 2) is > 0 and var at)
        {
            output.WriteLine($"{indent}{rest[..at]} \\");
            (indent, rest) = (Indent + Indent, rest[(at + 1)..]);
        }

        output.WriteLine(indent + rest);
    }

    private static int BreakIn(string line, int most) =>
        line.Length <= most ? -1 : line.LastIndexOf(" --", most, StringComparison.Ordinal);
}
