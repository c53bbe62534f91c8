using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Setting;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Tests.Setting;

/// <summary>Where a float lets the fuel stand, what a change does to it, and the lines that go with it.</summary>
public sealed class FloatStandingTests
{
    // 12 cm³, arms 6 and 30 mm, seat 1.8 mm under 300 mm: the worked case of Archimedes and the lever, in the product's own petrol.
    private static readonly FloatSpec Float = new(
        14m,
        0.5m,
        0.4m,
        6m,
        30m,
        4.0,
        0.3,
        new FloatBody(12, 30, 1.8, 300, FloatShape.Upright, 20)
    );

    [Fact]
    public void The_fuel_stands_where_the_float_has_sunk_to_its_share()
    {
        var standing = FloatStanding.Of(Float, 14, 4.0)!;
        // Petrol 0.7475: head 2.1992 kPa × 2.5447 mm² = 5.596 mN, a fifth of it 1.119 mN; weight 39.227; buoyancy 87.965 mN: 0.4587.
        Assert.Equal(0.4587, standing.ImmersedShare, 0.0005);
        Assert.Equal(14 + (20 * (1 - 0.4587)), standing.LevelMm!.Value, 0.01);
        Assert.Equal(standing.LevelMm.Value, standing.MeantMm, 1e-9);
        Assert.Equal((0, 0), (standing.AngleDeg, standing.NeedleGapMm));
    }

    [Fact]
    public void A_float_full_of_fuel_does_not_shut_and_its_needle_stands_off()
    {
        var standing = FloatStanding.Of(Float, 14, 9.2)!;
        Assert.Null(standing.LevelMm);
        Assert.Equal(0.45, standing.NeedleGapMm, 1e-9);
        Assert.True(standing.RoomG < 0);
    }

    [Fact]
    public void A_float_that_hangs_low_lets_the_fuel_stand_lower_by_as_much_and_leans_by_the_arm()
    {
        var (low, meant) = (FloatStanding.Of(Float, 15.5, 4.0)!, FloatStanding.Of(Float, 14, 4.0)!);
        Assert.Equal(1.5, low.LevelMm!.Value - meant.LevelMm!.Value, 1e-9);
        // asin(1.5 / 30)
        Assert.Equal(2.87, low.AngleDeg, 0.01);
    }

    [Fact]
    public void A_lying_cylinder_stands_by_its_segment()
    {
        // Half under is half deep; the share 0.4587 of a circle's area lies below 0.4675 of its diameter (table of circular segments,
        // from memory; between 0.46 and 0.47).
        var lying = FloatStanding.Of(Float with { Body = Float.Body! with { Shape = FloatShape.Lying } }, 14, 4.0)!;
        Assert.InRange(lying.LevelMm!.Value, 14 + (20 * (1 - 0.47)), 14 + (20 * (1 - 0.46)));
    }

    [Fact]
    public void A_heavier_float_a_larger_seat_and_a_pump_never_lower_the_fuel_and_a_bend_toward_the_needle_does()
    {
        var random = new Random(3);
        for (var i = 0; i < 500; i++)
        {
            var sheet = Float with
            {
                Body = new FloatBody(
                    8 + (random.NextDouble() * 20),
                    20 + (random.NextDouble() * 20),
                    1 + random.NextDouble(),
                    100 + (random.NextDouble() * 400),
                    i % 2 == 0 ? FloatShape.Upright : FloatShape.Lying,
                    12 + (random.NextDouble() * 12)
                ),
            };
            var plain = FloatStanding.Of(sheet, 14, 4)?.LevelMm;
            foreach (
                var changed in new[]
                {
                    FloatStanding.Of(sheet, 14, 4 + random.NextDouble()),
                    FloatStanding.Of(sheet, 14, 4, 20),
                    FloatStanding.Of(sheet, 14, 4, null, sheet.Body!.SeatBoreMm + 0.3),
                }
            )
            {
                // Below the face: less is higher; none at all runs over.
                Assert.True(changed?.LevelMm is not { } level || level <= plain + 1e-9);
            }

            if (LevelChanges.Of(sheet) is { } changes)
            {
                Assert.Equal(0.5, changes.BendMm, 1e-9);
                Assert.True(changes.SeatMm is null or >= 0 && changes.FuelInsideMm is null or >= 0 && changes.PumpMm is null or >= 0);
            }
        }
    }

    [Fact]
    public void Nothing_is_drawn_of_a_float_nothing_is_known_of()
    {
        Assert.Null(FloatStanding.Of(Float with { Body = null }, 14, 4));
        Assert.Null(FloatStanding.Of(Float with { DryMassG = null }, 14, 4));
        Assert.Null(LevelChanges.Of(Float with { Body = Float.Body! with { TallMm = null } }));
    }

    [Fact]
    public void A_pump_presses_the_same_whether_the_tank_is_full_or_empty()
    {
        // 20 kPa: the worked case gives 0.567 in petrol of 0.740; here 0.7475: (39.227 + 10.179) / 87.965 mN = 0.5617.
        var pumped = Float with { Body = Float.Body! with { PumpKPa = 20 } };
        Assert.Equal(0.5617, FloatStanding.Of(pumped, 14, 4.0)!.ImmersedShare, 0.0005);
        var heavy = new FloatMassLine(4, 0.3, "a sheet", pumped);
        Assert.Contains("cannot shut against a pump of", Judged(heavy, ("mass", "8.5")).DoNext.Text, StringComparison.Ordinal);
    }

    private static Judgement Judged(GaugeLine line, params (string, string)[] typed)
    {
        var read = line.Read(TypedReading.Of(typed));
        Assert.Empty(read.Problems);
        return line.Judge(read.Reading, PinSet.Empty);
    }

    [Theory]
    [InlineData("1.8", "seatFits")]
    [InlineData("0.8", "seatStarves")]
    [InlineData("12", "seatTooLarge")]
    public void A_seat_feeds_the_engine_and_can_be_shut_or_not(string bore, string finding) =>
        Assert.Equal(finding, Judged(new SeatBoreLine(Float, Float.Body!, new EngineSize(170, 3600), "a sheet"), ("bore", bore)).Finding);

    [Fact]
    public void The_least_seat_passes_just_what_the_engine_drinks_on_a_nearly_empty_tank_and_the_largest_is_just_shut()
    {
        var line = new SeatBoreLine(Float, Float.Body!, new EngineSize(170, 3600), "a sheet");
        Assert.Equal(
            line.DemandMLPerMin!.Value,
            SeatFlow.MLPerMin(line.LeastMm!.Value, FloatBalance.HeadKPa(75, FloatMass.PetrolGPerML), FloatMass.PetrolGPerML),
            1e-6
        );
        Assert.Equal(0.85, FloatStanding.Of(Float, 14, 4.0, null, line.MostMm)!.ImmersedShare, 1e-4);
        Assert.Null(new SeatBoreLine(Float, Float.Body!, null, "a sheet").LeastMm);
        // A two-stroke of the same size draws twice as often.
        Assert.Equal(2 * line.DemandMLPerMin.Value, (line with { TwoStroke = true }).DemandMLPerMin!.Value, 1e-9);
    }

    [Theory]
    [InlineData("15.9", "dropShort")]
    [InlineData("16.3", "cannotTell")]
    [InlineData("18", "dropEnough")]
    public void A_float_has_to_hang_so_far_that_the_needle_lets_all_of_the_bore_through(string drop, string finding)
    {
        // A quarter of 1.8 mm at the needle is 0.45 mm, five times that at the float: 14 + 2.25 = 16.25 mm.
        var line = new FloatDropLine(Float, 1.8, "a sheet");
        Assert.Equal(16.25, line.LeastMm, 1e-9);
        Assert.Equal(finding, Judged(line, ("drop", drop)).Finding);
        Assert.Equal(20, new FloatDropLine(Float with { DropMm = 20 }, null, "a sheet").LeastMm);
    }

    [Theory]
    [InlineData("2.0", "1.5", "gasketFits")]
    [InlineData("1.6", "1.6", "gasketThin")]
    [InlineData("3.0", "1.4", "gasketThick")]
    [InlineData("2.0", "1.78", "cannotTell")]
    public void A_gasket_is_squeezed_enough_and_not_too_much(string thick, string groove, string finding) =>
        Assert.Equal(finding, Judged(new BowlGasketLine(), ("thickness", thick), ("groove", groove)).Finding);
}
