using BlueDawn.Core.Worksheets;

namespace BlueDawn.Core.Logbook;

/// <summary>A reading as it stands in the logbook.</summary>
/// <param name="Id">Its id, made by the client (UUIDv7).</param>
/// <param name="LineKey">The line it was taken on.</param>
/// <param name="Supersedes">The entry it corrects or withdraws, or null.</param>
/// <param name="TakenAt">When it was taken.</param>
/// <param name="Reading">What was read; null for a withdrawal.</param>
public sealed record LoggedReading(Guid Id, string LineKey, Guid? Supersedes, DateTimeOffset TakenAt, Reading? Reading);

/// <summary>Which readings count. Nothing is ever edited: a correction supersedes, and both stay in the book.</summary>
public static class StandingReadings
{
    /// <summary>Readings that were neither corrected nor withdrawn, oldest first, by line; the last of a line stands.</summary>
    public static IReadOnlyDictionary<string, IReadOnlyList<LoggedReading>> ByLine(IEnumerable<LoggedReading> logged)
    {
        var all = logged.ToList();
        var superseded = all.Where(entry => entry.Supersedes is not null).Select(entry => entry.Supersedes!.Value).ToHashSet();
        return all
            .Where(entry => entry.Reading is not null && !superseded.Contains(entry.Id))
            .GroupBy(entry => entry.LineKey)
            .ToDictionary(
                line => line.Key,
                line => (IReadOnlyList<LoggedReading>)[.. line.OrderBy(entry => entry.TakenAt).ThenBy(entry => entry.Id)]);
    }
}
