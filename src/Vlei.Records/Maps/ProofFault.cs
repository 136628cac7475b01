using Vlei.Core.Ledger;

namespace Vlei.Records.Maps;

/// <summary>Something that a file says of itself, and that its rows do not come to.</summary>
/// <param name="File">The file.</param>
/// <param name="Line">The line of the file that says so, from 1.</param>
/// <param name="Column">The column, from 1.</param>
/// <param name="Message">What it says, what its rows come to, and the difference.</param>
public sealed record ProofFault(string File, long Line, int Column, string Message)
{
    /// <summary>With its place first.</summary>
    public override string ToString() => $"{FilePlace.Text(File, Line, Column)}: {Message}";
}

/// <summary>What was proved of a file, and what could not be.</summary>
internal sealed class SourceProof
{
    private readonly List<ProofFault> _faults = [];

    /// <summary>What does not prove.</summary>
    public IReadOnlyList<ProofFault> Faults => _faults;

    /// <summary>How many figures of the files were held against their rows and are right.</summary>
    public int Proved { get; private set; }

    /// <summary>Holds a figure that a file shows against what its rows come to.</summary>
    public void Hold(string file, long line, int column, string what, decimal shown, decimal computed)
    {
        if (shown == computed)
        {
            Right();
            return;
        }

        Fail(
            file, line, column,
            $"{what} is {Text(shown)}, but the rows come to {Text(computed)}: a difference of {Text(shown - computed)}.");
    }

    /// <summary>Says that a figure is right.</summary>
    public void Right() => Proved++;

    /// <summary>Says that something does not prove.</summary>
    public void Fail(string file, long line, int column, string message) => _faults.Add(new ProofFault(file, line, column, message));

    private static string Text(decimal amount) => amount.ToString("#,##0.00###", System.Globalization.CultureInfo.InvariantCulture);
}
