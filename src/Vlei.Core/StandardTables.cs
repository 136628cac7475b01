using Vlei.Core.Fields;
using Vlei.Core.OpenItems;
using Vlei.Core.Review;
using Vlei.Core.Tables;

namespace Vlei.Core;

/// <summary>The one list of the tables that lists can be made of.</summary>
public static class StandardTables
{
    /// <summary>All of them.</summary>
    public static IReadOnlyList<TableDefinition> All { get; } =
    [
        PostingTables.Postings, PostingTables.Lines, PostingTables.Stock, PostingTables.Tax,
        DocumentTables.Documents, DocumentTables.OpenItems, DocumentTables.Settlements, PromiseTable.Definition,
        RecordLists.Contacts, RecordLists.Accounts, RecordLists.Items, RecordLists.Projects, RecordLists.Departments, RecordLists.TaxCodes,
        ChangeTable.Definition, DifferenceTable.Definition, FindingsTable.Definition,
    ];

    /// <summary>Finds a table by its name.</summary>
    public static TableDefinition? Find(string name) => All.FirstOrDefault(table => table.Name == name);
}
