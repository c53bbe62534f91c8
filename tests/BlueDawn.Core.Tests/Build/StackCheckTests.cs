using BlueDawn.Core.Build;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Parts;

namespace BlueDawn.Core.Tests.Build;

public sealed class StackCheckTests
{
    private static Strip.Bench BenchOf(CarburetorFamily family) => family switch
    {
        CarburetorFamily.FloatBowl => Strip.Bench.FloatBowl(),
        CarburetorFamily.Diaphragm => Strip.Bench.Diaphragm(),
        _ => new Strip.Bench(CarburetorFamily.SuctionTank, null, ChokeKind.Vacuum),
    };

    /// <summary>Every layer with a right way round, and every wrong one it could have.</summary>
    public static TheoryData<CarburetorFamily, string, string> WrongWays()
    {
        var data = new TheoryData<CarburetorFamily, string, string>();
        foreach (var family in Enum.GetValues<CarburetorFamily>())
        {
            foreach (var layer in StackKnowledge.Shipped.Stacks(family).SelectMany(stack => stack.Layers).Where(layer => layer.Way is not null and not StackLayer.AsFound))
            {
                foreach (var way in LedgerKnowledge.Shipped.All(family).Single(part => part.Key == layer.Part).Ways.Where(way => way.Key != layer.Way))
                {
                    data.Add(family, layer.Part, way.Key);
                }
            }
        }

        return data;
    }

    /// <summary>Every pair of layers of which one lies under the other.</summary>
    public static TheoryData<CarburetorFamily, string, string> Pairs()
    {
        var data = new TheoryData<CarburetorFamily, string, string>();
        foreach (var family in Enum.GetValues<CarburetorFamily>())
        {
            foreach (var stack in StackKnowledge.Shipped.Stacks(family))
            {
                foreach (var over in stack.Layers)
                {
                    foreach (var under in stack.Layers.Where(layer => layer.Place < over.Place && !(layer.Loose && over.Loose)).Select(layer => layer.Part).Concat(over.Covers).Distinct())
                    {
                        data.Add(family, under, over.Part);
                    }
                }
            }
        }

        return data;
    }

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

    [Theory]
    [MemberData(nameof(WrongWays))]
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

    [Theory]
    [MemberData(nameof(Pairs))]
    public void What_closes_over_a_part_that_is_still_on_the_bench_is_caught(CarburetorFamily family, string under, string over)
    {
        var bench = BenchOf(family).Strips();
        foreach (var line in StackCheck.Order(bench.Ledger).Where(line => line.Part.Key != under))
        {
            bench.Does(Strip.Bench.Back(line.Part.Key));
        }

        Assert.Contains(bench.Problems, problem => problem.Fault == StackFault.LeftOut && problem.Other == under && problem.Part == over);

        // Fitted after all, past what closes over it, it is out of order; that taken off and put back mends it.
        bench.Does(Strip.Bench.Back(under));
        Assert.Contains(bench.Problems, problem => problem.Fault == StackFault.WrongOrder && problem.Other == under && problem.Part == over);
        for (var off = 0; off < 20 && bench.Problems.Count > 0; off++)
        {
            var part = bench.Problems[0].Part;
            bench.Does(new UndoNote(part)).Does(Strip.Bench.Back(part));
        }

        Assert.Empty(bench.Problems);
    }

    private static SpecSheet SeatGoes(string way) =>
        Trays.Sheets.Spec with { Needs = [new PartNeed("seat", 1, new Dictionary<string, string> { ["way in"] = way })] };

    /// <summary>The sheet says it before anything else: a seat whose sheet puts its smooth side first is not wrong that way, and tells Trace nothing.</summary>
    [Theory]
    [InlineData("smooth side first", "outward", true, false)]
    [InlineData("smooth side first", "into-body", false, true)]
    [InlineData("groove first", "into-body", true, false)]
    [InlineData("groove first", "outward", false, true)]
    [InlineData("either", "outward", true, false)]
    [InlineData("either", "into-body", true, false)]
    public void The_sheet_decides_which_way_round_a_seat_goes(string sheet, string way, bool right, bool sign)
    {
        var bench = new Strip.Bench(CarburetorFamily.FloatBowl, SeatGoes(sheet)).Does(new JobNote("full"))
            .Does(new OutNote("seat", LineVerdict.Clean, Way: way)).Does(new BackNote("seat", Fate.Refitted, way));
        Assert.Equal(right, bench.Problems.All(problem => problem.Fault != StackFault.WrongWay));
        Assert.Equal(sign, bench.Tray.Book.Signs.Any(one => one.FindingId == "earlier-work"));
    }

    /// <summary>Found another way round than usual with a sheet that is silent: worth a look, not an error, whichever way it goes back.</summary>
    [Theory]
    [InlineData("outward")]
    [InlineData("into-body")]
    public void What_was_found_against_the_usual_is_looked_at_and_not_called_wrong(string back)
    {
        var bench = new Strip.Bench(CarburetorFamily.FloatBowl).Does(new JobNote("full")).Does(new OutNote("seat", LineVerdict.Clean, Way: "outward"));
        Assert.Contains("Look at both before it goes in", Assert.Single(bench.Advice).Trap, StringComparison.Ordinal);
        Assert.Contains("which way round", Assert.Single(StackCheck.Check(StackKnowledge.Shipped, CarburetorFamily.FloatBowl, null, bench.Ledger, new BackNote("seat", Fate.Refitted))).Message, StringComparison.Ordinal);
        Assert.Empty(bench.Does(new BackNote("seat", Fate.Refitted, back)).Problems);
        Assert.Contains(bench.Tray.Book.Signs, one => one.FindingId == "earlier-work");
    }

    /// <summary>Gasket, insulator and spacer are stacked either way about, as the sheet or the last builder had them: neither order is wrong. Common practice, no source.</summary>
    [Theory]
    [InlineData("insulator", "intake-gasket")]
    [InlineData("intake-gasket", "insulator")]
    public void Gasket_and_insulator_go_in_either_order(string first, string second)
    {
        var bench = Strip.Bench.Diaphragm().Strips();
        bench.Does(Strip.Bench.Back(first, "up")).Does(Strip.Bench.Back(second, "up"));
        Assert.Empty(bench.Problems);
    }

    [Fact]
    public void A_carburetor_over_a_gasket_that_is_still_on_the_bench_is_caught_all_the_same()
    {
        var bench = Strip.Bench.Diaphragm().Strips().Does(new BackNote("insulator", Fate.Refitted, "up")).Does(new BackNote("carburetor", Fate.Refitted));
        Assert.Contains(bench.Problems, problem => problem is { Fault: StackFault.LeftOut, Part: "carburetor", Other: "intake-gasket" });
    }

    [Fact]
    public void A_part_with_a_right_way_round_is_not_closed_over_before_somebody_has_said_how_it_went_in()
    {
        var bench = Strip.Bench.Diaphragm().Strips();
        IReadOnlyList<Core.Measures.FieldProblem> Check(BackNote note) => StackCheck.Check(StackKnowledge.Shipped, CarburetorFamily.Diaphragm, null, bench.Ledger, note);
        Assert.StartsWith("Say which way round", Assert.Single(Check(new BackNote("metering-diaphragm", Fate.Refitted))).Message, StringComparison.Ordinal);
        Assert.Empty(Check(new BackNote("metering-diaphragm", Fate.Refitted, "toward-cover"))); // taken down, then caught
        Assert.Empty(Check(new BackNote("metering-diaphragm", Fate.LeftOff, Reason: "Owner brings one of his own")));
        Assert.Empty(Check(new BackNote("metering-cover", Fate.Refitted)));
        Assert.Empty(Check(new BackNote("pump-cover", Fate.Refitted))); // nobody looked as it came out
    }

    [Fact]
    public void What_was_left_off_and_signed_for_is_not_missed()
    {
        var bench = Strip.Bench.Diaphragm().Strips().BuildsUpTo("inlet-screen").Does(new BackNote("inlet-screen", Fate.LeftOff, Reason: "Owner wants the line filter only"));
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
            Assert.All(layer.Covers.Where(parts.ContainsKey), under => Assert.True(parts[under].Order > parts[layer.Part].Order, $"{under} under {layer.Part}"));
        }
    }
}
