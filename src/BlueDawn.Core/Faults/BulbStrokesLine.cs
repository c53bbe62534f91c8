using BlueDawn.Core.Measures;
using BlueDawn.Core.Safety;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Faults;

/// <summary>How a primer bulb filled.</summary>
/// <param name="Strokes">Strokes pressed.</param>
/// <param name="Filled">Whether fuel came.</param>
/// <param name="Dry">Whether it was the first fill after it had stood dry.</param>
public sealed record BulbStrokesReading(int Strokes, bool Filled, bool Dry) : Reading;

/// <summary>Strokes until a primer bulb fills.</summary>
/// <param name="Few">Strokes a sound one takes at most when it is not dry.</param>
/// <param name="Many">Strokes from which something is wrong when it takes them again.</param>
public sealed record BulbStrokesLine(int Few, int Many)
    : GaugeLine<BulbStrokesReading>("faults/bulb-strokes", Station.Faults, CompressionLine.Quick, "Bulb strokes")
{
    private static readonly LineFinding BulbFills = LineFinding.Good("bulbFills", "Fills");
    private static readonly LineFinding BulbSlow = LineFinding.Bad("bulbSlow", "Slow again", Lean.Above);
    private static readonly LineFinding BulbOnce = LineFinding.Open("bulbOnce", Lean.Above);
    private static readonly LineFinding BulbEmpty = LineFinding.Bad("bulbEmpty", "Does not fill", Lean.Above);

    /// <summary>Its kind of reading, with everything it can find.</summary>
    public static IReadOnlyList<LineFinding> CanFind { get; } = [BulbFills, BulbSlow, BulbOnce, BulbEmpty];

    /// <inheritdoc/>
    public override IReadOnlyList<LineFinding> Findings => CanFind;

    /// <inheritdoc/>
    public override bool Required => false;

    /// <inheritdoc/>
    public override bool GoesWithTheTray => true;

    /// <inheritdoc/>
    public override LineLimits? Limits =>
        new(
            Sentence.Of("fills within {0}; more the first time", Quantity.Count(Few)),
            new Span(Dimension.Count, null, Few),
            "Shop default"
        );

    /// <inheritdoc/>
    public override Caution? Caution => Safety.Caution.Vapour;

    private static readonly LineBox<int> StrokesBox = Box.Count("strokes", "strokes", 1, 500);
    private static readonly LineBox<bool> FillsBox = Box.Choice("fills", "fills", (true, "yes", "Filled"), (false, "no", "Did not fill"));
    private static readonly LineBox<bool> DryBox = Box.Choice(
        "dry",
        "before",
        (true, "dry", "Was dry"),
        (false, "again", "Had been filled before")
    );

    /// <inheritdoc/>
    protected override LineForm<BulbStrokesReading> Boxes =>
        new(new BoxGroup("bulb", "Bulb", [StrokesBox, FillsBox, DryBox]), boxes => new BulbStrokesReading(
            boxes.Get(StrokesBox),
            boxes.Get(FillsBox),
            boxes.Get(DryBox)
        ));

    /// <inheritdoc/>
    protected override Sentence Describe(BulbStrokesReading bulb) =>
        Sentence.Of(
            $"{(bulb.Filled ? "filled" : "did not fill")} in {{0}} strokes, {(bulb.Dry ? "from dry" : "filled before")}",
            Quantity.Count(bulb.Strokes)
        );

    /// <inheritdoc/>
    protected override Sentence Ask => Sentence.Of("Press it and count until it is full of fuel.");

    /// <inheritdoc/>
    protected override Judgement Judge(BulbStrokesReading bulb, PinSet pins)
    {
        var (finding, next) = (bulb.Filled, bulb.Strokes) switch
        {
            (true, var strokes) when strokes <= Few => (BulbFills, Sentence.Of("The hoses are the right way round. Go on.")),
            (true, var strokes) when strokes >= Many && !bulb.Dry => (
                BulbSlow,
                Sentence.Of("Tens of strokes once more: the bulb’s valve, a hard line or a dark filter. Look at the line from the tank on.")
            ),
            (true, _) => (
                BulbOnce,
                Sentence.Of("A first fill may take tens of strokes. Let it run or stand a little, press it again and count.")
            ),
            (false, var strokes) when strokes >= Many => (
                BulbEmpty,
                Sentence.Of(
                    "Blocked inside the carburetor (a flake at the needle, a dry valve), hoses crossed, or a split line. Look at the line first."
                )
            ),
            (false, _) => (BulbOnce, Sentence.Of("Press on to {0} strokes: a first fill may take tens.", Quantity.Count(Many))),
        };
        return finding.Judged(
            next,
            found: new Span(Dimension.Count, bulb.Strokes, bulb.Strokes),
            figures: [new("strokes", "Strokes", Quantity.Count(bulb.Strokes))],
            why:
            [
                Sentence.Of(
                    "A few when it is not dry; {0} and more each time means trouble upstream. That it fills "
                        + "shows the hoses are not crossed. Common practice, no source; the edges are own judgement.",
                    Quantity.Count(Many)
                ),
            ]
        );
    }
}
