using Vlei.Core.Ledger;

namespace Vlei.Records.Maps;

/// <summary>An account, a contact, an item or the like that a file speaks of and the book does not have.</summary>
/// <param name="Table">What it is.</param>
/// <param name="Id">The code or the id that it gets.</param>
/// <param name="Name">Its name.</param>
/// <param name="Detail">What it becomes: the type of an account, the kind of a contact, the rate of a tax.</param>
/// <param name="Because">Why it becomes that.</param>
/// <param name="IsGuess">Whether that is a guess.</param>
/// <param name="File">The file that it stands in first.</param>
/// <param name="Line">The line of that file.</param>
/// <param name="Column">The column.</param>
public sealed record NewRecord(
    RecordTable Table, string Id, string Name, string Detail, string Because, bool IsGuess, string File, long Line, int Column);
