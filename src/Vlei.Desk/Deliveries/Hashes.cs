using System.Security.Cryptography;
using System.Text;

namespace Vlei.Desk.Deliveries;

/// <summary>Sums by which letters, their files and their keys are known again.</summary>
internal static class Hashes
{
    /// <summary>The sum of some bytes, SHA-256 as hexadecimal digits.</summary>
    public static string Of(ReadOnlySpan<byte> bytes) => Convert.ToHexStringLower(SHA256.HashData(bytes));

    /// <summary>The sum of a text.</summary>
    public static string Of(string text) => Of(Encoding.UTF8.GetBytes(text));
}
