using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Kits;

/// <summary>How one feature of an offered part compares with what is wanted.</summary>
public enum FeatureVerdict
{
    /// <summary>Outside what fits, whatever the readings may be off.</summary>
    Differs,

    /// <summary>Within what fits or not, depending on how far the readings are off, or not stated by the item.</summary>
    CannotTell,

    /// <summary>Neither the old part nor the spec sheet says.</summary>
    NotMeasured,

    /// <summary>Within what fits, whatever the readings may be off.</summary>
    Fits,
}

/// <summary>Where what is wanted is known from.</summary>
public enum WantedFrom
{
    /// <summary>The old part, measured on the bench.</summary>
    OldPart,

    /// <summary>The spec sheet.</summary>
    Sheet,
}

/// <summary>A feature that is wanted.</summary>
/// <param name="Value">Its value.</param>
/// <param name="From">Where it is known from.</param>
public sealed record WantedFeature(FeatureValue Value, WantedFrom From);

/// <summary>A part that is wanted: from the spec sheet, the old part on the bench, or both.</summary>
/// <param name="Part">Which part.</param>
/// <param name="Quantity">How many.</param>
/// <param name="Features">What is wanted of each feature; two when the old part and the sheet disagree.</param>
public sealed record WantedPart(string Part, int Quantity, IReadOnlyDictionary<string, IReadOnlyList<WantedFeature>> Features)
{
    /// <summary>Puts what a spec sheet needs and what was measured on the old parts together.</summary>
    /// <param name="needs">What the sheet needs; empty without one.</param>
    /// <param name="measured">Old parts as measured; features in their written form.</param>
    /// <param name="knowledge">What is known of parts.</param>
    public static IReadOnlyList<WantedPart> Of(IReadOnlyList<PartNeed> needs, IReadOnlyList<ItemPart> measured, PartKnowledge knowledge)
    {
        var old = measured.GroupBy(part => part.Part).ToDictionary(group => group.Key, group => group.Last());
        var names = needs.Select(need => need.Part).Concat(old.Keys).Distinct();
        return
        [
            .. names.Select(name =>
            {
                var need = needs.FirstOrDefault(n => n.Part == name);
                var features = new Dictionary<string, IReadOnlyList<WantedFeature>>();
                foreach (var feature in knowledge.Find(name)?.Features ?? [])
                {
                    var wanted = Read(feature, old.GetValueOrDefault(name)?.Features, WantedFrom.OldPart)
                        .Concat(Read(feature, need?.Features, WantedFrom.Sheet))
                        .ToList();
                    if (wanted.Count > 0)
                    {
                        features.Add(feature.Name, wanted);
                    }
                }

                return new WantedPart(name, need?.Quantity ?? Math.Max(1, old[name].Quantity), features);
            }),
        ];
    }

    private static IEnumerable<WantedFeature> Read(
        FeatureKnowledge feature,
        IReadOnlyDictionary<string, string>? features,
        WantedFrom from
    ) =>
        features is not null && features.TryGetValue(feature.Name, out var text) && FeatureValue.ReadWritten(feature, text) is { } value
            ? [new WantedFeature(value, from)]
            : [];
}

/// <summary>How one feature compares, and why.</summary>
/// <param name="Feature">The feature, such as <c>thickness</c>.</param>
/// <param name="Verdict">Fits, differs, cannot tell or not measured.</param>
/// <param name="Wanted">What is wanted, or null when nothing says.</param>
/// <param name="From">Where that is known from, or null.</param>
/// <param name="Offered">What the item brings, or null when it does not say.</param>
/// <param name="Allowed">How far it may be off, or null.</param>
/// <param name="Note">The comparison in words.</param>
/// <param name="Consequence">What happens when it is fitted all the same, or null.</param>
public sealed record FeatureMatch(
    string Feature,
    FeatureVerdict Verdict,
    Sentence? Wanted,
    WantedFrom? From,
    Sentence? Offered,
    Sentence? Allowed,
    Sentence Note,
    string? Consequence
);

/// <summary>How one part of an item compares.</summary>
public enum PartVerdict
{
    /// <summary>A feature differs.</summary>
    Differs,

    /// <summary>The item does not bring it.</summary>
    Missing,

    /// <summary>It brings too few.</summary>
    TooFew,

    /// <summary>A feature cannot be told.</summary>
    CannotTell,

    /// <summary>Nothing differs, but not everything has been measured.</summary>
    NotMeasured,

    /// <summary>Every feature fits.</summary>
    Fits,
}

/// <summary>How one part compares, feature by feature.</summary>
/// <param name="Part">Which part.</param>
/// <param name="Verdict">The worst of its features.</param>
/// <param name="Needed">How many are needed.</param>
/// <param name="Brought">How many the item brings.</param>
/// <param name="Features">Feature by feature.</param>
/// <param name="Note">The verdict in words.</param>
public sealed record PartMatch(
    string Part,
    PartVerdict Verdict,
    int Needed,
    int Brought,
    IReadOnlyList<FeatureMatch> Features,
    Sentence Note
)
{
    /// <summary>Compares a wanted part with the parts an item brings; of several of its kind the best fitting counts.</summary>
    /// <param name="wanted">The part that is wanted.</param>
    /// <param name="brought">Everything the item brings.</param>
    /// <param name="knowledge">What is known of parts.</param>
    public static PartMatch Of(WantedPart wanted, IReadOnlyList<ItemPart> brought, PartKnowledge knowledge)
    {
        var best = brought
            .Where(part => part.Part == wanted.Part)
            .Select(part => Of(wanted, part, knowledge))
            .MaxBy(match => (match.Verdict, match.Features.Count(feature => feature.Verdict == FeatureVerdict.Fits)));
        return best ?? new PartMatch(wanted.Part, PartVerdict.Missing, wanted.Quantity, 0, [], Sentence.Of($"no {wanted.Part} in it"));
    }

    /// <summary>Compares a wanted part with one that is offered.</summary>
    public static PartMatch Of(WantedPart wanted, ItemPart offered, PartKnowledge knowledge)
    {
        var features = (knowledge.Find(wanted.Part)?.Features ?? [])
            .Select(feature => Compare(feature, wanted, offered))
            .OfType<FeatureMatch>()
            .ToList();
        var verdict =
            features.Any(feature => feature.Verdict == FeatureVerdict.Differs) ? PartVerdict.Differs
            : offered.Quantity < wanted.Quantity ? PartVerdict.TooFew
            : features.Any(feature => feature.Verdict == FeatureVerdict.CannotTell) ? PartVerdict.CannotTell
            : features.Any(feature => feature.Verdict == FeatureVerdict.NotMeasured) ? PartVerdict.NotMeasured
            : PartVerdict.Fits;
        return new PartMatch(wanted.Part, verdict, wanted.Quantity, offered.Quantity, features, Say(wanted, offered, verdict, features));
    }

    private static Sentence Say(WantedPart wanted, ItemPart offered, PartVerdict verdict, List<FeatureMatch> features)
    {
        Sentence Those(FeatureVerdict which) =>
            Sentence.Join("; ", features.Where(feature => feature.Verdict == which).Select(feature => feature.Note));
        return verdict switch
        {
            PartVerdict.Differs => Those(FeatureVerdict.Differs),
            PartVerdict.TooFew => Sentence.Of($"{offered.Quantity} of the {wanted.Quantity} that are needed"),
            PartVerdict.CannotTell => Those(FeatureVerdict.CannotTell),
            PartVerdict.NotMeasured => Those(FeatureVerdict.NotMeasured),
            PartVerdict.Missing or PartVerdict.Fits => features.Count == 0
                ? Sentence.Of("in it")
                : Sentence.Join("; ", features.Select(feature => feature.Note)),
        };
    }

    private static FeatureMatch? Compare(FeatureKnowledge feature, WantedPart wanted, ItemPart offered)
    {
        var from = wanted.Features.GetValueOrDefault(feature.Name) ?? [];
        var value = offered.Features.TryGetValue(feature.Kind == FeatureKind.Squeeze ? "size" : feature.Name, out var text)
            ? Read(feature, text)
            : null;
        if (feature.Kind == FeatureKind.Squeeze)
        {
            // A groove belongs to the body, not to the ring: it is judged only where it is known.
            return from is [var groove, ..] && value?.Ring is { } ring ? InGroove(feature, groove, ring) : null;
        }

        if (from.Count == 0)
        {
            return value is null
                ? null
                : new FeatureMatch(
                    feature.Name,
                    FeatureVerdict.NotMeasured,
                    null,
                    null,
                    value.Said,
                    null,
                    Sentence.Say($"{feature.Name} {value.Said} in the item; the old one is not measured: {feature.Measure}"),
                    null
                );
        }

        if (value is null)
        {
            return new FeatureMatch(
                feature.Name,
                FeatureVerdict.CannotTell,
                from[0].Value.Said,
                from[0].From,
                null,
                null,
                Sentence.Say($"{feature.Name} {from[0].Value.Said} wanted, not stated in the item"),
                null
            );
        }

        var compared = from.Select(one => Compare(feature, one, value)).ToList();
        if (compared is [{ } old, { } sheet] && (old.Verdict == FeatureVerdict.Differs) != (sheet.Verdict == FeatureVerdict.Differs))
        {
            // The old part may be a wrong one someone fitted before: neither is taken for the truth.
            var (yours, says) = (from[0].Value.Said, from[1].Value.Said);
            return (old.Verdict == FeatureVerdict.Differs ? old : sheet) with
            {
                Verdict = FeatureVerdict.CannotTell,
                Note = Sentence.Say(
                    $"{feature.Name}: yours {yours}, the sheet says {says}, this one {value.Said}: a wrong part may have been fitted before"
                ),
                Consequence = null,
            };
        }

        return compared.MinBy(match => match.Verdict);
    }

    private static FeatureValue? Read(FeatureKnowledge feature, string text)
    {
        var kind = feature.Kind == FeatureKind.Squeeze ? feature with { Kind = FeatureKind.Ring } : feature;
        return FeatureValue.ReadWritten(kind, text);
    }

    private static FeatureMatch Compare(FeatureKnowledge feature, WantedFeature wanted, FeatureValue offered) =>
        feature.Kind switch
        {
            FeatureKind.Length => InLength(
                feature,
                wanted,
                offered,
                offered.Mm!.Value - wanted.Value.Mm!.Value,
                Uncertainty(feature, wanted) + wanted.Value.ToleranceMm + offered.ToleranceMm
            ),
            FeatureKind.Ring => InRing(feature, wanted, offered),
            FeatureKind.Mass => InMass(feature, wanted, offered),
            FeatureKind.Count or FeatureKind.Word or FeatureKind.Squeeze => Told(
                feature,
                wanted,
                offered,
                string.Equals(wanted.Value.Text, offered.Text, StringComparison.Ordinal)
                || (feature.Name == "way in" && offered.Text == "either")
                    ? FeatureVerdict.Fits
                    : FeatureVerdict.Differs,
                null,
                feature.Other
            ),
        };

    private static decimal Uncertainty(FeatureKnowledge feature, WantedFeature wanted) =>
        wanted.From == WantedFrom.OldPart ? feature.ReadingMm ?? 0 : 0;

    /// <summary>
    /// The worst case of the stack: the difference with the reading's and both stated tolerances added has to be within
    /// what is allowed to fit, and beyond it with them taken off to differ.
    /// </summary>
    private static FeatureVerdict Judge(decimal difference, decimal uncertainty, decimal allowed) =>
        Math.Abs(difference) + uncertainty <= allowed ? FeatureVerdict.Fits
        : Math.Abs(difference) - uncertainty > allowed ? FeatureVerdict.Differs
        : FeatureVerdict.CannotTell;

    private static FeatureMatch InLength(
        FeatureKnowledge feature,
        WantedFeature wanted,
        FeatureValue offered,
        decimal difference,
        decimal uncertainty
    )
    {
        var allowed = feature.ToleranceMm!.Value;
        return Told(
            feature,
            wanted,
            offered,
            Judge(difference, uncertainty, allowed),
            Sentence.Of("± {0}", Quantity.Mm(allowed)),
            difference < 0 ? feature.Smaller : feature.Larger
        );
    }

    private static FeatureMatch InMass(FeatureKnowledge feature, WantedFeature wanted, FeatureValue offered)
    {
        var allowed = feature.ToleranceG!.Value;
        var difference = offered.Grams!.Value - wanted.Value.Grams!.Value;
        return Told(
            feature,
            wanted,
            offered,
            Judge(difference, wanted.From == WantedFrom.OldPart ? feature.ReadingG!.Value : 0, allowed),
            Sentence.Of("± {0}", Quantity.G((double)allowed)),
            difference < 0 ? feature.Smaller : feature.Larger
        );
    }

    private static FeatureMatch InRing(FeatureKnowledge feature, WantedFeature wanted, FeatureValue offered)
    {
        var (want, has, allowed) = (wanted.Value.Ring!, offered.Ring!, feature.ToleranceMm!.Value);
        // A dash size stands for its own tolerance: only the reading of a ring measured at the bench adds to it.
        var uncertainty = Uncertainty(feature, wanted);
        var inside = Judge(has.InsideMm - want.InsideMm, uncertainty, allowed + (want.Dash is null ? has.InsideToleranceMm : 0));
        var section = Judge(has.SectionMm - want.SectionMm, uncertainty, allowed);
        return Told(
            feature,
            wanted,
            offered,
            (FeatureVerdict)Math.Min((int)inside, (int)section),
            Sentence.Of("± {0}", Quantity.Mm(allowed)),
            has.InsideMm + has.SectionMm < want.InsideMm + want.SectionMm ? feature.Smaller : feature.Larger
        );
    }

    private static FeatureMatch InGroove(FeatureKnowledge feature, WantedFeature groove, ORing ring)
    {
        var squeeze = Squeeze.Of(ring, groove.Value.Mm!.Value, groove.Value.ToleranceMm + Uncertainty(feature, groove));
        var verdict =
            squeeze.Percent is < Squeeze.FewestPercent or > Squeeze.MaxPercent ? FeatureVerdict.Differs
            : squeeze.LeastPercent < Squeeze.FewestPercent || squeeze.MostPercent > Squeeze.MaxPercent ? FeatureVerdict.CannotTell
            : FeatureVerdict.Fits;
        var (percent, least, most) = (
            Quantity.Percent(squeeze.Percent),
            Quantity.Percent(squeeze.LeastPercent),
            Quantity.Percent(squeeze.MostPercent)
        );
        return new FeatureMatch(
            feature.Name,
            verdict,
            groove.Value.Said,
            groove.From,
            Sentence.Of("{0} squeeze", percent),
            Sentence.Of("{0} to {1}", Quantity.Percent(Squeeze.FewestPercent), Quantity.Percent(Squeeze.MaxPercent)),
            verdict == FeatureVerdict.CannotTell
                ? Sentence.Say(
                    $"{ring.Label} is squeezed {percent} in the groove of {groove.Value.Said}, anything from {least} to {most} with the tolerances"
                )
                : Sentence.Say($"{ring.Label} is squeezed {percent} in the groove of {groove.Value.Said}"),
            verdict == FeatureVerdict.Differs
                ? squeeze.Percent < Squeeze.FewestPercent
                    ? feature.Smaller
                    : feature.Larger
                : null
        );
    }

    private static FeatureMatch Told(
        FeatureKnowledge feature,
        WantedFeature wanted,
        FeatureValue offered,
        FeatureVerdict verdict,
        Sentence? allowed,
        string? consequence
    )
    {
        var (want, has) = (wanted.Value.Said, offered.Said);
        var owner = wanted.From == WantedFrom.OldPart ? "yours" : "the sheet says";
        var note = verdict switch
        {
            FeatureVerdict.Fits => Sentence.Say($"{feature.Name} {has}"),
            FeatureVerdict.CannotTell => Sentence.Say(
                $"{feature.Name}: {owner} {want}, this one {has}, too near the limit to tell: measure again, {feature.Measure}"
            ),
            FeatureVerdict.Differs or FeatureVerdict.NotMeasured => Sentence.Say($"{feature.Name}: {owner} {want}, this one {has}"),
        };
        return new FeatureMatch(
            feature.Name,
            verdict,
            want,
            wanted.From,
            has,
            allowed,
            note,
            verdict == FeatureVerdict.Differs ? consequence : null
        );
    }
}
