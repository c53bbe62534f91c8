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
public sealed record SuctionForceLine() : GaugeLine("chokes/suction-force", Station.Chokes, "Plate", "Suction against the spring")
{
    /// <summary>Pull has to be this many times the spring's push, for link and shaft. Own judgement.</summary>
    private const double ToSpare = 1.3;

    /// <summary>Standard gravity in m/s². Source: ISO 80000-3.</summary>
    private const double Gravity = 9.80665;

    /// <inheritdoc/>
    public override bool Required => false;

    /// <inheritdoc/>
    public override bool GoesWithTheTray => true;

    /// <inheritdoc/>
    public override Sentence Target => Sentence.Of("pull at least {0} of the spring’s push", Quantity.Percent(100 * ToSpare));

    /// <inheritdoc/>
    public override Span? Window => null;

    /// <inheritdoc/>
    public override string LimitSource => "Own judgement";

    /// <inheritdoc/>
    public override EntryForm Form =>
        new(
            [
                new EntryGroup(
                    "force",
                    "Force",
                    [
                        EntryField.Measure("suction", "suction", Dimension.Pressure),
                        EntryField.Measure("diaphragm", "chamber", Dimension.Length),
                        EntryField.Measure("plate", "plate", Dimension.Length),
                        EntryField.Measure("spring", "spring", Dimension.Mass),
                    ]
                ),
            ],
            null
        );

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
    public override ReadReading Read(TypedReading typed)
    {
        var reader = new TypedReader(typed);
        var suction = (double)reader.Required("suction", Dimension.Pressure, 0.1m, 100);
        var rim = (double)reader.Required("diaphragm", Dimension.Length, 5, 150);
        var plate = (double)reader.Required("plate", Dimension.Length, 0, 150);
        var spring = (double)reader.Required("spring", Dimension.Mass, 0.1m, 10_000);
        if (reader.Problems.Count == 0 && plate >= rim)
        {
            reader.Wrong("plate", "The plate must be smaller than the chamber.");
        }

        return Result(reader, () => new SuctionForceReading(suction, rim, plate, spring));
    }

    /// <inheritdoc/>
    public override Sentence Describe(Reading reading) =>
        reading is SuctionForceReading force
            ? Sentence.Of(
                "{0} on {1} against {2}",
                Quantity.KPa(force.SuctionKPa),
                Quantity.Mm(force.DiaphragmMm),
                Quantity.G(force.SpringG)
            )
            : Sentence.None;

    /// <inheritdoc/>
    public override Judgement Judge(Reading? reading, PinSet pins)
    {
        if (reading is not SuctionForceReading force)
        {
            return Judgement.NotRead(
                Sentence.Of(
                    "Suction at the chamber with the engine running, chamber and plate across, and the spring pressed down on a scale."
                )
            );
        }

        var pullG = PullN(force.SuctionKPa, force.DiaphragmMm, force.PlateMm) / Gravity * 1000;
        var ratio = pullG / force.SpringG;
        var (verdict, finding, word, lean, next) =
            ratio < 1
                ? (
                    Verdict.NotGood,
                    "pullWeak",
                    "Too weak",
                    Lean.Below,
                    Sentence.Of(
                        "{0} of pull against {1}: the wrong spring, the smaller of the two diaphragms, or an engine that sucks too little. Look at each.",
                        Quantity.G(Math.Round(pullG)),
                        Quantity.G(force.SpringG)
                    )
                )
            : ratio < ToSpare
                ? (
                    Verdict.CannotTell,
                    "cannotTell",
                    "Cannot tell yet",
                    Lean.Below,
                    Sentence.Of("It hardly pulls more than the spring pushes: free the shaft, then time the start.")
                )
            : (Verdict.Good, "pullEnough", "Pulls", Lean.None, Sentence.Of("Suction is enough. Go on."));
        return new Judgement(
            verdict,
            finding,
            word,
            lean,
            next,
            null,
            [
                new("pull", "Pull of the diaphragm", Quantity.G(Math.Round(pullG))),
                new("ratio", "Of the spring’s push", Quantity.Percent(Math.Round(100 * ratio))),
            ],
            [
                Sentence.Of(
                    "Pull = suction × π/12 × (D² + D·d + d²), a cone from the rim of {0} to the plate of {1}.",
                    Quantity.Mm(force.DiaphragmMm),
                    Quantity.Mm(force.PlateMm)
                ),
            ],
            []
        );
    }
}
