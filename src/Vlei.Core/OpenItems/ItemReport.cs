using Vlei.Core.Calendar;
using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Core.Tables;

namespace Vlei.Core.OpenItems;

/// <summary>
/// What all reports of open items have in common: the items of one type of control account, which of them are taken, in
/// which order, and the frame around the rows.
/// </summary>
internal sealed class ItemReport
{
    private const string Oldest = "oldest";
    private const string Contact = "contact";
    private const string Account = "account";

    // What open documents are chosen by that is not said by their postings.
    private static readonly string[] OfDocuments =
        ["date", "due", "total", "settled", "open", "days-late", "side", "promised", "disputed", "promise"];

    private readonly ReportDefinition _definition;
    private readonly ReportContext _context;
    private readonly ReportRequest _request;
    private readonly Selection _filter;
    private readonly Selection _documents;

    /// <summary>Reads the items up to a day.</summary>
    /// <param name="definition">The report.</param>
    /// <param name="context">The book.</param>
    /// <param name="request">What is asked.</param>
    /// <param name="type">Receivable or payable.</param>
    /// <param name="until">The last day that is needed.</param>
    public ItemReport(ReportDefinition definition, ReportContext context, ReportRequest request, AccountType type, DateOnly until)
    {
        (_definition, _context, _request) = (definition, context, request);
        var (ofDocuments, ofPostings) =
            (request.Choices.Where(IsOfDocuments).ToList(), request.Choices.Where(choice => !IsOfDocuments(choice)));
        _filter = new PostingFields(context, request).Select([.. ofPostings], [], OfDocuments);
        _documents = ofDocuments.Count + request.Where.Count == 0 ? Selection.Everything : DocumentsIn(ofDocuments);
        History = ControlHistory.Of(context.Ledger, type, until);
    }

    /// <summary>The items.</summary>
    public ControlHistory History { get; }

    /// <summary>Whether no item is left out.</summary>
    public bool IsEverything => _filter.IsEverything && _documents.IsEverything && _request.Having.Count == 0;

    /// <summary>
    /// A report of balances, marked where it leaves out documents of contacts that it shows: then they are none.
    /// </summary>
    public Report OfBalances(Report report) =>
        _documents.IsEverything && _filter.Columns is { } columns
            && columns.All(column => column is PostingField.Contact or PostingField.Account) ? report : report.InPart();

    /// <summary>The day that is asked for, then each that it is compared with; and what readers are told of those left out.</summary>
    public static (IReadOnlyList<DateOnly> Days, IReadOnlyList<string> Notes) Days(ReportContext context, ReportRequest request)
    {
        var period = DayOf(context, request);
        if (request.Change && request.Compare.Count == 0)
        {
            throw new ProblemException(
                ProblemKind.Usage, "--change needs something to compare with.", "Add --compare prior-period, or a day.");
        }

        if (request.Compare.Any(comparison => comparison.Kind == ComparisonKind.Budget))
        {
            throw new ProblemException(
                ProblemKind.Usage, "What is open has no budget.", "Compare with prior-period, prior-year or a day.");
        }

        var compared = ComparedPeriods.Of(context, request, period, [period.Range], null, isOfMoment: true);
        return ([period.Range.To, .. compared.Earlier.Select(earlier => earlier.Pieces[^1].To)], compared.Notes);
    }

    /// <summary>The day that is asked for, with the period that it ends; today where nothing is asked.</summary>
    public static Period DayOf(ReportContext context, ReportRequest request) =>
        (request.Period ?? new OpenPeriod(context.Today.Date, context.Today.Date)).Within(context.Records);

    /// <summary>The items that are taken and open on any of the days; what is asked of them is asked as of the first.</summary>
    public int[] Taken(IReadOnlyList<Aging> agings)
    {
        var isOpen = new bool[History.Count];
        foreach (var aging in agings)
        {
            var open = aging.OpenOfEach.AsSpan();
            for (var item = 0; item < isOpen.Length; item++)
            {
                isOpen[item] |= !open[item].IsZero;
            }
        }

        return Narrowed(agings[0].Day) is { } narrowed ? Array.FindAll(narrowed, item => isOpen[item]) : PlacesOf(isOpen);
    }

    // They are counted first: there are hundreds of thousands of them.
    private static int[] PlacesOf(ReadOnlySpan<bool> taken)
    {
        var (places, found) = (new int[taken.Count(true)], 0);
        for (var place = 0; found < places.Length; place++)
        {
            if (taken[place])
            {
                places[found++] = place;
            }
        }

        return places;
    }

    /// <summary>The items that are taken, open or not, by what they are on the last day.</summary>
    public int[] Taken() => Narrowed(History.Until) ?? Everything();

    // The items that are asked for, by what they are on a day; nothing where all are.
    private int[]? Narrowed(DateOnly day)
    {
        var (taken, items) = (History.TakenBy(_filter), default(int[]));
        if (!_documents.IsEverything)
        {
            items = _documents.Taken(RowsOn(day, Everything())).Places is { } places ? [.. places] : null;
        }

        return taken is null ? items : Array.FindAll(items ?? Everything(), item => taken[item]);
    }

    private int[] Everything() => [.. Enumerable.Range(0, History.Count)];

    /// <summary>What each contact has, in the order of names; what has no contact is last.</summary>
    public IReadOnlyList<ItemGroup> ByContact() => GroupedBy([Contact], Taken()).Parts;

    /// <summary>
    /// The groups that are asked for, in the order that is asked for, without those whose figures are not; where only the first
    /// few are asked for, the others together behind them. Throws a <see cref="ProblemException"/> for an order that there is not.
    /// </summary>
    /// <param name="items">The items.</param>
    /// <param name="table">The table that the groups go into.</param>
    /// <param name="total">The place of the column that says which rows are the largest.</param>
    /// <param name="aging">What says which are the oldest, where they have an age.</param>
    /// <param name="isShown">Whether an innermost group has a row; all have one where it is nothing.</param>
    public ItemGroup Grouped(
        int[] items, ItemTable table, int total, Aging? aging = null, Func<ItemGroup, bool>? isShown = null)
    {
        RefuseBothDetailAndSummary();
        var columns = table.Columns;
        SortOrder.Refuse(_request.Sort, columns.Shown, [RowOrder.Name, .. aging is null ? Array.Empty<string>() : [Oldest]]);
        var all = GroupedBy(Fields, items);
        if (all.Parts.Count > 0 && (isShown is not null || _request.Having.Count > 0))
        {
            all = all.Only(Kept([.. all.Innermost.Where(group => isShown?.Invoke(group) != false)], table));
        }

        var sorted = Sorted(all, columns, RowOrder.Keys(_request, columns[total].Shown.Key), table, aging);
        return _request.Top is not { } top || sorted.Parts.Count <= top ? sorted : sorted.With(
        [
            .. sorted.Parts.Take(top),
            RestOf(ItemGroup.Joined([.. sorted.Parts.Skip(top).Select(group => group.Items)]), sorted.Parts.Count - top),
        ]);
    }

    /// <summary>Adds a row for each innermost group, with headings and totals around those that lie in others.</summary>
    /// <param name="groups">The groups.</param>
    /// <param name="table">The table.</param>
    /// <param name="addInnermost">Adds innermost groups, one after the other, that lie in so many others.</param>
    public static void AddRows(ItemGroup groups, ItemTable table, Action<IReadOnlyList<ItemGroup>, int> addInnermost)
    {
        Add(groups.Parts, 0);

        void Add(IReadOnlyList<ItemGroup> parts, int level)
        {
            if (parts.All(part => part.Parts.Count == 0))
            {
                addInnermost(parts, level);
                return;
            }

            foreach (var part in parts)
            {
                if (part.Parts.Count == 0)
                {
                    addInnermost([part], level);
                }
                else
                {
                    table.AddAround(part, level, () => Add(part.Parts, level + 1));
                }
            }
        }
    }

    /// <summary>
    /// The values of a field that items have, in their order, and which items have each. Throws a <see cref="ProblemException"/>
    /// where there is no such field, or where they are too many.
    /// </summary>
    public IReadOnlyList<(string Key, string Heading, Func<int, bool> Has)> SpreadOver(string field, int[] items)
    {
        var index = IndexOf(field);
        var numbers = index.NumbersOf(RowsOf(items));
        var values = new long[History.Count];
        for (var place = 0; place < numbers.Length; place++)
        {
            values[items[place]] = numbers[place];
        }

        var distinct = numbers.Distinct().Order(Comparer<long>.Create(index.Compare)).ToList();
        index.RefuseTooManyColumns(distinct.Count);
        return [.. distinct.Select(value => (
            index.KeyOf(value), index.LabelOf(value), (Func<int, bool>)(item => values[item] == value)))];
    }

    private static ItemGroup RestOf(ArraySegment<int> items, int count) => new([RowOrder.Rest], RowOrder.RestLabel(count), items);

    // What groups are made by where nothing is said: control accounts where a row for each alone is wanted, else contacts.
    private IReadOnlyList<string> Fields => _request.List.IsUngrouped ? []
        : _request.List.GroupBy.Count > 0 ? _request.List.GroupBy
        : [_request.Summary ? Account : Contact];

    private FieldIndex IndexOf(string field) => new(
        new TableFields(DocumentTables.OpenItems, TableReport.ContextOf(DocumentTables.OpenItems, _context, _request)).Gathering(field),
        _context.Calendar);

    // Items as rows of open items, as of the day that is asked for.
    private RowSet RowsOf(int[] items) => new(RowsOn(DayOf(_context, _request).Range.To, items));

    private RowBlock RowsOn(DateOnly day, int[] items) => DocumentTables.BlockOf(
        TableReport.ContextOf(DocumentTables.OpenItems, _context, _request), History, day, items, _request.Items.AgesByDocument);

    private ItemGroup GroupedBy(IReadOnlyList<string> fields, int[] items)
    {
        var tree = new GroupTree([.. fields.Select(IndexOf)]);
        return ItemGroup.Of(tree, items, tree.Of(RowsOf(items)));
    }

    private HashSet<ItemGroup> Kept(IReadOnlyList<ItemGroup> groups, ItemTable table)
    {
        if (Having(table.Columns.Shown) is { } having)
        {
            table.Whole = ItemRow.Of(ItemGroup.Joined([.. groups.Select(group => group.Items)]));
            groups = having.Taken(groups, (group, column) => table.Table.CellAt(
                new FigureRow<ItemRow>("", "", RowKind.Account, 0, ItemRow.Of(group.Items)), column));
        }

        return groups.ToHashSet<ItemGroup>(ReferenceEqualityComparer.Instance);
    }

    private static ItemGroup Sorted(
        ItemGroup group, FigureColumns<OwnFigure<ItemRow>> columns, IReadOnlyList<SortOrder> keys, ItemTable table, Aging? aging)
    {
        if (group.Parts.Count == 0 || keys.Count == 0)
        {
            return group;
        }

        return group.With(RowOrder.Sorted(
            [.. group.Parts.Select(part => Sorted(part, columns, keys, table, aging))], keys, key =>
        {
            var column = ColumnNames.PlaceOf(key, columns.Shown);
            return key == RowOrder.Name ? part => Cell.Of(part.Name.English)
                : key == Oldest ? part => new Cell(OldestOf(part))
                : part => table.CellOf(ItemRow.Of(part.Items), column);
        }));

        int OldestOf(ItemGroup part) =>
            part.Items.Where(item => aging!.Open(item).Sign > 0).Select(aging!.DaysLate).DefaultIfEmpty(int.MinValue).Max();
    }

    private void RefuseBothDetailAndSummary()
    {
        if (_request.Summary && _request.Detail)
        {
            throw new ProblemException(
                ProblemKind.Usage, "--detail shows the documents, --summary the groups without them.", "Give one of them.");
        }
    }

    /// <summary>
    /// Adds a row for each document in the order that is asked for, without those whose figures are not; where only the first few
    /// are asked for, the others together behind them. Throws a <see cref="ProblemException"/> for an order that there is not.
    /// </summary>
    /// <param name="items">The documents.</param>
    /// <param name="table">The table that they go into.</param>
    /// <param name="usual">The column that they are ordered by where nothing is asked for.</param>
    public void AddDocuments(int[] items, ItemTable table, string usual)
    {
        SortOrder.Refuse(_request.Sort, table.Columns.Shown);
        if (Having(table.Columns.Shown) is { } having)
        {
            table.Whole = ItemRow.Of(items);
            items = [.. having.Taken(items, (item, column) => table.Table.CellAt(
                new FigureRow<ItemRow>("", "", RowKind.Record, 0, ItemRow.OfOne(item)), column))];
        }

        items = Sorted(items, table, _request.Sort.Count > 0 ? _request.Sort : [new SortOrder(usual, Downwards: false)]);
        var shown = Math.Min(_request.Top ?? items.Length, items.Length);
        table.AddEach(new ArraySegment<int>(items, 0, shown), 0);
        if (shown < items.Length)
        {
            table.AddGroups([RestOf(new ArraySegment<int>(items, shown, items.Length - shown), items.Length - shown)], 0);
        }
    }

    /// <summary>The documents of a group in the order that is asked for; where that says nothing of them, as they are.</summary>
    public int[] Within(int[] items, ItemTable table) => Sorted(items, table, _request.Sort);

    private static int[] Sorted(int[] items, ItemTable table, IReadOnlyList<SortOrder> keys) =>
    [
        .. RowOrder.Sorted(items, keys, key => ColumnNames.PlaceOf(key, table.Columns.Shown) is >= 0 and var column
            ? item => table.CellOf(ItemRow.OfOne(item), column) : null),
    ];

    /// <summary>The report without its rows.</summary>
    public Report Frame(string periodInWords) =>
        FrameOf(DayOf(_context, _request).Range, isOfMoment: true) with { PeriodInWords = periodInWords };

    /// <summary>The report of a period without its rows.</summary>
    public Report Frame(DateRange range) => FrameOf(range, isOfMoment: false);

    private Report FrameOf(DateRange range, bool isOfMoment) => ReportFrame.Of(
        _definition.Key, _definition.Title, _context, _request, range, isOfMoment, AccountingBasis.Accrual) with
    {
        Narrowed = [.. _filter.InWords, .. _documents.InWords, .. _request.Having.Select(predicate => $"Having {predicate.Text}")],
        Notes =
        [
            .. _context.NotesOnSettlements,
            .. History.Until < _context.Records.From
                ? new[] { $"The first record is of {PeriodText.Words(_context.Records.From)}: nothing was there before." } : [],
        ],
    };

    private RowCondition? Having(IReadOnlyList<ReportColumn> columns) => RowCondition.Of(
        _request.Having, columns, TableReport.ContextOf(DocumentTables.OpenItems, _context, _request));

    /// <summary>That sums of items are what the control accounts come to at the end of days; nothing where items are left out.</summary>
    public IReadOnlyList<ReportCheck> TiesToControl(IEnumerable<(DateOnly Day, Amount Sum)> sums) => !IsEverything ? [] :
    [
        .. sums.Select(sum => new ReportCheck(
            ControlBalance.TieName, ControlBalance.Of(_context.Ledger, History.Type, sum.Day), sum.Sum, PeriodText.Heading(sum.Day))),
    ];

    private static bool IsOfDocuments(FieldChoice choice) => OfDocuments.Contains(choice.Field, StringComparer.OrdinalIgnoreCase);

    private Selection DocumentsIn(IReadOnlyList<FieldChoice> choices)
    {
        var context = TableReport.ContextOf(DocumentTables.OpenItems, _context, _request);
        return Selection.Of(choices, _request.Where, new TableFields(DocumentTables.OpenItems, context), context);
    }
}
