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
public sealed record ReturnSpringLine()
    : GaugeLine<ReturnSpringReading>("chokes/return-spring", Station.Chokes, "Release", "Return spring, half turns")
{
    private static readonly LineFinding SpringTight = LineFinding.Bad("springTight", "Too tight", Lean.Above);
    private static readonly LineFinding SpringSlack = LineFinding.Bad("springSlack", "Too slack", Lean.Below);
    private static readonly LineFinding SpringRight = LineFinding.Good("springRight", "Between");

    /// <summary>Its kind of reading, with everything it can find.</summary>
    public static IReadOnlyList<LineFinding> CanFind { get; } = [SpringTight, SpringSlack, SpringRight];

    /// <inheritdoc/>
    public override IReadOnlyList<LineFinding> Findings => CanFind;

    /// <inheritdoc/>
    public override bool Required => false;

    /// <inheritdoc/>
    public override bool GoesWithTheTray => true;

    /// <inheritdoc/>
    public override LineLimits? Limits => new(Sentence.Of("midway between too slack and too tight"), null, "Common practice");

    /// <inheritdoc/>
    public override Caution? Caution => Safety.Caution.Strip;

    private static readonly LineBox<double> SlackBox = HalfTurns("slack", "too slack");
    private static readonly LineBox<double> TightBox = HalfTurns("tight", "too tight");
    private static readonly LineBox<double> NowBox = HalfTurns("now", "now");

    private static LineBox<double> HalfTurns(string name, string label) => Box.Number(name, label, Dimension.Count, 0, 20);

    /// <inheritdoc/>
    protected override LineForm<ReturnSpringReading> Boxes =>
        new(new BoxGroup("turns", "Half turns", [SlackBox, TightBox, NowBox]), boxes =>
        {
            var (slack, tight, now) = (boxes.Get(SlackBox), boxes.Get(TightBox), boxes.Get(NowBox));
            if (boxes.IsRight && tight <= slack)
            {
                boxes.Wrong(TightBox, "Too tight must be more half turns than too slack.");
            }

            return new ReturnSpringReading(slack, tight, now);
        });

    /// <inheritdoc/>
    protected override Sentence Describe(ReturnSpringReading spring) =>
        Sentence.Of(
            "{0} half turns; slack at {1}, tight at {2}",
            Quantity.Count(spring.NowHalfTurns),
            Quantity.Count(spring.SlackHalfTurns),
            Quantity.Count(spring.TightHalfTurns)
        );

    /// <inheritdoc/>
    protected override Sentence Ask =>
        Sentence.Of(
            "Count half turns from slack: where does the plate still stop half way, where does it jam or throw the choke off, where is it now?"
        );

    /// <inheritdoc/>
    protected override Judgement Judge(ReturnSpringReading spring, PinSet pins)
    {
        // Where nothing stands between the two, a nearer hole for the spring's end gives the half between.
        var middle = (spring.SlackHalfTurns + spring.TightHalfTurns) / 2;
        var (more, between) = (
            Math.Round(middle - spring.NowHalfTurns, MidpointRounding.AwayFromZero),
            spring.TightHalfTurns - spring.SlackHalfTurns > 1
        );
        var (finding, next) =
            spring.NowHalfTurns >= spring.TightHalfTurns
                ? (
                    SpringTight,
                    between
                        ? Sentence.Of("Let it off by {0} half turns.", Quantity.Count(-more))
                        : Sentence.Of("Let it off by a half turn; if that is too slack, hook its end into a nearer hole.")
                )
            : spring.NowHalfTurns <= spring.SlackHalfTurns
                ? (
                    SpringSlack,
                    between
                        ? Sentence.Of("Wind it by {0} half turns more.", Quantity.Count(more))
                        : Sentence.Of("Wind it a half turn more; if that is too tight, hook its end into a nearer hole.")
                )
            : (SpringRight, Sentence.Of("Leave it. Go on."));
        return finding.Judged(
            next,
            figures: [new("middle", "Midway, in half turns", Quantity.Count(middle))],
            why:
            [
                Sentence.Of(
                    "A full turn too much jams steel into plastic, a full turn less does not "
                        + "open the plate; half a turn between does. Common practice, no source."
                ),
            ]
        );
    }
}
