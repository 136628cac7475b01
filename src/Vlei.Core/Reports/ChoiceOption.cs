namespace Vlei.Core.Reports;

/// <summary>An option that takes words, each of which stands for a value.</summary>
public sealed record ChoiceOption<T> : ReportOption
{
    private readonly IReadOnlyList<(string Word, T Value)> _choices;

    /// <summary>Lists the words.</summary>
    /// <param name="name">Its name, without dashes.</param>
    /// <param name="valueName">What stands for its value in help.</param>
    /// <param name="help">What it does, in a line.</param>
    /// <param name="choices">The words, in the order of help, with what each stands for.</param>
    public ChoiceOption(string name, string valueName, string help, params IReadOnlyList<(string Word, T Value)> choices)
        : base(name, valueName, help)
    {
        (_choices, Words) = (choices, [.. choices.Select(choice => choice.Word)]);
    }

    /// <summary>
    /// What a word stands for, in any case. Throws a <see cref="Problems.ProblemException"/> for a word that it does not take.
    /// </summary>
    public T ValueOf(string word)
    {
        foreach (var (known, value) in _choices)
        {
            if (known.Equals(word, StringComparison.OrdinalIgnoreCase))
            {
                return value;
            }
        }

        throw Refusal(word);
    }

    /// <summary>The word for a value.</summary>
    public string WordOf(T value) => _choices.First(choice => EqualityComparer<T>.Default.Equals(choice.Value, value)).Word;
}
