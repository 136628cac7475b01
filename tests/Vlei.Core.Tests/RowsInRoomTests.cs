using System.Runtime.InteropServices;
using CsCheck;
using Vlei.Core.Reports;
using Vlei.Output;

namespace Vlei.Core.Tests;

/// <summary>Rows of long lists are what they are, in whatever room they are made.</summary>
public sealed class RowsInRoomTests
{
    [Fact]
    public void Rows_come_in_their_order_and_in_the_room_of_those_that_were_looked_at() =>
        Gen.Select(Gen.Int[0, 400], Gen.Int[1, 9], Gen.Int[0, 500]).Sample((count, atOnce, broken) =>
        {
            var (next, rooms, seen) = (0, 0, 0);
            var rows = RowsInRoom.Of<int[], int[]>(atOnce, (ref int[] row, ref int[]? room) =>
            {
                if (next == broken)
                {
                    throw new InvalidOperationException("no more");
                }

                rooms += room is null ? 1 : 0;
                row = room ??= new int[1];
                row[0] = next;
                return next++ < count;
            });
            void GoThrough()
            {
                foreach (var row in rows)
                {
                    Assert.Equal(seen++, row[0]);
                }
            }

            if (broken <= count)
            {
                Assert.Equal("no more", Assert.Throws<InvalidOperationException>(GoThrough).Message);
                Assert.InRange(seen, Math.Max(0, broken - atOnce + 1), broken);
            }
            else
            {
                GoThrough();
                Assert.Equal(count, seen);
            }

            // However many rows there are, there are no more rooms than rows that wait, are made and are looked at.
            const int Stretches = 6;
            Assert.InRange(rooms, 0, Stretches * atOnce);
        });

    [Fact]
    public void Rows_of_a_long_list_are_the_same_made_ahead_as_made_one_by_one()
    {
        const int Long = 9000;
        Cell[] CellsOf(int place) => [new Cell(place), place % 3 == 0 ? Cell.Empty : Cell.Of($"word {place % 50}")];
        ReportRow RowOf(int place, Cell[] cells) => new(
            $"row-{place}", $"label {place % 7}", RowKind.Record, place % 2, ImmutableCollectionsMarshal.AsImmutableArray(cells));
        var rows = new RowList(Long, place => RowOf(place, CellsOf(place)))
        {
            InRoom = (int place, ref Cell[]? room) =>
            {
                room ??= new Cell[2];
                CellsOf(place).CopyTo(room, 0);
                return RowOf(place, room);
            },
        };
        foreach (var from in new[] { 0, 1, Long - 1, Long })
        {
            var place = from;
            foreach (var row in RowsAhead.Of(rows, from))
            {
                Assert.Equal((rows[place].Key, rows[place].Label, rows[place].Level), (row.Key, row.Label, row.Level));
                Assert.Equal(rows[place++].Cells, row.Cells);
            }

            Assert.Equal(Long, place);
        }
    }
}
