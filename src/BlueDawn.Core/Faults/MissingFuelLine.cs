using BlueDawn.Core.Measures;
using BlueDawn.Core.Safety;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Faults;

/// <summary>Fuel that is gone from the tank against oil that has risen in the sump.</summary>
/// <param name="MissingML">Fuel missing from the tank, in millilitres.</param>
/// <param name="RisenML">What stands over the mark in the sump, in millilitres.</param>
/// <param name="StoodDays">Days it stood meanwhile, or null.</param>
public sealed record MissingFuelReading(double MissingML, double RisenML, double? StoodDays) : Reading;

/// <summary>Whether the litres agree: what the tank lost and what the sump gained.</summary>
/// <param name="LeastML">Less than this is within what a tank and a dipstick are read to.</param>
public sealed record MissingFuelLine(double LeastML)
    : GaugeLine("faults/missing-fuel", Station.Faults, CompressionLine.Quick, "Fuel missing, oil risen")
{
    /// <summary>The two agree within this share of what is missing. Own judgement: fuel dries away, and a sump is read by eye.</summary>
    private const double Share = 0.3;

    private const double DropsPerML = 20;

    /// <inheritdoc/>
    public override bool Required => false;

    /// <inheritdoc/>
    public override bool GoesWithTheTray => true;

    /// <inheritdoc/>
    public override Sentence Target => Sentence.Of("less than {0} of either", Quantity.ML(LeastML));

    /// <inheritdoc/>
    public override Span? Window => null;

    /// <inheritdoc/>
    public override string LimitSource => "Shop default";

    /// <inheritdoc/>
    public override Caution? Caution => Safety.Caution.Vapour;

    /// <inheritdoc/>
    public override EntryForm Form =>
        new(
            [
                new EntryGroup(
                    "volumes",
                    "Volumes",
                    [
                        EntryField.Measure("missing", "missing", Dimension.Volume),
                        EntryField.Measure("risen", "risen", Dimension.Volume),
                        EntryField.MeasureDetail("days", "days", Dimension.Count),
                    ]
                ),
            ],
            null
        );

    /// <inheritdoc/>
    public override ReadReading Read(TypedReading typed)
    {
        var reader = new TypedReader(typed);
        var missing = (double)reader.Required("missing", Dimension.Volume, 0, 100_000);
        var risen = (double)reader.Required("risen", Dimension.Volume, 0, 100_000);
        var days = (double?)reader.Optional("days", Dimension.Count, 0.01m, 10_000);
        return Result(reader, () => new MissingFuelReading(missing, risen, days));
    }

    /// <inheritdoc/>
    public override Sentence Describe(Reading reading) =>
        reading is MissingFuelReading fuel
            ? Sentence.Of("{0} gone from the tank, {1} over the oil’s mark", Quantity.ML(fuel.MissingML), Quantity.ML(fuel.RisenML))
            : Sentence.None;

    /// <inheritdoc/>
    public override Judgement Judge(Reading? reading, PinSet pins)
    {
        if (reading is not MissingFuelReading fuel)
        {
            return Judgement.NotRead(
                Sentence.Of("How much fuel is gone from the tank, and how much has to be drawn off until the oil stands at its mark?")
            );
        }

        var apart = fuel.MissingML - fuel.RisenML;
        var allowed = Math.Max(LeastML, Share * fuel.MissingML);
        var rate = fuel.StoodDays is { } days && fuel.RisenML >= LeastML ? fuel.RisenML / (days * 24 * 60) : (double?)null;
        var drain = "Drain and change the oil before it runs; needle and seat next.";
        var (verdict, finding, word, next) =
            fuel.RisenML < LeastML && fuel.MissingML < LeastML
                ? (Verdict.Good, "noneMissing", "None missing", Sentence.Of("Neither tank nor sump says anything. Go on."))
            : fuel.RisenML < LeastML
                ? (
                    Verdict.NotGood,
                    "goneOutside",
                    "Gone outside",
                    Sentence.Of("It is not in the sump: look under the machine, at tap, hose, bowl joint and overflow, with the fuel on.")
                )
            : apart < -allowed
                ? (
                    Verdict.CannotTell,
                    "moreOil",
                    "Cannot tell yet",
                    Sentence.Of("More has risen than is missing: the tank was filled up since, or the oil was. Smell the oil, and ask.")
                )
            : apart > allowed
                ? (
                    Verdict.NotGood,
                    "partInSump",
                    "Part in the sump",
                    Sentence.Of($"The needle let fuel into the sump, and {{0}} went elsewhere. {drain}", Quantity.ML(apart))
                )
            : (Verdict.NotGood, "inSump", "In the sump", Sentence.Of($"What is missing stands in the sump: the needle let it by. {drain}"));
        return new Judgement(
            verdict,
            finding,
            word,
            Lean.None,
            next,
            null,
            [
                new("apart", "Missing less risen", Quantity.ML(apart)),
                .. rate is { } slow ? [new Figure("rate", "Past the needle", Quantity.MLPerMin(slow))] : Array.Empty<Figure>(),
            ],
            [
                Sentence.Of(
                    "They agree within {0}: fuel dries away, and a sump is read by eye. That the two should agree: common practice, no source.",
                    Quantity.ML(allowed)
                ),
                .. rate is { } drip
                    ?
                    [
                        Sentence.Of(
                            "{0} over {1} days is {2} drops an hour, at {3} drops a millilitre.",
                            Quantity.ML(fuel.RisenML),
                            Quantity.Count(fuel.StoodDays!.Value),
                            Quantity.Count(Math.Round(drip * 60 * DropsPerML, 1)),
                            Quantity.Count(DropsPerML)
                        ),
                    ]
                    : Array.Empty<Sentence>(),
            ],
            []
        );
    }
}
