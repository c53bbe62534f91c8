using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Shop;

/// <summary>One number the shop goes by, which a lead can change.</summary>
/// <param name="Key">Stable name, such as <c>fuelWatchMin</c>.</param>
/// <param name="Group">What it belongs to.</param>
/// <param name="Label">Its name.</param>
/// <param name="What">What it does.</param>
/// <param name="Source">Where the usual value is from.</param>
/// <param name="Dimension">What it measures.</param>
/// <param name="Least">Least it may be.</param>
/// <param name="Most">Most it may be.</param>
/// <param name="Get">Its value in a set of defaults.</param>
/// <param name="Set">The defaults with another value.</param>
/// <param name="Counts">What is counted, in the plural, where it is a count; <see cref="ShopRules.Money"/> for an amount.</param>
public sealed record ShopRule(
    string Key,
    string Group,
    string Label,
    string What,
    string Source,
    Dimension Dimension,
    double Least,
    double Most,
    Func<ShopDefaults, double> Get,
    Func<ShopDefaults, double, ShopDefaults> Set,
    string Counts = ""
)
{
    /// <summary>What can be chosen, in words, where the value is the place of one of them; empty for a number.</summary>
    public IReadOnlyList<string> Choices { get; init; } = [];

    /// <summary>Reads what was typed for it, in the base unit, or says what is wrong.</summary>
    /// <param name="typed">What was typed.</param>
    /// <param name="units">The units that a number without a unit is in.</param>
    public Parsed<double> Read(string typed, UnitSystem units)
    {
        var chosen = Choices.ToList().FindIndex(choice => choice.Equals(typed.Trim(), StringComparison.OrdinalIgnoreCase));
        if (chosen >= 0)
        {
            return Parsed<double>.Right(chosen);
        }

        var read = MeasureEntry.Parse(typed, Dimension, units);
        if (
            Choices.Count > 0
            && !(read is { IsRight: true, Value: var place } && place == decimal.Truncate(place) && place >= 0 && place < Choices.Count)
        )
        {
            return Parsed<double>.Wrong($"Choose one: {string.Join(", ", Choices)}.");
        }

        return !read.IsRight ? Parsed<double>.Wrong(read.Problem!)
            : (double)read.Value is var value && !(value >= Least && value <= Most)
                ? Parsed<double>.Wrong($"From {Least} to {Most}{In}. Check the number and its unit.")
            : Counts.Length > 0 && Counts != ShopRules.Money && value != Math.Truncate(value)
                ? Parsed<double>.Wrong("Enter a whole number: it is a count.")
            : Parsed<double>.Right(value);
    }

    private string In =>
        MetricText.UnitOf(Dimension) is { Length: > 0 } sign ? " " + sign
        : Counts.Length > 0 && Counts != ShopRules.Money ? " " + Counts
        : "";
}

/// <summary>Every number the shop goes by. A new default is added here, or a test says that nobody can change it.</summary>
public static class ShopRules
{
    /// <summary>Stands for an amount in the shop's currency where others say what is counted.</summary>
    public const string Money = "money";

    private const string Common = "common practice, no source",
        Own = "the shop’s own choice";

    /// <summary>All rules, in the order they are shown.</summary>
    public static IReadOnlyList<ShopRule> All { get; } =
    [
        Hold(
            "Pressure",
            "What needle and seat of a float type have to hold when the sheet says nothing.",
            Dimension.Pressure,
            5,
            300,
            h => h.PressureKPa,
            (h, v) => h with { PressureKPa = v },
            "pressureKPa",
            Common
        ),
        Hold(
            "For",
            "How long it has to hold.",
            Dimension.Time,
            1,
            600,
            h => h.WindowS,
            (h, v) => h with { WindowS = v },
            "windowS",
            Common
        ),
        Hold(
            "Drop at most",
            "How much it may lose in that time.",
            Dimension.Pressure,
            0.01,
            100,
            h => h.DropLimitKPa,
            (h, v) => h with { DropLimitKPa = v },
            "dropLimitKPa",
            Own
        ),
        Hold(
            "Settling",
            "Time after pumping that does not count.",
            Dimension.Time,
            0,
            120,
            h => h.SettlingS,
            (h, v) => h with { SettlingS = v },
            "settlingS",
            Own
        ),
        Hold(
            "Test volume",
            "Air shut in by your pump, hose and fitting: with it a drop becomes a leak.",
            Dimension.Volume,
            0.1,
            5000,
            h => h.TestVolumeML,
            (h, v) => h with { TestVolumeML = v },
            "testVolumeML",
            Own
        ),
        Hold(
            "Gauge step",
            "The smallest step of your gauge: a drop below it cannot be told.",
            Dimension.Pressure,
            0.001,
            50,
            h => h.GaugeResolutionKPa,
            (h, v) => h with { GaugeResolutionKPa = v },
            "gaugeResolutionKPa",
            Own
        ),
        new(
            "fuelWatchMin",
            "Prove",
            "Fuel on",
            "Minutes with the fuel on and rocked before it counts as dry.",
            Common,
            Dimension.Minutes,
            1,
            60,
            d => d.FuelWatchMin,
            (d, v) => d with { FuelWatchMin = v }
        ),
        new(
            "bedInDays",
            "Prove",
            "Bedding in",
            "Days a new plunger or seat may weep before it is looked at again.",
            Common,
            Dimension.Count,
            0,
            14,
            d => d.BedInDays,
            (d, v) => d with { BedInDays = (int)v },
            "days"
        ),
        new(
            "jetSchool",
            "Gauge",
            "A jet that starves",
            "Clear only: back to the sheet’s bore, never cut. One step up: an idle jet in gauge may be opened one drill size. Renew: a new jet goes in.",
            Common,
            Dimension.Count,
            0,
            2,
            d => (double)d.JetSchool,
            (d, v) => d with { JetSchool = (JetSchool)(int)v }
        )
        {
            Choices = ["clear only", "one step up", "renew"],
        },
        Choke(
            "Vacuum choke open within",
            "Latest a vacuum choke is fully open.",
            Dimension.Time,
            0.5,
            30,
            c => c.VacuumOpenS,
            (c, v) => c with { VacuumOpenS = v },
            "vacuumOpenS",
            Common
        ),
        Choke(
            "Heat choke not before",
            "Earliest a heat choke is fully open on a day of 20 °C.",
            Dimension.Time,
            0,
            600,
            c => c.HeatLowS,
            (c, v) => c with { HeatLowS = v },
            "heatLowS",
            Own
        ),
        Choke(
            "Heat choke no later than",
            "Latest it is, on such a day.",
            Dimension.Time,
            10,
            1800,
            c => c.HeatHighS,
            (c, v) => c with { HeatHighS = v },
            "heatHighS",
            Common
        ),
        Choke(
            "Wax begins at",
            "Where a wax pellet begins to melt.",
            Dimension.Temperature,
            20,
            100,
            c => c.WaxBeginsC,
            (c, v) => c with { WaxBeginsC = v },
            "waxBeginsC",
            "paraffins, from memory"
        ),
        Choke(
            "Wax molten at",
            "Where it is molten.",
            Dimension.Temperature,
            25,
            120,
            c => c.WaxFullC,
            (c, v) => c with { WaxFullC = v },
            "waxFullC",
            "paraffins, from memory"
        ),
        Choke(
            "Wax pin’s stroke",
            "Least stroke of a pin that works.",
            Dimension.Length,
            0.2,
            30,
            c => c.WaxStrokeMm,
            (c, v) => c with { WaxStrokeMm = v },
            "waxStrokeMm",
            Own
        ),
        Choke(
            "Coil begins at",
            "Where a bimetal coil begins to open the plate.",
            Dimension.Temperature,
            -20,
            100,
            c => c.StripBeginsC,
            (c, v) => c with { StripBeginsC = v },
            "stripBeginsC",
            Own
        ),
        Choke(
            "Coil done at",
            "Where it has opened it.",
            Dimension.Temperature,
            0,
            150,
            c => c.StripFullC,
            (c, v) => c with { StripFullC = v },
            "stripFullC",
            Own
        ),
        Choke(
            "Release rod’s spare",
            "Travel a release rod has to spare.",
            Dimension.Length,
            0,
            10,
            c => c.RodSpareMm,
            (c, v) => c with { RodSpareMm = v },
            "rodSpareMm",
            Own
        ),
        Chamber(
            "Chamber’s suction",
            "What a vacuum choke’s chamber has to hold.",
            Dimension.Pressure,
            1,
            100,
            h => h.PressureKPa,
            (h, v) => h with { PressureKPa = v },
            "pressureKPa"
        ),
        Chamber(
            "Chamber’s time",
            "How long it has to hold it.",
            Dimension.Time,
            1,
            120,
            h => h.WindowS,
            (h, v) => h with { WindowS = v },
            "windowS"
        ),
        Chamber(
            "Chamber’s drop at most",
            "How much it may lose.",
            Dimension.Pressure,
            0.1,
            50,
            h => h.DropLimitKPa,
            (h, v) => h with { DropLimitKPa = v },
            "dropLimitKPa"
        ),
        Chamber(
            "Chamber’s settling",
            "Time after pumping that does not count.",
            Dimension.Time,
            0,
            60,
            h => h.SettlingS,
            (h, v) => h with { SettlingS = v },
            "settlingS"
        ),
        Chamber(
            "Chamber’s test volume",
            "Volume of chamber and hose.",
            Dimension.Volume,
            0.1,
            500,
            h => h.TestVolumeML,
            (h, v) => h with { TestVolumeML = v },
            "testVolumeML"
        ),
        Chamber(
            "Chamber’s gauge step",
            "The smallest step of your vacuum gauge.",
            Dimension.Pressure,
            0.001,
            10,
            h => h.GaugeResolutionKPa,
            (h, v) => h with { GaugeResolutionKPa = v },
            "gaugeResolutionKPa"
        ),
        new(
            "promisedDays",
            "Desk",
            "Promised day",
            "Days from check-in that are offered as the promised day.",
            Own,
            Dimension.Count,
            0,
            60,
            d => d.PromisedDays,
            (d, v) => d with { PromisedDays = (int)v },
            "days"
        ),
        new(
            "label.widthMm",
            "Desk",
            "Label’s width",
            "Width of the labels your printer takes.",
            Own,
            Dimension.Length,
            20,
            210,
            d => d.Label.WidthMm,
            (d, v) => d with { Label = d.Label with { WidthMm = v } }
        ),
        new(
            "label.heightMm",
            "Desk",
            "Label’s height",
            "Their height.",
            Own,
            Dimension.Length,
            10,
            297,
            d => d.Label.HeightMm,
            (d, v) => d with { Label = d.Label with { HeightMm = v } }
        ),
        new(
            "labourPerHour",
            "Money",
            "An hour at the bench",
            "Hourly rate, in the shop’s currency.",
            Own,
            Dimension.Count,
            0.01,
            10_000,
            d => d.Trace.LabourPerHour,
            (d, v) => d with { Trace = d.Trace with { LabourPerHour = v } },
            Money
        ),
        new(
            "proofMinutes",
            "Trace",
            "Proving a fix",
            "Minutes to prove a fix before the next is tried.",
            Own,
            Dimension.Minutes,
            0,
            600,
            d => d.Trace.ProofMinutes,
            (d, v) => d with { Trace = d.Trace with { ProofMinutes = v } }
        ),
        new(
            "referMinutes",
            "Trace",
            "Giving up",
            "What sending it on costs, in minutes.",
            Own,
            Dimension.Minutes,
            0,
            100_000,
            d => d.Trace.ReferMinutes,
            (d, v) => d with { Trace = d.Trace with { ReferMinutes = v } }
        ),
        Fit(
            "Decline above",
            "Share of a machine’s worth that a repair may cost: above it the advice is to decline.",
            Dimension.Percent,
            1,
            100,
            f => 100 * (double)f.WorthShare,
            (f, v) => f with { WorthShare = (decimal)v / 100 },
            "worthShare",
            Common
        ),
        Fit(
            "A comeback costs",
            "Minutes lost on a comeback besides doing the work again.",
            Dimension.Minutes,
            0,
            600,
            f => f.ComebackMinutes,
            (f, v) => f with { ComebackMinutes = v },
            "comebackMinutes",
            Own
        ),
        Fit(
            "Looking at it costs",
            "Minutes spent before a machine is declined.",
            Dimension.Minutes,
            0,
            600,
            f => f.InspectMinutes,
            (f, v) => f with { InspectMinutes = v },
            "inspectMinutes",
            Own
        ),
        Fit(
            "Fitting a kit",
            "Minutes to fit a whole kit.",
            Dimension.Minutes,
            1,
            600,
            f => f.KitMinutes,
            (f, v) => f with { KitMinutes = v },
            "kitMinutes",
            Own
        ),
        Fit(
            "Changing the carburetor",
            "Minutes to change the whole carburetor.",
            Dimension.Minutes,
            1,
            600,
            f => f.CarburetorMinutes,
            (f, v) => f with { CarburetorMinutes = v },
            "carburetorMinutes",
            Own
        ),
        Fit(
            "A donor’s part",
            "Minutes to take one part from a donor and look it over.",
            Dimension.Minutes,
            1,
            600,
            f => f.DonorMinutes,
            (f, v) => f with { DonorMinutes = v },
            "donorMinutes",
            Own
        ),
        Fit(
            "Earlier jobs count as",
            "How many fitted ones the shares of comebacks to start from count as.",
            Dimension.Count,
            1,
            1000,
            f => f.ReturnsWeight,
            (f, v) => f with { ReturnsWeight = v },
            "returnsWeight",
            Own,
            "jobs"
        ),
        new(
            "serviceLevel",
            "Stock",
            "Service level",
            "How sure to be that the shelf lasts until the order comes.",
            Own,
            Dimension.Percent,
            50,
            99.9,
            d => 100 * d.Stock.ServiceLevel,
            (d, v) => d with { Stock = d.Stock with { ServiceLevel = v / 100 } }
        ),
        new(
            "lookBackDays",
            "Stock",
            "Look back",
            "Days of use that are looked back on.",
            Own,
            Dimension.Count,
            7,
            730,
            d => d.Stock.LookBackDays,
            (d, v) => d with { Stock = d.Stock with { LookBackDays = (int)v } },
            "days"
        ),
        Quick(
            "Two-stroke compression low below",
            "Below it a small two-stroke is worn, or the reading is wrong.",
            Dimension.Pressure,
            50,
            2000,
            q => q.TwoStrokeFloorKPa,
            (q, v) => q with { TwoStrokeFloorKPa = v },
            "twoStrokeFloorKPa",
            Common
        ),
        Quick(
            "Two-stroke compression good from",
            "From it on its engine is not the trouble.",
            Dimension.Pressure,
            50,
            2000,
            q => q.TwoStrokeGoodKPa,
            (q, v) => q with { TwoStrokeGoodKPa = v },
            "twoStrokeGoodKPa",
            Common
        ),
        Quick(
            "Four-stroke compression low below",
            "The same of a small four-stroke, whose decompressor takes part of it away.",
            Dimension.Pressure,
            50,
            2000,
            q => q.FourStrokeFloorKPa,
            (q, v) => q with { FourStrokeFloorKPa = v },
            "fourStrokeFloorKPa",
            Own
        ),
        Quick(
            "Four-stroke compression good from",
            "From it on its engine is not the trouble.",
            Dimension.Pressure,
            50,
            2000,
            q => q.FourStrokeGoodKPa,
            (q, v) => q with { FourStrokeGoodKPa = v },
            "fourStrokeGoodKPa",
            Own
        ),
        Quick(
            "Pulls",
            "Firm pulls before a low reading of compression counts.",
            Dimension.Count,
            1,
            50,
            q => q.CompressionPulls,
            (q, v) => q with { CompressionPulls = (int)v },
            "compressionPulls",
            Common,
            "pulls"
        ),
        Quick(
            "Bulb fills within",
            "Strokes a sound bulb takes that is not dry.",
            Dimension.Count,
            1,
            100,
            q => q.BulbFew,
            (q, v) => q with { BulbFew = (int)v },
            "bulbFew",
            Own,
            "strokes"
        ),
        Quick(
            "Bulb is slow from",
            "Strokes from which, each time, something is wrong upstream.",
            Dimension.Count,
            2,
            300,
            q => q.BulbMany,
            (q, v) => q with { BulbMany = (int)v },
            "bulbMany",
            Own,
            "strokes"
        ),
        Quick(
            "Missing fuel shows from",
            "Fuel gone from a tank, or oil risen in a sump, that can be told at all.",
            Dimension.Volume,
            1,
            2000,
            q => q.MissingLeastML,
            (q, v) => q with { MissingLeastML = v },
            "missingLeastML",
            Own
        ),
        Quick(
            "A coil heats in",
            "Time constant of a coil on a running engine: one that fails hot does so after about one to four of them.",
            Dimension.Minutes,
            1,
            60,
            q => q.CoilTauMin,
            (q, v) => q with { CoilTauMin = v },
            "coilTauMin",
            Own
        ),
        Quick(
            "Runs on after",
            "Minutes without dying after which a machine is said to run on.",
            Dimension.Minutes,
            1,
            120,
            q => q.RunsOnMin,
            (q, v) => q with { RunsOnMin = v },
            "runsOnMin",
            Common
        ),
        new(
            "latePerDay",
            "Stock",
            "A day late costs",
            "What a day past a promised day is taken to cost, in the shop’s currency.",
            Own,
            Dimension.Count,
            0,
            1000,
            d => (double)d.Stock.LatePerDay,
            (d, v) => d with { Stock = d.Stock with { LatePerDay = (decimal)v } },
            Money
        ),
    ];

    /// <summary>What of a set of defaults does not go together, or null: each number is possible and two of them are not.</summary>
    /// <param name="shop">The defaults.</param>
    public static string? Problem(ShopDefaults shop) =>
        new (bool Wrong, string Must)[]
        {
            (shop.Hold.DropLimitKPa > shop.Hold.PressureKPa, "It cannot lose more than it has to hold."),
            (shop.Chokes.ChamberHold.DropLimitKPa > shop.Chokes.ChamberHold.PressureKPa, "A chamber cannot lose more than it has to hold."),
            (
                shop.QuickTests.TwoStrokeFloorKPa > shop.QuickTests.TwoStrokeGoodKPa
                    || shop.QuickTests.FourStrokeFloorKPa > shop.QuickTests.FourStrokeGoodKPa,
                "Good compression must be above low."
            ),
            (shop.QuickTests.BulbFew >= shop.QuickTests.BulbMany, "A slow bulb must take more strokes than a sound one."),
            (shop.Chokes.HeatLowS >= shop.Chokes.HeatHighS, "The latest must be after the earliest."),
            (shop.Chokes.WaxBeginsC >= shop.Chokes.WaxFullC, "Wax must be molten above where it begins to melt."),
            (shop.Chokes.StripBeginsC >= shop.Chokes.StripFullC, "A coil must be done above where it begins."),
        }
            .FirstOrDefault(one => one.Wrong)
            .Must;

    /// <summary>The rule of a key, or null.</summary>
    public static ShopRule? Find(string key) => All.FirstOrDefault(rule => rule.Key == key);

    private static ShopRule Hold(
        string label,
        string what,
        Dimension dimension,
        double least,
        double most,
        Func<HoldSpec, double> get,
        Func<HoldSpec, double, HoldSpec> set,
        string key,
        string source
    ) =>
        new(
            "hold." + key,
            "Hold test",
            label,
            what,
            source,
            dimension,
            least,
            most,
            d => get(d.Hold),
            (d, v) => d with { Hold = set(d.Hold, v) }
        );

    private static ShopRule Choke(
        string label,
        string what,
        Dimension dimension,
        double least,
        double most,
        Func<ChokeDefaults, double> get,
        Func<ChokeDefaults, double, ChokeDefaults> set,
        string key,
        string source
    ) =>
        new(
            "chokes." + key,
            "Choke",
            label,
            what,
            source,
            dimension,
            least,
            most,
            d => get(d.Chokes),
            (d, v) => d with { Chokes = set(d.Chokes, v) }
        );

    private static ShopRule Quick(
        string label,
        string what,
        Dimension dimension,
        double least,
        double most,
        Func<QuickTestDefaults, double> get,
        Func<QuickTestDefaults, double, QuickTestDefaults> set,
        string key,
        string source,
        string counts = ""
    ) =>
        new(
            "quickTests." + key,
            "Trace",
            label,
            what,
            source,
            dimension,
            least,
            most,
            d => get(d.QuickTests),
            (d, v) => d with { QuickTests = set(d.QuickTests, v) },
            counts
        );

    private static ShopRule Chamber(
        string label,
        string what,
        Dimension dimension,
        double least,
        double most,
        Func<HoldSpec, double> get,
        Func<HoldSpec, double, HoldSpec> set,
        string key
    ) =>
        new(
            "chokes.chamberHold." + key,
            "Choke",
            label,
            what,
            Own,
            dimension,
            least,
            most,
            d => get(d.Chokes.ChamberHold),
            (d, v) => d with { Chokes = d.Chokes with { ChamberHold = set(d.Chokes.ChamberHold, v) } }
        );

    private static ShopRule Fit(
        string label,
        string what,
        Dimension dimension,
        double least,
        double most,
        Func<FitDefaults, double> get,
        Func<FitDefaults, double, FitDefaults> set,
        string key,
        string source,
        string counts = ""
    ) =>
        new(
            "fit." + key,
            "Kit",
            label,
            what,
            source,
            dimension,
            least,
            most,
            d => get(d.Fit),
            (d, v) => d with { Fit = set(d.Fit, v) },
            counts
        );
}
