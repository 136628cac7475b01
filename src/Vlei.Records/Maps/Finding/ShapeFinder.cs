using Vlei.Records.Maps.Reading;

namespace Vlei.Records.Maps.Finding;

/// <summary>Finds what the rows of a file are: by the columns there are, and by what its title, its sheet or its name says.</summary>
internal sealed class ShapeFinder(FileSample sample, RoleFinder roles, SourceFile file, MapWords words)
{
    private readonly IReadOnlyList<string> _subjects =
        [.. words.SubjectsOf(sample.Title), .. words.SubjectsOf(file.Sheet ?? "")];

    /// <summary>Whether the file is about suppliers.</summary>
    public bool IsPurchase => Contact() is { } heading && words.SubjectsOf(heading) is { Count: > 0 } said
        ? said.Contains("suppliers") : Says("suppliers", "bills") || (Says("payments") && !Says("receipts", "customers"));

    /// <summary>The shape, and why; nothing where none fits. Columns are taken otherwise where the shape asks for it.</summary>
    public (Shape Shape, string Because)? Find()
    {
        var hasMonths = MonthHeadings.In([.. sample.Columns.Select(column => column.Heading)], sample.Title, words).Count > 0;
        if (hasMonths && !Has(ColumnRole.Date))
        {
            NameAccounts();
            return Says("budget") ? (Shape.Budget, "it says budget, and has a column for each month")
                : (Shape.Balances, "it has a column for each month");
        }

        return (Has(ColumnRole.Date) ? Dated() : Undated()) is { } found && found.Shape.Fits(roles.Roles) ? found : null;
    }

    private (Shape Shape, string Because)? Dated()
    {
        var hasSides = Has(ColumnRole.Debit) || Has(ColumnRole.Credit);
        if (!Has(ColumnRole.Account) && (hasSides || Has(ColumnRole.Balance)) && HasAccountHeadings())
        {
            return (Shape.Ledger, "its rows stand under headings of accounts");
        }

        if (Has(ColumnRole.Account) && (hasSides || Has(ColumnRole.ContraAccount) || Has(ColumnRole.Side)))
        {
            return Has(ColumnRole.Balance) && !Has(ColumnRole.ContraAccount) && Says("ledger")
                ? (Shape.Ledger, "it has an account and a balance in each row")
                : (Shape.Journal, Has(ColumnRole.ContraAccount) ? "each row has both accounts"
                    : "each row has an account, and debits and credits");
        }

        if (IsPayments())
        {
            PayDocuments();
            return (Shape.Payments, Has(ColumnRole.Pays) ? "each row says what it pays" : "it says that it has payments");
        }

        return Has(ColumnRole.Document) && (Has(ColumnRole.Contact) || Has(ColumnRole.ContactId)) ? Documents()
            : Has(ColumnRole.Account) && Has(ColumnRole.Amount) && SumsToZero()
                ? (Shape.Journal, "each row has an account, and amounts of rows that follow one another sum to zero")
            : Has(ColumnRole.Account) ? Has(ColumnRole.MoneyIn) || Has(ColumnRole.MoneyOut) || Has(ColumnRole.MoneyAccount)
                || !Has(ColumnRole.Document) || roles.Of(ColumnRole.Document)!.Distinct == roles.Of(ColumnRole.Document)!.Count
                ? (Shape.SingleEntry, "each row has an amount and its category")
                : (Shape.Journal, "rows of the same number have an account and an amount each")
            : null;
    }

    private (Shape Shape, string Because) Documents()
    {
        var numbers = roles.Of(ColumnRole.Document)!;
        return Has(ColumnRole.Open) || Says("open-items") ? (Shape.OpenItems, "it has what is open of each document")
            : (Has(ColumnRole.Quantity) || Has(ColumnRole.Item)) && numbers.Distinct < numbers.Count
                ? (Shape.InvoiceLines, "the same number stands in several rows, with an item each")
            : Says("credits") ? (Shape.Credits, "it says credit notes")
            : IsPurchase ? (Shape.Bills, "each row has a number, a supplier and an amount")
            : (Shape.Invoices, "each row has a number, a customer and an amount");
    }

    private (Shape Shape, string Because)? Undated()
    {
        if (Has(ColumnRole.Rate) && (Has(ColumnRole.TaxCode) || Has(ColumnRole.Code)))
        {
            return (Shape.TaxCodes, "each row has a code and a rate");
        }

        if (Has(ColumnRole.Account) || Has(ColumnRole.AccountName) || Says("accounts", "balances"))
        {
            NameAccounts();
            return Has(ColumnRole.Debit) || Has(ColumnRole.Credit) || Has(ColumnRole.Balance) || Has(ColumnRole.Amount)
                ? (Shape.Balances, "each row has an account and a balance, and no day")
                : (Shape.Accounts, "each row has an account, and no amount");
        }

        if (Says("projects") || (Has(ColumnRole.Project) && Has(ColumnRole.OwnName)))
        {
            return (Shape.Projects, "each row has a project");
        }

        return Has(ColumnRole.Email) || Has(ColumnRole.Phone) || Has(ColumnRole.Address) || Says("contacts") || Has(ColumnRole.Contact)
            ? (Shape.Contacts, "each row has a name, and how to reach it")
            : Has(ColumnRole.Project) ? (Shape.Projects, "each row has a project")
            : Has(ColumnRole.Type) && Has(ColumnRole.Code) ? Coded()
            : (Shape.Items, "each row has a name, and no day and no account");
    }

    private (Shape Shape, string Because) Coded()
    {
        roles.Move(ColumnRole.Code, ColumnRole.Account, "its heading");
        NameAccounts();
        return (Shape.Accounts, "each row has a code, a name and a type");
    }

    // Again and again, as the amounts of documents do, and those of one account do not.
    private bool SumsToZero()
    {
        const int Longest = 8;
        var amounts = roles.Of(ColumnRole.Amount)!;
        foreach (var mark in (ReadOnlySpan<char>)['.', ','])
        {
            var (sum, rows, zeros) = (0m, 0, 0);
            foreach (var cells in sample.Body.Where(cells => amounts.Column < cells.Length))
            {
                if (SourceNumbers.TryRead(cells[amounts.Column].Text, cells[amounts.Column].IsNumber ? '.' : mark, out var number))
                {
                    sum += number.Value;
                    rows++;
                    zeros += sum == 0 ? 1 : 0;
                }
            }

            if (zeros > 0 && zeros * Longest >= rows)
            {
                return true;
            }
        }

        return false;
    }

    // A payment list that has the number of an invoice says by it what is paid.
    private void PayDocuments()
    {
        if (Has(ColumnRole.Pays))
        {
            return;
        }

        foreach (var (column, said, word) in roles.Second().ToList())
        {
            if (said == ColumnRole.Document && IsOfInvoice(column.Heading))
            {
                roles.Take(column, ColumnRole.Pays, $"its heading has \"{word}\", and the rows are payments");
                return;
            }
        }

        if (roles.Of(ColumnRole.Document) is { } document && IsOfInvoice(document.Heading))
        {
            roles.Move(ColumnRole.Document, ColumnRole.Pays, "its heading speaks of invoices, and the rows are payments");
            if (roles.Second().FirstOrDefault(second => second.Said == ColumnRole.Document) is { Column: { } number })
            {
                roles.Take(number, ColumnRole.Document, "its heading");
            }
        }
    }

    private bool IsPayments() => Has(ColumnRole.Pays)
        || ((Says("receipts") || Says("payments")) && !Has(ColumnRole.Due) && !Has(ColumnRole.Net));

    private bool IsOfInvoice(string heading) => MapWords.Plain(heading).Split(' ').Concat([MapWords.Plain(heading)])
        .Any(word => words.KindOf(word) is "invoice" or "bill");

    // In a list of accounts what is called a name, a note or a text is the name of the account.
    private void NameAccounts()
    {
        if (!Has(ColumnRole.Account) && Has(ColumnRole.Code))
        {
            roles.Move(ColumnRole.Code, ColumnRole.Account, "its heading, in a list of accounts");
        }

        if (!Has(ColumnRole.Account) && Has(ColumnRole.Document))
        {
            roles.Move(ColumnRole.Document, ColumnRole.Account, "its heading, in a list of accounts");
        }

        foreach (var role in (ColumnRole[])[ColumnRole.OwnName, ColumnRole.Memo])
        {
            if (!Has(ColumnRole.AccountName) && Has(role))
            {
                roles.Move(role, ColumnRole.AccountName, "its heading, in a list of accounts");
            }
        }
    }

    // Rows of one text, or of a code and a name, between rows that have days.
    private bool HasAccountHeadings()
    {
        var date = roles.Of(ColumnRole.Date)!.Column;
        return sample.Body.Any(cells =>
        {
            var texts = cells.Select(cell => cell.Text).Where(text => text.Length > 0).ToList();
            return texts.Count is 1 or 2 or 3 && (date >= cells.Length || !cells[date].IsDay)
                && words.RowOf(texts[0]) is RowWord.None && !SourceNumbers.TryRead(texts[^1], '.', out _)
                && (words.BehindAccountWord(texts[0]) is not null || AccountFinder.Split(texts[0]).Code.Length > 0 || texts.Count == 1);
        });
    }

    private string? Contact() => (roles.Of(ColumnRole.Contact) ?? roles.Of(ColumnRole.ContactId))?.Heading;

    private bool Has(ColumnRole role) => roles.Has(role);

    private bool Says(params ReadOnlySpan<string> subjects)
    {
        foreach (var subject in subjects)
        {
            if (_subjects.Contains(subject))
            {
                return true;
            }
        }

        return false;
    }
}
