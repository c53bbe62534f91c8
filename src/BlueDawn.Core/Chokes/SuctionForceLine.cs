using BlueDawn.Core.Measures;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Chokes;

/// <summary>What pulls a vacuum choke open and what holds it shut.</summary>
/// <param name="SuctionKPa">Suction in the chamber, below the air outside.</param>
/// <param name="DiaphragmMm">Diameter of the chamber the diaphragm is clamped in.</param>
/// <param name="PlateMm">Diameter of the plate in its middle.</param>
/// <param name="SpringG">What the spring bears on a scale, pressed as far as it is with the plate open, in grams.</param>
public sealed record SuctionForceReading(double SuctionKPa, double DiaphragmMm, double PlateMm, double SpringG) : Reading;

/// <summary>Whether an engine's suction opens a choke against its spring.</summary>
public sealed record SuctionForceLine()
    : GaugeLine<SuctionForceReading>("chokes/suction-force", Station.Chokes, "Plate", "Suction against the spring")
{
    private static readonly LineFinding UndecidedBelow = LineFinding.Open("cannotTell", Lean.Below);
    private static readonly LineFinding PullWeak = LineFinding.Bad("pullWeak", "Too weak", Lean.Below);
    private static readonly LineFinding PullEnough = LineFinding.Good("pullEnough", "Pulls");

    /// <summary>Its kind of reading, with everything it can find.</summary>
    public static IReadOnlyList<LineFinding> CanFind { get; } = [UndecidedBelow, PullWeak, PullEnough];

    /// <inheritdoc/>
    public override IReadOnlyList<LineFinding> Findings => CanFind;

    /// <summary>Pull has to be this many times the spring's push, for link and shaft. Own judgement.</summary>
    private const double ToSpare = 1.3;

    /// <summary>Standard gravity in m/s². Source: ISO 80000-3.</summary>
    private const double Gravity = 9.80665;

    /// <inheritdoc/>
    public override bool Required => false;

    /// <inheritdoc/>
    public override bool GoesWithTheTray => true;

    /// <inheritdoc/>
    public override LineLimits? Limits =>
        new(Sentence.Of("pull at least {0} of the spring’s push", Quantity.Percent(100 * ToSpare)), null, "Own judgement");

    private static readonly LineBox<double> SuctionBox = Box.Number("suction", "suction", Dimension.Pressure, 0.1m, 100).About(10);
    private static readonly LineBox<double> DiaphragmBox = Box.Number("diaphragm", "chamber", Dimension.Length, 5, 150).About(35);
    private static readonly LineBox<double> PlateBox = Box.Number("plate", "plate", Dimension.Length, 0, 150).About(25);
    private static readonly LineBox<double> SpringBox = Box.Number("spring", "spring", Dimension.Mass, 0.1m, 10_000).About(100);

    /// <inheritdoc/>
    protected override LineForm<SuctionForceReading> Boxes =>
        new(new BoxGroup("force", "Force", [SuctionBox, DiaphragmBox, PlateBox, SpringBox]), boxes =>
        {
            var suction = boxes.Get(SuctionBox);
            var rim = boxes.Get(DiaphragmBox);
            var plate = boxes.Get(PlateBox);
            var spring = boxes.Get(SpringBox);
            if (boxes.IsRight && plate >= rim)
            {
                boxes.Wrong(PlateBox, "The plate must be smaller than the chamber.");
            }

            return new SuctionForceReading(suction, rim, plate, spring);
        });

    /// <summary>
    /// Force of a pressure on a diaphragm in newtons: on a cone from its rim to its plate, p × π/12 × (D² + D·d + d²). What bears on
    /// the rim is lost.
    /// </summary>
    /// <param name="kPa">The pressure across it.</param>
    /// <param name="rimMm">Diameter it is clamped at.</param>
    /// <param name="plateMm">Diameter of the stiff plate, 0 to <paramref name="rimMm"/>.</param>
    public static double PullN(double kPa, double rimMm, double plateMm) =>
        kPa / 1000 * Math.PI / 12 * ((rimMm * rimMm) + (rimMm * plateMm) + (plateMm * plateMm));

    /// <inheritdoc/>
    protected override Sentence Describe(SuctionForceReading force) =>
        Sentence.Of("{0} on {1} against {2}", Quantity.KPa(force.SuctionKPa), Quantity.Mm(force.DiaphragmMm), Quantity.G(force.SpringG));

    /// <inheritdoc/>
    protected override Sentence Ask =>
        Sentence.Of("Suction at the chamber with the engine running, chamber and plate across, and the spring pressed down on a scale.");

    /// <inheritdoc/>
    protected override Judgement Judge(SuctionForceReading force, PinSet pins)
    {
        var pullG = PullN(force.SuctionKPa, force.DiaphragmMm, force.PlateMm) / Gravity * 1000;
        var ratio = pullG / force.SpringG;
        var (finding, next) =
            ratio < 1
                ? (
                    PullWeak,
                    Sentence.Of(
                        "{0} of pull against {1}: the wrong spring, the smaller of the two diaphragms, or an engine that sucks too little. Look at each.",
                        Quantity.G(Math.Round(pullG)),
                        Quantity.G(force.SpringG)
                    )
                )
            : ratio < ToSpare
                ? (UndecidedBelow, Sentence.Of("It hardly pulls more than the spring pushes: free the shaft, then time the start."))
            : (PullEnough, Sentence.Of("Suction is enough. Go on."));
        return finding.Judged(
            next,
            figures:
            [
                new("pull", "Pull of the diaphragm", Quantity.G(Math.Round(pullG))),
                new("ratio", "Of the spring’s push", Quantity.Percent(Math.Round(100 * ratio))),
            ],
            why:
            [
                Sentence.Of(
                    "Pull = suction × π/12 × (D² + D·d + d²), a cone from the rim of {0} to the plate of {1}.",
                    Quantity.Mm(force.DiaphragmMm),
                    Quantity.Mm(force.PlateMm)
                ),
            ]
        );
    }
}
