namespace Vlei.Desk.Deliveries;

/// <summary>How long is waited before something is tried again: longer each time, and no longer than two days in all.</summary>
public static class RetryPauses
{
    private static readonly TimeSpan Patience = TimeSpan.FromDays(2);
    private static readonly int[] Minutes = [1, 5, 15, 30, 60, 120, 240];

    /// <summary>When it is tried next; nothing where it was tried for long enough.</summary>
    /// <param name="first">When it was tried first.</param>
    /// <param name="now">When it was tried last.</param>
    /// <param name="tries">How often it was tried.</param>
    public static DateTimeOffset? Next(DateTimeOffset first, DateTimeOffset now, int tries)
    {
        var next = now.AddMinutes(Minutes[Math.Clamp(tries - 1, 0, Minutes.Length - 1)]);
        return next - first <= Patience ? next : null;
    }
}
