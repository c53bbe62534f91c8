using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Proving;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Tests.Proving;

public class ProvingTests
{
    private static readonly FuelWatchLine Watch = new(4, 2, CarburetorFamily.FloatBowl, true);
    private static readonly SpeedLine Governed = new(
        "proving/governed-speed",
        "Governed speed",
        new SpeedSpec(3200, 3600),
        "more",
        "less",
        "Spec sheet X"
    );

    [Theory]
    [InlineData("4", "yes", "dry", Verdict.Good)]
    [InlineData("3", "yes", "dry", Verdict.CannotTell)]
    [InlineData("10", "no", "dry", Verdict.CannotTell)]
    [InlineData("4", "yes", "bowlJoint", Verdict.NotGood)]
    [InlineData("0.5", "no", "overflow", Verdict.NotGood)] // fuel outside is a fail, whatever the time
    [InlineData("240 s", "yes", "dry", Verdict.Good)]
    public void Dry_counts_only_after_four_minutes_and_rocked(string minutes, string rocked, string leak, Verdict verdict)
    {
        var read = Watch.Read(TypedReading.Of(("minutes", minutes), ("rocked", rocked), ("leak", leak)));
        Assert.Empty(read.Problems);
        Assert.Equal(verdict, Watch.Judge(read.Reading, PinSet.Empty).Verdict);
    }

    [Fact]
    public void What_was_not_said_is_asked_for() =>
        Assert.Equal(["minutes", "rocked", "leak"], Watch.Read(TypedReading.Of()).Problems.Select(problem => problem.Field));

    /// <summary>One that came in hunting and still swings is not left, in its window or not; another may swing a little.</summary>
    [Theory]
    [InlineData(true, "190", "hunts")]
    [InlineData(true, "76", "hunts")]
    [InlineData(true, "75", "inWindow")]
    [InlineData(true, "0", "inWindow")]
    [InlineData(false, "190", "inWindow")]
    public void One_that_came_in_hunting_is_steady_or_it_hunts(bool hunted, string swing, string finding)
    {
        var line = Governed with { Hunted = hunted };
        Assert.Equal(finding, line.Judge(line.Read(TypedReading.Of(("speed", "3400"), ("swing", swing))).Reading, PinSet.Empty).Finding);
    }

    /// <summary>Window 3,200 to 3,600 rpm: common practice, no source.</summary>
    [Theory]
    [InlineData("3400", "", "inWindow")]
    [InlineData("3200", "", "inWindow")]
    [InlineData("3600 rpm", "0", "inWindow")]
    [InlineData("3100", "", "tooSlow")]
    [InlineData("3700", "50", "tooFast")]
    [InlineData("3580", "50", "cannotTell")]
    [InlineData("3400", "350", "hunts")]
    public void A_speed_is_judged_with_its_swing(string speed, string swing, string finding)
    {
        var read = Governed.Read(TypedReading.Of(("speed", speed), ("swing", swing)));
        Assert.Empty(read.Problems);
        Assert.Equal(finding, Governed.Judge(read.Reading, PinSet.Empty).Finding);
    }

    [Theory]
    [InlineData("3300", "3450", "tighter")]
    [InlineData("3500", "3300", "slacker")]
    [InlineData("3420", "3450", "Leave it")]
    [InlineData("3300", "", "Leave it")]
    public void Inside_its_window_a_governed_speed_is_brought_to_the_aim_by_the_tang_alone(string speed, string aim, string next)
    {
        var line = Governed with { Governed = true };
        var said = line.Judge(line.Read(TypedReading.Of(("speed", speed), ("aim", aim))).Reading, PinSet.Empty);
        Assert.Equal(Verdict.Good, said.Verdict);
        Assert.Contains(next, said.DoNext.Text, StringComparison.Ordinal);
        Assert.True(next == "Leave it" || said.DoNext.Text.Contains("never the governor arm", StringComparison.Ordinal));
        Assert.Equal("aim", Assert.Single(line.Read(TypedReading.Of(("speed", "3300"), ("aim", "3700"))).Problems).Field);
    }
}
