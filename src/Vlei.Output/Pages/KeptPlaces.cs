namespace Vlei.Output.Pages;

/// <summary>Of which rows of a report it is kept where on its pages they stand.</summary>
internal enum KeptPlaces
{
    /// <summary>Of none: nothing leads on from them.</summary>
    None,

    /// <summary>Of those that can lead on to the records or documents behind them, or back.</summary>
    Leading,

    /// <summary>Of all: they are a list of other pages.</summary>
    All,
}
