using System.Collections.Concurrent;
using BlueDawn.Core.Chokes;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Shop;
using BlueDawn.Server.Problems;
using Microsoft.AspNetCore.Http.HttpResults;

namespace BlueDawn.Server.Instruments;

/// <summary>An instrument on the bench that sends what it shows.</summary>
internal enum Instrument
{
    /// <summary>The pressure gauge of the hand pump, in kPa.</summary>
    PressureGauge,

    /// <summary>The angle sensor on a choke's plate, in degrees.</summary>
    PlateAngle,

    /// <summary>The tachometer, in revolutions a minute.</summary>
    Tachometer,
}

/// <summary>What an instrument shows, in time.</summary>
/// <param name="TimesS">Seconds, rising.</param>
/// <param name="Values">What it showed at each, in the instrument's own unit.</param>
/// <param name="GoesOn">True to go on with the series that is there, false to begin a new one.</param>
internal sealed record NewSeries(IReadOnlyList<double> TimesS, IReadOnlyList<double> Values, bool GoesOn = false);

/// <summary>The last series of an instrument.</summary>
/// <param name="At">When the last of it came, by the server's clock.</param>
/// <param name="TimesS">Seconds, rising.</param>
/// <param name="Values">What it showed at each, in the instrument's own unit.</param>
internal sealed record SeriesView(DateTimeOffset At, IReadOnlyList<double> TimesS, IReadOnlyList<double> Values);

/// <summary>
/// What the bench's instruments showed last. It stands in memory only: what is taken from it is recorded as a reading, and
/// an instrument sends again.
/// </summary>
internal sealed class InstrumentShelf
{
    private readonly ConcurrentDictionary<Instrument, SeriesView> last = new();

    /// <summary>The last series, or null.</summary>
    public SeriesView? Last(Instrument instrument) => last.GetValueOrDefault(instrument);

    /// <summary>Takes what was sent; null when it cannot go on with what is there.</summary>
    public SeriesView? Take(Instrument instrument, NewSeries sent, DateTimeOffset at, int most)
    {
        lock (last)
        {
            var before = sent.GoesOn ? Last(instrument) : null;
            var (times, values) = before is null
                ? (sent.TimesS, sent.Values)
                : ([.. before.TimesS, .. sent.TimesS], [.. before.Values, .. sent.Values]);
            var rising = before is null || before.TimesS[^1] < sent.TimesS[0];
            return rising && times.Count <= most ? last[instrument] = new SeriesView(at, times, values) : null;
        }
    }
}

internal static class InstrumentEndpoints
{
    private const int MostSamples = 20_000;

    public static void MapInstruments(this RouteGroupBuilder api)
    {
        Map(Instrument.PressureGauge, "pressure-gauge", "pressure gauge");
        Map(Instrument.PlateAngle, "plate-angle", "angle sensor on the choke’s plate");
        Map(Instrument.Tachometer, "tachometer", "tachometer");

        api.MapGet("/instruments/choke-start", ShowStart)
            .WithTags("Instruments")
            .WithName("getChokeStart")
            .WithSummary("The last start as angle sensor and tachometer wrote it down, to be looked through");

        void Map(Instrument instrument, string path, string name)
        {
            var group = api.MapGroup($"/instruments/{path}").WithTags("Instruments");
            group
                .MapGet("", (InstrumentShelf shelf) => Show(instrument, name, shelf))
                .WithName($"get{instrument}")
                .WithSummary($"What the {name} showed last");
            group
                .MapPost("", (NewSeries sent, InstrumentShelf shelf, TimeProvider clock) => Take(instrument, sent, shelf, clock))
                .WithName($"send{instrument}")
                .WithSummary($"Send what the {name} shows")
                .RequireAuthorization(nameof(Permission.WorkAtTheBench));
        }
    }

    private static Results<Ok<SeriesView>, ProblemHttpResult> Show(Instrument instrument, string name, InstrumentShelf shelf) =>
        shelf.Last(instrument) is { } series
            ? TypedResults.Ok(series)
            : TypedResults.Problem(statusCode: 404, title: $"The {name} has sent nothing yet.", detail: "Switch it on, or take a file.");

    private static Results<Ok<OpeningSeriesInput>, ProblemHttpResult> ShowStart(InstrumentShelf shelf)
    {
        var speed = shelf.Last(Instrument.Tachometer);
        return shelf.Last(Instrument.PlateAngle) is { } angle
            ? TypedResults.Ok(OpeningSeries.Together(angle.At, angle.TimesS, angle.Values, speed?.At, speed?.TimesS, speed?.Values))
            : TypedResults.Problem(
                statusCode: 404,
                title: "The angle sensor on the choke’s plate has sent nothing yet.",
                detail: "Switch it on, or take a file."
            );
    }

    private static Results<Ok<SeriesView>, ValidationProblem> Take(
        Instrument instrument,
        NewSeries sent,
        InstrumentShelf shelf,
        TimeProvider clock
    )
    {
        if (
            sent.TimesS.Count == 0
            || sent.TimesS.Count != sent.Values.Count
            || sent.TimesS.Zip(sent.TimesS.Skip(1)).Any(pair => !(pair.Second > pair.First))
        )
        {
            return Problem.Fields([new FieldProblem("timesS", "Send a time for each value, each later than the one before.")]);
        }

        if (sent.Values.Any(value => !double.IsFinite(value)))
        {
            return Problem.Fields([new FieldProblem("values", "A value is a number.")]);
        }

        return shelf.Take(instrument, sent, clock.GetUtcNow(), MostSamples) is { } series
            ? TypedResults.Ok(series)
            : Problem.Fields([new FieldProblem("goesOn", $"It goes on with later times, up to {MostSamples} in all; begin a new series.")]);
    }
}
