using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Handover;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tests.Trays;
using BlueDawn.Core.Trays;

namespace BlueDawn.Core.Tests.Handover;

public class HandoverReportTests
{
    private static readonly ReportTray Tray = new(
        27,
        "Brine & Sons",
        "",
        "Wash-down pump",
        "4107",
        "FB18",
        "Ostrel",
        "Hunts",
        new(2026, 11, 24, 8, 0, 0, TimeSpan.Zero),
        new DateOnly(2026, 11, 26)
    );

    private static HandoverReport Report(TestTray tray) =>
        HandoverReport.Of(
            Tray,
            [.. tray.Book.Modules.SelectMany(module => tray.Book.State(module.Station).Report)],
            tray.Book.Lines,
            Policy.NotDone(tray.Book),
            tray.Book.Dangers,
            tray.Book.Kind.Family
        );

    private static ReadingNote Pins(string go, string noGo) =>
        new("gauging/main-jet", TypedReading.Of(("go", go), ("noGo", noGo)), Sure: true);

    [Fact]
    public void Every_line_that_has_to_be_read_is_on_it_read_or_not_and_any_other_that_was_read()
    {
        var report = Report(new TestTray(Sheets.Spec));
        Assert.Equal(Sheets.Lines.Where(line => line.Required).Select(line => line.Key), report.Lines.Select(line => line.Key));
        var looked = Report(TestTray.Untouched().Does(new ReadingNote("setting/needle-tip", TypedReading.Of(("seen", "grooved")))));
        Assert.Contains(looked.Lines, line => line.Key == "setting/needle-tip");
        Assert.Contains(looked.Watch, point => point.StartsWith("Needle’s tip", StringComparison.Ordinal));
        Assert.All(report.Lines, line => Assert.Null(line.Standing));
        Assert.Contains(report.Watch, point => point.StartsWith("Main jet: was not read", StringComparison.Ordinal));
    }

    [Fact]
    public void A_slip_that_was_corrected_is_in_the_logbook_and_not_on_the_report()
    {
        var tray = TestTray.Untouched().Does(Pins("0.17", "0.73"), out var wrong).Does(Pins("0.715", "0.73"), wrong);
        var line = Report(tray).Lines.Single(l => l.Key == "gauging/main-jet");
        Assert.Equal("In gauge", line.Standing!.Word);
        Assert.Empty(line.Before);
        Assert.NotNull(tray.Log.Find(wrong));
    }

    [Fact]
    public void What_was_restricted_and_cleared_is_told_in_order_and_watched()
    {
        var report = Report(TestTray.Untouched().Does(Pins("0.65", "0.67")).Does(Pins("0.715", "0.73")));
        var line = report.Lines.Single(l => l.Key == "gauging/main-jet");
        Assert.Equal(("Restricted", "In gauge"), (line.Before[0].Word, line.Standing!.Word));
        Assert.False(line.Before[0].Corrected);
        Assert.Contains(report.Watch, point => point.StartsWith("Main jet was restricted and has been cleared", StringComparison.Ordinal));
    }

    /// <summary>What was fitted again is not called new, and what was renewed is.</summary>
    [Theory]
    [InlineData(Fate.Refitted, "was emptied and went back in", "the same part")]
    [InlineData(Fate.Renewed, "was renewed", "was renewed")]
    public void Words_of_a_part_follow_the_ledger(Fate fate, string ofTheFloat, string ofTheJet)
    {
        var tray = new TestTray(Sheets.Spec)
            .Does(new JobNote("full"))
            .Does(new OutNote("float", LineVerdict.Clean))
            .Does(new OutNote("main-jet", LineVerdict.Clean))
            .Does(new ReadingNote("setting/float-mass", TypedReading.Of(("mass", "7.4"))))
            .Does(new ReadingNote("setting/float-mass", TypedReading.Of(("mass", "6.2"))))
            .Does(Pins("0.80", "0.82"))
            .Does(Pins("0.715", "0.73"))
            .Adds(new BackNote("float", fate, Item: fate == Fate.Renewed ? "FL-01" : null), out _)
            .Adds(new BackNote("main-jet", fate, Item: fate == Fate.Renewed ? "MJ-01" : null), out _);
        var watch = Report(tray).Watch;
        Assert.Contains(watch, point => point.Contains("the float had fuel inside and " + ofTheFloat, StringComparison.Ordinal));
        Assert.Contains(watch, point =>
            point.StartsWith("Main jet read opened up", StringComparison.Ordinal) && point.Contains(ofTheJet, StringComparison.Ordinal)
        );
    }

    /// <summary>Where nobody wrote at Build what became of a part, the owner is told what was read and no more.</summary>
    [Fact]
    public void Of_a_part_nobody_wrote_about_only_the_reading_is_told()
    {
        var tray = TestTray
            .Untouched()
            .Does(Pins("0.80", "0.82"))
            .Does(Pins("0.715", "0.73"))
            .Does(new ReadingNote("setting/float-mass", TypedReading.Of(("mass", "7.4"))))
            .Does(new ReadingNote("setting/float-mass", TypedReading.Of(("mass", "6.2"))));
        var watch = Report(tray).Watch;
        Assert.Contains(watch, point => point.StartsWith("Main jet read opened up and reads in gauge now:", StringComparison.Ordinal));
        Assert.Contains(watch, point => point.Contains("had fuel inside and weighs right now", StringComparison.Ordinal));
    }

    private static FittedItem Item(string number, string part, bool came) =>
        new(number, "New " + part, 1, came, [new ItemPart(part, 1, new Dictionary<string, string>())]);

    /// <summary>A seat that never came while the old one went back is neither listed nor priced.</summary>
    [Fact]
    public void The_report_lists_what_went_in_and_not_what_was_decided()
    {
        var tray = new TestTray(Sheets.Spec)
            .Does(new JobNote("full"))
            .Fits(
                new Fitting(
                    FitOption.SingleParts,
                    "Needle and seat",
                    [Item("ND-03", "needle", true), Item("ST-04", "seat", false)],
                    ["needle", "seat"],
                    null,
                    9.30m
                )
            )
            .Does(new OutNote("needle", LineVerdict.Renew))
            .Does(new OutNote("seat", LineVerdict.Clean))
            .Adds(new BackNote("needle", Fate.Renewed, Item: "ND-03"), out _)
            .Adds(new BackNote("seat", Fate.Refitted), out _);
        var kit = Report(tray).Kit!;
        Assert.Equal(("ND-03", "New needle", null), (kit.Number, kit.Name, kit.Price));
        Assert.Equal(["1 needle"], kit.Parts);
        tray.Fits(tray.Facts.Fitting! with { Items = [Item("ND-03", "needle", true)] });
        Assert.Equal(9.30m, Report(tray).Kit!.Price);
        tray.Fits(tray.Facts.Fitting! with { Items = [Item("ND-09", "needle", true)] }); // the needle that went in is another one
        Assert.Null(Report(tray).Kit);
    }

    /// <summary>A screw that went back is told with the turns it was set to, though it is the old one.</summary>
    [Fact]
    public void The_turns_of_a_refitted_screw_are_on_the_report()
    {
        var tray = new TestTray(Sheets.Spec with { Traits = new CarburetorTraits(18, 48, 1, "round") })
            .Does(new JobNote("full"))
            .Does(new OutNote("idle-needle", LineVerdict.Clean, TurnsEighths: 10))
            .Adds(new BackNote("idle-needle", Fate.Refitted, TurnsEighths: 12), out _);
        var part = Assert.Single(Report(tray).Parts!);
        Assert.Equal(("idle mixture screw", Fate.Refitted, 12), (part.Label, part.Fate, part.TurnsEighths));
    }

    /// <summary>It hunted before and does not now: the owner is told to say so if it comes back.</summary>
    [Fact]
    public void Hunting_that_was_put_right_is_told_to_the_owner()
    {
        ReadingNote Idle(string swing) => new("proving/idle-speed", TypedReading.Of(("speed", "1600"), ("swing", swing)));
        var cured = TestTray.Untouched().Does(Idle("400")).Does(Idle("20"));
        Assert.Contains(Report(cured).Watch, point => point.StartsWith("Idle speed was put right", StringComparison.Ordinal));
        var hunting = TestTray.Untouched().Does(Idle("20")).Does(Idle("400"));
        Assert.Contains(Report(hunting).Watch, point => point.StartsWith("Idle speed: hunts", StringComparison.Ordinal));
    }

    /// <summary>A machine that is not repaired was not asked to be read.</summary>
    [Fact]
    public void A_declined_machine_is_not_told_what_was_not_read()
    {
        var tray = TestTray.Untouched().Fits(new Fitting(FitOption.Decline, "Not repaired", [], [], null, 0));
        Assert.DoesNotContain(Report(tray).Watch, point => point.Contains("was not read", StringComparison.Ordinal));
        Assert.True(Report(tray).Declined);
    }

    /// <summary>The fall while the pump settles is not a leak: the owner reads the window that was judged.</summary>
    [Fact]
    public void A_hold_test_is_told_by_the_window_that_was_judged()
    {
        var tray = TestTray
            .Untouched()
            .Does(
                new ReadingNote(
                    "setting/hold-test",
                    Sheets.Rows("pressure", "time", ("0", "52"), ("2", "49"), ("7", "49"), ("12", "49"), ("20", "48"))
                )
            );
        Assert.Equal(
            "49 kPa at 2 s, 49 kPa at 12 s",
            Report(tray).Lines.Single(line => line.Key == "setting/hold-test").Standing!.What.ToString()
        );
    }

    [Fact]
    public void A_reading_that_was_taken_back_is_in_the_logbook_and_not_on_the_report()
    {
        var tray = new TestTray(Sheets.Spec).Does(Pins("0.95", "1"), out var stray).Does(new WithdrawalNote(), stray);
        var line = Report(tray).Lines.Single(l => l.Key == "gauging/main-jet");
        Assert.Null(line.Standing);
        Assert.Equal(Verdict.NotRead, line.Verdict);
        Assert.Empty(line.Before);
        Assert.NotNull(tray.Log.Find(stray));
    }
}
