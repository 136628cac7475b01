using System.Globalization;
using Vlei.Core.Ledger;
using Vlei.Records;

namespace Vlei.Sample;

/// <summary>The people that the business deals with: as many as its size asks for.</summary>
internal sealed class Contacts
{
    private const int CustomersInDemo = 130;

    private readonly Dictionary<string, List<string>> _suppliers = new(StringComparer.Ordinal);

    /// <summary>Writes them all.</summary>
    public Contacts(RecordSetWriter writer, Dice dice, int scale)
    {
        var customers = Math.Max(CustomersInDemo, CustomersInDemo * scale / 1000);
        for (var number = 1; number <= customers; number++)
        {
            var (first, last) = (dice.Of(Chart.FirstNames), dice.Of(Chart.LastNames));
            Customers.Add(Write(writer, $"C{number:D4}", $"{first} {last}", "customer", 30,
                $"{dice.Between(1, 98)} Reed Street, Reedwater"));
        }

        for (var number = 1; number <= Chart.Lodges.Length; number++)
        {
            Lodges.Add(Write(writer, $"L{number:D2}", Chart.Lodges[number - 1], "customer", 14, "Lake Road, Reedwater"));
        }

        for (var number = 1; number <= Chart.Suppliers.Length; number++)
        {
            var (name, supplies) = Chart.Suppliers[number - 1];
            var id = Write(writer, $"S{number:D2}", name, "supplier", 30, "Trade Park, Reedwater");
            if (!_suppliers.TryGetValue(supplies, out var suppliers))
            {
                _suppliers.Add(supplies, suppliers = []);
            }

            suppliers.Add(id);
        }

        for (var number = 1; number <= Chart.Workers.Length; number++)
        {
            Write(writer, $"E{number:D2}", Chart.Workers[number - 1].Name, "employee", null, null);
        }
    }

    /// <summary>Those who have boats built and repaired.</summary>
    public List<string> Customers { get; } = [];

    /// <summary>Those who hire on account.</summary>
    public List<string> Lodges { get; } = [];

    /// <summary>Those who supply that.</summary>
    public IReadOnlyList<string> SuppliersOf(string supplies) => _suppliers[supplies];

    private static string Write(RecordSetWriter writer, string id, string name, string kind, int? terms, string? address)
    {
        var mailbox = name.ToLowerInvariant().Replace(' ', '.');
        writer.Write(
            RecordTables.Contacts, id, name, kind, kind == "employee" ? null : $"{mailbox}@example.com", null, address,
            terms?.ToString(CultureInfo.InvariantCulture), "true");
        return id;
    }
}
