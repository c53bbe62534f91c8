using BlueDawn.Core.Proving;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tests.Trays;

namespace BlueDawn.Core.Tests.Proving;

/// <summary>A new plunger or seat that weeps waits two days, calls, and is then tight or renewed.</summary>
public sealed class BedInTests
{
    private static ReadingNote Watched(string leak) =>
        new("proving/fuel-on", TypedReading.Of(("minutes", "4"), ("rocked", "yes"), ("leak", leak)));

    private static JudgedLine FuelOn(TestTray tray) => tray.Book.Lines.Single(line => line.Line.Key == "proving/fuel-on");

    private static void DaysLater(TestTray tray, int days) =>
        tray.Context = tray.Context with { Today = new DateOnly(2026, 11, 2).AddDays(days) };

    private static TestTray Weeping() => TestTray.Renewed().Does(Watched("newPart"));

    [Fact]
    public void A_new_part_that_weeps_waits_and_is_no_failure()
    {
        var tray = Weeping();
        Assert.Equal((WaitsFor.BedIn, "look again from 4 Nov"), (tray.Facts.WaitsFor, tray.Facts.WaitNote));
        Assert.Equal((Verdict.CannotTell, "beddingIn"), (FuelOn(tray).Judgement.Verdict, FuelOn(tray).Judgement.Finding));
        Assert.Equal(new DateOnly(2026, 11, 4), BedIn.LookAgainOn(tray.Book));
        // It speaks for no fault; but fuel is in the open, and the engine does not run beside it.
        Assert.DoesNotContain(tray.Book.Signs, sign => sign.Source == "proving/fuel-on");
        Assert.NotNull(Core.Trays.Policy.WhyNotRun(tray.Book));
    }

    [Fact]
    public void Two_days_later_it_calls_and_dry_is_good()
    {
        var tray = Weeping();
        DaysLater(tray, 2);
        Assert.StartsWith("It has had its days", tray.Next.Do.Text, StringComparison.Ordinal);
        tray.Does(Watched("dry"));
        Assert.Equal((WaitsFor.Hands, ""), (tray.Facts.WaitsFor, tray.Facts.WaitNote));
        Assert.Equal(Verdict.Good, FuelOn(tray).Judgement.Verdict);
        Assert.Null(BedIn.LookAgainOn(tray.Book));
    }

    // It was seen at 08:02 universal time on the second: nine hours to the west that is still the first.
    [Theory]
    [InlineData(0, 4)]
    [InlineData(14 * 60, 4)]
    [InlineData(-9 * 60, 3)]
    public void Days_are_counted_by_the_calendar_of_the_shop(int aheadOfUtcMin, int lookAgainOn)
    {
        var tray = TestTray.Renewed();
        tray.Context = tray.Context with { AheadOfUtcMin = aheadOfUtcMin };
        tray.Does(Watched("newPart"));
        Assert.Equal(new DateOnly(2026, 11, lookAgainOn), BedIn.LookAgainOn(tray.Book));
    }

    // Thirteen hours to the east a morning of the third is an evening of the second by universal time.
    [Fact]
    public void A_morning_far_to_the_east_belongs_to_its_own_day() =>
        Assert.Equal(
            new DateOnly(2026, 11, 3),
            (Weeping().Context with { AheadOfUtcMin = 13 * 60 }).DayOf(new DateTimeOffset(2026, 11, 2, 20, 0, 0, TimeSpan.Zero))
        );

    [Fact]
    public void Looked_at_too_early_it_waits_on_from_the_first_day()
    {
        var tray = Weeping();
        DaysLater(tray, 1);
        tray.Does(Watched("newPart"));
        Assert.Equal("beddingIn", FuelOn(tray).Judgement.Finding);
        Assert.Equal((WaitsFor.BedIn, "look again from 4 Nov"), (tray.Facts.WaitsFor, tray.Facts.WaitNote));
    }

    [Fact]
    public void What_still_weeps_after_its_days_is_not_good_and_needs_hands()
    {
        var tray = Weeping();
        DaysLater(tray, 2);
        tray.Does(Watched("newPart"));
        Assert.Equal((Verdict.NotGood, "stillWeeps"), (FuelOn(tray).Judgement.Verdict, FuelOn(tray).Judgement.Finding));
        Assert.Equal(WaitsFor.Hands, tray.Facts.WaitsFor);
        // Renewed once more, it has its days again.
        tray.Does(Watched("newPart"));
        Assert.Equal("beddingIn", FuelOn(tray).Judgement.Finding);
    }

    [Fact]
    public void Taken_back_it_no_longer_waits_and_one_taken_back_after_its_days_waits_again()
    {
        var tray = TestTray.Renewed().Does(Watched("newPart"), out var wept);
        tray.Does(new WithdrawalNote(), wept);
        Assert.Equal((WaitsFor.Hands, ""), (tray.Facts.WaitsFor, tray.Facts.WaitNote));

        tray = Weeping();
        DaysLater(tray, 2);
        tray.Does(Watched("dry"), out var dry).Does(new WithdrawalNote(), dry);
        Assert.Equal((WaitsFor.BedIn, "look again from 4 Nov"), (tray.Facts.WaitsFor, tray.Facts.WaitNote));
    }
}
