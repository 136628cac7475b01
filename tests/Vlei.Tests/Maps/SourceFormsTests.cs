using System.Text;
using Vlei.Books.Kept;
using Vlei.Core.Languages;
using Vlei.Core.Ledger;
using Vlei.Desk.Maps;
using Vlei.Records.Cells;
using Vlei.Records.Maps;

namespace Vlei.Tests.Maps;

/// <summary>
/// Numbers, days, texts and words as files write them: whatever is written in a form that is known is read as what it was.
/// </summary>
public class SourceFormsTests
{
    private static readonly MapWords Words = WordLists.Of(Library.Of(null));
    private static readonly (char Mark, string[] Groups)[] Marks =
        [('.', ["", ",", " ", "\u00a0", "'"]), (',', ["", ".", " ", "\u202f", "'"])];

    [Fact]
    public void A_number_is_the_same_in_every_form()
    {
        var random = new Random(1);
        for (var round = 0; round < 20_000; round++)
        {
            var value = new decimal(
                random.NextInt64(-1_000_000_000_000, 1_000_000_000_000)) / (random.Next(3) switch { 0 => 1, 1 => 100, _ => 10_000 });
            value /= (decimal)Math.Pow(10, random.Next(8));
            value = Math.Round(value, random.Next(5));
            var (mark, groups) = Marks[random.Next(2)];
            var group = groups[random.Next(groups.Length)];
            var digits = Math.Abs(value).ToString("#,##0.####", CultureInfo.InvariantCulture)
                .Replace(",", "_", StringComparison.Ordinal).Replace('.', mark).Replace("_", group, StringComparison.Ordinal);
            var (text, side) = random.Next(10) switch
            {
                0 when value < 0 => ($"({digits})", NumberSide.None),
                1 when value < 0 => ($"{digits}-", NumberSide.None),
                2 when value < 0 => ($"\u2212{digits}", NumberSide.None),
                3 when value > 0 => ($"{digits} DR", NumberSide.Debit),
                4 when value > 0 => ($"{digits} Cr.", NumberSide.Credit),
                5 when value > 0 => ($"+{digits}", NumberSide.None),
                _ => ((value < 0 ? "-" : "") + digits, NumberSide.None),
            };
            var currency = random.Next(4) switch { 0 => "EUR", 1 => "ZAR", _ => "" };
            text = currency.Length == 0 ? text : random.Next(2) == 0 || side != NumberSide.None ? $"{currency} {text}"
                : $"{text} {currency}";
            Assert.True(SourceNumbers.TryRead($" {text} ", mark, out var number), text);
            Assert.Equal((value, side, currency), (number.Value, number.Side, number.Currency));
        }
    }

    [Theory]
    [InlineData("12,50", '.')]
    [InlineData("1.2.3", '.')]
    [InlineData("1,23,4.5", '.')]
    [InlineData("1234,567.1", '.')]
    [InlineData("n/a", '.')]
    [InlineData("12x", '.')]
    [InlineData("--5x", ',')]
    [InlineData("", '.')]
    [InlineData("-", '.')]
    [InlineData("1234567890123456789", '.')]
    [InlineData("5 EURO", '.')]
    public void What_is_no_number_is_none(string text, char mark) => Assert.False(SourceNumbers.TryRead(text, mark, out _));

    [Theory]
    [InlineData("1,234", '?')]
    [InlineData("1.234", '?')]
    [InlineData("0.234", '.')]
    [InlineData("12,5", ',')]
    [InlineData("1,234.50", '.')]
    [InlineData("1.234,50", ',')]
    [InlineData("1.234.567", ',')]
    [InlineData("1234.567", '.')]
    [InlineData("1234", null)]
    [InlineData("5,00-", ',')]
    public void What_a_number_says_of_its_mark_is_found(string text, char? mark) => Assert.Equal(mark, SourceNumbers.MarkOf(text));

    [Fact]
    public void A_day_is_the_same_in_every_order_and_language()
    {
        var random = new Random(2);
        var languages = Language.Standard.Select(code => Language.Find(code)!.Dates).ToList();
        for (var round = 0; round < 20_000; round++)
        {
            var day = new DateOnly(1990, 1, 1).AddDays(random.Next(25_000));
            var dates = languages[random.Next(languages.Count)];
            var mark = "-/. "[random.Next(4)];
            var order = (DateOrder)random.Next(4);
            var text = order switch
            {
                DateOrder.Serial => $"{day.DayNumber - new DateOnly(1899, 12, 30).DayNumber}{(random.Next(2) == 0 ? ".5" : "")}",
                DateOrder.YearMonthDay => random.Next(3) == 0 ? $"{day:yyyyMMdd}" : $"{day.Year}{mark}{day.Month:D2}{mark}{day.Day:D2}",
                DateOrder.DayMonthYear => random.Next(4) switch
                {
                    0 => $"{day.Day}. {dates.Months[day.Month - 1]} {day.Year}",
                    1 => $"{day.Day:D2}-{dates.ShortMonths[day.Month - 1].TrimEnd('.')}-{day.Year}",
                    2 => $"{day:ddMMyyyy}",
                    _ => $"{day.Day}{mark}{day.Month}{mark}{day.Year}",
                },
                _ => random.Next(2) == 0 ? $"{dates.Months[day.Month - 1]} {day.Day}, {day.Year}"
                    : $"{day.Month}{mark}{day.Day}{mark}{day.Year}",
            };
            if (order != DateOrder.Serial && random.Next(4) == 0)
            {
                text += " 23:59:59";
            }

            Assert.True(SourceDates.TryRead(text, order, Words, out var read), $"{text} {order}");
            Assert.Equal(day, read);
        }
    }

    [Theory]
    [InlineData("2026-02-30")]
    [InlineData("31.04.2026")]
    [InlineData("13/13/2026")]
    [InlineData("Junk 5 2026")]
    [InlineData("2026")]
    [InlineData("5.6")]
    [InlineData("")]
    [InlineData("123456789")]
    public void What_is_no_day_is_none_in_any_order(string text) => Assert.All(
        Enum.GetValues<DateOrder>(), order => Assert.False(SourceDates.TryRead(text, order, Words, out _), $"{order}"));

    [Fact]
    public void Texts_of_any_dialect_give_the_rows_that_were_written()
    {
        Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);
        var random = new Random(3);
        var folder = Directory.CreateTempSubdirectory("vlei-forms-");
        try
        {
            for (var round = 0; round < 300; round++)
            {
                var separator = TextDialect.Separators[random.Next(4)];
                var encoding =
                    new[] { new UTF8Encoding(false), new UTF8Encoding(true), Encoding.GetEncoding(1252), Encoding.Unicode,
                        Encoding.BigEndianUnicode }[random.Next(5)];
                var rows = Enumerable.Range(0, random.Next(4, 40))
                    .Select(_ => Enumerable.Range(0, 5).Select(_ => Cell(random)).ToList()).ToList();
                var text = string.Join(random.Next(2) == 0 ? "\r\n" : "\n", rows.Select(row => string.Join(separator, row.Select(cell =>
                    cell.Contains(separator) || cell.Contains('"') || cell.Contains('\n')
                        ? $"\"{cell.Replace("\"", "\"\"", StringComparison.Ordinal)}\"" : cell)))) + "\n";
                var path = Path.Combine(folder.FullName, "x.csv");
                File.WriteAllText(path, text, encoding);
                var (dialect, _) = TextDialect.Of(path);
                Assert.Equal(separator, dialect.Separator);
                using var read = new TextRows(path, dialect);
                foreach (var row in rows)
                {
                    Assert.True(read.Read());
                    Assert.Equal(row.Select(cell => cell.Trim()), read.Cells.Select(cell => cell.Text.ReplaceLineEndings("\n")));
                }

                Assert.False(read.Read());
            }
        }
        finally
        {
            folder.Delete(recursive: true);
        }
    }

    [Fact]
    public void Rows_that_are_kept_are_the_same_each_time()
    {
        var random = new Random(4);
        var rows = Enumerable.Range(0, 3000)
            .Select(number => (Row: (long)(number * 2) + 1, Cells: Enumerable.Range(0, random.Next(9)).Select(_ => new FileCell(
            random.Next(40) == 0 ? new string('Ω', random.Next(2000)) : Cell(random), random.Next(2) == 0, random.Next(2) == 0))
                .ToList())).ToList();
        var kept = new KeptRows(new Given(rows));
        var meant = rows.Where(row => row.Cells.Exists(cell => cell.Text.Length > 0)).ToList();
        for (var time = 0; time < 2; time++)
        {
            using var again = kept.Open();
            foreach (var (row, cells) in meant)
            {
                Assert.True(again.Read());
                Assert.Equal(row, again.Row);
                Assert.Equal(cells, again.Cells);
            }

            Assert.False(again.Read());
            Assert.False(again.Read());
        }
    }

    [Fact]
    public void Packed_numbers_are_what_they_were_and_no_longer_than_they_need()
    {
        var random = new Random(5);
        for (var round = 0; round < 10_000; round++)
        {
            var numbers = Enumerable.Range(0, 5).Select(_ => random.NextInt64(long.MinValue, long.MaxValue) >> random.Next(64)).ToArray();
            var bytes = new byte[5 * PackedNumber.Longest];
            var rest = bytes.AsSpan();
            foreach (var number in numbers)
            {
                var before = rest.Length;
                PackedNumber.Put(ref rest, number);
                Assert.InRange(
                    before - rest.Length, 1, Math.Max(1, ((65 - long.LeadingZeroCount(Math.Abs(number + (number < 0 ? 1 : 0)))) + 6) / 7));
            }

            ReadOnlySpan<byte> all = bytes;
            foreach (var number in numbers)
            {
                Assert.Equal(number, PackedNumber.Take(ref all));
            }

            Assert.Equal(rest.Length, all.Length);
        }
    }

    [Fact]
    public void Every_word_that_ships_is_taken_for_what_its_list_says()
    {
        var root = Path.Combine(Tool.Root, "src/Vlei.Desk/Words");
        foreach (var path in Directory.GetFiles(root, "*.toml"))
        {
            var section = "";
            foreach (var line in File.ReadLines(path))
            {
                if (line.StartsWith('['))
                {
                    section = line.Trim('[', ']');
                }

                var parts = line.Split(" = ", 2);
                if (parts.Length < 2 || line.StartsWith('#'))
                {
                    continue;
                }

                foreach (var word in parts[1].Trim('[', ']').Split(", ").Select(word => word.Trim('"')))
                {
                    var found = section switch
                    {
                        "columns" => Words.RoleOf(word.ToUpperInvariant())?.Role.Name,
                        "types" => Words.TypeOf(word) is { } type ? AccountTypes.NameOf(type.Type) : null,
                        "kinds" => Words.KindOf(word),
                        _ => parts[0],
                    };
                    Assert.True(found is not null, $"{path}: {section} {word}");
                    Assert.True(
                        found == parts[0] || IsInAnother(root, path, section, found!, word),
                        $"{path}: {word} of {parts[0]} is taken for {found}");
                }
            }
        }
    }

    // The same word may well mean something else in another language; the first list that has it counts.
    private static bool IsInAnother(string root, string path, string section, string key, string word) =>
        Directory.GetFiles(root, "*.toml").Where(other => other != path || section == "types")
            .Any(other => File.ReadLines(other).Any(line => line.StartsWith($"{key} = ", StringComparison.Ordinal)
                && line.Split(" = ", 2)[1].Trim('[', ']').Split(", ")
                    .Any(known => MapWords.Plain(known.Trim('"')) == MapWords.Plain(word))));

    private static string Cell(Random random)
    {
        const string Letters = "abcÄéß0123456789 ,;|\t\"'.-";
        var cell = string.Concat(Enumerable.Range(0, random.Next(1, 12)).Select(_ => Letters[random.Next(Letters.Length)]));
        return random.Next(20) == 0 ? $"a{cell}\nb" : $"x{cell}y";
    }

    private sealed class Given(List<(long Row, List<FileCell> Cells)> rows) : IFileRows
    {
        private int _at = -1;

        public long Row => rows[_at].Row;

        public List<FileCell> Cells => rows[_at].Cells;

        public bool Read() => ++_at < rows.Count;

        public void Dispose()
        {
        }
    }
}
