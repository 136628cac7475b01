using System.Text;
using Vlei.Core.Ledger;

namespace Vlei.Records.Cells;

/// <summary>A sheet of a spreadsheet: its first row that holds anything has the headings, and rows that hold nothing are none.</summary>
/// <param name="name">What messages call it.</param>
/// <param name="file">The file.</param>
/// <param name="open">Begins at the first row of the sheet.</param>
internal sealed class SheetCells(string name, RecordFile file, Func<IFileRows> open) : ICellSource
{
    /// <inheritdoc/>
    public string Name => name;

    /// <inheritdoc/>
    public RecordFile File => file;

    /// <inheritdoc/>
    public ICellReader Open() => new Rows(open());

    private sealed class Rows : ICellReader
    {
        private readonly IFileRows _rows;
        private byte[] _bytes = new byte[256];
        private int[] _ends = [];

        public Rows(IFileRows rows)
        {
            _rows = rows;
            if (Next())
            {
                Headings = [.. _rows.Cells.Take(Count).Select(cell => cell.Text)];
                _ends = new int[Headings.Count];
            }
        }

        public IReadOnlyList<string> Headings { get; } = [];

        public long Line => _rows.Row;

        public (int Column, string Message)? Fault =>
            Count > Headings.Count ? (Headings.Count + 1, "there is a value in a column that has no heading.") : null;

        // How many cells there are up to the last that holds something.
        private int Count
        {
            get
            {
                var count = _rows.Cells.Count;
                while (count > 0 && _rows.Cells[count - 1].Text.Length == 0)
                {
                    count--;
                }

                return count;
            }
        }

        public bool Read()
        {
            if (!Next())
            {
                return false;
            }

            var used = 0;
            for (var column = 0; column < _ends.Length; column++)
            {
                var text = column < _rows.Cells.Count ? _rows.Cells[column].Text : "";
                var most = used + Encoding.UTF8.GetMaxByteCount(text.Length);
                if (most > _bytes.Length)
                {
                    Array.Resize(ref _bytes, 2 * most);
                }

                used += Encoding.UTF8.GetBytes(text, _bytes.AsSpan(used));
                _ends[column] = used;
            }

            return true;
        }

        public ReadOnlySpan<byte> Cell(int column) => _bytes.AsSpan((column == 0 ? 0 : _ends[column - 1]).._ends[column]);

        public bool IsDay(int column) => column < _rows.Cells.Count && _rows.Cells[column].IsDay;

        public void Dispose() => _rows.Dispose();

        private bool Next()
        {
            while (_rows.Read())
            {
                if (Count > 0)
                {
                    return true;
                }
            }

            return false;
        }
    }
}
