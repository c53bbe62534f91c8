using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Handover;

/// <summary>What the owner and the next technician should watch, drawn from the readings.</summary>
public static class WatchList
{
    private const string OpenedOnPurpose = "openedOneStep",
        WaitsHot = "waits";

    /// <summary>Findings that are told of after they were put right; each is one that some line declares, which a test asks.</summary>
    public static IReadOnlyList<string> Troubles { get; } =
    ["restricted", "blocked", "openedUp", "leaks", "takenOnFuel", "tooHigh", "tooLow", "uneven", "tooSlow", "tooFast", "hunts"];

    /// <summary>The points to watch; never empty, storage is always one.</summary>
    /// <param name="lines">Every judged line.</param>
    /// <param name="fates">How the parts that were out ended, by their key in the ledger: what is said to be new was renewed.</param>
    /// <param name="declined">True when it was decided not to repair it: then nobody was asked to read anything.</param>
    /// <param name="family">The carburetor: it says how it is stored.</param>
    /// <param name="withNotRead">Whether lines that nobody read are among them.</param>
    /// <param name="asItCame">Keys of quick tests that say how it came in and not how it left: what they showed has been put right since.</param>
    public static IReadOnlyList<string> Of(
        IReadOnlyList<JudgedLine> lines,
        IReadOnlyDictionary<string, Fate> fates,
        bool declined,
        CarburetorFamily family,
        IReadOnlySet<string> asItCame,
        bool withNotRead = true
    ) =>
        [
            .. lines
                .Where(judged => !asItCame.Contains(judged.Line.Key))
                .Where(judged => withNotRead || judged.Judgement.Verdict != Verdict.NotRead)
                .Select(judged => Point(judged, fates, declined))
                .OfType<string>(),
            Stored(family),
        ];

    /// <summary>What has to be read and nobody did, by name.</summary>
    /// <param name="lines">Every judged line.</param>
    public static IReadOnlyList<string> NotRead(IReadOnlyList<JudgedLine> lines) =>
        [.. lines.Where(judged => judged is { Required: true, Judgement.Verdict: Verdict.NotRead }).Select(judged => judged.Line.Label)];

    /// <summary>How it is put away, by what would harden or clog. Common practice, no source.</summary>
    private static string Stored(CarburetorFamily family) =>
        family switch
        {
            CarburetorFamily.FloatBowl => "Standing for more than a month: shut the fuel tap and run it dry.",
            CarburetorFamily.Diaphragm =>
                "Standing for more than a month: empty the tank and run it until it stops, so that no fuel hardens the diaphragms.",
            CarburetorFamily.SuctionTank =>
                "Standing for more than a month: empty the tank and run it until it stops, so that nothing dries on its screens.",
        };

    private static string? Point(JudgedLine judged, IReadOnlyDictionary<string, Fate> fates, bool declined)
    {
        var label = judged.Line.Label;
        return judged.Judgement.Verdict switch
        {
            Verdict.NotGood => $"{label}: {Lower(judged.Judgement.Word)} when it left the bench.",
            Verdict.CannotTell when judged.Standing?.Note.Without is { Count: > 0 } off =>
                $"{label}: was read good without {string.Join(", ", off)}, and not again with all on.",
            Verdict.CannotTell => $"{label}: could not be decided on the bench.",
            Verdict.NotRead when judged.Required && !declined => $"{label}: {judged.Line.NotReadWords}.",
            Verdict.Good when judged.Judgement.Finding == OpenedOnPurpose =>
                $"{label}: opened one drill size on purpose. It idles richer than the sheet says; whoever works on it next has to know.",
            Verdict.Good when judged.Judgement.Finding == WaitsHot =>
                "Hot it starts again only after about 20 minutes: its choke shuts at every stop. That is no fault.",
            Verdict.Good or Verdict.NotRead => judged.Readings.SkipLast(1).Select(reading => reading.Finding).LastOrDefault(IsTrouble)
                is { } trouble
                ? Cured(label, trouble, judged.Line.Part is { } part && fates.TryGetValue(part, out var fate) ? fate : null)
                : null,
        };
    }

    private static string Cured(string label, string finding, Fate? fate)
    {
        // What nobody wrote at Build is not told: then only what was read is.
        string Became(string renewed, string refitted, string unknown) =>
            fate switch
            {
                Fate.Renewed or Fate.Made => renewed,
                Fate.Refitted => refitted,
                null or Fate.LeftOff or Fate.Scrapped => unknown,
            };
        return finding switch
        {
            "restricted" or "blocked" => $"{label} was {finding} and {Became("was renewed", "has been cleared", "has been cleared")}: "
                + "old fuel does this; hunting or a stall when warm would be the first sign of it coming back.",
            "openedUp" => $"{label} read opened up and {Became("was renewed", "reads in gauge now, the same part", "reads in gauge now")}: "
                + "black smoke or a wet plug would say otherwise.",
            "leaks" => $"{label} leaked before the repair: look for fuel in the oil and under the bowl after the first day.",
            "takenOnFuel" =>
                $"{label}: the float had fuel inside and {Became("was renewed", "was emptied and went back in", "weighs right now")}; watch for flooding.",
            _ => $"{label} was put right: tell us if the old trouble comes back.",
        };
    }

    private static bool IsTrouble(string finding) => Troubles.Contains(finding);

    private static string Lower(string word) => word.Length == 0 ? word : char.ToLowerInvariant(word[0]) + word[1..];
}
