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
    : GaugeLine("faults/bulb-strokes", Station.Faults, CompressionLine.Quick, "Bulb strokes")
{
    /// <inheritdoc/>
    public override bool Required => false;

    /// <inheritdoc/>
    public override bool GoesWithTheTray => true;

    /// <inheritdoc/>
    public override Sentence Target => Sentence.Of("fills within {0}; more the first time", Quantity.Count(Few));

    /// <inheritdoc/>
    public override Span? Window => new(Dimension.Count, null, Few);

    /// <inheritdoc/>
    public override string LimitSource => "Shop default";

    /// <inheritdoc/>
    public override Caution? Caution => Safety.Caution.Vapour;

    /// <inheritdoc/>
    public override EntryForm Form =>
        new(
            [
                new EntryGroup(
                    "bulb",
                    "Bulb",
                    [
                        EntryField.Measure("strokes", "strokes", Dimension.Count),
                        EntryField.Choice("fills", "fills", false, new EntryChoice("yes", "Filled"), new EntryChoice("no", "Did not fill")),
                        EntryField.Choice(
                            "dry",
                            "before",
                            false,
                            new EntryChoice("dry", "Was dry"),
                            new EntryChoice("again", "Had been filled before")
                        ),
                    ]
                ),
            ],
            null
        );

    /// <inheritdoc/>
    public override ReadReading Read(TypedReading typed)
    {
        var reader = new TypedReader(typed);
        var strokes = reader.Whole("strokes", 1, 500);
        var fills = reader.Choice("fills", "yes", "no") == "yes";
        var dry = reader.Choice("dry", "dry", "again") == "dry";
        return Result(reader, () => new BulbStrokesReading(strokes, fills, dry));
    }

    /// <inheritdoc/>
    public override Sentence Describe(Reading reading) =>
        reading is BulbStrokesReading bulb
            ? Sentence.Of(
                $"{(bulb.Filled ? "filled" : "did not fill")} in {{0}} strokes, {(bulb.Dry ? "from dry" : "filled before")}",
                Quantity.Count(bulb.Strokes)
            )
            : Sentence.None;

    /// <inheritdoc/>
    public override Judgement Judge(Reading? reading, PinSet pins)
    {
        if (reading is not BulbStrokesReading bulb)
        {
            return Judgement.NotRead(Sentence.Of("Press it and count until it is full of fuel."));
        }

        var (verdict, finding, word, next) = (bulb.Filled, bulb.Strokes) switch
        {
            (true, var strokes) when strokes <= Few => (
                Verdict.Good,
                "bulbFills",
                "Fills",
                Sentence.Of("The hoses are the right way round. Go on.")
            ),
            (true, var strokes) when strokes >= Many && !bulb.Dry => (
                Verdict.NotGood,
                "bulbSlow",
                "Slow again",
                Sentence.Of("Tens of strokes once more: the bulb’s valve, a hard line or a dark filter. Look at the line from the tank on.")
            ),
            (true, _) => (
                Verdict.CannotTell,
                "bulbOnce",
                "Cannot tell yet",
                Sentence.Of("A first fill may take tens of strokes. Let it run or stand a little, press it again and count.")
            ),
            (false, var strokes) when strokes >= Many => (
                Verdict.NotGood,
                "bulbEmpty",
                "Does not fill",
                Sentence.Of(
                    "Blocked inside the carburetor (a flake at the needle, a dry valve), hoses crossed, or a split line. Look at the line first."
                )
            ),
            (false, _) => (
                Verdict.CannotTell,
                "bulbOnce",
                "Cannot tell yet",
                Sentence.Of("Press on to {0} strokes: a first fill may take tens.", Quantity.Count(Many))
            ),
        };
        return new Judgement(
            verdict,
            finding,
            word,
            verdict == Verdict.Good ? Lean.None : Lean.Above,
            next,
            new Span(Dimension.Count, bulb.Strokes, bulb.Strokes),
            [new("strokes", "Strokes", Quantity.Count(bulb.Strokes))],
            [
                Sentence.Of(
                    "A few when it is not dry; {0} and more each time means trouble upstream. That it fills "
                        + "shows the hoses are not crossed. Common practice, no source; the edges are own judgement.",
                    Quantity.Count(Many)
                ),
            ],
            []
        );
    }
}
