using BlueDawn.Core.Bench;
using BlueDawn.Core.Handover;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tests.Worksheets;

namespace BlueDawn.Core.Tests.Handover;

public class ReleaseCheckTests
{
    [Fact]
    public void All_good_is_free_to_go() => Assert.Empty(ReleaseCheck.Obstacles(true, Sheets.Judged(Sheets.AllGood()), Sheets.Untouched));

    [Fact]
    public void Without_a_spec_sheet_nothing_goes() => Assert.Single(ReleaseCheck.Obstacles(false, [], Sheets.Untouched));

    [Fact]
    public void Missing_failing_and_undecided_each_stand_in_the_way()
    {
        var readings = Sheets.AllGood();
        readings.Remove("gauging/main-jet");
        readings["setting/hold-test"] = Sheets.Rows("pressure", "time", ("2", "48"), ("7", "30"), ("12", "10"));
        readings["gauging/idle-jet"] = TypedReading.Of(("go", "0.30"), ("noGo", "0.34"));
        var obstacles = ReleaseCheck.Obstacles(true, Sheets.Judged(readings), Sheets.Untouched);
        Assert.Equal(
            [("gauging/main-jet", ObstacleKind.Missing), ("gauging/idle-jet", ObstacleKind.Undecided), ("setting/hold-test", ObstacleKind.Failing)],
            obstacles.Select(obstacle => (obstacle.LineKey, obstacle.Kind)));
    }

    [Theory]
    [InlineData(null, false)]
    [InlineData("   ok   ", false)]
    [InlineData("Owner wants it as it is", true)]
    public void A_reason_has_to_say_something(string? reason, bool accepted) =>
        Assert.Equal(accepted, ReleaseCheck.ReasonProblem(reason) is null);

    [Fact]
    public void The_next_step_is_the_undecided_before_the_failing_before_the_unread()
    {
        var readings = Sheets.AllGood();
        Assert.Equal(Station.Handover, NextStep.Of(true, true, false, Sheets.Judged(readings), Sheets.Untouched).Station);
        readings.Remove("gauging/main-jet");
        Assert.Equal("gauging/main-jet", NextStep.Of(true, true, false, Sheets.Judged(readings), Sheets.Untouched).LineKey);
        readings["gauging/idle-jet"] = TypedReading.Of(("go", "0.30"), ("noGo", "0.34"));
        Assert.Equal("gauging/idle-jet", NextStep.Of(true, true, false, Sheets.Judged(readings), Sheets.Untouched).LineKey);
        Assert.Equal(Station.Kits, NextStep.Of(true, false, false, Sheets.Judged(readings), Sheets.Untouched).Station);
        Assert.Equal(Station.Kits, NextStep.Of(false, false, false, [], Sheets.Untouched).Station);
        Assert.Equal(Station.Strip, NextStep.Of(true, false, false, Sheets.Judged(readings), Strip.Bench.FloatBowl().Does(new Core.Parts.JobNote("full")).Work).Station);
    }

    [Fact]
    public void The_watch_list_remembers_what_was_cured_and_what_was_not()
    {
        var readings = Sheets.AllGood();
        readings.Remove("proving/idle-speed");
        var history = Sheets.Judged(readings)
            .Select(line => new LineHistory(line, line.Line.Key == "gauging/idle-jet" ? ["restricted"] : []))
            .ToList();
        var points = WatchList.Of(history);
        Assert.Contains(points, point => point.StartsWith("Idle jet was restricted", StringComparison.Ordinal));
        Assert.Contains(points, point => point.StartsWith("Idle speed: was not read", StringComparison.Ordinal));
        Assert.Equal(3, points.Count); // and how to store it
    }
}
