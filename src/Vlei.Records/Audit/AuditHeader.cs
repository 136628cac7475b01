namespace Vlei.Records.Audit;

/// <summary>What an audit file says of itself.</summary>
/// <param name="Company">The business.</param>
/// <param name="Currency">The currency, as ISO 4217 has it.</param>
/// <param name="Created">The day that it is made.</param>
/// <param name="From">The first day that it is about.</param>
/// <param name="To">The last day.</param>
/// <param name="Version">The version of the program.</param>
public sealed record AuditHeader(string Company, string Currency, DateOnly Created, DateOnly From, DateOnly To, string Version);
