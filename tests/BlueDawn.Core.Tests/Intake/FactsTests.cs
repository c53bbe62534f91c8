using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Intake;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tests.Trays;
using BlueDawn.Core.Trays;

namespace BlueDawn.Core.Tests.Intake;

/// <summary>What stands on the tray itself and how a change of it reads.</summary>
public class FactsTests
{
    public static TheoryData<string, string> Changes =>
        new()
        {
            { "day", "Promised 2026-11-06 → 2026-11-09" },
            { "waits", "Waits for hands → parts" },
            { "note", "Note: due Friday" },
            { "complaint", "Owner says: Hunts when warm" },
            { "stamped", "Stamped number 4107 → 4107-B" },
            { "family", "Family FloatBowl → Diaphragm" },
            { "engine", "Engine FourStroke → TwoStroke" },
            { "choke", "Choke unknown → Manual" },
        };

    private static FactsNote Note(string what) =>
        what switch
        {
            "day" => new(PromisedDay: new DateOnly(2026, 11, 9)),
            "waits" => new(WaitsFor: WaitsFor.Parts),
            "note" => new(WaitNote: " due Friday "),
            "complaint" => new(Complaint: "Hunts when warm"),
            "stamped" => new(StampedNumber: " 4107-B"),
            "family" => new(Family: CarburetorFamily.Diaphragm),
            "engine" => new(Engine: EngineKind.TwoStroke),
            _ => new(Choke: ChokeKind.Manual),
        };

    [Theory]
    [MemberData(nameof(Changes))]
    public void A_change_stands_on_the_tray_and_is_said_and_the_same_again_is_not(string what, string words)
    {
        var tray = TestTray.Untouched();
        var before = tray.Facts;
        Assert.False(FactsNote.Kind.ChangesNothing(Note(what), tray.Book));
        tray.Does(Note(what));
        Assert.True(FactsNote.Kind.ChangesNothing(Note(what), tray.Book));
        Assert.False(PhotoNote.Kind.ChangesNothing(new PhotoNote(null), tray.Book));
        Assert.NotEqual(before, tray.Facts);
        Assert.Contains(words, StationList.Say(tray.Log.Entries[^1], tray.Book).ToString(), StringComparison.OrdinalIgnoreCase);
        var after = tray.Facts;
        tray.Adds(Note(what));
        Assert.Equal(after, tray.Facts);
        Assert.DoesNotContain("→", StationList.Say(tray.Log.Entries[^1], tray.Book).ToString(), StringComparison.Ordinal);
    }

    /// <summary>The front desk changes what the owner says and when it is promised; what is seen at the bench and what has gone is not
    /// for it.</summary>
    [Theory]
    [InlineData("day", true)]
    [InlineData("waits", true)]
    [InlineData("complaint", true)]
    [InlineData("stamped", false)]
    [InlineData("family", false)]
    [InlineData("engine", false)]
    [InlineData("choke", false)]
    public void What_the_front_desk_may_change(string what, bool may)
    {
        Assert.Equal(may ? null : RefusalKind.NotAllowed, TestTray.Untouched().Refuses(Note(what), role: Role.FrontDesk)?.Kind);
        Assert.Null(TestTray.Untouched().Refuses(Note(what), role: Role.Technician));
    }

    [Fact]
    public void The_front_desk_does_not_bring_back_what_has_been_handed_back()
    {
        var gone = TestTray.Untouched();
        gone.Facts = gone.Facts with { WaitsFor = WaitsFor.HandedBack };
        Assert.Equal(RefusalKind.NotAllowed, gone.Refuses(new FactsNote(WaitsFor: WaitsFor.Hands), role: Role.FrontDesk)?.Kind);
        Assert.Null(gone.Refuses(new FactsNote(WaitsFor: WaitsFor.Hands), role: Role.Technician));
        // The same as before, sent along with a change, is no change of it.
        Assert.Null(TestTray.Untouched().Refuses(new FactsNote(StampedNumber: "4107", Complaint: "Hunts when warm"), role: Role.FrontDesk));
    }

    [Theory]
    [InlineData("complaint", "note.complaint")]
    [InlineData("stamped", "note.stampedNumber")]
    [InlineData("limit", "note.ownerLimit")]
    [InlineData("worth", "note.machineWorth")]
    public void What_cannot_be_is_asked_about(string what, string field) =>
        Assert.Equal(
            field,
            Assert
                .Single(
                    TestTray
                        .Untouched()
                        .Refuses(
                            what switch
                            {
                                "complaint" => new FactsNote(Complaint: "  "),
                                "stamped" => new FactsNote(StampedNumber: new string('4', 41)),
                                "limit" => new FactsNote(OwnerLimit: -1),
                                _ => new FactsNote(MachineWorth: 1_000_000_000),
                            }
                        )!
                        .Fields
                )
                .Field
        );
}
