using Vlei.Charts;

// Draws one chart, or one page: what it shows comes in as JSON, the picture goes out, as svg or png. vlei starts it where one is asked for.
if (args is not ["svg" or "png" or "page-svg" or "page-png"])
{
    Console.Error.WriteLine("vlei-charts draws charts for vlei: vlei show profit-loss --by month --to chart.svg");
    return 2;
}

using var output = Console.OpenStandardOutput();
using var asked = Console.OpenStandardInput();
if (args[0].StartsWith("page-", StringComparison.Ordinal))
{
    output.Write(PagePicture.Draw(asked, args[0] == "page-svg"));
    return 0;
}

using var chart = new ChartPicture(ChartRequest.Read(asked));
output.Write(chart.Draw(args[0] == "svg"));
return 0;
