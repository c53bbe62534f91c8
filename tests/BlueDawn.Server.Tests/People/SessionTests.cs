using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;

namespace BlueDawn.Server.Tests.People;

public class SessionTests(Shop shop)
{
    [Fact]
    public async Task Nothing_on_the_bench_is_shown_without_signing_in()
    {
        var visitor = shop.Visit();
        foreach (var path in (string[])["/api/bench", "/api/trays/27", "/api/identify?stamped=4107", "/api/trays/27/report.csv"])
        {
            var answer = await visitor.GetAsync(path);
            Assert.Equal(HttpStatusCode.Unauthorized, answer.Status);
            Assert.Equal("Sign in first.", answer.Title);
        }
    }

    [Fact]
    public async Task A_name_is_locked_after_five_wrong_passwords()
    {
        // Its own database row: nobody else in these tests signs in as tam after this.
        var visitor = shop.Visit();
        for (var i = 0; i < 5; i++)
        {
            Assert.Equal(HttpStatusCode.Unauthorized, (await visitor.SignInAsync("tam", "wrong")).Status);
        }

        var locked = await visitor.SignInAsync("tam", "sandrigg-quay");
        Assert.Equal((HttpStatusCode.Unauthorized, "Too many tries."), (locked.Status, locked.Title));
        await Shop.ExecuteAsync(shop.Database, "update people set lockout_end = null, access_failed_count = 0 where user_name = 'tam'");
        Assert.Equal(HttpStatusCode.OK, (await visitor.SignInAsync("tam", "sandrigg-quay")).Status);

        // Front desk: checks in, takes no readings, hands nothing back.
        var number = await visitor.NewTrayAsync();
        Assert.Equal(HttpStatusCode.Forbidden, (await visitor.RecordAsync(number, "gauging/main-jet", new { go = "0.7" })).Status);
        Assert.Equal(HttpStatusCode.Forbidden, (await visitor.NoteAsync(number, new { kind = "release" }, version: 1)).Status);
    }

    [Fact]
    public async Task A_write_without_the_token_of_its_session_is_refused()
    {
        var jory = await shop.SignInAsync("jory");
        using var request = new HttpRequestMessage(HttpMethod.Put, "/api/me") { Content = new StringContent("""{"units":"inch","pins":""}""", null, "application/json") };
        using var response = await jory.Http.SendAsync(request, TestContext.Current.CancellationToken);
        Assert.Equal(HttpStatusCode.BadRequest, response.StatusCode);
    }

    [Fact]
    public async Task My_bench_keeps_units_and_refuses_pins_that_cannot_be_read()
    {
        var marit = await shop.SignInAsync("marit");
        var wrong = await marit.PutAsync("/api/me", new { units = "inch", pins = "0.3-0.4" });
        Assert.Contains("by 0.05", wrong.Error("pins"), StringComparison.Ordinal);
        var right = await marit.PutAsync("/api/me", new { units = "inch", pins = "#50-#97" });
        Assert.Equal("inch", right.Body.GetProperty("units").GetString());
    }

    [Fact]
    public void Every_endpoint_asks_for_a_permission_save_those_that_are_open_on_purpose()
    {
        var open = shop.Services.GetRequiredService<EndpointDataSource>().Endpoints.OfType<RouteEndpoint>()
            .Where(endpoint => endpoint.RoutePattern.RawText?.StartsWith("/api", StringComparison.Ordinal) == true)
            .Where(endpoint => endpoint.Metadata.GetMetadata<IAuthorizeData>() is null)
            .Select(endpoint => endpoint.RoutePattern.RawText!)
            .Where(path => !path.StartsWith("/api/compute/", StringComparison.Ordinal))
            .Distinct()
            .Order(StringComparer.Ordinal);
        Assert.Equal(["/api/faults/knowledge", "/api/session/", "/api/{**rest}"], open);
    }
}
