using BlueDawn.Core.Kits;
using BlueDawn.Core.Parts;
using CsCheck;

namespace BlueDawn.Core.Tests.Kits;

public class FitDecisionTests
{
    private static readonly FitTerms Terms = new(48, 20, 20, 0.5m, null, null, 4, 4);

    private static readonly FitOffer Kit = new(FitOption.Kit, "a kit", 20, 45, 0, null);
    private static readonly FitOffer Pattern = new(FitOption.PatternCarburetor, "a carburetor", 30, 25, 2, null);
    private static readonly FitOffer Tap = new(FitOption.Stopgap, "a tap", 6.5m, 15, 0, null);
    private static readonly FitOffer Leave = new(FitOption.Decline, "", 0, 0, 0, null);

    private static ReturnRate Rate(FitOption option, double share, int fitted = 0, int back = 0) => new(option, share, 10, fitted, back);

    private static FitDecision Decide(FitTerms terms, params FitOffer[] offers) =>
        FitDecision.Of(offers, [Rate(FitOption.Kit, 0.04), Rate(FitOption.PatternCarburetor, 0.3), Rate(FitOption.Stopgap, 0.5)], terms);

    /// <summary>Worked by hand: 30 + 25 min at 48 = 50; again with 20 min besides = 66; 30 % of 66 = 19.80; 69.80 in all.</summary>
    [Fact]
    public void Expected_cost_is_parts_work_and_the_share_that_comes_back_times_doing_it_again()
    {
        var option = Decide(Terms, Pattern, Leave).Options[0];
        Assert.Equal((20m, 50m, 69.80m), (option.LabourMoney, option.OwnerPays, option.ExpectedMoney));
        Assert.Equal(option.ExpectedMoney, option.Sum.Sum(line => line.Money));
    }

    [Fact]
    public void The_comeback_can_make_the_dearer_looking_one_the_cheaper()
    {
        // 56.00 against 50.00 before comebacks; 58.88 against 69.80 with them.
        var decision = Decide(Terms, Kit, Pattern, Leave);
        Assert.Equal(FitOption.Kit, decision.Advised);
        Assert.True(decision.Options[0].OwnerPays > decision.Options[1].OwnerPays);
    }

    /// <summary>To put all of it back costs nothing. It is advised where nothing is worn, and never instead of mending what is.</summary>
    [Fact]
    public void As_it_is_it_goes_back_only_where_nothing_is_marked()
    {
        var asItIs = new FitOffer(FitOption.CleanAndRefit, "it goes back as it is", 0, 0, 0, null);
        var sound = Decide(Terms, Kit, asItIs, Leave);
        Assert.Equal((FitOption.CleanAndRefit, FitOption.CleanAndRefit), (sound.Advised, sound.Options[0].Option));
        var worn = Decide(Terms, Kit, asItIs with { Advisable = false }, Leave);
        Assert.Equal(FitOption.Kit, worn.Advised);
        Assert.Equal([FitOption.Kit, FitOption.CleanAndRefit, FitOption.Decline], worn.Options.Select(option => option.Option));
        // With nothing that mends within the limit, it is still not what is advised.
        Assert.Equal(FitOption.Decline, Decide(Terms with { OwnerLimit = 1 }, Kit, asItIs with { Advisable = false }, Leave).Advised);
    }

    [Fact]
    public void Declining_costs_the_owner_nothing_and_the_shop_its_looking()
    {
        var decline = Decide(Terms, Leave).Options[0];
        Assert.Equal((0m, 16m), (decline.OwnerPays, decline.ExpectedMoney));
    }

    [Theory]
    [InlineData(50, null, FitOption.PatternCarburetor)] // the kit is over the owner's limit
    [InlineData(null, 105, FitOption.PatternCarburetor)] // half of 105 is under the kit's 56
    [InlineData(40, null, FitOption.Stopgap)] // only the stopgap is within it
    [InlineData(10, null, FitOption.Decline)]
    [InlineData(60, 20, FitOption.Decline)]
    public void Limits_are_kept(int? limit, int? worth, FitOption advised) =>
        Assert.Equal(advised, Decide(Terms with { OwnerLimit = limit, MachineWorth = worth }, Kit, Pattern, Tap, Leave).Advised);

    [Fact]
    public void What_is_late_is_advised_only_when_nothing_is_in_time()
    {
        var late = Kit with { WaitDays = 9 };
        Assert.Equal(
            (FitOption.PatternCarburetor, 5),
            (Decide(Terms, late, Pattern, Leave).Advised, Decide(Terms, late, Leave).Options[0].DaysLate)
        );
        var only = Decide(Terms, late, Leave);
        Assert.Equal(FitOption.Kit, only.Advised);
        Assert.Contains("Nothing that mends it is in time.", only.Why, StringComparison.Ordinal);
    }

    [Fact]
    public void When_nothing_is_in_time_a_day_of_lateness_counts()
    {
        // 58.88 with nine days late at 4 against 69.80 with none more than four.
        Assert.Equal(FitOption.PatternCarburetor, Decide(Terms, Kit with { WaitDays = 10 }, Pattern with { WaitDays = 5 }, Leave).Advised);
        Assert.Equal(FitOption.Kit, Decide(Terms, Kit with { WaitDays = 6 }, Pattern with { WaitDays = 5 }, Leave).Advised);
    }

    [Fact]
    public void What_cannot_be_done_is_never_advised() =>
        Assert.Equal(FitOption.Decline, Decide(Terms, FitOffer.Not(FitOption.Kit, "No kit fits."), Leave).Advised);

    /// <summary>Worked by hand: 30 % counted as 10 is 3 of 10; with 8 of 14 come back it is 11 of 24.</summary>
    [Fact]
    public void Rates_start_from_the_shops_default_and_learn_from_its_returns()
    {
        Assert.Equal(0.3, Rate(FitOption.PatternCarburetor, 0.3).Share, tolerance: 5e-13);
        Assert.Equal(11.0 / 24, Rate(FitOption.PatternCarburetor, 0.3, 14, 8).Share, tolerance: 5e-13);
    }

    [Fact]
    public void A_rate_lies_between_the_default_and_what_was_seen() =>
        Gen.Select(Gen.Double[0, 1], Gen.Int[1, 500], Gen.Double[0, 1])
            .Sample(
                (share, fitted, part) =>
                {
                    var back = (int)(fitted * part);
                    var seen = back / (double)fitted;
                    var learned = Rate(FitOption.Kit, share, fitted, back).Share;
                    return learned >= Math.Min(share, seen) - 1e-12 && learned <= Math.Max(share, seen) + 1e-12;
                }
            );

    [Fact]
    public void More_comebacks_never_make_an_option_cheaper() =>
        Gen.Select(Gen.Int[0, 30], Gen.Int[0, 30], Gen.Int[0, 30])
            .Sample(
                (fitted, back, more) =>
                {
                    decimal Cost(int cameBack) =>
                        FitDecision
                            .Of([Pattern], [Rate(FitOption.PatternCarburetor, 0.3, fitted + 60, cameBack)], Terms)
                            .Options[0]
                            .ExpectedMoney;
                    return Cost(back + more) >= Cost(back);
                }
            );
}
