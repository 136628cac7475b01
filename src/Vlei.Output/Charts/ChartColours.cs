namespace Vlei.Output.Charts;

/// <summary>
/// The colours of charts: those that Okabe and Ito chose so that everybody can tell them apart, in an order in which
/// neighbours differ in how dark they are too, which is what is left of them in grey.
/// </summary>
internal static class ChartColours
{
    private static readonly int[] All = [0x0072B2, 0xE69F00, 0x009E73, 0x56B4E9, 0x8A3A00, 0xCC79A7, 0x444444, 0xF0E442];

    /// <summary>The colour of the figures at a place; the first is the accent colour, where there is one.</summary>
    public static int At(int place, int? accent) => accent is not { } own ? All[place % All.Length]
        : place == 0 ? own : All[place % All.Length] == own ? All[0] : All[place % All.Length];
}
