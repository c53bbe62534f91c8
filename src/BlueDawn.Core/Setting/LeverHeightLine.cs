using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Setting;

/// <summary>Height of the metering lever where the diaphragm presses it.</summary>
/// <param name="HeightMm">Millimetres from where the sheet measures it; see <see cref="LeverDatum"/>.</param>
/// <param name="ResolutionMm">Step of what it was measured with, in millimetres.</param>
public sealed record LeverHeightReading(double HeightMm, double ResolutionMm) : Reading;

/// <summary>Height of the metering lever against its sheet, or flush where no sheet says.</summary>
/// <param name="Lever">The limits.</param>
/// <param name="SourceName">Where they are from.</param>
public sealed record LeverHeightLine(LeverSpec Lever, string SourceName)
    : GaugeLine("setting/lever-height", Station.Setting, "Metering side", "Metering lever’s height")
{
    /// <summary>Step assumed for a straight edge with a depth rod or for feeler blades, in millimetres. Own judgement.</summary>
    public const double DefaultResolutionMm = 0.05;

    /// <summary>A bend smaller than this cannot be made by hand. Own judgement.</summary>
    private const double LeastBendMm = 0.05;

    /// <inheritdoc/>
    public override string Part => "metering-lever";

    /// <inheritdoc/>
    public override Expected? ExpectedIn(string field) =>
        field == "height" && Lever.HeightMm != 0 ? new((double)Lever.HeightMm, Dimension.Length) : null;

    /// <inheritdoc/>
    public override Sentence Target =>
        Lever.Datum switch
        {
            LeverDatum.GaugeLeg => Sentence.Of("flush with the gauge’s middle leg, ± {0}", Quantity.Mm(Lever.ToleranceMm)),
            LeverDatum.ChamberFloor => Sentence.Of(
                "{0} ± {1} above the floor",
                Quantity.Mm(Lever.HeightMm),
                Quantity.Mm(Lever.ToleranceMm)
            ),
            LeverDatum.BodyFace => Sentence.Of("{0} ± {1} below the face", Quantity.Mm(Lever.HeightMm), Quantity.Mm(Lever.ToleranceMm)),
        };

    /// <inheritdoc/>
    public override Span? Window =>
        new(Dimension.Length, (double)(Lever.HeightMm - Lever.ToleranceMm), (double)(Lever.HeightMm + Lever.ToleranceMm));

    /// <inheritdoc/>
    public override string LimitSource => SourceName;

    /// <inheritdoc/>
    public override bool GoesWithTheTray => true;

    /// <inheritdoc/>
    public override EntryForm Form =>
        new(
            [
                new EntryGroup(
                    "height",
                    "Height",
                    [
                        EntryField.Measure(
                            "height",
                            Lever.Datum switch
                            {
                                LeverDatum.GaugeLeg or LeverDatum.ChamberFloor => "height",
                                LeverDatum.BodyFace => "depth",
                            },
                            Dimension.Length
                        ),
                        EntryField.MeasureDetail("resolution", "step", Dimension.Length),
                    ]
                ),
            ],
            null
        );

    /// <inheritdoc/>
    public override ReadReading Read(TypedReading typed)
    {
        var reader = new TypedReader(typed);
        var height = (double)reader.Required("height", Dimension.Length, Lever.Datum == LeverDatum.GaugeLeg ? -10 : 0, 30);
        var resolution = (double?)reader.Optional("resolution", Dimension.Length, 0.001m, 5) ?? DefaultResolutionMm;
        return Result(reader, () => new LeverHeightReading(height, resolution));
    }

    /// <inheritdoc/>
    public override Sentence Describe(Reading reading) =>
        reading is LeverHeightReading read
            ? Lever.Datum switch
            {
                LeverDatum.GaugeLeg => Sentence.Of("{0} above the leg", Quantity.Mm(read.HeightMm)),
                LeverDatum.ChamberFloor => Sentence.Of("{0} above the floor", Quantity.Mm(read.HeightMm)),
                LeverDatum.BodyFace => Sentence.Of("{0} below the face", Quantity.Mm(read.HeightMm)),
            }
            : Sentence.None;

    /// <inheritdoc/>
    public override Judgement Judge(Reading? reading, PinSet pins)
    {
        if (reading is not LeverHeightReading read)
        {
            return Judgement.NotRead(
                Lever.Datum switch
                {
                    LeverDatum.GaugeLeg => Sentence.Of(
                        "Gauge for this body across the chamber: the lever just touches its middle leg. Type 0, or how far it stands above."
                    ),
                    LeverDatum.ChamberFloor => Sentence.Of("Measure from the chamber’s floor to the top of the lever’s end."),
                    LeverDatum.BodyFace => Sentence.Of("Straight edge across the face: measure down to the lever’s end."),
                }
            );
        }

        var (off, tolerance, half) = (read.HeightMm - (double)Lever.HeightMm, (double)Lever.ToleranceMm, read.ResolutionMm / 2);
        // Below the face, a larger number is a lower lever.
        var up = Lever.Datum == LeverDatum.BodyFace ? -off : off;
        const double slack = 1e-9;
        var surely = Math.Abs(off) - half > tolerance + slack;
        var inside = Math.Abs(off) + half <= tolerance + slack;
        var bend = Quantity.Mm(Math.Round(Math.Max(Math.Abs(off), LeastBendMm), 2));
        var found = new Span(Dimension.Length, read.HeightMm - half, read.HeightMm + half);
        Figure[] figures =
        [
            new("height", "Height", Quantity.Mm(read.HeightMm)),
            new("off", "Off the middle of its window", Quantity.Mm(Math.Round(off, 3))),
        ];
        List<Sentence> why =
        [
            Sentence.Of(
                "{0}, give or take half the step of {1}; the window is {2} either way.",
                Quantity.Mm(read.HeightMm),
                Quantity.Mm(read.ResolutionMm),
                Quantity.Mm(Lever.ToleranceMm)
            ),
            Sentence.Of(
                "A low lever is reached late by the diaphragm: too little fuel. A high one is pressed early: too much, and it floods."
            ),
            Sentence.Of($"Limits: {SourceName}."),
        ];
        var (verdict, finding, word, lean, next) =
            surely && up < 0
                ? (
                    Verdict.NotGood,
                    "leverLow",
                    "Low",
                    Lean.Below,
                    Sentence.Of(
                        "Bend the diaphragm’s end up by {0}: hold the lever at its pivot, never lever it against the needle. Measure again.",
                        bend
                    )
                )
            : surely
                ? (
                    Verdict.NotGood,
                    "leverHigh",
                    "High",
                    Lean.Above,
                    Sentence.Of(
                        "Bend the diaphragm’s end down by {0}: hold the lever at its pivot, never press on the needle. Measure again.",
                        bend
                    )
                )
            : inside ? (Verdict.Good, "leverRight", "Right", Lean.None, Sentence.Of("Leave it. Go on."))
            : (
                Verdict.CannotTell,
                "cannotTell",
                "Cannot tell yet",
                Lean.None,
                Sentence.Of("Too near the limit for a step of {0}: measure with a finer one.", Quantity.Mm(read.ResolutionMm))
            );
        return new Judgement(verdict, finding, word, lean, next, found, figures, why, []);
    }
}
