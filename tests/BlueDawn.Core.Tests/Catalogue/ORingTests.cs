using BlueDawn.Core.Catalogue;
using CsCheck;

namespace BlueDawn.Core.Tests.Catalogue;

public class ORingTests
{
    /// <summary>
    /// Depths of static grooves for each section, thousandths of an inch, from memory of AS5857 and of what every handbook of
    /// seals prints: each squeezes its ring by what the limits here call good, and a groove a third deeper does not seal.
    /// </summary>
    [Theory]
    [InlineData("008", 50, 52)]
    [InlineData("110", 81, 83)]
    [InlineData("210", 111, 113)]
    public void Standard_static_grooves_lie_inside_the_squeeze_limits(string dash, int shallow, int deep)
    {
        var ring = ORing.As568[dash];
        foreach (var mils in (int[])[shallow, deep])
        {
            var squeeze = Squeeze.Of(ring, mils * 0.0254m, 0);
            Assert.InRange(squeeze.LeastPercent, Squeeze.FewestPercent, Squeeze.MaxPercent);
            Assert.InRange(squeeze.MostPercent, Squeeze.FewestPercent, Squeeze.MaxPercent);
        }

        Assert.True(Squeeze.Of(ring, deep * 0.0254m * 4 / 3, 0).Percent < Squeeze.FewestPercent);
    }

    /// <summary>
    /// Source: SAE AS568 as printed in O-ring handbooks, millimetres, from memory. The table itself is kept in inches;
    /// these rows were written down apart from it.
    /// </summary>
    [Theory]
    [InlineData("004", 1.78, 1.78)]
    [InlineData("006", 2.90, 1.78)]
    [InlineData("008", 4.47, 1.78)]
    [InlineData("010", 6.07, 1.78)]
    [InlineData("012", 9.25, 1.78)]
    [InlineData("014", 12.42, 1.78)]
    [InlineData("028", 34.65, 1.78)]
    [InlineData("110", 9.19, 2.62)]
    [InlineData("116", 18.72, 2.62)]
    [InlineData("210", 18.64, 3.53)]
    [InlineData("214", 24.99, 3.53)]
    [InlineData("222", 37.69, 3.53)]
    public void Sizes_agree_with_the_printed_table(string dash, double insideMm, double sectionMm)
    {
        var ring = ORing.As568[dash];
        Assert.Equal(
            (insideMm, sectionMm),
            (
                Math.Round((double)ring.InsideMm, 2, MidpointRounding.AwayFromZero),
                Math.Round((double)ring.SectionMm, 2, MidpointRounding.AwayFromZero)
            )
        );
    }

    /// <summary>
    /// How the standard is built, from memory: within a series the inside diameters follow nominal sizes in sixteenths
    /// of an inch less a fixed allowance (0.011, 0.013 and 0.016 in), rounded to thousandths.
    /// </summary>
    [Theory]
    [InlineData(10, 28, 4, 0.011)]
    [InlineData(109, 130, 5, 0.0135)]
    [InlineData(201, 222, 3, 0.0165)]
    public void Inside_diameters_follow_sixteenths_of_an_inch(int first, int last, int sixteenths, double allowance)
    {
        for (var dash = first; dash <= last; dash++)
        {
            var inch = (double)ORing.As568[dash.ToString("000")].InsideMm / 25.4;
            Assert.InRange(
                inch,
                (sixteenths + dash - first) / 16.0 - allowance - 0.0011,
                (sixteenths + dash - first) / 16.0 - allowance + 0.0011
            );
        }
    }

    /// <summary>Tolerances on the inside diameter as printed in O-ring handbooks, inches, from memory and written down apart from the
    /// table.</summary>
    [Theory]
    [InlineData("003", .004)]
    [InlineData("014", .005)]
    [InlineData("015", .007)]
    [InlineData("116", .009)]
    [InlineData("117", .010)]
    [InlineData("123", .012)]
    [InlineData("124", .012)]
    [InlineData("129", .015)]
    [InlineData("130", .015)]
    [InlineData("135", .017)]
    [InlineData("141", .020)]
    [InlineData("210", .010)]
    [InlineData("215", .010)]
    [InlineData("216", .012)]
    [InlineData("221", .012)]
    [InlineData("222", .015)]
    public void Inside_tolerances_agree_with_the_printed_table(string dash, double inch) =>
        Assert.Equal(inch, (double)ORing.As568[dash].InsideToleranceMm / 25.4, tolerance: 5e-7);

    /// <summary>How the standard is built: a larger ring of a series never has a closer tolerance.</summary>
    [Fact]
    public void Tolerances_never_fall_as_rings_grow()
    {
        foreach (var series in ORing.As568.Values.GroupBy(ring => ring.Dash![0]))
        {
            var rings = series.OrderBy(ring => ring.Dash).ToList();
            Assert.All(rings.Zip(rings.Skip(1)), pair =>
                Assert.True(pair.First.InsideToleranceMm <= pair.Second.InsideToleranceMm, pair.Second.Dash)
            );
        }

        Assert.Equal(
            [50, 77, 22],
            ORing.As568.Values.GroupBy(ring => ring.Dash![0]).OrderBy(series => series.Key).Select(series => series.Count())
        );
    }

    /// <summary>Source: ISO 3601-1:2012, class B, from memory: 9.25 × 1.78 is ± 0.18 and ± 0.08, 37.69 × 3.53 ± 0.39 and ± 0.10.</summary>
    [Theory]
    [InlineData("9,25 × 1,78", 0.18, 0.08)]
    [InlineData("18.72 × 2.62", 0.26, 0.09)]
    [InlineData("37.69 × 3.53", 0.39, 0.10)]
    public void A_metric_ring_has_the_tolerances_of_its_standard(string text, double inside, double section)
    {
        var ring = ORing.Parse(text).Value!;
        Assert.Equal((inside, section), ((double)ring.InsideToleranceMm, (double)ring.SectionToleranceMm));
    }

    [Fact]
    public void Within_a_series_each_ring_is_larger_than_the_one_before_and_has_the_same_section()
    {
        foreach (var series in ORing.As568.Values.GroupBy(ring => ring.Dash![0]))
        {
            var rings = series.OrderBy(ring => ring.Dash).Where(ring => int.Parse(ring.Dash!) > 3).ToList();
            Assert.All(rings.Zip(rings.Skip(1)), pair => Assert.True(pair.First.InsideMm < pair.Second.InsideMm));
            Assert.Single(rings.Select(ring => ring.SectionMm).Distinct());
        }
    }

    [Theory]
    [InlineData("AS568-008", "AS568-008")]
    [InlineData("as568 8", "AS568-008")]
    [InlineData("-008", "AS568-008")]
    [InlineData("6 × 1", "6 × 1 mm")]
    [InlineData("6x1mm", "6 × 1 mm")]
    [InlineData("4,47 × 1,78 mm", "4.47 × 1.78 mm")]
    public void Sizes_are_read_as_they_are_written(string text, string label) => Assert.Equal(label, ORing.Parse(text).Value!.Label);

    [Theory]
    [InlineData("AS568-999")]
    [InlineData("6")]
    [InlineData("0 × 1")]
    [InlineData("six by one")]
    [InlineData("")]
    public void What_is_no_size_says_what_to_write(string text) => Assert.NotNull(ORing.Parse(text).Problem);

    /// <summary>Worked by hand: (1.778 − 1.42) ÷ 1.778 = 20.1 %.</summary>
    [Fact]
    public void Squeeze_is_the_share_of_the_section_that_the_groove_takes_away() =>
        Assert.Equal(20.1, Squeeze.Of(ORing.As568["008"], 1.42m, 0).Percent, tolerance: 5e-2);

    [Fact]
    public void Tolerances_widen_the_squeeze_and_never_turn_it_round() =>
        Gen.Select(Gen.Int[50, 400], Gen.Int[10, 500], Gen.Int[0, 20])
            .Sample(
                (section, depth, tolerance) =>
                {
                    var ring = new ORing(10, section / 100m, 0, 0.02m, null);
                    var squeeze = Squeeze.Of(ring, depth / 100m, tolerance / 100m);
                    return squeeze.LeastPercent <= squeeze.Percent && squeeze.Percent <= squeeze.MostPercent && squeeze.MostPercent <= 100;
                }
            );

    [Fact]
    public void A_deeper_groove_squeezes_less() =>
        Gen.Select(Gen.Int[10, 300], Gen.Int[1, 100])
            .Sample(
                (depth, more) =>
                    Squeeze.Of(ORing.As568["110"], (depth + more) / 100m, 0).Percent
                    < Squeeze.Of(ORing.As568["110"], depth / 100m, 0).Percent
            );
}
