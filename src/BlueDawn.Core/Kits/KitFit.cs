using BlueDawn.Core.Worksheets;

namespace BlueDawn.Core.Kits;

/// <summary>A part the carburetor needs.</summary>
/// <param name="Part">Which part, such as <c>bowl gasket</c>.</param>
/// <param name="Quantity">How many, 1 or more.</param>
/// <param name="Features">What must agree, such as thickness <c>1.5 mm</c>; empty when any will do.</param>
public sealed record PartNeed(string Part, int Quantity, IReadOnlyDictionary<string, string> Features);

/// <summary>A part in a kit.</summary>
/// <param name="Part">Which part.</param>
/// <param name="Quantity">How many.</param>
/// <param name="Features">What it is like.</param>
public sealed record KitPart(string Part, int Quantity, IReadOnlyDictionary<string, string> Features);

/// <summary>A rebuild kit as sold.</summary>
/// <param name="Number">The kit's number.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Maker">Who makes the kit.</param>
/// <param name="ListedFor">Stamped numbers the maker lists it for.</param>
/// <param name="Parts">What is in it.</param>
public sealed record KitContents(
    string Number,
    string Name,
    string Maker,
    IReadOnlyList<string> ListedFor,
    IReadOnlyList<KitPart> Parts);

/// <summary>How a kit fits.</summary>
public enum FitVerdict
{
    /// <summary>A part differs from what is needed.</summary>
    NearMiss,

    /// <summary>Nothing in it differs, but it does not bring all that is needed.</summary>
    Partly,

    /// <summary>Brings all that is needed and nothing differs.</summary>
    Fits,
}

/// <summary>How one part compares.</summary>
/// <param name="Part">Which part.</param>
/// <param name="Agrees">True when the kit brings it as needed.</param>
/// <param name="Note">What agrees, differs or is missing, in words.</param>
public sealed record PartFit(string Part, bool Agrees, string Note);

/// <summary>How a kit fits a carburetor and why.</summary>
/// <param name="Verdict">Fits, partly or near miss.</param>
/// <param name="Stamp">How the stamped number agrees with the kit's list.</param>
/// <param name="Reason">The verdict in one sentence.</param>
/// <param name="Parts">Part by part.</param>
public sealed record KitFit(FitVerdict Verdict, StampMatch Stamp, string Reason, IReadOnlyList<PartFit> Parts)
{
    /// <summary>
    /// Compares a kit with what a spec sheet needs, part by part. A kit that the maker lists for the number is still
    /// called a near miss when a part in it differs: kits look alike and differ in one part.
    /// </summary>
    /// <param name="kit">The kit.</param>
    /// <param name="spec">The spec sheet of the carburetor, or null when only the stamped number is known.</param>
    /// <param name="stamped">The stamped number as read, or null.</param>
    /// <returns>The fit, or null when nothing connects the kit with the carburetor.</returns>
    public static KitFit? Of(KitContents kit, SpecSheet? spec, string? stamped)
    {
        var stamp = kit.ListedFor.Select(listed => StampedNumber.Compare(stamped, listed)).DefaultIfEmpty(StampMatch.None).Max();
        if (spec is null)
        {
            return stamp == StampMatch.None ? null : new KitFit(FitVerdict.Partly, stamp, StampReason(stamp) + " No spec sheet to compare its parts with.", []);
        }

        var listedForSpec = spec.StampedNumbers.Any(number => kit.ListedFor.Any(listed => StampedNumber.Compare(number, listed) == StampMatch.Exact));
        if (stamp == StampMatch.None && !listedForSpec && !SharesAFeature(kit, spec))
        {
            return null;
        }

        var parts = spec.Needs.Select(need => Compare(need, kit)).ToList();
        var differing = parts.Where(part => part.Different).Select(part => part.Fit).ToList();
        var missing = parts.Where(part => part is { Different: false, Fit.Agrees: false }).Select(part => part.Fit).ToList();
        var start = stamp != StampMatch.None ? StampReason(stamp)
            : listedForSpec ? $"Listed for {spec.Code}."
            : $"Not listed for {spec.Code}.";
        var (verdict, end) = differing.Count > 0 ? (FitVerdict.NearMiss, $" Wrong: {string.Join("; ", differing.Select(part => part.Note))}.")
            : missing.Count > 0 ? (FitVerdict.Partly, $" Does not bring: {string.Join(", ", missing.Select(part => part.Part))}.")
            : (FitVerdict.Fits, " Every part agrees with the spec sheet.");
        return new KitFit(verdict, stamp, start + end, [.. parts.Select(part => part.Fit)]);
    }

    private static string StampReason(StampMatch stamp) => stamp switch
    {
        StampMatch.Exact => "Listed for this stamped number.",
        StampMatch.Misread => "Listed for a number that reads like this one: check the stamp.",
        StampMatch.Part => "Listed for a number that begins like this: read the rest of the stamp.",
        _ => "Not listed for this stamped number.",
    };

    private static bool SharesAFeature(KitContents kit, SpecSheet spec) =>
        spec.Needs.Count(need => need.Features.Count > 0 && !Compare(need, kit).Different && Compare(need, kit).Fit.Agrees) * 2
            > spec.Needs.Count(need => need.Features.Count > 0);

    private static (PartFit Fit, bool Different) Compare(PartNeed need, KitContents kit)
    {
        var candidates = kit.Parts.Where(part => part.Part == need.Part).ToList();
        if (candidates.Count == 0)
        {
            return (new PartFit(need.Part, false, $"no {need.Part}"), false);
        }

        var best = candidates.Select(part => (Part: part, Wrong: Differences(need, part))).MinBy(pair => pair.Wrong.Count);
        if (best.Wrong.Count > 0)
        {
            return (new PartFit(need.Part, false, $"{need.Part} {string.Join(", ", best.Wrong)}"), true);
        }

        if (best.Part.Quantity < need.Quantity)
        {
            return (new PartFit(need.Part, false, $"{best.Part.Quantity} of {need.Quantity} {need.Part}"), false);
        }

        var agreed = need.Features.Count == 0 ? "brought" : string.Join(", ", need.Features.Select(feature => $"{feature.Key} {feature.Value}"));
        return (new PartFit(need.Part, true, agreed), false);
    }

    private static List<string> Differences(PartNeed need, KitPart part) =>
        [.. need.Features
            .Where(feature => !part.Features.TryGetValue(feature.Key, out var value) || value != feature.Value)
            .Select(feature => $"{feature.Key} {(part.Features.TryGetValue(feature.Key, out var value) ? value : "not stated")}, needs {feature.Value}")];
}
