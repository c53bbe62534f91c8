namespace BlueDawn.Core.Trays;

/// <summary>
/// Times by the clock of a device that may be wrong. A device says what its clock shows when it sends; what it took
/// before that is moved by as much as the clock was off then, so that what counts as latest does not hang on it.
/// </summary>
public static class DeviceClock
{
    /// <summary>Up to here the way through the network may be all there is to it; the time stays as it was taken.</summary>
    public static readonly TimeSpan Way = TimeSpan.FromSeconds(5);

    /// <summary>From here on whoever uses the device is told.</summary>
    public static readonly TimeSpan Told = TimeSpan.FromMinutes(2);

    /// <summary>By how much a device's clock is behind (above 0) or ahead (below 0); nothing when it does not say, or it is no more than
    /// the way.</summary>
    /// <param name="sentAt">What the device's clock showed when it sent, or null for a device that does not say.</param>
    /// <param name="now">Now, by the clock of the server.</param>
    public static TimeSpan Off(DateTimeOffset? sentAt, DateTimeOffset now) =>
        sentAt is { } sent && (now - sent).Duration() > Way ? now - sent : TimeSpan.Zero;

    /// <summary>When something was taken by the clock of the server; never later than now.</summary>
    /// <param name="takenAt">When, by the clock of the device.</param>
    /// <param name="off">By how much that is behind.</param>
    /// <param name="now">Now, by the clock of the server.</param>
    public static DateTimeOffset Right(DateTimeOffset takenAt, TimeSpan off, DateTimeOffset now)
    {
        // Far from both ends of time, whatever a device believes.
        var near = takenAt < DateTimeOffset.MinValue.AddYears(1) || takenAt > DateTimeOffset.MaxValue.AddYears(-1) ? now : takenAt;
        var right = (near + off).ToUniversalTime();
        return right < now ? right : now;
    }
}
