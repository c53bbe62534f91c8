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
        Assert.Equal(["filter housing"], tray.Book.TriedWithout);
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
    }
}
