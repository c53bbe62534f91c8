using BlueDawn.Core.Measures;
using BlueDawn.Core.Shop;

namespace BlueDawn.Core.Cleaning;

/// <summary>What can happen at a bath.</summary>
public enum BathEventKind
{
    /// <summary>A tray's basket went in.</summary>
    Placed,

    /// <summary>It came out.</summary>
    TakenOut,

    /// <summary>It stays in longer than the recipe says.</summary>
    Longer,

    /// <summary>The heater was switched on.</summary>
    HeaterOn,

    /// <summary>The heater was switched off.</summary>
    HeaterOff,

    /// <summary>The thermometer was read.</summary>
    Temperature,
}

/// <summary>Something that happened at a bath. Never edited; how the bath stands is what they add up to.</summary>
/// <param name="Kind">What happened.</param>
/// <param name="At">When.</param>
/// <param name="Tray">The tray's number, where one comes in.</param>
/// <param name="Basket">Its basket, from 1.</param>
/// <param name="Recipe">The recipe it is cleaned by.</param>
/// <param name="Minutes">Minutes of the recipe, or minutes longer.</param>
/// <param name="TemperatureC">What the thermometer showed.</param>
public sealed record BathEvent(
    BathEventKind Kind,
    DateTimeOffset At,
    int? Tray = null,
    int? Basket = null,
    string? Recipe = null,
    double? Minutes = null,
    double? TemperatureC = null
);

/// <summary>How a basket stands.</summary>
public enum BasketStanding
{
    /// <summary>Its time runs.</summary>
    Running,

    /// <summary>The bath is too cold: its time waits.</summary>
    TooCold,

    /// <summary>The bath is too hot: its time waits.</summary>
    TooHot,

    /// <summary>Nobody has read the thermometer: its time cannot count.</summary>
    NoTemperature,

    /// <summary>Its time is up.</summary>
    Done,
}

/// <summary>A tray's basket in a bath.</summary>
/// <param name="Tray">The tray's number.</param>
/// <param name="Number">Which basket, from 1.</param>
/// <param name="Recipe">The recipe's key.</param>
/// <param name="Since">When it went in.</param>
/// <param name="Minutes">Minutes it takes in all.</param>
/// <param name="Counted">Minutes that have counted so far.</param>
/// <param name="Standing">How it stands.</param>
/// <param name="DoneAt">When its time is up, as far as can be told; null when that cannot be told.</param>
/// <param name="ReadyAt">When its time starts to count again; null when it does, or when that cannot be told.</param>
public sealed record Basket(
    int Tray,
    int Number,
    string Recipe,
    DateTimeOffset Since,
    double Minutes,
    double Counted,
    BasketStanding Standing,
    DateTimeOffset? DoneAt,
    DateTimeOffset? ReadyAt
)
{
    /// <summary>Share of its minutes after which a basket has had its time. Own judgement: a minute or two early does no harm.</summary>
    private const double Enough = 0.9;

    /// <summary>Whether what is in it has had its time: lifted earlier it is not cleaned, unless somebody looked and says so.</summary>
    public bool HasHadItsTime => Counted >= Enough * Minutes;
}

/// <summary>How a bath stands at a moment.</summary>
/// <param name="Bath">The bath.</param>
/// <param name="Baskets">What is in it.</param>
/// <param name="FreeBaskets">Baskets that are free.</param>
/// <param name="HeaterOn">Whether its heater is on.</param>
/// <param name="TemperatureC">Its temperature now, carried on from the last reading; null when nobody has read it.</param>
/// <param name="ReadAt">When the thermometer was last read.</param>
/// <param name="EndC">Where the temperature is heading.</param>
/// <param name="TimeConstantMin">The time constant it is reckoned with.</param>
/// <param name="Fitted">True when that follows from its own readings since the heater was last switched.</param>
public sealed record BathState(
    Bath Bath,
    IReadOnlyList<Basket> Baskets,
    IReadOnlyList<int> FreeBaskets,
    bool HeaterOn,
    double? TemperatureC,
    DateTimeOffset? ReadAt,
    double EndC,
    double TimeConstantMin,
    bool Fitted
)
{
    /// <summary>Where the temperature is heading from now on, evenly spaced; empty when nobody has read it.</summary>
    /// <param name="minutes">How far ahead, in minutes.</param>
    /// <param name="steps">How many steps, 1 or more.</param>
    public IReadOnlyList<TemperatureSample> Ahead(double minutes, int steps) =>
        TemperatureC is not { } now
            ? []
            :
            [
                .. Enumerable
                    .Range(0, steps + 1)
                    .Select(step => minutes * step / steps)
                    .Select(minute => new TemperatureSample(minute, new NewtonFit(EndC, now, TimeConstantMin, 0).TemperatureC(minute))),
            ];

    /// <summary>The bath as its events leave it.</summary>
    /// <param name="bath">The bath.</param>
    /// <param name="knowledge">The recipes.</param>
    /// <param name="events">Its events, oldest first.</param>
    /// <param name="now">The moment.</param>
    public static BathState Of(Bath bath, CleaningKnowledge knowledge, IReadOnlyList<BathEvent> events, DateTimeOffset now)
    {
        var curve = BathCurve.Of(bath, events, knowledge);
        var inside = new Dictionary<int, BathEvent>();
        var longer = new Dictionary<int, double>();
        foreach (var happened in events)
        {
            switch (happened)
            {
                case { Kind: BathEventKind.Placed, Tray: { } tray }:
                    inside[tray] = happened;
                    longer.Remove(tray);
                    break;
                case { Kind: BathEventKind.TakenOut, Tray: { } tray }:
                    inside.Remove(tray);
                    break;
                case { Kind: BathEventKind.Longer, Tray: { } tray, Minutes: { } minutes }:
                    longer[tray] = longer.GetValueOrDefault(tray) + minutes;
                    break;
            }
        }

        List<Basket> baskets =
        [
            .. inside
                .Values.Select(placed =>
                    BasketOf(placed, longer.GetValueOrDefault(placed.Tray!.Value), knowledge.Find(placed.Recipe!), curve, now)
                )
                .OrderBy(basket => basket.Number),
        ];
        return new BathState(
            bath,
            baskets,
            [.. Enumerable.Range(1, bath.Baskets).Except(baskets.Select(basket => basket.Number))],
            curve.HeaterOn,
            curve.At(now),
            curve.ReadAt,
            curve.EndC,
            curve.TimeConstantMin,
            curve.Fitted
        );
    }

    private static Basket BasketOf(BathEvent placed, double longer, CleaningRecipe? recipe, BathCurve curve, DateTimeOffset now)
    {
        var minutes = (placed.Minutes ?? recipe?.Minutes ?? 0) + longer;
        var spans = recipe is { LowC: { } low, HighC: { } high }
            ? curve.Within(low, high, placed.At)
            : [(placed.At, DateTimeOffset.MaxValue)];
        var counted = spans.Sum(span => Math.Max(0, (Earlier(span.To, now) - Earlier(span.From, now)).TotalMinutes));
        DateTimeOffset? done = null;
        var left = minutes;
        foreach (var (from, to) in spans)
        {
            var length = to == DateTimeOffset.MaxValue ? double.PositiveInfinity : (to - from).TotalMinutes;
            if (length >= left)
            {
                done = from.AddMinutes(left);
                break;
            }

            left -= length;
        }

        var runs = spans.Any(span => span.From <= now && now < span.To);
        var standing =
            done <= now ? BasketStanding.Done
            : runs ? BasketStanding.Running
            : curve.At(now) is not { } temperature ? BasketStanding.NoTemperature
            : temperature < recipe!.LowC ? BasketStanding.TooCold
            : BasketStanding.TooHot;
        return new Basket(
            placed.Tray!.Value,
            placed.Basket!.Value,
            placed.Recipe!,
            placed.At,
            minutes,
            Math.Min(counted, minutes),
            standing,
            done,
            standing is BasketStanding.TooCold or BasketStanding.TooHot
            && spans.Where(span => span.From > now).Select(span => span.From).DefaultIfEmpty(DateTimeOffset.MaxValue).Min() is var next
            && next != DateTimeOffset.MaxValue
                ? next
                : null
        );
    }

    private static DateTimeOffset Earlier(DateTimeOffset one, DateTimeOffset other) => one < other ? one : other;
}

/// <summary>
/// A bath's temperature in time: straight lines between readings, and from the last one on first-order heating or
/// cooling with the time constant its own readings show.
/// </summary>
internal sealed record BathCurve(IReadOnlyList<BathEvent> Readings, bool HeaterOn, double EndC, double TimeConstantMin, bool Fitted)
{
    public DateTimeOffset? ReadAt => Readings.Count == 0 ? null : Readings[^1].At;

    public static BathCurve Of(Bath bath, IReadOnlyList<BathEvent> events, CleaningKnowledge knowledge)
    {
        var readings = events
            .Where(happened => happened is { Kind: BathEventKind.Temperature, TemperatureC: not null })
            .OrderBy(happened => happened.At)
            .ToList();
        var switched = events.LastOrDefault(happened => happened.Kind is BathEventKind.HeaterOn or BathEventKind.HeaterOff);
        var on = switched?.Kind == BathEventKind.HeaterOn;
        var since = readings.Where(reading => switched is null || reading.At >= switched.At).ToList();
        if (
            since.Count > 0
            && NewtonFit.Of([
                .. since.Select(reading => new TemperatureSample((reading.At - since[0].At).TotalMinutes, reading.TemperatureC!.Value)),
            ])
                is { } fit
        )
        {
            return new BathCurve(readings, on, fit.EndC, fit.TimeConstantMin, true);
        }

        // Without enough readings: the thermostat holds the recipe's temperature, the cold bath goes to the room's.
        var target = knowledge.Recipes.Where(recipe => recipe.Vessel == bath.Vessel).Select(recipe => recipe.TargetC).FirstOrDefault()
            ?? bath.RoomC;
        return new BathCurve(readings, on, on ? target : bath.RoomC, bath.TimeConstantMin, false);
    }

    /// <summary>Temperature at a moment not before the last reading; null when nobody has read it.</summary>
    public double? At(DateTimeOffset moment) =>
        Readings.Count == 0
            ? null
            : EndC
                + (Readings[^1].TemperatureC!.Value - EndC)
                    * SteadyMath.Exp(-Math.Max(0, (moment - Readings[^1].At).TotalMinutes) / TimeConstantMin);

    /// <summary>Stretches of time from a moment on in which it is within a window, the last open-ended when it stays there.</summary>
    public IReadOnlyList<(DateTimeOffset From, DateTimeOffset To)> Within(double lowC, double highC, DateTimeOffset start)
    {
        var spans = new List<(DateTimeOffset From, DateTimeOffset To)>();
        void Add(DateTimeOffset from, DateTimeOffset to)
        {
            from = from < start ? start : from;
            if (to <= from)
            {
                return;
            }

            if (spans.Count > 0 && from - spans[^1].To < TimeSpan.FromMilliseconds(1))
            {
                spans[^1] = (spans[^1].From, to);
            }
            else
            {
                spans.Add((from, to));
            }
        }

        for (var i = 0; i + 1 < Readings.Count; i++)
        {
            var (a, b) = (Readings[i], Readings[i + 1]);
            var length = b.At - a.At;
            var (from, to) = Inside(a.TemperatureC!.Value, b.TemperatureC!.Value, lowC, highC);
            Add(a.At + length * from, a.At + length * to);
        }

        if (Readings.Count == 0)
        {
            return spans;
        }

        var last = Readings[^1];
        var nowC = last.TemperatureC!.Value;
        DateTimeOffset? Reach(double level) =>
            NewtonFit.MinutesTo(nowC, level, EndC, TimeConstantMin) is { } minutes && minutes < LongestMinutes
                ? last.At.AddMinutes(minutes)
                : null;
        var inside = nowC >= lowC && nowC <= highC;
        // On its way it crosses at most both edges, in the order it meets them.
        var (enterLevel, leaveLevel) = EndC > nowC ? (lowC, highC) : (highC, lowC);
        var enter =
            inside ? last.At
            : (nowC < lowC) == (EndC > nowC) ? Reach(enterLevel)
            : null;
        if (enter is { } entered)
        {
            Add(entered, Reach(leaveLevel) ?? DateTimeOffset.MaxValue);
        }

        return spans;
    }

    // A week: further than any load, and within what a date can hold.
    private const double LongestMinutes = 7 * 24 * 60;

    /// <summary>The part of a straight line from a to b that lies within a window, as shares of its length; equal when none.</summary>
    private static (double From, double To) Inside(double a, double b, double low, double high)
    {
        if (a == b)
        {
            return a >= low && a <= high ? (0, 1) : (0, 0);
        }

        var (first, second) = ((low - a) / (b - a), (high - a) / (b - a));
        var from = Math.Clamp(Math.Min(first, second), 0, 1);
        return (from, Math.Max(from, Math.Clamp(Math.Max(first, second), 0, 1)));
    }
}
