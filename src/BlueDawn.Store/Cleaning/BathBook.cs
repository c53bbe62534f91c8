using BlueDawn.Core.Cleaning;
using BlueDawn.Core.Shop;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Store.Cleaning;

/// <summary>Something that happened at a bath. Added, never edited.</summary>
public sealed class BathEventRow
{
    /// <summary>Id made by the client, UUIDv7: sent twice, it is one event.</summary>
    public Guid Id { get; set; }

    /// <summary>The bath's key.</summary>
    public string Bath { get; set; } = "";

    /// <summary>What happened.</summary>
    public BathEventKind Kind { get; set; }

    /// <summary>When.</summary>
    public DateTimeOffset At { get; set; }

    /// <summary>The tray, where one comes in.</summary>
    public Guid? TrayId { get; set; }

    /// <summary>The tray's number.</summary>
    public int? TrayNumber { get; set; }

    /// <summary>Its basket, from 1.</summary>
    public int? Basket { get; set; }

    /// <summary>The recipe it is cleaned by.</summary>
    public string? Recipe { get; set; }

    /// <summary>Minutes of the recipe, or minutes longer.</summary>
    public double? Minutes { get; set; }

    /// <summary>What the thermometer showed, degrees Celsius.</summary>
    public double? TemperatureC { get; set; }

    /// <summary>Who.</summary>
    public string PersonName { get; set; } = "";

    /// <summary>Who.</summary>
    public Guid PersonId { get; set; }

    /// <summary>The event as Core's rules see it.</summary>
    public BathEvent AsEvent() => new(Kind, At, TrayNumber, Basket, Recipe, Minutes, TemperatureC);
}

/// <summary>The baths' book.</summary>
public static class BathBook
{
    // Two days hold the longest soak and every reading its temperature is reckoned from.
    private static readonly TimeSpan LookBack = TimeSpan.FromDays(2);

    /// <summary>Events of the baths that still matter, oldest first: everything of baskets that are in, and the last days.</summary>
    public static async Task<IReadOnlyList<BathEventRow>> EventsAsync(BlueDawnDb db, DateTimeOffset now, CancellationToken cancel)
    {
        var since = now - LookBack;
        return await db
            .BathEvents.Where(happened => happened.At >= since)
            .Union(
                db.BathEvents.Where(happened =>
                    db.Trays.Where(tray => tray.InBath).Any(tray => tray.Id == happened.TrayId)
                    && !db.BathEvents.Any(later =>
                        later.TrayId == happened.TrayId && later.Kind == BathEventKind.TakenOut && later.At >= happened.At
                    )
                )
            )
            .AsNoTracking()
            .OrderBy(happened => happened.At)
            .ThenBy(happened => happened.Id)
            .ToListAsync(cancel);
    }

    /// <summary>Every bath as it stands.</summary>
    public static async Task<IReadOnlyList<BathState>> StatesAsync(
        BlueDawnDb db,
        CleaningDefaults shop,
        CleaningKnowledge recipes,
        DateTimeOffset now,
        CancellationToken cancel
    )
    {
        var events = (await EventsAsync(db, now, cancel)).ToLookup(row => row.Bath, row => row.AsEvent());
        return [.. shop.Baths.Select(bath => BathState.Of(bath, recipes, [.. events[bath.Key]], now))];
    }
}
