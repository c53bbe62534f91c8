using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Kits;
using CsCheck;

namespace BlueDawn.Core.Tests.Kits;

public class ItemMatchTests
{
    private static readonly PartKnowledge Knowledge = PartKnowledge.Shipped;

    private static Dictionary<string, string> Features(params (string Name, string Value)[] features) =>
        features.ToDictionary(feature => feature.Name, feature => feature.Value);

    private static ItemPart Part(string part, int quantity, params (string, string)[] features) => new(part, quantity, Features(features));

    private static PartNeed Need(string part, int quantity, params (string, string)[] features) => new(part, quantity, Features(features));

    private static CatalogueItem Kit(params ItemPart[] parts) =>
        new("K1", ItemKind.Kit, "Kit", "Dornay", [new ListedMark(MarkKind.Stamp, "Corvane", "D38-2204")], parts);

    private static readonly PartNeed[] Needs =
    [
        Need("metering diaphragm", 1, ("outer", "38 mm"), ("centre", "raised button"), ("holes", "4")),
        Need("metering gasket", 1, ("outer", "38 mm"), ("thickness", "0.4 mm")),
        Need("O-ring", 2, ("size", "AS568-008"), ("groove", "1.42 mm")),
    ];

    private static readonly ItemPart[] Right =
    [
        Part("metering diaphragm", 1, ("outer", "38 mm"), ("centre", "raised button"), ("holes", "4")),
        Part("metering gasket", 1, ("outer", "38 mm"), ("thickness", "0.4 mm")),
        Part("O-ring", 2, ("size", "AS568-008")),
    ];

    private static ItemMatch Match(ItemPart[] parts, PartNeed[]? needs = null, params ItemPart[] old) =>
        ItemMatch.Of(Kit(parts), WantedPart.Of(needs ?? Needs, old, Knowledge), ["D38-22O4"], Knowledge);

    /// <summary>A float off a donor: told by its mass, the old one weighed on scales good to 0.1 g, and by its arm.</summary>
    [Theory]
    [InlineData("6.2 g", "26 mm", PartVerdict.Fits)]
    [InlineData("6.6 g", "26.4 mm", PartVerdict.Fits)]
    [InlineData("6.9 g", "26 mm", PartVerdict.Differs)]
    [InlineData("6.2 g", "27 mm", PartVerdict.Differs)]
    public void A_float_fits_by_its_mass_and_its_arm(string mass, string arm, PartVerdict verdict)
    {
        var wanted = WantedPart.Of([Need("float", 1, ("mass", "6.2 g"), ("arm", "26 mm"))], [], PartKnowledge.Shipped)[0];
        var match = PartMatch.Of(wanted, Part("float", 1, ("mass", mass), ("arm", arm), ("shape", "round")), PartKnowledge.Shipped);
        Assert.Equal(verdict, match.Verdict == PartVerdict.NotMeasured ? PartVerdict.Fits : match.Verdict);
    }

    [Theory]
    [InlineData("6.2", "6.2 g")]
    [InlineData("0.2 oz", "5.67 g")]
    [InlineData("0", null)]
    [InlineData("2000", null)]
    [InlineData("light", null)]
    public void A_mass_is_read_in_either_unit(string typed, string? kept)
    {
        var read = FeatureValue.Parse(PartKnowledge.Shipped.Find("float", "mass")!, typed);
        Assert.Equal(kept is not null, read.IsRight);
        Assert.Equal(kept, read.Value?.Text);
    }

    [Fact]
    public void A_kit_with_every_part_as_needed_fits()
    {
        var match = Match(Right);
        Assert.Equal((FitVerdict.Fits, StampMatch.Misread), (match.Verdict, match.Listed!.Match));
        Assert.All(match.Parts, part => Assert.Equal(PartVerdict.Fits, part.Verdict));
        Assert.Equal("Every part agrees. Listed for D38-2204, which reads like this one: check the stamp.", match.Reason.ToString());
    }

    [Fact]
    public void A_listed_kit_with_one_wrong_feature_is_a_near_miss_that_says_which_and_what_it_would_do()
    {
        var match = Match(
            [Part("metering diaphragm", 1, ("outer", "38 mm"), ("centre", "flat"), ("holes", "4")), Right[1], Right[2]],
            null,
            Part("metering diaphragm", 1, ("centre", "raised button"))
        );
        Assert.Equal(FitVerdict.NearMiss, match.Verdict);
        Assert.StartsWith(
            "All but the metering diaphragm’s centre: yours raised button, this one flat: it will run lean or not at all.",
            match.Reason.ToString(),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void Several_wrong_features_are_all_named()
    {
        var match = Match([Part("metering diaphragm", 1, ("outer", "36 mm"), ("centre", "flat"), ("holes", "4")), Right[1], Right[2]]);
        Assert.Contains("2 things differ.", match.Reason.ToString(), StringComparison.Ordinal);
        Assert.Contains("outer: the sheet says 38 mm, this one 36 mm", match.Reason.ToString(), StringComparison.Ordinal);
    }

    [Fact]
    public void A_kit_that_brings_too_little_fits_partly()
    {
        var match = Match([Right[0], Part("O-ring", 1, ("size", "AS568-008"))]);
        Assert.Equal(FitVerdict.Partly, match.Verdict);
        Assert.StartsWith("Does not bring: metering gasket, 1 more O-ring.", match.Reason.ToString(), StringComparison.Ordinal);
    }

    [Fact]
    public void What_has_not_been_measured_is_said_so_with_how_to()
    {
        var match = Match(Right, [Need("metering diaphragm", 1, ("outer", "38 mm"), ("holes", "4")), Needs[1], Needs[2]]);
        Assert.Equal((FitVerdict.SoFar, PartVerdict.NotMeasured), (match.Verdict, match.Parts[0].Verdict));
        Assert.Contains("look at the middle of the old one", match.Parts[0].Note.ToString(), StringComparison.Ordinal);
    }

    /// <summary>A part of which something fits and nothing differs agrees as far as can be told; one of which nothing is known does
    /// not.</summary>
    [Fact]
    public void A_part_half_measured_agrees_and_one_not_measured_at_all_does_not()
    {
        Assert.Equal(3, Match(Right, [Need("metering diaphragm", 1, ("outer", "38 mm"), ("holes", "4")), Needs[1], Needs[2]]).Agreeing);
        Assert.Equal(2, Match(Right, [Need("metering diaphragm", 1), Needs[1], Needs[2]]).Agreeing);
    }

    [Fact]
    public void What_the_kit_does_not_state_cannot_be_told() =>
        Assert.Equal(
            PartVerdict.CannotTell,
            Match([Part("metering diaphragm", 1, ("outer", "38 mm"), ("centre", "raised button")), Right[1], Right[2]]).Parts[0].Verdict
        );

    [Fact]
    public void An_old_part_that_disagrees_with_the_sheet_decides_nothing_by_itself()
    {
        var feature = Match(Right, null, Part("metering gasket", 1, ("thickness", "0.8 mm")))
            .Parts[1]
            .Features.Single(one => one.Feature == "thickness");
        Assert.Equal(FeatureVerdict.CannotTell, feature.Verdict);
        Assert.Contains("a wrong part may have been fitted before", feature.Note.ToString(), StringComparison.Ordinal);
    }

    /// <summary>Allowed ± 0.5 mm on a metering diaphragm's outer size, a bench reading off by up to 0.3 mm:
    /// data/parts/features.csv.</summary>
    [Theory]
    [InlineData("38.1 mm", FeatureVerdict.Fits)]
    [InlineData("38.2 mm", FeatureVerdict.Fits)]
    [InlineData("38.3 mm", FeatureVerdict.CannotTell)]
    [InlineData("38.8 mm", FeatureVerdict.CannotTell)]
    [InlineData("38.9 mm", FeatureVerdict.Differs)]
    [InlineData("37 mm", FeatureVerdict.Differs)]
    public void A_bench_reading_is_judged_with_what_it_may_be_off(string old, FeatureVerdict verdict)
    {
        var wanted = WantedPart.Of([], [Part("metering diaphragm", 1, ("outer", old))], Knowledge)[0];
        Assert.Equal(verdict, PartMatch.Of(wanted, Part("metering diaphragm", 1, ("outer", "38 mm")), Knowledge).Features[0].Verdict);
    }

    [Fact]
    public void Stated_tolerances_are_stacked_on_top_in_the_worst_case()
    {
        var wanted = WantedPart.Of([Need("metering diaphragm", 1, ("outer", "38 ± 0.2 mm"))], [], Knowledge)[0];
        FeatureVerdict Judge(string offered) =>
            PartMatch.Of(wanted, Part("metering diaphragm", 1, ("outer", offered)), Knowledge).Features[0].Verdict;
        Assert.Equal(
            [FeatureVerdict.Fits, FeatureVerdict.CannotTell, FeatureVerdict.CannotTell, FeatureVerdict.Differs],
            [Judge("38.3 mm"), Judge("38.3 ± 0.1 mm"), Judge("38.8 ± 0.1 mm"), Judge("38.9 ± 0.1 mm")]
        );
    }

    [Theory]
    [InlineData("AS568-008", "1.42 mm", FeatureVerdict.Fits)] // 20 %
    [InlineData("AS568-008", "1.70 mm", FeatureVerdict.Differs)] // 4 %
    [InlineData("AS568-008", "1.00 mm", FeatureVerdict.Differs)] // 44 %
    [InlineData("AS568-008", "1.58 mm", FeatureVerdict.CannotTell)] // 11 %, 7 % with the thinnest ring
    public void A_ring_is_judged_by_its_squeeze_in_the_groove(string size, string groove, FeatureVerdict verdict)
    {
        var wanted = WantedPart.Of([Need("O-ring", 1, ("size", size), ("groove", groove))], [], Knowledge)[0];
        Assert.Equal(
            verdict,
            PartMatch
                .Of(wanted, Part("O-ring", 1, ("size", size)), Knowledge)
                .Features.Single(feature => feature.Feature == "groove")
                .Verdict
        );
    }

    [Theory]
    [InlineData("AS568-008", PartVerdict.Fits)]
    [InlineData("4.47 × 1.78 mm", PartVerdict.Fits)]
    [InlineData("AS568-009", PartVerdict.Differs)]
    [InlineData("4.5 × 1.5 mm", PartVerdict.Differs)]
    public void Dash_sizes_and_metric_ones_are_compared_by_what_they_measure(string offered, PartVerdict verdict)
    {
        var wanted = WantedPart.Of([Need("O-ring", 1, ("size", "AS568-008"))], [], Knowledge)[0];
        Assert.Equal(verdict, PartMatch.Of(wanted, Part("O-ring", 1, ("size", offered)), Knowledge).Verdict);
    }

    [Fact]
    public void A_seat_that_goes_in_either_way_fits_any()
    {
        var wanted = WantedPart.Of([Need("seat", 1, ("way in", "groove first"))], [], Knowledge)[0];
        Assert.Equal(PartVerdict.Fits, PartMatch.Of(wanted, Part("seat", 1, ("way in", "either")), Knowledge).Verdict);
        Assert.Equal(PartVerdict.Differs, PartMatch.Of(wanted, Part("seat", 1, ("way in", "smooth side first")), Knowledge).Verdict);
    }

    [Fact]
    public void Of_several_of_a_kind_in_an_assortment_the_fitting_one_counts()
    {
        var wanted = WantedPart.Of([Need("O-ring", 1, ("size", "AS568-008"))], [], Knowledge)[0];
        Assert.Equal(
            PartVerdict.Fits,
            PartMatch.Of(wanted, [Part("O-ring", 4, ("size", "AS568-010")), Part("O-ring", 4, ("size", "AS568-008"))], Knowledge).Verdict
        );
    }

    [Fact]
    public void Comparing_is_the_same_from_both_sides_and_a_smaller_difference_is_never_judged_worse() =>
        Gen.Select(Gen.Int[300, 500], Gen.Int[-200, 200], Gen.Int[0, 100])
            .Sample(
                (nominal, difference, less) =>
                {
                    FeatureVerdict Judge(int wanted, int offered) =>
                        PartMatch
                            .Of(
                                WantedPart.Of([], [Part("metering diaphragm", 1, ("outer", $"{wanted / 10m} mm"))], Knowledge)[0],
                                Part("metering diaphragm", 1, ("outer", $"{offered / 10m} mm")),
                                Knowledge
                            )
                            .Features[0]
                            .Verdict;
                    var nearer = difference * less / 100;
                    Assert.Equal(Judge(nominal, nominal + difference), Judge(nominal + difference, nominal));
                    Assert.True(Judge(nominal, nominal + nearer) >= Judge(nominal, nominal + difference));
                }
            );
}
