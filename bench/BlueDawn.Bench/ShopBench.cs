using System.Diagnostics;
using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Npgsql;

namespace BlueDawn.Bench;

/// <summary>
/// A running server over a shop of a size, by HTTP as a page asks: the bench at 60 open trays against one bare SQL of
/// the same rows, and the trace of one tray with 20 and with 1,000 closed traces in the shop.
/// </summary>
internal sealed class ShopBench(string database, string server) : IDisposable
{
    private const int Trays = 60;
    private const int Runs = 41;

    private readonly HttpClient http = new(new SocketsHttpHandler()) { BaseAddress = new Uri(server) };

    public void Dispose() => http.Dispose();

    public async Task RunAsync()
    {
        await SignInAsync();
        var tray = await OpenTraysAsync();
        var bench = await MedianAsync(() => http.GetByteArrayAsync("/api/bench"), () => ReadAsync(tray, "0.71"));
        var sql = await MedianAsync(ReadRowsAsync);
        using var first = await http.GetAsync("/api/bench");
        var unchanged = await MedianAsync(async () =>
        {
            using var ask = new HttpRequestMessage(HttpMethod.Get, "/api/bench") { Headers = { IfNoneMatch = { first.Headers.ETag! } } };
            using var answer = await http.SendAsync(ask);
            Need(answer.StatusCode == HttpStatusCode.NotModified, "the bench changed meanwhile");
        });
        Say("bench, bare SQL of the same rows", sql, sql);
        Say($"bench, {Trays} open trays, one changed", bench, sql);
        Say("bench, unchanged, 304", unchanged, sql);

        await TrayAsync(tray);

        await CloseTracesAsync(20);
        var few = await MedianAsync(() => http.GetByteArrayAsync("/api/trays/31/trace"));
        await CloseTracesAsync(1000);
        var many = await MedianAsync(() => http.GetByteArrayAsync("/api/trays/31/trace"));
        Say("trace, 20 closed traces in the shop", few, few);
        Say("trace, 1,000 closed traces", many, few);
    }

    /// <summary>A tray and its trace against bare SQL of the same rows, prepared, on one connection: worked out anew after an entry, and
    /// for whoever asks next.</summary>
    private async Task TrayAsync(int tray)
    {
        await using var connection = new NpgsqlConnection(database);
        await connection.OpenAsync();
        await using var row = new NpgsqlCommand(
            """
            select t.*, m.name, o.name, o.contact, s.sheet from trays t join machines m on m.id = t.machine_id
            join owners o on o.id = m.owner_id left join spec_sheets s on s.code = t.spec_code and s.issue = t.spec_issue where t.number = $1
            """,
            connection
        );
        await using var entries = new NpgsqlCommand(
            "select l.* from logbook_entries l join trays t on t.id = l.tray_id where t.number = $1",
            connection
        );
        foreach (var command in new[] { row, entries })
        {
            command.Parameters.Add(new NpgsqlParameter<int> { TypedValue = tray });
            await command.PrepareAsync();
        }

        async Task RowsAsync()
        {
            foreach (var command in new[] { row, entries })
            {
                await using var reader = await command.ExecuteReaderAsync();
                while (await reader.ReadAsync())
                {
                    reader.GetValues(new object[reader.FieldCount]);
                }
            }
        }

        var bare = await MedianAsync(RowsAsync);
        Say("a tray, bare SQL of its rows, prepared", bare, bare);
        foreach (var (what, path) in new[] { ("tray", $"/api/trays/{tray}"), ("trace", $"/api/trays/{tray}/trace") })
        {
            Say($"{what}, for whoever asks next", await MedianAsync(() => http.GetByteArrayAsync(path)), bare);
            Say(
                $"{what}, worked out after an entry",
                await MedianAsync(() => http.GetByteArrayAsync(path), () => ReadAsync(tray, "0.71")),
                bare
            );
        }
    }

    private static void Need(bool holds, string otherwise)
    {
        if (!holds)
        {
            throw new InvalidOperationException(otherwise);
        }
    }

    private static void Say(string what, double median, double against) =>
        Console.WriteLine(
            string.Create(CultureInfo.InvariantCulture, $"  {what, -38} median {median, 7:0.00} ms, {median / against, 5:0.00} times")
        );

    private static async Task<double> MedianAsync(Func<Task> work, Func<Task>? before = null)
    {
        var times = new List<double>();
        for (var run = -10; run < Runs; run++)
        {
            await (before?.Invoke() ?? Task.CompletedTask);
            var watch = Stopwatch.StartNew();
            await work();
            if (run >= 0)
            {
                times.Add(watch.Elapsed.TotalMilliseconds);
            }
        }

        times.Sort();
        return times[times.Count / 2];
    }

    private async Task<JsonElement> SendAsync(string path, object body)
    {
        using var answer = await http.PostAsJsonAsync(path, body);
        var text = await answer.Content.ReadAsStringAsync();
        Need(answer.IsSuccessStatusCode, $"{path}: {(int)answer.StatusCode} {text}");
        return JsonSerializer.Deserialize<JsonElement>(text);
    }

    private async Task SignInAsync()
    {
        async Task TokenAsync(JsonElement? session = null)
        {
            var token = (session ?? await http.GetFromJsonAsync<JsonElement>("/api/session")).GetProperty("token").GetString();
            http.DefaultRequestHeaders.Remove("X-Blue-Dawn-Token");
            http.DefaultRequestHeaders.Add("X-Blue-Dawn-Token", token);
        }

        await TokenAsync();
        await TokenAsync(await SendAsync("/api/session", new { userName = "jory", password = "sandrigg-quay" }));
    }

    /// <summary>Trays checked in until there are enough open ones, each with the readings of one that was handed back.</summary>
    private async Task<int> OpenTraysAsync()
    {
        var open = (await http.GetFromJsonAsync<JsonElement>("/api/bench"))
            .GetProperty("trays")
            .EnumerateArray()
            .Count(tray => tray.GetProperty("waitsFor").GetString() != "handedBack");
        var like = await http.GetFromJsonAsync<JsonElement>("/api/trays/17");
        var lines = like.GetProperty("lines").EnumerateArray().Where(line => line.GetProperty("station").GetString() != "proving").ToList();
        var number = 0;
        for (; open < Trays; open++)
        {
            number = (
                await SendAsync(
                    "/api/trays",
                    new
                    {
                        trayId = Guid.CreateVersion7(),
                        entryId = Guid.CreateVersion7(),
                        ownerName = "Boat Bench",
                        machineName = $"Pump {open}",
                        family = "floatBowl",
                        complaint = "Hunts",
                        promisedDay = DateOnly.FromDateTime(DateTime.Now.AddDays(3)),
                        stampedNumber = like.GetProperty("facts").GetProperty("stampedNumber").GetString(),
                    }
                )
            ).GetProperty("number").GetInt32();
            object Entry(object note) =>
                new
                {
                    id = Guid.CreateVersion7(),
                    takenAt = DateTimeOffset.UtcNow,
                    note,
                };
            await SendAsync(
                $"/api/trays/{number}/notes",
                new
                {
                    entries = lines
                        .Take(open % (lines.Count + 1))
                        .Select(line =>
                            Entry(
                                new
                                {
                                    kind = "reading",
                                    line = line.GetProperty("key").GetString(),
                                    typed = line.GetProperty("standing").GetProperty("typed"),
                                }
                            )
                        )
                        .Prepend(Entry(new { kind = "job", job = "closed" })),
                }
            );
        }

        return number;
    }

    /// <summary>Another reading on a tray.</summary>
    private Task<JsonElement> ReadAsync(int tray, string go) =>
        SendAsync(
            $"/api/trays/{tray}/notes",
            new
            {
                entries = new[]
                {
                    new
                    {
                        id = Guid.CreateVersion7(),
                        takenAt = DateTimeOffset.UtcNow,
                        note = new
                        {
                            kind = "reading",
                            line = "gauging/main-jet",
                            typed = new
                            {
                                units = "metric",
                                values = new { go, noGo = "0.73" },
                                rows = Array.Empty<object>(),
                            },
                        },
                    },
                },
            }
        );

    private async Task ReadRowsAsync()
    {
        await using var connection = new NpgsqlConnection(database);
        await connection.OpenAsync();
        await using var command = new NpgsqlCommand(
            """
            select t.*, m.name, o.name, o.contact, s.sheet, l.id, l.kind, l.note, l.words, l.taken_at, l.person_name, l.supersedes_id
            from trays t join machines m on m.id = t.machine_id join owners o on o.id = m.owner_id
            left join spec_sheets s on s.code = t.spec_code left join logbook_entries l on l.tray_id = t.id
            where t.waits_for <> 'HandedBack'
            """,
            connection
        );
        await using var reader = await command.ExecuteReaderAsync();
        var rows = 0;
        while (await reader.ReadAsync())
        {
            reader.GetValues(new object[reader.FieldCount]);
            rows++;
        }

        Need(rows > Trays, "no rows");
    }

    /// <summary>Handed-back trays with a confirmed cause, made from one of the demo's, until there are so many.</summary>
    private async Task CloseTracesAsync(int count)
    {
        await using var connection = new NpgsqlConnection(database);
        await connection.OpenAsync();
        await using var columns = new NpgsqlCommand(
            "select string_agg(quote_ident(column_name), ', ') from information_schema.columns where "
                + "table_name = 'trays' and column_name not in ('id', 'number', 'confirmed', 'released')",
            connection
        );
        var others = (string)(await columns.ExecuteScalarAsync())!;
        await using var add = new NpgsqlCommand(
            $$"""
            insert into trays (id, number, confirmed, released, {{others}})
            select gen_random_uuid(), (select max(number) from trays) + n,
                array[(array['idle-jet-blocked', 'fuel-stale', 'inlet-needle-leaking'])[1 + n % 3]], t.released, {{others}}
            from trays t, generate_series(1, @count - (select count(*)::int from trays where released and confirmed is not null)) n
            where t.number = 17;
            analyze trays
            """,
            connection
        );
        add.Parameters.AddWithValue("count", count);
        await add.ExecuteNonQueryAsync();
    }
}
