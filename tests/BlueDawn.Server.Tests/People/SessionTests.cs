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
    public async Task The_front_desk_checks_in_and_takes_no_readings()
    {
        var tam = await shop.SignInAsync("tam");
        var number = await tam.NewTrayAsync();
        Assert.Equal(HttpStatusCode.Forbidden, (await tam.RecordAsync(number, "gauging/main-jet", new { go = "0.7" })).Status);
        Assert.Equal(HttpStatusCode.Forbidden, (await tam.NoteAsync(number, new { kind = "release" }, version: 1)).Status);
    }

    [Fact]
    public async Task A_role_that_is_taken_away_and_a_person_who_is_gone_have_no_access_from_then_on()
    {
        await Shop.ExecuteAsync(
            shop.Database,
            """
            insert into people select (jsonb_populate_record(p, jsonb_build_object('id', gen_random_uuid(), 'user_name', 'goer',
                'normalized_user_name', 'GOER', 'display_name', 'Goer'))).* from people p where user_name = 'jory';
            insert into person_roles select p.id, r.id from people p, roles r where p.user_name = 'goer' and r.name = 'technician'
            """
        );
        var goer = await shop.SignInAsync("goer");
        var number = await goer.NewTrayAsync();
        Assert.Equal(HttpStatusCode.OK, (await goer.GetAsync("/api/bench")).Status);
        await Shop.ExecuteAsync(
            shop.Database,
            "update person_roles set role_id = (select id from roles where name = "
                + "'front-desk') where user_id = (select id from people where user_name = 'goer')"
        );
        Assert.Equal(HttpStatusCode.Forbidden, (await goer.RecordAsync(number, "gauging/main-jet", new { go = "0.7" })).Status);
        await Shop.ExecuteAsync(shop.Database, "delete from person_roles where user_id = (select id from people where user_name = 'goer')");
        Assert.Equal(HttpStatusCode.Forbidden, (await goer.GetAsync("/api/bench")).Status);
        await Shop.ExecuteAsync(shop.Database, "delete from sessions where person_id = (select id from people where user_name = 'goer')");
        Assert.Equal(HttpStatusCode.Unauthorized, (await goer.GetAsync("/api/bench")).Status);
    }

    [Fact]
    public async Task A_write_without_the_token_of_its_session_is_refused()
    {
        var jory = await shop.SignInAsync("jory");
        using var request = new HttpRequestMessage(HttpMethod.Put, "/api/me")
        {
            Content = new StringContent("""{"units":"inch","pins":""}""", null, "application/json"),
        };
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
        var open = shop
            .Services.GetRequiredService<EndpointDataSource>()
            .Endpoints.OfType<RouteEndpoint>()
            .Where(endpoint => endpoint.RoutePattern.RawText?.StartsWith("/api", StringComparison.Ordinal) == true)
            .Where(endpoint => endpoint.Metadata.GetMetadata<IAuthorizeData>() is null)
            .Select(endpoint => endpoint.RoutePattern.RawText!)
            .Where(path => !path.StartsWith("/api/compute/", StringComparison.Ordinal))
            .Distinct()
            .Order(StringComparer.Ordinal);
        Assert.Equal(
            [
                "/api/faults/knowledge",
                "/api/session/",
                "/api/session/code",
                "/api/session/first",
                "/api/session/first/archive",
                "/api/session/pin",
                "/api/{**rest}",
            ],
            open
        );
    }

    /// <summary>A device that was signed in on an earlier version stays so, and what that version left cannot win over what is
    /// written now.</summary>
    [Fact]
    public async Task The_cookie_of_an_earlier_version_is_read_once_and_ended()
    {
        var jory = await shop.SignInAsync("jory");
        var now = (await jory.CookieAsync())
            .Split("; ")
            .Single(cookie => cookie.StartsWith("blue-dawn-session=", StringComparison.Ordinal));
        var value = now["blue-dawn-session=".Length..];
        async Task<(HttpStatusCode Status, List<string> Written)> AskAsync(string cookie)
        {
            using var request = new HttpRequestMessage(HttpMethod.Get, "/api/bench") { Headers = { { "Cookie", cookie } } };
            using var answer = await shop.Visit().Http.SendAsync(request, TestContext.Current.CancellationToken);
            return (answer.StatusCode, answer.Headers.TryGetValues("Set-Cookie", out var set) ? [.. set] : []);
        }

        var (status, written) = await AskAsync($"blue-dawn={value}");
        Assert.Equal(HttpStatusCode.OK, status);
        Assert.Contains(written, cookie => cookie.StartsWith("blue-dawn-session=", StringComparison.Ordinal));
        foreach (var path in new[] { "/", "/api" })
        {
            Assert.Contains(written, cookie =>
                cookie.StartsWith("blue-dawn=;", StringComparison.Ordinal)
                && cookie.Contains("expires=Thu, 01 Jan 1970", StringComparison.Ordinal)
                && cookie.Split("; ").Contains($"path={path}")
            );
        }

        Assert.Equal(HttpStatusCode.OK, (await AskAsync($"{now}; blue-dawn=of-another-key")).Status);
        Assert.Equal(HttpStatusCode.Unauthorized, (await AskAsync("blue-dawn=of-another-key")).Status);
    }

    [Fact]
    public async Task Over_TLS_the_cookie_is_of_this_host_alone()
    {
        var visitor = shop.Visit(tls: true);
        Assert.Equal(HttpStatusCode.OK, (await visitor.SignInAsync("jory", "sandrigg-quay")).Status);
        Assert.Contains("__Host-blue-dawn-session=", await visitor.CookieAsync(), StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.OK, (await visitor.GetAsync("/api/bench")).Status);
    }
}
