using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Tables;

namespace BlueDawn.Core.Tests.Catalogue;

public class CatalogueCsvTests
{
    private static List<CatalogueLine> Read(CatalogueFile file, string text) => [.. CatalogueCsv.Read(file, new StringReader(text))];

    [Fact]
    public void Features_are_put_into_their_one_written_form()
    {
        var line = Assert.Single(
            Read(
                CatalogueFile.Contents,
                "item,part,quantity,features\nK1,metering diaphragm,01,\"plate=toward the lever; outer=1.5 in;CENTRE=flat; centre=Stem\"\n"
            )
        );
        Assert.Contains("CENTRE", line.Problem, StringComparison.Ordinal);
        line = Assert.Single(
            Read(
                CatalogueFile.Contents,
                "item,part,quantity,features\nK1,metering diaphragm,01,\"plate=toward the lever; outer=1.5 in; centre=Stem\"\n"
            )
        );
        Assert.Null(line.Problem);
        Assert.Equal(["K1", "metering diaphragm", "1", "centre=stem; outer=38.1 mm; plate=toward the lever"], line.Cells);
    }

    [Theory]
    [InlineData(
        CatalogueFile.Items,
        "K1,kitt,Name,Maker",
        "kind “kitt” is not one of kit, part, assortment, maker's carburetor, pattern carburetor."
    )]
    [InlineData(CatalogueFile.Items, ",kit,Name,Maker", "number is empty.")]
    [InlineData(CatalogueFile.Contents, "K1,needle,0,", "quantity “0” is not a whole number from 1 to 9999.")]
    [InlineData(CatalogueFile.Contents, "K1,needle,1,tip=glass", "needle, tip: “glass” is not one of: rubber, metal.")]
    [InlineData(CatalogueFile.Contents, "K1,needle,1,colour=red", "“colour” is not a feature of a needle. There are tip, length, clip.")]
    [InlineData(CatalogueFile.Contents, "K1,needle,1,tip", "“tip” has no value. Write tip=value.")]
    [InlineData(CatalogueFile.Fits, "K1,plat,Ostrel,4107", "kind “plat” is neither stamp nor plate.")]
    [InlineData(CatalogueFile.Fits, "K1,stamp,Ostrel,---", "number “---” must have 1 to 40 letters and digits.")]
    [InlineData(CatalogueFile.Supersessions, "K1,K1,nothing", "An item cannot take its own place.")]
    [InlineData(CatalogueFile.Suppliers, "Northmole,4.905", "freight “4.905” is not an amount such as 12.50.")]
    [InlineData(CatalogueFile.Offers, "Northmole,K1,1,-3,2", "pack_price “-3” is not an amount such as 12.50.")]
    [InlineData(CatalogueFile.Offers, "Northmole,K1,1,3,900", "lead_days “900” is not a whole number from 0 to 365.")]
    public void A_wrong_row_says_what_is_wrong(CatalogueFile file, string row, string problem)
    {
        var line = Assert.Single(Read(file, string.Join(",", CatalogueCsv.Columns(file)) + "\n" + row + "\n"));
        Assert.Equal((2, problem), (line.Line, line.Problem));
    }

    [Fact]
    public void Columns_may_stand_in_any_order_and_others_between_them()
    {
        var line = Assert.Single(Read(CatalogueFile.Suppliers, "note,freight,supplier\nfast,4.9,Northmole Supply\n"));
        Assert.Equal(["Northmole Supply", "4.90"], line.Cells);
    }

    [Theory]
    [InlineData("supplier\nNorthmole\n", "The heading lacks freight.")]
    [InlineData("", "The file is empty.")]
    public void A_wrong_heading_ends_it_at_once(string text, string problem) =>
        Assert.StartsWith(problem, Assert.Single(Read(CatalogueFile.Suppliers, text)).Problem, StringComparison.Ordinal);

    [Fact]
    public void Lines_are_counted_as_an_editor_counts_them()
    {
        var lines = Read(CatalogueFile.Suppliers, "supplier,freight\n# a remark\nNorthmole,4\n\"Fair\nlead\",x\nQuay,1\n");
        Assert.Equal([3, 4, 6], lines.Select(line => line.Line));
        Assert.Equal([null, "freight “x” is not an amount such as 12.50.", null], lines.Select(line => line.Problem));
    }

    [Fact]
    public async Task What_is_written_is_read_again_as_it_was()
    {
        IReadOnlyList<string> row = ["GS-1", "O-ring", "4", "size=AS568-008"];
        using var writer = new StringWriter();
        await CsvOut.WriteAsync(
            CatalogueCsv.Columns(CatalogueFile.Contents),
            new[] { row, ["A,\"1\"", "seat", "1", ""] }.ToAsyncEnumerable(),
            writer,
            TestContext.Current.CancellationToken
        );
        Assert.Equal([row, ["A,\"1\"", "seat", "1", ""]], Read(CatalogueFile.Contents, writer.ToString()).Select(line => line.Cells));
    }

    [Theory]
    [InlineData("46", "46 mm")]
    [InlineData("46 ± 0.2 mm", "46 ± 0.2 mm")]
    [InlineData("1.8 +/- 0.01 in", "45.72 ± 0.254 mm")]
    [InlineData("46 mm ± 0.2 mm", "46 ± 0.2 mm")]
    public void Lengths_are_read_with_their_tolerance(string text, string written) =>
        Assert.Equal(written, FeatureValue.Parse(PartKnowledge.Shipped.Find("metering diaphragm", "outer")!, text).Value!.Text);

    [Theory]
    [InlineData("0")]
    [InlineData("46 ± 50 mm")]
    [InlineData("46 ± 1 ± 1")]
    [InlineData("5 m")]
    [InlineData("wide")]
    public void What_is_no_length_says_so(string text) =>
        Assert.NotNull(FeatureValue.Parse(PartKnowledge.Shipped.Find("metering diaphragm", "outer")!, text).Problem);

    [Fact]
    public void Bare_lengths_are_in_the_units_of_who_types_them() =>
        Assert.Equal("12.7 mm", FeatureValue.Parse(PartKnowledge.Shipped.Find("needle", "length")!, ".5", UnitSystem.Inch).Value!.Text);

    [Fact]
    public void Every_length_can_be_told_apart_from_how_far_a_reading_may_be_off() =>
        Assert.All(
            PartKnowledge
                .Shipped.Parts.SelectMany(part => part.Features)
                .Where(feature => feature.Kind is FeatureKind.Length or FeatureKind.Ring),
            feature => Assert.True(feature.ReadingMm < feature.ToleranceMm, $"{feature.Part}, {feature.Name}")
        );

    [Fact]
    public void Supersessions_are_followed_to_what_is_made_today_and_a_circle_ends()
    {
        Supersession Step(string old, string next) => new(old, next, "");
        var all = new[] { Step("1", "2"), Step("2", "3"), Step("a", "b"), Step("b", "a") }.ToDictionary(step => step.Old);
        Assert.Equal(["2", "3"], Supersessions.Follow("1", all).Select(step => step.New));
        Assert.Empty(Supersessions.Follow("3", all));
        Assert.Equal(["b"], Supersessions.Follow("a", all).Select(step => step.New));
    }
}
