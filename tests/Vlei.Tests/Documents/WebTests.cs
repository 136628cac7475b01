using System.Text.RegularExpressions;

namespace Vlei.Tests.Documents;

/// <summary>Web pages, as they are and as a browser makes them.</summary>
public sealed partial class WebTests : IDisposable
{
    private readonly Tool _tool = new Tool().WithDemo();

    [Fact]
    public void A_page_needs_nothing_else_and_every_link_leads_somewhere()
    {
        File.WriteAllBytes(_tool.PathOf("logo.png"), Logo.Png);
        _tool.Run(
            "show", "profit-loss", "--period", "2026-05", "--compare", "prior-year", "--change", "--chart", "--with-detail",
            "documents", "--logo", "logo.png", "--book", "reedwater", "--to", "p.html").Done();
        var page = File.ReadAllText(_tool.PathOf("p.html"));
        Assert.DoesNotMatch("(src|href)=\"(?!#|data:)", page);
        Assert.DoesNotContain("@import", page);
        var names = Name().Matches(page).Select(match => match.Groups[1].Value).ToList();
        Assert.Equal(names.Count, names.Distinct().Count());
        var links = Link().Matches(page).Select(match => match.Groups[1].Value).ToList();
        Assert.InRange(links.Count, 500, 100_000);
        Assert.Empty(links.Except(names));

        // Every figure of the report is a link, and the heading that it leads to leads back.
        var figures = Figure().Matches(page).Select(match => (match.Groups[1].Value, Target: match.Groups[2].Value)).ToList();
        Assert.InRange(figures.Count, 100, 300);
        Assert.All(figures, figure => Assert.Contains($"id=\"{figure.Target}\"><th scope=\"row\"><a href=\"#{figure.Value}\">", page));
    }

    [Fact]
    public void Tables_have_scopes_and_colours_can_be_told_apart_in_the_light_and_in_the_dark()
    {
        _tool.Run("show", "balance-sheet", "--book", "reedwater", "--to", "p.html").Done();
        var page = File.ReadAllText(_tool.PathOf("p.html"));
        Assert.Equal(page.Split("<tr class").Length - 1, page.Split("<th scope=\"row\"").Length - 1);
        Assert.Contains("<th scope=\"col\"", page);
        Assert.Contains("<html lang=\"en\">", page);
        Assert.Contains("tabindex=\"0\" role=\"region\" aria-label=\"Balance sheet\"", page);
        var schemes = Colours().Matches(page).Select(match => match.Groups[1].Value).Take(2).Select(text => Colour().Matches(text)
            .ToDictionary(match => match.Groups[1].Value, match => Luminance(match.Groups[2].Value))).ToList();
        Assert.Equal(2, schemes.Count);
        foreach (var scheme in schemes)
        {
            // WCAG 2.2 asks for 4.5 to 1 for text, and 3 to 1 for what is drawn.
            foreach (var (ink, paper, least) in new[] { ("ink", "paper", 7), ("ink", "band", 7), ("soft", "paper", 4.5),
                ("accent", "paper", 4.5), ("bad", "paper", 4.5), ("rule", "paper", 3.0) })
            {
                var (one, other) = (scheme[ink], scheme[paper]);
                Assert.True((Math.Max(one, other) + 0.05) / (Math.Min(one, other) + 0.05) >= least, $"{ink} on {paper}");
            }
        }
    }

    [Fact]
    public void In_a_browser_groups_fold_rows_are_found_and_lists_are_sorted_and_without_its_script_all_is_there()
    {
        _tool.Run("show", "open-invoices", "--as-of", "2026-05-31", "--book", "reedwater", "--to", "list.html").Done();
        _tool.Run("show", "profit-loss", "--period", "2026-05", "--book", "reedwater", "--to", "statement.html").Done();
        var plain = File.ReadAllText(_tool.PathOf("statement.html"));
        Assert.DoesNotContain("<tr hidden", plain);
        Assert.DoesNotContain("<button", plain);

        // A browser that is busy gives the page the focus, which the outline needs, only later.
        var statement = "";
        for (var tried = 0; tried < 3 && !statement.Contains("\"seen\":\"solid\"", StringComparison.Ordinal); tried++)
        {
            statement = InBrowser(
                plain,
                "const fold = document.querySelector('.fold'); fold.focus(); result({ seen: getComputedStyle(fold).outlineStyle }); "
                    + "fold.click(); const find = document.querySelector('input[type=search]'); result({ hidden: "
                    + "[...document.querySelectorAll('tbody tr')].filter(row => row.hidden).map(row => row.cells[0].innerText.trim()), "
                    + "folds: document.querySelectorAll('.fold').length, expanded: "
                    + "document.querySelector('.fold').getAttribute('aria-expanded') }); find.value = 'rent'; find.dispatchEvent(new "
                    + "Event('input')); result({ found: [...document.querySelectorAll('tbody tr')].filter(row => !row.hidden).map(row => "
                    + "row.cells[0].innerText.trim()) });");
        }

        Assert.Contains("\"hidden\":[\"Boats built to order\",\"Repairs\",\"Boat rentals\",\"Shop sales\"]", statement);
        Assert.Contains("\"expanded\":\"false\"", statement);
        Assert.Contains("\"seen\":\"solid\"", statement);
        Assert.Contains("\"found\":[\"Rent\"]", statement);

        var list = InBrowser(
            File.ReadAllText(_tool.PathOf("list.html")),
            "const heads = [...document.querySelectorAll('th button.sort')], head = heads.find(one => one.innerText === 'Open'); const "
                + "column = head.closest('th').cellIndex; const values = () => [...document.querySelectorAll('tbody "
                + "tr.record')].map(row => +row.cells[column].querySelector('data').value); head.focus(); const seen = "
                + "getComputedStyle(head).outlineStyle; head.click(); const up = values(); head.click(); const down = values(); "
                + "result({ sorts: heads.length, up: up.every((value, at) => at === 0 || up[at - 1] <= value), down: down.every((value,"
                + " at) => at === 0 || down[at - 1] >= value), count: up.length, label: head.closest('th').getAttribute('aria-sort'), "
                + "seen });");
        Assert.Matches("\"up\":true,\"down\":true,\"count\":[1-9][0-9]*,\"label\":\"descending\",\"seen\":\"solid\"", list);
    }

    [Fact]
    public void On_a_phone_the_page_is_no_wider_than_it()
    {
        _tool.Run("show", "profit-loss", "--period", "fy2026", "--by", "quarter", "--chart", "--book", "reedwater", "--to", "p.html")
            .Done();
        Assert.Contains(
            "\"wide\":false",
            InBrowser(
                File.ReadAllText(_tool.PathOf("p.html")), "result({ wide: document.documentElement.scrollWidth > innerWidth });",
                "--window-size=500,800"));
    }

    public void Dispose() => _tool.Dispose();

    // What the page's script made of it, told by one of ours behind it.
    private string InBrowser(string page, string script, params string[] more)
    {
        var told =
            $"<script>const told = []; const result = value => "
                + $"told.push(JSON.stringify(value)); {script} document.body.append(Object.assign(document.createElement('pre'), {{ "
                + $"id: 'told', textContent: told.join() }}));</script></body>";
        _tool.Write("browsed.html", page.Replace("</body>", told, StringComparison.Ordinal));
        var dom = Shell.Run(
            _tool.Folder, "chromium",
            ["--headless", "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking",
                "--disable-component-update", "--disable-sync", $"--user-data-dir={_tool.PathOf("browser")}",
                .. more, "--dump-dom", $"file://{_tool.PathOf("browsed.html")}"]);
        return System.Net.WebUtility.HtmlDecode(dom[dom.IndexOf("<pre id=\"told\">", StringComparison.Ordinal)..]);
    }

    private static double Luminance(string hex)
    {
        double Part(int at) => int.Parse(hex.AsSpan(at, 2), NumberStyles.HexNumber, CultureInfo.InvariantCulture) / 255.0 is var part
            && part <= 0.04045 ? part / 12.92 : Math.Pow((part + 0.055) / 1.055, 2.4);
        return (0.2126 * Part(0)) + (0.7152 * Part(2)) + (0.0722 * Part(4));
    }

    [GeneratedRegex(" id=\"([^\"]+)\"")]
    private static partial Regex Name();

    [GeneratedRegex("href=\"#([^\"]+)\"")]
    private static partial Regex Link();

    [GeneratedRegex("<a id=\"([^\"]+)\" href=\"#([^\"]+)\"><data")]
    private static partial Regex Figure();

    [GeneratedRegex(@":root \{([^}]*)\}")]
    private static partial Regex Colours();

    [GeneratedRegex("--([a-z]+): #([0-9a-f]{6})")]
    private static partial Regex Colour();
}
