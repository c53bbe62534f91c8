using BlueDawn.Core.Kits;
using BlueDawn.Core.Tests.Worksheets;

namespace BlueDawn.Core.Tests.Kits;

public class KitFitTests
{
    private static KitPart Part(string part, int quantity, params (string, string)[] features) =>
        new(part, quantity, features.ToDictionary(f => f.Item1, f => f.Item2));

    private static KitContents Kit(string[] listed, params KitPart[] parts) => new("K1", "Kit", "Varnby", listed, parts);

    private static readonly KitPart[] Right =
        [Part("bowl gasket", 1, ("thickness", "1.5 mm")), Part("needle", 1, ("tip", "rubber")), Part("O-ring", 2)];

    [Fact]
    public void A_kit_with_every_part_as_needed_fits()
    {
        var fit = KitFit.Of(Kit(["4107"], Right), Sheets.Spec, "4107")!;
        Assert.Equal((FitVerdict.Fits, StampMatch.Exact), (fit.Verdict, fit.Stamp));
        Assert.All(fit.Parts, part => Assert.True(part.Agrees));
    }

    [Fact]
    public void A_listed_kit_with_one_wrong_part_is_a_near_miss_and_says_which()
    {
        var fit = KitFit.Of(Kit(["4107"], Part("bowl gasket", 1, ("thickness", "1.0 mm")), Right[1], Right[2]), Sheets.Spec, "4107")!;
        Assert.Equal(FitVerdict.NearMiss, fit.Verdict);
        Assert.Equal("Listed for this stamped number. Wrong: bowl gasket thickness 1.0 mm, needs 1.5 mm.", fit.Reason);
    }

    [Fact]
    public void A_kit_that_brings_too_little_fits_partly()
    {
        var fit = KitFit.Of(Kit(["4107"], Right[0], Right[1], Part("O-ring", 1)), Sheets.Spec, null)!;
        Assert.Equal(FitVerdict.Partly, fit.Verdict);
        Assert.Contains("1 of 2 O-ring", Assert.Single(fit.Parts, part => !part.Agrees).Note, StringComparison.Ordinal);
    }

    [Fact]
    public void A_kit_for_something_else_is_not_offered() =>
        Assert.Null(KitFit.Of(Kit(["9000"], Part("bowl gasket", 1, ("thickness", "3 mm"))), Sheets.Spec, "4107"));

    [Theory]
    [InlineData("4107", "4107", StampMatch.Exact)]
    [InlineData("4107-b", "4107 B", StampMatch.Exact)]
    [InlineData("41O7", "4107", StampMatch.Misread)]
    [InlineData("4I07-8", "4107-B", StampMatch.Misread)]
    [InlineData("5GZ", "S62", StampMatch.Misread)]
    [InlineData("410", "4107", StampMatch.Part)]
    [InlineData("4", "4107", StampMatch.None)]
    [InlineData("4108", "4107", StampMatch.None)]
    [InlineData("", "4107", StampMatch.None)]
    public void Stamps_are_compared_the_way_they_are_read(string read, string onRecord, StampMatch match) =>
        Assert.Equal(match, StampedNumber.Compare(read, onRecord));
}
