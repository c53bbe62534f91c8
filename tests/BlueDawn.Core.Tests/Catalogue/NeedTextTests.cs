using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Tests.Trays;

namespace BlueDawn.Core.Tests.Catalogue;

/// <summary>The parts of a kit as they are typed on a sheet.</summary>
public sealed class NeedTextTests
{
    private static Parsed<IReadOnlyList<PartNeed>> Read(string text, UnitSystem units = UnitSystem.Metric) =>
        NeedText.Read(text, units, PartKnowledge.Shipped);

    [Fact]
    public void What_is_written_is_read_again_the_same()
    {
        Assert.NotEmpty(Sheets.Spec.Needs);
        Assert.Equivalent(Sheets.Spec.Needs, Read(NeedText.Write(Sheets.Spec.Needs)).Value, strict: true);
        Assert.Empty(Read(" \n\n").Value!);
    }

    [Theory]
    [InlineData("bowl gasket", 1)]
    [InlineData("Bowl Gasket: inner=52", 1)]
    [InlineData("3 bowl gasket", 3)]
    [InlineData("3 × bowl gasket : inner=52 mm; outer=57 mm", 3)]
    [InlineData("3x bowl gasket", 3)]
    [InlineData("3xbowl gasket", null)]
    [InlineData("3 x bowl gasket", 3)]
    public void A_line_says_how_many_of_what(string line, int? quantity)
    {
        var read = Read(line);
        Assert.Equal(quantity is not null, read.IsRight);
        if (quantity is { } many)
        {
            Assert.Equal(("bowl gasket", many), (Assert.Single(read.Value!).Part, read.Value![0].Quantity));
        }
    }

    [Fact]
    public void A_length_without_a_unit_is_in_the_units_of_who_types()
    {
        Assert.Equal("52 mm", Read("bowl gasket: inner=52").Value![0].Features["inner"]);
        Assert.Equal("50.8 mm", Read("bowl gasket: inner=2", UnitSystem.Inch).Value![0].Features["inner"]);
    }

    [Theory]
    [InlineData("bowl gasket\nflux capacitor", "Line 2: “flux capacitor” is no part of a kit. There are")]
    [InlineData("0 bowl gasket", "Line 1: from 1 to 99")]
    [InlineData("bowl gasket\n\nbowl gasket", "Line 3: bowl gasket is there twice")]
    [InlineData("bowl gasket: colour=red", "“colour” is not a feature of a bowl gasket")]
    [InlineData("needle: tip=glass", "“glass” is not one of")]
    [InlineData(": inner=2", "“” is no part of a kit")]
    public void What_cannot_be_read_is_said_with_its_line(string text, string says) =>
        Assert.Contains(says, Read(text).Problem, StringComparison.Ordinal);
}
