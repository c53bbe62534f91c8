using BlueDawn.Core.Intake;
using CsCheck;

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

    /// <summary>A store finds by what is equal whatever is almost the same: one letter apart, or a part of it.</summary>
    [Fact]
    public void What_is_almost_the_same_shares_a_folding_or_is_a_part() =>
        Gen.Select(Gen.String[Gen.Char["aAbB -é1"], 3, 9], Gen.Int[0, 4], Gen.Int[0, 9], Gen.Char["abc"])
            .Sample(
                (name, change, place, letter) =>
                {
                    var at = Math.Min(place, name.Length - 1);
                    var other = change switch
                    {
                        0 => name.Remove(at, 1),
                        1 => name.Insert(at, $"{letter}"),
                        2 => name.Remove(at, 1).Insert(at, $"{letter}"),
                        3 => name + " of the harbour",
                        _ => name.ToUpperInvariant(),
                    };
                    var (a, b) = (Names.Folded(name), Names.Folded(other));
                    if (Names.IsAlmost(name, other))
                    {
                        Assert.True(
                            Names.Near(a).Intersect(Names.Near(b)).Any() || Names.Parts(a).Contains(b) || Names.Parts(b).Contains(a),
                            $"{a} and {b}"
                        );
                    }
                }
            );

    [Fact]
    public void A_name_without_letters_is_folded_to_itself_and_too_short_a_one_is_like_none()
    {
        Assert.Equal(("BOATÉLAN7", "—"), (Names.Folded(" boat-Élan 7 "), Names.Folded(" — ")));
        Assert.Equal(["ABCD", "BCD", "ACD", "ABD", "ABC"], Names.Near("ABCD"));
        Assert.Empty(Names.Near("ABC"));
        Assert.Equal(["ABCD", "BCDE"], Names.Parts("ABCDE"));
        Assert.Empty(Names.Parts("ABCD"));
    }
}
