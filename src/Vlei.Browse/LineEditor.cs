using Vlei.Output;

namespace Vlei.Browse;

/// <summary>A line that a person types an answer into.</summary>
/// <param name="question">What is asked.</param>
/// <param name="text">What stands there at first.</param>
internal sealed class LineEditor(string question, string text)
{
    private string _text = text;
    private int _place = text.Length;

    /// <summary>What was typed.</summary>
    public string Text => _text.Trim();

    /// <summary>The line, with where the next letter goes.</summary>
    public string Drawn(int width)
    {
        var asked = $"{question}: ";
        var space = Math.Max(1, width - DisplayText.Width(asked) - 1);
        var from = Math.Max(0, _place - space + 1);
        var (before, here) = (_text[from.._place], _place < _text.Length ? _text[_place].ToString() : " ");
        return asked.In(TextStyle.Strong, colour: true) + before + here.In(TextStyle.Chosen, colour: true)
            + DisplayText.Cut(_place < _text.Length ? _text[(_place + 1)..] : "", Math.Max(1, space - before.Length));
    }

    /// <summary>Takes a key; says whether the answer is done, or given up.</summary>
    public (bool IsDone, bool IsLeft) Take(ConsoleKeyInfo key)
    {
        switch (key.Key)
        {
            case ConsoleKey.Enter:
                return (true, false);
            case ConsoleKey.Escape:
            case ConsoleKey.C when key.Modifiers.HasFlag(ConsoleModifiers.Control):
                return (true, true);
            case ConsoleKey.U when key.Modifiers.HasFlag(ConsoleModifiers.Control):
                (_text, _place) = (_text[_place..], 0);
                break;
            case ConsoleKey.LeftArrow:
                _place = Math.Max(0, _place - 1);
                break;
            case ConsoleKey.RightArrow:
                _place = Math.Min(_text.Length, _place + 1);
                break;
            case ConsoleKey.Home:
                _place = 0;
                break;
            case ConsoleKey.End:
                _place = _text.Length;
                break;
            case ConsoleKey.Backspace when _place > 0:
                _text = _text.Remove(--_place, 1);
                break;
            case ConsoleKey.Delete when _place < _text.Length:
                _text = _text.Remove(_place, 1);
                break;
            default:
                Insert(key.KeyChar);
                break;
        }

        return (false, false);
    }

    private void Insert(char letter)
    {
        if (!char.IsControl(letter))
        {
            _text = _text.Insert(_place++, letter.ToString());
        }
    }
}
