using System.Text.Json.Nodes;
using BlueDawn.Server.People;
using Json.Schema;
using NodaTime;

namespace BlueDawn.Server.Tests.OwnShop;

/// <summary>What the shop gives out and goes by, held against general-purpose libraries that know nothing of it.</summary>
public sealed class OpenFormatTests(Shop shop)
{
    /// <summary>The published schema, by JSON Schema 2020-12 as JsonSchema.Net checks it.</summary>
    [Fact]
    public async Task Every_sheet_of_the_demo_fits_the_published_schema_and_broken_ones_do_not()
    {
        var ilse = await shop.SignInAsync("ilse");
        var schema = JsonSchema.FromText((await ilse.GetAsync("/api/sheets/schema")).Body.ToString());
        var sheets = JsonNode.Parse((await ilse.GetAsync("/api/sheets/file")).Body.ToString())!.AsArray();
        Assert.True(sheets.Count > 10);
        Assert.All(sheets, sheet => Assert.True(schema.Evaluate(sheet).IsValid, sheet!.ToJsonString()));
        JsonObject Broken(Action<JsonObject> change)
        {
            var sheet = sheets.Select(one => one!.AsObject()).First(one => one["jets"]!.AsArray().Count > 0).DeepClone().AsObject();
            change(sheet);
            return sheet;
        }

        Assert.True(schema.Evaluate(Broken(_ => { })).IsValid);
        Assert.False(schema.Evaluate(Broken(sheet => sheet.Remove("code"))).IsValid);
        Assert.False(schema.Evaluate(Broken(sheet => sheet["family"] = "jetBoat")).IsValid);
        Assert.False(schema.Evaluate(Broken(sheet => sheet["jets"] = "none")).IsValid);
        Assert.False(schema.Evaluate(Broken(sheet => sheet["jets"]![0]!["boreMm"] = true)).IsValid);
        Assert.False(schema.Evaluate(JsonNode.Parse("[]")).IsValid);
    }

    /// <summary>The shop's day against NodaTime's own copy of the IANA time zone database, every three hours of 2000 to 2024.</summary>
    [Theory]
    [InlineData("Europe/Oslo")]
    [InlineData("Europe/Lisbon")]
    [InlineData("America/St_Johns")]
    [InlineData("America/Sao_Paulo")]
    [InlineData("Australia/Lord_Howe")]
    [InlineData("Asia/Kathmandu")]
    [InlineData("Pacific/Apia")] // skipped 30 December 2011
    [InlineData("Pacific/Kiritimati")]
    [InlineData("UTC")]
    public void Today_is_the_day_of_the_shops_zone(string zone)
    {
        var noda = DateTimeZoneProviders.Tzdb[zone];
        for (var at = new DateTimeOffset(2000, 1, 1, 0, 30, 0, TimeSpan.Zero); at.Year < 2025; at = at.AddHours(3))
        {
            var day = Instant.FromDateTimeOffset(at).InZone(noda).Date;
            Assert.Equal(new DateOnly(day.Year, day.Month, day.Day), new Fixed(at).Today(zone));
        }
    }

    private sealed class Fixed(DateTimeOffset at) : TimeProvider
    {
        public override DateTimeOffset GetUtcNow() => at;
    }
}
