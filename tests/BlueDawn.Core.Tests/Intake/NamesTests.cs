using BlueDawn.Core.Intake;

namespace BlueDawn.Core.Tests.Intake;

/// <summary>One boat however it is written; what is almost the same is asked about.</summary>
public class NamesTests
{
    [Theory]
    [InlineData("Boat Kittiwake", "boat  kittiwake", true, false)]
    [InlineData("Bow-winch", "BOW WINCH", true, false)]
    [InlineData("Boat Marrowby Lass", "Marrowby Lass", false, true)] // a part of the other
    [InlineData("Fenna’s Fry", "Fennas Fri", false, true)] // one letter other
    [InlineData("Deck pump", "Deck pumps", false, true)] // one letter more
    [InlineData("Deck pump", "Deck pomps", false, false)] // two letters
    [InlineData("Boat Petrel", "Boat Lantern", false, false)]
    [InlineData("Ada", "Ida", false, false)] // too short to say
    [InlineData("!", "?", false, false)]
    [InlineData("—", "—", true, false)]
    public void Two_names_are_one_or_almost_or_neither(string one, string other, bool same, bool almost)
    {
        Assert.Equal((same, almost), (Names.IsSame(one, other), Names.IsAlmost(one, other)));
        Assert.Equal((same, almost), (Names.IsSame(other, one), Names.IsAlmost(other, one)));
    }
}
