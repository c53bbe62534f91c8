namespace BlueDawn.Server.Tests.Compute;

/// <summary>An instrument on the bench sends what it shows; whoever works there takes it from its line.</summary>
public class InstrumentTests(Shop shop)
{
    [Fact]
    public async Task A_series_is_taken_goes_on_and_is_begun_anew()
    {
        var jory = await shop.SignInAsync("jory");
        Assert.Equal(HttpStatusCode.OK, (await SendAsync(jory, [0, 0.5, 1], [10, 12, 14])).Status);
        Assert.Equal(HttpStatusCode.OK, (await SendAsync(jory, [1.5, 2], [16, 18], true)).Status);
        var shown = (await jory.GetAsync("/api/instruments/pressure-gauge")).Body;
        Assert.Equal([10, 12, 14, 16, 18], shown.GetProperty("values").EnumerateArray().Select(value => value.GetDouble()));
        await SendAsync(jory, [0, 1], [5, 6]);
        shown = (await jory.GetAsync("/api/instruments/pressure-gauge")).Body;
        Assert.Equal([5, 6], shown.GetProperty("values").EnumerateArray().Select(value => value.GetDouble()));
    }

    [Fact]
    public async Task What_is_no_series_is_refused_and_leaves_what_is_there()
    {
        var jory = await shop.SignInAsync("jory");
        await SendAsync(jory, [0, 1], [5, 6]);
        Assert.Contains("later than the one before", (await SendAsync(jory, [1, 1], [5, 6])).Error("timesS"), StringComparison.Ordinal);
        Assert.Contains("later than the one before", (await SendAsync(jory, [0, 1], [5])).Error("timesS"), StringComparison.Ordinal);
        Assert.Contains(
            "goes on with later times",
            (await SendAsync(jory, [0.5, 2], [5, 6], true)).Error("goesOn"),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "goes on with later times",
            (
                await SendAsync(jory, [.. Enumerable.Range(2, 20_000).Select(i => (double)i)], [.. Enumerable.Repeat(1.0, 20_000)], true)
            ).Error("goesOn"),
            StringComparison.Ordinal
        );
        Assert.Equal(2, (await jory.GetAsync("/api/instruments/pressure-gauge")).Body.GetProperty("values").GetArrayLength());
    }

    [Fact]
    public async Task The_front_desk_sends_nothing()
    {
        var desk = await shop.SignInAsync("tam");
        Assert.Equal(HttpStatusCode.Forbidden, (await SendAsync(desk, [0, 1], [5, 6])).Status);
    }

    private static Task<Answer> SendAsync(Visitor visitor, double[] timesS, double[] values, bool goesOn = false) =>
        visitor.PostAsync(
            "/api/instruments/pressure-gauge",
            new
            {
                timesS,
                values,
                goesOn,
            }
        );
}
