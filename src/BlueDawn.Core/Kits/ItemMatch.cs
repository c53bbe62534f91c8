using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Kits;

/// <summary>How an item fits, worst first.</summary>
public enum FitVerdict
{
    /// <summary>A part differs from what is wanted.</summary>
    NearMiss,

    /// <summary>Nothing in it differs, but it does not bring all that is wanted.</summary>
    Partly,

    /// <summary>Brings all; nothing differs as far as it has been measured.</summary>
    SoFar,

    /// <summary>Brings all that is wanted and everything fits.</summary>
    Fits,
}

/// <summary>How an item fits a carburetor and why.</summary>
/// <param name="Verdict">Fits, fits so far, partly or near miss.</param>
/// <param name="Listed">The number it is listed for that agrees best with the carburetor's, or null.</param>
/// <param name="Reason">The verdict in a sentence.</param>
/// <param name="Parts">Part by part, in the order they are wanted.</param>
public sealed record ItemMatch(FitVerdict Verdict, StampReading? Listed, Sentence Reason, IReadOnlyList<PartMatch> Parts)
{
    /// <summary>Wanted parts that agree as far as can be told: something of them fits and nothing differs.</summary>
    public int Agreeing =>
        Parts.Count(part =>
            part.Verdict == PartVerdict.Fits
            || (
                part.Verdict is PartVerdict.NotMeasured or PartVerdict.CannotTell
                && part.Features.Any(feature => feature.Verdict == FeatureVerdict.Fits)
            )
        );

    /// <summary>
    /// Compares an item with what a carburetor needs, part by part. An item that its maker lists for the number is still
    /// a near miss when a part in it differs: kits look alike and differ in one part.
    /// </summary>
    /// <param name="item">The item.</param>
    /// <param name="wanted">The parts that are wanted; empty when nothing is known of them.</param>
    /// <param name="numbers">Numbers the carburetor goes by: its stamp as read and those on its spec sheet.</param>
    /// <param name="knowledge">What is known of parts.</param>
    public static ItemMatch Of(CatalogueItem item, IReadOnlyList<WantedPart> wanted, IReadOnlyList<string> numbers, PartKnowledge knowledge)
    {
        var listed = numbers
            .SelectMany(number =>
                Stamp.Rank(number, item.ListedFor.Select(mark => mark.Number)).Where(reading => reading.Match > StampMatch.Near).Take(1)
            )
            .OrderByDescending(reading => reading.Match)
            .FirstOrDefault();
        var parts = wanted.Select(part => PartMatch.Of(part, item.Parts, knowledge)).ToList();
        var verdict =
            parts.Any(part => part.Verdict == PartVerdict.Differs) ? FitVerdict.NearMiss
            : parts.Any(part => part.Verdict is PartVerdict.Missing or PartVerdict.TooFew) ? FitVerdict.Partly
            : parts.Count == 0 || parts.Any(part => part.Verdict is PartVerdict.CannotTell or PartVerdict.NotMeasured) ? FitVerdict.SoFar
            : FitVerdict.Fits;
        var start =
            listed is null ? "Not listed for this number."
            : listed.Match == StampMatch.Exact ? $"Listed for {listed.OnRecord}."
            : $"Listed for {listed.OnRecord}, which reads like this one: check the stamp.";
        return new ItemMatch(verdict, listed, Sentence.Say($"{Say(verdict, parts)} {start}"), parts);
    }

    private static Sentence Say(FitVerdict verdict, List<PartMatch> parts) =>
        verdict switch
        {
            FitVerdict.NearMiss => SayWrong(parts),
            FitVerdict.Partly => Sentence.Of($"Does not bring: {string.Join(", ", NotBrought(parts))}."),
            FitVerdict.SoFar when parts.Find(part => part.Verdict is PartVerdict.CannotTell or PartVerdict.NotMeasured) is { } open =>
                Sentence.Say($"Nothing differs, but not all can be told. {Capital(open.Part)}: {open.Note}."),
            FitVerdict.SoFar => Sentence.Of("Nothing to compare its parts with: choose a spec sheet or measure the old parts."),
            FitVerdict.Fits => Sentence.Of("Every part agrees."),
        };

    private static IEnumerable<string> NotBrought(List<PartMatch> parts) =>
        parts
            .Where(part => part.Verdict is PartVerdict.Missing or PartVerdict.TooFew)
            .Select(part => part.Verdict == PartVerdict.TooFew ? $"{part.Needed - part.Brought} more {part.Part}" : part.Part);

    private static Sentence SayWrong(List<PartMatch> parts)
    {
        var wrong = parts
            .Where(part => part.Verdict == PartVerdict.Differs)
            .SelectMany(part =>
                part.Features.Where(feature => feature.Verdict == FeatureVerdict.Differs).Select(feature => (part.Part, Feature: feature))
            )
            .ToList();
        var told = Sentence.Join(
            ". ",
            wrong.Select(pair =>
                pair.Feature.Consequence is { } consequence
                    ? Sentence.Say($"{Capital(pair.Part)} {pair.Feature.Note}: {consequence}")
                    : Sentence.Say($"{Capital(pair.Part)} {pair.Feature.Note}")
            )
        );
        return wrong.Count == 1
            ? Sentence.Say(
                $"All but the {wrong[0].Part}’s {wrong[0].Feature.Note}{(wrong[0].Feature.Consequence is { } one ? ": " + one : "")}."
            )
            : Sentence.Say($"{wrong.Count} things differ. {told}.");
    }

    private static string Capital(string text) => text.Length == 0 ? text : char.ToUpperInvariant(text[0]) + text[1..];
}
