using Vlei.Core.Fields;
using Vlei.Core.Ledger;
using Vlei.Core.Problems;
using Vlei.Core.Reports;
using Vlei.Core.Tables;

namespace Vlei.Core.Statements;

/// <summary>A part of a statement, from the top down.</summary>
/// <param name="Text">What the layout file says of it.</param>
internal abstract record StatementPart(LayoutRowText Text);

/// <summary>A heading, other parts under it, and their total.</summary>
internal sealed record StatementGroup(LayoutRowText Text, IReadOnlyList<StatementPart> Parts) : StatementPart(Text);

/// <summary>Accounts, a row each or all in one.</summary>
internal sealed record StatementLine(LayoutRowText Text, IReadOnlyList<Account> Accounts, int Sign) : StatementPart(Text);

/// <summary>What no single account holds.</summary>
internal sealed record StatementComputed(LayoutRowText Text, IReadOnlyList<Term> Terms) : StatementPart(Text);

/// <summary>What other parts come to.</summary>
internal sealed record StatementResult(LayoutRowText Text, Formula Formula) : StatementPart(Text);

/// <summary>
/// A layout file held against the accounts of a book: which accounts stand in which line, and which in none.
/// </summary>
internal sealed class StatementLayout
{
    private readonly LayoutText _text;
    private readonly ILedger _ledger;
    private readonly PostingFields _fields;
    private readonly Dictionary<AccountKey, LayoutRowText> _rowOf = [];
    private readonly ILookup<string, LayoutRowText> _under;

    private StatementLayout(LayoutText text, StatementKind kind, ILedger ledger, PostingFields fields)
    {
        (_text, Kind, _ledger, _fields) = (text, kind, ledger, fields);
        _under = text.Rows.ToLookup(row => row.Under ?? "");
    }

    /// <summary>What the statement is about.</summary>
    public StatementKind Kind { get; }

    /// <summary>Its parts; the last is what the whole comes to.</summary>
    public IReadOnlyList<StatementPart> Parts { get; private set; } = [];

    /// <summary>The accounts that stand in no line, though the statement is about them.</summary>
    public IReadOnlyList<Account> Missing { get; private set; } = [];

    /// <summary>
    /// Makes sense of a layout file. Throws a <see cref="ProblemException"/> where it has none, and where an account
    /// falls in two lines.
    /// </summary>
    public static StatementLayout Of(LayoutText text, ILedger ledger, PostingFields fields)
    {
        var kind = StatementKind.All.FirstOrDefault(kind => kind.Name == text.Statement) ?? throw new ProblemException(
            ProblemKind.BadData, $"{text.Name}: there is no kind of statement {text.Statement}.",
            Suggestion.DidYouMean(text.Statement, StatementKind.All.Select(kind => kind.Name))
            ?? Suggestion.ThereAre([.. StatementKind.All.Select(kind => kind.Name)]));
        var layout = new StatementLayout(text, kind, ledger, fields);
        layout.CheckKeys();
        layout.PlaceAccounts();
        layout.Parts = [.. layout._under[""].Select(layout.PartOf)];
        layout.CheckFormulas(layout.Parts, new HashSet<string>(StringComparer.Ordinal));
        return layout;
    }

    /// <summary>All parts, those under others too, in their order.</summary>
    public IEnumerable<StatementPart> AllParts => WithInner(Parts);

    private static IEnumerable<StatementPart> WithInner(IEnumerable<StatementPart> parts) => parts.SelectMany(part =>
        part is StatementGroup group ? WithInner(group.Parts).Prepend(part) : [part]);

    private void CheckKeys()
    {
        var keys = new HashSet<string>(StringComparer.Ordinal);
        foreach (var row in _text.Rows)
        {
            if (row.Under is { } under && !keys.Contains(under))
            {
                throw Wrong(row, $"there is no row {under} above it to stand under.", Suggestion.DidYouMean(under, keys));
            }

            if (!keys.Add(row.Key))
            {
                throw Wrong(row, $"there is a row {row.Key} already.", "Give each row a key of its own.");
            }

            RefuseContradictions(row);
        }

        if (_text.Rows.Where(row => row.IsRest).Skip(1).FirstOrDefault() is { } second)
        {
            throw Wrong(second, "there is a rest already.", "One row takes the rest; name the accounts of the other.");
        }

        if (_text.Rows.Count == 0)
        {
            throw new ProblemException(ProblemKind.BadData, $"{_text.Name} has no rows.", "Write at least one [[row]].");
        }
    }

    // What a row says and is not looked at would be missing from figures that look whole.
    private void RefuseContradictions(LayoutRowText row)
    {
        var shows = new[]
        {
            row.Accounts.Count > 0 ? "accounts" : null, row.IsOfTax ? "tax codes, a side or a part" : null, row.IsRest ? "rest" : null,
            row.Formula is null ? null : "a formula", row.Computed is null ? null : "computed",
            _under.Contains(row.Key) ? "other rows under it" : null,
        }.OfType<string>().ToList();
        if (shows.Count > 1)
        {
            throw Wrong(row, $"row {row.Key} has {Suggestion.Listed(shows, "and")}.", "A row shows one thing; make two rows of it.");
        }

        if (row.IsOfTax != (Kind == StatementKind.TaxReturn) && (row.IsOfTax || row.Accounts.Count > 0))
        {
            throw Wrong(
                row, row.IsOfTax ? $"tax-codes, side and part are for a tax-return, not for a {Kind.Name}."
                    : "a tax-return has no accounts.",
                row.IsOfTax ? "Name accounts." : "Name tax-codes, a side and a part.");
        }

        if (row.Except.Count > 0 && row.Accounts.Count == 0)
        {
            throw Wrong(row, "except leaves out accounts, and the row names none.", "Add accounts, or take except out.");
        }

        if (row.Show != "money" && row.Formula is null)
        {
            throw Wrong(row, $"show = \"{row.Show}\" is for formulas.", "Add a formula, or take show out.");
        }
    }

    // An account goes where a line names it, else where its parent goes, else with the rest.
    private void PlaceAccounts()
    {
        var shown = _ledger.Accounts.Where(Kind.Shows).ToList();
        foreach (var row in _text.Rows.Where(row => row.Accounts.Count > 0 || row.IsOfTax))
        {
            var except = row.Except.SelectMany(entry => AccountsOf(row, entry)).ToHashSet();
            foreach (var account in (row.IsOfTax ? TaxOf(row) : row.Accounts.SelectMany(entry => AccountsOf(row, entry))).Distinct()
                .Where(account => !except.Contains(account) && Kind.Shows(account)))
            {
                if (!_rowOf.TryAdd(account.Key, row))
                {
                    throw Wrong(
                        row, $"{(row.IsOfTax ? "" : "account ")}{account.Code} {account.Name} is in row {_rowOf[account.Key].Key} already.",
                        row.IsOfTax ? "What tax is counted from, and the tax, stand in one box each; a formula adds boxes up."
                        : "An account stands in one line; leave it out of one of them with except.");
                }
            }
        }

        var byKey = _ledger.Accounts.ToDictionary(account => account.Key);
        var named = _rowOf.Keys.ToHashSet();
        var rest = _text.Rows.FirstOrDefault(row => row.IsRest);
        foreach (var account in shown.Where(account => !named.Contains(account.Key)))
        {
            var parent = account;
            while (parent.ParentKey is { } above && !named.Contains(parent.Key))
            {
                parent = byKey[above];
            }

            if ((named.Contains(parent.Key) ? _rowOf[parent.Key] : rest) is { } row)
            {
                _rowOf[account.Key] = row;
            }
        }

        Missing = [.. shown.Where(account => !_rowOf.ContainsKey(account.Key)).OrderBy(account => account.Code, CodeOrder.Instance)];
    }

    // What a box names; a code that the book does not have is a slip.
    private IEnumerable<Account> TaxOf(LayoutRowText row)
    {
        foreach (var code in row.TaxCodes.Where(code => !_ledger.Accounts.Any(account => account.Tags[TaxLedger.Code] == code)))
        {
            throw Wrong(
                row, $"there is no tax code {code}.",
                Suggestion.DidYouMean(code, _ledger.Accounts.Select(account => account.Tags[TaxLedger.Code]).Distinct()));
        }

        return _ledger.Accounts.Where(account => (row.TaxCodes.Count == 0 || row.TaxCodes.Contains(account.Tags[TaxLedger.Code]))
            && (row.Side is null || row.Side == account.Tags[TaxLedger.Side])
            && (row.Part is null || row.Part == account.Tags[TaxLedger.Part]));
    }

    // A chart may lack what a layout for many books names; a field or a list that makes no sense is a mistake.
    private IEnumerable<Account> AccountsOf(LayoutRowText row, string entry)
    {
        var equals = entry.IndexOf('=');
        var isComparison = equals > 0 && entry[equals - 1] is '<' or '>';
        try
        {
            var choice = FieldChoice.Parse(equals > 0 && !isComparison ? entry : $"account={entry}", isExcept: false);
            var field = _fields.Named(choice.Field);
            if (!field.IsOfAccounts || field.Field.IsNumber || field.Field.IsDay)
            {
                throw new ProblemException(
                    ProblemKind.BadData, $"{field.Field.Name} says nothing about accounts.",
                    "Take account, account.name, account.type, account.cash-flow or a tag.");
            }

            var meant = choice.List.NamedOf(field.Field.Name, field.Values, mayNameNone: true);
            var values = field.PlacesIn(_ledger.Accounts);
            return _ledger.Accounts.Where((_, account) => meant[values[account]]);
        }
        catch (ProblemException problem)
        {
            throw Wrong(row, problem.Message, problem.Advice);
        }
    }

    private static Formula FormulaOf(LayoutRowText row, string text)
    {
        if (Formula.Parse(text) is not { } formula)
        {
            throw new ProblemException(
                ProblemKind.BadData, $"{row.Place}: \"{text}\" is not a formula.",
                "Write keys of rows above, numbers, + - * / with blanks around them, and brackets: gross-profit / income.");
        }

        return row.Show == "money" && !formula.IsSum
            ? throw new ProblemException(
                ProblemKind.BadData, $"{row.Place}: money comes from adding rows and taking them away.",
                "Where rows are divided, add show = \"percent\" or show = \"ratio\".")
            : formula;
    }

    private StatementPart PartOf(LayoutRowText row)
    {
        if (row.Formula is { } formula)
        {
            return new StatementResult(row, FormulaOf(row, formula));
        }

        if (row.Computed is { } computed)
        {
            return Kind.Computed.Contains(computed)
                ? new StatementComputed(row, ComputedRow.TermsOf(computed, _ledger.Accounts))
                : throw Wrong(
                    row, $"a {Kind.Name} has no {computed}.",
                    Suggestion.DidYouMean(computed, Kind.Computed) ?? $"It has {Suggestion.Listed(Kind.Computed, "and")}.");
        }

        if (row.Accounts.Count == 0 && !row.IsOfTax && !row.IsRest)
        {
            return _under.Contains(row.Key)
                ? new StatementGroup(row, [.. _under[row.Key].Select(PartOf)])
                : throw Wrong(
                    row, $"row {row.Key} shows nothing.",
                    "Give it accounts, a formula, or rest = true; or put other rows under it.");
        }

        var accounts = _ledger.Accounts.Where(account => _rowOf.GetValueOrDefault(account.Key) == row)
            .OrderBy(account => account.Code, CodeOrder.Instance).ToList();
        return new StatementLine(row, accounts, SignOf(row, accounts));
    }

    private int SignOf(LayoutRowText row, List<Account> accounts)
    {
        if (Kind.IsOfFlows || row.Sign == "credit")
        {
            return -1;
        }

        if (row.Sign == "debit")
        {
            return 1;
        }

        var signs = accounts.Select(account => AccountTypes.IsCreditPositive(account.Type) ? -1 : 1).Distinct().ToList();
        return signs.Count < 2 ? signs.FirstOrDefault(1) : throw Wrong(
            row, $"row {row.Key} has accounts of both natural signs.",
            "Add sign = \"credit\" or sign = \"debit\": what is shown as positive.");
    }

    // A group is known behind the rows under it: none of them can rest on it.
    private void CheckFormulas(IEnumerable<StatementPart> parts, HashSet<string> before)
    {
        foreach (var part in parts)
        {
            CheckFormulas(part is StatementGroup group ? group.Parts : [], before);
            foreach (var key in part is StatementResult result ? result.Formula.Keys : [])
            {
                if (!before.Contains(key))
                {
                    throw Wrong(part.Text, $"there is no row {key} above it.", Suggestion.DidYouMean(key, before));
                }
            }

            foreach (var key in part.Text.OnlyWith.Where(key => _text.Rows.All(row => row.Key != key)))
            {
                throw Wrong(part.Text, $"there is no row {key}.", Suggestion.DidYouMean(key, _text.Rows.Select(row => row.Key)));
            }

            before.Add(part.Text.Key);
        }
    }

    private static ProblemException Wrong(LayoutRowText row, string message, string? advice) =>
        new(ProblemKind.BadData, $"{row.Place}: {message}", advice);
}
