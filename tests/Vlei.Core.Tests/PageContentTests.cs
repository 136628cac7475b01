using System.Globalization;
using System.IO.Hashing;
using System.Text;
using CsCheck;
using Vlei.Output.Pages;

namespace Vlei.Core.Tests;

/// <summary>What is drawn on a page is read back from its content stream: what stands where, in which font, size and colour.</summary>
public class PageContentTests
{
    private static readonly int[] Colours = [0, 0xFF0000, 0x0000FF];

    private static readonly Gen<double> GenPlace = Gen.Int[0, 900_000].Select(place => place / 1000.0);

    private static readonly Gen<Drawn> GenDrawn = Gen.Select(
        Gen.Bool, Gen.Int[1, 3], Gen.Byte[1, 255].Array[1, 12], Gen.Select(GenPlace, GenPlace, GenPlace, GenPlace),
        Gen.Int[0, 2], Gen.Int[1, 24], (isLine, font, codes, places, colour, size) => new Drawn(
            isLine, isLine ? "" : $"F{font}", isLine ? "" : string.Join(' ', codes), places.Item1, places.Item2,
            isLine ? places.Item3 : 0, isLine ? places.Item4 : 0, size / 2.0, Colours[colour]));

    [Fact]
    public void All_that_is_drawn_is_in_the_content_stream_packed_or_not() => Gen.Select(GenDrawn.Array[0, 15], Gen.Int[0, 15]).Sample(
        (drawn, packedAt) =>
    {
        var content = new PageContent();
        for (var place = 0; place < drawn.Length; place++)
        {
            if (place == packedAt)
            {
                content.Pack();
            }

            drawn[place].On(content);
        }

        using var stream = new MemoryStream();
        content.Write(stream);
        Assert.Equal(drawn, Read(Encoding.Latin1.GetString(stream.ToArray())));
    });

    [Fact]
    public void A_document_is_named_by_what_is_in_it_and_nothing_of_it_goes_out_too_early() =>
        Gen.Select(Gen.Byte.Array[0, 40_000], Gen.Int[1, 30_000], Gen.Int[0, 3]).Sample((bytes, piece, release) =>
        {
            var body = bytes.Select(value => value == '/' ? (byte)'.' : value).ToArray();
            var trailer = $"/ID [ <{new string('0', 32)}><{new string('1', 32)}>] /Info 3 0 R >>\nstartxref\n9\n%%EOF";
            byte[] whole = [.. body, .. Encoding.ASCII.GetBytes(trailer)];
            using var target = new MemoryStream();
            using var identified = new IdentifiedStream(target);
            var number = 0;
            foreach (var part in whole.Chunk(piece))
            {
                Assert.True(number++ > release || target.Length == 0);
                identified.Write(part);
                if (number > release)
                {
                    identified.Release();
                }
            }

            Assert.Equal(whole.Length, identified.Position);
            identified.Finish();
            var name = Convert.ToHexString(XxHash128.Hash(body));
            var named = trailer.Replace(new string('0', 32), name, StringComparison.Ordinal)
                .Replace(new string('1', 32), name, StringComparison.Ordinal);
            Assert.Equal([.. body, .. Encoding.ASCII.GetBytes(named)], target.ToArray());
        });

    // The few operators that are written (ISO 32000-2, annex A), one after the other.
    private static List<Drawn> Read(string content)
    {
        var (drawn, stack, at) = (new List<Drawn>(), new List<string>(), 0);
        var (font, size, left, bottom, fill, stroke, thickness, from) = ("", 0.0, 0.0, 0.0, 0, 0, 1.0, (Left: 0.0, Bottom: 0.0));
        double Number(int fromEnd) => double.Parse(stack[^fromEnd], CultureInfo.InvariantCulture);
        int Colour() => Enumerable.Range(1, 3).Aggregate(0, (colour, part) => (colour << 8) | (int)Math.Round(Number(4 - part) * 255));
        while (at < content.Length)
        {
            if (content[at] is ' ' or '\n')
            {
                at++;
                continue;
            }

            if (content[at] == '(')
            {
                stack.Add(Letters(content, ref at));
                continue;
            }

            var end = content.AsSpan(at).IndexOfAny(" \n(");
            var word = content.Substring(at, end);
            at += end;
            switch (word)
            {
                case "BT": (left, bottom) = (0, 0); break;
                case "Tf": (font, size) = (stack[^2][1..], Number(1)); break;
                case "Td": (left, bottom) = (Math.Round(left + Number(2), 3), Math.Round(bottom + Number(1), 3)); break;
                case "Tj": drawn.Add(new Drawn(false, font, stack[^1], left, bottom, 0, 0, size, fill)); break;
                case "rg": fill = Colour(); break;
                case "RG": stroke = Colour(); break;
                case "w": thickness = Number(1); break;
                case "m": from = (Number(2), Number(1)); break;
                case "l": drawn.Add(new Drawn(true, "", "", from.Left, from.Bottom, Number(2), Number(1), thickness, stroke)); break;
                case "S" or "ET": break;
                default: stack.Add(word); break;
            }
        }

        return drawn;
    }

    private static string Letters(string content, ref int at)
    {
        var codes = new List<int>();
        for (at++; content[at] != ')'; at++)
        {
            var isEscaped = content[at] == '\\';
            at += isEscaped ? 1 : 0;
            codes.Add(isEscaped && content[at] == 'r' ? '\r' : content[at]);
        }

        at++;
        return string.Join(' ', codes);
    }

    private sealed record Drawn(
        bool IsLine, string Font, string Codes, double Left, double Bottom, double Right, double Top, double Size, int Colour)
    {
        public void On(PageContent content)
        {
            if (IsLine)
            {
                content.Line(Left, Bottom, Right, Top, Size, Colour);
            }
            else
            {
                content.Text(Font, [.. Codes.Split(' ').Select(byte.Parse)], Size, Left, Bottom, Colour);
            }
        }
    }
}
