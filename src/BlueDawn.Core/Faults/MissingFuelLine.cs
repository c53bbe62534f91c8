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
    : GaugeLine<MissingFuelReading>("faults/missing-fuel", Station.Faults, CompressionLine.Quick, "Fuel missing, oil risen")
{
    private static readonly LineFinding NoneMissing = LineFinding.Good("noneMissing", "None missing");
    private static readonly LineFinding GoneOutside = LineFinding.Bad("goneOutside", "Gone outside");
    private static readonly LineFinding MoreOil = LineFinding.Open("moreOil");
    private static readonly LineFinding PartInSump = LineFinding.Bad("partInSump", "Part in the sump");
    private static readonly LineFinding InSump = LineFinding.Bad("inSump", "In the sump");

    /// <summary>Its kind of reading, with everything it can find.</summary>
    public static IReadOnlyList<LineFinding> CanFind { get; } = [NoneMissing, GoneOutside, MoreOil, PartInSump, InSump];

    /// <inheritdoc/>
    public override IReadOnlyList<LineFinding> Findings => CanFind;

    /// <summary>The two agree within this share of what is missing. Own judgement: fuel dries away, and a sump is read by eye.</summary>
    private const double Share = 0.3;

    private const double DropsPerML = 20;

    /// <inheritdoc/>
    public override bool Required => false;

    /// <inheritdoc/>
    public override bool GoesWithTheTray => true;

    /// <inheritdoc/>
    public override LineLimits? Limits => new(Sentence.Of("less than {0} of either", Quantity.ML(LeastML)), null, "Shop default");

    /// <inheritdoc/>
    public override Caution? Caution => Safety.Caution.Vapour;

    private static readonly LineBox<double> MissingBox = Box.Number("missing", "missing", Dimension.Volume, 0, 100_000);
    private static readonly LineBox<double> RisenBox = Box.Number("risen", "risen", Dimension.Volume, 0, 100_000);
    private static readonly LineBox<double?> DaysBox = Box.Detail("days", "days", Dimension.Count, 0.01m, 10_000);

    /// <inheritdoc/>
    protected override LineForm<MissingFuelReading> Boxes =>
        new(new BoxGroup("volumes", "Volumes", [MissingBox, RisenBox, DaysBox]), boxes => new MissingFuelReading(
            boxes.Get(MissingBox),
            boxes.Get(RisenBox),
            boxes.Get(DaysBox)
        ));

    /// <inheritdoc/>
    protected override Sentence Describe(MissingFuelReading fuel) =>
        Sentence.Of("{0} gone from the tank, {1} over the oil’s mark", Quantity.ML(fuel.MissingML), Quantity.ML(fuel.RisenML));

    /// <inheritdoc/>
    protected override Sentence Ask =>
        Sentence.Of("How much fuel is gone from the tank, and how much has to be drawn off until the oil stands at its mark?");

    /// <inheritdoc/>
    protected override Judgement Judge(MissingFuelReading fuel, PinSet pins)
    {
        var apart = fuel.MissingML - fuel.RisenML;
        var allowed = Math.Max(LeastML, Share * fuel.MissingML);
        var rate = fuel.StoodDays is { } days && fuel.RisenML >= LeastML ? fuel.RisenML / (days * 24 * 60) : (double?)null;
        var drain = "Drain and change the oil before it runs; needle and seat next.";
        var (finding, next) =
            fuel.RisenML < LeastML && fuel.MissingML < LeastML ? (NoneMissing, Sentence.Of("Neither tank nor sump says anything. Go on."))
            : fuel.RisenML < LeastML
                ? (
                    GoneOutside,
                    Sentence.Of("It is not in the sump: look under the machine, at tap, hose, bowl joint and overflow, with the fuel on.")
                )
            : apart < -allowed
                ? (
                    MoreOil,
                    Sentence.Of("More has risen than is missing: the tank was filled up since, or the oil was. Smell the oil, and ask.")
                )
            : apart > allowed
                ? (PartInSump, Sentence.Of($"The needle let fuel into the sump, and {{0}} went elsewhere. {drain}", Quantity.ML(apart)))
            : (InSump, Sentence.Of($"What is missing stands in the sump: the needle let it by. {drain}"));
        return finding.Judged(
            next,
            figures:
            [
                new("apart", "Missing less risen", Quantity.ML(apart)),
                .. rate is { } slow ? [new Figure("rate", "Past the needle", Quantity.MLPerMin(slow))] : Array.Empty<Figure>(),
            ],
            why:
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
            ]
        );
    }
}
