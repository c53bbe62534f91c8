using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Trays;

namespace BlueDawn.Core.Tests.Trays;

/// <summary>A made-up spec sheet for tests of more than one room.</summary>
internal static class Sheets
{
    public static readonly Core.Shop.FitDefaults Fit = new(
        0.5m,
        20,
        20,
        45,
        25,
        15,
        new Dictionary<Core.Parts.FitOption, double>
        {
            [Core.Parts.FitOption.Kit] = 0.04,
            [Core.Parts.FitOption.PatternCarburetor] = 0.3,
            [Core.Parts.FitOption.Stopgap] = 0.5,
        },
        10
    );

    public static readonly Core.Shop.StockDefaults Stock = new(0.95, 90, 4);

    public static readonly Core.Shop.CleaningDefaults Baths = new([
        new Core.Shop.Bath("heated", "Heated bath", Core.Shop.Vessel.Heated, 3, 20, 25),
        new Core.Shop.Bath("tub", "Soak tub", Core.Shop.Vessel.Tub, 4, 20, 60),
    ]);

    public static readonly ShopDefaults Shop = new(
        new HoldSpec(48, 10, 1.5, 2, 20, 1),
        4,
        5,
        "GBP",
        new Core.Shop.TraceDefaults(48, 5, 240),
        Fit,
        Stock,
        Baths,
        "common practice, no source"
    );

    private static readonly Core.Parts.Fitting Kit = new(Core.Parts.FitOption.Kit, "kit", [], [], null, 0);

    public static readonly SpecSheet Spec = new(
        "FB18",
        "Ostrel",
        CarburetorFamily.FloatBowl,
        3,
        ["4107", "4107-B"],
        [new BoreSpec("main-jet", "Main jet", 0.72m, 0.01m), new BoreSpec("idle-jet", "Idle jet", 0.33m, 0.015m)],
        [new EmulsionRowSpec(1, 4, 0.60m, 0.02m, 18m)],
        new FloatSpec(14m, 0.5m, 0.4m, 8m, 24m, 6.2, 0.3),
        null,
        new SpeedSpec(1400, 1800),
        new SpeedSpec(3200, 3600),
        [
            new PartNeed("bowl gasket", 1, new Dictionary<string, string> { ["thickness"] = "1.5 mm" }),
            new PartNeed("needle", 1, new Dictionary<string, string> { ["tip"] = "rubber" }),
            new PartNeed("O-ring", 2, new Dictionary<string, string>()),
        ],
        "invented"
    );

    public static IReadOnlyList<GaugeLine> Lines => LinesOf(Spec);

    public static IReadOnlyList<GaugeLine> LinesOf(SpecSheet sheet) =>
        [
            .. StationList
                .All.SelectMany(station => station.Lines(FactsOf(sheet) with { Fitting = Kit }, sheet, Shop))
                .Where(line => line.IsOffered),
        ];

    /// <summary>Lines of a sheet of every family.</summary>
    public static IReadOnlyList<GaugeLine> LinesOfEveryFamily =>
        [
            .. new[]
            {
                Spec,
                Spec with
                {
                    Float = Spec.Float! with { Body = new FloatBody(14, 26, 1.8, 300, FloatShape.Upright, 20) },
                    Feeds = new EngineSize(170, 3600),
                },
                Spec with
                {
                    Family = CarburetorFamily.Diaphragm,
                    Float = null,
                    PopOff = new PopOffSpec(85, 135, 55),
                },
                Spec with
                {
                    Family = CarburetorFamily.SuctionTank,
                    Float = null,
                },
            }
                .SelectMany(LinesOf)
                .Concat(
                    Enum.GetValues<ChokeKind>()
                        .SelectMany(choke =>
                            StationList.All.SelectMany(station =>
                                station.Lines(
                                    FactsOf(
                                        Spec,
                                        new CarburetorKind(
                                            choke == ChokeKind.Vacuum ? CarburetorFamily.SuctionTank : CarburetorFamily.FloatBowl,
                                            EngineKind.FourStroke,
                                            choke
                                        )
                                    ),
                                    Spec,
                                    Shop
                                )
                            )
                        )
                )
                // What is asked once something is new is a line as well.
                .Select(line => line is LookLine look ? look with { NewFitted = true } : line)
                .Where(line => line.IsOffered)
                .DistinctBy(line => line.Key),
        ];

    public static TrayFacts FactsOf(SpecSheet? sheet, CarburetorKind? kind = null) =>
        new(
            27,
            kind ?? new CarburetorKind(sheet?.Family ?? CarburetorFamily.FloatBowl, EngineKind.FourStroke, null),
            "4107",
            sheet,
            null,
            "Hunts",
            new DateOnly(2026, 11, 6),
            WaitsFor.Hands
        );

    public static Dictionary<string, TypedReading> AllGood() =>
        new()
        {
            ["gauging/main-jet"] = TypedReading.Of(("go", "0.715"), ("noGo", "0.73")),
            ["gauging/idle-jet"] = TypedReading.Of(("go", "0.32"), ("noGo", "0.34")),
            ["gauging/emulsion-row-1"] = TypedReading.Of(("openHoles", "4"), ("go", "0.59"), ("noGo", "0.61")),
            ["setting/float-mass"] = TypedReading.Of(("mass", "6.25")),
            ["setting/float-height"] = Rows("height", "angle", ("0", "14.0"), ("120", "14.1"), ("240", "14.0")),
            ["setting/hold-test"] = Rows("pressure", "time", ("2", "48"), ("7", "48"), ("12", "48")),
            ["setting/needle-tip"] = TypedReading.Of(("seen", "smooth")),
            ["setting/seat-side"] = TypedReading.Of(("seen", "down")),
            ["setting/bowl-gasket"] = TypedReading.Of(("seen", "seated")),
            ["setting/plunger-place"] = TypedReading.Of(("seen", "none")),
            ["setting/float-free"] = TypedReading.Of(("seen", "swings")),
            ["setting/float-gap"] = TypedReading.Of(("seen", "even")),
            ["setting/nut-washer"] = TypedReading.Of(("seen", "there")),
            ["setting/needle-lift"] = TypedReading.Of(("seen", "free")),
            ["setting/seat-depth"] = TypedReading.Of(("seen", "down")),
            ["setting/turn-test"] = TypedReading.Of(("seen", "turns")),
            ["setting/adjuster-rings"] = TypedReading.Of(("seen", "whole")),
            ["setting/bowl-turn"] = TypedReading.Of(("seen", "faces")),
            ["setting/bowl-squeeze"] = TypedReading.Of(("thickness", "2"), ("groove", "1.5")),
            ["chokes/plate-moves"] = TypedReading.Of(("seen", "free")),
            ["chokes/choke-held"] = TypedReading.Of(("seen", "nothing")),
            ["chokes/throttle-returns"] = TypedReading.Of(("seen", "returns")),
            ["chokes/runs-open"] = TypedReading.Of(("seen", "runsOpen")),
            ["proving/fuel-on"] = TypedReading.Of(("minutes", "4"), ("rocked", "yes"), ("leak", "dry")),
            ["proving/idle-speed"] = TypedReading.Of(("speed", "1600")),
            ["proving/governed-speed"] = TypedReading.Of(("speed", "3400")),
            ["proving/manifold-shake"] = TypedReading.Of(("seen", "firm")),
            ["proving/linkage-travel"] = TypedReading.Of(("seen", "allFree")),
            ["proving/stop-switch"] = TypedReading.Of(("seen", "sound")),
            ["proving/guards"] = TypedReading.Of(("seen", "guardsOn")),
            ["proving/key-on"] = TypedReading.Of(("seen", "dryAtKeyOn")),
            ["proving/hot-restart"] = TypedReading.Of(("seen", "startsHot")),
            ["proving/stops-running"] = TypedReading.Of(("seen", "stopsAtOnce")),
            ["proving/drive"] = TypedReading.Of(("seen", "driveSound")),
            ["proving/cleaned-down"] = TypedReading.Of(("seen", "wipedDown")),
        };

    public static TypedReading Rows(string value, string at, params (string At, string Value)[] rows) =>
        new(
            Core.Measures.UnitSystem.Metric,
            new Dictionary<string, string>(),
            [.. rows.Select(row => new Dictionary<string, string> { [at] = row.At, [value] = row.Value })]
        );
}
