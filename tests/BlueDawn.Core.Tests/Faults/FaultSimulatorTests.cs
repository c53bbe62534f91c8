namespace BlueDawn.Core.Tests.Faults;

public class FaultSimulatorTests
{
    [Fact]
    public void The_next_step_mends_sooner_than_either_fixed_order()
    {
        var minutes = new FaultSimulator(seed: 20261125).MeanMinutes(
            40,
            FaultSimulator.ByExpectedCost,
            FaultSimulator.CheapestCheckFirst,
            FaultSimulator.ByPriorOnly
        );
        Assert.True(minutes[0] < minutes[1], $"{minutes[0]:0} min against {minutes[1]:0} min, cheapest check first");
        Assert.True(minutes[0] < minutes[2], $"{minutes[0]:0} min against {minutes[2]:0} min, by prior only");
    }
}
