using System.Runtime.InteropServices;

namespace Vlei.Core.Ledger;

/// <summary>
/// Arrays that months are read into one after the other, where each is done with before the next: they are large, and new ones for each
/// cost more than what is done with them.
/// </summary>
public sealed class PostingArrays
{
    private readonly Dictionary<PostingField, long[]> _arrays = [];

    /// <summary>The array of a column, with room for at least so many postings; what it holds is of a month before.</summary>
    public long[] For(PostingField field, int count)
    {
        // Months are of different lengths, and a little more serves the next too.
        ref var array = ref CollectionsMarshal.GetValueRefOrAddDefault(_arrays, field, out _);
        return array?.Length >= count ? array : array = GC.AllocateUninitializedArray<long>(count + (count / 8));
    }
}
