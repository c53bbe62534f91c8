using BlueDawn.Core.Build;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tests.Trays;

namespace BlueDawn.Core.Tests.Build;

/// <summary>A mixture screw is turned where it sits, as often as is needed; the last stands.</summary>
public sealed class ScrewTests
{
    private const string Idle = "idle-needle";

    private static Screw Of(TestTray tray) => tray.Book.State<BuildState>().Screws.Single(screw => screw.Part == Idle);

    private static IEnumerable<string> Told(TestTray tray) =>
        tray
            .Book.State<BuildState>()
            .Report.OfType<PointsSection>()
            .SelectMany(section => section.Points)
            .Where(point => point.Chapter == ReportChapter.Screws)
            .Select(point => point.Words.ToString());

    [Fact]
    public void One_that_never_came_out_is_turned_from_where_it_stood()
    {
        var tray = TestTray.Untouched();
        Assert.Equal((true, null, null), (Of(tray).IsIn, Of(tray).Eighths, Of(tray).FoundEighths));
        Assert.Empty(Told(tray));
        tray.Does(new TurnsNote(Idle, 10, 8, "Hunts when warm"));
        Assert.Equal((10, 8), (Of(tray).Eighths, Of(tray).FoundEighths));
        Assert.Equal("idle mixture screw: 1¼ turns out from a light seat, found at 1, because: Hunts when warm.", Told(tray).Single());
        // Nothing has been taken apart by it.
        Assert.DoesNotContain(tray.Book.Ledger.Lines, line => line.IsTaken);
    }

    [Fact]
    public void The_last_turn_stands_and_each_is_kept_with_where_it_came_from()
    {
        var tray = new TestTray(Sheets.Spec).Does(new JobNote("full")).Does(new OutNote(Idle, LineVerdict.Clean, TurnsEighths: 9));
        Assert.Contains("lies on the bench", tray.Refuses(new TurnsNote(Idle, 10))!.Detail, StringComparison.Ordinal);
        tray.Does(new BackNote(Idle, Fate.Refitted, TurnsEighths: 12))
            .Does(new TurnsNote(Idle, 14))
            .Does(new TurnsNote(Idle, 13, Why: "Best by two losing points."));
        Assert.Equal((13, 9), (Of(tray).Eighths, Of(tray).FoundEighths));
        Assert.Equal([(12, 14), (14, 13)], Of(tray).Steps.Select(step => (step.From!.Value, step.To)));
        Assert.Equal(
            "idle mixture screw: 1⅝ turns out from a light seat, found at 1⅛, because: Best by two losing points.",
            Told(tray).Single()
        );
        var part = tray
            .Book.State<BuildState>()
            .Report.OfType<PartsSection>()
            .Single()
            .Parts.Single(one => one.Label == "idle mixture screw");
        Assert.Equal(13, part.TurnsEighths);
    }

    [Fact]
    public void What_was_taken_back_was_not_so()
    {
        var tray = new TestTray(Sheets.Spec)
            .Does(new JobNote("full"))
            .Does(new OutNote(Idle, LineVerdict.Clean, TurnsEighths: 9))
            .Does(new BackNote(Idle, Fate.Refitted, TurnsEighths: 12))
            .Does(new UndoNote(Idle));
        Assert.Equal((9, 9, false), (Of(tray).Eighths, Of(tray).FoundEighths, Of(tray).IsIn));
        tray.Does(new UndoNote(Idle));
        Assert.Equal((null, null, true), (Of(tray).Eighths, Of(tray).FoundEighths, Of(tray).IsIn));
    }

    [Fact]
    public void Another_part_more_turns_than_there_are_and_a_long_reason_are_refused()
    {
        var tray = TestTray.Untouched();
        Assert.Contains("no such screw", tray.Refuses(new TurnsNote("bowl", 8))!.Detail, StringComparison.Ordinal);
        Assert.Equal("note.turnsEighths", tray.Refuses(new TurnsNote(Idle, 81))!.Fields.Single().Field);
        Assert.Equal("note.fromEighths", tray.Refuses(new TurnsNote(Idle, 8, -1))!.Fields.Single().Field);
        Assert.Equal("note.why", tray.Refuses(new TurnsNote(Idle, 8, 8, new string('x', 201)))!.Fields.Single().Field);
        tray.Does(new TurnsNote(Idle, 80, 0));
    }
}
