using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Parts;

namespace BlueDawn.Core.Shop;

/// <summary>What the shop goes by where a spec sheet says nothing.</summary>
/// <param name="Hold">Hold test on float types.</param>
/// <param name="FuelWatchMin">Minutes with the fuel on before it counts as dry.</param>
/// <param name="PromisedDays">Days from check-in that are offered as the promised day.</param>
/// <param name="Currency">Currency of prices, three letters (ISO 4217).</param>
/// <param name="Trace">What tracing a fault costs.</param>
/// <param name="Fit">What decides between ways to renew worn parts.</param>
/// <param name="Stock">What the shelf goes by.</param>
/// <param name="Cleaning">The shop's baths.</param>
/// <param name="Source">Where these come from.</param>
/// <param name="BedInDays">Days a new plunger or seat may weep before it is looked at again.</param>
/// <param name="Chokes">What chokes are held against; what is usual when not given.</param>
public sealed record ShopDefaults(
    HoldSpec Hold,
    double FuelWatchMin,
    int PromisedDays,
    string Currency,
    TraceDefaults Trace,
    FitDefaults Fit,
    StockDefaults Stock,
    CleaningDefaults Cleaning,
    string Source,
    int BedInDays = 2,
    ChokeDefaults? Chokes = null
)
{
    /// <summary>What chokes are held against.</summary>
    public ChokeDefaults Chokes { get; init; } = Chokes ?? new();

    /// <summary>What quick tests are held against.</summary>
    public QuickTestDefaults QuickTests { get; init; } = new();

    /// <summary>When the shop is open.</summary>
    public OpenDays Open { get; init; } = OpenDays.NotSaid;

    /// <summary>The labels its printer takes.</summary>
    public LabelSize Label { get; init; } = new();

    /// <summary>What it does with a jet that starves.</summary>
    public JetSchool JetSchool { get; init; } = JetSchool.ClearOnly;

    /// <summary>The shop's sets of gauge pins; the first stands in for whoever has not said what pins they have.</summary>
    public IReadOnlyList<NamedPins> PinSets { get; init; } = [];

    /// <summary>The pins somebody has at hand: their own, else the shop's first set.</summary>
    /// <param name="own">Their own, as they described them; may be empty.</param>
    public string PinsOf(string own) => own.Trim().Length > 0 || PinSets.Count == 0 ? own : PinSets[0].Pins;
}

/// <summary>What a shop does with a jet that starves. Three schools: common practice, no source.</summary>
public enum JetSchool
{
    /// <summary>Back to the spec sheet's bore, never cut.</summary>
    ClearOnly,

    /// <summary>An idle jet in gauge may be opened one drill size.</summary>
    OneStepUp,

    /// <summary>A new jet goes in.</summary>
    Renew,
}

/// <summary>A set of gauge pins.</summary>
/// <param name="Name">What it is called, such as <c>bench 1</c>.</param>
/// <param name="Pins">The pins as they are typed, such as <c>#61-#80, 0.30-1.00 by 0.05</c>.</param>
public sealed record NamedPins(string Name, string Pins)
{
    private const int MostSets = 20,
        LongestName = 40,
        LongestPins = 500;

    /// <summary>Reads sets as they were typed: trimmed, empty ones left out, or what is wrong with them.</summary>
    /// <param name="typed">The sets.</param>
    public static (IReadOnlyList<NamedPins> Sets, IReadOnlyList<FieldProblem> Problems) Read(IReadOnlyList<NamedPins> typed)
    {
        var problems = new List<FieldProblem>();
        var sets = new List<NamedPins>();
        for (var i = 0; i < typed.Count; i++)
        {
            var one = new NamedPins(typed[i].Name.Trim(), typed[i].Pins.Trim());
            if (one is { Name: "", Pins: "" })
            {
                continue;
            }

            if (one.Name.Length is 0 or > LongestName)
            {
                problems.Add(new($"sets[{i}].name", $"Give the set a name of no more than {LongestName} letters."));
            }
            else if (sets.Any(other => other.Name.Equals(one.Name, StringComparison.OrdinalIgnoreCase)))
            {
                problems.Add(new($"sets[{i}].name", "Another set is called that."));
            }

            if (one.Pins.Length is 0 or > LongestPins)
            {
                problems.Add(
                    new($"sets[{i}].pins", $"Say which pins are in it, in no more than {LongestPins} letters: #61-#80, 0.30-1.00 by 0.05.")
                );
            }
            else if (PinSet.Parse(one.Pins).Problem is { } wrong)
            {
                problems.Add(new($"sets[{i}].pins", wrong));
            }

            sets.Add(one);
        }

        if (sets.Count > MostSets)
        {
            problems.Add(new("sets", $"No more than {MostSets} sets."));
        }

        return (sets, problems);
    }
}

/// <summary>A label for a tray.</summary>
/// <param name="WidthMm">Its width, in millimetres.</param>
/// <param name="HeightMm">Its height.</param>
public sealed record LabelSize(double WidthMm = 62, double HeightMm = 29);

/// <summary>What chokes are held against where a spec sheet says nothing.</summary>
/// <param name="VacuumOpenS">Latest a vacuum choke is fully open, in seconds. Usually 2 to 3: common practice, no source.</param>
/// <param name="HeatLowS">Earliest a heat choke is fully open on a day of 20 °C, in seconds. A couple of minutes: common practice, no
/// source; the edge is own judgement.</param>
/// <param name="HeatHighS">Latest it is, likewise.</param>
/// <param name="WaxBeginsC">Where a wax pellet begins to melt, in °C. From memory: paraffins of 26 to 34 carbons melt from 56 to 73
/// °C.</param>
/// <param name="WaxFullC">Where it is molten.</param>
/// <param name="WaxStrokeMm">Least stroke of a pellet that works, in millimetres. Own judgement.</param>
/// <param name="StripBeginsC">Where a bimetal coil begins to open the plate, in °C. Own judgement.</param>
/// <param name="StripFullC">Where it has opened it. Own judgement.</param>
/// <param name="RodSpareMm">Travel a release rod has to spare, in millimetres. Own judgement.</param>
/// <param name="ChamberHold">Hold test of a vacuum choke's chamber; 10 kPa for 10 s when not given. Own judgement.</param>
public sealed record ChokeDefaults(
    double VacuumOpenS = 3,
    double HeatLowS = 40,
    double HeatHighS = 240,
    double WaxBeginsC = 55,
    double WaxFullC = 75,
    double WaxStrokeMm = 2,
    double StripBeginsC = 35,
    double StripFullC = 70,
    double RodSpareMm = 1,
    HoldSpec? ChamberHold = null
)
{
    /// <summary>Hold test of a vacuum choke's chamber.</summary>
    public HoldSpec ChamberHold { get; init; } = ChamberHold ?? new(10, 10, 3, 2, 10, 0.5);
}

/// <summary>What quick tests on a machine are held against where a spec sheet says nothing.</summary>
/// <param name="TwoStrokeFloorKPa">Compression of a small two-stroke below which it is low: 50 psi, common practice, no source.</param>
/// <param name="TwoStrokeGoodKPa">From which it is good: 90 psi, likewise.</param>
/// <param name="FourStrokeFloorKPa">The same of a small four-stroke, whose decompressor takes part of it away. Own judgement.</param>
/// <param name="FourStrokeGoodKPa">From which it is good. Own judgement.</param>
/// <param name="CompressionPulls">Firm pulls before a low reading counts: at least ten, common practice, no source.</param>
/// <param name="BulbFew">Strokes a sound bulb takes that is not dry. Own judgement.</param>
/// <param name="BulbMany">Strokes from which, each time, something is wrong. Own judgement: tens at a first fill are common practice, no
/// source.</param>
/// <param name="MissingLeastML">Fuel or oil that a tank and a dipstick do not show, in millilitres. Own judgement.</param>
/// <param name="CoilTauMin">Time constant of a coil heating on a running engine, in minutes. Own judgement.</param>
/// <param name="RunsOnMin">Minutes without dying after which a machine is said to run on. Ten where it failed at five: common practice,
/// no source.</param>
public sealed record QuickTestDefaults(
    double TwoStrokeFloorKPa = 345,
    double TwoStrokeGoodKPa = 620,
    double FourStrokeFloorKPa = 207,
    double FourStrokeGoodKPa = 414,
    int CompressionPulls = 10,
    int BulbFew = 10,
    int BulbMany = 40,
    double MissingLeastML = 100,
    double CoilTauMin = 8,
    double RunsOnMin = 10
);

/// <summary>What the shop's time costs while a fault is traced.</summary>
/// <param name="LabourPerHour">Hourly rate, in the shop's currency, above 0.</param>
/// <param name="ProofMinutes">Minutes to prove a fix before the next is tried.</param>
/// <param name="ReferMinutes">What giving up costs, in minutes: sending it on, or a full clean and renewal blind.</param>
public sealed record TraceDefaults(double LabourPerHour, double ProofMinutes, double ReferMinutes)
{
    /// <summary>What is wrong with them, field by field; empty when they can be worked with.</summary>
    public IReadOnlyList<FieldProblem> Check()
    {
        var problems = new List<FieldProblem>();
        void Within(double value, double least, double most, string field, string must)
        {
            if (!double.IsFinite(value) || value < least || value > most)
            {
                problems.Add(new(field, must));
            }
        }

        Within(LabourPerHour, 0.01, 10_000, "labourPerHour", "An hourly rate must be above 0 and no more than 10000.");
        Within(ProofMinutes, 0, 600, "proofMin", "Proving a fix takes from 0 to 600 min.");
        Within(ReferMinutes, 0, 100_000, "referMin", "Giving up costs from 0 to 100000 min.");
        return problems;
    }
}

/// <summary>What decides between options, in the shop's settings.</summary>
/// <param name="WorthShare">Share of a machine's worth that a repair may cost, 0 to 1.</param>
/// <param name="ComebackMinutes">Minutes lost on a comeback besides doing the work again.</param>
/// <param name="InspectMinutes">Minutes spent before a machine is declined.</param>
/// <param name="KitMinutes">Minutes to fit a whole kit.</param>
/// <param name="CarburetorMinutes">Minutes to change the whole carburetor.</param>
/// <param name="DonorMinutes">Minutes to take one part from a donor and look it over.</param>
/// <param name="Returns">The share of each option that comes back, to start from.</param>
/// <param name="ReturnsWeight">How many fitted ones those shares count as.</param>
public sealed record FitDefaults(
    decimal WorthShare,
    double ComebackMinutes,
    double InspectMinutes,
    double KitMinutes,
    double CarburetorMinutes,
    double DonorMinutes,
    IReadOnlyDictionary<FitOption, double> Returns,
    double ReturnsWeight
);

/// <summary>What the shelf goes by, in the shop's settings.</summary>
/// <param name="ServiceLevel">How sure to be that the shelf lasts, 0 to 1.</param>
/// <param name="LookBackDays">Days of use that are looked back on.</param>
/// <param name="LatePerDay">What a day past a promised day is taken to cost.</param>
public sealed record StockDefaults(double ServiceLevel, int LookBackDays, decimal LatePerDay);

/// <summary>What the shop goes by when cleaning.</summary>
/// <param name="Baths">Its vessels.</param>
public sealed record CleaningDefaults(IReadOnlyList<Bath> Baths);
