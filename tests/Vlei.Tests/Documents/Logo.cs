namespace Vlei.Tests.Documents;

/// <summary>A small picture.</summary>
internal static class Logo
{
    /// <summary>A blue patch of 60 by 30 dots, as PNG.</summary>
    public static byte[] Png { get; } = Convert.FromBase64String(
        "iVBORw0KGgoAAAANSUhEUgAAADwAAAAeCAIAAAD/+uoYAAAANElEQVR42u3OQQkAAAgEsGtiNANZ2hQ+"
        + "hMECLNXzTqSlpaWlpaWlpaWlpaWlpaWlpaWlryycXEeyiTHWKgAAAABJRU5ErkJggg==");
}
