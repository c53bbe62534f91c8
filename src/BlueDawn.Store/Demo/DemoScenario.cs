using System.Text.Json;
using BlueDawn.Core.Bench;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Gauging;
using BlueDawn.Core.Handover;
using BlueDawn.Core.Intake;
using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Cleaning;
using BlueDawn.Core.Kits;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Stock;
using BlueDawn.Core.Strip;
using BlueDawn.Core.Worksheets;
using BlueDawn.Store.Catalogue;
using BlueDawn.Store.Cleaning;
using BlueDawn.Store.Kits;
using BlueDawn.Store.Intake;
using BlueDawn.Store.Logbook;
using BlueDawn.Store.People;
using BlueDawn.Store.Stock;
using BlueDawn.Store.Trays;
using BlueDawn.Store.Worksheets;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Npgsql;

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

    private sealed record DemoStock(string Item, int OnHand, int UsedLately);

    private sealed record DemoDonor(string Name, string SpecCode, IReadOnlyList<ItemPart> Parts);

    private sealed record DemoOldPart(string By, double HoursAgo, string Part, IReadOnlyDictionary<string, string> Features);

    private sealed record DemoReading(
        string Line, string By, double HoursAgo, IReadOnlyDictionary<string, string> Values, IReadOnlyList<IReadOnlyDictionary<string, string>> Rows);

    private sealed record DemoRelease(string By, double HoursAgo, string? Reason, string? SignedBy);

    private sealed record DemoFindings(string By, double HoursAgo, string? Check, IReadOnlyList<string> Present, IReadOnlyList<string> Absent);

    private sealed record DemoFault(string Cause, FaultOutcome Outcome, string By, double HoursAgo);

    /// <summary>How far a tray has been taken apart, cleaned and put together again.</summary>
    /// <param name="By">Who.</param>
    /// <param name="HoursAgo">When it was begun; a minute an entry from there.</param>
    /// <param name="Job">How far it comes apart.</param>
    /// <param name="Out">How many parts have come out; null for all of the job.</param>
    /// <param name="Found">What was found of some of them; the rest as usual.</param>
    /// <param name="Cleaning">Entries about cleaning.</param>
    /// <param name="Passages">Whether every passage is clear.</param>
    /// <param name="In">How many parts are back in.</param>
    private sealed record DemoWork(
        string By,
        double HoursAgo,
        string Job,
        int? Out,
        IReadOnlyList<LedgerNote> Found,
        IReadOnlyList<CleaningNote> Cleaning,
        bool Passages,
        int In);

    private sealed record DemoBathEvent(string Bath, BathEventKind Kind, string By, double MinutesAgo, int? Tray, int? Basket, string? Recipe, double? Minutes, double? TemperatureC);

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
        IReadOnlyList<DemoFault> Faults,
        CarburetorFamily Family = CarburetorFamily.FloatBowl,
        IReadOnlyList<DemoOldPart>? OldParts = null,
        decimal? OwnerLimit = null,
        decimal? MachineWorth = null,
        FitOption? Option = null,
        IReadOnlyList<string>? Renew = null,
        DemoWork? Work = null);

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

        await LoadCatalogueAsync(cancel);
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        var staff = await LoadPeopleAsync();
        var now = clock.GetUtcNow();
        foreach (var sheet in Read<List<SpecSheet>>("demo/spec-sheets.json"))
        {
            db.SpecSheets.Add(new SpecSheetRow { Code = sheet.Code, Sheet = sheet });
        }

        foreach (var code in Read<List<DateCodePattern>>("demo/date-codes.json"))
        {
            db.DateCodes.Add(new DateCodeRow { Maker = code.Maker, Code = code });
        }

        db.EarlierReturns.AddRange(Read<List<EarlierReturns>>("demo/earlier-returns.json"));
        db.Donors.AddRange(Read<List<DemoDonor>>("demo/donors.json").Select(donor => new DonorRow
        {
            Id = Guid.CreateVersion7(now),
            Name = donor.Name,
            SpecCode = donor.SpecCode,
            Parts = donor.Parts,
            At = now.AddDays(-60),
        }));
        await LoadStockAsync(staff["ilse"], now, cancel);
        await db.SaveChangesAsync(cancel);
        var trays = Read<List<DemoTray>>("demo/trays.json");
        foreach (var tray in trays)
        {
            // What is tracked is compared on every save: nothing of the trays before is needed any more.
            db.ChangeTracker.Clear();
            await LoadTrayAsync(tray, staff, now, cancel);
        }

        await LoadBathsAsync(staff, now, cancel);
        await db.Database.ExecuteSqlAsync($"select setval('tray_numbers', {trays.Max(tray => tray.Number)})", cancel);
        await transaction.CommitAsync(cancel);
        return true;
    }

    private async Task LoadBathsAsync(Dictionary<string, Person> staff, DateTimeOffset now, CancellationToken cancel)
    {
        var ids = await db.Trays.ToDictionaryAsync(tray => tray.Number, tray => tray.Id, cancel);
        db.BathEvents.AddRange(Read<List<DemoBathEvent>>("demo/baths.json").Select(happened => new BathEventRow
        {
            Id = Guid.CreateVersion7(now.AddMinutes(-happened.MinutesAgo)),
            Bath = happened.Bath,
            Kind = happened.Kind,
            At = now.AddMinutes(-happened.MinutesAgo),
            TrayId = happened.Tray is { } number ? ids[number] : null,
            TrayNumber = happened.Tray,
            Basket = happened.Basket,
            Recipe = happened.Recipe,
            Minutes = happened.Minutes,
            TemperatureC = happened.TemperatureC,
            PersonId = staff[happened.By].Id,
            PersonName = staff[happened.By].DisplayName,
        }));
        await db.SaveChangesAsync(cancel);
    }

    /// <summary>Entries of the ledger and about cleaning, each as the rules allow it at that moment.</summary>
    private void LoadWork(DemoWork demo, Tray tray, Person by, DateTimeOffset now)
    {
        var at = now.AddHours(-demo.HoursAgo);
        var kind = new CarburetorKind(tray.Family, tray.Engine, tray.Choke);
        var spec = tray.Spec?.Sheet;
        var jobs = StripKnowledge.Shipped.Jobs(tray.Family);
        var ledgerNotes = new List<LoggedLedgerNote>();
        var cleaningNotes = new List<LoggedCleaningNote>();
        TrayWork Work() => TrayWork.Of(kind, spec, ledgerNotes, cleaningNotes);
        void Ledger(LedgerNote note)
        {
            var ledger = Work().Ledger;
            if (ledger.Check(note, jobs) is [var wrong, ..])
            {
                throw new InvalidOperationException($"Demo tray {tray.Number}: {wrong.Message}");
            }

            at = at.AddMinutes(1);
            var entry = Log(tray, EntryKind.Ledgered, by, at, note.Words(ledger.LabelOf(note, jobs)));
            entry.Ledger = note;
            ledgerNotes.Add(new LoggedLedgerNote(entry.Id, at, by.DisplayName, note));
        }

        void Cleaned(CleaningNote note)
        {
            at = at.AddMinutes(1);
            var entry = Log(tray, EntryKind.Cleaned, by, at, note.Words(CleaningKnowledge.Shipped, CleaningKnowledge.Shipped.Passages(tray.Family)));
            entry.Cleaning = note;
            cleaningNotes.Add(new LoggedCleaningNote(entry.Id, at, note));
        }

        Ledger(new JobNote(demo.Job));
        var renewed = tray.Fitting?.Items.SelectMany(item => item.Parts.Select(part => part.Part)).ToHashSet() ?? [];
        foreach (var part in Work().Ledger.ToStrip.Take(demo.Out ?? int.MaxValue).Select(line => line.Part).ToList())
        {
            Ledger(demo.Found.OfType<PartNote>().FirstOrDefault(note => note.Part == part.Key)
                ?? new OutNote(part.Key, Core.Strip.Ledger.Usual(part, renewed), NotCounted: part.Asks.Contains(Ask.Turns)));
        }

        foreach (var note in demo.Cleaning)
        {
            Cleaned(note);
        }

        foreach (var passage in demo.Passages ? CleaningKnowledge.Shipped.Passages(tray.Family) : [])
        {
            Cleaned(new PassageNote(passage.Key, true, true));
        }

        foreach (var advice in Work().Advice.Take(demo.In).ToList())
        {
            var line = Work().Ledger.Find(advice.Part)!;
            var item = line.Found!.Verdict == LineVerdict.Renew ? tray.Fitting?.Items.FirstOrDefault(one => one.Parts.Any(part => part.Part == line.Part.KitPart)) : null;
            Ledger(new BackNote(advice.Part, item is null ? Fate.Refitted : Fate.Renewed, advice.RightWay?.Key, item?.Number));
        }
    }

    /// <summary>The catalogue comes in as any catalogue does: through the import.</summary>
    private async Task LoadCatalogueAsync(CancellationToken cancel)
    {
        await using var connection = new NpgsqlConnection(db.Database.GetConnectionString());
        await connection.OpenAsync(cancel);
        foreach (var file in (CatalogueFile[])[CatalogueFile.Items, CatalogueFile.Contents, CatalogueFile.Fits, CatalogueFile.Supersessions, CatalogueFile.Suppliers, CatalogueFile.Offers])
        {
            using var reader = new StreamReader(Open($"demo/catalogue/{file.ToString().ToLowerInvariant()}.csv"));
            var report = await CatalogueImport.RunAsync(connection, file, reader, apply: true, null, cancel);
            if (!report.Applied)
            {
                throw new InvalidOperationException($"Demo {file}: line {report.FirstRejected[0].Line}: {report.FirstRejected[0].Reason}");
            }
        }
    }

    /// <summary>What is on hand, and what was fitted before, evenly over the time looked back on.</summary>
    private async Task LoadStockAsync(Person lead, DateTimeOffset now, CancellationToken cancel)
    {
        var ids = await db.Items.ToDictionaryAsync(item => item.Number, item => item.Id, cancel);
        foreach (var stock in Read<List<DemoStock>>("demo/stock.json"))
        {
            Shelf.Move(db, ids[stock.Item], StockMoveKind.Received, stock.OnHand + stock.UsedLately, null, lead.Id, now.AddDays(-80), "earlier stock");
            for (var piece = 0; piece < stock.UsedLately; piece++)
            {
                Shelf.Move(db, ids[stock.Item], StockMoveKind.Fitted, 1, null, lead.Id, now.AddDays(-75 + piece * 65.0 / stock.UsedLately), "earlier trays");
            }
        }
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
            Family = demo.Family,
            OwnerLimit = demo.OwnerLimit,
            MachineWorth = demo.MachineWorth,
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

        foreach (var old in demo.OldParts ?? [])
        {
            var part = new ItemPart(old.Part, 1, old.Features);
            Log(tray, EntryKind.PartMeasured, staff[old.By], now.AddHours(-old.HoursAgo), $"Old {part.Part}: {FeatureText.Write(part.Features)}").OldPart = part;
        }

        await db.SaveChangesAsync(cancel);
        if (demo.KitNumber is not null || demo.Option is not null)
        {
            var at = checkedIn.AddMinutes(20);
            var fitting = await Shelf.FitAsync(db, tray, await DecidedAsync(demo, at, cancel), staff["ilse"].Id, at, cancel);
            Log(tray, EntryKind.KitChosen, staff["ilse"], at, FittingChoice.Words(fitting));
            await db.SaveChangesAsync(cancel);
        }

        if (demo.Work is { } work)
        {
            LoadWork(work, tray, staff[work.By], now);
            await db.SaveChangesAsync(cancel);
        }

        await LoadReadingsAsync(demo, tray, staff, now, cancel);
        if (demo.Release is { } release)
        {
            await ReleaseAsync(release, tray, staff, now, cancel);
        }
    }

    private async Task<Fitting> DecidedAsync(DemoTray demo, DateTimeOffset at, CancellationToken cancel)
    {
        var file = (await TrayFile.OpenAsync(db, demo.Number, cancel))!;
        var day = DateOnly.FromDateTime(at.LocalDateTime);
        if (demo.KitNumber is { } number)
        {
            return await FittingChoice.KitAsync(db, file, number, day, cancel) ?? throw new InvalidOperationException($"Demo tray {demo.Number}: there is no kit {number}.");
        }

        var (priced, _) = await FittingChoice.DecideAsync(db, file, demo.Renew, day, cancel);
        var option = priced.Single(one => one.Offer.Option == demo.Option);
        return option.Offer.Obstacle is { } obstacle
            ? throw new InvalidOperationException($"Demo tray {demo.Number}: {obstacle}")
            : FittingChoice.ToFitting(option, demo.Renew ?? []);
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
        using var stream = Open(name);
        return JsonSerializer.Deserialize<T>(stream, StoreJson.Options) ?? throw new InvalidOperationException($"{name} is empty.");
    }

    private static Stream Open(string name) => typeof(DemoScenario).Assembly.GetManifestResourceStream(name)
        ?? throw new InvalidOperationException($"{name} is missing from the build.");
}
