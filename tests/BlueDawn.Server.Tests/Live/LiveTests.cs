using System.Text;
using BlueDawn.Server.Live;
using Microsoft.Extensions.DependencyInjection;

namespace BlueDawn.Server.Tests.Live;

/// <summary>Two servers on one database: what is written at one is known at the other.</summary>
public class LiveTests(Shop shop)
{
    [Fact]
    public async Task A_change_made_at_one_server_is_heard_at_the_other()
    {
        await using var second = new OtherServer(shop.Database);
        var (jory, marit) = (await shop.SignInAsync("jory"), await second.SignInAsync("marit"));
        var number = await jory.NewTrayAsync();
        using var stop = CancellationTokenSource.CreateLinkedTokenSource(TestContext.Current.CancellationToken);
        using var response = await marit.Http.GetAsync("/api/changes", HttpCompletionOption.ResponseHeadersRead, stop.Token);
        Assert.Equal("text/event-stream", response.Content.Headers.ContentType!.MediaType);
        using var reader = new StreamReader(await response.Content.ReadAsStreamAsync(stop.Token));
        Assert.Equal("all", await NextAsync(reader, stop.Token));
        await jory.RecordAsync(number, "gauging/main-jet", new { go = "0.71", noGo = "0.73" });
        stop.CancelAfter(TimeSpan.FromSeconds(20));
        string said;
        do
        {
            // The other tests of this shop change trays of their own.
            said = await NextAsync(reader, stop.Token);
        } while (!said.StartsWith($"tray {number} ", StringComparison.Ordinal));

        // It says how far the tray is, so that whoever wrote it need not look again.
        var tray = (await jory.GetAsync($"/api/trays/{number}")).Body;
        Assert.Equal($"tray {number} {tray.GetProperty("revision").GetInt32()} {tray.Version()}", said);
    }

    /// <summary>Signed out from elsewhere, its pages hear nothing more: the stream ends without a beat to find out by.</summary>
    [Fact]
    public async Task A_session_that_has_ended_hears_nothing_more()
    {
        await using var second = new OtherServer(shop.Database);
        second.Services.GetRequiredService<LiveChanges>().BeatEvery = TimeSpan.FromHours(1);
        var (elsewhere, here) = (await shop.SignInAsync("tam"), await second.SignInAsync("tam"));
        using var stop = CancellationTokenSource.CreateLinkedTokenSource(TestContext.Current.CancellationToken);
        using var response = await here.Http.GetAsync("/api/changes", HttpCompletionOption.ResponseHeadersRead, stop.Token);
        using var reader = new StreamReader(await response.Content.ReadAsStreamAsync(stop.Token));
        Assert.Equal("all", await NextAsync(reader, stop.Token));
        await Shop.ExecuteAsync(
            shop.Database,
            "delete from sessions where person_id = (select id from people where user_name = 'tam') and id = "
                + "(select id from sessions where person_id = (select id from people where user_name = 'tam') order by signed_in_at desc limit 1)"
        );
        while (await reader.ReadLineAsync(stop.Token) is not null) { }

        Assert.Equal(HttpStatusCode.Unauthorized, (await here.GetAsync("/api/bench")).Status);
        Assert.Equal(HttpStatusCode.OK, (await elsewhere.GetAsync("/api/bench")).Status);
    }

    [Fact]
    public async Task Of_more_pages_than_one_session_may_have_the_oldest_gives_way()
    {
        await using var second = new OtherServer(shop.Database);
        second.Services.GetRequiredService<LiveChanges>().BeatEvery = TimeSpan.FromHours(1);
        var tam = await second.SignInAsync("tam");
        var cancel = TestContext.Current.CancellationToken;
        var open = new List<(HttpResponseMessage Response, StreamReader Reader)>();
        for (var i = 0; i <= LiveChanges.MostOfSession; i++)
        {
            var response = await tam.Http.GetAsync("/api/changes", HttpCompletionOption.ResponseHeadersRead, cancel);
            open.Add((response, new StreamReader(await response.Content.ReadAsStreamAsync(cancel))));
            Assert.Equal("all", await NextAsync(open[^1].Reader, cancel));
        }

        while (await open[0].Reader.ReadLineAsync(cancel) is not null) { }

        // The newest still hears.
        var heard = NextAsync(open[^1].Reader, cancel);
        await tam.NewTrayAsync();
        Assert.NotEmpty(await heard);
        open.ForEach(one => one.Response.Dispose());
    }

    [Fact]
    public async Task Nobody_listens_without_signing_in() =>
        Assert.Equal(HttpStatusCode.Unauthorized, (await shop.Visit().GetAsync("/api/changes")).Status);

    [Fact]
    public async Task An_import_begun_at_one_server_is_accepted_at_the_other()
    {
        await using var second = new OtherServer(shop.Database);
        var (here, there) = (await shop.SignInAsync("ilse"), await second.SignInAsync("ilse"));
        var id = Guid.CreateVersion7();
        using var request = new HttpRequestMessage(HttpMethod.Put, $"/api/catalogue/imports/{id}?file=suppliers&name=two.csv")
        {
            Content = new StringContent("supplier,freight\nTwo Piers,4.50\n", Encoding.UTF8, "text/csv"),
        };
        Assert.Equal(HttpStatusCode.OK, (await here.SendAsync(request)).Status);
        Assert.Equal("checked", await DoneAsync(there, id));
        // Both accept it at the same moment: it is done once.
        await Task.WhenAll(
            here.PostAsync($"/api/catalogue/imports/{id}/accept", new { }),
            there.PostAsync($"/api/catalogue/imports/{id}/accept", new { })
        );
        Assert.Equal("imported", await DoneAsync(here, id));
        Assert.Equal(1L, await Shop.ExecuteAsync(shop.Database, "select count(*) from suppliers where name = 'Two Piers'"));
        Assert.Equal(0L, await Shop.ExecuteAsync(shop.Database, $"select count(*) from import_pieces where job_id = '{id}'"));
    }

    [Fact]
    public async Task An_import_whose_server_has_ended_is_said_to_have_broken_off()
    {
        var ilse = await shop.SignInAsync("ilse");
        var id = Guid.CreateVersion7();
        await Shop.ExecuteAsync(
            shop.Database,
            "insert into import_jobs (id, file, name, state, phase, rows_read, bytes, bytes_read, heard_at) "
                + $"values ('{id}', 'Items', 'lost.csv', 'Running', 'Reading', 5, 10, 5, now() - interval '1 minute')"
        );
        var view = (await ilse.GetAsync($"/api/catalogue/imports/{id}")).Body;
        Assert.Equal("failed", view.GetProperty("state").GetString());
        Assert.Contains("nothing has been changed", view.GetProperty("problem").GetString(), StringComparison.Ordinal);
    }

    private static async Task<string> NextAsync(StreamReader reader, CancellationToken cancel)
    {
        while (await reader.ReadLineAsync(cancel) is { } line)
        {
            if (line.StartsWith("data: ", StringComparison.Ordinal))
            {
                return line[6..];
            }
        }

        throw new EndOfStreamException("The server stopped talking.");
    }

    private static async Task<string> DoneAsync(Visitor visitor, Guid id)
    {
        for (var look = 0; look < 300; look++)
        {
            if (
                (await visitor.GetAsync($"/api/catalogue/imports/{id}")).Body.GetProperty("state").GetString()
                is { } state
                    and not "running"
            )
            {
                return state;
            }

            await Task.Delay(50, TestContext.Current.CancellationToken);
        }

        throw new TimeoutException("The import did not end.");
    }
}
