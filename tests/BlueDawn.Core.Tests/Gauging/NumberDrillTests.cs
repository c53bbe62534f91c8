using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Tests.Gauging;

public class NumberDrillTests
{
    /// <summary>
    /// Source: the imperial drill gauge in the database of GNU Units 2.22 (definitions 3.15), which lists these sizes
    /// in inches and goes in straight lines between them; a general-purpose program, independent of our table.
    /// </summary>
    private static readonly (int Number, double Inch)[] Published =
    [
        (1, .2280),
        (2, .2210),
        (3, .2130),
        (4, .2090),
        (5, .2055),
        (6, .2040),
        (7, .2010),
        (8, .1990),
        (9, .1960),
        (10, .1935),
        (11, .1910),
        (12, .1890),
        (13, .1850),
        (14, .1820),
        (15, .1800),
        (16, .1770),
        (17, .1730),
        (18, .1695),
        (19, .1660),
        (20, .1610),
        (22, .1570),
        (23, .1540),
        (24, .1520),
        (25, .1495),
        (26, .1470),
        (27, .1440),
        (28, .1405),
        (29, .1360),
        (30, .1285),
        (31, .1200),
        (32, .1160),
        (33, .1130),
        (34, .1110),
        (35, .1100),
        (36, .1065),
        (38, .1015),
        (39, .0995),
        (40, .0980),
        (41, .0960),
        (42, .0935),
        (43, .0890),
        (44, .0860),
        (45, .0820),
        (46, .0810),
        (48, .0760),
        (51, .0670),
        (52, .0635),
        (53, .0595),
        (54, .0550),
        (55, .0520),
        (56, .0465),
        (57, .0430),
        (65, .0350),
        (66, .0330),
        (68, .0310),
        (69, .0292),
        (70, .0280),
        (71, .0260),
        (73, .0240),
        (74, .0225),
        (75, .0210),
        (76, .0200),
        (78, .0160),
        (79, .0145),
        (80, .0135),
        (88, .0095),
        (104, .0031),
    ];

    [Fact]
    public void Every_drill_agrees_with_the_published_gauge()
    {
        foreach (var drill in NumberDrills.All)
        {
            var below = Published.Last(row => row.Number <= drill.Number);
            var above = Published.First(row => row.Number >= drill.Number);
            var inch =
                below.Number == above.Number
                    ? below.Inch
                    : below.Inch + ((above.Inch - below.Inch) * (drill.Number - below.Number) / (above.Number - below.Number));
            Assert.Equal(inch, (double)drill.DiameterIn, 4);
        }
    }

    /// <summary>
    /// Letter drills as tap drills: a thread of 75 per cent engagement leaves a core of D − 0.75 × 1.299 ÷ n (Unified thread
    /// form, ASME B1.1), and workshop tables name these letters for it (from memory).
    /// </summary>
    [Theory]
    [InlineData('F', 5.0 / 16, 18)]
    [InlineData('I', 5.0 / 16, 24)]
    [InlineData('Q', 3.0 / 8, 24)]
    [InlineData('U', 7.0 / 16, 14)]
    public void Letter_drills_are_the_tap_drills_they_are_known_as(char letter, double threadIn, int perInch) =>
        Assert.Equal(threadIn - (0.75 * 1.299 / perInch), (double)LetterDrills.Find(letter)!.DiameterIn, 0.0025);

    [Fact]
    public void Letter_drills_go_on_where_the_numbers_end_and_E_is_a_quarter_inch()
    {
        Assert.Equal("ABCDEFGHIJKLMNOPQRSTUVWXYZ", string.Concat(LetterDrills.All.Select(drill => drill.Letter)));
        Assert.All(LetterDrills.All.Zip(LetterDrills.All.Skip(1)), pair => Assert.True(pair.First.DiameterIn < pair.Second.DiameterIn));
        Assert.True(LetterDrills.All[0].DiameterIn > NumberDrills.All[0].DiameterIn);
        Assert.Equal(0.25m, LetterDrills.Find('e')!.DiameterIn);
    }

    [Fact]
    public void There_are_97_and_each_is_smaller_than_the_one_before()
    {
        Assert.Equal(Enumerable.Range(1, 97), NumberDrills.All.Select(drill => drill.Number));
        Assert.All(NumberDrills.All.Zip(NumberDrills.All.Skip(1)), pair => Assert.True(pair.First.DiameterIn > pair.Second.DiameterIn));
    }

    [Theory]
    [InlineData(0.33, 81)] // an idle jet near 0.013 in, 0.33 mm: common practice, no source
    [InlineData(0.7112, 70)]
    [InlineData(100, 1)]
    [InlineData(0.01, 97)]
    public void Nearest_finds_the_closest_in_diameter(double mm, int number) =>
        Assert.Equal(number, NumberDrills.Nearest((decimal)mm).Number);

    [Fact]
    public void Of_two_equally_near_the_smaller_is_named()
    {
        var between = (NumberDrills.Find(80)!.DiameterMm + NumberDrills.Find(81)!.DiameterMm) / 2;
        Assert.Equal(81, NumberDrills.Nearest(between).Number);
    }

    [Theory]
    [InlineData(0)]
    [InlineData(98)]
    public void There_is_no_drill_outside_the_table(int number) => Assert.Null(NumberDrills.Find(number));

    /// <summary>Source: ASTM B258 tabulated diameters in mils (36: 5.0, 30: 10.03, 24: 20.1, 20: 32.0, 10: 101.9), from memory.</summary>
    [Theory]
    [InlineData(36, 5.0, 0.0001)]
    [InlineData(30, 10.03, 0.01)]
    [InlineData(24, 20.1, 0.05)]
    [InlineData(20, 32.0, 0.05)]
    [InlineData(10, 101.9, 0.05)]
    [InlineData(40, 3.145, 0.005)]
    public void Wire_gauge_agrees_with_the_standard(int gauge, double mils, double within) =>
        Assert.Equal(mils * 0.0254, WireGauge.DiameterMm(gauge), within * 0.0254);

    [Fact]
    public void The_strand_for_a_bore_is_never_thicker_than_the_bore()
    {
        for (var mm = 0.06m; mm < 2m; mm += 0.01m)
        {
            var gauge = WireGauge.ThickestWithin(mm);
            Assert.NotNull(gauge);
            Assert.True(WireGauge.DiameterMm(gauge.Value) <= (double)mm);
            Assert.True(gauge == 10 || WireGauge.DiameterMm(gauge.Value - 1) > (double)mm, "a thicker one would have fitted");
        }

        Assert.Null(WireGauge.ThickestWithin(0.04m));
        Assert.Throws<ArgumentOutOfRangeException>(() => WireGauge.DiameterMm(45));
    }
}
