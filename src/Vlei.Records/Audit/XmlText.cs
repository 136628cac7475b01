using System.Xml;

namespace Vlei.Records.Audit;

/// <summary>Texts without the letters that XML cannot have.</summary>
internal static class XmlText
{
    /// <summary>The text; what XML cannot have is a blank.</summary>
    public static string Of(string text) => text.All(IsOne) ? text : string.Concat(text.Select(letter => IsOne(letter) ? letter : ' '));

    private static bool IsOne(char letter) => XmlConvert.IsXmlChar(letter) || char.IsSurrogate(letter);
}
