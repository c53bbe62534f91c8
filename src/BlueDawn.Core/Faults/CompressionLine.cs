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
public sealed record CompressionReading(double PressureKPa, int Pulls, bool ThrottleOpen) : Reading;

/// <summary>Cranking compression against the floor and the good mark of its kind of engine.</summary>
/// <param name="FloorKPa">Below it the engine is worn, or the reading is wrong.</param>
/// <param name="GoodKPa">From it on the engine is not the trouble.</param>
/// <param name="PullsNeeded">Pulls below which a low reading says nothing.</param>
/// <param name="From">Where the two marks are from.</param>
public sealed record CompressionLine(double FloorKPa, double GoodKPa, int PullsNeeded, string From)
    : GaugeLine(LineKey, Station.Faults, Quick, "Compression")
{
    /// <summary>Its key.</summary>
    public const string LineKey = "faults/compression";

    internal const string Quick = "Quick tests";

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
    public override Sentence Target => Sentence.Of("at least {0} is good, below {1} is low", Quantity.KPa(GoodKPa), Quantity.KPa(FloorKPa));

    /// <inheritdoc/>
    public override Span? Window => new(Dimension.Pressure, GoodKPa, null);

    /// <inheritdoc/>
    public override string LimitSource => From;

    /// <inheritdoc/>
    public override Caution? Caution => Safety.Caution.LeadOff;

    /// <inheritdoc/>
    public override EntryForm Form =>
        new(
            [
                new EntryGroup(
                    "gauge",
                    "Gauge",
                    [
                        EntryField.Measure("pressure", "highest", Dimension.Pressure),
                        EntryField.Measure("pulls", "pulls", Dimension.Count),
                        EntryField.Choice(
                            "throttle",
                            "throttle",
                            false,
                            new EntryChoice("open", "Throttle wide open"),
                            new EntryChoice("shut", "Not open")
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
        var pressure = (double)reader.Required("pressure", Dimension.Pressure, 0, 2500);
        var pulls = reader.Whole("pulls", 1, 100);
        var open = reader.Choice("throttle", "open", "shut") == "open";
        return Result(reader, () => new CompressionReading(pressure, pulls, open));
    }

    /// <inheritdoc/>
    public override Sentence Describe(Reading reading) =>
        reading is CompressionReading read
            ? Sentence.Of(
                $"{{0}} after {{1}} pulls, throttle {(read.ThrottleOpen ? "open" : "not open")}",
                Quantity.KPa(read.PressureKPa),
                Quantity.Count(read.Pulls)
            )
            : Sentence.None;

    /// <inheritdoc/>
    public override Judgement Judge(Reading? reading, PinSet pins)
    {
        if (reading is not CompressionReading read)
        {
            return Judgement.NotRead(
                Sentence.Of(
                    "Plug out, lead off and held clear, throttle wide open: {0} firm pulls, read the highest.",
                    Quantity.Count(PullsNeeded)
                )
            );
        }

        // Too few pulls and a shut throttle read low, never high: a good reading stands whatever was done.
        var (verdict, finding, word, lean, next) =
            read.PressureKPa >= GoodKPa ? (Verdict.Good, "compressionGood", "Good", Lean.None, Sentence.Of("The engine pumps. Go on."))
            : read.Pulls < PullsNeeded
                ? (
                    Verdict.CannotTell,
                    "fewPulls",
                    "Cannot tell yet",
                    Lean.Below,
                    Sentence.Of("Too few pulls to read low: {0} firm ones, then read again.", Quantity.Count(PullsNeeded))
                )
            : !read.ThrottleOpen
                ? (
                    Verdict.CannotTell,
                    "throttleShut",
                    "Cannot tell yet",
                    Lean.Below,
                    Sentence.Of("With the throttle shut it draws no air: hold it wide open and read again.")
                )
            : read.PressureKPa < FloorKPa
                ? (
                    Verdict.NotGood,
                    "compressionLow",
                    "Low",
                    Lean.Below,
                    Sentence.Of(
                        "Doubt it first: cold, dry and an automatic decompressor read low. A few drops of oil down the plug hole "
                            + "and once more: if it rises, rings or bore; if not, a valve, a gasket or a seal. Not the carburetor."
                    )
                )
            : (
                Verdict.CannotTell,
                "compressionBetween",
                "Cannot tell yet",
                Lean.Below,
                Sentence.Of("Between worn and good: it neither clears nor condemns the engine. Go on with what can be decided.")
            );
        return new Judgement(
            verdict,
            finding,
            word,
            lean,
            next,
            new Span(Dimension.Pressure, read.PressureKPa, read.PressureKPa),
            [new("pressure", "Highest", Quantity.KPa(read.PressureKPa))],
            [
                Sentence.Of(
                    "Low below {0}, good from {1}; between them it cannot be told. At least {2} pulls, throttle open: common practice, no source.",
                    Quantity.KPa(FloorKPa),
                    Quantity.KPa(GoodKPa),
                    Quantity.Count(PullsNeeded)
                ),
            ],
            []
        );
    }
}
