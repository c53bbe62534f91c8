using System.IO.Compression;
using System.Net.Http.Headers;
using System.Text;
using System.Text.RegularExpressions;
using BlueDawn.Server.Tests.Intake;
using BlueDawn.Store.Moving;
using SkiaSharp;

namespace BlueDawn.Server.Tests.Moving;

/// <summary>A shop leaves with everything it has and moves into an empty one, whole or not at all.</summary>
public sealed partial class ArchiveTests(Shop shop)
{
    private const string Code = Place.Code,
        Password = "nine brass jets in a row";

    [Fact]
    public async Task Every_table_moves_or_is_said_to_stay_and_no_column_of_one_that_stays_behind_is_there()
    {
        var tables = (string)
            (
                await Shop.ExecuteAsync(
                    shop.Database,
                    "select string_agg(table_name, ',') from information_schema.tables where table_schema = 'public' and table_name <> '__EFMigrationsHistory'"
                )
            )!;
        Assert.Equal(tables.Split(',').Order(), ArchiveTable.All.Select(table => table.Name).Concat(ArchiveTable.StaysBehind.Keys).Order());
        var left = ArchiveTable.All.SelectMany(table => table.LeftOut.Select(column => $"{table.Name}.{column}"));
        var columns = (
            (string)
                (
                    await Shop.ExecuteAsync(
                        shop.Database,
                        "select string_agg(table_name || '.' || column_name, ',') from information_schema.columns where table_schema = 'public'"
                    )
                )!
        ).Split(',');
        Assert.Empty(left.Except(columns));
    }

    [Fact]
    public async Task The_demo_moved_to_an_empty_place_gives_equal_reports_and_goes_on_there()
    {
        // On a database of its own: nobody else writes while the two are compared.
        await using var home = await Place.NewAsync(shop.Database, demo: true);
        var ilse = await home.Server.SignInAsync("ilse");
        // A photo goes along as a file of its own.
        await AddPhotoAsync(ilse);
        // What the shop knows by itself, too.
        var learned = await ilse.PostAsync(
            "/api/shop/knowledge/accept",
            new
            {
                act = "takeOut",
                was = 0,
                table = "faults/cause-findings.csv",
                key = "fuel-stale starts-then-dies",
                why = "never seen here",
            }
        );
        Assert.Equal(HttpStatusCode.OK, learned.Status);
        var archive = await ArchiveAsync(ilse);
        await using var place = await Place.NewAsync(shop.Database);
        var lead = place.Server.Visit();
        await lead.RefreshAsync();
        Assert.Equal(HttpStatusCode.OK, (await MoveAsync(lead, archive)).Status);
        await lead.RefreshAsync();
        Assert.False((await lead.GetAsync("/api/session")).Body.GetProperty("toSetUp").GetBoolean());
        foreach (
            var tray in (
                (string)(await Shop.ExecuteAsync(home.Database, "select string_agg(number::text, ',' order by number) from trays"))!
            ).Split(',')
        )
        {
            foreach (var path in new[] { $"/api/trays/{tray}/report", $"/api/trays/{tray}/ledger", $"/api/trays/{tray}/snapshot" })
            {
                Assert.Equal(await SaidAsync(ilse, path), await SaidAsync(lead, path));
            }
        }

        Assert.Equal((await ilse.GetAsync("/api/sheets/file")).Body.ToString(), (await lead.GetAsync("/api/sheets/file")).Body.ToString());
        Assert.Equal((await ilse.GetAsync("/api/shop/rules")).Body.ToString(), (await lead.GetAsync("/api/shop/rules")).Body.ToString());
        Assert.Equal(learned.Body.ToString(), (await lead.GetAsync("/api/shop/knowledge")).Body.ToString());
        await Shop.SumsAgreeAsync(place.Database);
        Assert.Equal(
            await Shop.ExecuteAsync(home.Database, "select string_agg(md5(jpeg), ',' order by id) from photos"),
            await Shop.ExecuteAsync(place.Database, "select string_agg(md5(jpeg), ',' order by id) from photos")
        );
        // The old password of nobody holds here, and work goes on under the next number.
        Assert.Equal(HttpStatusCode.Unauthorized, (await place.Server.Visit().SignInAsync("jory", "sandrigg-quay")).Status);
        var last = (int)(await Shop.ExecuteAsync(place.Database, "select max(number) from trays"))!;
        Assert.Equal(last + 1, await lead.NewTrayAsync());
        Assert.Equal(HttpStatusCode.Conflict, (await MoveAsync(lead, archive)).Status);
    }

    [Fact]
    public async Task What_is_wrong_is_said_with_its_file_and_row_and_nothing_is_changed()
    {
        var ilse = await shop.SignInAsync("ilse");
        await AddPhotoAsync(ilse);
        var archive = await ArchiveAsync(ilse);
        await using var place = await Place.NewAsync(shop.Database);
        var visitor = place.Server.Visit();
        await visitor.RefreshAsync();
        Assert.Contains(
            "not the code",
            (await MoveAsync(visitor, archive, code: "AAAA-AAAA-AAAA")).Error("code"),
            StringComparison.Ordinal
        );
        Assert.Contains("list", (await MoveAsync(visitor, archive, password: "password1234")).Error("password"), StringComparison.Ordinal);
        Assert.Contains(
            "no lead who signs in as “jory”. It has ilse",
            (await MoveAsync(visitor, archive, userName: "jory")).Error("userName"),
            StringComparison.Ordinal
        );
        foreach (
            var (broken, says) in new (byte[], string)[]
            {
                (archive[..(archive.Length / 2)], "not all of it arrived"),
                ("no zip at all"u8.ToArray(), "no ZIP"),
                (
                    With(archive, "blue-dawn.json", text => text.Replace("\"version\": \"", "\"version\": \"1", StringComparison.Ordinal)),
                    "another version"
                ),
                (With(archive, "blue-dawn.json", _ => null), "no archive of a shop"),
                (With(archive, "tables/trays.jsonl", text => text + "{\n"), "tables/trays.jsonl, row"),
                (
                    With(archive, "tables/owners.jsonl", text => text[(text.IndexOf('\n', StringComparison.Ordinal) + 1)..]),
                    "It is not whole"
                ),
                (
                    With(archive, "tables/machines.jsonl", text =>
                        text.Replace("\"owner_id\": \"", "\"owner_id\": \"00", StringComparison.Ordinal)
                    ),
                    "tables/machines.jsonl: invalid input syntax for type uuid"
                ),
                (
                    With(archive, "tables/owners.jsonl", text => text.Replace("\"contact\"", "\"shoe_size\"", StringComparison.Ordinal)),
                    "row 1, shoe_size"
                ),
                (
                    With(archive, "tables/people.jsonl", text => text.Replace("\"pins\"", "\"password_hash\"", StringComparison.Ordinal)),
                    "row 1, password_hash"
                ),
                (
                    With(archive, "blue-dawn.json", text =>
                        text.Replace("\"currency\": \"", "\"currency\": 7, \"money\": \"", StringComparison.Ordinal)
                    ),
                    "blue-dawn.json has something in it that cannot be read"
                ),
                (
                    With(archive, "tables/spec_sheets.jsonl", text =>
                        text.Replace("\"jets\": [", "\"jets\": 7, \"x\": [", StringComparison.Ordinal)
                    ),
                    "tables/spec_sheets.jsonl has something in it that cannot be read"
                ),
                (With(archive, PhotoIn(archive), _ => null), "photos/"),
                (With(archive, PhotoIn(archive), _ => "<svg/>"), "is no JPEG"),
            }
        )
        {
            var refused = (await MoveAsync(visitor, broken)).Error("archive");
            Assert.Contains(says, refused, StringComparison.Ordinal);
            Assert.EndsWith("Nothing was changed.", refused, StringComparison.Ordinal);
        }

        Assert.Equal(
            0L,
            await Shop.ExecuteAsync(
                place.Database,
                "select (select count(*) from people) + (select count(*) from trays) + (select count(*) from spec_sheets)"
            )
        );
        // Two at the same moment: one moves in.
        var other = place.Server.Visit();
        await other.RefreshAsync();
        var both = await Task.WhenAll(MoveAsync(visitor, archive), MoveAsync(other, archive));
        Assert.Equal([HttpStatusCode.OK, HttpStatusCode.Conflict], both.Select(answer => answer.Status).Order());
    }

    [Fact]
    public async Task It_is_the_leads_and_holds_no_password()
    {
        Assert.Equal(HttpStatusCode.Forbidden, (await (await shop.SignInAsync("jory")).GetAsync("/api/shop/archive.zip")).Status);
        var hash = (string)(await Shop.ExecuteAsync(shop.Database, "select password_hash from people limit 1"))!;
        using var zip = new ZipArchive(new MemoryStream(await ArchiveAsync(await shop.SignInAsync("ilse"))));
        foreach (var entry in zip.Entries.Where(entry => !entry.FullName.StartsWith("photos/", StringComparison.Ordinal)))
        {
            using var reader = new StreamReader(entry.Open());
            var text = await reader.ReadToEndAsync(TestContext.Current.CancellationToken);
            Assert.DoesNotContain(hash, text, StringComparison.Ordinal);
            Assert.DoesNotContain("_hash", text, StringComparison.Ordinal);
        }
    }

    /// <summary>An answer without how often its tray was written to: that is counted at each place.</summary>
    private static async Task<string> SaidAsync(Visitor visitor, string path) =>
        Revision().Replace((await visitor.GetAsync(path)).Body.ToString(), "");

    [GeneratedRegex("\"revision\":\\d+,")]
    private static partial Regex Revision();

    private static Task<byte[]> ArchiveAsync(Visitor lead) =>
        lead.Http.GetByteArrayAsync("/api/shop/archive.zip", TestContext.Current.CancellationToken);

    private static Task<Answer> MoveAsync(
        Visitor visitor,
        byte[] archive,
        string code = Code,
        string userName = "ilse",
        string password = Password
    )
    {
        var request = new HttpRequestMessage(HttpMethod.Post, "/api/session/first/archive") { Content = new ByteArrayContent(archive) };
        request.Content.Headers.ContentType = new MediaTypeHeaderValue("application/zip");
        request.Headers.Add("X-Setup-Code", code);
        request.Headers.Add("X-User-Name", Uri.EscapeDataString(userName));
        request.Headers.Add("X-New-Password", Uri.EscapeDataString(password));
        return visitor.SendAsync(request);
    }

    private static async Task AddPhotoAsync(Visitor visitor)
    {
        var answer = await PhotoTests.AddAsync(visitor, await visitor.NewTrayAsync(), PhotoTests.Picture(SKEncodedImageFormat.Jpeg, 6, 4));
        Assert.True((int)answer.Status < 300, answer.Body.ToString());
    }

    /// <summary>An archive with one of its files changed, or without it.</summary>
    private static byte[] With(byte[] archive, string path, Func<string, string?> change)
    {
        using var file = new MemoryStream();
        file.Write(archive);
        using (var zip = new ZipArchive(file, ZipArchiveMode.Update, leaveOpen: true))
        {
            var entry = zip.GetEntry(path)!;
            string before;
            using (var reader = new StreamReader(entry.Open()))
            {
                before = reader.ReadToEnd();
            }

            entry.Delete();
            if (change(before) is { } after)
            {
                using var writer = new StreamWriter(zip.CreateEntry(path).Open(), new UTF8Encoding(false));
                writer.Write(after);
            }
        }

        return file.ToArray();
    }

    private static string PhotoIn(byte[] archive)
    {
        using var zip = new ZipArchive(new MemoryStream(archive));
        return zip.Entries.First(entry => entry.FullName.StartsWith("photos/", StringComparison.Ordinal)).FullName;
    }
}
