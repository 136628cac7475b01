using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Problems;

namespace Vlei.Core.Fields;

/// <summary>
/// The fields of a table in a book, by their names: its own, those of the records that it refers to
/// (<c>contact.email</c>, <c>document.contact.phone</c>), parts of dates (<c>date.month</c>) and tags (<c>tag.season</c>).
/// </summary>
public sealed class TableFields
{
    private const string DaysOpen = "days-open";

    private readonly TableDefinition _table;
    private readonly TableContext _context;
    private readonly RelatedRecords _related;
    private readonly Dictionary<string, Node> _nodes = new(StringComparer.OrdinalIgnoreCase);

    /// <summary>The fields of a table.</summary>
    /// <param name="table">The table.</param>
    /// <param name="context">The book.</param>
    public TableFields(TableDefinition table, TableContext context) =>
        (_table, _context, _related) = (table, context, new RelatedRecords(context.Ledger));

    /// <summary>All fields that lead no further than to the records that rows themselves refer to.</summary>
    public IEnumerable<TableField> All()
    {
        foreach (var own in _table.Fields)
        {
            yield return own;
            foreach (var part in own.Name == _table.Self ? RelatedTo(own.Name, own.Target!).Select(AsOwn) : own.IsDay ? Units(own)
                : own.Target is { } target ? RelatedTo(own.Name, target).Concat(ReckonedOf(own)) : [])
            {
                yield return part;
            }
        }

        foreach (var tag in _table.IsOfLines ? LineTag.NamesIn(_context.Ledger) : [])
        {
            yield return Tag($"{FieldNames.TagPrefix}{tag}", tag);
        }
    }

    /// <summary>Whether there is a field of that name.</summary>
    public bool Has(string name) => Find(name) is not null;

    /// <summary>The field of that name. Throws a <see cref="ProblemException"/> that names the nearest where there is none.</summary>
    public BoundField Named(string name) => Find(name) is { } node
        ? new BoundField(node.Field, node.Read)
        {
            Decimals = DecimalsOf(node.Field), Columns = node.Columns, Chosen = node.Chosen ?? node.Read,
        }
        : throw new ProblemException(
            ProblemKind.Usage, $"{_table.Name} have no field \"{name}\".",
            Meant(name) ?? Suggestion.DidYouMean(name, NamesNear(name)) ?? $"vlei fields {_table.Name} lists them.");

    /// <summary>
    /// The field of that name, to gather rows by: a unit of time alone means that of the table's own date. Throws a
    /// <see cref="ProblemException"/> that names the nearest where there is none.
    /// </summary>
    public BoundField Gathering(string name) => Named(
        FiscalCalendar.UnitNames.Contains(name, StringComparer.OrdinalIgnoreCase) && !Has(name)
        && (_table.Date ?? (Has("date") ? "date" : null)) is { } date ? $"{date}.{name}" : name);

    /// <summary>The fields of related records that are called so, as a question; nothing where there are none.</summary>
    public string? Meant(string name) =>
        All().Where(field => field.Name.EndsWith($".{name}", StringComparison.OrdinalIgnoreCase)).Select(field => field.Name).ToList()
            is { Count: > 0 } meant ? $"Did you mean {Suggestion.Listed(meant, "or")}?" : null;

    /// <summary>
    /// The records that a reference can lead to, as words; nothing where it is not one, or where they are too many to list.
    /// </summary>
    public WordPool? RecordsOf(TableField field) =>
        field.Target is { } target && !RelatedRecords.AreMany(target) ? _related.PoolOf(target) : null;

    private int DecimalsOf(TableField field) => field.Type switch
    {
        FieldType.Money => _context.Currency.Decimals,
        FieldType.Decimal => RecordField.DecimalPlaces,
        _ => 0,
    };

    // A mistake in the last part is looked for among what the parts before it lead to.
    private IEnumerable<string> NamesNear(string name) =>
        name.LastIndexOf('.') is > 0 and var dot && Find(name[..dot]) is { Field: { Target: { } target } field }
            ? RelatedTo(field.Name, target).Select(related => related.Name)
            : All().Select(field => field.Name);

    private Node? Find(string name)
    {
        if (!_nodes.TryGetValue(name, out var node))
        {
            node = Make(name);
            if (node is not null)
            {
                _nodes[name] = node;
            }
        }

        return node;
    }

    private Node? Make(string name)
    {
        if (OwnNamed(name) is { } own)
        {
            return own;
        }

        if (_table.IsOfLines && FieldNames.IsTag(name))
        {
            return OfLineTag(name);
        }

        if (_table.Self is { } self && !name.StartsWith($"{self}.", StringComparison.OrdinalIgnoreCase)
            && !_table.Fields.Any(field => name.StartsWith($"{field.Name}.", StringComparison.OrdinalIgnoreCase))
            && Find($"{self}.{name}") is { } ofSelf)
        {
            return ofSelf with { Field = AsOwn(ofSelf.Field), Chosen = null };
        }

        for (var dot = name.IndexOf('.'); dot > 0; dot = name.IndexOf('.', dot + 1))
        {
            var (rest, isLast) = (name[(dot + 1)..], name.IndexOf('.', dot + 1) < 0);
            if (Find(name[..dot]) is not { } node)
            {
                return null;
            }

            if (FieldNames.IsTag(rest) && node.Keys is not null)
            {
                return OfRelatedTag(node, rest[FieldNames.TagPrefix.Length..]);
            }

            if (isLast)
            {
                return node.Field.IsDay ? PartOf(node, rest) : node.Keys is null ? null
                    : OfRelated(node, rest) ?? (node.Field.Name == _table.Self ? OwnNamed(rest) : Reckoned(node, rest));
            }
        }

        return null;
    }

    private Node? OwnNamed(string name) =>
        _table.Fields.FirstOrDefault(field => field.Name.Equals(name, StringComparison.OrdinalIgnoreCase)) is { } own ? Own(own) : null;

    private Node Own(TableField field)
    {
        if (field.OfLine is { } record)
        {
            return new Node(field, rows => _related.OfLines(rows, record));
        }

        string[] columns = [field.Name];
        if (field.Words is { } words)
        {
            return new Node(field, rows => new FieldCells(rows.Column(field.Name), words)) { Columns = columns };
        }

        if (field.Type == FieldType.Text)
        {
            return new Node(field, rows => WordPool.Of(
                [.. Enumerable.Range(0, rows.Count).Select(row => rows.Block.TextOf!(field.Name, rows.PlaceOf(row)))]));
        }

        return field.Target is not { } target
            ? new Node(field, rows => new FieldCells(rows.Column(field.Name))) { Columns = columns }
            : Reference(field, target, rows => rows.Column(field.Name), columns);
    }

    private Node Reference(TableField field, RecordTable target, Func<RowSet, long[]> keys, IReadOnlyList<string>? columns)
    {
        if (!RelatedRecords.AreMany(target))
        {
            return new Node(field, rows => new FieldCells(keys(rows), _related.PoolOf(target)), keys) { Columns = columns };
        }

        return new Node(field, rows => _related.Documents(keys(rows)), keys);
    }

    // What is reckoned of a document, rather than said of it: how long it is open.
    private IEnumerable<TableField> ReckonedOf(TableField reference) =>
        reference.Target == RecordTables.Documents && _context.DaysOpen is not null
            ? [new($"{reference.Name}.{DaysOpen}", FieldType.Integer, "Days since its date where it is open then; nothing where it is not")
                {
                    Heading = TableField.HeadingOf(DaysOpen), AddsUp = false,
                }] : [];

    private Node? Reckoned(Node node, string name) => name.Equals(DaysOpen, StringComparison.OrdinalIgnoreCase)
        && ReckonedOf(node.Field).FirstOrDefault() is { } field
            ? new Node(field, rows => new FieldCells(_context.DaysOpen!(node.Keys!(rows))))
        : null;

    private Node? OfRelated(Node node, string name)
    {
        var target = node.Field.Target!;
        if (target.Fields.FirstOrDefault(field => NameOf(field).Equals(name, StringComparison.OrdinalIgnoreCase)) is not { } record)
        {
            return null;
        }

        var field = Related(node.Field.Name, record);
        var read = ReadRelated(node, target, record);
        var columns = RelatedRecords.AreMany(target) ? null : node.Columns;
        return record.Type == FieldType.Reference ? Reference(field, field.Target!, rows => read(rows).Numbers, columns)
            : new Node(field, read)
            {
                Columns = columns,
                Chosen = _related.ChosenBy(target, record) is { } chosen ? rows => chosen(node.Keys!(rows)) : null,
            };
    }

    private Func<RowSet, FieldCells> ReadRelated(Node node, RecordTable target, RecordField record)
    {
        var keys = node.Keys!;
        if (RelatedRecords.AreMany(target))
        {
            return rows => _related.OfDocuments(keys(rows), record);
        }

        return rows =>
        {
            var (whole, asked) = (_related.Whole(target, record), keys(rows));
            var (nothing, numbers) = (whole.Pool is null ? FieldCells.Nothing : 0, new long[asked.Length]);
            for (var row = 0; row < numbers.Length; row++)
            {
                var key = asked[row];
                numbers[row] = key > 0 && key < whole.Numbers.Length ? whole.Numbers[key] : nothing;
            }

            return whole with { Numbers = numbers };
        };
    }

    private static Node? OfRelatedTag(Node node, Func<RowSet, FieldCells> read, string tag) => new(
        Tag($"{node.Field.Name}.{FieldNames.TagPrefix}{tag}", tag), rows =>
        {
            var cells = read(rows);
            var values = cells.Pool!.Words.Select(text => text.Length == 0 ? null : TagText.Read(text).GetValueOrDefault(tag)).ToList();
            return WordPool.Of([.. cells.Numbers.Select(number => values[(int)number])]);
        })
    {
        Columns = RelatedRecords.AreMany(node.Field.Target!) ? null : node.Columns,
    };

    private Node? OfRelatedTag(Node node, string tag) =>
        OfRelatedTag(node, ReadRelated(node, node.Field.Target!, RecordTable.Tags), tag);

    private Node OfLineTag(string name)
    {
        var tag = new LineTag(_context.Ledger, name[FieldNames.TagPrefix.Length..]);
        return new Node(Tag($"{FieldNames.TagPrefix}{tag.Name}", tag.Name), tag.Read) { Columns = tag.Columns };
    }

    private Node? PartOf(Node node, string unit)
    {
        if (Units(node.Field).FirstOrDefault(
            part => part.Name.Equals($"{node.Field.Name}.{unit}", StringComparison.OrdinalIgnoreCase)) is not { } field)
        {
            return null;
        }

        var (calendar, starts) = (_context.Calendar, new Dictionary<long, long> { [FieldCells.Nothing] = FieldCells.Nothing });
        return new Node(field, rows =>
        {
            // A month lies in one quarter and year: there is no need to look at days.
            if (node.Field.Name == _table.Date && rows.Block.Dates is { } dates
                && calendar.UnitOf(field.Unit!.Value, dates.From) is var unitOf && dates.To <= unitOf.To)
            {
                var same = GC.AllocateUninitializedArray<long>(rows.Count);
                Array.Fill(same, unitOf.From.DayNumber);
                return new FieldCells(same);
            }

            var days = node.Read(rows).Numbers;
            var numbers = GC.AllocateUninitializedArray<long>(days.Length);
            for (var row = 0; row < numbers.Length; row++)
            {
                if (row > 0 && days[row] == days[row - 1])
                {
                    numbers[row] = numbers[row - 1];
                    continue;
                }

                if (!starts.TryGetValue(days[row], out var start))
                {
                    starts[days[row]] = start =
                        calendar.UnitOf(field.Unit!.Value, DateOnly.FromDayNumber((int)days[row])).From.DayNumber;
                }

                numbers[row] = start;
            }

            return new FieldCells(numbers);
        })
        {
            Columns = node.Columns,
        };
    }

    private static IEnumerable<TableField> Units(TableField date) => FiscalCalendar.UnitNames.Select((name, unit) =>
        new TableField($"{date.Name}.{name}", FieldType.Date, $"The {name.Replace('-', ' ')} of {date.Name}")
        {
            Unit = (TimeUnit)unit, Heading = TableField.HeadingOf(name),
        });

    private static IEnumerable<TableField> RelatedTo(string name, RecordTable target) =>
        target.Fields.Select(field => Related(name, field));

    private static TableField Related(string name, RecordField field) => new($"{name}.{NameOf(field)}", field.Type, field.Meaning)
    {
        Target = field.Target is { } target ? RecordTables.Named(target) : null,
        Heading = NameOf(field) is "name" or "id" or "code" ? TableField.HeadingOf($"{name}.{NameOf(field)}")
            : TableField.HeadingOf(NameOf(field)),
        AddsUp = false,
    };

    private static TableField Tag(string name, string tag) =>
        new(name, FieldType.Text, $"The tag {tag}") { Heading = TableField.HeadingOf(tag) };

    // A field of the record that a row itself is has the record's name left out.
    private TableField AsOwn(TableField field) =>
        field.Name[(_table.Self!.Length + 1)..] is var name ? field with
        {
            Name = name,
            Heading = TableField.HeadingOf(
                name.StartsWith(FieldNames.TagPrefix, StringComparison.Ordinal) ? name[FieldNames.TagPrefix.Length..] : name),
        } : field;

    private static string NameOf(RecordField field) => field.Name.Replace('_', '-');

    // What is known of a field: how it is read, and, for a reference, the keys of the records.
    private sealed record Node(TableField Field, Func<RowSet, FieldCells> Read, Func<RowSet, long[]>? Keys = null)
    {
        public IReadOnlyList<string>? Columns { get; init; }

        public Func<RowSet, FieldCells>? Chosen { get; init; }
    }
}
