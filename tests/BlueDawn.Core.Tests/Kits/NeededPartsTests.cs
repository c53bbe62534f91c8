using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Kits;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tests.Trays;

namespace BlueDawn.Core.Tests.Kits;

/// <summary>What is wanted at Kit follows from what was found: at Strip, at Set, and by a fault that was shown.</summary>
public sealed class NeededPartsTests
{
    private static readonly CarburetorKind Float = new(CarburetorFamily.FloatBowl, EngineKind.FourStroke, null);
    private static readonly CarburetorKind Diaphragm = new(CarburetorFamily.Diaphragm, EngineKind.TwoStroke, null);

    private static IReadOnlyList<string> Wanted(TestTray tray) => [.. tray.Book.State<KitsState>().Wanted.Select(part => part.Part)];

    /// <summary>Twice its dry mass: it is full of fuel, and the mend is a new one. Common practice, no source.</summary>
    [Fact]
    public void A_float_found_full_wants_a_float()
    {
        var tray = TestTray.Untouched();
        Assert.DoesNotContain("float", Wanted(tray));
        tray.Does(new ReadingNote("setting/float-mass", TypedReading.Of(("mass", "12"))));
        Assert.Contains("float", Wanted(tray));

        tray.Does(new JobNote("full")).Adds(new OutNote("float", LineVerdict.Refit));
        tray.Adds(new BackNote("float", Fate.Renewed, Elsewhere: new Elsewhere(Origin.OverTheCounter, "a float of the same shape")));
        Assert.DoesNotContain("float", Wanted(tray));
    }

    [Fact]
    public void A_fault_that_was_shown_wants_its_part_without_a_sheet_or_an_old_one_too()
    {
        var tray = new TestTray(null, Diaphragm);
        Assert.Empty(Wanted(tray));
        tray.Does(new FindingsNote(null, [new("diaphragm-torn", Said.Present)], false));
        Assert.Contains("metering diaphragm", Wanted(tray));
        tray.Does(new FaultNote("metering-diaphragm-torn", FaultOutcome.NotIt));
        Assert.DoesNotContain("metering diaphragm", Wanted(tray));
    }

    /// <summary>A mend that takes no part wants none: a jet is cleared, a tab bent.</summary>
    [Fact]
    public void What_is_cleared_or_set_wants_nothing()
    {
        var tray = new TestTray(null, Float);
        tray.Does(new FindingsNote(null, [new("idle-jet-dark", Said.Present)], false));
        Assert.DoesNotContain("idle jet", Wanted(tray));
    }

    /// <summary>What the owner tells is no look.</summary>
    [Fact]
    public void What_is_only_told_wants_nothing()
    {
        var tray = new TestTray(null, Diaphragm);
        tray.Does(new FindingsNote("owner-story", [new("wont-start", Said.Present)], true));
        Assert.Empty(Wanted(tray));
    }
}
