using System.Text;
using BlueDawn.Core.Catalogue;
using BlueDawn.Store.Catalogue;
using Npgsql;

namespace BlueDawn.Server.Tests.Catalogue;

public class CatalogueTests(Shop shop)
{
    private static async Task<JsonElement> SendAsync(Visitor visitor, string file, string text)
    {
        var id = Guid.CreateVersion7();
        var answer = await visitor.SendAsync(
            new HttpRequestMessage(HttpMethod.Put, $"/api/catalogue/imports/{id}?file={file}&name={file}.csv")
            {
                Content = new StringContent(text, Encoding.UTF8, "text/csv"),
            }
        );
        Assert.Equal(HttpStatusCode.OK, answer.Status);
        var done = await DoneAsync(visitor, id);
        Assert.Equal(JsonValueKind.Null, done.GetProperty("problem").ValueKind);
        return done;
    }

    private static async Task<JsonElement> DoneAsync(Visitor visitor, Guid id)
    {
        for (var look = 0; look < 300; look++)
        {
            var view = (await visitor.GetAsync($"/api/catalogue/imports/{id}")).Body;
            if (view.GetProperty("state").GetString() != "running")
            {
                return view;
            }

            await Task.Delay(50, TestContext.Current.CancellationToken);
        }

        throw new TimeoutException("The import did not end.");
    }

    /// <summary>Imports a file that must be in order.</summary>
    internal static async Task<JsonElement> ImportAsync(Visitor lead, string file, string text)
    {
        var view = await SendAsync(lead, file, text);
        Assert.Equal(0, view.GetProperty("report").GetProperty("rejected").GetInt32());
        var id = view.GetProperty("id").GetGuid();
        await lead.PostAsync($"/api/catalogue/imports/{id}/accept", new { });
        var done = await DoneAsync(lead, id);
        Assert.Equal("imported", done.GetProperty("state").GetString());
        return done.GetProperty("report");
    }

    private static (int Added, int Changed, int Same, int Removed, int Rejected) Counts(JsonElement report) =>
        (
            report.GetProperty("added").GetInt32(),
            report.GetProperty("changed").GetInt32(),
            report.GetProperty("same").GetInt32(),
            report.GetProperty("removed").GetInt32(),
            report.GetProperty("rejected").GetInt32()
        );

    [Theory]
    [InlineData("items")]
    [InlineData("contents")]
    [InlineData("fits")]
    [InlineData("supersessions")]
    [InlineData("suppliers")]
    [InlineData("offers")]
    public async Task What_is_exported_is_on_file_already_when_it_is_imported_again(string file)
    {
        var ilse = await shop.SignInAsync("ilse");
        var text = await ilse.Http.GetStringAsync($"/api/catalogue/{file}.csv", TestContext.Current.CancellationToken);
        var view = await SendAsync(ilse, file, text);
        var rows = text.Split("\r\n", StringSplitOptions.RemoveEmptyEntries).Length - 1;
        Assert.Equal((0, 0, rows, 0, 0), Counts(view.GetProperty("report")));
        Assert.Equal("checked", view.GetProperty("state").GetString());
    }

    [Fact]
    public async Task A_file_comes_in_as_a_spreadsheet_writes_it_and_its_commas_are_asked_about()
    {
        var ilse = await shop.SignInAsync("ilse");
        var view = await SendAsync(
            ilse,
            "offers",
            "\uFEFFSupplier;Item;Pack pieces;Pack-Price;LEAD_DAYS\r\nNorthmole Supply;OK-207;1;14,50;2\r\n;;;;\r\n"
        );
        Assert.Equal("14,50", view.GetProperty("report").GetProperty("comma").GetString());
        Assert.Equal(1, view.GetProperty("report").GetProperty("rejected").GetInt32());
        var id = view.GetProperty("id").GetGuid();
        // It is not guessed, and it cannot be accepted before it has been said.
        Assert.Equal(HttpStatusCode.Conflict, (await ilse.PostAsync($"/api/catalogue/imports/{id}/accept", new { })).Status);
        await ilse.PostAsync($"/api/catalogue/imports/{id}/decimal-comma", new { });
        // The demo sells it for 14.50: it is the same.
        Assert.Equal((0, 0, 1, 0, 0), Counts((await DoneAsync(ilse, id)).GetProperty("report")));
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await ilse.PostAsync($"/api/catalogue/imports/{Guid.CreateVersion7()}/decimal-comma", new { })).Status
        );
    }

    [Fact]
    public async Task With_one_wrong_row_nothing_is_imported_and_every_wrong_row_is_named()
    {
        var ilse = await shop.SignInAsync("ilse");
        var view = await SendAsync(
            ilse,
            "offers",
            "supplier,item,pack_pieces,pack_price,lead_days\nNorthmole Supply,OK-207,1,9.99,2\nNorthmole "
                + "Supply,NO-SUCH,1,5,2\nNobody,OK-207,1,5,2\nNorthmole Supply,OK-207,1,8,2\nNorthmole Supply,OK-118,none,5,2\n"
        );
        var report = view.GetProperty("report");
        Assert.Equal(4, report.GetProperty("rejected").GetInt32());
        var rejected = report
            .GetProperty("firstRejected")
            .EnumerateArray()
            .Select(row => (row.GetProperty("line").GetInt32(), row.GetProperty("reason").GetString()!))
            .ToList();
        Assert.Equal(
            [
                (3, "There is no item of this number. Import items.csv first."),
                (4, "There is no supplier of this name. Import suppliers.csv first."),
                (5, "says the same thing again as line 2. Keep one of them."),
                (6, "pack_pieces “none” is not a whole number from 1 to 9999."),
            ],
            rejected
        );
        var refused = await ilse.PostAsync($"/api/catalogue/imports/{view.GetProperty("id").GetGuid()}/accept", new { });
        Assert.Equal((HttpStatusCode.Conflict, "Nothing has been imported."), (refused.Status, refused.Title));
        Assert.DoesNotContain(
            "9.99",
            await ilse.Http.GetStringAsync("/api/catalogue/offers.csv", TestContext.Current.CancellationToken),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task A_dry_run_changes_nothing_and_a_file_of_contents_says_all_there_is_about_its_items()
    {
        var ilse = await shop.SignInAsync("ilse");
        Assert.Equal(
            (2, 0, 0, 0, 0),
            Counts(await ImportAsync(ilse, "items", "number,kind,name,maker\nQQ-1,kit,First,Dornay\nQQ-2,kit,Second,Dornay\n"))
        );
        const string Heading = "item,part,quantity,features\n";
        Assert.Equal(
            (3, 0, 0, 0, 0),
            Counts(
                await ImportAsync(ilse, "contents", Heading + "QQ-1,needle,1,tip=rubber\nQQ-1,seat,1,bore=2 mm\nQQ-2,needle,1,tip=rubber\n")
            )
        );
        var dry = await SendAsync(ilse, "contents", Heading + "QQ-1,needle,2,tip=rubber\nQQ-1,O-ring,1,size=-008\n");
        Assert.Equal((1, 1, 0, 1, 0), Counts(dry.GetProperty("report")));
        Assert.Contains(
            "changed: QQ-1, needle, 1, tip=rubber → QQ-1, needle, 2, tip=rubber",
            dry.GetProperty("report").GetProperty("examples").EnumerateArray().Select(example => example.GetString())
        );
        Assert.Contains("QQ-1,seat,1,bore=2 mm", await ExportAsync(ilse), StringComparison.Ordinal);
        await ImportAsync(ilse, "contents", Heading + "QQ-1,needle,2,tip=rubber\nQQ-1,O-ring,1,size=-008\n");
        var after = await ExportAsync(ilse);
        Assert.Contains(
            "QQ-1,O-ring,1,size=AS568-008\r\nQQ-1,needle,2,tip=rubber\r\nQQ-2,needle,1,tip=rubber",
            after,
            StringComparison.Ordinal
        );
        Assert.DoesNotContain("QQ-1,seat", after, StringComparison.Ordinal);

        static Task<string> ExportAsync(Visitor visitor) =>
            visitor.Http.GetStringAsync("/api/catalogue/contents.csv", TestContext.Current.CancellationToken);
    }

    [Fact]
    public async Task A_hundred_thousand_rows_are_gone_through_while_the_bench_goes_on()
    {
        var ilse = await shop.SignInAsync("ilse");
        var text = Bulk(100_000);
        var id = Guid.CreateVersion7();
        await ilse.SendAsync(
            new HttpRequestMessage(HttpMethod.Put, $"/api/catalogue/imports/{id}?file=items&name=bulk.csv")
            {
                Content = new StringContent(text, Encoding.UTF8, "text/csv"),
            }
        );
        var rows = new List<int>();
        JsonElement view;
        do
        {
            Assert.Equal(HttpStatusCode.OK, (await ilse.GetAsync("/api/bench")).Status);
            view = (await ilse.GetAsync($"/api/catalogue/imports/{id}")).Body;
            rows.Add(view.GetProperty("rowsRead").GetInt32());
        } while (view.GetProperty("state").GetString() == "running" && rows.Count < 10_000);
        Assert.Equal((100_000, 0, 0, 0, 0), Counts(view.GetProperty("report")));
        Assert.Equal(rows.Order(), rows);
        await ilse.SendAsync(new HttpRequestMessage(HttpMethod.Delete, $"/api/catalogue/imports/{id}"));
        Assert.Equal(HttpStatusCode.NotFound, (await ilse.GetAsync($"/api/catalogue/imports/{id}")).Status);
    }

    /// <summary>What is told while it runs. The page is told several times a second, and a fast machine has read the file between two of
    /// them.</summary>
    [Fact]
    public async Task An_import_tells_how_far_it_has_come()
    {
        var cancel = TestContext.Current.CancellationToken;
        var told = new List<(ImportPhase Phase, int Rows)>();
        await using var connection = new NpgsqlConnection(shop.Database);
        await connection.OpenAsync(cancel);
        await CatalogueImport.RunAsync(
            connection,
            CatalogueFile.Items,
            new StringReader(Bulk(10_000)),
            decimalComma: false,
            apply: false,
            (phase, rows) => told.Add((phase, rows)),
            cancel
        );
        Assert.Contains(told, now => now is { Phase: ImportPhase.Reading, Rows: > 0 and < 10_000 });
        Assert.Equal(told.Order(), told);
        Assert.Equal((ImportPhase.Comparing, 10_000), told[^1]);
    }

    private static string Bulk(int rows)
    {
        var text = new StringBuilder("number,kind,name,maker\n");
        for (var row = 0; row < rows; row++)
        {
            text.Append("BULK-").Append(row).Append(",part,Bulk part,Mardle\n");
        }

        return text.ToString();
    }

    [Fact]
    public async Task Importing_is_the_leads_and_unknown_files_are_named()
    {
        var jory = await shop.SignInAsync("jory");
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (
                await jory.SendAsync(
                    new HttpRequestMessage(HttpMethod.Put, $"/api/catalogue/imports/{Guid.CreateVersion7()}?file=items&name=x")
                    {
                        Content = new StringContent("number", Encoding.UTF8, "text/csv"),
                    }
                )
            ).Status
        );
        Assert.Equal(HttpStatusCode.NotFound, (await jory.GetAsync("/api/catalogue/prices.csv")).Status);
        var ilse = await shop.SignInAsync("ilse");
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await ilse.PostAsync($"/api/catalogue/imports/{Guid.CreateVersion7()}/accept", new { })).Status
        );
        var broken = await SendAsync(ilse, "suppliers", "name;freight\nNorthmole;4\n");
        Assert.Equal(
            "The heading lacks supplier. It must have: supplier,freight",
            broken.GetProperty("report").GetProperty("firstRejected")[0].GetProperty("reason").GetString()
        );
    }
}
