namespace Vlei.Books.Store;

/// <summary>The frozen SQL of the steps that make a store's tables.</summary>
internal static class StepText
{
    /// <summary>The SQL of a step of a kind of store, counted from 1.</summary>
    public static string Of(string store, int step)
    {
        using var text = typeof(StepText).Assembly.GetManifestResourceStream($"steps/{store}/{step}.sql")!;
        using var reader = new StreamReader(text);
        return reader.ReadToEnd();
    }
}
