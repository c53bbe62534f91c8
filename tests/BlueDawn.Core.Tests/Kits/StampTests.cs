using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Kits;
using CsCheck;

namespace BlueDawn.Core.Tests.Kits;

public class StampTests
{
    private static readonly Gen<string> Number = Gen.Char["0OD1IL5S8B2Z6G47-"]
        .Array[1, 8]
        .Select(chars => new string(chars))
        .Where(text => StampedNumber.Tidy(text).Length > 0);

    [Theory]
    [InlineData("4107", "4107", StampMatch.Exact)]
    [InlineData("4107-b", "4107 B", StampMatch.Exact)]
    [InlineData("41O7", "4107", StampMatch.Misread)]
    [InlineData("41Q7", "4107", StampMatch.Misread)]
    [InlineData("4I07-8", "4107-B", StampMatch.Misread)]
    [InlineData("5GZ", "S62", StampMatch.Misread)]
    [InlineData("4?07", "4107", StampMatch.Misread)]
    [InlineData("410", "4107", StampMatch.Part)]
    [InlineData("107", "4107", StampMatch.Part)]
    [InlineData("D38-22", "D38-2204", StampMatch.Part)]
    [InlineData("4108", "4107", StampMatch.Near)]
    [InlineData("417", "4107", StampMatch.Near)]
    [InlineData("44107", "4107", StampMatch.Near)]
    [InlineData("4", "4107", StampMatch.None)]
    [InlineData("????", "4107", StampMatch.None)]
    [InlineData("4??7", "9307", StampMatch.None)]
    [InlineData("9999", "4107", StampMatch.None)]
    [InlineData("", "4107", StampMatch.None)]
    public void Stamps_are_compared_the_way_they_are_read(string read, string onRecord, StampMatch match) =>
        Assert.Equal(match, Stamp.Compare(read, onRecord).Match);

    [Fact]
    public void The_characters_that_differ_are_pointed_at()
    {
        var reading = Stamp.Compare("D38-2?O4X", "D38-2204");
        Assert.Equal(
            [(0, CharacterMark.Same), (4, CharacterMark.Unreadable), (5, CharacterMark.LooksAlike), (7, CharacterMark.Extra)],
            reading
                .Characters.Select((character, place) => (place, character.Mark))
                .Where(pair => pair.place == 0 || pair.Mark != CharacterMark.Same)
        );
        Assert.Equal("D382204", string.Concat(reading.Characters.Select(character => character.OnRecord)));
        Assert.Equal("D382?O4X", string.Concat(reading.Characters.Select(character => character.Read)));
    }

    [Fact]
    public void The_surest_stands_first()
    {
        var ranked = Stamp.Rank("41O7", ["4187", "4107-B", "4107", "9-0415", "41O7"]);
        Assert.Equal(["41O7", "4107", "4107-B", "4187"], ranked.Select(reading => reading.OnRecord));
    }

    /// <summary>By hand from the weights, which are own judgement: look-alike 0.25, unreadable 0.3, missing at the end 0.3 and elsewhere
    /// 0.7, too many 0.8, another 1.</summary>
    [Theory]
    [InlineData("41O7", "4107", 0.25)]
    [InlineData("41?7", "4107", 0.3)]
    [InlineData("410", "4107", 0.3)]
    [InlineData("407", "4107", 0.7)]
    [InlineData("41077", "4107", 0.8)]
    [InlineData("4197", "4107", 1)]
    [InlineData("41O?", "4107", 0.55)]
    [InlineData("4I97", "4107", 1.25)]
    public void Worn_stamps_are_weighed_character_by_character(string read, string onRecord, double weight) =>
        Assert.Equal(weight, Stamp.Compare(read, onRecord).Weight, tolerance: 5e-10);

    /// <summary>Source: worked examples of the edit distance found in textbooks on string algorithms.</summary>
    [Theory]
    [InlineData("KITTEN", "SITTING", 3)]
    [InlineData("SATURDAY", "SUNDAY", 3)]
    [InlineData("FLAT", "LATE", 2)]
    [InlineData("INTENTION", "EXECUTION", 5)]
    public void With_even_weights_it_is_the_plain_edit_distance(string a, string b, double distance) =>
        Assert.Equal(distance, Stamp.Compare(a, b, StampWeights.Even).Weight);

    [Fact]
    public void With_even_weights_it_equals_the_recursive_definition() =>
        Gen.Select(Number, Number)
            .Sample((a, b) => Stamp.Compare(a, b, StampWeights.Even).Weight == Recursive(StampedNumber.Tidy(a), StampedNumber.Tidy(b)));

    [Fact]
    public void With_even_weights_it_is_a_metric() =>
        Gen.Select(Number, Number, Number)
            .Sample(
                (a, b, c) =>
                {
                    static double Between(string x, string y) => Stamp.Compare(x, y, StampWeights.Even).Weight;
                    Assert.Equal(Between(a, b), Between(b, a));
                    Assert.Equal(Between(a, b) == 0, StampedNumber.Tidy(a) == StampedNumber.Tidy(b));
                    Assert.True(Between(a, c) <= Between(a, b) + Between(b, c));
                }
            );

    [Fact]
    public void Weighed_it_is_never_more_than_plain_and_nothing_only_for_the_same() =>
        Gen.Select(Number, Number)
            .Sample(
                (a, b) =>
                {
                    var weighed = Stamp.Compare(a, b).Weight;
                    Assert.True(weighed <= Stamp.Compare(a, b, StampWeights.Even).Weight + 1e-9);
                    Assert.Equal(weighed == 0, StampedNumber.Tidy(a) == StampedNumber.Tidy(b));
                }
            );

    [Fact]
    public void Numbers_that_read_alike_fold_alike_and_are_a_misreading_of_each_other() =>
        Number
            .Where(text => StampedNumber.Tidy(text).Length >= 2)
            .Sample(text =>
            {
                var swapped = new string([
                    .. StampedNumber
                        .Tidy(text)
                        .Select(c => "0OD 1IL 5S 8B 2Z 6G".Split(' ').FirstOrDefault(set => set.Contains(c)) is { } set ? set[^1] : c),
                ]);
                Assert.Equal(Stamp.Fold(text), Stamp.Fold(swapped));
                Assert.Contains(Stamp.Compare(swapped, text).Match, (StampMatch[])[StampMatch.Exact, StampMatch.Misread]);
            });

    [Fact]
    public void Laid_side_by_side_no_character_is_lost() =>
        Gen.Select(Number, Number)
            .Sample(
                (a, b) =>
                {
                    var characters = Stamp.Compare(a, b).Characters;
                    Assert.Equal(StampedNumber.Tidy(a), string.Concat(characters.Select(character => character.Read)));
                    Assert.Equal(StampedNumber.Tidy(b), string.Concat(characters.Select(character => character.OnRecord)));
                }
            );

    private static int Recursive(string a, string b) =>
        a.Length == 0 ? b.Length
        : b.Length == 0 ? a.Length
        : a[0] == b[0] ? Recursive(a[1..], b[1..])
        : 1 + Math.Min(Recursive(a[1..], b), Math.Min(Recursive(a, b[1..]), Recursive(a[1..], b[1..])));
}
