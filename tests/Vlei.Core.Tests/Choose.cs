using CsCheck;

namespace Vlei.Core.Tests;

/// <summary>One of a few values.</summary>
public static class Choose
{
    public static Gen<T> One<T>(params T[] values) => Gen.Int[0, values.Length - 1].Select(index => values[index]);
}
