namespace Vlei.Sample;

/// <summary>
/// Chance that comes out the same on every machine and with every version of the runtime: SplitMix64.
/// </summary>
internal sealed class Dice(ulong seed)
{
    private ulong _state = seed;

    /// <summary>A whole number from <paramref name="least"/> to <paramref name="most"/>, both included.</summary>
    public int Between(int least, int most) => least + (int)(Next() % (ulong)(most - least + 1));

    /// <summary>Whether something happens that does so in that many of a thousand cases.</summary>
    public bool Chance(int perThousand) => Between(1, 1000) <= perThousand;

    /// <summary>How often something happens that happens <paramref name="thousandths"/> / 1000 times on average.</summary>
    public int Times(long thousandths) => (int)(thousandths / 1000) + (Chance((int)(thousandths % 1000)) ? 1 : 0);

    /// <summary>One of them.</summary>
    public T Of<T>(IReadOnlyList<T> choices) => choices[Between(0, choices.Count - 1)];

    /// <summary>An amount within that many percent of another, on whole tens of minor units.</summary>
    public long About(long amount, int percent) => amount * Between(1000 - (10 * percent), 1000 + (10 * percent)) / 10_000 * 10;

    private ulong Next()
    {
        _state += 0x9E3779B97F4A7C15;
        var mixed = _state;
        mixed = (mixed ^ (mixed >> 30)) * 0xBF58476D1CE4E5B9;
        mixed = (mixed ^ (mixed >> 27)) * 0x94D049BB133111EB;
        return mixed ^ (mixed >> 31);
    }
}
