using BlueDawn.Core.Measures;
using BlueDawn.Core.Shop;

namespace BlueDawn.Core.Tests.Shop;

/// <summary>The shop's baths as a lead types them.</summary>
public sealed class BathFormTests
{
    private static readonly Bath Heated = new("heated", "Heated bath", Vessel.Heated, 3, 20, 25);
    private static readonly TypedBath Typed = new("heated", "Heated bath", Vessel.Heated, "3", "20", "25");

    private static (IReadOnlyList<Bath> Baths, IReadOnlyList<FieldProblem> Problems) Read(
        TypedBath[] typed,
        UnitSystem units = UnitSystem.Metric,
        params BathInUse[] inUse
    ) => BathForm.Read(typed, units, [Heated], inUse);

    [Fact]
    public void What_is_typed_is_read_in_the_units_of_who_types_and_a_new_one_gets_a_key_of_its_own()
    {
        var (baths, problems) = Read(
            [
                Typed with
                {
                    Room = "68",
                    TimeConstant = "30",
                },
                new(null, "Heated!", Vessel.Tub, "2", "59", "60"),
                new(null, "Yard tub", Vessel.Tub, "1", "41 F", "60"),
            ],
            UnitSystem.Inch
        );
        Assert.Empty(problems);
        Assert.Equal(["heated", "heated-2", "yard-tub"], baths.Select(bath => bath.Key));
        Assert.Equal(20, baths[0].RoomC, 1e-9); // 68 °F
        Assert.Equal(30, baths[0].TimeConstantMin, 1e-9);
        Assert.Equal(5, baths[2].RoomC, 1e-9);
    }

    [Theory]
    [InlineData("", "3", "20", "25", "baths[0].label", "Write what it is called")]
    [InlineData("Bath", "2.5", "20", "25", "baths[0].baskets", "whole number")]
    [InlineData("Bath", "0", "20", "25", "baths[0].baskets", "From 1 to 24")]
    [InlineData("Bath", "three", "20", "25", "baths[0].baskets", "not a number")]
    [InlineData("Bath", "3", "200", "25", "baths[0].room", "From -20 to 50 °C")]
    [InlineData("Bath", "3", "20", "0", "baths[0].timeConstant", "From 1 to 1000 min")]
    public void What_cannot_be_is_said_at_its_box(string label, string baskets, string room, string time, string field, string says) =>
        Assert.Contains(Read([new("heated", label, Vessel.Heated, baskets, room, time)]).Problems, problem =>
            problem.Field == field && problem.Message.Contains(says, StringComparison.Ordinal)
        );

    [Fact]
    public void A_bath_with_something_in_it_stays_and_keeps_that_basket()
    {
        var used = new BathInUse("heated", [1, 3]);
        Assert.Contains("Heated bath: something is in it", Assert.Single(Read([], inUse: used).Problems).Message, StringComparison.Ordinal);
        Assert.Equal("baths[0].baskets", Assert.Single(Read([Typed with { Baskets = "2" }], inUse: used).Problems).Field);
        Assert.Equal("baths[0].vessel", Assert.Single(Read([Typed with { Vessel = Vessel.Tub }], inUse: used).Problems).Field);
        Assert.Empty(Read([Typed with { Baskets = "4" }], inUse: used).Problems);
        Assert.Empty(Read([]).Baths);
    }

    [Fact]
    public void Two_of_one_name_and_one_that_is_gone_are_refused()
    {
        Assert.Equal("baths[1].label", Assert.Single(Read([Typed, Typed with { Key = null, Label = "heated BATH " }]).Problems).Field);
        Assert.Contains(
            "not there any more",
            Assert.Single(Read([Typed with { Key = "gone" }]).Problems).Message,
            StringComparison.Ordinal
        );
    }
}
