using Vlei.Core.Languages;

namespace Vlei.Core.Reports;

/// <summary>
/// What stands before the figures of a row. It says itself what of it is ours, and has another form in each language, and what
/// is a name, which people and records have given and which stays as it is.
/// </summary>
public sealed class Caption
{
    private readonly string _text;
    private readonly bool _isOurs;
    private readonly Caption? _inside;

    private Caption(string text, bool isOurs, Caption? inside) => (_text, _isOurs, _inside) = (text, isOurs, inside);

    /// <summary>It in English.</summary>
    public string English => _inside is null ? _text : _text.Replace("{0}", _inside.English, StringComparison.Ordinal);

    /// <summary>A name.</summary>
    public static Caption Name(string name) => new(name, isOurs: false, null);

    /// <summary>Words of ours.</summary>
    public static Caption Ours(string english) => new(english, isOurs: true, null);

    /// <summary>Words of ours around something else: <c>Total {0}</c>.</summary>
    public static Caption Ours(string english, Caption inside) => new(english, isOurs: true, inside);

    /// <summary>What is not said to be ours is a name.</summary>
    public static implicit operator Caption(string name) => Name(name);

    /// <summary>It in a language.</summary>
    /// <param name="language">The language.</param>
    /// <param name="polish">What is done to our words then, as for the days in them.</param>
    public string In(Language language, Func<string, string> polish) => !_isOurs ? _text
        : _inside is null ? polish(language.Say(_text)) : language.Say(_text, _inside.In(language, polish));
}
