using Vlei.Charts;

// Draws one chart: what it shows comes in as JSON, the picture goes out, as svg or png. vlei starts it where a chart is asked for.
if (args is not ["svg" or "png"])
{
    Console.Error.WriteLine("vlei-charts draws charts for vlei: vlei show profit-loss --by month --to chart.svg");
    return 2;
}

using var chart = new ChartPicture(ChartRequest.Read(Console.OpenStandardInput()));
using var output = Console.OpenStandardOutput();
output.Write(chart.Draw(args[0] == "svg"));
return 0;
