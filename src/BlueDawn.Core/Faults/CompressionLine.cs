using System.Text.Json.Serialization;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Safety;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Faults;

/// <summary>What a compression gauge showed.</summary>
/// <param name="PressureKPa">The gauge, at its highest.</param>
/// <param name="Pulls">Firm pulls.</param>
/// <param name="ThrottleOpen">Whether the throttle was held wide open.</param>
/// <param name="WetKPa">The same with a few drops of oil in the cylinder; null when it was not read.</param>
public sealed record CompressionReading(double PressureKPa, int Pulls, bool ThrottleOpen, double? WetKPa = null) : Reading
{
    /// <summary>By what share of the dry reading the wet one is higher; null without one, or on a dry one of nothing.</summary>
    [JsonIgnore]
    public double? Rise => WetKPa is { } wet && PressureKPa > 0 ? (wet - PressureKPa) / PressureKPa : null;
}

/// <summary>Cranking compression against the floor and the good mark of its kind of engine.</summary>
/// <param name="FloorKPa">Below it the engine is worn, or the reading is wrong.</param>
/// <param name="GoodKPa">From it on the engine is not the trouble.</param>
/// <param name="PullsNeeded">Pulls below which a low reading says nothing.</param>
/// <param name="From">Where the two marks are from.</param>
public sealed record CompressionLine(double FloorKPa, double GoodKPa, int PullsNeeded, string From)
    : GaugeLine<CompressionReading>(LineKey, Station.Faults, Quick, "Compression")
{
    private static readonly LineFinding CompressionGood = LineFinding.Good("compressionGood", "Good");
    private static readonly LineFinding FewPulls = LineFinding.Open("fewPulls", Lean.Below);
    private static readonly LineFinding ThrottleShut = LineFinding.Open("throttleShut", Lean.Below);
    private static readonly LineFinding CompressionLow = LineFinding.Bad("compressionLow", "Low", Lean.Below);
    private static readonly LineFinding CompressionBetween = LineFinding.Open("compressionBetween", Lean.Below);

    /// <summary>Its kind of reading, with everything it can find.</summary>
    public static IReadOnlyList<LineFinding> CanFind { get; } =
    [CompressionGood, FewPulls, ThrottleShut, CompressionLow, CompressionBetween];

    /// <inheritdoc/>
    public override IReadOnlyList<LineFinding> Findings => CanFind;

    /// <summary>Its key.</summary>
    public const string LineKey = "faults/compression";

    internal const string Quick = "Quick tests";

    /// <summary>Share of the dry reading by which the wet one is higher where rings or bore leak. Own judgement; that a rise speaks for rings:
    /// common practice, no source.</summary>
    private const double ClearRise = 0.15;

    /// <summary>The line for a carburetor's engine: by its sheet, else by the shop's marks; by both kinds' when nobody has said which it
    /// is.</summary>
    /// <param name="kind">The carburetor.</param>
    /// <param name="sheet">Its sheet.</param>
    /// <param name="usual">The shop's marks.</param>
    public static CompressionLine Of(CarburetorKind kind, SpecSheet sheet, QuickTestDefaults usual)
    {
        var (floor, good) = kind.Engine switch
        {
            EngineKind.TwoStroke => (usual.TwoStrokeFloorKPa, usual.TwoStrokeGoodKPa),
            EngineKind.FourStroke => (usual.FourStrokeFloorKPa, usual.FourStrokeGoodKPa),
            null => (
                Math.Min(usual.TwoStrokeFloorKPa, usual.FourStrokeFloorKPa),
                Math.Max(usual.TwoStrokeGoodKPa, usual.FourStrokeGoodKPa)
            ),
        };
        return sheet.Compression is { } own
            ? new CompressionLine(own.FloorKPa, own.GoodKPa, usual.CompressionPulls, sheet.Name)
            : new CompressionLine(floor, good, usual.CompressionPulls, "Shop default");
    }

    /// <inheritdoc/>
    public override bool Required => false;

    /// <inheritdoc/>
    public override bool GoesWithTheTray => true;

    /// <inheritdoc/>
    public override LineLimits? Limits =>
        new(
            Sentence.Of("at least {0} is good, below {1} is low", Quantity.KPa(GoodKPa), Quantity.KPa(FloorKPa)),
            new Span(Dimension.Pressure, GoodKPa, null),
            From
        );

    /// <inheritdoc/>
    public override Caution? Caution => Safety.Caution.LeadOff;

    private LineBox<double> PressureBox => Box.Number("pressure", "dry", Dimension.Pressure, 0, 2500).About(GoodKPa);
    private LineBox<double?> WetBox => Box.Detail("wet", "wet", Dimension.Pressure, 0, 2500).About(GoodKPa);
    private static readonly LineBox<int> PullsBox = Box.Count("pulls", "pulls", 1, 100);
    private static readonly LineBox<bool> ThrottleBox = Box.Choice(
        "throttle",
        "throttle",
        (true, "open", "Throttle wide open"),
        (false, "shut", "Not open")
    );

    /// <inheritdoc/>
    protected override LineForm<CompressionReading> Boxes =>
        new(new BoxGroup("gauge", "Gauge", [PressureBox, PullsBox, ThrottleBox, WetBox]), boxes => new CompressionReading(
            boxes.Get(PressureBox),
            boxes.Get(PullsBox),
            boxes.Get(ThrottleBox),
            boxes.Get(WetBox)
        ));

    /// <inheritdoc/>
    protected override Sentence Describe(CompressionReading read) =>
        read.WetKPa is { } wet
            ? Sentence.Of(
                $"{{0}} after {{1}} pulls, {{2}} with oil, throttle {(read.ThrottleOpen ? "open" : "not open")}",
                Quantity.KPa(read.PressureKPa),
                Quantity.Count(read.Pulls),
                Quantity.KPa(wet)
            )
            : Sentence.Of(
                $"{{0}} after {{1}} pulls, throttle {(read.ThrottleOpen ? "open" : "not open")}",
                Quantity.KPa(read.PressureKPa),
                Quantity.Count(read.Pulls)
            );

    /// <inheritdoc/>
    protected override Sentence Ask =>
        Sentence.Of(
            "Plug out, lead off and held clear, throttle wide open: {0} firm pulls, read the highest.",
            Quantity.Count(PullsNeeded)
        );

    /// <inheritdoc/>
    protected override Judgement Judge(CompressionReading read, PinSet pins)
    {
        // Too few pulls and a shut throttle read low, never high: a good reading stands whatever was done.
        var (finding, next) =
            read.PressureKPa >= GoodKPa ? (CompressionGood, Sentence.Of("The engine pumps. Go on."))
            : read.Pulls < PullsNeeded
                ? (FewPulls, Sentence.Of("Too few pulls to read low: {0} firm ones, then read again.", Quantity.Count(PullsNeeded)))
            : !read.ThrottleOpen ? (ThrottleShut, Sentence.Of("With the throttle shut it draws no air: hold it wide open and read again."))
            : read.PressureKPa < FloorKPa && read.Rise is { } rise
                ? (
                    CompressionLow,
                    rise >= ClearRise
                        ? Sentence.Of(
                            "With oil it rises by {0}: rings or bore. Not the carburetor.",
                            Quantity.Percent(Math.Round(100 * rise))
                        )
                        : Sentence.Of(
                            "With oil it hardly rises ({0}): a valve, a gasket or a seal. Not the carburetor.",
                            Quantity.Percent(Math.Round(100 * rise))
                        )
                )
            : read.PressureKPa < FloorKPa
                ? (
                    CompressionLow,
                    Sentence.Of(
                        "Doubt it first: cold, dry and an automatic decompressor read low. A few drops of oil down the plug hole "
                            + "and once more: if it rises, rings or bore; if not, a valve, a gasket or a seal. Not the carburetor."
                    )
                )
            : (
                CompressionBetween,
                Sentence.Of("Between worn and good: it neither clears nor condemns the engine. Go on with what can be decided.")
            );
        return finding.Judged(
            next,
            found: new Span(Dimension.Pressure, read.PressureKPa, read.PressureKPa),
            figures:
            [
                new("pressure", "Highest", Quantity.KPa(read.PressureKPa)),
                .. read.Rise is { } more
                    ? [new Figure("rise", "Rise with oil", Quantity.Percent(Math.Round(100 * more)))]
                    : Array.Empty<Figure>(),
            ],
            why:
            [
                Sentence.Of(
                    "Low below {0}, good from {1}; between them it cannot be told. At least {2} pulls, throttle open: common practice, no source.",
                    Quantity.KPa(FloorKPa),
                    Quantity.KPa(GoodKPa),
                    Quantity.Count(PullsNeeded)
                ),
            ]
        );
    }
}
