namespace Vlei.Commands;

/// <summary>What the program is for, its commands in the order of the work, and what to do first.</summary>
internal static class ProgramHelp
{
    /// <summary>Writes it.</summary>
    public static void Write(HelpPage page)
    {
        page.Paragraph("Vlei builds, checks, keeps and sends reports from a business's ledger records.");
        page.Paragraph("Usage: vlei COMMAND [OPTION]…, or vlei --version");
        var named = CommandTable.All.Max(command => command.Name.Length);
        var isFirst = true;
        foreach (var (heading, commands) in CommandTable.Parts)
        {
            page.Pairs(
                heading, [.. commands.Select(command => (command.Name, command.Create().Description ?? ""))], isTight: !isFirst, named);
            isFirst = false;
        }

        page.Paragraph("First: vlei demo, cd reedwater, vlei show profit-loss. vlei COMMAND --help has examples. "
            + "Everywhere: --book DIR, --clock DATE, --no-pager.");
    }
}
