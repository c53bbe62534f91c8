using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Cleaning;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Tests.Trays;

namespace BlueDawn.Core.Tests.Cleaning;

public sealed class CleaningTests
{
    private static RecipeOffer Offer(Strip.Bench bench, string recipe) => bench.Cleaning.Find(recipe)!;

    [Fact]
    public void Dirt_advises_what_is_for_it()
    {
        var bench = Strip.Bench.FloatBowl().Strips().Cleans(new SoilsNote(["varnish"]));
        Assert.Equal(RecipeStanding.Advised, Offer(bench, "bath").Standing);
        Assert.Equal("For varnish.", Offer(bench, "bath").Why);
        Assert.Equal(RecipeStanding.Possible, Offer(bench, "acid").Standing);
        Assert.Equal(RecipeStanding.Advised, Offer(bench.Cleans(new SoilsNote(["corrosion"])), "acid").Standing);
    }

    [Fact]
    public void Solvent_and_heat_cannot_be_chosen_together_until_it_has_been_rinsed_and_dried()
    {
        var bench = Strip.Bench.FloatBowl().Strips().Cleans(new MethodNote("brush", MethodStep.Done));
        Assert.Equal(RecipeStanding.NotNow, Offer(bench, "bath").Standing);
        Assert.Contains("can catch fire", Offer(bench, "bath").Why, StringComparison.Ordinal);
        Assert.Single(bench.Cleaning.Check(new MethodNote("bath", MethodStep.Chosen), CleaningKnowledge.Shipped));
        bench.Cleans(new DryNote());
        Assert.NotEqual(RecipeStanding.NotNow, Offer(bench, "bath").Standing);
        bench.Cleans(new MethodNote("bath", MethodStep.Chosen));
        Assert.Equal(RecipeStanding.NotNow, Offer(bench, "spray").Standing);
        bench.Cleans(new MethodNote("bath", MethodStep.Dropped));
        Assert.NotEqual(RecipeStanding.NotNow, Offer(bench, "spray").Standing);
    }

    [Fact]
    public void Plastic_and_rubber_come_out_before_the_body_goes_in_the_bath()
    {
        // Nothing lies on the bench, and the body is full of plastic.
        var bench = Strip.Bench.FloatBowl().Does(new JobNote("main-jet"));
        var bath = Offer(bench, "bath");
        Assert.Equal(RecipeStanding.NotNow, bath.Standing);
        Assert.Contains("idle jet", bath.TakeOutFirst);
        Assert.Empty(Offer(Strip.Bench.FloatBowl().Strips(), "bath").TakeOutFirst);
        // What lies on the bench and must not go in with it is named where it goes in; before anything is out, all it may have.
        Assert.Contains("inlet needle", Offer(Strip.Bench.FloatBowl().Strips(), "bath").StaysOut);
        Assert.DoesNotContain("bowl", Offer(Strip.Bench.FloatBowl().Strips(), "bath").StaysOut);
        Assert.Contains("bowl gasket", Offer(Strip.Bench.FloatBowl(), "bath").StaysOut);
    }

    /// <summary>A jet and a nut soaked for a day, the carburetor on the engine with all that is soft in it.</summary>
    [Fact]
    public void What_lies_in_the_dish_is_cleaned_by_itself()
    {
        var bench = Strip.Bench.FloatBowl().Does(new JobNote("main-jet")).Cleans(new SoilsNote(["corrosion"]));
        bench
            .Does(new OutNote("bowl-nut", LineVerdict.Clean))
            .Does(new OutNote("bowl", LineVerdict.Clean))
            .Does(new OutNote("bowl-gasket", LineVerdict.Refit))
            .Does(new OutNote("main-jet", LineVerdict.Clean));
        var acid = Offer(bench, "acid");
        Assert.Equal(RecipeStanding.Advised, acid.Standing);
        Assert.Equal(["bowl-nut", "bowl", "main-jet"], acid.GoesIn);

        bench.Cleans(new MethodNote("acid", MethodStep.Chosen, ["bowl-nut", "main-jet"]));
        Assert.Equal(["bowl-nut", "main-jet"], Offer(bench, "acid").GoesIn);
        bench.Cleans(new MethodNote("acid", MethodStep.Done, ["bowl-nut", "main-jet"], 1440, CleanResult.Clean));
        Assert.True(Offer(bench, "acid").Done);
        var soak = new MethodNote("acid", MethodStep.Done, ["bowl-nut", "main-jet"], 1440, CleanResult.Clean);
        Assert.Equal(
            "Cleaned: Long mild acid soak: bowl nut with washer, main jet, 24 h",
            MethodNote.Kind.Say(soak, bench.Tray.Book).ToString()
        );
    }

    /// <summary>Only what harms is refused: the body while something soft is in it, rubber in acid. A reason lets a piece in that is not what
    /// the table takes it for; nothing lets the body in, for its parts are not seen.</summary>
    [Fact]
    public void Only_what_harms_is_kept_out_of_it()
    {
        var bench = Strip
            .Bench.FloatBowl()
            .Does(new JobNote("full"))
            .Does(new OutNote("bowl", LineVerdict.Clean))
            .Does(new OutNote("idle-jet", LineVerdict.Clean));
        string? Wrong(IReadOnlyList<string>? pieces, double? minutes = null, string? because = null, MethodStep step = MethodStep.Done) =>
            bench.Cleaning.Check(new MethodNote("acid", step, pieces, minutes, null, because), CleaningKnowledge.Shipped) is [var first, ..]
                ? first.Field
                : null;
        Assert.Null(Wrong(["bowl"]));
        Assert.Null(Wrong(["bowl"], 720));
        Assert.Equal("note.pieces", Wrong([]));
        Assert.Equal("note.pieces", Wrong(["bowl", CleaningPlan.Body]));
        Assert.Equal("note.pieces", Wrong(["bowl", CleaningPlan.Body], because: "It is all brass in this one"));
        Assert.Equal("note.soBecause", Wrong(["idle-jet"]));
        Assert.Equal("note.soBecause", Wrong(["idle-jet"], because: "brass"));
        Assert.Null(Wrong(["idle-jet"], because: "It is brass in this one"));
        Assert.Equal("note.soBecause", Wrong(["idle-jet"], because: new string('x', 201)));
        Assert.Equal("note.pieces", Wrong(["main-jet"], step: MethodStep.Chosen));
        Assert.Equal("note.minutes", Wrong(["bowl"], 0));
        Assert.Equal("note.minutes", Wrong(["bowl"], -5));
        Assert.Null(Wrong(["bowl"], 40_320));
        Assert.Equal("note.minutes", Wrong(["bowl"], 40_321));
        Assert.Equal("note.minutes", Wrong(["bowl"], double.NaN));
    }

    /// <summary>Somebody takes back that a seat came out while the body is in the bath: the basket still comes out.</summary>
    [Fact]
    public void What_went_in_comes_out_whatever_was_said_since()
    {
        var bench = Strip.Bench.FloatBowl().Strips().Cleans(new MethodNote("bath", MethodStep.Chosen));
        Assert.Contains(CleaningPlan.Body, Offer(bench, "bath").GoesIn);
        IReadOnlyList<string> went = Offer(bench, "bath").GoesIn;
        bench = Strip.Bench.FloatBowl().Strips().Cleans(new MethodNote("bath", MethodStep.Chosen, went)).Does(new UndoNote("idle-jet"));
        Assert.NotEmpty(Offer(bench, "bath").TakeOutFirst);
        Assert.Empty(bench.Cleaning.Check(new MethodNote("bath", MethodStep.Done, went), CleaningKnowledge.Shipped));
        Assert.Empty(bench.Cleaning.Check(new MethodNote("bath", MethodStep.Short, went), CleaningKnowledge.Shipped));
        Assert.NotEmpty(bench.Cleaning.Check(new MethodNote("acid", MethodStep.Done, went), CleaningKnowledge.Shipped));
    }

    /// <summary>The body was chosen while it was bare, and a seat or a jet went back in before the basket did: it does not go in.</summary>
    [Fact]
    public void A_body_that_was_chosen_bare_does_not_go_in_with_something_soft_in_it()
    {
        var bench = Strip.Bench.FloatBowl().Strips();
        bench.Cleans(new MethodNote("bath", MethodStep.Chosen, Offer(bench, "bath").GoesIn)).Does(new UndoNote("idle-jet"));
        Assert.Equal(RecipeStanding.NotNow, Offer(bench, "bath").Standing);
        Assert.Contains("idle jet", Offer(bench, "bath").Why, StringComparison.Ordinal);
        // Other pieces still may.
        Assert.Empty(bench.Cleaning.Check(new MethodNote("bath", MethodStep.Chosen, ["bowl"]), CleaningKnowledge.Shipped));
    }

    /// <summary>Where the basket goes in, the body is named among what stays out while something soft is in it.</summary>
    [Fact]
    public void The_body_is_named_among_what_stays_out()
    {
        var bench = Strip.Bench.FloatBowl().Does(new JobNote("full")).Does(new OutNote("bowl", LineVerdict.Clean));
        Assert.Contains("body of the carburetor", Offer(bench, "bath").StaysOut);
        Assert.DoesNotContain("body of the carburetor", Offer(Strip.Bench.FloatBowl().Strips(), "bath").StaysOut);
    }

    /// <summary>Petrol in a heated bath is not a matter of which piece.</summary>
    [Fact]
    public void What_must_not_follow_is_refused_for_every_piece()
    {
        var bench = Strip.Bench.FloatBowl().Strips().Cleans(new MethodNote("brush", MethodStep.Done, ["bowl"]));
        Assert.Equal(
            "note.recipe",
            Assert.Single(bench.Cleaning.Check(new MethodNote("bath", MethodStep.Chosen, ["main-jet"]), CleaningKnowledge.Shipped)).Field
        );
    }

    [Theory]
    [InlineData(null, RecipeStanding.Possible)]
    [InlineData(CleanResult.Clean, RecipeStanding.Possible)]
    [InlineData(CleanResult.NotYet, RecipeStanding.Advised)]
    [InlineData(CleanResult.NoChange, RecipeStanding.Advised)]
    public void What_did_not_come_off_is_still_to_come_off(CleanResult? result, RecipeStanding other)
    {
        var bench = Strip
            .Bench.FloatBowl()
            .Strips()
            .Cleans(new SoilsNote(["varnish"]))
            .Cleans(new MethodNote("bath", MethodStep.Done, Result: result))
            .Cleans(new DryNote());
        Assert.Equal(other, Offer(bench, "wire-brush").Standing);
    }

    /// <summary>What the sheet says is brass is no rubber: it does not have to come out before the body goes in.</summary>
    [Fact]
    public void The_sheet_says_what_a_part_is_made_of()
    {
        IReadOnlyList<string> First(string made)
        {
            var sheet = Sheets.Spec with { Needs = [new PartNeed("seat", 1, new Dictionary<string, string> { ["made of"] = made })] };
            return Offer(new Strip.Bench(CarburetorFamily.FloatBowl, sheet).Does(new JobNote("full")), "bath").TakeOutFirst;
        }

        Assert.Contains("inlet seat", First("rubber"));
        Assert.DoesNotContain("inlet seat", First("brass"));
    }

    [Fact]
    public void Soft_parts_that_want_cleaning_are_washed_by_hand()
    {
        var bench = Strip.Bench.FloatBowl().Does(new JobNote("full")).Does(new OutNote("idle-jet", LineVerdict.Clean));
        Assert.Equal(RecipeStanding.Advised, Offer(bench, "soap").Standing);
        Assert.Contains("idle jet", Offer(bench, "soap").Why, StringComparison.Ordinal);
        bench.Cleans(new MethodNote("soap", MethodStep.Done)).Cleans(new DryNote());
        Assert.Equal((RecipeStanding.Possible, true), (Offer(bench, "soap").Standing, Offer(bench, "soap").Done));
    }

    [Fact]
    public void A_passage_is_open_until_air_has_been_seen()
    {
        var bench = Strip.Bench.FloatBowl().Strips().Cleans(new PassageNote("idle-feed", true, false));
        Assert.True(bench.Cleaning.Passages.Single(one => one.Passage.Key == "idle-feed").IsOpen);
        bench.Cleans(new PassageNote("idle-feed", true, true));
        Assert.False(bench.Cleaning.Passages.Single(one => one.Passage.Key == "idle-feed").IsOpen);
        Assert.Single(bench.Cleaning.Check(new PassageNote("pulse", true, true), CleaningKnowledge.Shipped));
    }

    [Fact]
    public void The_largest_tool_of_each_kind_does_not_touch_the_smallest_good_hole()
    {
        foreach (var (bore, tolerance) in ((double, double)[])[(0.33, 0.015), (0.72, 0.01), (1.2, 0.05)])
        {
            foreach (var choice in ClearingTools.For(bore, tolerance))
            {
                Assert.True(choice.Largest is null || choice.Largest.DiameterMm < bore - tolerance);
                Assert.True(choice.Spoils is null || choice.Largest is null || choice.Spoils.DiameterMm > choice.Largest.DiameterMm);
            }
        }
    }

    // ASTM B258: d = 0.127 mm × 92^((36−n)/39); 30 gauge is 0.2546 mm, 28 gauge 0.3211 mm, in any handbook's wire table.
    // ASME B94.11M: number drill 80 is 0.0135 in = 0.343 mm, 83 is 0.0120 in = 0.305 mm, 84 is 0.0115 in = 0.292 mm.
    [Fact]
    public void An_idle_jet_of_0_33_mm_is_cleared_with_29_gauge_wire_and_never_with_an_80_drill()
    {
        var choices = ClearingTools.For(0.33, 0.015).ToDictionary(choice => choice.Kind);
        Assert.Equal("29 gauge", choices["wire"].Largest!.Label);
        Assert.Equal("28 gauge", choices["wire"].Spoils!.Label);
        Assert.Equal(0.3211, choices["wire"].Spoils!.DiameterMm, 4);
        Assert.Null(choices["tip-file"].Largest);
        Assert.Equal("0.40 mm", choices["tip-file"].Spoils!.Label);
        // The smallest good hole is 0.315 mm; 0.03 mm less is 0.285. Drill 85 is 0.0110 in = 0.279 mm.
        Assert.Equal(("#85", "#84"), (choices["drill"].Largest!.Label, choices["drill"].Spoils!.Label));
    }

    [Fact]
    public void A_larger_hole_never_gets_a_smaller_tool()
    {
        for (var bore = 0.2; bore < 2; bore += 0.01)
        {
            foreach (var (small, large) in ClearingTools.For(bore, 0.01).Zip(ClearingTools.For(bore + 0.01, 0.01)))
            {
                Assert.True((large.Largest?.DiameterMm ?? 0) >= (small.Largest?.DiameterMm ?? 0));
            }
        }
    }

    [Fact]
    public void Every_kind_of_dirt_has_a_way_and_every_clash_a_reason()
    {
        var knowledge = CleaningKnowledge.Shipped;
        Assert.All(knowledge.Soils, soil => Assert.Contains(knowledge.Recipes, recipe => recipe.Soils.Contains(soil.Key)));
        Assert.All(knowledge.Recipes.Where(recipe => recipe.Kind == "solvent"), solvent =>
            Assert.All(knowledge.Recipes.Where(recipe => recipe.Vessel == Vessel.Heated), heated =>
                Assert.NotNull(knowledge.Clash(heated, solvent))
            )
        );
    }
}
