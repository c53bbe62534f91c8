using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Safety;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Setting;

/// <summary>A float on the scale.</summary>
/// <param name="MassG">Grams.</param>
/// <param name="ResolutionG">The scale's step in grams.</param>
public sealed record FloatMassReading(double MassG, double ResolutionG) : Reading;

/// <summary>Float mass against a dry mass.</summary>
/// <param name="DryMassG">Mass of a dry float in grams.</param>
/// <param name="ToleranceG">Allowed either way.</param>
/// <param name="SpecName">Where the limits are from.</param>
/// <param name="Float">All its limits, or null when the sheet does not say what it is made like.</param>
public sealed record FloatMassLine(double DryMassG, double ToleranceG, string SpecName, FloatSpec? Float = null)
    : GaugeLine<FloatMassReading>("setting/float-mass", Station.Setting, "Float", "Float mass")
{
    private static readonly LineFinding Dry = LineFinding.Good("dry", "Dry");
    private static readonly LineFinding TakenOnFuel = LineFinding.Bad("takenOnFuel", "Fuel inside", Lean.Above);
    private static readonly LineFinding TooLight = LineFinding.Open("tooLight", Lean.Below);

    /// <summary>Its kind of reading, with everything it can find.</summary>
    public static IReadOnlyList<LineFinding> CanFind { get; } = [LineFinding.CannotTell, Dry, TakenOnFuel, TooLight];

    /// <inheritdoc/>
    public override IReadOnlyList<LineFinding> Findings => CanFind;

    private FloatBody? Body => Float?.Body;

    private double TabArmMm => (double)(Float?.TabArmMm ?? 0);

    /// <inheritdoc/>
    public override string Part => "float";

    /// <inheritdoc/>
    public override LineLimits? Limits =>
        new(
            Sentence.Of("{0} ± {1} dry", Quantity.G(DryMassG), Quantity.G(ToleranceG)),
            new Span(Dimension.Mass, DryMassG - ToleranceG, DryMassG + ToleranceG),
            SpecName
        );

    /// <inheritdoc/>
    public override Caution? Caution => Safety.Caution.FuelInFloat;

    private LineBox<double> MassBox => Box.Number("mass", "mass", Dimension.Mass, 0.01m, 1000).About(DryMassG);
    private static readonly LineBox<double> ResolutionBox = Box.Detail(
        "resolution",
        "step",
        Dimension.Mass,
        0.0001m,
        10,
        FloatMass.DefaultResolutionG
    );

    /// <inheritdoc/>
    protected override LineForm<FloatMassReading> Boxes =>
        new(new BoxGroup("scale", "Scale", [MassBox, ResolutionBox]), boxes => new FloatMassReading(
            boxes.Get(MassBox),
            boxes.Get(ResolutionBox)
        ));

    /// <inheritdoc/>
    protected override Sentence Describe(FloatMassReading mass) => Sentence.Of("{0}", Quantity.G(mass.MassG));

    /// <inheritdoc/>
    protected override Sentence Ask => Sentence.Of("Wipe the float dry and weigh it.");

    /// <inheritdoc/>
    protected override Judgement Judge(FloatMassReading mass, PinSet pins)
    {
        var result = FloatMass.Judge(new FloatMassInput(mass.MassG, DryMassG, ToleranceG, mass.ResolutionG));
        var balance = Body is null
            ? null
            : FloatBalance.Of(
                new FloatBalanceInput(
                    Body.VolumeML,
                    mass.MassG,
                    Body.ArmMm,
                    TabArmMm,
                    Body.SeatBoreMm,
                    FloatMass.PetrolGPerML,
                    FloatBalance.SupplyKPa(Body)
                )
            );
        var (finding, next) = result.Verdict switch
        {
            MassVerdict.Dry => (Dry, Sentence.Of("Leave it. Go on.")),
            MassVerdict.TakenOnFuel => (
                TakenOnFuel,
                balance is { Shuts: false }
                    ? Sentence.Of(
                        $"{{0}} of fuel inside: it cannot shut against {FloatBalance.AgainstWords(Body!, 1)}. Fit a new float.",
                        Quantity.G(Math.Round(result.FuelTakenOnG, 2)),
                        FloatBalance.Against(Body!)
                    )
                    : Sentence.Of("{0} of fuel inside: fit a new float.", Quantity.G(Math.Round(result.FuelTakenOnG, 2)))
            ),
            MassVerdict.CannotTell when result.LighterThanDry => (
                TooLight,
                Sentence.Of("Lighter than a dry float: check the scale's zero and that this is the right float.")
            ),
            MassVerdict.CannotTell when result.ScaleTooCoarse => (
                LineFinding.CannotTell,
                Sentence.Of("The scale is too coarse: use one that shows {0} or finer.", Quantity.G(ToleranceG))
            ),
            MassVerdict.CannotTell => (
                LineFinding.CannotTell,
                Sentence.Of("On the edge: let it dry, weigh again on a finer scale, shake and listen.")
            ),
        };
        return finding.Judged(
            next,
            found: new Span(Dimension.Mass, mass.MassG - (mass.ResolutionG / 2), mass.MassG + (mass.ResolutionG / 2)),
            figures:
            [
                new Figure("mass", "Mass", Quantity.G(mass.MassG)),
                new Figure("fuelTakenOn", "Fuel taken on", Quantity.G(Math.Round(result.FuelTakenOnG, 3))),
                new Figure("fuelTakenOnVolume", "As petrol", Quantity.ML(Math.Round(result.FuelTakenOnML, 2))),
                .. BalanceFigures(balance),
                .. LevelFigures(mass.MassG),
            ],
            why:
            [
                Sentence.Of(
                    "{0} on the scale less {1} dry leaves {2}.",
                    Quantity.G(mass.MassG),
                    Quantity.G(DryMassG),
                    Quantity.G(Math.Round(result.FuelTakenOnG, 3))
                ),
                Sentence.Of(
                    "The scale's step of {0} counts half either way. Petrol 0.7475 g/mL, the middle of EN 228.",
                    Quantity.G(mass.ResolutionG)
                ),
                .. BalanceWhy(balance),
            ]
        );
    }

    private IReadOnlyList<Figure> BalanceFigures(FloatBalanceResult? balance) =>
        balance is null
            ? []
            :
            [
                new("immersed", "Under the fuel when the needle shuts", Quantity.Percent(Math.Round(100 * balance.ImmersedShare, 1))),
                new("room", "It could take on before it floods", Quantity.G(Math.Round(balance.RoomG, 1))),
                new("mostSupply", "Shuts against up to", Quantity.KPa(Math.Round(balance.MostSupplyKPa, 1))),
                new(
                    "seatFlow",
                    "The open seat passes",
                    Quantity.MLPerMin(Math.Round(SeatFlow.MLPerMin(Body!.SeatBoreMm, FloatBalance.SupplyKPa(Body), FloatMass.PetrolGPerML)))
                ),
            ];

    private IReadOnlyList<Figure> LevelFigures(double massG) =>
        Float is not null
        && FloatStanding.Of(Float, (double)Float.HeightMm, massG) is { LevelMm: { } level, MeantMm: var meant }
        && Math.Round(meant - level, 1) is var higher and not 0
            ? [new("levelRise", "Fuel stands higher than with a dry float by", Quantity.Mm(higher))]
            : [];

    private IReadOnlyList<Sentence> BalanceWhy(FloatBalanceResult? balance) =>
        balance is null
            ? []
            :
            [
                Sentence.Of(
                    "Buoyancy of {0} at {1} from the pin against its weight, and "
                        + $"{FloatBalance.AgainstWords(Body!, 2)} on a seat of {{3}} at {{4}}: it shuts with {{5}} of it under.",
                    Quantity.ML(Body!.VolumeML),
                    Quantity.Mm(Body.ArmMm),
                    FloatBalance.Against(Body),
                    Quantity.Mm(Body.SeatBoreMm),
                    Quantity.Mm(TabArmMm),
                    Quantity.Percent(Math.Round(100 * balance.ImmersedShare, 1))
                ),
            ];
}
