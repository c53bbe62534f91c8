using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Proving;

/// <summary>A new plunger or seat that weeps and is given some days to bed in.</summary>
public static class BedIn
{
    /// <summary>Days since it was first seen to weep, by the calendar of the shop; null when it was not, or when something else was seen
    /// after it.</summary>
    /// <param name="tray">The tray.</param>
    public static int? DaysOf(TrayBook tray) =>
        Since(tray) is { } since ? Math.Max(0, tray.Context.Today.DayNumber - since.DayNumber) : null;

    /// <summary>The day from which it is to be looked at again; null while nothing beds in.</summary>
    /// <param name="tray">The tray.</param>
    public static DateOnly? LookAgainOn(TrayBook tray) => Since(tray)?.AddDays(tray.Shop.BedInDays);

    /// <summary>Whether it has had its days and is to be looked at now.</summary>
    /// <param name="tray">The tray.</param>
    public static bool IsDue(TrayBook tray) => LookAgainOn(tray) <= tray.Context.Today;

    private static DateOnly? Since(TrayBook tray)
    {
        DateOnly? since = null;
        foreach (var logged in tray.Log.Notes<ReadingNote>())
        {
            since = logged.Note.Reading switch
            {
                FuelWatchReading { Leak: FuelLeak.NewPart, BeddedDays: var days } when days is null || days < tray.Shop.BedInDays => since
                    ?? tray.Context.DayOf(logged.TakenAt),
                FuelWatchReading => null,
                _ => since,
            };
        }

        return since;
    }
}
