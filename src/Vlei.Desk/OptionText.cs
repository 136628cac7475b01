using Vlei.Core.Reports;

namespace Vlei.Desk;

/// <summary>Options as a person would type them.</summary>
public static class OptionText
{
    private const string Plain = "-_.,=/:+@%";

    /// <summary>The options, each with a blank before it, in the order of help.</summary>
    public static string Of(IReadOnlyDictionary<string, IReadOnlyList<string>> options) => string.Concat(
        from option in ReportOptions.All
        from text in options.GetValueOrDefault(option.Name, [])
        select option.ValueName is null && text == "true" ? $" --{option.Name}" : $" --{option.Name} {Quoted(text)}");

    /// <summary>A report with what is asked of it, after the name of a command.</summary>
    public static string Of(ReportOrder order) => $"{Quoted(order.Name)}{Of(order.Options)}"
        + (order.Revision is { } revision ? $" --revision {Quoted(revision)}" : "") + (order.IsStandard ? " --standard" : "");

    /// <summary>A word as a shell takes it.</summary>
    public static string Quoted(string text) => text.Length > 0
        && text.All(letter => char.IsAsciiLetterOrDigit(letter) || Plain.Contains(letter, StringComparison.Ordinal))
        ? text : $"'{text.Replace("'", "'\\''", StringComparison.Ordinal)}'";
}
