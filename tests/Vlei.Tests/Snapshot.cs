namespace Vlei.Tests;

/// <summary>
/// Compares a whole output with the one that was read and approved. <c>VLEI_APPROVE=1</c> writes what came out in its
/// place, to be read before it is committed.
/// </summary>
public static class Snapshot
{
    public static void Matches(string name, string actual)
    {
        var path = Path.Combine(Tool.Root, "tests", "Vlei.Tests", "expected", name);
        if (Environment.GetEnvironmentVariable("VLEI_APPROVE") == "1")
        {
            File.WriteAllText(path, actual);
        }

        Assert.True(File.Exists(path), $"{path} is not there");
        Assert.Equal(File.ReadAllText(path), actual);
    }
}
