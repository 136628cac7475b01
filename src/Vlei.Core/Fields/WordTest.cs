namespace Vlei.Core.Fields;

/// <summary>
/// A question about words that is asked once for each word, however many rows have it. Nothing has no answer.
/// </summary>
/// <param name="holds">The answer for a word: what it is called, and its id.</param>
internal sealed class WordTest(Func<string, string, bool> holds)
{
    private WordPool? _pool;
    private Truth[] _known = [];
    private bool[] _isKnown = [];

    /// <summary>The answer for each row.</summary>
    public Truth[] Of(FieldCells cells)
    {
        var pool = cells.Pool!;
        if (_pool != pool)
        {
            (_pool, _known, _isKnown) = (pool, new Truth[pool.Words.Count], new bool[pool.Words.Count]);
        }

        var answers = new Truth[cells.Numbers.Length];
        for (var row = 0; row < answers.Length; row++)
        {
            var number = (int)cells.Numbers[row];
            if (!_isKnown[number])
            {
                _known[number] = number == 0 ? Truth.Unknown : holds(pool.Names[number], pool.Ids[number]) ? Truth.True : Truth.False;
                _isKnown[number] = true;
            }

            answers[row] = _known[number];
        }

        return answers;
    }
}

/// <summary>Whether something holds, where what is compared may be nothing.</summary>
internal enum Truth : byte
{
    /// <summary>It does not.</summary>
    False,

    /// <summary>It cannot be said.</summary>
    Unknown,

    /// <summary>It does.</summary>
    True,
}
