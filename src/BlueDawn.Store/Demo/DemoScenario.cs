using System.Text.Json;
using BlueDawn.Core.Bench;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Gauging;
using BlueDawn.Core.Handover;
using BlueDawn.Core.Intake;
using BlueDawn.Core.Kits;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Worksheets;
using BlueDawn.Store.Intake;
using BlueDawn.Store.Kits;
using BlueDawn.Store.Logbook;
using BlueDawn.Store.People;
using BlueDawn.Store.Trays;
using BlueDawn.Store.Worksheets;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Store.Demo;

/// <summary>
/// The workshop at Sandrigg Quay: invented people, machines, spec sheets, kits and trays, loaded into an empty store so
/// that the product can be tried at once. Readings go through the same rules as typed ones.
/// </summary>
public sealed class DemoScenario(BlueDawnDb db, UserManager<Person> people, TimeProvider clock)
{
    /// <summary>The password of every demo account.</summary>
    public const string Password = "sandrigg-quay";

    private const string ReferenceDefaults = "reference/shop-defaults.json";

    private sealed record DemoPerson(string UserName, string DisplayName, string Role, UnitSystem Units, string Pins);

    private sealed record DemoKit(string Number, string Name, string Maker, decimal Price, int OnShelf, IReadOnlyList<string> ListedFor, IReadOnlyList<KitPart> Parts);

    private sealed record DemoReading(
        string Line, string By, double HoursAgo, IReadOnlyDictionary<string, string> Values, IReadOnlyList<IReadOnlyDictionary<string, string>> Rows);

    private sealed record DemoRelease(string By, double HoursAgo, string? Reason, string? SignedBy);

    private sealed record DemoFindings(string By, double HoursAgo, string? Check, IReadOnlyList<string> Present, IReadOnlyList<string> Absent);

    private sealed record DemoFault(string Cause, FaultOutcome Outcome, string By, double HoursAgo);

    private sealed record DemoTray(
        int Number,
        string OwnerName,
        string OwnerContact,
        string MachineName,
        string StampedNumber,
        string? SpecCode,
        string? KitNumber,
        string Complaint,
        double CheckedInHoursAgo,
        string CheckedInBy,
        int PromisedInDays,
        WaitsFor WaitsFor,
        string WaitNote,
        IReadOnlyList<DemoReading> Readings,
        DemoRelease? Release,
        EngineKind Engine,
        ChokeKind? Choke,
        Story Story,
        IReadOnlyList<DemoFindings> Findings,
        IReadOnlyList<DemoFault> Faults);

    /// <summary>Puts the shop's defaults and the roles in place; does nothing where they are there already.</summary>
    public static async Task EnsureShopAsync(BlueDawnDb db, RoleManager<IdentityRole<Guid>> roles, CancellationToken cancel)
    {
        if (!await db.Shop.AnyAsync(cancel))
        {
            db.Shop.Add(new ShopRow { Defaults = Read<ShopDefaults>(ReferenceDefaults) });
            await db.SaveChangesAsync(cancel);
        }

        foreach (var role in Roles.All)
        {
            if (!await roles.RoleExistsAsync(role))
            {
                await roles.CreateAsync(new IdentityRole<Guid>(role));
            }
        }
    }

    /// <summary>Loads the scenario when the store has no people yet.</summary>
    /// <returns>True when it was loaded.</returns>
    public async Task<bool> LoadAsync(CancellationToken cancel)
    {
        if (await db.Users.AnyAsync(cancel))
        {
            return false;
        }

        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        var staff = await LoadPeopleAsync();
        var now = clock.GetUtcNow();
        foreach (var sheet in Read<List<SpecSheet>>("demo/spec-sheets.json"))
        {
            db.SpecSheets.Add(new SpecSheetRow { Code = sheet.Code, Sheet = sheet });
        }

        foreach (var kit in Read<List<DemoKit>>("demo/kits.json"))
        {
            var row = new Kit
            {
                Id = Guid.CreateVersion7(now),
                Number = kit.Number,
                Price = kit.Price,
                Contents = new KitContents(kit.Number, kit.Name, kit.Maker, kit.ListedFor, kit.Parts),
            };
            db.Kits.Add(row);
            Shelf.Move(db, row.Id, kit.OnShelf, null, staff["ilse"].Id, now.AddDays(-30));
        }

        await db.SaveChangesAsync(cancel);
        var trays = Read<List<DemoTray>>("demo/trays.json");
        foreach (var tray in trays)
        {
            await LoadTrayAsync(tray, staff, now, cancel);
        }

        await db.Database.ExecuteSqlAsync($"select setval('tray_numbers', {trays.Max(tray => tray.Number)})", cancel);
        await transaction.CommitAsync(cancel);
        return true;
    }

    private async Task<Dictionary<string, Person>> LoadPeopleAsync()
    {
        var staff = new Dictionary<string, Person>();
        foreach (var demo in Read<List<DemoPerson>>("demo/people.json"))
        {
            var person = new Person
            {
                Id = Guid.CreateVersion7(),
                UserName = demo.UserName,
                DisplayName = demo.DisplayName,
                Units = demo.Units,
                Pins = demo.Pins,
                LockoutEnabled = true,
            };
            Require(await people.CreateAsync(person, Password));
            Require(await people.AddToRoleAsync(person, demo.Role));
            staff.Add(demo.UserName, person);
        }

        return staff;
    }

    private async Task LoadTrayAsync(DemoTray demo, Dictionary<string, Person> staff, DateTimeOffset now, CancellationToken cancel)
    {
        var checkedIn = now.AddHours(-demo.CheckedInHoursAgo);
        var owner = await db.Owners.FirstOrDefaultAsync(o => o.Name == demo.OwnerName, cancel)
            ?? db.Owners.Add(new Owner { Id = Guid.CreateVersion7(checkedIn), Name = demo.OwnerName, Contact = demo.OwnerContact }).Entity;
        var tray = new Tray
        {
            Id = Guid.CreateVersion7(checkedIn),
            Number = demo.Number,
            Machine = new Machine { Id = Guid.CreateVersion7(checkedIn), Owner = owner, Name = demo.MachineName },
            StampedNumber = demo.StampedNumber,
            SpecCode = demo.SpecCode,
            Engine = demo.Engine,
            Choke = demo.Choke,
            Story = demo.Story,
            Complaint = demo.Complaint,
            PromisedDay = DateOnly.FromDateTime(now.AddDays(demo.PromisedInDays).LocalDateTime),
            WaitsFor = demo.WaitsFor,
            WaitNote = demo.WaitNote,
            CheckedInAt = checkedIn,
        };
        db.Trays.Add(tray);
        Log(tray, EntryKind.CheckedIn, staff[demo.CheckedInBy], checkedIn, "Checked in");
        foreach (var note in demo.Story.Notes())
        {
            LogTrace(tray, staff[demo.CheckedInBy], checkedIn.AddSeconds(1), note);
        }

        foreach (var found in demo.Findings)
        {
            LogTrace(tray, staff[found.By], now.AddHours(-found.HoursAgo), new FindingsNote(
                found.Check,
                [.. found.Present.Select(id => new FindingAnswer(id, Said.Present)), .. found.Absent.Select(id => new FindingAnswer(id, Said.Absent))]));
        }

        foreach (var fault in demo.Faults)
        {
            LogTrace(tray, staff[fault.By], now.AddHours(-fault.HoursAgo), new FaultNote(fault.Cause, fault.Outcome));
        }

        await db.SaveChangesAsync(cancel);
        if (demo.KitNumber is { } number)
        {
            var kit = await db.Kits.SingleAsync(k => k.Number == number, cancel);
            var at = checkedIn.AddMinutes(20);
            var fromShelf = await Shelf.ChooseAsync(db, tray, kit, staff["ilse"].Id, at, cancel);
            Log(tray, EntryKind.KitChosen, staff["ilse"], at, $"Kit {kit.Number} {(fromShelf ? "taken from the shelf" : "to order")}");
            await db.SaveChangesAsync(cancel);
        }

        await LoadReadingsAsync(demo, tray, staff, now, cancel);
        if (demo.Release is { } release)
        {
            await ReleaseAsync(release, tray, staff, now, cancel);
        }
    }

    private async Task LoadReadingsAsync(DemoTray demo, Tray tray, Dictionary<string, Person> staff, DateTimeOffset now, CancellationToken cancel)
    {
        var shop = await TrayFile.ShopAsync(db, cancel);
        var spec = demo.SpecCode is null ? null : (await db.SpecSheets.SingleAsync(s => s.Code == demo.SpecCode, cancel)).Sheet;
        var lines = spec is null ? [] : Worksheet.For(spec, shop);
        foreach (var reading in demo.Readings)
        {
            var line = lines.Single(l => l.Key == reading.Line);
            var typed = new TypedReading(UnitSystem.Metric, reading.Values, reading.Rows);
            var read = line.Read(typed);
            if (read.Reading is null)
            {
                throw new InvalidOperationException($"Demo tray {demo.Number}, {reading.Line}: {read.Problems[0].Field}: {read.Problems[0].Message}");
            }

            var entry = Log(tray, EntryKind.Reading, staff[reading.By], now.AddHours(-reading.HoursAgo), $"{line.Label}: {line.Describe(read.Reading)}");
            entry.LineKey = line.Key;
            entry.Typed = typed;
            entry.Reading = read.Reading;
            entry.Finding = line.Judge(read.Reading, PinSet.Empty).Finding;
        }

        await db.SaveChangesAsync(cancel);
    }

    private async Task ReleaseAsync(DemoRelease release, Tray tray, Dictionary<string, Person> staff, DateTimeOffset now, CancellationToken cancel)
    {
        var at = now.AddHours(-release.HoursAgo);
        var file = await TrayFile.OpenAsync(db, tray.Number, cancel) ?? throw new InvalidOperationException("The tray was just made.");
        var open = file.Judge(PinSet.Empty).Obstacles;
        if (open.Count > 0 && release.SignedBy is null)
        {
            throw new InvalidOperationException($"Demo tray {tray.Number} is handed back with {open[0].Label} open and no signature.");
        }

        var signed = release.SignedBy is { } signer
            ? new SignedReason(release.Reason!, staff[signer].DisplayName, [.. open.Select(obstacle => $"{obstacle.Label}: {obstacle.Word}")])
            : null;
        var report = file.Report() with { ReleasedAt = at, ReleasedBy = staff[release.By].DisplayName, Signed = signed };
        Log(tray, EntryKind.Released, staff[release.By], at, signed is null ? "Handed back" : $"Handed back, signed by {signed.SignedBy}: {signed.Reason}").Report =
            JsonSerializer.Serialize(report, StoreJson.Options);
        await db.SaveChangesAsync(cancel);
    }

    private void LogTrace(Tray tray, Person person, DateTimeOffset at, TraceNote note)
    {
        if (note.Check(FaultKnowledge.Shipped) is [var problem, ..])
        {
            throw new InvalidOperationException($"Demo tray {tray.Number}: {problem.Message}");
        }

        Log(tray, EntryKind.Traced, person, at, note.Words(FaultKnowledge.Shipped)).Trace = note;
    }

    private LogbookEntry Log(Tray tray, EntryKind kind, Person person, DateTimeOffset at, string words)
    {
        var entry = new LogbookEntry
        {
            Id = Guid.CreateVersion7(at),
            TrayId = tray.Id,
            Kind = kind,
            PersonId = person.Id,
            PersonName = person.DisplayName,
            TakenAt = at,
            RecordedAt = at,
            Words = words,
        };
        db.LogbookEntries.Add(entry);
        return entry;
    }

    private static void Require(IdentityResult result)
    {
        if (!result.Succeeded)
        {
            throw new InvalidOperationException("Demo account: " + string.Join(" ", result.Errors.Select(error => error.Description)));
        }
    }

    private static T Read<T>(string name)
    {
        using var stream = typeof(DemoScenario).Assembly.GetManifestResourceStream(name)
            ?? throw new InvalidOperationException($"{name} is missing from the build.");
        return JsonSerializer.Deserialize<T>(stream, StoreJson.Options) ?? throw new InvalidOperationException($"{name} is empty.");
    }
}
