using System.Buffers.Binary;
using Microsoft.AspNetCore.Mvc.Testing;

namespace BlueDawn.Server.Tests.People;

/// <summary>
/// Guessing passwords and ending sessions, in a shop of its own: tries are counted for the address too, and that is
/// everybody's here; whoever signs out everywhere else signs the other tests out.
/// </summary>
public class DoorTests(Shop shop) : IClassFixture<Shop>
{
    [Fact]
    public async Task Of_forty_guesses_at_once_five_are_looked_at_whether_anybody_has_the_name_or_not()
    {
        // From a device that nobody has signed in on; the name is one that nobody has, and the same goes for it.
        foreach (var name in (string[])["marit", "nobody-here"])
        {
            await Shop.ExecuteAsync(shop.Database, "delete from sign_in_tries");
            var visitors = Enumerable.Range(0, 40).Select(_ => shop.Visit()).ToList();
            await Task.WhenAll(visitors.Select(visitor => visitor.RefreshAsync()));
            var answers = await Task.WhenAll(
                visitors.Select(
                    (visitor, i) => visitor.PostAsync("/api/session", new { userName = name, password = $"guess-{i:00}-of-forty" })
                )
            );
            Assert.Equal(5, answers.Count(answer => answer.Title == "Name and password do not go together."));
            Assert.Equal(35, answers.Count(answer => answer.Title == "Too many tries."));
            Assert.All(answers, answer => Assert.Equal(HttpStatusCode.Unauthorized, answer.Status));
            // From now on not even the right one.
            Assert.Equal("Too many tries.", (await shop.Visit().SignInAsync(name, "sandrigg-quay")).Title);
        }

        await Shop.ExecuteAsync(shop.Database, "delete from sign_in_tries");
    }

    /// <summary>As a shop's own server runs, without what makes these tests quick. OWASP, Password Storage Cheat Sheet (from memory).</summary>
    [Fact]
    public async Task A_password_is_kept_with_210_000_rounds_and_one_kept_with_fewer_is_made_anew_at_the_next_sign_in()
    {
        async Task<int> Rounds()
        {
            var kept = await Shop.ExecuteAsync(shop.Database, "select password_hash from people where normalized_user_name = 'MARIT'");
            // Identity's third form: a mark, four bytes of the function, four of the rounds.
            return BinaryPrimitives.ReadInt32BigEndian(Convert.FromBase64String((string)kept!).AsSpan(5));
        }

        Assert.Equal(1_000, await Rounds());
        await using var own = new WebApplicationFactory<Program>().WithWebHostBuilder(host =>
            host.UseSetting("BLUE_DAWN_DATABASE", shop.Database)
        );
        await new Visitor(own.CreateClient()).SignInAsync("marit", "sandrigg-quay");
        Assert.Equal(210_000, await Rounds());
    }

    [Fact]
    public async Task Nobody_is_locked_out_of_a_device_they_have_used_by_guesses_from_elsewhere()
    {
        var ilse = await shop.SignInAsync("ilse");
        for (var i = 0; i < 30; i++)
        {
            await shop.Visit().SignInAsync("ilse", "wrong");
        }

        Assert.Equal("Too many tries.", (await shop.Visit().SignInAsync("ilse", "sandrigg-quay")).Title);
        Assert.Equal(HttpStatusCode.OK, (await ilse.SignInAsync("ilse", "sandrigg-quay")).Status);
        // The device that is known is counted as well, apart.
        for (var i = 0; i < 5; i++)
        {
            Assert.Equal("Name and password do not go together.", (await ilse.SignInAsync("ilse", "wrong")).Title);
        }

        Assert.Equal("Too many tries.", (await ilse.SignInAsync("ilse", "sandrigg-quay")).Title);
        await Shop.ExecuteAsync(shop.Database, "delete from sign_in_tries");
    }

    [Fact]
    public async Task A_wait_ends_and_the_right_password_begins_anew()
    {
        await Shop.ExecuteAsync(shop.Database, "delete from sign_in_tries");
        for (var i = 0; i < 6; i++)
        {
            await shop.Visit().SignInAsync("tam", "wrong");
        }

        await Shop.ExecuteAsync(shop.Database, "update sign_in_tries set since = since - interval '11 minutes'");
        Assert.Equal(HttpStatusCode.OK, (await shop.Visit().SignInAsync("tam", "sandrigg-quay")).Status);
        for (var i = 0; i < 5; i++)
        {
            Assert.Equal("Name and password do not go together.", (await shop.Visit().SignInAsync("tam", "wrong")).Title);
        }

        await Shop.ExecuteAsync(shop.Database, "delete from sign_in_tries");
    }

    [Fact]
    public async Task The_leads_password_is_not_guessed_at_a_release_either()
    {
        var jory = await shop.SignInAsync("jory");
        var number = await jory.NewTrayAsync();
        var titles = new List<string>();
        for (var i = 0; i < 7; i++)
        {
            var answer = await jory.DecideAsync(
                number,
                new { kind = "release", reason = "the owner fetches it for the regatta" },
                new { userName = "ilse", password = "wrong" }
            );
            titles.Add(answer.Error("signature.password"));
        }

        Assert.Equal(5, titles.Count(title => title == "Name and password do not go together."));
        Assert.All(titles[5..], title => Assert.StartsWith("Too many tries.", title, StringComparison.Ordinal));
        await Shop.ExecuteAsync(shop.Database, "delete from sign_in_tries");
    }

    [Fact]
    public async Task Signing_out_ends_the_session_on_the_server_wherever_the_cookie_has_got_to()
    {
        var (jory, elsewhere) = (await shop.SignInAsync("jory"), await shop.SignInAsync("jory"));
        var devices = (await jory.GetAsync("/api/me/devices")).Body;
        var here = devices.EnumerateArray().Single(device => device.GetProperty("here").GetBoolean());
        Assert.Equal(here.GetProperty("id").GetGuid(), devices[0].GetProperty("id").GetGuid());

        // The cookie itself is kept and sent again after signing out.
        var cookie = await jory.CookieAsync();
        Assert.Equal(HttpStatusCode.OK, (await shop.Visit().WithCookieAsync(cookie, "/api/bench")).Status);
        await jory.DeleteAsync("/api/session");
        Assert.Equal(HttpStatusCode.Unauthorized, (await shop.Visit().WithCookieAsync(cookie, "/api/bench")).Status);

        // Everywhere else, and one device by its row.
        var third = await shop.SignInAsync("jory");
        Assert.Equal(HttpStatusCode.OK, (await elsewhere.DeleteAsync("/api/me/devices")).Status);
        Assert.Equal(HttpStatusCode.Unauthorized, (await third.GetAsync("/api/bench")).Status);
        Assert.Equal(HttpStatusCode.OK, (await elsewhere.GetAsync("/api/bench")).Status);
        var marit = await shop.SignInAsync("marit");
        var hers = (await marit.GetAsync("/api/me/devices")).Body[0].GetProperty("id").GetGuid();
        await elsewhere.DeleteAsync($"/api/me/devices/{hers}");
        Assert.Equal(HttpStatusCode.OK, (await marit.GetAsync("/api/bench")).Status);
    }
}
