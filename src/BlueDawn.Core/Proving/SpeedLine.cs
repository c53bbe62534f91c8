using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Safety;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Proving;

/// <summary>A speed read on the running engine.</summary>
/// <param name="SpeedRpm">Revolutions per minute.</param>
/// <param name="SwingRpm">How far it swings either way, 0 when steady.</param>
/// <param name="AimRpm">The speed chosen for this machine inside its window; null when none was.</param>
public sealed record SpeedReading(double SpeedRpm, double SwingRpm, double? AimRpm = null) : Reading;

/// <summary>Idle or governed speed against its window.</summary>
/// <param name="Key">Stable name.</param>
/// <param name="Label">Which speed.</param>
/// <param name="Speed">The window.</param>
/// <param name="LowRemedy">What to do when it is too slow.</param>
/// <param name="HighRemedy">What to do when it is too fast.</param>
/// <param name="SpecName">Where the window is from.</param>
/// <param name="Hunted">True when it came in hunting: then the swing has to be read.</param>
/// <param name="Governed">True for a governed speed: an aim inside the window can be chosen.</param>
public sealed record SpeedLine(
    string Key,
    string Label,
    SpeedSpec Speed,
    string LowRemedy,
    string HighRemedy,
    string SpecName,
    bool Hunted = false,
    bool Governed = false
) : GaugeLine(Key, Station.Proving, "Speeds, warm", Label)
{
    /// <summary>As near to its aim as a spring tang is bent, in revolutions a minute. Own judgement.</summary>
    private const double AimToRpm = 50;

    /// <inheritdoc/>
    public override bool Running => true;

    /// <inheritdoc/>
    public override Expected? ExpectedIn(string field) =>
        field == "speed" ? new((Speed.LowRpm + Speed.HighRpm) / 2, Dimension.Speed) : null;

    /// <inheritdoc/>
    public override Sentence Target => Sentence.Of("{0} to {1}", Quantity.Rpm(Speed.LowRpm), Quantity.Rpm(Speed.HighRpm));

    /// <inheritdoc/>
    public override Span? Window => new(Dimension.Speed, Speed.LowRpm, Speed.HighRpm);

    /// <inheritdoc/>
    public override string LimitSource => SpecName;

    /// <inheritdoc/>
    public override Caution? Caution => Safety.Caution.Running;

    /// <inheritdoc/>
    public override EntryForm Form =>
        new(
            [
                new EntryGroup(
                    "tachometer",
                    "Tachometer",
                    [
                        EntryField.Measure("speed", "rpm", Dimension.Speed),
                        .. Governed ? [EntryField.MeasureDetail("aim", "aim", Dimension.Speed)] : Array.Empty<EntryField>(),
                        Hunted
                            ? EntryField.Measure("swing", "± swing", Dimension.Speed)
                            : EntryField.MeasureDetail("swing", "± swing", Dimension.Speed),
                    ]
                ),
            ],
            null
        );

    /// <inheritdoc/>
    public override ReadReading Read(TypedReading typed)
    {
        var reader = new TypedReader(typed);
        var speed = (double)reader.Required("speed", Dimension.Speed, 100, 20_000);
        var swing = (double)(
            Hunted ? reader.Required("swing", Dimension.Speed, 0, 5000) : reader.Optional("swing", Dimension.Speed, 0, 5000) ?? 0
        );
        var aim = (double?)reader.Optional("aim", Dimension.Speed, 100, 20_000);
        if (reader.Problems.Count == 0 && (aim < Speed.LowRpm || aim > Speed.HighRpm))
        {
            reader.Wrong("aim", $"Choose an aim from {Speed.LowRpm:0} to {Speed.HighRpm:0} rpm, inside its window.");
        }

        return Result(reader, () => new SpeedReading(speed, swing, aim));
    }

    /// <inheritdoc/>
    public override Sentence Describe(Reading reading) =>
        reading switch
        {
            SpeedReading { SwingRpm: 0 } steady => Sentence.Of("{0}", Quantity.Rpm(steady.SpeedRpm)),
            SpeedReading speed => Sentence.Of("{0} ± {1}", Quantity.Rpm(speed.SpeedRpm), Quantity.Rpm(speed.SwingRpm)),
            _ => Sentence.None,
        };

    /// <inheritdoc/>
    public override Judgement Judge(Reading? reading, PinSet pins)
    {
        if (reading is not SpeedReading speed)
        {
            return Judgement.NotRead(Sentence.Of("Warm engine, air filter on: read the tachometer."));
        }

        var (low, high) = (speed.SpeedRpm - speed.SwingRpm, speed.SpeedRpm + speed.SwingRpm);
        var (verdict, finding, word, lean, next) =
            high < Speed.LowRpm ? (Verdict.NotGood, "tooSlow", "Too slow", Lean.Below, Sentence.Of(LowRemedy))
            : low > Speed.HighRpm ? (Verdict.NotGood, "tooFast", "Too fast", Lean.Above, Sentence.Of(HighRemedy))
            : low >= Speed.LowRpm && high <= Speed.HighRpm ? (Verdict.Good, "inWindow", "In window", Lean.None, Nearer(speed))
            : speed.SwingRpm > (Speed.HighRpm - Speed.LowRpm) / 2
                ? (
                    Verdict.NotGood,
                    "hunts",
                    "Hunts",
                    Lean.None,
                    Sentence.Of(
                        "It swings {0} either way: shake the manifold, look at the idle jet and for air leaks, before the governor.",
                        Quantity.Rpm(speed.SwingRpm)
                    )
                )
            : (
                Verdict.CannotTell,
                "cannotTell",
                "Cannot tell yet",
                Lean.None,
                Sentence.Of("It swings over the edge of the window: let it warm up and read again.")
            );
        return new Judgement(
            verdict,
            finding,
            word,
            lean,
            next,
            new Span(Dimension.Speed, low, high),
            [
                new Figure("speed", "Speed", Quantity.Rpm(speed.SpeedRpm)),
                new Figure("swing", "Swing either way", Quantity.Rpm(speed.SwingRpm)),
            ],
            [
                Sentence.Of(
                    "{0} to {1} read, {2} to {3} asked for.",
                    Quantity.Rpm(low),
                    Quantity.Rpm(high),
                    Quantity.Rpm(Speed.LowRpm),
                    Quantity.Rpm(Speed.HighRpm)
                ),
            ],
            []
        );
    }

    /// <summary>In the window: what is left to the aim that was chosen.</summary>
    private static Sentence Nearer(SpeedReading speed) =>
        speed.AimRpm is not { } aim || Math.Abs(speed.SpeedRpm - aim) <= AimToRpm ? Sentence.Of("Leave it.")
        : speed.SpeedRpm < aim
            ? Sentence.Of(
                "In its window, {0} below your aim: the spring tang a little tighter, never the governor arm.",
                Quantity.Rpm(aim - speed.SpeedRpm)
            )
        : Sentence.Of(
            "In its window, {0} above your aim: the spring tang a little slacker, never the governor arm.",
            Quantity.Rpm(speed.SpeedRpm - aim)
        );
}
