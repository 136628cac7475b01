using Vlei.Core.Ledger;
using Vlei.Records.Maps.Reading;

namespace Vlei.Records.Maps.Finding;

/// <summary>Finds what the columns of a file are: by their headings, by what their values look like, and by what the book knows.</summary>
internal sealed class RoleFinder
{
    private const double Enough = 0.8;

    private readonly Dictionary<ColumnRole, (ColumnProfile Column, string Because, bool IsWhole)> _found = [];
    private readonly FileSample _sample;
    private readonly MapWords _words;

    /// <summary>Looks at the columns.</summary>
    public RoleFinder(FileSample sample, MapWords words, IKnownRecords known)
    {
        (_sample, _words) = (sample, words);
        foreach (var column in sample.Columns)
        {
            ByHeading(column);
        }

        ByContent(known);
    }

    /// <summary>The roles that there are columns for.</summary>
    public IReadOnlyCollection<ColumnRole> Roles => _found.Keys;

    /// <summary>The column of a role; nothing where there is none.</summary>
    public ColumnProfile? Of(ColumnRole role) => _found.TryGetValue(role, out var found) ? found.Column : null;

    /// <summary>Whether there is a column for a role.</summary>
    public bool Has(ColumnRole role) => _found.ContainsKey(role);

    /// <summary>Takes a column of one role as another.</summary>
    public void Move(ColumnRole from, ColumnRole to, string because)
    {
        if (_found.Remove(from, out var found) && !_found.ContainsKey(to))
        {
            _found[to] = (found.Column, because, found.IsWhole);
        }
    }

    /// <summary>Takes a column as a role that has none yet.</summary>
    public void Take(ColumnProfile column, ColumnRole role, string because) => _found.TryAdd(role, (column, because, false));

    /// <summary>The columns that are nothing so far, whose headings say a role that another column has.</summary>
    public IEnumerable<(ColumnProfile Column, ColumnRole Said, string Word)> Second() => _sample.Columns
        .Where(column => !_found.Values.Any(found => found.Column == column))
        .Select(column => (column, _words.RoleOf(column.Heading))).Where(said => said.Item2 is not null)
        .Select(said => (said.column, said.Item2!.Value.Role, said.Item2.Value.Word));

    /// <summary>What every column is taken as, and why.</summary>
    public IReadOnlyList<ColumnFinding> Findings() =>
    [
        .. _sample.Columns.Select(column =>
        {
            var found = _found.FirstOrDefault(found => found.Value.Column == column);
            return new ColumnFinding(
                column.Heading, found.Key, column.Example,
                found.Key is not null ? found.Value.Because
                : column.Count == 0 ? "it is empty"
                : _words.RoleOf(column.Heading) is not var (role, _, _) ? "no word for such a column is known"
                : _found.ContainsKey(role) ? $"another column is the {role.Name}"
                : $"its values are no {(role.Content == RoleContent.Day ? "days" : "numbers")}");
        }),
    ];

    private void ByHeading(ColumnProfile column)
    {
        if (_words.RoleOf(column.Heading) is not var (role, word, isWhole) || !column.Suits(role))
        {
            return;
        }

        var because = isWhole ? "its heading" : $"its heading has \"{word}\"";
        if (!_found.TryGetValue(role, out var before) || (isWhole && !before.IsWhole) || (before.Column.Count == 0 && column.Count > 0))
        {
            _found[role] = (column, because, isWhole);
        }
    }

    private void ByContent(IKnownRecords known)
    {
        foreach (var column in _sample.Columns.Where(column => column.Count > 0 && !_found.Values.Any(found => found.Column == column)))
        {
            if (column.IsDays && !Has(ColumnRole.Date))
            {
                Take(column, ColumnRole.Date, "its values are days");
            }
            else if (!Has(ColumnRole.Account) && Share(column, IsAccount) >= Enough)
            {
                Take(column, ColumnRole.Account, "its values are accounts of the book");
            }
            else if (!Has(ColumnRole.Contact) && !column.IsNumbers && Share(column, IsContact) >= Enough)
            {
                Take(column, ColumnRole.Contact, "its values are contacts of the book");
            }
        }

        var figures = _sample.Columns.Where(column => column.IsNumbers && !_found.Values.Any(found => found.Column == column)).ToList();
        if (figures.Count == 1 && !_found.Keys.Any(role => role.Content == RoleContent.Number) && Has(ColumnRole.Date))
        {
            Take(figures[0], ColumnRole.Amount, "it is the only column of numbers");
        }

        bool IsAccount(string value) => known.Accounts.Any(account =>
            account.Code == value || account.Code == AccountFinder.Split(value).Code
                || MapWords.Plain(account.Name) == MapWords.Plain(value));
        bool IsContact(string value) => known.Named(RecordTables.Contacts)
            .Any(contact => contact.Id == value || MapWords.Plain(contact.Name) == MapWords.Plain(value));
    }

    private static double Share(ColumnProfile column, Func<string, bool> isOne) =>
        column.Values.Take(50).Count(isOne) / (double)Math.Max(1, Math.Min(50, column.Distinct));
}
