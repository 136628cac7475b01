using Vlei.Core.Reports;
using Vlei.Desk;
using Vlei.Output;

namespace Vlei.Browse;

/// <summary>A key, and what it does.</summary>
/// <param name="Name">What is said of it.</param>
/// <param name="Meaning">What it does, for help.</param>
/// <param name="Is">Whether a key that was typed is it.</param>
/// <param name="Do">What it does; says whether the walk goes on.</param>
internal sealed record Key(string Name, string Meaning, Predicate<ConsoleKeyInfo> Is, Func<Walk, Screen, bool> Do);

/// <summary>Every key of the viewer: what help says of it stands beside what it does.</summary>
internal static class KeyTable
{
    private static readonly (string Heading, Key[] Keys)[] Parts =
    [
        ("Moving",
        [
            Move("↑ ↓ ← →", "The next cell", ConsoleKey.UpArrow, (-1, 0)), Move("", "", ConsoleKey.DownArrow, (1, 0)),
            Move("", "", ConsoleKey.LeftArrow, (0, -1)), Move("", "", ConsoleKey.RightArrow, (0, 1)),
            Of(ConsoleKey.PageUp, "PgUp PgDn", "A page up or down", walk => Go(walk, walk.Here.Row - walk.RowsInSight, walk.Here.Column)),
            Of(ConsoleKey.PageDown, "", "", walk => Go(walk, walk.Here.Row + walk.RowsInSight, walk.Here.Column)),
            Of(ConsoleKey.Home, "Home End", "The first, the last row", walk => Go(walk, 0, walk.Here.Column)),
            Of(ConsoleKey.End, "", "", walk => Go(walk, int.MaxValue, walk.Here.Column)),
            Letter('/', "Find words or a figure", (walk, screen) => Sought(walk, walk.Ask(screen, "Find"))),
            Letter('n', "The next place (N before)", walk => Find(walk, backwards: false)),
            Letter('N', "", walk => Find(walk, backwards: true)),
        ]),
        ("Into a figure, and back",
        [
            Of(ConsoleKey.Enter, "Enter", "What is behind it", walk => walk.OpenBehind()),
            Of(ConsoleKey.Escape, "Esc", "Back", walk => Back(walk)),
            Of(ConsoleKey.Backspace, "", "", walk => Back(walk)),
            Letter('f', "Fold a row (F all rows)",
                walk => Folded(walk, walk.Here.Folds.Toggled(walk.Here.RowPlace))),
            Letter('F', "", walk => Folded(walk, walk.Here.Folds.AllToggled())),
        ]),
        ("Asking for something else",
        [
            Asked('p', "The period", "Period", OptionOfDays),
            Letter('[', "The one before (] after)", walk => Shift(walk, -1)),
            Letter(']', "", walk => Shift(walk, 1)),
            Letter('b', "Accrual, cash, both bases",
                walk => walk.Change(order => order.OnNextBasis(walk.Here.Table.Report.Basis))),
            Asked('v', "Compare: prior-year …", "Compare with", _ => ReportOptions.Compare),
            Letter('d', "With the change, or without", walk => walk.Change(order => order.Switched(ReportOptions.Change))),
            Asked('t', "A column for each: month …", "A column for each", _ => ReportOptions.By),
            Asked('g', "Groups: contact,month …", "Group by", _ => ReportOptions.GroupBy),
            Asked('k', "Which columns, in order", "Columns", _ => ReportOptions.Columns),
            Letter('s', "In the order of this column", walk => walk.Change(order => order.SortedBy(ColumnOf(walk)))),
            Letter('o', "Only what this cell says", walk => Narrow(walk, ReportOptions.Only)),
            Letter('x', "Without what this cell says", walk => Narrow(walk, ReportOptions.Except)),
            Letter(':', "Any option, typed: top 5", (walk, screen) =>
                Answered(walk.Ask(screen, "Option"), typed => walk.Change(order => order.WithTyped(typed)))),
            Letter('u', "Undo the last change", walk => walk.Undo()),
        ]),
        ("Taking it along",
        [
            Letter('c', "Copy the command below", (walk, screen) =>
            {
                screen.Copy(walk.Here.Command);
                walk.Said = "Copied, as far as this terminal lets programs do so.";
            }),
            Letter('w', "Keep it under a name", (walk, screen) => Answered(walk.Ask(screen, "Keep it as"), name => Keep(walk, name))),
            Letter('e', "Write it to a file: a.xlsx", (walk, screen) =>
                Answered(walk.Ask(screen, "Write it to"), file => Export(walk, file))),
            Letter('?', "This page", (_, screen) => Walk.Show(screen, Help)),
            new("q", "Leave", key => key.KeyChar == 'q' || (key.Key == ConsoleKey.C && key.Modifiers.HasFlag(ConsoleModifiers.Control)),
                (_, _) => false),
        ]),
    ];

    /// <summary>What a key does; nothing where it does nothing.</summary>
    public static Key? Find(ConsoleKeyInfo typed) => Parts.SelectMany(part => part.Keys).FirstOrDefault(key => key.Is(typed));

    // In two columns where there is room, so that a small terminal holds it.
    private static List<string> Help(int width)
    {
        const int NameWidth = 11;
        const int Half = 2;
        var parts = Parts.Select(part => part.Keys.Where(key => key.Name.Length > 0)
            .Select(key => $"  {key.Name.PadRight(NameWidth)}{key.Meaning}").Prepend(part.Heading).ToList()).ToList();
        List<string> left = [.. parts[0], "", .. parts[1], "", .. parts[3]];
        var right = parts[2];
        if (width < 2 * left.Concat(right).Max(DisplayText.Width))
        {
            return [.. parts.SelectMany(part => part.Append(""))];
        }

        return [.. Enumerable.Range(0, Math.Max(left.Count, right.Count)).Select(line =>
            (left.ElementAtOrDefault(line) ?? "").PadRight(width / Half) + right.ElementAtOrDefault(line))];
    }

    private static Key Of(ConsoleKey key, string name, string meaning, Action<Walk> work) =>
        new(name, meaning, typed => typed.Key == key, (walk, _) => Done(() => work(walk)));

    private static Key Letter(char letter, string meaning, Action<Walk> work) => Letter(letter, meaning, (walk, _) => work(walk));

    private static Key Letter(char letter, string meaning, Action<Walk, Screen> work) =>
        new(
            meaning.Length == 0 ? "" : letter.ToString(), meaning, typed => typed.KeyChar == letter,
            (walk, screen) => Done(() => work(walk, screen)));

    private static Key Move(string name, string meaning, ConsoleKey key, (int Rows, int Columns) by) =>
        Of(key, name, meaning, walk => Go(walk, walk.Here.Row + by.Rows, walk.Here.Column + by.Columns));

    private static Key Asked(char letter, string meaning, string question, Func<Walk, ReportOption> optionOf) =>
        Letter(letter, meaning, (walk, screen) =>
        {
            var option = optionOf(walk);
            if (walk.Ask(screen, question, option.Repeatable ? "" : walk.Asked.TextOf(option)) is { } text)
            {
                walk.Change(order => order.With(option, text));
            }
        });

    private static bool Done(Action work)
    {
        work();
        return true;
    }

    private static void Answered(string? answer, Action<string> work)
    {
        if (answer is { Length: > 0 })
        {
            work(answer);
        }
    }

    private static ReportOption OptionOfDays(Walk walk) =>
        walk.Here.Open?.Definition.Options.Contains(ReportOptions.AsOf) == true ? ReportOptions.AsOf : ReportOptions.Period;

    private static void Go(Walk walk, int row, int column) => walk.Here.GoTo(row, column);

    private static void Back(Walk walk) => walk.Said = walk.GoBack() ? null : "This is where you began; q leaves.";

    private static void Folded(Walk walk, Folds folds)
    {
        var (here, place) = (walk.Here, walk.Here.RowPlace);
        here.Folds = folds;
        here.GoTo(folds.ShownAt(place), here.Column);
    }

    private static void Shift(Walk walk, int by) =>
        walk.Change(order => order.InAnotherPeriod(walk.Here.Open!, walk.Here.Table.Report, by));

    private static void Narrow(Walk walk, ReportOption option)
    {
        var condition = ValueHere.Of(walk.Here);
        walk.Change(order => order.With(option, condition));
    }

    private static string ColumnOf(Walk walk) =>
        walk.Here.ColumnPlace is { } column ? walk.Here.Table.Report.Columns[column].Key : "name";

    private static void Sought(Walk walk, string? words)
    {
        if (words is { Length: > 0 })
        {
            walk.Sought = words;
            Find(walk, backwards: false);
        }
    }

    private static void Find(Walk walk, bool backwards)
    {
        if (walk.Sought.Length > 0 && !walk.Here.Find(walk.Sought, backwards))
        {
            walk.Said = $"\"{walk.Sought}\" is nowhere in this report.";
        }
    }

    private static void Keep(Walk walk, string name) =>
        walk.Said = walk.Vlei.Run($"vlei save {OptionText.Quoted(name)} --from {OptionText.Of(walk.Asked)}{walk.TypedOptions}");

    private static void Export(Walk walk, string file)
    {
        _ = walk.Vlei.Run(walk.Here.Command, "--to", file);
        walk.Said = $"{file} is written.";
    }
}
