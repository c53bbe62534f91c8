namespace BlueDawn.Core.Logbook;

/// <summary>A reason that somebody types for doing something out of the usual. It stands on the report.</summary>
public static class Reason
{
    /// <summary>Fewest characters that say something.</summary>
    public const int Shortest = 10;

    /// <summary>What is wrong with a reason, or null when it will do.</summary>
    public static string? Problem(string? reason) =>
        (reason ?? "").Trim().Length >= Shortest
            ? null
            : $"Say in at least {Shortest} characters why it may go as it is; it is printed on the report.";
}
