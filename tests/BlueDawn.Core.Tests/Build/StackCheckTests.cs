using BlueDawn.Core.Build;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Tests.Trays;

namespace BlueDawn.Core.Tests.Build;

public sealed class StackCheckTests
{
    private static Strip.Bench BenchOf(CarburetorFamily family) =>
        family switch
        {
            CarburetorFamily.FloatBowl => Strip.Bench.FloatBowl(),
            CarburetorFamily.Diaphragm => Strip.Bench.Diaphragm(),
            _ => new Strip.Bench(CarburetorFamily.SuctionTank, null, ChokeKind.Vacuum),
        };

    /// <summary>
    /// What lies on what, from the base outward, as it is built at the bench: common practice, no source. Written here by
    /// hand, not read from the table. Parts in one place lie either way about.
    /// </summary>
    private static readonly (CarburetorFamily Family, string Chain)[] Chains =
    [
        (CarburetorFamily.FloatBowl, "seat < needle < float < bowl < bowl-nut"),
        (CarburetorFamily.FloatBowl, "emulsion-tube < main-jet < bowl"),
        (CarburetorFamily.FloatBowl, "bowl-gasket < bowl"),
        (
            CarburetorFamily.FloatBowl,
            "manifold-gasket < manifold < insulator intake-gasket spacer-gasket deflector < carburetor "
                + "< outer-gasket < control-plate < filter-gasket < filter-housing < mounting-bolts"
        ),
        (CarburetorFamily.FloatBowl, "throttle-link < filter-housing"),
        (
            CarburetorFamily.Diaphragm,
            "manifold-gasket < manifold < insulator intake-gasket deflector < carburetor < outer-gasket < filter-housing"
        ),
        (CarburetorFamily.Diaphragm, "metering-spring needle < metering-lever < metering-gasket < metering-diaphragm < metering-cover"),
        (CarburetorFamily.Diaphragm, "inlet-screen < pump-diaphragm < pump-gasket < pump-cover"),
        (
            CarburetorFamily.SuctionTank,
            "choke-clip < choke-small-spring < choke-diaphragm < choke-spring < carburetor < tank-screws < air-cleaner"
        ),
        (CarburetorFamily.SuctionTank, "tank-gasket < carburetor"),
        (CarburetorFamily.SuctionTank, "inlet-screen < carburetor"),
        (CarburetorFamily.SuctionTank, "throttle-link < air-cleaner"),
    ];

    /// <summary>Every pair of parts of which one lies right under the other.</summary>
    public static TheoryData<CarburetorFamily, string, string> Pairs()
    {
        var data = new TheoryData<CarburetorFamily, string, string>();
        foreach (var (family, chain) in Chains)
        {
            var places = chain.Split(" < ").Select(place => place.Split(' ')).ToList();
            foreach (
                var (under, over) in places
                    .Zip(places.Skip(1))
                    .SelectMany(pair => pair.First.SelectMany(under => pair.Second.Select(over => (under, over))))
            )
            {
                data.Add(family, under, over);
            }
        }

        return data;
    }

    [Fact]
    public void No_stack_of_the_table_is_left_out_here() => Assert.All(Enum.GetValues<CarburetorFamily>(), family => Assert.Equal(
                StackKnowledge
                    .Shipped.Stacks(family)
                    .SelectMany(stack => stack.Layers)
                    .Select(layer => layer.Part)
                    // One layer alone has nothing under it.
                    .Except(["plunger", "idle-speed-screw"])
                    .Except(
                        family == CarburetorFamily.Diaphragm ? ["control-plate", "filter-gasket", "mounting-bolts", "spacer-gasket"] : []
                    )
                    .Order(),
                Chains
                    .Where(one => one.Family == family)
                    .SelectMany(one => one.Chain.Split(' '))
                    .Where(word => word is not "<" and not "throttle-link")
                    .Distinct()
                    .Order()
            ));

    [Theory]
    [InlineData(CarburetorFamily.FloatBowl)]
    [InlineData(CarburetorFamily.Diaphragm)]
    [InlineData(CarburetorFamily.SuctionTank)]
    public void In_the_order_advised_nothing_is_wrong(CarburetorFamily family)
    {
        var bench = BenchOf(family).Strips();
        while (bench.Advice is [var next, ..])
        {
            Assert.Empty(next.First);
            bench.Does(Strip.Bench.Back(next.Part, next.RightWay?.Key));
            Assert.Empty(bench.Problems);
        }

        Assert.Empty(bench.Ledger.Open);
    }

    /// <summary>The usual way round, where no sheet says another: common practice, no source.</summary>
    [Theory]
    [InlineData(CarburetorFamily.FloatBowl, "seat", "outward")]
    [InlineData(CarburetorFamily.FloatBowl, "bowl", "away")]
    [InlineData(CarburetorFamily.FloatBowl, "insulator", "down")]
    [InlineData(CarburetorFamily.Diaphragm, "intake-gasket", "down")]
    [InlineData(CarburetorFamily.Diaphragm, "metering-lever", "beside")]
    [InlineData(CarburetorFamily.Diaphragm, "metering-diaphragm", "toward-cover")]
    [InlineData(CarburetorFamily.SuctionTank, "choke-spring", "inward")]
    [InlineData(CarburetorFamily.SuctionTank, "choke-small-spring", "crooked")]
    public void The_wrong_way_round_is_caught_with_the_reason_and_what_mends_it(CarburetorFamily family, string part, string way)
    {
        var bench = BenchOf(family).Strips().BuildsUpTo(part).Does(Strip.Bench.Back(part, way));
        var problem = Assert.Single(bench.Problems);
        Assert.Equal((StackFault.WrongWay, part), (problem.Fault, problem.Part));
        Assert.NotEmpty(problem.Why);
        Assert.NotNull(bench.WhyNotProven);
        bench.Does(new UndoNote(part));
        Assert.Empty(bench.Problems);
    }

    [Fact]
    public void A_link_in_another_hole_than_it_came_out_of_is_caught_and_it_is_asked_for()
    {
        var bench = BenchOf(CarburetorFamily.FloatBowl)
            .Strips()
            .Does(new OutNote("governor-link", LineVerdict.Refit, Hole: "second from outside"));
        Assert.Equal("note.hole", Assert.Single(bench.Ledger.Check(new BackNote("governor-link", Fate.Refitted), [])).Field);
        bench.Does(new BackNote("governor-link", Fate.Refitted, Hole: "outermost"));
        var problem = Assert.Single(bench.Problems, one => one.Fault == StackFault.WrongHole);
        Assert.Contains("second from outside", problem.Mend, StringComparison.Ordinal);
        bench.Does(new UndoNote("governor-link")).Does(new BackNote("governor-link", Fate.Refitted, Hole: " Second from outside "));
        Assert.DoesNotContain(bench.Problems, one => one.Fault == StackFault.WrongHole);
        // One that nobody noted is not asked for.
        Assert.Empty(
            BenchOf(CarburetorFamily.FloatBowl)
                .Strips()
                .Does(new OutNote("governor-link", LineVerdict.Refit))
                .Ledger.Check(new BackNote("governor-link", Fate.Refitted), [])
        );
    }

    /// <summary>On this machine the housing came off first, with the bolts still in: the bolts do not lie over it, nor the housing over the
    /// link that it left in.</summary>
    [Fact]
    public void On_the_outside_what_came_off_first_lies_over_nothing_that_came_off_after_it()
    {
        Strip.Bench Off(params string[] order)
        {
            var bench = BenchOf(CarburetorFamily.FloatBowl).Does(new JobNote("off-engine"));
            foreach (var part in order)
            {
                bench.Does(new OutNote(part, LineVerdict.Refit));
            }

            return bench;
        }

        var housingFirst = Off("filter-housing", "throttle-link", "mounting-bolts", "carburetor");
        housingFirst.Does(Strip.Bench.Back("carburetor")).Does(Strip.Bench.Back("mounting-bolts"));
        Assert.DoesNotContain(housingFirst.Problems, one => one.Part == "mounting-bolts" && one.Other == "filter-housing");
        var boltsFirst = Off("mounting-bolts", "filter-housing", "throttle-link", "carburetor");
        boltsFirst.Does(Strip.Bench.Back("carburetor")).Does(Strip.Bench.Back("mounting-bolts"));
        Assert.Contains(boltsFirst.Problems, one => one.Part == "mounting-bolts" && one.Other == "filter-housing");
        Assert.Contains(boltsFirst.Problems, one => one.Part == "mounting-bolts" && one.Other == "throttle-link");
    }

    [Theory]
    [InlineData(null, "alike", 0)]
    [InlineData("alike", "up", 0)]
    [InlineData(null, "down", 1)]
    public void A_part_that_is_the_same_both_ways_is_never_the_wrong_way_round(string? found, string fitted, int wrong)
    {
        var bench = BenchOf(CarburetorFamily.FloatBowl).Does(new JobNote("off-engine"));
        bench.Does(new OutNote("insulator", LineVerdict.Refit, Way: found)).Does(new BackNote("insulator", Fate.Refitted, fitted));
        Assert.Equal(wrong, bench.Problems.Count(one => one.Fault == StackFault.WrongWay));
    }

    [Theory]
    [MemberData(nameof(Pairs))]
    public void What_closes_over_a_part_that_is_still_on_the_bench_is_caught(CarburetorFamily family, string under, string over)
    {
        var bench = BenchOf(family).Strips("full", under, over);
        foreach (var line in StackCheck.Order(StackKnowledge.Shipped, family, bench.Ledger).Where(line => line.Part.Key != under))
        {
            bench.Does(Strip.Bench.Back(line.Part.Key));
        }

        Assert.Contains(bench.Problems, problem => problem.Fault == StackFault.LeftOut && problem.Other == under && problem.Part == over);

        // Fitted after all, past what closes over it, it is out of order; that taken off and put back mends it.
        bench.Does(Strip.Bench.Back(under));
        Assert.Contains(bench.Problems, problem =>
            problem.Fault == StackFault.WrongOrder && problem.Other == under && problem.Part == over
        );
        for (var off = 0; off < 20 && bench.Problems.Count > 0; off++)
        {
            var part = bench.Problems[0].Part;
            bench.Does(new UndoNote(part)).Does(Strip.Bench.Back(part));
        }

        Assert.Empty(bench.Problems);
    }

    private static SpecSheet SeatGoes(string way) =>
        Trays.Sheets.Spec with
        {
            Needs = [new PartNeed("seat", 1, new Dictionary<string, string> { ["way in"] = way })],
        };

    /// <summary>The sheet says it before anything else: a seat whose sheet puts its smooth side first is not wrong that way, and tells
    /// Trace nothing.</summary>
    [Theory]
    [InlineData("smooth side first", "outward", true, false)]
    [InlineData("smooth side first", "into-body", false, true)]
    [InlineData("groove first", "into-body", true, false)]
    [InlineData("groove first", "outward", false, true)]
    [InlineData("either", "outward", true, false)]
    [InlineData("either", "into-body", true, false)]
    public void The_sheet_decides_which_way_round_a_seat_goes(string sheet, string way, bool right, bool sign)
    {
        var bench = new Strip.Bench(CarburetorFamily.FloatBowl, SeatGoes(sheet))
            .Does(new JobNote("full"))
            .Does(new OutNote("seat", LineVerdict.Clean, Way: way))
            .Does(new BackNote("seat", Fate.Refitted, way));
        Assert.Equal(right, bench.Problems.All(problem => problem.Fault != StackFault.WrongWay));
        Assert.Equal(sign, bench.Tray.Book.Signs.Any(one => one.FindingId == "earlier-work"));
    }

    /// <summary>Found another way round than usual with a sheet that is silent: worth a look, not an error, whichever way it goes
    /// back.</summary>
    [Theory]
    [InlineData("outward")]
    [InlineData("into-body")]
    public void What_was_found_against_the_usual_is_looked_at_and_not_called_wrong(string back)
    {
        var bench = new Strip.Bench(CarburetorFamily.FloatBowl)
            .Does(new JobNote("full"))
            .Does(new OutNote("seat", LineVerdict.Clean, Way: "outward"));
        Assert.Contains("Look at both before it goes in", Assert.Single(bench.Advice).Trap, StringComparison.Ordinal);
        Assert.Contains(
            "which way round",
            Assert
                .Single(
                    StackCheck.Check(
                        StackKnowledge.Shipped,
                        CarburetorFamily.FloatBowl,
                        null,
                        bench.Ledger,
                        new BackNote("seat", Fate.Refitted)
                    )
                )
                .Message,
            StringComparison.Ordinal
        );
        Assert.Empty(bench.Does(new BackNote("seat", Fate.Refitted, back)).Problems);
        Assert.Contains(bench.Tray.Book.Signs, one => one.FindingId == "earlier-work");
    }

    /// <summary>Gasket, insulator and spacer are stacked either way about: they go back as they came off. Another order is a question,
    /// answered with a reason. Common practice, no source.</summary>
    [Theory]
    [InlineData("insulator", "intake-gasket")]
    [InlineData("intake-gasket", "insulator")]
    [InlineData("insulator", "deflector")]
    [InlineData("deflector", "insulator")]
    public void Gasket_and_insulator_go_back_as_they_came_off(string inner, string outer)
    {
        var bench = Strip.Bench.Diaphragm().Does(new JobNote("full"));
        bench
            .Does(new OutNote("carburetor", LineVerdict.Refit))
            .Does(new OutNote(outer, LineVerdict.Refit))
            .Does(new OutNote(inner, LineVerdict.Refit));
        string? Way(string part) => part == "deflector" ? null : "up";
        // The next part to fit is the one that came off last, whatever the usual order is.
        Assert.Equal([inner, outer, "carburetor"], bench.Advice.Select(one => one.Part));
        var stack = StackCheck.AsFound(
            StackKnowledge.Shipped.Stacks(CarburetorFamily.Diaphragm).Single(one => one.Key == "intake"),
            bench.Ledger.OrderOff
        );
        Assert.Equal([inner, outer], stack.Layers.Select(layer => layer.Part).Where(part => part == inner || part == outer));

        bench.Does(Strip.Bench.Back(inner, Way(inner))).Does(Strip.Bench.Back(outer, Way(outer)));
        Assert.Empty(bench.Problems);

        bench.Does(new UndoNote(inner)).Does(Strip.Bench.Back(inner, Way(inner)));
        var problem = Assert.Single(bench.Problems);
        Assert.Equal((StackFault.WrongOrder, outer, inner), (problem.Fault, problem.Part, problem.Other));
        bench.Does(new UndoNote(outer)).Does(Strip.Bench.Back(outer, Way(outer)));
        Assert.Empty(bench.Problems);

        bench.Does(new UndoNote(inner)).Does(Strip.Bench.Back(inner, Way(inner)));
        bench.Does(new UndoNote(outer)).Does(new UndoNote(inner));
        bench.Does(Strip.Bench.Back(outer, Way(outer)) with { SoBecause = Because }).Does(Strip.Bench.Back(inner, Way(inner)));
        Assert.Empty(bench.Problems);
    }

    /// <summary>What came off in an order of its own goes back by it turned round, and never over what lies under it.</summary>
    [Fact]
    public void Build_goes_by_strip_turned_round()
    {
        var bench = BenchOf(CarburetorFamily.FloatBowl).Does(new JobNote("full"));
        string[] off = ["bowl-nut", "bowl", "bowl-gasket", "main-jet", "emulsion-tube", "idle-jet", "float", "needle", "seat"];
        foreach (var part in off)
        {
            bench.Does(new OutNote(part, LineVerdict.Refit));
        }

        Assert.Equal(off.Reverse(), bench.Advice.Select(one => one.Part));

        // Written down in a mad order: what lies under goes in first all the same.
        var mad = BenchOf(CarburetorFamily.FloatBowl).Does(new JobNote("full"));
        foreach (var part in off.Reverse())
        {
            mad.Does(new OutNote(part, LineVerdict.Refit));
        }

        foreach (var next in mad.Advice.ToList())
        {
            mad.Does(Strip.Bench.Back(next.Part, next.RightWay?.Key));
            Assert.Empty(mad.Problems);
        }
    }

    /// <summary>A sheet that says how a part lies is right against the usual way: a plate toward the cover, a tube by its rows, a seat
    /// either way.</summary>
    [Fact]
    public void The_sheet_says_the_way_round_of_every_feature()
    {
        var sheet = Sheets.Spec with
        {
            Family = CarburetorFamily.Diaphragm,
            Needs = [new PartNeed("metering diaphragm", 1, new Dictionary<string, string> { ["plate"] = "toward the cover" })],
        };
        var bench = new Strip.Bench(CarburetorFamily.Diaphragm, sheet).Strips().BuildsUpTo("metering-diaphragm");
        Assert.Equal("toward-cover", bench.Advice[0].RightWay!.Key);
        // What is asked as a rule would say the opposite.
        Assert.Equal("Plate toward the cover, as the sheet says?", bench.Advice[0].Trap);
        Assert.Empty(bench.Does(Strip.Bench.Back("metering-diaphragm", "toward-cover")).Problems);

        EmulsionRowSpec Row(int row, int holes) => new(row, holes, 0.6m, 0.02m, 10 * row);
        foreach (var (holes, way) in new (int[], string)[] { ([2, 2, 4], "more-down"), ([4, 2], "more-up") })
        {
            var tube = new Strip.Bench(
                CarburetorFamily.FloatBowl,
                Sheets.Spec with
                {
                    EmulsionRows = [.. holes.Select((count, i) => Row(i + 1, count))],
                }
            )
                .Does(new JobNote("full"))
                .Does(new OutNote("emulsion-tube", LineVerdict.Refit, Way: way == "more-up" ? "more-down" : "more-up"));
            Assert.Equal(way, tube.Advice[0].RightWay!.Key);
        }

        // As many at both ends: as it was found.
        var even = new Strip.Bench(CarburetorFamily.FloatBowl, Sheets.Spec with { EmulsionRows = [Row(1, 2), Row(2, 4), Row(3, 2)] })
            .Does(new JobNote("full"))
            .Does(new OutNote("emulsion-tube", LineVerdict.Refit, Way: "more-down"));
        Assert.Equal("more-down", even.Advice[0].RightWay!.Key);
    }

    /// <summary>The spring stands in its well and the needle in its seat: neither lies on the other. Common practice, no source.</summary>
    [Theory]
    [InlineData("metering-spring", "needle")]
    [InlineData("needle", "metering-spring")]
    public void Needle_and_metering_spring_go_in_either_order(string first, string second) =>
        Assert.Empty(Strip.Bench.Diaphragm().Strips().Does(Strip.Bench.Back(first)).Does(Strip.Bench.Back(second)).Problems);

    private const string Because = "On this one it goes in from above, with the bowl on";

    /// <summary>An order, a way round or a hole that is not the usual one is a question: with a reason it is so on this machine.</summary>
    [Fact]
    public void What_is_so_on_this_machine_is_not_wrong()
    {
        var bench = BenchOf(CarburetorFamily.FloatBowl).Strips().BuildsUpTo("bowl");
        bench.Does(new UndoNote("main-jet")).Does(Strip.Bench.Back("bowl", "under-float"));
        Assert.Equal(StackFault.LeftOut, Assert.Single(bench.Problems).Fault);
        bench.Does(new UndoNote("bowl")).Does(new BackNote("bowl", Fate.Refitted, "under-float", SoBecause: Because));
        Assert.Empty(bench.Problems);
        // The jet still lies on the bench, and no reason puts it in.
        Assert.Contains("main jet", bench.WhyNotProven, StringComparison.Ordinal);
        bench.Does(Strip.Bench.Back("main-jet"));
        Assert.Empty(bench.Problems);
    }

    [Theory]
    [InlineData("seat", "outward")]
    [InlineData("bowl", "away")]
    public void Another_way_round_with_a_reason_is_right(string part, string way)
    {
        var bench = BenchOf(CarburetorFamily.FloatBowl).Strips().BuildsUpTo(part);
        Assert.Equal(
            "note.soBecause",
            Assert.Single(bench.Ledger.Check(new BackNote(part, Fate.Refitted, way, SoBecause: "short"), [])).Field
        );
        Assert.Equal(
            "note.soBecause",
            Assert.Single(bench.Ledger.Check(new BackNote(part, Fate.Refitted, way, SoBecause: new string('x', 201)), [])).Field
        );
        bench.Does(new BackNote(part, Fate.Refitted, way, SoBecause: Because));
        Assert.Empty(bench.Problems);
        Assert.Contains(
            $"so on this machine, because: {Because}",
            bench.Ledger.Find(part)!.Fitted!.Say("x", []).ToString(),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void A_carburetor_over_a_gasket_that_is_still_on_the_bench_is_caught_all_the_same()
    {
        var bench = Strip
            .Bench.Diaphragm()
            .Strips()
            .Does(new BackNote("insulator", Fate.Refitted, "up"))
            .Does(new BackNote("carburetor", Fate.Refitted));
        Assert.Contains(bench.Problems, problem => problem is { Fault: StackFault.LeftOut, Part: "carburetor", Other: "intake-gasket" });
    }

    [Fact]
    public void A_part_with_a_right_way_round_is_not_closed_over_before_somebody_has_said_how_it_went_in()
    {
        var bench = Strip.Bench.Diaphragm().Strips();
        IReadOnlyList<Core.Measures.FieldProblem> Check(BackNote note) =>
            StackCheck.Check(StackKnowledge.Shipped, CarburetorFamily.Diaphragm, null, bench.Ledger, note);
        Assert.StartsWith(
            "Say which way round",
            Assert.Single(Check(new BackNote("metering-diaphragm", Fate.Refitted))).Message,
            StringComparison.Ordinal
        );
        Assert.Empty(Check(new BackNote("metering-diaphragm", Fate.Refitted, "toward-cover"))); // taken down, then caught
        Assert.Empty(Check(new BackNote("metering-diaphragm", Fate.LeftOff, Reason: "Owner brings one of his own")));
        Assert.Empty(Check(new BackNote("metering-cover", Fate.Refitted)));
        Assert.Empty(Check(new BackNote("pump-cover", Fate.Refitted))); // nobody looked as it came out
    }

    [Fact]
    public void What_was_left_off_and_signed_for_is_not_missed()
    {
        var bench = Strip
            .Bench.Diaphragm()
            .Strips()
            .BuildsUpTo("inlet-screen")
            .Does(new BackNote("inlet-screen", Fate.LeftOff, Reason: "Owner wants the line filter only"));
        bench.BuildsUpTo("nothing");
        Assert.Empty(bench.Problems);
    }

    [Fact]
    public void A_cover_goes_back_as_it_was_found()
    {
        var bench = Strip.Bench.Diaphragm().Does(new JobNote("pump"));
        foreach (var line in bench.Ledger.ToStrip)
        {
            bench.Does(new OutNote(line.Part.Key, LineVerdict.Clean, Way: line.Part.Key == "pump-cover" ? "left" : null));
        }

        bench.BuildsUpTo("pump-cover").Does(new BackNote("pump-cover", Fate.Refitted, "right"));
        Assert.Equal(StackFault.WrongWay, Assert.Single(bench.Problems).Fault);
    }

    /// <summary>The tube has a right end up, and how it was found is the only one who knows it: common practice, no source.</summary>
    [Fact]
    public void An_emulsion_tube_goes_back_the_same_end_up()
    {
        var bench = Strip
            .Bench.FloatBowl()
            .Does(new JobNote("main-jet"))
            .Does(new OutNote("emulsion-tube", LineVerdict.Clean, Way: "more-down"))
            .Does(new BackNote("emulsion-tube", Fate.Refitted, "more-up"));
        Assert.Contains(bench.Problems, problem => problem is { Fault: StackFault.WrongWay, Part: "emulsion-tube" });
        bench.Does(new UndoNote("emulsion-tube")).Does(new BackNote("emulsion-tube", Fate.Refitted, "more-down"));
        Assert.DoesNotContain(bench.Problems, problem => problem.Fault == StackFault.WrongWay);
    }

    /// <summary>What is asked before it is closed over: common practice, no source.</summary>
    [Theory]
    [InlineData(CarburetorFamily.Diaphragm, "metering-lever", "flush with its gauge")]
    [InlineData(CarburetorFamily.Diaphragm, "inlet-screen", "Pressed fully home")]
    [InlineData(CarburetorFamily.FloatBowl, "plunger", "Springs back")]
    [InlineData(CarburetorFamily.FloatBowl, "mounting-bolts", "Long pair and short pair")]
    [InlineData(CarburetorFamily.FloatBowl, "manifold", "does it stay still")]
    [InlineData(CarburetorFamily.FloatBowl, "idle-speed-screw", "two or three threads")]
    [InlineData(CarburetorFamily.SuctionTank, "choke-diaphragm", "wiped dry")]
    public void Each_part_is_looked_at_while_it_can_still_be_put_right(CarburetorFamily family, string part, string asked) =>
        Assert.Contains(asked, StackKnowledge.Shipped.Layer(family, part)!.Trap, StringComparison.Ordinal);

    [Theory]
    [InlineData(CarburetorFamily.FloatBowl)]
    [InlineData(CarburetorFamily.Diaphragm)]
    [InlineData(CarburetorFamily.SuctionTank)]
    public void The_tables_hold_together(CarburetorFamily family)
    {
        var parts = LedgerKnowledge.Shipped.All(family).ToDictionary(part => part.Key);
        foreach (var layer in StackKnowledge.Shipped.Stacks(family).SelectMany(stack => stack.Layers))
        {
            Assert.True(parts.ContainsKey(layer.Part), layer.Part);
            Assert.True(layer.Way is null or StackLayer.AsFound || parts[layer.Part].Ways.Any(way => way.Key == layer.Way), layer.Part);
            // What lies on top comes off first.
            Assert.All(layer.Covers.Where(parts.ContainsKey), under =>
                Assert.True(parts[under].Order > parts[layer.Part].Order, $"{under} under {layer.Part}")
            );
        }
    }
}
