using System.Collections.Concurrent;
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
            var (times, values) = before is null ? (sent.TimesS, sent.Values) : ([.. before.TimesS, .. sent.TimesS], [.. before.Values, .. sent.Values]);
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
        var gauge = api.MapGroup("/instruments/pressure-gauge").WithTags("Instruments");
        gauge.MapGet("", (InstrumentShelf shelf) => Show(Instrument.PressureGauge, shelf)).WithName("getPressureGauge").WithSummary("What the pressure gauge showed last");
        gauge.MapPost("", (NewSeries sent, InstrumentShelf shelf, TimeProvider clock) => Take(Instrument.PressureGauge, sent, shelf, clock))
            .WithName("sendPressureGauge").WithSummary("Send what the pressure gauge shows").RequireAuthorization(nameof(May.WorkAtTheBench));
    }

    private static Results<Ok<SeriesView>, ProblemHttpResult> Show(Instrument instrument, InstrumentShelf shelf) => shelf.Last(instrument) is { } series
        ? TypedResults.Ok(series)
        : TypedResults.Problem(statusCode: 404, title: "The gauge has sent nothing yet.", detail: "Switch it on, or take a file.");

    private static Results<Ok<SeriesView>, ValidationProblem> Take(Instrument instrument, NewSeries sent, InstrumentShelf shelf, TimeProvider clock)
    {
        if (sent.TimesS.Count == 0 || sent.TimesS.Count != sent.Values.Count || sent.TimesS.Zip(sent.TimesS.Skip(1)).Any(pair => !(pair.Second > pair.First)))
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
