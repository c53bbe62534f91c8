using System.Diagnostics;
using BlueDawn.Core.Chokes;
using BlueDawn.Core.Proving;
using BlueDawn.Core.Setting;
using Microsoft.AspNetCore.Mvc.Testing;
using Npgsql;

namespace BlueDawn.Server.Tests.Upgrade;

/// <summary>
/// A shop's database as an earlier version left it (tests/upgrade/*.dump, made by that version's own pg_dump) comes up
/// under this version and is judged as that version judged it (the .json beside it, taken from its running server).
/// </summary>
public sealed class UpgradeTests(Shop shop) : IAsyncLifetime
{
    private readonly string name = $"blue_dawn_upgrade_{Guid.NewGuid():N}";
    private string database = "";
    private WebApplicationFactory<Program> factory = null!;
    private Visitor ilse = null!;

    public async ValueTask InitializeAsync()
    {
        await Shop.ExecuteAsync(shop.Database, $"create database {name}");
        var restored = new NpgsqlConnectionStringBuilder(shop.Database) { Database = name };
        database = restored.ToString();
        await RestoreAsync(restored);
        factory = new WebApplicationFactory<Program>().WithWebHostBuilder(host => host.UseSetting("BLUE_DAWN_DATABASE", database));
        ilse = new Visitor(factory.CreateClient(new WebApplicationFactoryClientOptions { BaseAddress = new Uri("http://localhost") }));
        await ilse.SignInAsync("ilse", "sandrigg-quay");
    }

    public async ValueTask DisposeAsync()
    {
        await factory.DisposeAsync();
        await Shop.ExecuteAsync(shop.Database, $"drop database {name} with (force)");
    }

    /// <summary>What is judged otherwise since, and why; anything else, and any of these that is as it was, fails.</summary>
    private static readonly Dictionary<string, string> OnPurpose = new()
    {
        ["tray 18, lines"] = "decision 50: three heights 0.2 mm apart leave a limit of 0.3 mm open",
        ["tray 18, obstacles"] = "decision 50",
        ["tray 18, stations"] = "decision 50",
        ["tray 22, report"] = "decision 53: a kit that has not come is not on the report",
        ["tray 25, next"] = "decision 81: its choke is tried before the engine is proven",
        ["tray 28, next"] = "decision 58",
        ["tray 28, stations"] = "decision 58: not ready to go before the complaint is tried again",
        ["tray 29, report"] = "decision 53",
        ["tray 37, report"] = "decision 53",
        ["tray 36, next"] = "decision 158: the outside is brushed clean before it comes apart",
        ["tray 37, next"] = "decision 158",
        ["tray 38, next"] = "decision 72: the metering side is looked at before the hold test",
        ["tray 39, report"] = "decision 53",
        ["tray 24, stations"] = "decision 163: the holes of the bowl nut are a passage of every float bowl",
        ["tray 39, stations"] = "decision 163: the holes of the bowl nut are a passage of every float bowl",
        ["tray 33, lines"] = "decision 97: without a sheet what is usual is asked all the same",
        ["tray 33, obstacles"] = "decision 97",
        ["tray 33, stations"] = "decision 97",
        ["tray 33, report"] = "decision 97",
        ["tray 35, lines"] = "decision 97",
        ["tray 35, obstacles"] = "decision 97",
        ["tray 35, stations"] = "decision 97",
        ["tray 35, report"] = "decision 97",
        ["tray 38, traceNext"] = "decision 167: its sheet has the plate toward the cover, and it came out toward the lever",
        ["tray 38, causes"] = "decision 167",
        ["tray 17, causes"] = "decision 112: findings that decide and more causes for each trouble",
        ["tray 17, traceNext"] = "decision 112: what has to be so before it runs, and cheap looks, come first",
        ["tray 18, causes"] = "decision 112: findings that decide and more causes for each trouble",
        ["tray 18, traceNext"] = "decision 112: what has to be so before it runs, and cheap looks, come first",
        ["tray 19, causes"] = "decision 112: findings that decide and more causes for each trouble",
        ["tray 19, traceNext"] = "decision 112: what has to be so before it runs, and cheap looks, come first",
        ["tray 22, causes"] = "decision 112: findings that decide and more causes for each trouble",
        ["tray 24, causes"] = "decision 112: findings that decide and more causes for each trouble",
        ["tray 25, causes"] = "decision 112: findings that decide and more causes for each trouble",
        ["tray 25, traceNext"] = "decision 112: what has to be so before it runs, and cheap looks, come first",
        ["tray 26, traceNext"] = "decision 112: what has to be so before it runs, and cheap looks, come first",
        ["tray 27, causes"] = "decision 112: findings that decide and more causes for each trouble",
        ["tray 27, traceNext"] = "decision 112: what has to be so before it runs, and cheap looks, come first",
        ["tray 29, traceNext"] = "decision 112: what has to be so before it runs, and cheap looks, come first",
        ["tray 30, traceNext"] = "decision 112: what has to be so before it runs, and cheap looks, come first",
        ["tray 31, next"] = "decision 112: what has to be so before it runs, and cheap looks, come first",
        ["tray 31, traceNext"] = "decision 112: what has to be so before it runs, and cheap looks, come first",
        ["tray 32, traceNext"] = "decision 112: what has to be so before it runs, and cheap looks, come first",
        ["tray 33, causes"] = "decision 112: findings that decide and more causes for each trouble",
        ["tray 33, next"] = "decision 112: what has to be so before it runs, and cheap looks, come first",
        ["tray 33, traceNext"] = "decision 112: what has to be so before it runs, and cheap looks, come first",
        ["tray 34, next"] = "decision 112: what has to be so before it runs, and cheap looks, come first",
        ["tray 34, traceNext"] = "decision 112: what has to be so before it runs, and cheap looks, come first",
        ["tray 36, traceNext"] = "decision 60: looking at the fuel is the better start now that a hunting engine has more causes",
        ["tray 36, lines"] = "no needle and seat on a carburetor that stands on its tank",
        ["tray 36, obstacles"] = "no needle and seat on a carburetor that stands on its tank",
        ["tray 36, stations"] = "no needle and seat on a carburetor that stands on its tank",
        ["tray 36, report"] = "no needle and seat on a carburetor that stands on its tank",
        ["tray 18, report"] = "decision 152: a danger is signed for by itself",
        ["tray 19, obstacles"] = "decision 152: fuel that was seen in the open stands until it was watched dry",
        ["tray 22, obstacles"] = "decision 152: fuel that was seen in the open stands until it was watched dry",
        ["tray 26, obstacles"] = "decision 152: fuel that was seen in the open stands until it was watched dry",
        ["tray 17, obstacles"] = "decision 153: what was put right was not tried again",
        ["tray 17, stations"] = "decision 153: what was put right was not tried again",
        ["tray 34, report"] = "decision 155: it is stored by what would harden in it",
        ["tray 38, report"] = "decision 155: it is stored by what would harden in it",
        ["tray 37, obstacles"] = "decision 152: fuel that was seen in the open stands until it was watched dry",
    };

    /// <summary>Lines that Set, Choke and Trace did not have (decisions 72, 81 and 114).</summary>
    private static readonly HashSet<string> NewAtSet =
    [
        .. ChokesStation.ShippedLooks.Select(look => $"chokes/{look.Key}"),
        "chokes/opening",
        "chokes/suction-force",
        "chokes/warm-water",
        "chokes/rod-travel",
        "chokes/return-spring",
        "chokes/chamber-hold",
        "chokes/warm-strip",
        .. ProvingStation.ShippedLooks.Select(look => $"proving/{look.Key}"),
        .. SettingStation.ShippedLooks.Select(look => $"setting/{look.Key}"),
        "setting/lever-height",
        "setting/pop-off",
        "setting/float-drop",
        "setting/seat-bore",
        "setting/bowl-squeeze",
        "faults/compression",
        "faults/minutes-to-failure",
        "faults/bulb-strokes",
        "faults/missing-fuel",
    ];

    /// <summary>Trays whose complaints the fuel-on line tries anyway.</summary>
    private static readonly HashSet<int> TriedByFuelOn = [19, 22, 26, 37];

    [Fact]
    public async Task Every_tray_is_judged_as_before()
    {
        var told = new List<string>();
        foreach (var before in Before().EnumerateArray())
        {
            var number = before.GetProperty("number").GetInt32();
            var tray = (await ilse.GetAsync($"/api/trays/{number}")).Body;
            var trace = (await ilse.GetAsync($"/api/trays/{number}/trace")).Body.GetProperty("trace");
            var ledger = (await ilse.GetAsync($"/api/trays/{number}/ledger")).Body;
            var report = (await ilse.GetAsync($"/api/trays/{number}/report")).Body;
            var next = tray.GetProperty("next");
            void Same(string what, object? now)
            {
                var (was, text) = (JsonSerializer.Serialize(before.GetProperty(what)), JsonSerializer.Serialize(now));
                if (was != text)
                {
                    told.Add($"tray {number}, {what}: was {was}, is {text}");
                }
            }

            Same("waitsFor", tray.GetProperty("facts").GetProperty("waitsFor"));
            Same(
                "next",
                new
                {
                    station = next.GetProperty("station"),
                    line = next.GetProperty("lineKey"),
                    @do = next.GetProperty("do").GetProperty("text"),
                }
            );
            // Decision 58: what the owner complained of has lines of its own, asked for while the tray is in the shop.
            var complaints = tray.GetProperty("lines").EnumerateArray().Where(Visitor.IsComplaint).ToList();
            var gone = tray.GetProperty("facts").GetProperty("waitsFor").GetString() == "handedBack";
            if (
                gone == complaints.Count > 0
                && tray.GetProperty("spec").ValueKind == JsonValueKind.Object
                && !TriedByFuelOn.Contains(number)
            )
            {
                told.Add($"tray {number}, complaints: {complaints.Count} lines");
            }

            Same(
                "lines",
                Rows(
                    tray.GetProperty("lines"),
                    line =>
                        [
                            line.GetProperty("key"),
                            line.GetProperty("judgement").GetProperty("verdict"),
                            line.GetProperty("judgement").GetProperty("finding"),
                        ],
                    line => !Visitor.IsComplaint(line) && !NewAtSet.Contains(line.GetProperty("key").GetString()!)
                )
            );
            Same(
                "obstacles",
                Rows(
                    tray.GetProperty("obstacles"),
                    one => [one.GetProperty("lineKey"), one.GetProperty("kind")],
                    one =>
                        one.GetProperty("lineKey").GetString()! is var key
                        && !key.StartsWith("proving/complaint-", StringComparison.Ordinal)
                        && !NewAtSet.Contains(key)
                )
            );
            Same(
                "stations",
                Rows(
                    tray.GetProperty("stations"),
                    one =>
                    {
                        var station = one.GetProperty("station").GetString();
                        var added = tray.GetProperty("lines")
                            .EnumerateArray()
                            .Where(line =>
                                line.GetProperty("key").GetString()! is var key
                                && key.StartsWith(station + "/", StringComparison.Ordinal)
                                && NewAtSet.Contains(key)
                            )
                            .ToList();
                        var more = station == "proving" ? complaints.Count : 0;
                        return
                        [
                            one.GetProperty("station"),
                            one.GetProperty("open").GetInt32() - more - added.Count(line => line.GetProperty("required").GetBoolean()),
                            one.GetProperty("total").GetInt32() - more - added.Count(line => line.GetProperty("required").GetBoolean()),
                            one.GetProperty("waiting"),
                        ];
                    },
                    one => one.GetProperty("station").GetString() != "chokes"
                )
            );
            // Decision 60: the tables know more causes, so that each of the others has a little less; none by more than 0.02.
            var causes = trace
                .GetProperty("causes")
                .EnumerateArray()
                .ToDictionary(
                    cause => cause.GetProperty("cause").GetProperty("id").GetString()!,
                    cause => cause.GetProperty("probability").GetDouble()
                );
            told.AddRange(
                before
                    .GetProperty("causes")
                    .EnumerateArray()
                    .Where(cause => Math.Abs(cause[1].GetDouble() - causes.GetValueOrDefault(cause[0].GetString()!)) > 0.02)
                    .Take(1)
                    .Select(cause => $"tray {number}, causes: {cause} before, {causes.GetValueOrDefault(cause[0].GetString()!)} now")
            );
            var step = trace.GetProperty("next");
            Same("traceNext", new[] { step.GetProperty("kind"), step.GetProperty("checkId"), step.GetProperty("causeId") });
            Same(
                "ledger",
                Rows(
                    ledger.GetProperty("lines"),
                    line => [line.GetProperty("part").GetProperty("key"), line.GetProperty("state")],
                    line => line.GetProperty("entryId").ValueKind != JsonValueKind.Null
                )
            );
            Same("problems", ledger.GetProperty("problems").EnumerateArray().Select(problem => problem.GetProperty("what")));
            Same("logbook", tray.GetProperty("logbook").GetArrayLength());
            Same(
                "report",
                new
                {
                    watch = report
                        .GetProperty("watch")
                        .EnumerateArray()
                        .Where(point =>
                            !point.GetString()!.EndsWith("was not tried again.", StringComparison.Ordinal)
                            && !point.GetString()!.EndsWith("was not looked at.", StringComparison.Ordinal)
                            && !point.GetString()!.EndsWith("was not timed.", StringComparison.Ordinal)
                            && point.GetString() is not ("Metering lever’s height: was not read." or "Pop-off: was not read.")
                        ),
                    parts = report.GetProperty("parts"),
                    signed = report.GetProperty("signed"),
                    faults = report.GetProperty("faults"),
                    kit = report.GetProperty("kit") is { ValueKind: JsonValueKind.Object } kit
                        ? kit.GetProperty("number")
                        : report.GetProperty("kit"),
                }
            );
        }

        Assert.True(
            told.Select(line => line[..line.IndexOf(':', StringComparison.Ordinal)]).Order().SequenceEqual(OnPurpose.Keys.Order()),
            string.Join("\n", told)
        );
    }

    [Fact]
    public Task The_shelf_is_summed_up() => Shop.SumsAgreeAsync(database);

    private static IEnumerable<object[]> Rows(JsonElement list, Func<JsonElement, object[]> row, Func<JsonElement, bool>? which = null) =>
        list.EnumerateArray().Where(which ?? (_ => true)).Select(row);

    private static JsonElement Before() =>
        JsonSerializer.Deserialize<JsonElement>(File.ReadAllText(Path.Combine(Folder(), "bench-2026-11-27.json")));

    private static string Folder() => Path.Combine(Repository.Root, "tests", "upgrade");

    /// <summary>Debian keeps the tools of each PostgreSQL version in a folder of its own.</summary>
    private static async Task RestoreAsync(NpgsqlConnectionStringBuilder to)
    {
        var tool = Directory
            .GetDirectories("/usr/lib/postgresql")
            .Order()
            .Select(version => Path.Combine(version, "bin", "pg_restore"))
            .Last(File.Exists);
        using var restore = Process.Start(
            new ProcessStartInfo(
                tool,
                [
                    "--no-owner",
                    "--exit-on-error",
                    "-h",
                    to.Host!,
                    "-p",
                    $"{to.Port}",
                    "-U",
                    to.Username!,
                    "-d",
                    to.Database!,
                    Path.Combine(Folder(), "bench-2026-11-27.dump"),
                ]
            )
            {
                RedirectStandardError = true,
            }
        )!;
        var problems = await restore.StandardError.ReadToEndAsync();
        await restore.WaitForExitAsync();
        Assert.True(restore.ExitCode == 0, problems);
    }
}
