using System.Text;
using BenchmarkDotNet.Attributes;
using Vlei.Books.Columns;
using Vlei.Books.Import;
using Vlei.Core.Ledger;

namespace Vlei.Loops;

/// <summary>What an import packs and reports unpack, by the million.</summary>
public class ColumnLoops
{
    private const int Rows = 32_768;

    private readonly long[] _numbers = new long[Rows];
    private readonly byte[][] _words = new byte[DocumentStretch.Size][];
    private readonly RecordRow _line = new(RecordTables.Lines);
    private readonly RecordSpool _spool = new(RecordTables.Lines);
    private byte[] _packed = [];
    private WordColumn? _column;
    private long _place;

    /// <summary>Makes what is gone through.</summary>
    [GlobalSetup]
    public void SetUp()
    {
        for (var row = 0; row < Rows; row++)
        {
            _numbers[row] = (row * 7919L % 60_000) - 30_000;
        }

        for (var word = 0; word < _words.Length; word++)
        {
            _words[word] = Encoding.UTF8.GetBytes($"INV-{word / 2:D5}");
        }

        _packed = PackNumbers();
        _column = WordColumn.TryRead(PackWords());
        _line.Set(RecordTables.Lines.IndexOf("document"), 4711);
        _line.Set(RecordTables.Lines.IndexOf("account"), 17);
        _line.Set(RecordTables.Lines.IndexOf("amount"), -123_456);
        _line.Set(RecordTables.Lines.IndexOf("memo"), "Two oars, ash"u8);
        _place = _spool.Add(_line);
    }

    /// <summary>A column of a month as bytes.</summary>
    [Benchmark(OperationsPerInvoke = Rows)]
    public byte[] PackNumbers() => PackedNumbers.Pack(_numbers);

    /// <summary>The same back.</summary>
    [Benchmark(OperationsPerInvoke = Rows)]
    public bool UnpackNumbers() => PackedNumbers.TryUnpack(_packed, _numbers);

    /// <summary>A column of words as bytes.</summary>
    [Benchmark(OperationsPerInvoke = DocumentStretch.Size)]
    public byte[] PackWords()
    {
        var writer = new WordColumnWriter();
        for (var row = 0; row < _words.Length; row++)
        {
            writer.Put(row, _words[row]);
        }

        return writer.Take();
    }

    /// <summary>The words of a column, row by row.</summary>
    [Benchmark(OperationsPerInvoke = DocumentStretch.Size)]
    public int LookUpWords()
    {
        var letters = 0;
        for (var row = 0; row < DocumentStretch.Size; row++)
        {
            letters += _column![row].Text!.Length;
        }

        return letters;
    }

    /// <summary>A line that was read, taken out of what is kept packed.</summary>
    [Benchmark]
    public long TakeLine()
    {
        _spool.Read(_place, _line, isLast: false);
        return _line.Number(RecordTables.Lines.IndexOf("amount"));
    }
}
