namespace BlueDawn.Server.Tests.Trays;

/// <summary>What a device keeps to work without the server comes at once, small, and only what has changed.</summary>
public sealed class AtHandTests(Shop shop)
{
    /// <summary>A megabyte for 75 trays.</summary>
    private const int MostBytesATray = 1024 * 1024 / 75;

    [Fact]
    public async Task Everything_comes_once_then_nothing_then_the_tray_that_has_changed()
    {
        await using var place = await Place.NewAsync(shop.Database, demo: true);
        var jory = await place.Server.SignInAsync("jory");
        var first = (await AskAsync(jory, new { trays = new { } })).Body;
        var trays = first
            .GetProperty("trays")
            .EnumerateObject()
            .ToDictionary(tray => int.Parse(tray.Name), tray => tray.Value.GetString()!);
        var bench = (await jory.GetAsync("/api/bench")).Body.GetProperty("trays").EnumerateArray();
        Assert.Equal(
            bench
                .Where(tray => tray.GetProperty("waitsFor").GetString() != "handedBack")
                .Select(tray => tray.GetProperty("number").GetInt32())
                .Order(),
            trays.Keys
        );
        var bytes = await jory.BytesOfPostAsync("/api/at-hand", new { trays = new { } });
        Assert.True(bytes <= trays.Count * MostBytesATray, $"{bytes} bytes for {trays.Count} trays");
        var answers = first.GetProperty("answers").EnumerateArray().ToList();
        Assert.Equal((trays.Count * 8) + 5, answers.Count);
        // Each is what a page would be told.
        foreach (var answer in answers.Where((_, at) => at % 7 == 0))
        {
            var asked = await jory.GetAsync(answer.GetProperty("path").GetString()!);
            Assert.Equal(asked.Body.GetRawText(), answer.GetProperty("body").GetRawText());
        }

        var shared = first.GetProperty("shared").GetString();
        Assert.Equal(HttpStatusCode.NoContent, (await AskAsync(jory, new { trays, shared })).Status);

        var noted = await jory.NoteAsync(
            27,
            new
            {
                kind = "marks",
                dateCode = "",
                plate = "Q7 27",
            }
        );
        Assert.Equal(HttpStatusCode.OK, noted.Status);
        var then = (await AskAsync(jory, new { trays, shared })).Body;
        Assert.All(then.GetProperty("answers").EnumerateArray(), answer =>
            Assert.StartsWith("/api/trays/27", answer.GetProperty("path").GetString(), StringComparison.Ordinal)
        );
        Assert.NotEqual(trays[27], then.GetProperty("trays").GetProperty("27").GetString());

        // Somebody else has other pins and units: what was kept for one is not for the other.
        var tam = await place.Server.SignInAsync("tam");
        Assert.NotEqual(trays[27], (await AskAsync(tam, new { trays, shared })).Body.GetProperty("trays").GetProperty("27").GetString());
        Assert.Equal(HttpStatusCode.Unauthorized, (await place.Server.Visit().PostAsync("/api/at-hand", new { trays = new { } })).Status);
    }

    private static Task<Answer> AskAsync(Visitor visitor, object body) => visitor.PostAsync("/api/at-hand", body);
}
