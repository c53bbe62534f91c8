using BlueDawn.Core.Measures;
using BlueDawn.Core.Safety;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Chokes;

/// <summary>What a choke's return spring did at how many half turns.</summary>
/// <param name="SlackHalfTurns">The most half turns at which the plate still stopped half way.</param>
/// <param name="TightHalfTurns">The fewest at which it jammed or threw the choke off.</param>
/// <param name="NowHalfTurns">Where it stands now.</param>
public sealed record ReturnSpringReading(double SlackHalfTurns, double TightHalfTurns, double NowHalfTurns) : Reading;

/// <summary>The return spring of a choke that is let go by the run lever: half a turn between too slack and too tight.</summary>
public sealed record ReturnSpringLine() : GaugeLine("chokes/return-spring", Station.Chokes, "Release", "Return spring, half turns")
{
    /// <inheritdoc/>
    public override bool Required => false;

    /// <inheritdoc/>
    public override bool GoesWithTheTray => true;

    /// <inheritdoc/>
    public override Sentence Target => Sentence.Of("midway between too slack and too tight");

    /// <inheritdoc/>
    public override Span? Window => null;

    /// <inheritdoc/>
    public override string LimitSource => "Common practice";

    /// <inheritdoc/>
    public override Caution? Caution => Safety.Caution.Strip;

    /// <inheritdoc/>
    public override EntryForm Form =>
        new(
            [
                new EntryGroup(
                    "turns",
                    "Half turns",
                    [
                        EntryField.Measure("slack", "too slack", Dimension.Count),
                        EntryField.Measure("tight", "too tight", Dimension.Count),
                        EntryField.Measure("now", "now", Dimension.Count),
                    ]
                ),
            ],
            null
        );

    /// <inheritdoc/>
    public override ReadReading Read(TypedReading typed)
    {
        var reader = new TypedReader(typed);
        double HalfTurns(string field) => (double)reader.Required(field, Dimension.Count, 0, 20);
        var (slack, tight, now) = (HalfTurns("slack"), HalfTurns("tight"), HalfTurns("now"));
        if (reader.Problems.Count == 0 && tight <= slack)
        {
            reader.Wrong("tight", "Too tight must be more half turns than too slack.");
        }

        return Result(reader, () => new ReturnSpringReading(slack, tight, now));
    }

    /// <inheritdoc/>
    public override Sentence Describe(Reading reading) =>
        reading is ReturnSpringReading spring
            ? Sentence.Of(
                "{0} half turns; slack at {1}, tight at {2}",
                Quantity.Count(spring.NowHalfTurns),
                Quantity.Count(spring.SlackHalfTurns),
                Quantity.Count(spring.TightHalfTurns)
            )
            : Sentence.None;

    /// <inheritdoc/>
    public override Judgement Judge(Reading? reading, PinSet pins)
    {
        if (reading is not ReturnSpringReading spring)
        {
            return Judgement.NotRead(
                Sentence.Of(
                    "Count half turns from slack: where does the plate still stop half way, where does it jam or throw the choke off, where is it now?"
                )
            );
        }

        // Where nothing stands between the two, a nearer hole for the spring's end gives the half between.
        var middle = (spring.SlackHalfTurns + spring.TightHalfTurns) / 2;
        var (more, between) = (
            Math.Round(middle - spring.NowHalfTurns, MidpointRounding.AwayFromZero),
            spring.TightHalfTurns - spring.SlackHalfTurns > 1
        );
        var (verdict, finding, word, lean, next) =
            spring.NowHalfTurns >= spring.TightHalfTurns
                ? (
                    Verdict.NotGood,
                    "springTight",
                    "Too tight",
                    Lean.Above,
                    between
                        ? Sentence.Of("Let it off by {0} half turns.", Quantity.Count(-more))
                        : Sentence.Of("Let it off by a half turn; if that is too slack, hook its end into a nearer hole.")
                )
            : spring.NowHalfTurns <= spring.SlackHalfTurns
                ? (
                    Verdict.NotGood,
                    "springSlack",
                    "Too slack",
                    Lean.Below,
                    between
                        ? Sentence.Of("Wind it by {0} half turns more.", Quantity.Count(more))
                        : Sentence.Of("Wind it a half turn more; if that is too tight, hook its end into a nearer hole.")
                )
            : (Verdict.Good, "springRight", "Between", Lean.None, Sentence.Of("Leave it. Go on."));
        return new Judgement(
            verdict,
            finding,
            word,
            lean,
            next,
            null,
            [new("middle", "Midway, in half turns", Quantity.Count(middle))],
            [
                Sentence.Of(
                    "A full turn too much jams steel into plastic, a full turn less does not "
                        + "open the plate; half a turn between does. Common practice, no source."
                ),
            ],
            []
        );
    }
}
