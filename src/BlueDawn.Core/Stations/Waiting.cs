namespace BlueDawn.Core.Stations;

/// <summary>What happens to a tray that changes what it waits for.</summary>
public enum WaitEvent
{
    /// <summary>Something that was decided on has to be ordered.</summary>
    PartsToOrder,

    /// <summary>Everything that was decided on is there, or nothing is to be fitted.</summary>
    PartsHere,

    /// <summary>Its basket goes into a bath.</summary>
    IntoBath,

    /// <summary>Its basket comes out.</summary>
    OutOfBath,

    /// <summary>A new plunger or seat weeps and is given some days.</summary>
    ToBedIn,

    /// <summary>It was looked at again.</summary>
    BeddedIn,

    /// <summary>It is handed back to its owner.</summary>
    HandBack,
}

/// <summary>
/// The states a tray waits in, as one state machine. Anybody may set any state but <see cref="WaitsFor.HandedBack"/> by
/// hand; setting one on a tray that was handed back brings it back to the bench.
/// <code>
/// event         from            to
/// PartsToOrder  any             Parts
/// PartsHere     Parts           Hands      any other: stays
/// IntoBath      any             Bath
/// OutOfBath     Bath            Hands      any other: stays
/// ToBedIn       any             BedIn
/// BeddedIn      BedIn           Hands      any other: stays
/// HandBack      any             HandedBack
/// </code>
/// From HandedBack no event leads anywhere.
/// </summary>
public static class Waiting
{
    /// <summary>What a tray waits for after something happened to it.</summary>
    /// <param name="now">What it waits for now.</param>
    /// <param name="happened">What happens.</param>
    public static WaitsFor After(WaitsFor now, WaitEvent happened) =>
        now == WaitsFor.HandedBack
            ? now
            : happened switch
            {
                WaitEvent.PartsToOrder => WaitsFor.Parts,
                WaitEvent.PartsHere => now == WaitsFor.Parts ? WaitsFor.Hands : now,
                WaitEvent.IntoBath => WaitsFor.Bath,
                WaitEvent.OutOfBath => now == WaitsFor.Bath ? WaitsFor.Hands : now,
                WaitEvent.ToBedIn => WaitsFor.BedIn,
                WaitEvent.BeddedIn => now == WaitsFor.BedIn ? WaitsFor.Hands : now,
                WaitEvent.HandBack => WaitsFor.HandedBack,
            };

    /// <summary>A tray after something happened to it; the note about the wait goes with the wait.</summary>
    /// <param name="facts">The tray.</param>
    /// <param name="happened">What happens.</param>
    /// <param name="note">More about the new wait.</param>
    public static TrayFacts After(TrayFacts facts, WaitEvent happened, string note = "")
    {
        var after = After(facts.WaitsFor, happened);
        return after == facts.WaitsFor && note.Length == 0 ? facts : facts with { WaitsFor = after, WaitNote = note };
    }
}
