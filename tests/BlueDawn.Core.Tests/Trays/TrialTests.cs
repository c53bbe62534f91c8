using BlueDawn.Core.Build;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Pages;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Trays;

namespace BlueDawn.Core.Tests.Trays;

/// <summary>An engine tried before everything is on: it counts for the fault, and is read once more.</summary>
public class TrialTests
{
    private const string Speed = "proving/governed-speed";

    private static ReadingNote Runs => new(Speed, Sheets.AllGood()[Speed]);

    private static TestTray Without(params string[] parts)
    {
        var tray = new TestTray(Sheets.Spec).Does(new JobNote("full"));
        foreach (var part in parts)
        {
            tray.Does(new OutNote(part, LineVerdict.Refit));
        }

        return tray;
    }

    private static JudgedLine Line(TestTray tray) => tray.Book.Lines.Single(line => line.Line.Key == Speed);

    [Fact]
    public void With_the_filter_off_it_is_tried_for_now_and_read_once_more()
    {
        var tray = Without("filter-housing");
        Assert.Equal(["filter housing"], tray.Book.TriedWithout(Station.Proving));
        tray.Does(Runs);
        Assert.Equal((Verdict.CannotTell, "For now", true), (Line(tray).Judgement.Verdict, Line(tray).Judgement.Word, Line(tray).IsOpen));
        Assert.Contains("filter housing", Line(tray).Judgement.DoNext.ToString(), StringComparison.Ordinal);
        // Typed once more, it says the same before it is recorded.
        Assert.Equal("For now", DraftJudgement.Of(new(Speed, Sheets.AllGood()[Speed]), tray.Book)!.Judgement!.Word);
        // What was found is found: a steady engine does not hunt, filter or not.
        Assert.Equal("inWindow", Line(tray).Judgement.Finding);
        // With the filter on it is still the old reading; a new one settles it.
        tray.Does(new BackNote("filter-housing", Fate.Refitted));
        Assert.Equal("For now", Line(tray).Judgement.Word);
        tray.Does(Runs);
        Assert.Equal(Verdict.Good, Line(tray).Judgement.Verdict);
    }

    [Fact]
    public void What_is_still_there_without_the_filter_is_still_there()
    {
        var tray = Without("filter-housing");
        tray.Facts = tray.Facts with { Complaints = [new Complaint("hunts", "Hunts")] };
        tray.Does(new FaultNote("idle-jet-blocked", FaultOutcome.Fixed));
        tray.Does(new ReadingNote("proving/complaint-hunts", TypedReading.Of(("state", "stillThere"))));
        Assert.True(tray.Book.State<FaultsState>().IsBack);
    }

    /// <summary>What is not for a trial by itself is tried with a reason; what would let fuel out or keep it running is not, for any.</summary>
    [Fact]
    public void Another_part_wants_a_reason_and_a_dangerous_one_has_none()
    {
        const string Why = "The insulator comes on Friday";
        var tray = Without("idle-jet");
        Assert.Equal(RefusalKind.Conflict, tray.Refuses(Runs)!.Kind);
        Assert.Equal(RefusalKind.Wrong, tray.Refuses(new TrialNote("short"))!.Kind);
        tray.Does(new TrialNote(Why)).Does(Runs);
        Assert.Equal("For now", Line(tray).Judgement.Word);
        // A part that comes out afterwards is another trial.
        tray.Does(new OutNote("main-jet", LineVerdict.Refit));
        Assert.NotNull(tray.Refuses(Runs));
        foreach (var part in new[] { "bowl-nut", "throttle-link", "intake-gasket" })
        {
            var unsafely = Without(part);
            Assert.Contains("Not without", unsafely.Refuses(new TrialNote(Why))!.Detail, StringComparison.Ordinal);
            Assert.NotNull(unsafely.Refuses(Runs));
        }

        // Together it needs none.
        Assert.NotNull(new TestTray(Sheets.Spec).Refuses(new TrialNote(Why)));
    }

    [Fact]
    public void A_trial_stands_in_the_logbook_with_what_was_off()
    {
        var tray = Without("filter-housing").Does(Runs, out var id);
        Assert.Equal(["filter housing"], ((ReadingNote)tray.Log.Find(id)!.Note).Without);
        // The next technician reads of it beside the reading that stands.
        tray.Does(new BackNote("filter-housing", Fate.Refitted)).Does(Runs);
        Assert.Equal("In window, without filter housing", Assert.Single(ReportLine.Of(Line(tray), tray.Log).Before).Word);
    }

    /// <summary>A part put back and taken out again is another trial: the reason was given for what was out then.</summary>
    [Fact]
    public void A_part_that_is_taken_back_out_ends_the_trial()
    {
        var tray = Without("idle-jet").Does(new TrialNote("The jet for it comes on Friday")).Does(Runs);
        tray.Does(new BackNote("idle-jet", Fate.Refitted)).Does(Runs);
        tray.Does(new UndoNote("idle-jet"));
        Assert.Equal(RefusalKind.Conflict, tray.Refuses(Runs)!.Kind);
    }

    /// <summary>Why it was tried so is told to the next technician, and what was read good only then is not said to be undecided.</summary>
    [Fact]
    public void The_report_says_why_it_was_tried_and_what_was_not_read_again()
    {
        var tray = Without("idle-jet").Does(new TrialNote("The jet for it comes on Friday")).Does(Runs);
        Assert.Contains(tray.Book.State<BuildState>().Report.OfType<PointsSection>().SelectMany(section => section.Points), point =>
            point is { Chapter: ReportChapter.Found } && point.Words.Text.Contains("comes on Friday", StringComparison.Ordinal)
        );
        Assert.Contains(
            "Governed speed: was read good without idle jet, and not again with all on.",
            Core.Handover.WatchList.Of(
                tray.Book.Lines,
                new Dictionary<string, Fate>(),
                false,
                Core.Carburetors.CarburetorFamily.FloatBowl,
                new HashSet<string>()
            )
        );
    }

    /// <summary>With the filter off the plate of a heat choke is seen: it is timed so, and for good. Common practice, no source.</summary>
    [Fact]
    public void A_choke_is_watched_with_the_filter_off()
    {
        const string Opening = "chokes/opening";
        var tray = new TestTray(
            Sheets.Spec,
            new(Core.Carburetors.CarburetorFamily.FloatBowl, Core.Carburetors.EngineKind.FourStroke, Core.Carburetors.ChokeKind.Heat)
        )
            .Does(new JobNote("full"))
            .Does(new OutNote("filter-housing", LineVerdict.Refit))
            .Does(new ReadingNote(Opening, TypedReading.Of(("open", "2.4"), ("end", "ranOn"))), out var id);
        Assert.Null(((ReadingNote)tray.Log.Find(id)!.Note).Without);
        // The air cleaner of a tank seals the choke's vacuum by its screw: that one is on.
        var tank = new TestTray(
            Sheets.Spec with
            {
                Family = Core.Carburetors.CarburetorFamily.SuctionTank,
                Float = null,
            },
            new(Core.Carburetors.CarburetorFamily.SuctionTank, Core.Carburetors.EngineKind.FourStroke, Core.Carburetors.ChokeKind.Vacuum)
        )
            .Does(new JobNote("full"))
            .Does(new OutNote("air-cleaner", LineVerdict.Refit));
        Assert.NotNull(tank.Refuses(new ReadingNote(Opening, TypedReading.Of(("open", "2.4"), ("end", "ranOn")))));
        Assert.Null(tank.Refuses(Runs));
    }

    [Fact]
    public void What_may_be_off_is_no_danger_when_it_is_left_off()
    {
        var ledger = Core.Tables.Knowledge.Shipped.Of<LedgerKnowledge>();
        var off = Enum.GetValues<Core.Carburetors.CarburetorFamily>().SelectMany(ledger.All).Where(part => part.MayBeOff).ToList();
        Assert.NotEmpty(off);
        Assert.DoesNotContain(off, part => Dangers.Signs.Any(sign => sign.IsThere && sign.Sign == $"part:{part.Key}"));
    }
}
