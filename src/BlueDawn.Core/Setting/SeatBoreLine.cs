using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Setting;

/// <summary>The bore of the seat that is in the body.</summary>
/// <param name="BoreMm">Millimetres.</param>
public sealed record SeatBoreReading(double BoreMm) : Reading;

/// <summary>The bore of the seat against what the engine drinks and what the float can shut.</summary>
/// <param name="Float">The float's limits.</param>
/// <param name="Body">What the float is made like and what it has to shut.</param>
/// <param name="Feeds">The engine, or null when it is not known: then only the float decides.</param>
/// <param name="SpecName">Where the figures are from.</param>
/// <param name="TwoStroke">Whether the engine draws at every turn.</param>
public sealed record SeatBoreLine(FloatSpec Float, FloatBody Body, EngineSize? Feeds, string SpecName, bool TwoStroke = false)
    : GaugeLine<SeatBoreReading>("setting/seat-bore", Station.Setting, "Needle and seat", "Seat’s bore")
{
    private static readonly LineFinding SeatStarves = LineFinding.Bad("seatStarves", "Too small", Lean.Below);
    private static readonly LineFinding SeatTooLarge = LineFinding.Bad("seatTooLarge", "Too large", Lean.Above);
    private static readonly LineFinding SeatFits = LineFinding.Good("seatFits", "Fits");

    /// <summary>Its kind of reading, with everything it can find.</summary>
    public static IReadOnlyList<LineFinding> CanFind { get; } = [SeatStarves, SeatTooLarge, SeatFits];

    /// <inheritdoc/>
    public override IReadOnlyList<LineFinding> Findings => CanFind;

    /// <summary>Share of the tank's head that is left when it is nearly empty. Own judgement.</summary>
    private const double NearlyEmpty = 0.25;

    /// <summary>The float has to shut it with this share of its volume under, so that a gram of fuel inside does not flood it. Own
    /// judgement.</summary>
    private const double MostUnder = 0.85;

    private static readonly double Fuel = FloatMass.PetrolGPerML;

    /// <summary>What the engine drinks at full load in mL/min, or null.</summary>
    public double? DemandMLPerMin => Feeds is null ? null : SeatFlow.DemandMLPerMin(Feeds.SweptML, Feeds.FullRpm, TwoStroke, Fuel);

    /// <summary>Smallest bore that feeds the engine on a nearly empty tank, in millimetres; null when the engine is not known.</summary>
    public double? LeastMm => DemandMLPerMin is { } demand ? Math.Sqrt(demand / SeatFlow.MLPerMin(1, LowHeadKPa, Fuel)) : null;

    /// <summary>Largest bore the float shuts with room to spare on a full tank, in millimetres; 0 when it shuts none.</summary>
    public double MostMm
    {
        get
        {
            var (dry, arms) = (Float.DryMassG ?? 0, Body.ArmMm / (double)Float.TabArmMm);
            // Grams of buoyancy left over at the float, as a force through the lever over the fuel's pressure: mN over kPa is mm².
            var spareN = ((MostUnder * Body.VolumeML * Fuel) - dry) * FloatBalance.Gravity / 1000 * arms;
            return Math.Sqrt(Math.Max(0, spareN * 1000 / FloatBalance.SupplyKPa(Body)) * 4 / Math.PI);
        }
    }

    private double LowHeadKPa => FloatBalance.SupplyKPa(Body, NearlyEmpty);

    /// <inheritdoc/>
    public override string Part => "seat";

    /// <inheritdoc/>
    public override bool Required => false;

    /// <inheritdoc/>
    public override bool GoesWithTheTray => true;

    /// <inheritdoc/>
    public override LineLimits? Limits =>
        new(
            LeastMm is { } least
                ? Sentence.Of(
                    "{0} to {1}, the sheet has {2}",
                    Quantity.Mm(Math.Round(least, 2)),
                    Quantity.Mm(Math.Round(MostMm, 2)),
                    Quantity.Mm(Body.SeatBoreMm)
                )
                : Sentence.Of("up to {0}, the sheet has {1}", Quantity.Mm(Math.Round(MostMm, 2)), Quantity.Mm(Body.SeatBoreMm)),
            new Span(Dimension.Length, LeastMm is { } lowest ? Math.Round(lowest, 2) : null, Math.Round(MostMm, 2)),
            SpecName
        );

    private LineBox<double> BoreBox => Box.Number("bore", "bore", Dimension.Length, 0.2m, 20).About(Body.SeatBoreMm);

    /// <inheritdoc/>
    protected override LineForm<SeatBoreReading> Boxes =>
        new(new BoxGroup("bore", "Bore", [BoreBox]), boxes => new SeatBoreReading(boxes.Get(BoreBox)));

    /// <inheritdoc/>
    protected override Sentence Describe(SeatBoreReading seat) => Sentence.Of("{0}", Quantity.Mm(seat.BoreMm));

    /// <inheritdoc/>
    protected override Sentence Ask => Sentence.Of("Try pins in the seat’s bore without scratching its face: the largest that goes in.");

    /// <inheritdoc/>
    protected override Judgement Judge(SeatBoreReading seat, PinSet pins)
    {
        var (full, low) = (
            SeatFlow.MLPerMin(seat.BoreMm, FloatBalance.SupplyKPa(Body), Fuel),
            SeatFlow.MLPerMin(seat.BoreMm, LowHeadKPa, Fuel)
        );
        var standing = FloatStanding.Of(Float, (double)Float.HeightMm, Float.DryMassG ?? 0, null, seat.BoreMm);
        var (finding, next) =
            seat.BoreMm < LeastMm
                ? (
                    SeatStarves,
                    Sentence.Of(
                        "On a nearly empty tank it passes {0}, the engine drinks {1}: it starves at full load. Fit a seat of {2} or more.",
                        Quantity.MLPerMin(Math.Round(low)),
                        Quantity.MLPerMin(Math.Round(DemandMLPerMin!.Value)),
                        Quantity.Mm(Math.Ceiling(LeastMm.Value * 20) / 20)
                    )
                )
            : seat.BoreMm > MostMm
                ? (
                    SeatTooLarge,
                    Sentence.Of(
                        $"The float can hardly shut it against {FloatBalance.AgainstWords(Body, 0)}. Fit a seat of {{1}} or less.",
                        FloatBalance.Against(Body),
                        Quantity.Mm(Math.Floor(MostMm * 20) / 20)
                    )
                )
            : (SeatFits, Sentence.Of("It feeds the engine and the float can shut it. Go on."));
        return finding.Judged(
            next,
            found: new Span(Dimension.Length, seat.BoreMm, seat.BoreMm),
            figures:
            [
                new("seatFlow", "Passes on a full tank", Quantity.MLPerMin(Math.Round(full))),
                new("seatFlowLow", "On a nearly empty one", Quantity.MLPerMin(Math.Round(low))),
                .. DemandMLPerMin is { } demand
                    ? [new Figure("demand", "The engine drinks at full load", Quantity.MLPerMin(Math.Round(demand)))]
                    : Array.Empty<Figure>(),
                .. standing is { LevelMm: { } level }
                    ? [new Figure("level", "Fuel below the body’s face", Quantity.Mm(Math.Round(level, 1)))]
                    : Array.Empty<Figure>(),
            ],
            why:
            [
                Sentence.Of(
                    "Flow = 0.6 × area × √(2 × pressure ÷ density) through a sharp-edged opening (ISO 5167, from memory), with "
                        + $"{FloatBalance.AgainstWords(Body, 0)}{(Body.PumpKPa is null ? " above it and with a quarter of that" : "")}.",
                    FloatBalance.Against(Body)
                ),
                Sentence.Of("The largest is the one a dry float shuts with {0} of it under.", Quantity.Percent(100 * MostUnder)),
                .. Feeds is { } engine
                    ?
                    [
                        Sentence.Of(
                            $"{{0}} at {{1}}: {(TwoStroke ? "two" : "four")}-stroke, filled to 0.8, 12.5 parts of air to one of fuel (own judgement).",
                            Quantity.ML(engine.SweptML),
                            Quantity.Rpm(engine.FullRpm)
                        ),
                    ]
                    : Array.Empty<Sentence>(),
                Sentence.Of($"Float and engine: {SpecName}."),
            ]
        );
    }
}
