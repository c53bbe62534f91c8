using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Trays;

/// <summary>The order in which the bench lists trays.</summary>
public static class BenchOrder
{
    /// <summary>What is promised soonest first; what has been handed back last, the latest first.</summary>
    /// <typeparam name="T">What is listed.</typeparam>
    /// <param name="trays">The trays.</param>
    /// <param name="facts">What stands on each.</param>
    public static IReadOnlyList<T> Of<T>(IEnumerable<T> trays, Func<T, TrayFacts> facts) =>
        [
            .. trays
                .Select(tray => (Tray: tray, Facts: facts(tray)))
                .OrderBy(pair => pair.Facts.WaitsFor == WaitsFor.HandedBack)
                .ThenBy(pair => pair.Facts.WaitsFor == WaitsFor.HandedBack ? DateOnly.MinValue : pair.Facts.PromisedDay)
                .ThenBy(pair => pair.Facts.WaitsFor == WaitsFor.HandedBack ? -pair.Facts.Number : pair.Facts.Number)
                .Select(pair => pair.Tray),
        ];
}
