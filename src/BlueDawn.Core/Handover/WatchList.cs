using BlueDawn.Core.Parts;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Handover;

/// <summary>What the owner and the next technician should watch, drawn from the readings.</summary>
public static class WatchList
{
    /// <summary>The points to watch; never empty, storage is always one.</summary>
    /// <param name="lines">Every judged line.</param>
    /// <param name="fates">How the parts that were out ended, by their key in the ledger: what is said to be new was renewed.</param>
    /// <param name="declined">True when it was decided not to repair it: then nobody was asked to read anything.</param>
    public static IReadOnlyList<string> Of(IReadOnlyList<JudgedLine> lines, IReadOnlyDictionary<string, Fate> fates, bool declined)
    {
        var points = new List<string>();
        foreach (var judged in lines)
        {
            var earlier = judged.Readings.SkipLast(1).Select(reading => reading.Finding).ToList();
            var label = judged.Line.Label;
            switch (judged.Judgement.Verdict)
            {
                case Verdict.NotGood:
                    points.Add($"{label}: {Lower(judged.Judgement.Word)} when it left the bench.");
                    break;
                case Verdict.CannotTell:
                    points.Add($"{label}: could not be decided on the bench.");
                    break;
                case Verdict.NotRead when judged.Line.Required && !declined:
                    points.Add($"{label}: {judged.Line.NotReadWords}.");
                    break;
                case Verdict.Good when judged.Judgement.Finding == "openedOneStep":
                    points.Add(
                        $"{label}: opened one drill size on purpose. It idles richer than the sheet says; whoever works on it next has to know."
                    );
                    break;
                default:
                    if (earlier.LastOrDefault(IsTrouble) is { } trouble)
                    {
                        points.Add(
                            Cured(label, trouble, judged.Line.Part is { } part && fates.TryGetValue(part, out var fate) ? fate : null)
                        );
                    }

                    break;
            }
        }

        points.Add("Standing for more than a month: shut the fuel tap and run it dry.");
        return points;
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
            "leaks" or "overflows" => $"{label} leaked before the repair: look for fuel in the oil and under the bowl after the first day.",
            "takenOnFuel" =>
                $"{label}: the float had fuel inside and {Became("was renewed", "was emptied and went back in", "weighs right now")}; watch for flooding.",
            _ => $"{label} was put right: tell us if the old trouble comes back.",
        };
    }

    private static bool IsTrouble(string finding) =>
        finding
            is "restricted"
                or "blocked"
                or "openedUp"
                or "leaks"
                or "overflows"
                or "takenOnFuel"
                or "tooHigh"
                or "tooLow"
                or "uneven"
                or "wetAtBowlJoint"
                or "wetAtInlet"
                or "plungerWeeps"
                or "tooSlow"
                or "tooFast"
                or "hunts";

    private static string Lower(string word) => word.Length == 0 ? word : char.ToLowerInvariant(word[0]) + word[1..];
}
