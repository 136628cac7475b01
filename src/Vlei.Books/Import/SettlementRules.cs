using Vlei.Books.Columns;
using Vlei.Core.Ledger;
using Vlei.Core.Money;
using Vlei.Core.OpenItems;

namespace Vlei.Books.Import;

/// <summary>Checks the settlements of documents that an import touched against what is open.</summary>
internal static class SettlementRules
{
    /// <summary>Tells the errors, at the settlement's line where the set has it, else at its document's.</summary>
    public static void Check(
        Derivation derivation, SettlementImport? imported, KeyedImport? documents, RecordKeys ids, Currency currency, RecordErrors errors)
    {
        var book = new SettlementBook();
        foreach (var settlement in derivation.Settlements)
        {
            if (derivation.ControlItems.Of(settlement.From) is not { } from || derivation.ControlItems.Of(settlement.To) is not { } to)
            {
                continue;
            }

            var fault = book.Settle(from, to, settlement.Amount, out var open);
            if (fault == SettlementFault.None)
            {
                continue;
            }

            var (left, right) = (ids.IdOf(settlement.From.Value), ids.IdOf(settlement.To.Value));
            var message = fault switch
            {
                SettlementFault.NoCommonAccount =>
                    $"\"{left}\" and \"{right}\" have no receivable or payable account in common.",
                SettlementFault.SameSide =>
                    $"\"{left}\" and \"{right}\" stand on the same side of their account; one must be owed, the other paid.",
                SettlementFault.NoCommonContact => $"\"{left}\" and \"{right}\" have no contact in common on their account.",
                _ => $"\"{left}\" and \"{right}\" are settled by {Text(settlement.Amount)}, but only {Text(open)} is open.",
            };
            if (imported?.Places.TryGetValue(settlement.Key.Value, out var place) == true)
            {
                errors.Add(place.File, place.Line, 1, message);
            }
            else
            {
                var document = documents?.IsInSet(settlement.From.Value) == true ? settlement.From : settlement.To;
                var (file, line) = documents?.PlaceOf(document.Value) ?? new RecordPlace(RecordTables.Documents.FileName, 1);
                errors.Add(file, line, 1, $"an earlier settlement no longer fits: {message}");
            }
        }

        string Text(Amount amount) => DecimalText.Write(amount.MinorUnits, currency.Decimals);
    }
}
