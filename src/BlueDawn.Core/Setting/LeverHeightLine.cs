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
    : GaugeLine<LeverHeightReading>("setting/lever-height", Station.Setting, "Metering side", "Metering lever’s height")
{
    private static readonly LineFinding LeverLow = LineFinding.Bad("leverLow", "Low", Lean.Below);
    private static readonly LineFinding LeverHigh = LineFinding.Bad("leverHigh", "High", Lean.Above);
    private static readonly LineFinding LeverRight = LineFinding.Good("leverRight", "Right");

    /// <summary>Its kind of reading, with everything it can find.</summary>
    public static IReadOnlyList<LineFinding> CanFind { get; } = [LineFinding.CannotTell, LeverLow, LeverHigh, LeverRight];

    /// <inheritdoc/>
    public override IReadOnlyList<LineFinding> Findings => CanFind;

    /// <summary>Step assumed for a straight edge with a depth rod or for feeler blades, in millimetres. Own judgement.</summary>
    public const double DefaultResolutionMm = 0.05;

    /// <summary>A bend smaller than this cannot be made by hand. Own judgement.</summary>
    private const double LeastBendMm = 0.05;

    /// <inheritdoc/>
    public override string Part => "metering-lever";

    /// <inheritdoc/>
    public override LineLimits? Limits =>
        new(
            Lever.Datum switch
            {
                LeverDatum.GaugeLeg => Sentence.Of("flush with the gauge’s middle leg, ± {0}", Quantity.Mm(Lever.ToleranceMm)),
                LeverDatum.ChamberFloor => Sentence.Of(
                    "{0} ± {1} above the floor",
                    Quantity.Mm(Lever.HeightMm),
                    Quantity.Mm(Lever.ToleranceMm)
                ),
                LeverDatum.BodyFace => Sentence.Of("{0} ± {1} below the face", Quantity.Mm(Lever.HeightMm), Quantity.Mm(Lever.ToleranceMm)),
            },
            new Span(Dimension.Length, (double)(Lever.HeightMm - Lever.ToleranceMm), (double)(Lever.HeightMm + Lever.ToleranceMm)),
            SourceName
        );

    /// <inheritdoc/>
    public override bool GoesWithTheTray => true;

    private LineBox<double> HeightBox =>
        Box.Number(
                "height",
                Lever.Datum switch
                {
                    LeverDatum.GaugeLeg or LeverDatum.ChamberFloor => "height",
                    LeverDatum.BodyFace => "depth",
                },
                Dimension.Length,
                Lever.Datum == LeverDatum.GaugeLeg ? -10 : 0,
                30
            )
            .About((double)Lever.HeightMm, Lever.HeightMm == 0 ? FlushWithinMm : null);

    /// <summary>A lever that should lie flush stands off by no more than this, in millimetres. Own judgement.</summary>
    private const double FlushWithinMm = 3;

    private static readonly LineBox<double> ResolutionBox = Box.Detail(
        "resolution",
        "step",
        Dimension.Length,
        0.001m,
        5,
        DefaultResolutionMm
    );

    /// <inheritdoc/>
    protected override LineForm<LeverHeightReading> Boxes =>
        new(new BoxGroup("height", "Height", [HeightBox, ResolutionBox]), boxes => new LeverHeightReading(
            boxes.Get(HeightBox),
            boxes.Get(ResolutionBox)
        ));

    /// <inheritdoc/>
    protected override Sentence Describe(LeverHeightReading read) =>
        Lever.Datum switch
        {
            LeverDatum.GaugeLeg => Sentence.Of("{0} above the leg", Quantity.Mm(read.HeightMm)),
            LeverDatum.ChamberFloor => Sentence.Of("{0} above the floor", Quantity.Mm(read.HeightMm)),
            LeverDatum.BodyFace => Sentence.Of("{0} below the face", Quantity.Mm(read.HeightMm)),
        };

    /// <inheritdoc/>
    protected override Sentence Ask =>
        Lever.Datum switch
        {
            LeverDatum.GaugeLeg => Sentence.Of(
                "Gauge for this body across the chamber: the lever just touches its middle leg. Type 0, or how far it stands above."
            ),
            LeverDatum.ChamberFloor => Sentence.Of("Measure from the chamber’s floor to the top of the lever’s end."),
            LeverDatum.BodyFace => Sentence.Of("Straight edge across the face: measure down to the lever’s end."),
        };

    /// <inheritdoc/>
    protected override Judgement Judge(LeverHeightReading read, PinSet pins)
    {
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
        var (finding, next) =
            surely && up < 0
                ? (
                    LeverLow,
                    Sentence.Of(
                        "Bend the diaphragm’s end up by {0}: hold the lever at its pivot, never lever it against the needle. Measure again.",
                        bend
                    )
                )
            : surely
                ? (
                    LeverHigh,
                    Sentence.Of(
                        "Bend the diaphragm’s end down by {0}: hold the lever at its pivot, never press on the needle. Measure again.",
                        bend
                    )
                )
            : inside ? (LeverRight, Sentence.Of("Leave it. Go on."))
            : (
                LineFinding.CannotTell,
                Sentence.Of("Too near the limit for a step of {0}: measure with a finer one.", Quantity.Mm(read.ResolutionMm))
            );
        return finding.Judged(next, found: found, figures: figures, why: why);
    }
}
