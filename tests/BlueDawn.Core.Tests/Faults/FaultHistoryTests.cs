using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Shop;
using CsCheck;

namespace BlueDawn.Core.Tests.Faults;

public class FaultHistoryTests
{
    /// <summary>One tray with its confirmed causes, counted.</summary>
    private static IEnumerable<ClosedTraces> Closed(string? spec, CarburetorFamily family, params string[] causes) =>
        causes.Distinct().Select(cause => new ClosedTraces(spec, family, cause, 1)).Append(new ClosedTraces(spec, family, null, 1));

    [Fact]
    public void The_same_sheet_counts_whole_the_same_family_by_a_share_and_another_family_not_at_all()
    {
        var history = FaultHistory.Of(
            "FB18",
            CarburetorFamily.FloatBowl,
            [
                .. Closed("FB18", CarburetorFamily.FloatBowl, "idle-jet-blocked"),
                .. Closed("FB12", CarburetorFamily.FloatBowl, "idle-jet-blocked"),
                .. Closed(null, CarburetorFamily.FloatBowl),
                .. Closed("D7", CarburetorFamily.Diaphragm, "idle-jet-blocked"),
            ]
        );
        Assert.Equal((1, 2), (history.Alike, history.Kin));
        Assert.Equal(1 + FaultHistory.KinShare, history.Confirmed("idle-jet-blocked"), tolerance: 5e-13);
        Assert.Equal(1 + (2 * FaultHistory.KinShare), history.Trays, tolerance: 5e-13);
    }

    [Fact]
    public void Without_a_sheet_nothing_is_alike() =>
        Assert.Equal(0, FaultHistory.Of(null, CarburetorFamily.FloatBowl, Closed(null, CarburetorFamily.FloatBowl, "fuel-stale")).Alike);

    [Fact]
    public void A_shift_stays_a_probability_and_goes_towards_what_was_seen() =>
        Gen.Select(Gen.Int[0, 60], Gen.Double[0, 1], Gen.Double[0.001, 0.6])
            .Sample(
                (trays, share, prior) =>
                {
                    var confirmed = (int)(trays * share);
                    var history = new FaultHistory(
                        trays,
                        new Dictionary<string, int> { ["x"] = confirmed },
                        0,
                        new Dictionary<string, int>()
                    );
                    var shifted = history.Shift("x", prior);
                    Assert.InRange(shifted, 0, 1);
                    var seen = trays == 0 ? prior : confirmed / (double)trays;
                    Assert.InRange(shifted, Math.Min(prior, seen) - 1e-12, Math.Max(prior, seen) + 1e-12);
                }
            );

    [Fact]
    public void Its_weight_grows_with_the_trays_and_never_reaches_the_whole()
    {
        double Weight(int trays) => new FaultHistory(trays, new Dictionary<string, int>(), 0, new Dictionary<string, int>()).Weight;
        Assert.Equal(0, Weight(0));
        Assert.Equal(0.5, Weight((int)FaultHistory.ExpertTrays), tolerance: 5e-13);
        Assert.True(Weight(1000) is > 0.95 and < 1);
    }
}
