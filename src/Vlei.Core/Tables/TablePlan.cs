using Vlei.Core.Fields;
using Vlei.Core.Problems;
using Vlei.Core.Reports;

namespace Vlei.Core.Tables;

/// <summary>What is made of the numbers of many rows.</summary>
internal enum Function
{
    /// <summary>Their sum.</summary>
    Sum,

    /// <summary>Nothing: each has its own, and they do not add up.</summary>
    Own,

    /// <summary>Their average.</summary>
    Average,

    /// <summary>How many there are.</summary>
    Count,

    /// <summary>The smallest.</summary>
    Min,

    /// <summary>The largest.</summary>
    Max,

    /// <summary>The sum so far, row by row.</summary>
    Running,

    /// <summary>The sum as a percentage of that of all rows.</summary>
    Share,

    /// <summary>The sum as a percentage of that of the group that the row stands in.</summary>
    GroupShare,
}

/// <summary>A column that is asked for, before it is known how many columns it becomes.</summary>
/// <param name="Key">The name by which machines know it.</param>
/// <param name="Heading">What stands above it.</param>
/// <param name="Fact">The field, where it says something of each row that is not added up.</param>
/// <param name="Measure">The place of the measure, where it is one.</param>
/// <param name="Function">What is made of it.</param>
internal sealed record PlannedColumn(string Key, string Heading, FieldIndex? Fact, int Measure, Function Function)
{
    /// <summary>Whether a person asked for it by name.</summary>
    public bool IsTyped { get; init; }

    /// <summary>The field, where it is a number of the records themselves.</summary>
    public TableField? Number { get; init; }
}

/// <summary>What is asked of a table, with every name looked up: which rows, which groups, which columns.</summary>
internal sealed class TablePlan
{
    private static readonly Dictionary<string, Function> Functions = new(StringComparer.OrdinalIgnoreCase)
    {
        ["sum"] = Function.Sum, ["average"] = Function.Average, ["count"] = Function.Count, ["min"] = Function.Min, ["max"] = Function.Max,
        ["running"] = Function.Running, ["share"] = Function.Share, ["group-share"] = Function.GroupShare,
    };

    private readonly TableDefinition _table;
    private readonly ReportRequest _request;
    private readonly TableContext _context;
    private readonly List<Measure> _measures = [];
    private readonly List<PlannedColumn> _columns = [];

    /// <summary>Looks everything up. Throws a <see cref="ProblemException"/> where the request makes no sense.</summary>
    public TablePlan(TableDefinition table, TableContext context, ReportRequest request)
    {
        (_table, _context, _request) = (table, context, request);
        Fields = new TableFields(table, context);
        RefuseFiguresOfMovements();
        Selection = Selection.Of(request.Choices, request.Where, Fields, context);
        IsCross = request.By is not null || request.List.Measures.Count > 0;
        RefuseWhatDoesNotFit();
        Groups =
            [.. request.List.GroupBy
                .Select(name => new FieldIndex(Fields.Gathering(name), context.Calendar))];
        Across = request.By is { } by ? new FieldIndex(Fields.Gathering(by.Name), context.Calendar) : null;
        HasRecords = !IsCross && !request.Summary && request.Compare.Count == 0 && !request.HasBothBases
            && (request.Depth is not { } depth || depth > Groups.Count);
        AddColumns();
    }

    /// <summary>The book.</summary>
    public TableContext Context => _context;

    /// <summary>The fields of the table.</summary>
    public TableFields Fields { get; }

    /// <summary>Which rows are taken.</summary>
    public Selection Selection { get; }

    /// <summary>What rows are grouped by, from the outermost.</summary>
    public IReadOnlyList<FieldIndex> Groups { get; }

    /// <summary>What columns are spread over; nothing for no such field.</summary>
    public FieldIndex? Across { get; }

    /// <summary>Whether the rows of the table have rows of their own, rather than groups alone.</summary>
    public bool HasRecords { get; }

    /// <summary>Whether rows and columns are both values of fields.</summary>
    public bool IsCross { get; }

    /// <summary>How many levels of groups are shown.</summary>
    public int Depth => Math.Min(_request.Depth ?? Groups.Count, Groups.Count);

    /// <summary>What is added up.</summary>
    public IReadOnlyList<Measure> Measures => _measures;

    /// <summary>The columns that are asked for.</summary>
    public IReadOnlyList<PlannedColumn> Columns => _columns;

    /// <summary>Whether rows are grouped by a field of that name.</summary>
    public bool IsGroupedBy(string field) =>
        Groups.Any(index => index.Bound.Field.Name.Equals(field, StringComparison.OrdinalIgnoreCase));

    /// <summary>Whether a measure is added up at all, rather than only shown of each record.</summary>
    public bool IsAdded(int measure) =>
        _columns.Exists(column => column.Fact is null && column.Measure == measure && column.Function != Function.Own)
        || _measures.Exists(other => other.Quotient?.Fields.Any(field => field.Field.Name == _measures[measure].Key) == true);

    /// <summary>What a quotient comes to, where the sums of its fields are known.</summary>
    public long? QuotientOf(Measure measure, Func<int, long?> sumOf) => measure.Quotient is { } formula
        && formula.ValueOf(field => sumOf(_measures.FindIndex(known => known.Key == field.Field.Name))) is { } value
        ? ReckonedField.UnitsOf(value, measure.Decimals) : null;

    // A predicate on records takes records out before anything is added up: what is left would be no balance.
    private void RefuseFiguresOfMovements()
    {
        var asked = _request.Where.SelectMany(
            predicate => Naming.Of(predicate.Source, () => Predicate.Parse(predicate.Text).Compares.ToList()))
            .Concat(_request.Choices.Select(choice => choice.Field)).ToList();
        if (_table.IsOfMovements && asked.Find(name => Fields.Has(name) && Fields.Named(name).Field.AddsUp) is { } figure)
        {
            throw new ProblemException(
                ProblemKind.Usage,
                $"{figure} is what each movement of {_table.Name} adds; to leave some out would make a false balance.",
                $"Ask it of what they come to: --having \"{figure} > 10\".");
        }
    }

    private void RefuseWhatDoesNotFit()
    {
        if (IsCross && (_request.Columns.Count > 0 || _request.List.Totals.Count > 0 || _request.Detail))
        {
            var other = _request.Detail ? ReportOptions.Detail : _request.Columns.Count > 0 ? ReportOptions.Columns
                : ReportOptions.Total;
            throw new ProblemException(
                ProblemKind.Usage, $"--by and --measure make a cross-table of groups, which has no --{other.Name}.",
                "Say with --measure what its cells add up, as --measure amount,count, or leave --by and --measure out.");
        }

        if (!IsCross && (_request.Compare.Count > 0 || _request.HasBothBases) && !_request.Summary)
        {
            throw new ProblemException(
                ProblemKind.Usage, _request.HasBothBases ? "Single records are of one basis each; groups of them stand side by side."
                    : "Single records are not compared; groups of them are.", "Add --group-by with a field, and --summary.");
        }

        if (_request.Compare.Count > 0 && _request.HasBothBases)
        {
            throw new ProblemException(
                ProblemKind.Usage, "--basis both has a column beside each already, and so has --compare.",
                "Take one of the two, with --basis accrual or cash.");
        }

        if (_request.Change && _request.Compare.Count == 0 && !_request.HasBothBases)
        {
            throw new ProblemException(
                ProblemKind.Usage, "--change needs something to compare with.", "Add --compare prior-period or prior-year.");
        }

        if (_request.Summary && _request.Detail)
        {
            throw new ProblemException(
                ProblemKind.Usage, "--detail shows the records, --summary the groups without them.", "Give one of them.");
        }

        if (_request.Summary && _request.List.GroupBy.Count == 0 && !IsCross)
        {
            throw new ProblemException(
                ProblemKind.Usage, "--summary shows groups alone, and there are none.", "Add --group-by with a field.");
        }

        foreach (var percent in _request.Shares.Where(percent => percent is ShareOf.Income or ShareOf.Assets))
        {
            throw new ProblemException(
                ProblemKind.Usage, $"--share {ReportOptions.NameOf(percent)} is for statements.",
                "Take --share column, the share of the total, group, of the group, row, of the row's total, or whole.");
        }
    }

    private void AddColumns()
    {
        if (IsCross)
        {
            var measures = _request.List.Measures.Count > 0 ? _request.List.Measures
                : [MainFigure() ?? new ColumnText(null, _table.MainFigure ?? Measure.Rows.Key, null)];
            foreach (var column in measures.Select(Planned))
            {
                _columns.Add(column.Fact is null ? column : throw new ProblemException(
                    ProblemKind.Usage, $"{column.Key} is no number, and --measure adds numbers up.",
                    $"Take one of {NumbersInWords()}, or count."));
            }
        }
        else
        {
            _columns.AddRange(
                ColumnLists.Applied(
                    Usual, _request.Columns.Select(list => list.Select(Undated).ToList()), [.. _request.List.Usual.Select(WithHeading)])
                .Select(column => Planned(column) with { IsTyped = IsTyped(column) }));
            _columns.AddRange(_request.List.Totals.Select(Planned).Where(column => _columns.TrueForAll(known => known.Key != column.Key)));
        }

        if (!HasRecords && !IsCross)
        {
            // Groups have no dates and texts but those of the record that they are grouped by; that itself stands before them.
            _columns.RemoveAll(
                column => !column.IsTyped && (column.Function == Function.Own || (column.Fact is { } fact && !Groups.Any(group =>
                fact.Bound.Field.Name.StartsWith($"{group.Bound.Field.Name}.", StringComparison.OrdinalIgnoreCase)))));
        }
        else if (HasRecords)
        {
            // What a usual column says stands above the records already, where they are grouped by it.
            var groups = Groups.Select(group => group.Bound.Field.Name).ToHashSet(StringComparer.OrdinalIgnoreCase);
            _columns.RemoveAll(column => !column.IsTyped && column.Fact is { } fact && groups.Contains(fact.Bound.Field.Name));
        }

        if (_columns.Count == 0)
        {
            _columns.Add(Planned(new ColumnText(null, Measure.Rows.Key, null)));
        }

        foreach (var field in _measures.ToList().SelectMany(measure => measure.Quotient?.Fields ?? []))
        {
            _ = PlaceOf(Measure.Of(field));
        }
    }

    // Of the columns that the report usually has, that of the table's main figure, else the first that adds money up, else anything.
    private ColumnText? MainFigure()
    {
        var sums = _request.List.Usual.Where(column => column.Function is null && column.Text != Measure.Rows.Key)
            .Select(column => (Column: column, Measure: NumberOf(column.Text)))
            .Where(known => known.Measure is { AddsUp: true }).ToList();
        return sums.OrderBy(known => known.Column.Text == _table.MainFigure ? 0 : known.Measure!.Kind == ColumnKind.Money ? 1 : 2)
            .FirstOrDefault().Column;
    }

    private Measure? NumberOf(string text) => !Fields.Has(Plain(text)) ? MeasureOf(text)
        : Fields.Named(Plain(text)) is { Field.IsNumber: true } field ? Measure.Of(field) : null;

    private IReadOnlyList<ColumnText> Usual =>
        [.. ColumnText.Parse(ReportOptions.Columns.Name, string.Join(',', _table.Columns)).Select(WithHeading)];

    // A column is known by its heading too, and keeps it.
    private ColumnText WithHeading(ColumnText column) => column.Heading is null && Fields.Has(Plain(column.Text))
        ? column with { Heading = Fields.Named(Plain(column.Text)).Field.Heading } : column;

    // Beside earlier days a heading says of which each is; the column is the same.
    private ColumnText Undated(ColumnText typed) => _request.Compare.Count > 0 && !Fields.Has(Plain(typed.Text))
        && Usual.Concat(_request.List.Usual.Select(WithHeading)).FirstOrDefault(column => column.Heading is { } heading
            && typed.Text.StartsWith($"{heading} ", StringComparison.OrdinalIgnoreCase)) is { } column
        ? typed with { Text = column.Text, Heading = typed.Heading ?? column.Heading } : typed;

    // What a person typed is there, whatever is in it.
    private bool IsTyped(ColumnText column) => _request.TypedColumns.Any(name =>
        name.Equals(column.Text, StringComparison.OrdinalIgnoreCase) || name.Equals(column.Heading, StringComparison.OrdinalIgnoreCase)
        || Undated(new ColumnText(null, name, null)).Text.Equals(column.Text, StringComparison.OrdinalIgnoreCase));

    private PlannedColumn Planned(ColumnText column)
    {
        if (column.Text.Equals(Measure.Rows.Key, StringComparison.OrdinalIgnoreCase))
        {
            return new PlannedColumn(Measure.Rows.Key, column.Heading ?? Measure.Rows.Heading, null, PlaceOf(Measure.Rows), Function.Sum);
        }

        if (column.Function is { } call)
        {
            return Called(column, call.Name, call.Of);
        }

        if (Fields.Has(Plain(column.Text)))
        {
            var field = Fields.Named(Plain(column.Text));
            return field.Field.IsNumber
                ? new PlannedColumn(
                    field.Field.Name, column.Heading ?? field.Field.Heading, null, PlaceOf(Measure.Of(field)), field.Field.AddsUp
                        ? Function.Sum : Function.Own)
                { Number = field.Field }
                : new PlannedColumn(
                    field.Field.Name, column.Heading ?? field.Field.Heading, new FieldIndex(field, _context.Calendar), -1, Function.Sum);
        }

        var measure = MeasureOf(column.Text);
        return new PlannedColumn(measure.Key, column.Heading ?? measure.Heading, null, PlaceOf(measure), Function.Sum);
    }

    private PlannedColumn Called(ColumnText column, string name, string of)
    {
        if (!Functions.TryGetValue(name, out var function))
        {
            throw new ProblemException(
                ProblemKind.Usage, $"There is no function {name}.",
                Suggestion.DidYouMean(name, Functions.Keys) ?? Suggestion.ThereAre([.. Functions.Keys]));
        }

        var measure = Fields.Has(Plain(of)) && Fields.Named(Plain(of)) is { Field.IsNumber: false } field
            ? throw new ProblemException(
                ProblemKind.Usage, $"{name} is of numbers, and {field.Field.Name} is a {field.Field.TypeName}.",
                $"Take {NumbersInWords()}.")
            : MeasureOf(of);
        var heading = function switch
        {
            Function.Sum => measure.Heading,
            Function.Running => "Running",
            Function.Share => "Share of column",
            Function.GroupShare => "Share of group",
            Function.Count => "Count",
            _ => $"{TableField.HeadingOf(name)} {measure.Heading.ToLowerInvariant()}",
        };
        return new PlannedColumn($"{name}({measure.Key})", column.Heading ?? heading, null, PlaceOf(measure), function);
    }

    private Measure MeasureOf(string text)
    {
        if (text.Equals(Measure.Rows.Key, StringComparison.OrdinalIgnoreCase))
        {
            return Measure.Rows;
        }

        var formula = Formula.Parse(text) ?? throw new ProblemException(
            ProblemKind.Usage, text.Length > Formula.MostLetters ? $"A formula has no more than {Formula.MostLetters} letters."
                : $"\"{text}\" is neither a field nor a formula.",
            "Write fields, numbers, + - * / with blanks around them, and brackets: amount * 0.05:Rebate.");
        return formula is Formula.Named named ? Measure.Of(Fields.Named(named.Name))
            : formula.Names.Any() ? Measure.Of(text, formula, Fields, _context.Currency.Decimals)
            : throw new ProblemException(
                ProblemKind.Usage, $"\"{text}\" has no field in it.", "Reckon with a field: amount * 0.05:Rebate.");
    }

    private int PlaceOf(Measure measure)
    {
        var place = _measures.FindIndex(known => known.Key == measure.Key);
        if (place < 0)
        {
            _measures.Add(measure);
        }

        return place < 0 ? _measures.Count - 1 : place;
    }

    private string NumbersInWords() =>
        Suggestion.Listed([.. Fields.All().Where(field => field.IsNumber).Select(field => field.Name).Take(8)], "or");

    private static string Plain(string text) => text.Length > 2 && text[0] == '"' && text[^1] == '"' ? text[1..^1] : text;
}
