using BlueDawn.Core.Trays;

namespace BlueDawn.Core.Tests.Trays;

public class DeviceClockTests
{
    private static readonly DateTimeOffset Now = new(2026, 11, 24, 10, 0, 0, TimeSpan.Zero);

    [Theory]
    [InlineData(0, 0)]
    [InlineData(4, 0)] // the way through the network
    [InlineData(-4, 0)]
    [InlineData(840, 840)] // 14 minutes behind
    [InlineData(-840, -840)] // 14 minutes ahead
    public void A_clock_is_off_by_more_than_the_way(int secondsBehind, int off) =>
        Assert.Equal(TimeSpan.FromSeconds(off), DeviceClock.Off(Now.AddSeconds(-secondsBehind), Now));

    [Fact]
    public void A_device_that_does_not_say_is_believed() => Assert.Equal(TimeSpan.Zero, DeviceClock.Off(null, Now));

    /// <summary>A reading on a slow device after one on a right device is the later one, as it was on the bench.</summary>
    [Theory]
    [InlineData(-20)]
    [InlineData(0)]
    [InlineData(35)]
    public void What_counts_as_latest_does_not_hang_on_the_clock(int minutesBehind)
    {
        var behind = TimeSpan.FromMinutes(minutesBehind);
        var first = Now.AddMinutes(-3); // by a device that is right
        var secondByItsClock = Now.AddMinutes(-1) - behind;
        var second = DeviceClock.Right(secondByItsClock, DeviceClock.Off(Now - behind, Now), Now);
        Assert.Equal(Now.AddMinutes(-1), second);
        Assert.True(second > first);
    }

    [Fact]
    public void Nothing_was_taken_later_than_now_and_no_time_is_too_far()
    {
        Assert.Equal(Now, DeviceClock.Right(Now.AddHours(2), TimeSpan.Zero, Now));
        Assert.Equal(Now, DeviceClock.Right(DateTimeOffset.MaxValue, TimeSpan.FromDays(-400), Now.AddDays(400)));
        Assert.Equal(Now, DeviceClock.Right(DateTimeOffset.MinValue, TimeSpan.FromDays(-400), Now.AddDays(400)));
    }
}
