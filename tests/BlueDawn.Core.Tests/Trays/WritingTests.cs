using System.Text.Json;
using BlueDawn.Core.Build;
using BlueDawn.Core.Cleaning;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Handover;
using BlueDawn.Core.Intake;
using BlueDawn.Core.Kits;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Pages;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Trays;

namespace BlueDawn.Core.Tests.Trays;

/// <summary>The one way into a logbook.</summary>
public sealed class WritingTests
{
    /// <summary>One note of every kind, as a device would send it.</summary>
    private static readonly Note[] OneOfEach =
    [
        new CheckedInNote("FB18"),
        new PhotoNote("bowl"),
        new FactsNote(Complaint: "Hunts when warm"),
        new WordsNote("TrayChanged", "Promised later"),
        new FindingsNote("owner-story", [new("hunts", Said.Present)], true),
        new FaultNote("fuel-stale", FaultOutcome.Fixed),
        new ApartNote(ApartLevel.Off),
        new SafetyNote(SafetyCondition.EngineCool),
        new ToldNote(
            [new("spark-plug-poor", ToldBy.Owner, new DateOnly(2026, 10, 1), TriedOutcome.NoHelp)],
            [new("coil-heat-fade", ToldBy.AnotherShop)]
        ),
        new SheetNote("FB18"),
        new FittingNote(FitOption.SingleParts, ["needle"]),
        new PartsHereNote(),
        new UnfitNote(),
        new OrderedNote(Guid.Empty, "Quay Parts", ["OK-118"], new DateOnly(2026, 11, 9)),
        new OrderUndoneNote(Guid.Empty, "Quay Parts"),
        new ArrivedNote(["OK-118"]),
        new PutRightNote("Machine Bow winch → Stern winch"),
        new MarksNote("2214", "K170/0414"),
        new OldPartNote("bowl gasket", 1, new Dictionary<string, string> { ["thickness"] = "1.5 mm" }),
        new JobNote("full"),
        new OutNote("idle-needle", LineVerdict.Clean, TurnsEighths: 9, Screw: ".5 in"),
        new StaysNote("seat"),
        new UndoNote("seat"),
        new SoilsNote(["varnish"]),
        new MethodNote("bath", MethodStep.Chosen),
        new DryNote(),
        new PassageNote("idle-feed", true, true),
        new BasketNote("Heated bath", 2, true),
        new ReadingNote("gauging/main-jet", TypedReading.Of(("go", "0.71"), ("noGo", "0.73"))),
        new WithdrawalNote(),
        new BackNote("bowl", Fate.Refitted, "under-float"),
        new TrialNote("It has no filter for a year"),
        new TurnsNote("idle-needle", 10, 8, "Hunts when warm"),
        new HasNote(["mounting-bolts"], ["insulator"]),
        new CameBadNote("fuel-tap", "Leaks at its stem", "Northmole Supply", "FT-1"),
        new ReleaseNote("Owner wants it as it is"),
        new RemarkNote(RemarkFate.Watch, "The old rope is frayed"),
    ];

    [Fact]
    public void Every_kind_of_note_is_listed_by_exactly_one_station_under_a_word_of_its_own()
    {
        var classes = typeof(Note).Assembly.GetTypes().Where(type => type.IsSubclassOf(typeof(Note)) && !type.IsAbstract).ToHashSet();
        Assert.Equal(classes, StationList.Notes.Select(kind => kind.Type).ToHashSet());
        Assert.Equal(StationList.Notes.Count, StationList.Notes.Select(kind => kind.Word).Distinct().Count());
        Assert.Equal(classes, OneOfEach.Select(note => note.GetType()).ToHashSet());
    }

    [Fact]
    public void Every_kind_of_reading_is_listed_and_every_station_has_its_module()
    {
        var classes = typeof(Reading).Assembly.GetTypes().Where(type => type.IsSubclassOf(typeof(Reading))).ToHashSet();
        Assert.Equal(classes, StationList.Readings.Select(kind => kind.Type).ToHashSet());
        Assert.Equal(Enum.GetValues<Station>(), StationList.All.Select(module => module.Station));
    }

    [Fact]
    public void Every_note_comes_back_from_json_as_it_was()
    {
        foreach (var note in OneOfEach)
        {
            var text = JsonSerializer.Serialize(note, CoreJson.Options);
            var back = JsonSerializer.Deserialize<Note>(text, CoreJson.Options)!;
            Assert.Equal(note.GetType(), back.GetType());
            Assert.Equal(text, JsonSerializer.Serialize(back, CoreJson.Options));
        }
    }

    [Fact]
    public void A_device_writes_and_reads_what_the_server_does_and_need_not_look_at_a_class_for_it()
    {
        Assert.DoesNotContain(StationList.Notes.Select(kind => kind.Type).Concat(StationList.Readings.Select(kind => kind.Type)), type =>
            CoreJson.GeneratedKinds.GetTypeInfo(type, CoreJson.Web) is null
        );
        foreach (var note in OneOfEach)
        {
            var text = JsonSerializer.Serialize(note, CoreJson.Web);
            Assert.Equal(text, JsonSerializer.Serialize(note, DeviceJson.Options));
            Assert.Equal(text, JsonSerializer.Serialize(JsonSerializer.Deserialize<Note>(text, DeviceJson.Options), CoreJson.Web));
        }
    }

    [Fact]
    public void The_same_content_in_another_order_is_the_same_and_anything_else_is_not()
    {
        foreach (var note in OneOfEach)
        {
            var entry = new Entry(Guid.CreateVersion7(), null, DateTimeOffset.UnixEpoch, "Ilse", note);
            Assert.True(Writing.IsSame(entry, new NewEntry(entry.Id, DateTimeOffset.UnixEpoch.AddDays(1), note)), note.ToString());
            Assert.False(
                Writing.IsSame(entry, new NewEntry(entry.Id, DateTimeOffset.UnixEpoch, note, Guid.CreateVersion7())),
                note.ToString()
            );
            Assert.All(OneOfEach.Where(other => other != note), other =>
                Assert.False(Writing.IsSame(entry, new NewEntry(entry.Id, DateTimeOffset.UnixEpoch, other)))
            );
        }

        var typed = TypedReading.Of(("go", "0.71"), ("noGo", "0.73"));
        var turned = TypedReading.Of(("noGo", "0.73"), ("go", "0.71"));
        var read = new Entry(Guid.CreateVersion7(), null, DateTimeOffset.UnixEpoch, "Ilse", new ReadingNote("gauging/main-jet", typed));
        Assert.True(Writing.IsSame(read, new NewEntry(read.Id, read.TakenAt, new ReadingNote("gauging/main-jet", turned))));
        Assert.False(
            Writing.IsSame(read, new NewEntry(read.Id, read.TakenAt, new ReadingNote("gauging/main-jet", TypedReading.Of(("go", "0.71")))))
        );
    }

    [Fact]
    public void What_the_bench_writes_beside_a_note_does_not_make_it_another()
    {
        var tray = TestTray.Untouched();
        var note = new ReadingNote("gauging/main-jet", TypedReading.Of(("go", "0.715"), ("noGo", "0.73")));
        tray.Does(note, out var id);
        var kept = tray.Log.Find(id)!;
        Assert.Equal("inGauge", ((ReadingNote)kept.Note).Finding);
        Assert.True(Writing.IsSame(kept, new NewEntry(id, kept.TakenAt, note)));
    }

    [Fact]
    public void A_role_may_do_what_stands_on_its_list_and_an_unknown_one_nothing()
    {
        foreach (var note in OneOfEach)
        {
            Assert.Equal(RefusalKind.NotAllowed, new TestTray(Sheets.Spec).Refuses(note, role: null)?.Kind);
        }

        Assert.Equal(RefusalKind.NotAllowed, TestTray.Untouched().Refuses(new JobNote("full"), role: Role.FrontDesk)?.Kind);
        Assert.Null(TestTray.Untouched().Refuses(new FactsNote(Complaint: "Hunts"), role: Role.FrontDesk));
        Assert.Null(TestTray.Untouched().Refuses(new JobNote("full"), role: Role.Technician));
        Assert.DoesNotContain(Permission.Sign, Roles.Allow(Role.Technician));
        Assert.Empty(Roles.Allow("somebody"));
    }

    /// <summary>What has not come cannot be in: a part is not renewed out of an item that is still on order.</summary>
    [Fact]
    public void A_part_is_not_renewed_from_what_is_still_on_order()
    {
        FittedItem Of(bool came) =>
            new("ND-03", "Needle", 1, came, [new Core.Catalogue.ItemPart("needle", 1, new Dictionary<string, string>())]);
        Fitting Fitted(bool came) => new(FitOption.SingleParts, "Needle", [Of(came)], ["needle"], null, 4m);
        var renewed = new BackNote("needle", Fate.Renewed, Item: "ND-03");
        var tray = new TestTray(Sheets.Spec).Does(new JobNote("full")).Does(new OutNote("needle", LineVerdict.Renew)).Fits(Fitted(false));
        Assert.Contains("still on order", Assert.Single(tray.Refuses(renewed)!.Fields).Message, StringComparison.Ordinal);
        Assert.Null(tray.Fits(Fitted(true)).Refuses(renewed));
    }

    /// <summary>A part that is not this carburetor's goes back with a reason or is thrown out; nothing is made or bought in its
    /// place.</summary>
    [Theory]
    [InlineData(Fate.Made)]
    [InlineData(Fate.Renewed)]
    [InlineData(Fate.LeftOff)]
    public void A_part_that_does_not_belong_is_never_made_renewed_or_left_off(Fate fate)
    {
        var tray = new TestTray(Sheets.Spec).Does(new JobNote("full")).Does(new OutNote("main-jet", LineVerdict.DoesNotBelong));
        Assert.Equal(
            "note.fate",
            tray.Refuses(new BackNote("main-jet", fate, Item: "MJ-01", Reason: "There was nothing else in the drawer"))!.Fields[0].Field
        );
        Assert.Null(tray.Refuses(new BackNote("main-jet", Fate.Scrapped)));
    }

    [Fact]
    public void A_correction_supersedes_a_reading_of_its_own_line_once()
    {
        var tray = TestTray.Untouched().Does(new ReadingNote("gauging/main-jet", TypedReading.Of(("go", "0.37"))), out var wrong);
        var right = new ReadingNote("gauging/main-jet", TypedReading.Of(("go", "0.715"), ("noGo", "0.73")));
        Assert.Equal(RefusalKind.NotFound, tray.Refuses(new ReadingNote("gauging/idle-jet", TypedReading.Of(("go", "0.32"))), wrong)?.Kind);
        Assert.Equal(RefusalKind.NotFound, tray.Refuses(new JobNote("full"), wrong)?.Kind);
        Assert.Equal(RefusalKind.NotFound, tray.Refuses(right, Guid.CreateVersion7())?.Kind);
        Assert.Equal(RefusalKind.Wrong, tray.Refuses(new WithdrawalNote())?.Kind);
        tray.Does(right, wrong);
        Assert.Equal(RefusalKind.Conflict, tray.Refuses(right, wrong)?.Kind);
        Assert.Equal("inGauge", tray.Book.Lines.Single(line => line.Line.Key == "gauging/main-jet").Judgement.Finding);
    }

    [Fact]
    public void Nothing_is_taken_later_than_the_server_has_it()
    {
        var now = new DateTimeOffset(2026, 11, 2, 9, 0, 0, TimeSpan.Zero);
        var tray = TestTray.Untouched().Book;
        Assert.Equal(
            now,
            Writing.Write(new NewEntry(Guid.CreateVersion7(), now.AddHours(3), new DryNote()), tray, "Ilse", now).Entry.TakenAt
        );
        Assert.Equal(
            now.AddHours(-3),
            Writing.Write(new NewEntry(Guid.CreateVersion7(), now.AddHours(-3), new DryNote()), tray, "Ilse", now).Entry.TakenAt
        );
    }

    [Fact]
    public void Sizes_at_strip_take_what_every_size_box_takes_and_stay_data()
    {
        foreach (var (typed, mm) in new[] { (".28 in", 7.112), ("28 thou", 0.7112), ("#70", 0.7112), ("12 mm", 12) })
        {
            var tray = new TestTray(Sheets.Spec)
                .Does(new JobNote("full"))
                .Does(new OutNote("filter-housing", LineVerdict.Clean, Screw: typed), out var id);
            Assert.Equal(mm, ((OutNote)tray.Log.Find(id)!.Note).ScrewMm!.Value, 6);
            var said = StationList.Say(tray.Log.Find(id)!, tray.Book);
            Assert.Equal(Quantity.Mm(mm), Assert.Single(said.Quantities));
        }

        Assert.Equal(
            "note.screw",
            Assert
                .Single(
                    new TestTray(Sheets.Spec)
                        .Does(new JobNote("full"))
                        .Refuses(new OutNote("filter-housing", LineVerdict.Clean, Screw: "long"))!
                        .Fields
                )
                .Field
        );
    }

    [Fact]
    public void An_old_part_says_its_lengths_as_data()
    {
        var tray = TestTray
            .Untouched()
            .Does(
                new OldPartNote("bowl gasket", 1, new Dictionary<string, string> { ["thickness"] = "0.06" }, UnitSystem.Inch),
                out var id
            );
        Assert.Equal(1.524, Assert.Single(StationList.Say(tray.Log.Find(id)!, tray.Book).Quantities).Value, 6);
        Assert.Equal(
            "note.features.thickness",
            Assert
                .Single(tray.Refuses(new OldPartNote("bowl gasket", 1, new Dictionary<string, string> { ["thickness"] = "thick" }))!.Fields)
                .Field
        );
    }

    [Theory]
    [InlineData("plunger")]
    [InlineData("breather-hose")]
    public void Parts_that_are_offered_by_name_are_taken(string part) =>
        Assert.Null(new TestTray(Sheets.Spec).Does(new JobNote("full")).Refuses(new OutNote(part, LineVerdict.Clean)));

    [Fact]
    public void A_missing_part_left_off_with_a_short_reason_marks_the_reason()
    {
        var tray = new TestTray(Sheets.Spec).Does(new JobNote("full")).Does(new OutNote("bowl-gasket", LineVerdict.Missing));
        Assert.Equal("note.reason", Assert.Single(tray.Refuses(new BackNote("bowl-gasket", Fate.LeftOff, Reason: "no"))!.Fields).Field);
    }

    [Fact]
    public void What_the_bench_records_itself_cannot_be_sent()
    {
        var tray = TestTray.Untouched();
        var own = OneOfEach.Where(note => StationList.KindOf(note).RecordedByBench is not null).ToList();
        Assert.Equal(
            ["arrived", "basket", "checkedIn", "orderUndone", "ordered", "photo", "putRight", "words"],
            own.Select(note => StationList.KindOf(note).Word).Order(StringComparer.Ordinal)
        );
        foreach (var note in own)
        {
            Assert.Equal(RefusalKind.Wrong, tray.Refuses(note)?.Kind);
            Assert.Equal("note.kind", Assert.Single(tray.Refuses(note)!.Fields).Field);
        }
    }

    [Fact]
    public void Every_entry_says_something()
    {
        var tray = new TestTray(Sheets.Spec);
        foreach (var note in OneOfEach)
        {
            var text = StationList.Say(
                new Entry(
                    Guid.CreateVersion7(),
                    null,
                    DateTimeOffset.UnixEpoch,
                    "Ilse",
                    StationList.KindOf(note).Complete(note, tray.Book)
                ),
                tray.Book
            );
            Assert.True(text.Text.Length > 0 || note is WithdrawalNote or FittingNote or PartsHereNote, note.ToString());
        }
    }

    [Fact]
    public void What_a_tray_waits_for_follows_its_table()
    {
        foreach (var now in Enum.GetValues<WaitsFor>().Where(now => now != WaitsFor.HandedBack))
        {
            Assert.Equal(WaitsFor.Parts, Waiting.After(now, WaitEvent.PartsToOrder));
            Assert.Equal(WaitsFor.Bath, Waiting.After(now, WaitEvent.IntoBath));
            Assert.Equal(WaitsFor.HandedBack, Waiting.After(now, WaitEvent.HandBack));
            Assert.Equal(WaitsFor.BedIn, Waiting.After(now, WaitEvent.ToBedIn));
            Assert.Equal(now == WaitsFor.BedIn ? WaitsFor.Hands : now, Waiting.After(now, WaitEvent.BeddedIn));
            Assert.Equal(now == WaitsFor.Parts ? WaitsFor.Hands : now, Waiting.After(now, WaitEvent.PartsHere));
            Assert.Equal(now == WaitsFor.Bath ? WaitsFor.Hands : now, Waiting.After(now, WaitEvent.OutOfBath));
        }

        Assert.All(Enum.GetValues<WaitEvent>(), happened =>
            Assert.Equal(WaitsFor.HandedBack, Waiting.After(WaitsFor.HandedBack, happened))
        );
    }

    [Fact]
    public void A_basket_moves_the_tray_and_its_note()
    {
        var tray = TestTray.Untouched().Adds(new BasketNote("Heated bath", 2, true));
        Assert.Equal((WaitsFor.Bath, "Heated bath, basket 2"), (tray.Facts.WaitsFor, tray.Facts.WaitNote));
        Assert.Equal("Its basket is still in the bath. Take it out first.", tray.Refuses(new DryNote())!.Detail);
        tray.Adds(new BasketNote("Heated bath", 2, false, 12, 20));
        Assert.Equal((WaitsFor.Hands, ""), (tray.Facts.WaitsFor, tray.Facts.WaitNote));
    }

    [Fact]
    public void Entries_on_their_way_are_folded_on_top_of_the_papers_and_what_the_rules_refuse_is_left_out_with_its_reason()
    {
        var tray = new TestTray(Sheets.Spec).Does(new JobNote("full")).Does(new OutNote("bowl-gasket", LineVerdict.Renew), out var there);
        var papers = new TraySnapshot(
            new TrayHead(Guid.NewGuid(), 1, 1, 2, "Boat", "", "Pump", DateTimeOffset.UnixEpoch, null),
            tray.Facts,
            tray.Log.Entries,
            tray.Context.Shop,
            "",
            FaultHistory.None,
            tray.Context.Today,
            [],
            ""
        );
        var at = new DateTimeOffset(2026, 11, 2, 9, 0, 0, TimeSpan.Zero);
        NewEntry Waiting(Note note, int minute) => new(Guid.CreateVersion7(at.AddMinutes(minute)), at.AddMinutes(minute), note);
        var (refused, renewed) = (Waiting(new BackNote("bowl-gasket", Fate.Refitted), 2), Waiting(new PartsHereNote(), 3));
        var folded = papers.OpenWith(
            [
                new(there, at, new OutNote("bowl-gasket", LineVerdict.Renew)),
                Waiting(new OutNote("bowl", LineVerdict.Clean), 1),
                refused,
                renewed,
            ],
            "Jory",
            at
        );

        // The gasket was there already; the bowl is new; the old gasket goes back only with a reason; the last one is for the server.
        Assert.Equal(3, folded.Head.Revision);
        Assert.Equal(
            ["full", "bowl-gasket", "bowl"],
            folded.Book.Log.Entries.Select(entry => entry.Note is JobNote job ? job.Job : ((OutNote)entry.Note).Part)
        );
        Assert.Equal([refused.Id, renewed.Id], folded.LeftOut.Select(left => left.Id));
        Assert.Equal("note.reason", Assert.Single(folded.LeftOut[0].Refusal!.Fields).Field);
        Assert.Null(folded.LeftOut[1].Refusal);
    }
}
