using Vlei.Books;
using Vlei.Books.Import;
using Vlei.Core.Calendar;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Desk;
using Vlei.Desk.Maps;
using Vlei.Records;
using Vlei.Records.Maps;

namespace Vlei.Tests.Maps;

/// <summary>A book that files are mapped for and imported into, in this process: without a hand, or with keys set.</summary>
internal sealed class MapTrial : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("vlei-map-").FullName;
    private readonly Book _book;

    /// <summary>Makes an empty book.</summary>
    public MapTrial(string code = "EUR", int yearStart = 1)
    {
        _ = Currency.TryFind(code, out var currency);
        _book = Book.Create(Path.Combine(_folder, "book"), new BookSettings(
            "Trial", currency!, new FiscalCalendar(yearStart), AccountingBasis.Accrual, new DateOnly(2026, 11, 1)));
    }

    /// <summary>What was wrong with the last file.</summary>
    public RecordErrors Errors { get; private set; } = new();

    /// <summary>What the last files spoke of that the book does not have.</summary>
    public IReadOnlyList<NewRecord> New { get; private set; } = [];

    /// <summary>Whether the last file that was mapped left something open.</summary>
    public bool HasQuestions { get; private set; }

    /// <summary>Where a file is to be written.</summary>
    public string PathOf(string name) => Path.Combine(_folder, name);

    /// <summary>
    /// Maps files, unless there is a map for them, and imports them; what came of it, or nothing where there were errors.
    /// </summary>
    public ImportOutcome? Import(params string[] names) => Import(isTrial: false, isClear: false, names);

    /// <summary>The same, whether or not the file decides everything.</summary>
    public ImportOutcome? ImportIfClear(params string[] names) => Import(isTrial: false, isClear: true, names);

    /// <summary>The same as a trial.</summary>
    public ImportOutcome? Try(params string[] names) => Import(isTrial: true, isClear: false, names);

    private ImportOutcome? Import(bool isTrial, bool isClear, string[] names)
    {
        var desk = new ReportDesk(_book, null);
        foreach (var path in names.Select(PathOf))
        {
            try
            {
                _ = new ImportDesk(desk).Sort([path], null);
            }
            catch (Core.Problems.ProblemException none) when (none.Advice?.Contains("a map of it", StringComparison.Ordinal) == true)
            {
                foreach (var proposal in new ImportDesk(desk).Propose(path, null, null))
                {
                    HasQuestions |= proposal.Questions.Count > 0;
                    Assert.True(
                        isClear || proposal.Questions.Count == 0,
                        string.Join('\n', proposal.Questions.Select(question => question.Question)));
                    Directory.CreateDirectory(Path.GetDirectoryName(proposal.Map.Path)!);
                    File.WriteAllText(proposal.Map.Path, MapText.Of(proposal));
                }
            }
        }

        Errors = new RecordErrors();
        var imports = new ImportDesk(desk);
        var mapped = imports.Read(imports.Sort([.. names.Select(PathOf)], null).Mapped, Errors, (_, _) => { });
        New = mapped.New;
        foreach (var (file, line, column, message) in mapped.Faults)
        {
            Errors.Add(file, line, column, message);
        }

        return Errors.Count > 0 ? null : Importer.Run(
            _book, RecordSet.Open([], _book.Settings.Currency, Errors, mapped), Errors,
            new ImportOrder("test", desk.Now, Complete: false, isTrial),
            (_, _) => { });
    }

    /// <summary>The same, without an error.</summary>
    public ImportOutcome Take(params string[] names)
    {
        var outcome = Import(names);
        Assert.True(Errors.Count == 0, string.Join('\n', Errors.First));
        return outcome!;
    }

    /// <summary>What accounts stand at, by their code and by their name.</summary>
    public Dictionary<string, decimal> Balances(bool byName = false)
    {
        using var ledger = LedgerReader.Open(_book);
        var balances = ledger.BalancesAt(new DateOnly(2026, 12, 31), _book.Settings.Calendar);
        return ledger.Accounts.ToDictionary(
            account => byName ? account.Name : account.Code, account => balances.GetValueOrDefault(account.Key).MinorUnits / 100m);
    }

    /// <summary>The accounts, each with its type.</summary>
    public Dictionary<string, string> Types()
    {
        using var ledger = LedgerReader.Open(_book);
        return ledger.Accounts.ToDictionary(account => account.Code, account => AccountTypes.NameOf(account.Type));
    }

    /// <summary>Opens the records.</summary>
    public LedgerReader Open() => LedgerReader.Open(_book);

    /// <inheritdoc/>
    public void Dispose() => Directory.Delete(_folder, recursive: true);
}
