using System.Text.Json;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Tests.Trays;
using BlueDawn.Core.Trays;

namespace BlueDawn.Core.Tests.Carburetors;

/// <summary>Spec sheets as a table: what goes out comes in the same; a column that is not there changes nothing.</summary>
public sealed class SheetCsvTests
{
    private static readonly SpecSheet Whole = Sheets.Spec with
    {
        Code = "FB18",
        Maker = "Ost, \"rel\"",
        EmulsionRows = [new EmulsionRowSpec(1, 4, 0.6m, 0.02m, 5), new EmulsionRowSpec(2, 2, 0.75m, 0.03m, 9.5m)],
        Screws = [new ScrewSpec("idle-needle", 1.25)],
    };

    private static async Task<string> WrittenAsync(params SpecSheet[] sheets)
    {
        using var writer = new StringWriter();
        await Core.Tables.CsvOut.WriteAsync(
            SheetCsv.Columns,
            sheets.Select(SheetCsv.Write).ToAsyncEnumerable(),
            writer,
            TestContext.Current.CancellationToken
        );
        return writer.ToString();
    }

    private static List<SheetRow> Read(string text, bool decimalComma = false, params SpecSheet[] onFile) =>
        [.. SheetCsv.Read(new StringReader(text), decimalComma, code => onFile.FirstOrDefault(sheet => sheet.Code == code))];

    [Fact]
    public async Task What_goes_out_comes_in_again_the_same()
    {
        var row = Assert.Single(Read(await WrittenAsync(Whole), onFile: Whole));
        Assert.Empty(row.Read.Problems);
        Assert.Equivalent(Whole with { Issue = Whole.Issue + 1 }, row.Read.Sheet, strict: true);
        // To a shop that has nothing of it, it brings what has a column.
        var alone = Assert.Single(Read(await WrittenAsync(Whole))).Read.Sheet;
        Assert.Equivalent(Whole.Jets, alone.Jets);
        Assert.Equivalent(Whole.EmulsionRows, alone.EmulsionRows);
        Assert.Empty(alone.Screws ?? []);
    }

    [Fact]
    public void The_demos_sheets_can_all_be_put_on_file_and_go_through_a_table()
    {
        var sheets = JsonSerializer.Deserialize<List<SpecSheet>>(
            File.ReadAllText(Path.Combine(Repository.Root, "data/demo/spec-sheets.json")),
            CoreJson.Options
        )!;
        Assert.NotEmpty(sheets);
        Assert.All(sheets, sheet =>
        {
            Assert.Empty(SheetCheck.Problems(sheet));
            var row = Assert.Single(
                Read(string.Join("\t", SheetCsv.Columns) + "\n" + string.Join("\t", SheetCsv.Write(sheet)), onFile: sheet)
            );
            Assert.Empty(row.Read.Problems);
            Assert.True(JsonElement.DeepEquals(Said(sheet), Said(row.Read.Sheet)), $"{Said(sheet)}\n{Said(row.Read.Sheet)}");
        });
    }

    private static JsonElement Said(SpecSheet sheet) => JsonSerializer.SerializeToElement(sheet with { Issue = 0 }, CoreJson.Options);

    [Fact]
    public void A_column_that_is_not_there_leaves_what_is_on_file_and_an_empty_cell_says_not_known()
    {
        var kept = Assert.Single(Read("code,source\nFB18,measured again\n", onFile: Whole)).Read;
        Assert.Empty(kept.Problems);
        Assert.Equivalent(Whole with { Source = "measured again", Issue = Whole.Issue + 1 }, kept.Sheet, strict: true);
        var gone = Assert.Single(Read("code,idleSpeed.lowRpm,idleSpeed.highRpm\nFB18,,\n", onFile: Whole)).Read;
        Assert.NotNull(Whole.IdleSpeed);
        Assert.Null(gone.Sheet.IdleSpeed);
        Assert.Equivalent(Whole.Jets, gone.Sheet.Jets);
    }

    [Theory]
    [InlineData("code,family\nNEW-1,\n", "family", "Say which it is")]
    [InlineData("code,family\nNEW-1,carburetor\n", "family", "not one of floatBowl, diaphragm, suctionTank")]
    [InlineData("code,family\nNEW-1,2\n", "family", "not one of")]
    [InlineData("code,family,source,jets\nNEW-1,float bowl,here,Main jet 0.72\n", "jets", "not written like Main jet = 0.72 ± 0.015")]
    [InlineData("code,family,source,jets\nNEW-1,float bowl,here,Main jet = wide\n", "jets[0].boreMm", "not a number")]
    [InlineData("code,family,source,jets\nNEW-1,float bowl,here,\"Main jet = 0,72\"\n", "jets", "decimal comma")]
    [InlineData("maker\nOstrel\n", "line 1", "The heading lacks code")]
    public void What_is_wrong_is_said_at_its_column(string text, string field, string says)
    {
        var row = Assert.Single(Read(text));
        Assert.Contains(row.Read.Problems, problem => problem.Field == field && problem.Message.Contains(says, StringComparison.Ordinal));
    }
}
