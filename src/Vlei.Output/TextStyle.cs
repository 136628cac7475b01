namespace Vlei.Output;

/// <summary>How text is set off on a terminal. What it says is said by words and signs too.</summary>
public enum TextStyle
{
    /// <summary>As it is.</summary>
    Plain,

    /// <summary>What others lead to: titles, totals.</summary>
    Strong,

    /// <summary>What need not be read.</summary>
    Quiet,

    /// <summary>What stands above columns, and what can be typed.</summary>
    Heading,

    /// <summary>A figure below zero.</summary>
    Below,

    /// <summary>The same of a total.</summary>
    StrongBelow,

    /// <summary>What does not hold.</summary>
    Failed,

    /// <summary>A bar.</summary>
    Bar,

    /// <summary>Where a person is.</summary>
    Chosen,
}

/// <summary>The codes of ECMA-48 for styles.</summary>
public static class TextStyles
{
    /// <summary>How many characters the codes around a text are at the most.</summary>
    public const int MostCodes = 12;

    /// <summary>A text in a style, where that can be shown.</summary>
    public static string In(this string text, TextStyle style, bool colour) =>
        text.Length == 0 || style == TextStyle.Plain || !colour ? text : $"\e[{CodeOf(style)}m{text}\e[0m";

    private static string CodeOf(TextStyle style) => style switch
    {
        TextStyle.Strong => "1",
        TextStyle.Quiet => "2",
        TextStyle.Heading => "36",
        TextStyle.Below => "31",
        TextStyle.StrongBelow or TextStyle.Failed => "1;31",
        TextStyle.Bar => "34",
        _ => "7",
    };
}
