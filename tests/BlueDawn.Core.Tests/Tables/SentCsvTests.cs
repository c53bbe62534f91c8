using BlueDawn.Core.Tables;

namespace BlueDawn.Core.Tests.Tables;

/// <summary>Files as spreadsheets write them: RFC 4180, and what departs from it in practice (no source, from memory).</summary>
public sealed class SentCsvTests
{
    private static readonly string[] Columns = ["item", "pack_price", "features"];

    private static List<SentRow> Read(string text) => [.. SentCsv.Read(new StringReader(text), Columns, ["item", "pack_price"])];

    [Theory]
    [InlineData("item,pack_price,features\nK1,2.5,\"a=1; b=2; c=3; d=4\"\n")]
    [InlineData("\uFEFFItem;Pack Price;FEATURES\r\nK1;2.5;\"a=1; b=2; c=3; d=4\"\r\n")]
    [InlineData("features\tnote\tPACK-PRICE\titem\r\na=1; b=2; c=3; d=4\tgood, cheap\t2.5\tK1\r\n")]
    [InlineData("# a remark; with; semicolons; in; it\n\"item\",\"pack_price\",\"features\"\n\"K1\",\"2.5\",\"a=1; b=2; c=3; d=4\"\n,,\n")]
    public void One_row_in_whatever_writing_says_the_same(string text)
    {
        var row = Assert.Single(Read(text));
        Assert.Null(row.Problem);
        Assert.Equal(["K1", "2.5", "a=1; b=2; c=3; d=4"], row.Cells);
    }

    [Fact]
    public void A_column_that_is_not_there_is_told_from_an_empty_cell()
    {
        Assert.Equal(["K1", "2", null], Assert.Single(Read("item,pack_price\nK1,2\n")).Cells);
        Assert.Equal(["K1", "2", ""], Assert.Single(Read("item,pack_price,features\nK1,2,\n")).Cells);
        Assert.Equal("The heading lacks pack_price. It must have: item,pack_price", Assert.Single(Read("item;features\nK1;2\n")).Problem);
    }

    [Fact]
    public void Letters_that_were_lost_on_the_way_are_named() =>
        Assert.Contains("UTF-8", Assert.Single(Read("item,pack_price\nD\uFFFDse,2\n")).Problem, StringComparison.Ordinal);

    [Theory]
    [InlineData("14,50", false, null)]
    [InlineData("14,50", true, "14.50")]
    [InlineData("1,450", true, "1.450")]
    [InlineData("Main jet = 0,72 ± 0,015", true, "Main jet = 0.72 ± 0.015")]
    [InlineData("14.50", false, "14.50")]
    [InlineData("made of=brass, red", false, "made of=brass, red")]
    [InlineData("1,000,000", false, "1,000,000")] // grouped thousands are no decimal comma: refused further on as no number
    public void A_comma_in_a_number_is_read_when_somebody_has_said_what_it_means(string cell, bool said, string? read) =>
        Assert.Equal(read, SentCsv.WithComma(cell, said));
}
