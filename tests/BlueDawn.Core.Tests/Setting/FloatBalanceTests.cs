using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Setting;

namespace BlueDawn.Core.Tests.Setting;

/// <summary>The float as a balance of forces, against cases worked by hand from Archimedes and the lever.</summary>
public sealed class FloatBalanceTests
{
    /// <summary>12 cm³, 4.0 g, arms 6 and 30 mm, seat 1.8 mm, petrol 740 kg/m³.</summary>
    private static FloatBalanceInput Case(double massG = 4.0, double? supplyKPa = null, double seatMm = 1.8) =>
        new(12, massG, 30, 6, seatMm, 0.740, supplyKPa ?? FloatBalance.HeadKPa(300, 0.740));

    // Worked by hand: head 0.740·9.80665·0.300 = 2.1771 kPa on 2.5447 mm² = 5.540 mN; a fifth of it at the float 1.108 mN;
    // weight 39.227 mN; full buoyancy 87.083 mN.
    [Theory]
    [InlineData(4.0, null, 0.463)]
    [InlineData(9.0, null, 1.026)]
    [InlineData(4.0, 20.0, 0.567)]
    public void The_share_under_the_fuel_is_that_of_the_worked_cases(double massG, double? supplyKPa, double share) =>
        Assert.Equal(share, FloatBalance.Of(Case(massG, supplyKPa)).ImmersedShare, 0.0005);

    [Fact]
    public void A_float_with_five_grams_inside_floods_and_one_with_four_does_not()
    {
        Assert.False(FloatBalance.Of(Case(9)).Shuts);
        Assert.True(FloatBalance.Of(Case(8)).Shuts);
    }

    [Fact]
    public void Room_and_most_supply_are_where_it_just_shuts()
    {
        var result = FloatBalance.Of(Case());
        Assert.Equal(1, FloatBalance.Of(Case(4 + result.RoomG)).ImmersedShare, 1e-9);
        Assert.Equal(1, FloatBalance.Of(Case(supplyKPa: result.MostSupplyKPa)).ImmersedShare, 1e-9);
    }

    [Fact]
    public void A_heavier_float_never_lowers_the_level_and_a_larger_seat_never_raises_the_room()
    {
        var random = new Random(12);
        for (var i = 0; i < 2000; i++)
        {
            var one = new FloatBalanceInput(
                2 + (random.NextDouble() * 30),
                1 + (random.NextDouble() * 20),
                10 + (random.NextDouble() * 40),
                3 + (random.NextDouble() * 10),
                0.8 + (random.NextDouble() * 3),
                0.72 + (random.NextDouble() * 0.07),
                random.NextDouble() * 30
            );
            var before = FloatBalance.Of(one);
            Assert.True(FloatBalance.Of(one with { MassG = one.MassG + random.NextDouble() }).ImmersedShare >= before.ImmersedShare);
            Assert.True(FloatBalance.Of(one with { SeatBoreMm = one.SeatBoreMm + random.NextDouble() }).RoomG <= before.RoomG);
            Assert.Equal(before.Shuts, before.RoomG >= 0);
        }
    }

    [Fact]
    public void A_lying_cylinder_half_under_is_half_deep_and_a_quarter_under_is_deeper_than_a_quarter()
    {
        Assert.Equal(0.3, FloatDepth.ShareOf(FloatShape.Upright, 0.3), 1e-12);
        Assert.Equal(0.5, FloatDepth.ShareOf(FloatShape.Lying, 0.5), 1e-12);
        // Segment of a circle, from a table of circular segments: depth 0.2980 of the diameter holds a quarter of its area.
        Assert.Equal(0.2980, FloatDepth.ShareOf(FloatShape.Lying, 0.25), 0.0001);
        Assert.Equal(0, FloatDepth.ShareOf(FloatShape.Lying, -0.2), 1e-9);
        Assert.Equal(1, FloatDepth.ShareOf(FloatShape.Lying, 1.4), 1e-9);
    }

    [Fact]
    public void A_seat_passes_what_the_elementary_orifice_says()
    {
        // 1.8 mm under 300 mm of petrol: 0.6 × 2.5447 mm² × √(2·2177.1/740) = 2.4257 m/s is 3.7037 mL/s.
        Assert.Equal(222.2, SeatFlow.MLPerMin(1.8, FloatBalance.HeadKPa(300, 0.740), 0.740), 0.2);
        Assert.Equal(2, SeatFlow.MLPerMin(1.8, 4, 0.74) / SeatFlow.MLPerMin(1.8, 1, 0.74), 1e-9);
        // 170 mL four-stroke at 3600: 0.170·1800·0.8·1.225 = 299.9 g of air a minute, 24.0 g of fuel, 32.4 mL.
        Assert.Equal(32.4, SeatFlow.DemandMLPerMin(170, 3600, false, 0.740), 0.1);
    }

    [Theory]
    [InlineData("volumeML")]
    [InlineData("massG")]
    [InlineData("seatBoreMm")]
    public void What_cannot_be_is_named(string field)
    {
        var input = field switch
        {
            "volumeML" => Case() with { VolumeML = 0 },
            "massG" => Case() with { MassG = double.NaN },
            _ => Case() with { SeatBoreMm = -1 },
        };
        Assert.Equal(field, Assert.Single(FloatBalance.Check(input)).Field);
        Assert.Throws<ArgumentException>(() => FloatBalance.Of(input));
    }
}
