using BlueDawn.Core.Measures;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Chokes;

/// <summary>How far a release rod moves and has to move.</summary>
/// <param name="NeededMm">Travel that lifts the latch clear, in millimetres.</param>
/// <param name="GivenMm">Travel the run lever gives, in millimetres.</param>
public sealed record RodTravelReading(double NeededMm, double GivenMm) : Reading;

/// <summary>The travel of the rod that lets a choke go when the run lever is pulled.</summary>
/// <param name="SpareMm">Travel to spare, so that wear and a stretched cable do not take it at once, in millimetres.</param>
public sealed record RodTravelLine(double SpareMm)
    : GaugeLine<RodTravelReading>("chokes/rod-travel", Station.Chokes, "Release", "Release rod’s travel")
{
    private static readonly LineFinding UndecidedBelow = LineFinding.Open("cannotTell", Lean.Below);
    private static readonly LineFinding RodShort = LineFinding.Bad("rodShort", "Too little", Lean.Below);
    private static readonly LineFinding RodRight = LineFinding.Good("rodRight", "Enough");

    /// <summary>Its kind of reading, with everything it can find.</summary>
    public static IReadOnlyList<LineFinding> CanFind { get; } = [UndecidedBelow, RodShort, RodRight];

    /// <inheritdoc/>
    public override IReadOnlyList<LineFinding> Findings => CanFind;

    /// <summary>Both are read with a rule to this, in millimetres. Own judgement.</summary>
    private const double ReadToMm = 0.5;

    /// <inheritdoc/>
    public override bool Required => false;

    /// <inheritdoc/>
    public override bool GoesWithTheTray => true;

    /// <inheritdoc/>
    public override LineLimits? Limits => new(Sentence.Of("{0} more than the latch needs", Quantity.Mm(SpareMm)), null, "Common practice");

    private static readonly LineBox<double> NeededBox = Box.Number("needed", "needed", Dimension.Length, 0.5m, 100).About(10);
    private static readonly LineBox<double> GivenBox = Box.Number("given", "given", Dimension.Length, 0, 100).About(10);

    /// <inheritdoc/>
    protected override LineForm<RodTravelReading> Boxes => new(new BoxGroup("travel", "Travel", [NeededBox, GivenBox]), boxes =>
        {
            var (needed, given) = (boxes.Get(NeededBox), boxes.Get(GivenBox));
            return new RodTravelReading(needed, given);
        });

    /// <inheritdoc/>
    protected override Sentence Describe(RodTravelReading rod) =>
        Sentence.Of("{0} given, {1} needed", Quantity.Mm(rod.GivenMm), Quantity.Mm(rod.NeededMm));

    /// <inheritdoc/>
    protected override Sentence Ask =>
        Sentence.Of("Lift the latch by hand: how far until it is clear? Then pull the run lever fully: how far does the rod go?");

    /// <inheritdoc/>
    protected override Judgement Judge(RodTravelReading rod, PinSet pins)
    {
        var spare = rod.GivenMm - rod.NeededMm;
        var (finding, next) =
            spare < 0
                ? (
                    RodShort,
                    Sentence.Of(
                        "Bend the rod shorter by {0}. Leave the cable: taken up further it only gets tight.",
                        Quantity.Mm(Math.Round(SpareMm - spare, 1))
                    )
                )
            : spare < SpareMm - Math.Min(ReadToMm, SpareMm)
                ? (
                    UndecidedBelow,
                    Sentence.Of(
                        "It just clears: bend the rod shorter by {0}, or it will miss when the cable stretches.",
                        Quantity.Mm(Math.Round(SpareMm - spare, 1))
                    )
                )
            : (RodRight, Sentence.Of("Leave it. Go on."));
        return finding.Judged(
            next,
            figures: [new("spare", "To spare", Quantity.Mm(Math.Round(spare, 2)))],
            why:
            [
                Sentence.Of(
                    "To spare = given − needed; {0} is wanted, read to {1}. The rod before the cable: common practice, no source.",
                    Quantity.Mm(SpareMm),
                    Quantity.Mm(ReadToMm)
                ),
            ]
        );
    }
}
