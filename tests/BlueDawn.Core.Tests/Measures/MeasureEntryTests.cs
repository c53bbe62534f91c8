using BlueDawn.Core.Measures;
using CsCheck;

namespace BlueDawn.Core.Tests.Measures;

public class MeasureEntryTests
{
    /// <summary>Source: 1 in = 25.4 mm exactly (international yard and pound agreement, 1959); #70 is 0.0280 in (ASME B94.11M).</summary>
    [Theory]
    [InlineData("-0.0")]
    [InlineData("−0")]
    [InlineData("-0 in")]
    public void Nought_below_is_nought(string typed)
    {
        var read = MeasureEntry.Parse(typed, Dimension.Length);
        Assert.True(read.IsRight);
        Assert.Equal((0.0, false), ((double)read.Value, double.IsNegative((double)read.Value)));
    }

    [Theory]
    [InlineData("0.65", "0.65")]
    [InlineData(" 0,65 MM ", "0.65")]
    [InlineData(".0135 in", "0.3429")]
    [InlineData("0.0135\"", "0.3429")]
    [InlineData("13.5 thou", "0.3429")]
    [InlineData("#70", "0.7112")]
    [InlineData("No. 70", "0.7112")]
    [InlineData("drill 70", "0.7112")]
    [InlineData("1/32 in", "0.79375")]
    [InlineData("330 \u00B5m", "0.33")]
    [InlineData("330 \u03BCm", "0.33")]
    [InlineData("½ in", "12.7")]
    [InlineData("1½ in", "38.1")]
    [InlineData("1 1/8 in", "28.575")]
    [InlineData("⅜\"", "9.525")]
    [InlineData("F", "6.5278")]
    [InlineData("letter z", "10.4902")]
    [InlineData("drill A", "5.9436")]
    [InlineData("0,650", "0.65")]
    [InlineData(",650", "0.65")]
    [InlineData("12,7000", "12.7")]
    public void Lengths_read_as_they_are_written_at_the_bench(string text, string mm) =>
        Assert.Equal(decimal.Parse(mm), MeasureEntry.Parse(text, Dimension.Length).Value);

    /// <summary>A comma before exactly three digits is a thousand to one and a decimal to another: asked, never guessed.</summary>
    [Theory]
    [InlineData("3,200", Dimension.Speed)]
    [InlineData("1,000 rpm", Dimension.Speed)]
    [InlineData("-12,500", Dimension.Length)]
    public void An_ambiguous_comma_is_asked_about(string text, Dimension dimension)
    {
        var parsed = MeasureEntry.Parse(text, dimension);
        Assert.False(parsed.IsRight);
        Assert.Contains(text.Split(' ')[0].Replace(",", ""), parsed.Problem, StringComparison.Ordinal);
        Assert.Contains(text.Split(' ')[0].Replace(',', '.'), parsed.Problem, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("1:30 min", Dimension.Time, "90")]
    [InlineData("1:30", Dimension.Time, "90")]
    [InlineData("1:30", Dimension.Minutes, "1.5")]
    [InlineData("0:05", Dimension.Time, "5")]
    public void Minutes_and_seconds_are_read_as_a_clock_shows_them(string text, Dimension dimension, string value) =>
        Assert.Equal(decimal.Parse(value), MeasureEntry.Parse(text, dimension).Value);

    /// <summary>Source: NIST SP 811, appendix B.8: conventional inch of mercury 3.386 389 kPa, of water 249.0889 Pa, from memory.</summary>
    [Fact]
    public void Columns_of_mercury_and_water_are_pressures()
    {
        Assert.Equal(10.159167m, MeasureEntry.Parse("3 inHg", Dimension.Pressure).Value);
        Assert.Equal(2.490889m, MeasureEntry.Parse("10 inH2O", Dimension.Pressure).Value);
    }

    [Fact]
    public void A_bare_number_is_in_the_users_units_and_a_unit_always_wins()
    {
        Assert.Equal(0.3302m, MeasureEntry.Parse(".013", Dimension.Length, UnitSystem.Inch).Value);
        Assert.Equal(0.33m, MeasureEntry.Parse("0.33 mm", Dimension.Length, UnitSystem.Inch).Value);
        Assert.Equal(48m, MeasureEntry.Parse("48 kPa", Dimension.Pressure, UnitSystem.Inch).Value);
    }

    /// <summary>Source: NIST SP 811 appendix B: 1 psi = 6.894 757 E+00 kPa, 1 oz (avoirdupois) = 28.349 52 g, from memory.</summary>
    [Fact]
    public void Pressure_and_mass_factors_are_the_published_ones()
    {
        Assert.Equal(6.894757, (double)MeasureEntry.Parse("1 psi", Dimension.Pressure).Value, tolerance: 5e-7);
        Assert.Equal(48.2633, (double)MeasureEntry.Parse("7 psi", Dimension.Pressure).Value, tolerance: 5e-5);
        Assert.Equal(28.34952, (double)MeasureEntry.Parse("1 oz", Dimension.Mass).Value, tolerance: 5e-6);
        Assert.Equal(0.45359237 * 9.80665 / (25.4e-3 * 25.4e-3) / 1000, (double)MeasureEntry.KPaPerPsi, tolerance: 5e-13);
    }

    [Theory]
    [InlineData("", Dimension.Length)]
    [InlineData("abc", Dimension.Length)]
    [InlineData("1.2.3", Dimension.Length)]
    [InlineData("1,234,567", Dimension.Length)]
    [InlineData("1:75", Dimension.Time)]
    [InlineData("1:30", Dimension.Length)]
    [InlineData("F", Dimension.Pressure)]
    [InlineData("5 parsecs", Dimension.Length)]
    [InlineData("5 psi", Dimension.Length)]
    [InlineData("5 mm", Dimension.Pressure)]
    [InlineData("#98", Dimension.Length)]
    [InlineData("1/0 in", Dimension.Length)]
    [InlineData("1e9", Dimension.Length)]
    [InlineData("99999999999", Dimension.Length)]
    [InlineData("0.000000000000000000000000000000000000000000001", Dimension.Length)]
    [InlineData("#70", Dimension.Pressure)]
    public void What_is_no_reading_gets_a_message_and_no_value(string text, Dimension dimension)
    {
        var parsed = MeasureEntry.Parse(text, dimension);
        Assert.False(parsed.IsRight);
        Assert.False(string.IsNullOrWhiteSpace(parsed.Problem));
    }

    [Fact]
    public void Any_size_survives_the_way_through_inches() =>
        Gen.Int[1, 100_000]
            .Sample(n =>
            {
                var mm = n / 10_000m * 25.4m;
                Assert.Equal(mm, MeasureEntry.Parse($"{n / 10_000m} in", Dimension.Length).Value);
                Assert.Equal(mm, MeasureEntry.Parse($"{n / 10m} thou", Dimension.Length).Value);
            });

    [Fact]
    public void No_text_makes_it_throw() =>
        Gen.Select(Gen.String, Gen.Enum<Dimension>())
            .Sample(
                (text, dimension) =>
                {
                    var parsed = MeasureEntry.Parse(text, dimension);
                    Assert.True(parsed.IsRight || parsed.Problem!.Length > 0);
                }
            );

    [Fact]
    public void A_sentence_writes_its_numbers_in_their_places() =>
        Assert.Equal(
            "Bend 0.4 mm, leave 12 s, try #81.",
            Sentence.Of("Bend {0}, leave {1}, try {2}.", Quantity.Mm(0.4), Quantity.S(12), Quantity.Mm(0.3302, "#81")).ToString()
        );
}
