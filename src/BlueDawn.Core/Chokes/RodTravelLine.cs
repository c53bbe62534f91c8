using BlueDawn.Core.Measures;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Chokes;

/// <summary>How far a release rod moves and has to move.</summary>
/// <param name="NeededMm">Travel that lifts the latch clear, in millimetres.</param>
/// <param name="GivenMm">Travel the run lever gives, in millimetres.</param>
public sealed record RodTravelReading(double NeededMm, double GivenMm) : Reading;

/// <summary>The travel of the rod that lets a choke go when the run lever is pulled.</summary>
/// <param name="SpareMm">Travel to spare, so that wear and a stretched cable do not take it at once, in millimetres.</param>
public sealed record RodTravelLine(double SpareMm) : GaugeLine("chokes/rod-travel", Station.Chokes, "Release", "Release rod’s travel")
{
    /// <summary>Both are read with a rule to this, in millimetres. Own judgement.</summary>
    private const double ReadToMm = 0.5;

    /// <inheritdoc/>
    public override bool Required => false;

    /// <inheritdoc/>
    public override bool GoesWithTheTray => true;

    /// <inheritdoc/>
    public override Sentence Target => Sentence.Of("{0} more than the latch needs", Quantity.Mm(SpareMm));

    /// <inheritdoc/>
    public override Span? Window => null;

    /// <inheritdoc/>
    public override string LimitSource => "Common practice";

    /// <inheritdoc/>
    public override EntryForm Form =>
        new(
            [
                new EntryGroup(
                    "travel",
                    "Travel",
                    [EntryField.Measure("needed", "needed", Dimension.Length), EntryField.Measure("given", "given", Dimension.Length)]
                ),
            ],
            null
        );

    /// <inheritdoc/>
    public override ReadReading Read(TypedReading typed)
    {
        var reader = new TypedReader(typed);
        var (needed, given) = (
            (double)reader.Required("needed", Dimension.Length, 0.5m, 100),
            (double)reader.Required("given", Dimension.Length, 0, 100)
        );
        return Result(reader, () => new RodTravelReading(needed, given));
    }

    /// <inheritdoc/>
    public override Sentence Describe(Reading reading) =>
        reading is RodTravelReading rod
            ? Sentence.Of("{0} given, {1} needed", Quantity.Mm(rod.GivenMm), Quantity.Mm(rod.NeededMm))
            : Sentence.None;

    /// <inheritdoc/>
    public override Judgement Judge(Reading? reading, PinSet pins)
    {
        if (reading is not RodTravelReading rod)
        {
            return Judgement.NotRead(
                Sentence.Of("Lift the latch by hand: how far until it is clear? Then pull the run lever fully: how far does the rod go?")
            );
        }

        var spare = rod.GivenMm - rod.NeededMm;
        var (verdict, finding, word, lean, next) =
            spare < 0
                ? (
                    Verdict.NotGood,
                    "rodShort",
                    "Too little",
                    Lean.Below,
                    Sentence.Of(
                        "Bend the rod shorter by {0}. Leave the cable: taken up further it only gets tight.",
                        Quantity.Mm(Math.Round(SpareMm - spare, 1))
                    )
                )
            : spare < SpareMm - Math.Min(ReadToMm, SpareMm)
                ? (
                    Verdict.CannotTell,
                    "cannotTell",
                    "Cannot tell yet",
                    Lean.Below,
                    Sentence.Of(
                        "It just clears: bend the rod shorter by {0}, or it will miss when the cable stretches.",
                        Quantity.Mm(Math.Round(SpareMm - spare, 1))
                    )
                )
            : (Verdict.Good, "rodRight", "Enough", Lean.None, Sentence.Of("Leave it. Go on."));
        return new Judgement(
            verdict,
            finding,
            word,
            lean,
            next,
            null,
            [new("spare", "To spare", Quantity.Mm(Math.Round(spare, 2)))],
            [
                Sentence.Of(
                    "To spare = given − needed; {0} is wanted, read to {1}. The rod before the cable: common practice, no source.",
                    Quantity.Mm(SpareMm),
                    Quantity.Mm(ReadToMm)
                ),
            ],
            []
        );
    }
}
