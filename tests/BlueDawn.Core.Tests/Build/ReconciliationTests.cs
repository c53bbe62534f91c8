using BlueDawn.Core.Build;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Parts;

namespace BlueDawn.Core.Tests.Build;

public sealed class ReconciliationTests
{
    private static readonly Fitting Kit = new(
        FitOption.Kit,
        "kit",
        [
            new FittedItem(
                "OK-18",
                "Rebuild kit",
                1,
                true,
                [
                    Part("bowl gasket", ("thickness", "1.5 mm")),
                    Part("bowl gasket", ("thickness", "2.0 mm")),
                    Part("needle", ("tip", "rubber")),
                    Part("seat", ("bore", "1.8 mm")),
                    Part("metering spring"),
                ]
            ),
        ],
        [],
        null,
        14
    );

    private static ItemPart Part(string part, params (string Name, string Value)[] features) =>
        new(part, 1, features.ToDictionary(feature => feature.Name, feature => feature.Value));

    [Fact]
    public void A_kit_for_two_thicknesses_leaves_one_gasket_over_and_that_is_explained()
    {
        var bench = Strip.Bench.FloatBowl().Strips();
        foreach (var part in (string[])["seat", "needle", "bowl-gasket"])
        {
            bench.Does(new BackNote(part, Fate.Renewed, Item: "OK-18"));
        }

        var left = Reconciliation.Of(bench.Ledger, Kit).LeftOver;
        var gasket = Assert.Single(left, one => one.Part.StartsWith("bowl gasket", StringComparison.Ordinal));
        Assert.Equal((1, true), (gasket.Quantity, gasket.Settled));
        Assert.Contains("thickness 1.5 mm or thickness 2.0 mm", gasket.Why, StringComparison.Ordinal);
        Assert.Contains(
            "Nothing on this carburetor",
            Assert.Single(left, one => one.Part == "metering spring").Why,
            StringComparison.Ordinal
        );
        Assert.DoesNotContain(left, one =>
            one.Part.StartsWith("needle", StringComparison.Ordinal) || one.Part.StartsWith("seat", StringComparison.Ordinal)
        );
    }

    /// <summary>A needle from elsewhere does not use up the kit’s needle, and a seat does not use up a needle.</summary>
    [Fact]
    public void Only_a_part_renewed_from_the_kit_uses_up_the_kit_and_only_its_own()
    {
        var elsewhere = Strip.Bench.FloatBowl().Strips().Does(new BackNote("needle", Fate.Renewed, Item: "ND-03", FromShelf: true));
        var needle = Assert.Single(Reconciliation.Of(elsewhere.Ledger, Kit).LeftOver, one =>
            one.Part.StartsWith("needle", StringComparison.Ordinal)
        );
        Assert.Equal((1, true, "One from elsewhere went in."), (needle.Quantity, needle.Settled, needle.Why));
        var seat = Strip.Bench.FloatBowl().Strips().Does(new BackNote("seat", Fate.Renewed, Item: "OK-18"));
        Assert.Contains(Reconciliation.Of(seat.Ledger, Kit).LeftOver, one => one.Part.StartsWith("needle", StringComparison.Ordinal));
    }

    [Fact]
    public void An_old_part_that_went_back_while_a_new_one_lies_there_is_not_settled()
    {
        var bench = Strip.Bench.FloatBowl().Strips().Does(new BackNote("seat", Fate.Refitted, "into-body"));
        var seat = Assert.Single(Reconciliation.Of(bench.Ledger, Kit).LeftOver, one =>
            one.Part.StartsWith("seat", StringComparison.Ordinal)
        );
        Assert.False(seat.Settled);
        Assert.Contains("old one went back", seat.Why, StringComparison.Ordinal);
    }

    [Fact]
    public void Without_anything_opened_there_is_nothing_to_reconcile() =>
        Assert.Empty(Reconciliation.Of(Strip.Bench.FloatBowl().Ledger, Kit).LeftOver);

    /// <summary>SI definitions: 1 ft = 0.3048 m, 1 lb = 0.45359237 kg, standard gravity 9.80665 m/s².</summary>
    [Fact]
    public void Torques_convert_by_their_definitions()
    {
        Assert.Equal(1.3558179483314004, Torque.NmPerLbfFt, 12);
        Assert.Equal(4.7, 3.5 * Torque.NmPerLbfFt, 1);
    }

    [Fact]
    public void Torque_comes_from_the_sheet_else_from_practice_else_is_not_known()
    {
        var sheet = Trays.Sheets.Spec with { Screws = [new ScrewSpec("bowl-nut", TorqueNm: 5.2)] };
        Assert.Equal(5.2, StackKnowledge.Shipped.TorqueOf("bowl-nut", sheet).TorqueNm);
        Assert.Equal(4.7, StackKnowledge.Shipped.TorqueOf("filter-housing", sheet).TorqueNm);
        Assert.Equal("No value known: snug, no more.", StackKnowledge.Shipped.TorqueOf("main-jet", sheet).Source);
    }

    [Fact]
    public void Starting_settings_come_from_the_sheet_else_from_the_family_beside_what_was_found()
    {
        var sheet = Trays.Sheets.Spec with
        {
            Traits = new CarburetorTraits(18, 42, 2, "round"),
            Screws = [new ScrewSpec("idle-needle", TurnsOut: 1.25)],
        };
        var bench = new Strip.Bench(CarburetorFamily.FloatBowl, sheet)
            .Does(new JobNote("full"))
            .Does(new OutNote("main-needle", LineVerdict.Refit, TurnsEighths: 9));
        var starts = StackKnowledge.Shipped.Starts(bench.Ledger, CarburetorFamily.FloatBowl, sheet);
        Assert.Equal(
            [("main-needle", 12, 9), ("idle-needle", 10, null)],
            starts.Select(start => (start.Part, start.TurnsEighths, start.FoundEighths))
        );
        Assert.StartsWith("By family", starts[0].Source, StringComparison.Ordinal);
        Assert.StartsWith("Spec sheet", starts[1].Source, StringComparison.Ordinal);
    }
}
