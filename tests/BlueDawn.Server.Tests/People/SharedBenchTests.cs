using BlueDawn.Server.Tests.OwnShop;

namespace BlueDawn.Server.Tests.People;

/// <summary>A PIN opens on a device a lead trusts, for five wrong tries, and never for what needs a lead.</summary>
public sealed class SharedBenchTests(EmptyShop shop) : IClassFixture<EmptyShop>
{
    [Fact]
    public async Task A_PIN_opens_only_on_a_trusted_device_and_what_needs_a_lead_still_needs_the_password()
    {
        var lead = await shop.LeadAsync();
        var me = (await lead.GetAsync("/api/session")).Body.GetProperty("person");
        var userName = me.GetProperty("userName").GetString()!;
        Assert.Contains(
            "not your password",
            (await lead.PutAsync("/api/me/pin", new { password = "wrong wrong wrong", pin = "4071" })).Error("password"),
            StringComparison.Ordinal
        );
        foreach (var weak in new[] { "123", "1234", "4321", "7777", "40a1", "123456789" })
        {
            Assert.NotEmpty((await lead.PutAsync("/api/me/pin", new { password = EmptyShop.Password, pin = weak })).Error("pin"));
        }

        Assert.Equal(
            HttpStatusCode.NoContent,
            (await lead.PutAsync("/api/me/pin", new { password = EmptyShop.Password, pin = "4071" })).Status
        );
        // Not trusted: no names are given away, and the right PIN does not open.
        var stranger = shop.Visit();
        await stranger.RefreshAsync();
        var seen = (await stranger.GetAsync("/api/session")).Body;
        Assert.Equal((JsonValueKind.Null, 0), (seen.GetProperty("sharedBench").ValueKind, seen.GetProperty("hands").GetArrayLength()));
        Assert.Equal(HttpStatusCode.Unauthorized, (await PinAsync(stranger, userName, "4071")).Status);

        Assert.Contains(
            "Call it something",
            (await lead.PostAsync("/api/shared-benches", new { label = " " })).Error("label"),
            StringComparison.Ordinal
        );
        var benches = (await lead.PostAsync("/api/shared-benches", new { label = "Tablet by the bath" })).Body;
        var bench = benches.EnumerateArray().Single(one => one.GetProperty("here").GetBoolean());
        await lead.DeleteAsync("/api/session");
        await lead.RefreshAsync();
        var session = (await lead.GetAsync("/api/session")).Body;
        Assert.Equal("Tablet by the bath", session.GetProperty("sharedBench").GetString());
        Assert.Contains(session.GetProperty("hands").EnumerateArray(), hand => hand.GetProperty("userName").GetString() == userName);
        Assert.Equal(HttpStatusCode.OK, (await PinAsync(lead, userName, "4071")).Status);
        await lead.RefreshAsync();
        // In by PIN: works at the bench, is no lead, until the password has been given.
        Assert.Equal("technician", (await lead.GetAsync("/api/session")).Body.GetProperty("person").GetProperty("role").GetString());
        await lead.NewTrayAsync("");
        Assert.Equal(HttpStatusCode.Forbidden, (await lead.GetAsync("/api/people")).Status);
        Assert.Contains(
            "not your password",
            (await lead.PostAsync("/api/me/proof", new { password = "4071" })).Error("password"),
            StringComparison.Ordinal
        );
        Assert.Equal(HttpStatusCode.NoContent, (await lead.PostAsync("/api/me/proof", new { password = EmptyShop.Password })).Status);
        Assert.Equal(HttpStatusCode.OK, (await lead.GetAsync("/api/people")).Status);
        // Trusted no more: the same PIN does not open, and who is in by PIN is out.
        var (hand, _, _) = await shop.AddAsync("technician");
        Assert.Equal(HttpStatusCode.Forbidden, (await hand.PostAsync("/api/shared-benches", new { label = "Mine" })).Status);
        await lead.DeleteAsync($"/api/shared-benches/{bench.GetProperty("id").GetGuid()}");
        await lead.DeleteAsync("/api/session");
        await lead.RefreshAsync();
        Assert.Equal(HttpStatusCode.Unauthorized, (await PinAsync(lead, userName, "4071")).Status);
    }

    [Fact]
    public async Task After_five_wrong_PINs_only_the_password_opens_also_when_they_come_at_once()
    {
        var (hand, _, userName) = await shop.AddAsync("technician");
        var lead = await shop.LeadAsync();
        Assert.Equal(
            HttpStatusCode.NoContent,
            (await hand.PutAsync("/api/me/pin", new { password = EmptyShop.Password, pin = "80623" })).Status
        );
        await lead.PostAsync("/api/shared-benches", new { label = "Bench two" });
        await lead.DeleteAsync("/api/session");
        await lead.RefreshAsync();
        var wrong = await Task.WhenAll(Enumerable.Range(0, 12).Select(i => PinAsync(lead, userName, $"9{i:000}")));
        Assert.All(wrong, answer => Assert.Equal(HttpStatusCode.Unauthorized, answer.Status));
        Assert.Equal(5, await Shop.ExecuteAsync(shop.Database, $"select door_pin_tries from people where user_name = '{userName}'"));
        Assert.Equal(HttpStatusCode.Unauthorized, (await PinAsync(lead, userName, "80623")).Status);
        // The password forgives; the PIN opens again.
        Assert.Equal(HttpStatusCode.OK, (await shop.Visit().SignInAsync(userName, EmptyShop.Password)).Status);
        Assert.Equal(HttpStatusCode.OK, (await PinAsync(lead, userName, "80623")).Status);
        // Taken off, it is no name of this bench any more.
        await hand.PutAsync("/api/me/pin", new { password = EmptyShop.Password, pin = "" });
        await lead.RefreshAsync();
        await lead.DeleteAsync("/api/session");
        Assert.DoesNotContain((await lead.GetAsync("/api/session")).Body.GetProperty("hands").EnumerateArray(), one =>
            one.GetProperty("userName").GetString() == userName
        );
    }

    private static Task<Answer> PinAsync(Visitor visitor, string userName, string pin) =>
        visitor.PostAsync("/api/session/pin", new { userName, pin });
}
