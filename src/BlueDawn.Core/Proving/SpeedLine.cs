using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Parts;
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
/// <param name="Speed">The window; null where no sheet gives one.</param>
/// <param name="LowRemedy">What to do when it is too slow.</param>
/// <param name="HighRemedy">What to do when it is too fast.</param>
/// <param name="SpecName">Where the window is from.</param>
/// <param name="Hunted">True when it came in hunting: then the swing has to be read.</param>
/// <param name="Governed">True for a governed speed: an aim inside the window can be chosen.</param>
public sealed record SpeedLine(
    string Key,
    string Label,
    SpeedSpec? Speed,
    string LowRemedy,
    string HighRemedy,
    string SpecName,
    bool Hunted = false,
    bool Governed = false
) : GaugeLine<SpeedReading>(Key, Station.Proving, "Speeds, warm", Label)
{
    private static readonly LineFinding TooSlow = LineFinding.Bad("tooSlow", "Too slow", Lean.Below);
    private static readonly LineFinding TooFast = LineFinding.Bad("tooFast", "Too fast", Lean.Above);
    private static readonly LineFinding InWindow = LineFinding.Good("inWindow", "In window");
    private static readonly LineFinding Hunts = LineFinding.Bad("hunts", "Hunts");

    /// <summary>Its kind of reading, with everything it can find.</summary>
    public static IReadOnlyList<LineFinding> CanFind { get; } = [LineFinding.CannotTell, TooSlow, TooFast, InWindow, Hunts];

    /// <inheritdoc/>
    public override IReadOnlyList<LineFinding> Findings => CanFind;

    /// <summary>As near to its aim as a spring tang is bent, in revolutions a minute. Own judgement.</summary>
    private const double AimToRpm = 50;

    /// <summary>A swing either way up to which one that came in hunting is steady, in revolutions a minute. Own judgement.</summary>
    private const double SteadyRpm = 75;

    private const int LeastRpm = 100,
        MostRpm = 20_000,
        MostSwingRpm = 5000;

    /// <inheritdoc/>
    public override bool Running => true;

    /// <inheritdoc/>
    public override Proof? Proves => Key == ProvingStation.GovernedSpeed ? Proof.Governed : Proof.Idle;

    /// <inheritdoc/>
    public override bool Required => Speed is not null;

    /// <inheritdoc/>
    public override bool GoesWithTheTray => Speed is null;

    /// <inheritdoc/>
    public override LineLimits? Limits =>
        Speed is null
            ? null
            : new(
                Sentence.Of("{0} to {1}", Quantity.Rpm(Speed.LowRpm), Quantity.Rpm(Speed.HighRpm)),
                new Span(Dimension.Speed, Speed.LowRpm, Speed.HighRpm),
                SpecName
            );

    /// <inheritdoc/>
    public override Caution? Caution => Safety.Caution.Running;

    private static readonly LineBox<double?> AimBox = Box.Detail("aim", "aim", Dimension.Speed, LeastRpm, MostRpm);

    private LineBox<double> SpeedBox =>
        Box.Number("speed", "rpm", Dimension.Speed, LeastRpm, MostRpm).About((Speed?.LowRpm + Speed?.HighRpm) / 2);

    private LineBox<double> SwingBox =>
        Hunted
            ? Box.Number("swing", "± swing", Dimension.Speed, 0, MostSwingRpm)
            : Box.Detail("swing", "± swing", Dimension.Speed, 0, MostSwingRpm, otherwise: 0);

    /// <inheritdoc/>
    protected override LineForm<SpeedReading> Boxes =>
        new(new BoxGroup("tachometer", "Tachometer", [SpeedBox, .. Governed ? [AimBox] : Array.Empty<LineBox>(), SwingBox]), boxes =>
        {
            var speed = boxes.Get(SpeedBox);
            var swing = boxes.Get(SwingBox);
            var aim = Governed ? boxes.Get(AimBox) : null;
            if (boxes.IsRight && Speed is { } window && (aim < window.LowRpm || aim > window.HighRpm))
            {
                boxes.Wrong(AimBox, $"Choose an aim from {window.LowRpm:0} to {window.HighRpm:0} rpm, inside its window.");
            }

            return new SpeedReading(speed, swing, aim);
        });

    /// <inheritdoc/>
    protected override Sentence Describe(SpeedReading speed) =>
        speed.SwingRpm == 0
            ? Sentence.Of("{0}", Quantity.Rpm(speed.SpeedRpm))
            : Sentence.Of("{0} ± {1}", Quantity.Rpm(speed.SpeedRpm), Quantity.Rpm(speed.SwingRpm));

    /// <inheritdoc/>
    protected override Sentence Ask => Sentence.Of("Warm engine, air filter on: read the tachometer.");

    /// <inheritdoc/>
    protected override Judgement Judge(SpeedReading speed, PinSet pins)
    {
        var (low, high) = (speed.SpeedRpm - speed.SwingRpm, speed.SpeedRpm + speed.SwingRpm);
        var found = new Span(Dimension.Speed, low, high);
        if (Speed is not { } window)
        {
            return WithoutLimit(found);
        }

        var (finding, next) =
            high < window.LowRpm ? (TooSlow, Sentence.Of(LowRemedy))
            : low > window.HighRpm ? (TooFast, Sentence.Of(HighRemedy))
            : Hunted && speed.SwingRpm > SteadyRpm || speed.SwingRpm > (window.HighRpm - window.LowRpm) / 2
                ? (
                    Hunts,
                    Sentence.Of(
                        "It swings {0} either way: shake the manifold, look at the idle jet and for air leaks, before the governor.",
                        Quantity.Rpm(speed.SwingRpm)
                    )
                )
            : low >= window.LowRpm && high <= window.HighRpm ? (InWindow, Nearer(speed))
            : (LineFinding.CannotTell, Sentence.Of("It swings over the edge of the window: let it warm up and read again."));
        return finding.Judged(
            next,
            found: found,
            figures:
            [
                new Figure("speed", "Speed", Quantity.Rpm(speed.SpeedRpm)),
                new Figure("swing", "Swing either way", Quantity.Rpm(speed.SwingRpm)),
            ],
            why:
            [
                Sentence.Of(
                    "{0} to {1} read, {2} to {3} asked for.",
                    Quantity.Rpm(low),
                    Quantity.Rpm(high),
                    Quantity.Rpm(window.LowRpm),
                    Quantity.Rpm(window.HighRpm)
                ),
            ]
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
