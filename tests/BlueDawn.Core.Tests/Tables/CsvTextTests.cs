using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Tables;

namespace BlueDawn.Core.Tests.Tables;

/// <summary>The characters are those OWASP names under "CSV Injection": = + - @, tab and carriage return.</summary>
public class CsvTextTests
{
    [Theory]
    [InlineData("=HYPERLINK(\"x\")", "'=HYPERLINK(\"x\")")]
    [InlineData("+44 20 7946", "'+44 20 7946")]
    [InlineData("-cmd", "'-cmd")]
    [InlineData("@sum", "'@sum")]
    [InlineData("\tx", "'\tx")]
    [InlineData("-0.5", "-0.5")] // a number stays one
    [InlineData("+3", "+3")]
    [InlineData("Float kit", "Float kit")]
    [InlineData("'tis", "'tis")]
    [InlineData("'=1", "''=1")]
    [InlineData("", "")]
    public void A_cell_is_no_formula_and_comes_back_as_it_was(string cell, string written)
    {
        Assert.Equal(written, CsvText.Guard(cell));
        Assert.Equal(cell, CsvText.Unguard(written));
    }

    [Fact]
    public async Task A_catalogue_goes_out_and_comes_back_with_it()
    {
        using var text = new StringWriter();
        static async IAsyncEnumerable<IReadOnlyList<string>> Rows()
        {
            await Task.Yield();
            yield return ["=A1", "kit", "+Spring kit", "@Dornay"];
        }

        await CsvOut.WriteAsync(CatalogueCsv.Columns(CatalogueFile.Items), Rows(), text, TestContext.Current.CancellationToken);
        Assert.DoesNotContain(",+", text.ToString(), StringComparison.Ordinal);
        Assert.Equal(
            ["=A1", "kit", "+Spring kit", "@Dornay"],
            Assert.Single(CatalogueCsv.Read(CatalogueFile.Items, new StringReader(text.ToString()))).Cells
        );
    }
}
