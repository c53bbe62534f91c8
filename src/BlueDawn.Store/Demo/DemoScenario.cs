using System.Text.Json;
using BlueDawn.Core.Build;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Cleaning;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Handover;
using BlueDawn.Core.Intake;
using BlueDawn.Core.Kits;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Stock;
using BlueDawn.Core.Trays;
using BlueDawn.Store.Carburetors;
using BlueDawn.Store.Catalogue;
using BlueDawn.Store.Cleaning;
using BlueDawn.Store.Intake;
using BlueDawn.Store.Kits;
using BlueDawn.Store.Logbook;
using BlueDawn.Store.People;
using BlueDawn.Store.Stock;
using BlueDawn.Store.Trays;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace BlueDawn.Store.Demo;

/// <summary>
/// The workshop at Sandrigg Quay: invented people, machines, spec sheets, kits and trays, loaded into an empty store so
/// that the product can be tried at once. Readings go through the same rules as typed ones.
/// </summary>
public sealed class DemoScenario(BlueDawnDb db, NpgsqlDataSource database, UserManager<Person> people, TimeProvider clock)
{
    /// <summary>The password of every demo account.</summary>
    public const string Password = "sandrigg-quay";

    private sealed record DemoPerson(string UserName, string DisplayName, string Role, UnitSystem Units, string Pins);

    private sealed record DemoStock(string Item, int OnHand, int UsedLately);

    private sealed record DemoDonor(string Name, string SpecCode, IReadOnlyList<ItemPart> Parts);

    private sealed record DemoOldPart(string By, double HoursAgo, string Part, IReadOnlyDictionary<string, string> Features);

    private sealed record DemoReading(
        string Line,
        string By,
        double HoursAgo,
        IReadOnlyDictionary<string, string> Values,
        IReadOnlyList<IReadOnlyDictionary<string, string>> Rows
    );

    private sealed record DemoRelease(string By, double HoursAgo, string? Reason, string? SignedBy);

    private sealed record DemoFindings(
        string By,
        double HoursAgo,
        string? Check,
        IReadOnlyList<string> Present,
        IReadOnlyList<string> Absent
    );

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
        int In
    );

    private sealed record DemoBathEvent(
        string Bath,
        BathEventKind Kind,
        string By,
        double MinutesAgo,
        int? Tray,
        int? Basket,
        string? Recipe,
        double? Minutes,
        double? TemperatureC
    );

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
        double? OrderedHoursAgo = null,
        DemoWork? Work = null
    );

    /// <summary>Loads the scenario when the store has no people yet.</summary>
    /// <returns>True when it was loaded.</returns>
    public async Task<bool> LoadAsync(CancellationToken cancel)
    {
        if (await db.Users.AnyAsync(cancel))
        {
            return false;
        }

        var shop = await db.Shop.SingleAsync(cancel);
        (shop.Demo, shop.Name) = (true, "Sandrigg Quay");
        await LoadCatalogueAsync(cancel);
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        var staff = await LoadPeopleAsync();
        var now = clock.GetUtcNow();
        foreach (var sheet in Read<List<SpecSheet>>("demo/spec-sheets.json"))
        {
            db.SpecSheets.Add(
                new SpecSheetRow
                {
                    Code = sheet.Code,
                    Issue = sheet.Issue,
                    Sheet = sheet,
                }
            );
        }

        foreach (var code in Read<List<DateCodePattern>>("demo/date-codes.json"))
        {
            db.DateCodes.Add(new DateCodeRow { Maker = code.Maker, Code = code });
        }

        db.EarlierReturns.AddRange(Read<List<EarlierReturns>>("demo/earlier-returns.json"));
        db.Donors.AddRange(
            Read<List<DemoDonor>>("demo/donors.json")
                .Select(donor => new DonorRow
                {
                    Id = Guid.CreateVersion7(now),
                    Name = donor.Name,
                    SpecCode = donor.SpecCode,
                    Parts = donor.Parts,
                    At = now.AddDays(-60),
                })
        );
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
        db.BathEvents.AddRange(
            Read<List<DemoBathEvent>>("demo/baths.json")
                .Select(happened => new BathEventRow
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
                })
        );
        await db.SaveChangesAsync(cancel);
    }

    /// <summary>Entries of the ledger and about cleaning, each as the rules allow it at that moment.</summary>
    private TrayFile LoadWork(TrayFile file, DemoWork demo, Person by, DateTimeOffset now)
    {
        var at = now.AddHours(-demo.HoursAgo);
        void Add(Note note) => file = Record(file, note, by, at = at.AddMinutes(1));
        Add(new JobNote(demo.Job));
        var renewed = file.Book.Fitting?.Items.SelectMany(item => item.Parts.Select(part => part.Part)).ToHashSet() ?? [];
        foreach (var part in file.Book.Ledger.ToStrip.Take(demo.Out ?? int.MaxValue).Select(line => line.Part).ToList())
        {
            Add(
                demo.Found.OfType<PartNote>().FirstOrDefault(note => note.Part == part.Key)
                    ?? new OutNote(part.Key, Ledger.Usual(part, renewed), NotCounted: part.Asks.Contains(Ask.Turns))
            );
        }

        foreach (var note in demo.Cleaning)
        {
            Add(note);
        }

        foreach (
            var passage in demo.Passages ? file.Book.Knowledge.Of<CleaningKnowledge>().Passages(file.Book.Kind.Family, file.Book.Sheet) : []
        )
        {
            Add(new PassageNote(passage.Key, true, true));
        }

        foreach (var advice in file.Book.State<BuildState>().Advice.Take(demo.In).ToList())
        {
            var line = file.Book.Ledger.Find(advice.Part)!;
            var item = line.Found!.Verdict is LineVerdict.Renew or LineVerdict.Broken
                ? file.Book.Fitting?.Items.FirstOrDefault(one => one.Parts.Any(part => part.Part == line.Part.KitPart))
                : null;
            Add(new BackNote(advice.Part, item is null ? Fate.Refitted : Fate.Renewed, advice.RightWay?.Key, item?.Number));
        }

        return file;
    }

    /// <summary>The catalogue comes in as any catalogue does: through the import.</summary>
    private async Task LoadCatalogueAsync(CancellationToken cancel)
    {
        await using var connection = await database.OpenConnectionAsync(cancel);
        foreach (
            var file in (CatalogueFile[])
                [
                    CatalogueFile.Items,
                    CatalogueFile.Contents,
                    CatalogueFile.Fits,
                    CatalogueFile.Supersessions,
                    CatalogueFile.Suppliers,
                    CatalogueFile.Offers,
                ]
        )
        {
            using var reader = new StreamReader(Open($"demo/catalogue/{file.ToString().ToLowerInvariant()}.csv"));
            var report = await CatalogueImport.RunAsync(connection, file, reader, decimalComma: false, apply: true, null, cancel);
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
            Shelf.Move(
                db,
                ids[stock.Item],
                StockMoveKind.Received,
                stock.OnHand + stock.UsedLately,
                null,
                lead.Id,
                now.AddDays(-80),
                "earlier stock"
            );
            for (var piece = 0; piece < stock.UsedLately; piece++)
            {
                Shelf.Move(
                    db,
                    ids[stock.Item],
                    StockMoveKind.Fitted,
                    1,
                    null,
                    lead.Id,
                    now.AddDays(-75 + piece * 65.0 / stock.UsedLately),
                    "earlier trays"
                );
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
            ?? db.Owners.Add(
                new Owner
                {
                    Id = Guid.CreateVersion7(checkedIn),
                    Name = demo.OwnerName,
                    Contact = demo.OwnerContact,
                }
            ).Entity;
        var tray = new Tray
        {
            Id = Guid.CreateVersion7(checkedIn),
            Number = demo.Number,
            Machine = new Machine
            {
                Id = Guid.CreateVersion7(checkedIn),
                Owner = owner,
                Name = demo.MachineName,
            },
            StampedNumber = demo.StampedNumber,
            SpecCode = demo.SpecCode,
            SpecIssue = await db
                .SpecSheets.Where(row => row.Code == demo.SpecCode && row.Current)
                .Select(row => (int?)row.Issue)
                .SingleOrDefaultAsync(cancel),
            Engine = demo.Engine,
            Choke = demo.Choke,
            Family = demo.Family,
            OwnerLimit = demo.OwnerLimit,
            MachineWorth = demo.MachineWorth,
            Story = demo.Story,
            Complaint = demo.Complaint,
            PromisedDay = DateOnly.FromDateTime(now.AddDays(demo.PromisedInDays).LocalDateTime),
            WaitsFor = WaitsFor.Hands,
            CheckedInAt = checkedIn,
        };
        db.Trays.Add(tray);
        await db.SaveChangesAsync(cancel);
        var desk = new JudgingContext(
            await TrayFile.ShopAsync(db, cancel),
            PinSet.Empty,
            DateOnly.FromDateTime(now.LocalDateTime),
            ShopKnowledge.Shipped
        )
        {
            AheadOfUtcMin = (int)now.ToLocalTime().Offset.TotalMinutes,
        };
        var file = (await TrayFile.OpenAsync(db, demo.Number, desk, cancel))!;
        file = Append(file, new CheckedInNote(null), staff[demo.CheckedInBy], checkedIn);
        foreach (var note in StoryEvidence.Of(demo.Story))
        {
            file = Record(file, note, staff[demo.CheckedInBy], checkedIn.AddSeconds(1));
        }

        foreach (var found in demo.Findings)
        {
            var note = new FindingsNote(
                found.Check,
                [
                    .. found.Present.Select(id => new FindingAnswer(id, Said.Present)),
                    .. found.Absent.Select(id => new FindingAnswer(id, Said.Absent)),
                ]
            );
            file = Record(file, note, staff[found.By], now.AddHours(-found.HoursAgo));
        }

        foreach (var fault in demo.Faults)
        {
            file = Record(file, new FaultNote(fault.Cause, fault.Outcome), staff[fault.By], now.AddHours(-fault.HoursAgo));
        }

        foreach (var old in demo.OldParts ?? [])
        {
            file = Record(file, new OldPartNote(old.Part, 1, old.Features), staff[old.By], now.AddHours(-old.HoursAgo));
        }

        if (demo.KitNumber is not null || demo.Option is not null)
        {
            var at = checkedIn.AddMinutes(20);
            var decided = await DecidedAsync(file, demo, at, cancel);
            var fitting = await Shelf.FitAsync(db, tray.Id, null, decided, staff["ilse"].Id, at, cancel);
            file = Append(file, new FittingNote(fitting.Option, demo.Renew, demo.KitNumber, fitting), staff["ilse"], at);
        }

        if (demo.Work is { } work)
        {
            file = LoadWork(file, work, staff[work.By], now);
        }

        foreach (var reading in demo.Readings)
        {
            file = Record(
                file,
                new ReadingNote(reading.Line, new TypedReading(UnitSystem.Metric, reading.Values, reading.Rows)),
                staff[reading.By],
                now.AddHours(-reading.HoursAgo)
            );
        }

        if (demo.OrderedHoursAgo is { } hours)
        {
            (tray.WaitsFor, var at) = (demo.WaitsFor, now.AddHours(-hours));
            file = await OrderAsync(file, demo.KitNumber!, staff["ilse"], at, cancel);
        }

        if (demo.Release is { } release)
        {
            Release(file, release, staff, now);
        }
        else
        {
            (tray.WaitsFor, tray.WaitNote) = (demo.WaitsFor, demo.OrderedHoursAgo is null ? demo.WaitNote : file.Book.Facts.WaitNote);
        }

        await db.SaveChangesAsync(cancel);
    }

    /// <summary>Orders one of a kit for a tray from whoever asks least for it.</summary>
    private async Task<TrayFile> OrderAsync(TrayFile file, string number, Person person, DateTimeOffset at, CancellationToken cancel)
    {
        var item = await db.Items.SingleAsync(one => one.Number == number, cancel);
        var offer = (await CatalogueSearch.ItemsAsync(db, [item.Id], cancel)).Single().Offers.MinBy(one => one.EachMoney)!;
        var move = Shelf.Move(db, item.Id, StockMoveKind.Ordered, 1, null, person.Id, at, offer.Supplier);
        move.OrderId = move.Id;
        return Append(
            file,
            new OrderedNote(move.Id, offer.Supplier, [number], DateOnly.FromDateTime(at.LocalDateTime).AddDays(offer.LeadDays)),
            person,
            at
        );
    }

    private async Task<Fitting> DecidedAsync(TrayFile file, DemoTray demo, DateTimeOffset at, CancellationToken cancel)
    {
        var day = DateOnly.FromDateTime(at.LocalDateTime);
        if (demo.KitNumber is { } number)
        {
            return await FittingChoice.KitAsync(db, file, number, day, cancel)
                ?? throw new InvalidOperationException($"Demo tray {demo.Number}: there is no kit {number}.");
        }

        var (priced, _) = await FittingChoice.DecideAsync(db, file, demo.Renew, day, cancel);
        var option = priced.Single(one => one.Offer.Option == demo.Option);
        return option.Offer.Obstacle is { } obstacle
            ? throw new InvalidOperationException($"Demo tray {demo.Number}: {obstacle}")
            : FittingChoice.ToFitting(option, demo.Renew ?? []);
    }

    private void Release(TrayFile file, DemoRelease release, Dictionary<string, Person> staff, DateTimeOffset now)
    {
        var at = now.AddHours(-release.HoursAgo);
        var note = new ReleaseNote(release.Reason) { Signer = release.SignedBy is { } signer ? staff[signer].DisplayName : null };
        if (Policy.Obstacles(file.Book) is [var open, ..] && release.SignedBy is null)
        {
            throw new InvalidOperationException($"Demo tray {file.Tray.Number} is handed back with {open.Label} open and no signature.");
        }

        Append(file, note, staff[release.By], at);
    }

    /// <summary>Records a note as the rules allow it at that moment.</summary>
    private TrayFile Record(TrayFile file, Note note, Person person, DateTimeOffset at) =>
        Writing.Refuses(new NewEntry(Guid.CreateVersion7(at), at, note), file.Book, Core.Shop.Roles.Allow(Core.Shop.Role.Lead))
            is { } refused
            ? throw new InvalidOperationException($"Demo tray {file.Tray.Number}, {at:u}: {refused.Title} {refused.Detail}")
            : Append(file, note, person, at);

    private TrayFile Append(TrayFile file, Note note, Person person, DateTimeOffset at) =>
        LogWriter.Append(
            db,
            file,
            Writing.Write(new NewEntry(Guid.CreateVersion7(at), at, note), file.Book, person.DisplayName, at),
            person,
            at
        );

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

    private static Stream Open(string name) =>
        typeof(DemoScenario).Assembly.GetManifestResourceStream(name)
        ?? throw new InvalidOperationException($"{name} is missing from the build.");
}
