namespace Vlei.Books.Store;

/// <summary>Rows that a store gives one after the other. Columns count from 0.</summary>
internal interface IRows : IDisposable
{
    /// <summary>Goes to the next row; false behind the last.</summary>
    bool Next();

    /// <summary>Whether the column has nothing in it.</summary>
    bool IsNull(int column);

    /// <summary>The number in the column; 0 where there is nothing.</summary>
    long Number(int column);

    /// <summary>The text in the column; empty where there is nothing.</summary>
    string Text(int column);

    /// <summary>The text in the column as UTF-8; valid until the next row.</summary>
    ReadOnlySpan<byte> Bytes(int column);
}

/// <summary>What rows give, as what it must be.</summary>
internal static class RowKeys
{
    /// <summary>The number in the column, as a key or a count. Throws a problem where it can be none.</summary>
    public static int Int(this IRows rows, int column) => rows.Number(column) is >= 0 and <= int.MaxValue and var number
        ? (int)number
        : throw StoreProblem.Damaged("a key or a count is out of reach");
}
