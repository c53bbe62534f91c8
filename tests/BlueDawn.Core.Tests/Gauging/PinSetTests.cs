using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Tests.Gauging;

public class PinSetTests
{
    [Fact]
    public void Sizes_ranges_and_drills_read_into_one_sorted_set()
    {
        var pins = PinSet.Parse("#80-#82, 0.30-0.40 by 0.05\n0.315; 0.35").Value!.Pins;
        Assert.Equal([0.30m, 0.315m, 0.3175m, 0.3302m, 0.3429m, 0.35m, 0.40m], pins.Select(pin => pin.DiameterMm));
        Assert.Equal("#82", pins[2].Label);
        Assert.Equal("0.315 mm", pins[1].Label);
    }

    [Theory]
    [InlineData("0.30-0.40")]
    [InlineData("0.3-0.4 by 0")]
    [InlineData("0.1-20 by 0.0001")]
    [InlineData("banana")]
    [InlineData("-1")]
    [InlineData("#0-#10")]
    public void What_cannot_be_read_is_said(string text) => Assert.NotNull(PinSet.Parse(text).Problem);

    [Fact]
    public void Nothing_typed_is_an_empty_set() => Assert.Empty(PinSet.Parse(" \n ").Value!.Pins);
}
