using System.Collections.Concurrent;
using System.Data.Common;
using BlueDawn.Store;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.EntityFrameworkCore.Diagnostics;
using Microsoft.Extensions.DependencyInjection;
using Npgsql;

namespace BlueDawn.Server.Tests.Trays;

/// <summary>
/// What an answer costs does not grow with the book: the statements and the rows they read, as the database counts them, are
/// the same with 20 trays that went back and with 20,000.
/// </summary>
public sealed class GrowthTests(Shop shop)
{
    /// <summary>How many rows may be looked at with many trays, of those with few: another plan looks at some more or less, and the
    /// two trays that the first count left on the bench are read by the second.</summary>
    private static long Most(long few) => (few * 5 / 4) + 12;

    private static readonly string[] Lists = ["the bench", "the latest owners", "the page of owners"];

    [Fact]
    public async Task Statements_and_rows_read_are_the_same_after_20_and_after_20_000_trays()
    {
        await using var place = await Place.NewAsync(shop.Database, demo: true);
        _ = place.Server.Visit();
        await GrowAsync(place.Database, 20);
        var few = (await CostsAsync(place.Database)).ToDictionary();
        // What lists so many and no more has so many to list only now.
        await GrowAsync(place.Database, 400);
        foreach (var (what, cost) in (await CostsAsync(place.Database)).Where(one => Lists.Contains(one.Key)))
        {
            few[what] = cost;
        }

        await GrowAsync(place.Database, 20_000);
        var many = await CostsAsync(place.Database);
        Assert.True(few["the bench"].Statements >= 3 && few["the bench"].Rows > 20, few["the bench"].Told);
        TestContext.Current.TestOutputHelper!.WriteLine(
            string.Join(
                '\n',
                many.Select(one => $"{one.Key}: {one.Value.Statements} statements, {few[one.Key].Rows} rows, then {one.Value.Rows}")
            )
        );
        Assert.All(many, one =>
        {
            var (before, after) = (few[one.Key], one.Value);
            Assert.True(
                after.Statements == before.Statements && after.Rows <= Most(before.Rows),
                $"{one.Key}: {before.Rows} rows, then {after.Rows}\n{before.Told}\nthen\n{after.Told}"
            );
        });
    }

    private static async Task<IReadOnlyDictionary<string, Cost>> CostsAsync(string database)
    {
        var reads = new ReadCounter(database);
        // A server of its own, so that nobody else's statements are counted.
        await using var server = new WebApplicationFactory<Program>().WithWebHostBuilder(host =>
            host.WithQuickPasswords()
                .UseSetting("BLUE_DAWN_DATABASE", database)
                .ConfigureServices(services => services.ConfigureDbContext<BlueDawnDb>(options => options.AddInterceptors(reads)))
        );
        var jory = new Visitor(server.CreateClient(new WebApplicationFactoryClientOptions { BaseAddress = new Uri("http://localhost") }));
        await jory.SignInAsync("jory", "sandrigg-quay");
        var costs = new Dictionary<string, Cost>();
        async Task CountAsync(string what, Func<Task<Answer>> ask)
        {
            reads.Begin();
            Assert.InRange((int)(await ask()).Status, 200, 299);
            costs[what] = reads.Sum();
        }

        Task GetAsync(string what, string path) => CountAsync(what, () => jory.GetAsync(path));
        await GetAsync("the bench", "/api/bench");
        await GetAsync("a tray", "/api/trays/27");
        await GetAsync("a trace", "/api/trays/31/trace");
        await GetAsync("what it is judged from", "/api/trays/31/snapshot");
        await GetAsync("the latest owners", "/api/owners");
        await GetAsync("owners by name", "/api/owners?text=harbour%20office");
        await GetAsync("an owner who is known", "/api/owners/alike?owner=Harbour%20office&machine=Office%20generator");
        await GetAsync("an owner who is almost known", "/api/owners/alike?owner=Harbor%20office&machine=");
        await GetAsync("an owner nobody knows", "/api/owners/alike?owner=Quite%20somebody%20else&machine=");
        await GetAsync("earlier trays", "/api/earlier?owner=Harbour%20office&machine=Office%20generator");
        await GetAsync("the page of owners", "/api/owners/all");
        await GetAsync("owners found", "/api/owners/all?text=harbour%20office");
        await GetAsync("found by owner", "/api/find?text=harbour%20office");
        await GetAsync("found by number", "/api/find?text=27");
        await GetAsync("found by two letters", "/api/find?text=wi");
        await GetAsync("found by nothing", "/api/find?text=Zx9-Zx9");
        await GetAsync("the baths", "/api/baths");
        await GetAsync("the stock", "/api/stock");
        await CountAsync("a check-in", () => jory.PostAsync(
                "/api/trays",
                new
                {
                    trayId = Guid.CreateVersion7(),
                    entryId = Guid.CreateVersion7(),
                    ownerName = $"Somebody new {Guid.NewGuid():N}",
                    machineName = "Bow winch",
                    family = "floatBowl",
                    complaint = "Hunts",
                    promisedDay = DateOnly.FromDateTime(DateTime.Now.AddDays(3)),
                }
            ));
        var tray = await jory.NewTrayAsync();
        await CountAsync("a reading", () => jory.RecordAsync(tray, "gauging/main-jet", new { go = "0.71", noGo = "0.73" }));
        return costs;
    }

    /// <summary>Trays that went back, each of its own machine, four to an owner, until there are so many.</summary>
    private static Task<object?> GrowAsync(string database, int trays) =>
        Shop.ExecuteAsync(
            database,
            $"""
            create temp table grown as select n, gen_random_uuid() as tray, gen_random_uuid() as machine
            from generate_series((select count(*) from trays where waits_for = 'HandedBack') + 1, {trays}) n;
            insert into owners (id, name, contact, folded, near)
            select md5('o' || boat)::uuid, 'Grown boat ' || boat, '0777 ' || boat, 'GROWNBOAT' || boat, array['GROWNBOAT' || boat]
            from (select distinct n / 4 as boat from grown) boats on conflict do nothing;
            insert into machines (id, owner_id, name, folded)
            select machine, md5('o' || n / 4)::uuid, 'Bilge pump ' || n, 'BILGEPUMP' || n from grown;
            -- Row by row it would take a minute.
            alter table bath_events disable trigger user;
            alter table logbook_entries disable trigger user;
            alter sequence tray_numbers restart with {trays + 200_000};
            insert into trays (id, number, machine_id, stamped_number, family, complaint, promised_day, waits_for, wait_note, checked_in_at,
                version, confirmed, released, came_back, spec_code, spec_issue)
            select g.tray, 100000 + g.n, g.machine, 'G-' || g.n * 7, 'FloatBowl', 'Does not start at ' || g.n, current_date, 'HandedBack', '',
                now() - interval '40 days', 1, array[(array['idle-jet-blocked', 'fuel-stale', 'inlet-needle-leaking'])[1 + g.n % 3]], true, false,
                t.spec_code, t.spec_issue
            from grown g, (select spec_code, spec_issue from trays where number = 17) t;
            insert into logbook_entries (id, tray_id, kind, words, note, person_id, person_name, taken_at, recorded_at)
            select gen_random_uuid(), g.tray, 'marks', '', jsonb_build_object('kind', 'marks', 'dateCode', '', 'plate', 'P' || g.n * 11),
                (select id from people limit 1), 'Jory', now() - interval '39 days', now() - interval '39 days'
            from grown g;
            insert into bath_events (id, bath, kind, at, tray_id, tray_number, basket, person_id, person_name)
            select gen_random_uuid(), 'heated', kind, now() - after, g.tray, 100000 + g.n, 1, (select id from people limit 1), 'Jory'
            from grown g, (values ('Placed', interval '39 days'), ('TakenOut', interval '38 days')) step (kind, after);
            alter table bath_events enable trigger user;
            alter table logbook_entries enable trigger user;
            drop table grown;
            analyze
            """
        );

    private sealed record Cost(int Statements, long Rows, string Told);

    /// <summary>Asks the database, for every question it is asked, how many rows it looked at for the answer.</summary>
    private sealed class ReadCounter(string database) : DbCommandInterceptor
    {
        private readonly ConcurrentQueue<(string Text, long Rows)> counted = new();

        private volatile bool counts;

        /// <summary>Counts from now on, and from nothing.</summary>
        public void Begin()
        {
            counted.Clear();
            counts = true;
        }

        public Cost Sum() =>
            new(counted.Count, counted.Sum(one => one.Rows), string.Join("\n---\n", counted.Select(one => $"{one.Rows}: {one.Text}")));

        public override async ValueTask<InterceptionResult<DbDataReader>> ReaderExecutingAsync(
            DbCommand command,
            CommandEventData eventData,
            InterceptionResult<DbDataReader> result,
            CancellationToken cancellationToken = default
        )
        {
            var reads = command.CommandText.TrimStart();
            var isQuestion =
                (
                    reads.StartsWith("select", StringComparison.OrdinalIgnoreCase)
                    || reads.StartsWith("with", StringComparison.OrdinalIgnoreCase)
                ) && !reads.Contains("for update", StringComparison.OrdinalIgnoreCase);
            if (counts)
            {
                counted.Enqueue((reads, isQuestion ? await RowsAsync(command) : 0));
            }

            return result;
        }

        private async Task<long> RowsAsync(DbCommand asked)
        {
            await using var connection = new NpgsqlConnection(
                new NpgsqlConnectionStringBuilder(database) { Options = StoreSetup.Plans }.ToString()
            );
            await connection.OpenAsync();
            await using var command = new NpgsqlCommand("explain (analyze, timing off, format json) " + asked.CommandText, connection);
            foreach (NpgsqlParameter parameter in asked.Parameters)
            {
                command.Parameters.Add(parameter.Clone());
            }

            using var plan = JsonDocument.Parse((string)(await command.ExecuteScalarAsync())!);
            return Rows(plan.RootElement[0].GetProperty("Plan"));
        }

        private static long Rows(JsonElement node)
        {
            long Of(string name) => node.TryGetProperty(name, out var value) ? (long)Math.Round(value.GetDouble()) : 0;
            var isScan = node.GetProperty("Node Type").GetString()!.EndsWith("Scan", StringComparison.Ordinal);
            var own = isScan
                ? (Of("Actual Rows") + Of("Rows Removed by Filter") + Of("Rows Removed by Index Recheck")) * Of("Actual Loops")
                : 0;
            return own + (node.TryGetProperty("Plans", out var parts) ? parts.EnumerateArray().Sum(Rows) : 0);
        }
    }
}
