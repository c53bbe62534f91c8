namespace BlueDawn.Server.Tests.Intake;

/// <summary>One box for everything with a name or a number.</summary>
public sealed class FindTests(Shop shop)
{
    [Theory]
    [InlineData("4107b", "sheets", "code", "FB18")]
    [InlineData("OK-207", "items", "number", "OK-207")]
    [InlineData("ok-20", "items", "number", "OK-207")]
    public async Task What_stands_on_it_finds_it(string text, string kind, string field, string expected)
    {
        var jory = await shop.SignInAsync("jory");
        var found = (await jory.GetAsync($"/api/find?text={Uri.EscapeDataString(text)}")).Body.GetProperty(kind);
        Assert.Contains(expected, found.EnumerateArray().Select(one => one.GetProperty(field).GetString()));
    }

    [Fact]
    public async Task A_tray_is_found_by_number_stamp_and_telephone_however_they_are_written_and_signs_are_signs()
    {
        var jory = await shop.SignInAsync("jory");
        var mark = Guid.NewGuid().ToString("N")[..8].ToUpperInvariant();
        var answer = await jory.PostAsync(
            "/api/trays",
            new
            {
                trayId = Guid.CreateVersion7(),
                entryId = Guid.CreateVersion7(),
                ownerName = "100 % Boats " + mark,
                ownerContact = "0123 45-" + mark,
                machineName = "Pump_" + mark,
                family = "floatBowl",
                complaint = "Hunts",
                promisedDay = DateOnly.FromDateTime(DateTime.Now.AddDays(3)),
                stampedNumber = $"Z-{mark[..4]}/{mark[4..]}",
            }
        );
        var number = answer.Body.GetProperty("number").GetInt32();
        async Task<IEnumerable<int>> FindAsync(string text) =>
            (await jory.GetAsync($"/api/find?text={Uri.EscapeDataString(text)}"))
                .Body.GetProperty("trays")
                .EnumerateArray()
                .Select(tray => tray.GetProperty("number").GetInt32());
        Assert.Equal(number, (await FindAsync($"{number}")).First());
        foreach (
            var text in new[]
            {
                "z" + mark.ToLowerInvariant(),
                $"z {mark[..4]} {mark[4..]}",
                "45 " + mark,
                "pump_" + mark,
                "100 % boats " + mark,
            }
        )
        {
            Assert.Equal([number], await FindAsync(text));
        }

        // A sign stands for itself and for nothing else.
        Assert.Empty(await FindAsync("pump%" + mark));
        Assert.Empty(await FindAsync("pumpx" + mark));
        Assert.Empty(await FindAsync("  "));
    }
}
