using System.Text.Json.Serialization;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Tables;

namespace BlueDawn.Core.Parts;

/// <summary>One layer of a stack.</summary>
/// <param name="Place">1 lies on the base; higher ones further out.</param>
/// <param name="Part">The part's key.</param>
/// <param name="Way">The right way round; <c>=</c> for as it was found; null where there is none.</param>
/// <param name="Loose">True when it may lie either way about with the other loose layers of its stack: the sheet or the last builder
/// decides.</param>
/// <param name="Covers">What it closes over besides what lies under it.</param>
/// <param name="Trap">What to look at while it can still be put right, or null.</param>
/// <param name="Reason">Why it matters.</param>
/// <param name="Source">Where this is from.</param>
public sealed record StackLayer(
    int Place,
    string Part,
    string? Way,
    bool Loose,
    IReadOnlyList<string> Covers,
    string? Trap,
    string Reason,
    string Source
)
{
    /// <summary>The mark for “as it was found”.</summary>
    public const string AsFound = "=";

    /// <summary>True for a loose layer that goes back in the order in which it came off.</summary>
    [JsonIgnore]
    public bool LiesAsFound { get; init; }

    /// <summary>True for a layer of the outside that lies over another or a link only where it came off before it: what fastens there
    /// differs from machine to machine.</summary>
    [JsonIgnore]
    public bool GoesAsItCameOff { get; init; }
}

/// <summary>Parts that lie on one another in a certain order and way round.</summary>
/// <param name="Key">Stable name, such as <c>metering</c>.</param>
/// <param name="Label">Its name at the bench.</param>
/// <param name="Base">What it is built on.</param>
/// <param name="Layers">From the base outward.</param>
public sealed record StackPlan(string Key, string Label, string Base, IReadOnlyList<StackLayer> Layers);

/// <summary>How firmly a part is fastened.</summary>
/// <param name="Part">The part's key.</param>
/// <param name="TorqueNm">Newton metres, or null when no value is known.</param>
/// <param name="Source">Where the value is from; what to go by when there is none.</param>
public sealed record Torque(string Part, double? TorqueNm, string Source)
{
    /// <summary>Newton metres in a pound-force foot, exactly: 0.3048 m × 0.45359237 kg × 9.80665 m/s². Source: SI definitions of foot,
    /// pound and standard gravity.</summary>
    public const double NmPerLbfFt = 0.3048 * 0.45359237 * 9.80665;

    /// <summary>What to go by where no value is known.</summary>
    public static Torque Unknown(string part) => new(part, null, "No value known: snug, no more.");
}

/// <summary>Where a mixture screw starts from.</summary>
/// <param name="Part">The part's key.</param>
/// <param name="Label">Its name.</param>
/// <param name="TurnsEighths">Eighths of a turn out from a light seat.</param>
/// <param name="Source">Where the value is from.</param>
/// <param name="FoundEighths">What it was found at, or null.</param>
/// <param name="NotCounted">True when it was not counted at Strip.</param>
public sealed record StartingSetting(string Part, string Label, int TurnsEighths, string Source, int? FoundEighths, bool NotCounted);

/// <summary>What the bench knows about putting together. The tables are data/build/*.csv.</summary>
public sealed class StackKnowledge : IKnowledge<StackKnowledge>
{
    private readonly IReadOnlyList<(StackPlan Stack, IReadOnlyList<CarburetorFamily> Families)> stacks;
    private readonly IReadOnlyList<Torque> torques;
    private readonly IReadOnlyList<(CarburetorFamily Family, string Part, double Turns, string Source)> settings;

    private StackKnowledge(
        IReadOnlyList<(StackPlan Stack, IReadOnlyList<CarburetorFamily> Families)> stacks,
        IReadOnlyList<Torque> torques,
        IReadOnlyList<(CarburetorFamily Family, string Part, double Turns, string Source)> settings
    )
    {
        this.stacks = stacks;
        this.torques = torques;
        this.settings = settings;
    }

    /// <summary>The stacks of a family.</summary>
    public IReadOnlyList<StackPlan> Stacks(CarburetorFamily family) =>
        [.. stacks.Where(row => row.Families.Contains(family)).Select(row => row.Stack)];

    /// <summary>A part's layer in the stacks of a family, or null when it lies in none.</summary>
    public StackLayer? Layer(CarburetorFamily family, string part) =>
        Stacks(family).SelectMany(stack => stack.Layers).FirstOrDefault(layer => layer.Part == part);

    /// <summary>How firmly a part is fastened: the spec sheet's value, else what is common, else that none is known.</summary>
    public Torque TorqueOf(string part, SpecSheet? spec) =>
        spec?.Screws?.FirstOrDefault(screw => screw.Part == part && screw.TorqueNm is not null) is { } screw
            ? new Torque(part, screw.TorqueNm, $"Spec sheet {spec.Code}, issue {spec.Issue}")
            : torques.FirstOrDefault(torque => torque.Part == part) ?? Torque.Unknown(part);

    /// <summary>Turns out a screw starts from, and where that is from; null when there is no value.</summary>
    public (double Turns, string Source)? StartOf(string part, CarburetorFamily family, SpecSheet? spec)
    {
        if (spec?.Screws?.FirstOrDefault(screw => screw.Part == part)?.TurnsOut is { } turns)
        {
            return (turns, $"Spec sheet {spec.Code}, issue {spec.Issue}");
        }

        var usual = settings.Where(row => row.Family == family && row.Part == part).ToList();
        return usual.Count == 0 ? null : (usual[0].Turns, $"By family: {usual[0].Source}");
    }

    /// <summary>Starting settings of every screw of a ledger, beside what was found.</summary>
    public IReadOnlyList<StartingSetting> Starts(Ledger ledger, CarburetorFamily family, SpecSheet? spec) =>
        [
            .. ledger
                .Lines.Where(line => line.Part.Asks.Contains(Ask.Turns))
                .Select(line => (Line: line, Start: StartOf(line.Part.Key, family, spec)))
                .Where(pair => pair.Start is not null)
                .Select(pair => new StartingSetting(
                    pair.Line.Part.Key,
                    pair.Line.Part.Label,
                    Turns.OfTurns(pair.Start!.Value.Turns),
                    pair.Start.Value.Source,
                    pair.Line.Found?.TurnsEighths,
                    pair.Line.Found?.NotCounted ?? false
                )),
        ];

    /// <inheritdoc/>
    public static StackKnowledge Read(Knowledge knowledge)
    {
        var strip = knowledge.Of<LedgerKnowledge>();
        var known = Enum.GetValues<CarburetorFamily>()
            .ToDictionary(family => family, family => strip.All(family).ToDictionary(part => part.Key));
        string Part(TableRow row, IEnumerable<CarburetorFamily> families) =>
            families.All(family => known[family].ContainsKey(row.Text("part")))
                ? row.Text("part")
                : throw row.Wrong("part", "is not in strip/parts.csv for every family of the row");
        string? Way(TableRow row) =>
            row.TextOrNull("way") is not { } way
            || way == StackLayer.AsFound
            || row.Families("families").All(family => known[family][row.Text("part")].Ways.Any(one => one.Key == way))
                ? row.TextOrNull("way")
                : throw row.Wrong("way", "is not a way of this part in strip/ways.csv");
        string[] Covers(TableRow row) =>
            row.MayBeEmpty("covers").Split(' ', StringSplitOptions.RemoveEmptyEntries) is var covers
            && covers.FirstOrDefault(part => row.Families("families").Any(family => !known[family].ContainsKey(part))) is { } unknown
                ? throw row.Wrong("covers", $"speaks of {unknown}, which is not in strip/parts.csv")
                : covers;
        var rows = knowledge.Rows("build/stacks.csv", row =>
            (
                Stack: row.Text("stack"),
                Label: row.Text("label"),
                Families: row.Families("families"),
                Base: row.Text("part"),
                Layer: row.Number("place") == 0
                    ? null
                    : new StackLayer(
                        (int)row.Number("place"),
                        Part(row, row.Families("families")),
                        Way(row),
                        row.MayBeEmpty("loose") is "yes" or "as-found",
                        Covers(row),
                        row.TextOrNull("trap"),
                        row.Text("reason"),
                        row.Text("source")
                    )
                    {
                        LiesAsFound = row.MayBeEmpty("loose") == "as-found",
                        GoesAsItCameOff = row.MayBeEmpty("loose") == "as-off",
                    }
            )
        );
        return new StackKnowledge(
            [
                .. rows.GroupBy(row => (row.Stack, row.Label, Families: string.Join(' ', row.Families)))
                    .Select(group =>
                        (
                            new StackPlan(
                                group.Key.Stack,
                                group.Key.Label,
                                group.First(row => row.Layer is null).Base,
                                [.. group.Select(row => row.Layer).OfType<StackLayer>().OrderBy(layer => layer.Place)]
                            ),
                            group.First().Families
                        )
                    ),
            ],
            knowledge.Rows("build/torques.csv", row => new Torque(
                known.Values.Any(parts => parts.ContainsKey(row.Text("part")))
                    ? row.Text("part")
                    : throw row.Wrong("part", "is not in strip/parts.csv"),
                row.Number("torque_nm"),
                row.Text("source")
            )),
            [
                .. knowledge
                    .Rows("build/settings.csv", row =>
                        (
                            row.Families("family"),
                            Part: Part(row, row.Families("family")),
                            Turns: row.Number("turns_out"),
                            Source: row.Text("source")
                        )
                    )
                    .SelectMany(row => row.Item1.Select(family => (family, row.Part, row.Turns, row.Source))),
            ]
        );
    }
}
