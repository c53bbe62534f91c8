using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Handover;

/// <summary>What the owner and the next technician should watch, drawn from the readings.</summary>
public static class WatchList
{
    /// <summary>The points to watch; never empty, storage is always one.</summary>
    public static IReadOnlyList<string> Of(IReadOnlyList<JudgedLine> lines)
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
                case Verdict.NotRead when judged.Line.Required:
                    points.Add($"{label}: was not read.");
                    break;
                default:
                    if (earlier.LastOrDefault(IsTrouble) is { } trouble)
                    {
                        points.Add(Cured(label, trouble));
                    }

                    break;
            }
        }

        points.Add("Standing for more than a month: shut the fuel tap and run it dry.");
        return points;
    }

    private static string Cured(string label, string finding) => finding switch
    {
        "restricted" or "blocked" => $"{label} was {finding} and has been cleared: old fuel does this; hunting or a stall when warm would be the first sign of it coming back.",
        "openedUp" => $"{label} had been opened up and was replaced: black smoke or a wet plug would say otherwise.",
        "leaks" or "overflows" => $"{label} leaked before the repair: look for fuel in the oil and under the bowl after the first day.",
        "takenOnFuel" => $"{label}: the float had fuel inside and was replaced; watch for flooding.",
        _ => $"{label} was put right: tell us if the old trouble comes back.",
    };

    private static bool IsTrouble(string finding) =>
        finding is "restricted" or "blocked" or "openedUp" or "leaks" or "overflows" or "takenOnFuel" or "tooHigh" or "tooLow"
            or "uneven" or "wetAtBowlJoint" or "wetAtInlet" or "plungerWeeps" or "tooSlow" or "tooFast" or "hunts";

    private static string Lower(string word) => word.Length == 0 ? word : char.ToLowerInvariant(word[0]) + word[1..];
}
