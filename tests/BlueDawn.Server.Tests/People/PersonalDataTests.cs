using Npgsql;

namespace BlueDawn.Server.Tests.People;

/// <summary>What stands in the book of one person or owner is written out, or blanked in every place; the work stays.</summary>
public sealed class PersonalDataTests(Shop shop)
{
    [Fact]
    public async Task A_blanked_owner_stands_nowhere_and_every_verdict_is_what_it_was()
    {
        await using var place = await Place.NewAsync(shop.Database, demo: true);
        var ilse = await place.Server.SignInAsync("ilse");
        var owner = await OwnerAsync(ilse, "Harbour office");
        var (id, contact) = (owner.GetProperty("id").GetGuid(), owner.GetProperty("contact").GetString()!);
        var data = (await ilse.GetAsync($"/api/owners/{id}/data.json")).Body;
        Assert.Equal("Harbour office", data.GetProperty("owner").GetProperty("name").GetString());
        Assert.Contains(
            data.GetProperty("machines")
                .EnumerateArray()
                .SelectMany(machine => machine.GetProperty("trays").EnumerateArray())
                .SelectMany(tray => tray.GetProperty("entries").EnumerateArray()),
            entry => entry.GetProperty("report").ValueKind == JsonValueKind.Object
        );
        Assert.Contains("Type Harbour office", (await BlankAsync(ilse, id, "Harbor office")).Error("name"), StringComparison.Ordinal);
        var open = await ilse.NewTrayOfAsync("harbour OFFICE", "Office generator");
        Assert.Equal(id, (await OwnerAsync(ilse, "Harbour office")).GetProperty("id").GetGuid());
        Assert.Contains($"{open}", (await BlankAsync(ilse, id, "Harbour office")).Error("name"), StringComparison.Ordinal);
        await Shop.ExecuteAsync(
            place.Database,
            "update trays t set waits_for = 'HandedBack', complaint = 'Harbour office says it "
                + $"dies. ' || complaint from machines m where m.id = t.machine_id and m.owner_id = '{id}'"
        );
        var numbers = owner.GetProperty("trays").EnumerateArray().Select(tray => tray.GetProperty("number").GetInt32()).ToList();
        var before = await LinesAsync(ilse, numbers);
        Assert.NotEmpty(await WhereAsync(place.Database, "Harbour office"));
        Assert.Equal(HttpStatusCode.OK, (await BlankAsync(ilse, id, "Harbour office")).Status);
        Assert.Empty(await WhereAsync(place.Database, "Harbour office"));
        Assert.DoesNotContain(await WhereAsync(place.Database, contact), column =>
            column.StartsWith("logbook_entries", StringComparison.Ordinal)
        );
        Assert.Equal(before, await LinesAsync(ilse, numbers));
        Assert.StartsWith(
            "Former owner ",
            (await ilse.GetAsync($"/api/trays/{numbers[0]}")).Body.GetProperty("facts").GetProperty("ownerName").GetString(),
            StringComparison.Ordinal
        );
        // Nothing else than a name is let through, and only by these functions.
        var refused = await Assert.ThrowsAsync<PostgresException>(() =>
            Shop.ExecuteAsync(place.Database, "update logbook_entries set words = 'x'")
        );
        Assert.Equal(PostgresErrorCodes.RestrictViolation, refused.SqlState);
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await (await place.Server.SignInAsync("jory")).GetAsync($"/api/owners/{id}/data.json")).Status
        );
    }

    [Fact]
    public async Task Somebody_who_has_left_stands_nowhere_and_what_they_did_stays()
    {
        await using var place = await Place.NewAsync(shop.Database, demo: true);
        var ilse = await place.Server.SignInAsync("ilse");
        var jory = (await ilse.GetAsync("/api/people"))
            .Body.EnumerateArray()
            .Single(person => person.GetProperty("userName").GetString() == "jory");
        var id = jory.GetProperty("id").GetGuid();
        Assert.Contains(
            "Lock them out first",
            (await ilse.PostAsync($"/api/people/{id}/blank", new { userName = "jory" })).Error("userName"),
            StringComparison.Ordinal
        );
        var count = await Shop.ExecuteAsync(place.Database, $"select count(*) from logbook_entries where person_id = '{id}'");
        Assert.Equal((long)count!, (await ilse.GetAsync($"/api/people/{id}/data.json")).Body.GetProperty("entries").GetArrayLength());
        Assert.True((long)count! > 10);
        var shown = await Shop.ExecuteAsync(
            place.Database,
            "select string_agg(note::text, ' ' order by id) from logbook_entries where kind = 'reading'"
        );
        Assert.Equal(
            HttpStatusCode.OK,
            (
                await ilse.PutAsync(
                    $"/api/people/{id}",
                    new
                    {
                        displayName = "Jory Tamblyn",
                        initials = "JT",
                        role = "technician",
                        lockedOut = true,
                    }
                )
            ).Status
        );
        Assert.Equal(HttpStatusCode.OK, (await ilse.PostAsync($"/api/people/{id}/blank", new { userName = "jory" })).Status);
        Assert.Empty(await WhereAsync(place.Database, "Jory"));
        Assert.Empty(await WhereAsync(place.Database, "Tamblyn"));
        Assert.Equal(
            count,
            await Shop.ExecuteAsync(
                place.Database,
                $"select count(*) from logbook_entries where person_id = '{id}' and person_name like 'Former colleague _____'"
            )
        );
        Assert.Equal(
            shown,
            await Shop.ExecuteAsync(
                place.Database,
                "select string_agg(note::text, ' ' order by id) from logbook_entries where kind = 'reading'"
            )
        );
        Assert.Equal(HttpStatusCode.Unauthorized, (await place.Server.Visit().SignInAsync("jory", "sandrigg-quay")).Status);
    }

    [Fact]
    public async Task An_owner_is_spelled_right_made_one_with_another_and_two_who_change_it_at_once_are_told()
    {
        await using var place = await Place.NewAsync(shop.Database, demo: true);
        var (ilse, tam) = (await place.Server.SignInAsync("ilse"), await place.Server.SignInAsync("tam"));
        var tray = await ilse.NewTrayOfAsync("Boat Perin", "Deck pump");
        var wrong = await OwnerAsync(tam, "Boat Perin");
        var path = $"/api/owners/{wrong.GetProperty("id").GetGuid()}";
        object Change(string name, string contact = "", string was = "Boat Perin") =>
            new { now = new { name, contact }, was = new { name = was, contact = "" } };
        Assert.Contains(
            "is an owner Boat Perrin already",
            (await tam.PutAsync(path, Change("boat perrin"))).Error("name"),
            StringComparison.Ordinal
        );
        Assert.Contains("A name", (await tam.PutAsync(path, Change(" "))).Error("name"), StringComparison.Ordinal);
        var both = await Task.WhenAll(tam.PutAsync(path, Change("Boat Perrine", "berth 3")), ilse.PutAsync(path, Change("Boat Perin II")));
        Assert.Equal([HttpStatusCode.OK, HttpStatusCode.Conflict], both.Select(answer => answer.Status).Order());
        // Made one: the tray is of the other owner now, and the front desk may not do it.
        var into = (await OwnerAsync(ilse, "Boat Perrin")).GetProperty("id").GetGuid();
        Assert.Equal(HttpStatusCode.Forbidden, (await tam.PostAsync($"{path}/merge", new { into })).Status);
        Assert.Contains(
            "same owner",
            (await ilse.PostAsync($"{path}/merge", new { into = wrong.GetProperty("id").GetGuid() })).Error("into"),
            StringComparison.Ordinal
        );
        Assert.Equal(HttpStatusCode.OK, (await ilse.PostAsync($"{path}/merge", new { into })).Status);
        Assert.Equal(
            "Boat Perrin",
            (await ilse.GetAsync($"/api/trays/{tray}")).Body.GetProperty("facts").GetProperty("ownerName").GetString()
        );
        Assert.Equal(HttpStatusCode.NotFound, (await ilse.PostAsync($"{path}/merge", new { into })).Status);
    }

    private static async Task<JsonElement> OwnerAsync(Visitor visitor, string name) =>
        (await visitor.GetAsync($"/api/owners/all?text={Uri.EscapeDataString(name)}"))
            .Body.GetProperty("owners")
            .EnumerateArray()
            .Single(owner => owner.GetProperty("name").GetString() == name);

    private static Task<Answer> BlankAsync(Visitor lead, Guid id, string name) =>
        lead.PostAsync($"/api/owners/{id}/blank", new { name, contact = "" });

    private static async Task<string> LinesAsync(Visitor visitor, IEnumerable<int> trays)
    {
        var lines = new List<string>();
        foreach (var tray in trays)
        {
            lines.Add((await visitor.GetAsync($"/api/trays/{tray}")).Body.GetProperty("lines").ToString());
        }

        return string.Join('\n', lines);
    }

    /// <summary>Every column of every table that has this text in it.</summary>
    private static async Task<string[]> WhereAsync(string database, string text)
    {
        var columns = (
            (string)
                (
                    await Shop.ExecuteAsync(
                        database,
                        "select string_agg(table_name || '.' || column_name, ',') from information_schema.columns "
                            + "where table_schema = 'public' and data_type in ('text', 'jsonb', 'character varying')"
                    )
                )!
        ).Split(',');
        var found = new List<string>();
        foreach (var column in columns)
        {
            var (table, name) = (column.Split('.')[0], column.Split('.')[1]);
            if ((long)(await Shop.ExecuteAsync(database, $"select count(*) from \"{table}\" where \"{name}\"::text ilike '%{text}%'"))! > 0)
            {
                found.Add(column);
            }
        }

        return [.. found];
    }
}
