using System.Text.Json.Serialization;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Tables;

namespace BlueDawn.Core.Parts;

/// <summary>What is worth writing down as a part comes out.</summary>
public enum Ask
{
    /// <summary>Turns from the seat.</summary>
    Turns,

    /// <summary>How far a thread stands in.</summary>
    Thread,

    /// <summary>Which hole a link sat in.</summary>
    Hole,

    /// <summary>Length and place of its screws.</summary>
    Screw,

    /// <summary>Head and place of its screws or bolts: which went where tells them apart, nobody measures them.</summary>
    Bolt,

    /// <summary>Which way round it sat.</summary>
    Way,

    /// <summary>Where it sat: a hook's other end, a cable's outer, the prints of its washers.</summary>
    Place,

    /// <summary>Whether a new one is the same or only near to it: a spring from another maker pulls otherwise.</summary>
    Match,
}

/// <summary>What a part is made of, as far as cleaning cares.</summary>
public enum Material
{
    /// <summary>Metal.</summary>
    Metal,

    /// <summary>Rubber.</summary>
    Rubber,

    /// <summary>Plastic.</summary>
    Plastic,

    /// <summary>Paper or fibre.</summary>
    Gasket,

    /// <summary>A thin membrane.</summary>
    Membrane,

    /// <summary>Wire and coil.</summary>
    Electrical,
}

/// <summary>One way round a part can sit.</summary>
/// <param name="Key">Stable name, such as <c>into-body</c>.</param>
/// <param name="Label">The same in words.</param>
/// <param name="Sheet">What a spec sheet calls it, or null.</param>
public sealed record Way(string Key, string Label, string? Sheet = null);

/// <summary>A part a carburetor of a family is expected to have.</summary>
/// <param name="Key">Stable name within the family, such as <c>bowl-gasket</c>.</param>
/// <param name="Label">Its name at the bench.</param>
/// <param name="Group">What it comes off with.</param>
/// <param name="Order">Its place in the order of removal.</param>
/// <param name="Asks">What is worth writing down.</param>
/// <param name="WayGroup">The drawing its ways round are chosen from, or null.</param>
/// <param name="Ways">Its ways round; empty when it has none.</param>
/// <param name="Material">What it is made of.</param>
/// <param name="KitPart">What a kit calls what renews it, or null.</param>
/// <param name="NewEachTime">True for a part that is not used twice: each time it comes off a new one goes in, bought or made.</param>
/// <param name="Remind">What is easily lost or spoiled here, or null.</param>
/// <param name="Sure">False when nothing says whether this carburetor has it.</param>
/// <param name="Source">Where this is from.</param>
public sealed record StripPart(
    string Key,
    string Label,
    string Group,
    int Order,
    IReadOnlyList<Ask> Asks,
    string? WayGroup,
    IReadOnlyList<Way> Ways,
    Material Material,
    string? KitPart,
    bool NewEachTime,
    string? Remind,
    bool Sure,
    string Source
)
{
    /// <summary>Whether it may be off while the engine is tried: what is read then counts for the fault, not for how the tray is left.</summary>
    public bool MayBeOff { get; init; }

    /// <summary>Whether it may be off while a choke is timed: with the filter off the plate is seen. What seals a choke's vacuum may not.</summary>
    public bool OffForChoke { get; init; }

    /// <summary>True for a part that only some carburetors of the family have: it is asked for, or entered by name.</summary>
    [JsonIgnore]
    public bool IsOptional { get; init; }

    /// <summary>What has to be proven once it was off.</summary>
    [JsonIgnore]
    public IReadOnlyList<Proof> Proves { get; init; } = [];

    /// <summary>A part that is on no list: somebody put it there, or this carburetor is another than its sheet says.</summary>
    /// <param name="key">Its key, made by the client.</param>
    /// <param name="label">What it is.</param>
    public static StripPart Extra(string key, string label) =>
        new(key, label, "Found besides", int.MaxValue, [], null, [], Material.Metal, null, false, null, true, "entered at the bench")
        {
            Proves = [Proof.Fuel],
        };
}

/// <summary>How far a carburetor is taken apart.</summary>
/// <param name="Key">Stable name, such as <c>full</c>.</param>
/// <param name="Label">The same in words.</param>
/// <param name="Parts">Parts that come off; null for all.</param>
/// <param name="Note">What to know before.</param>
public sealed record StripJob(string Key, string Label, IReadOnlyList<string>? Parts, string Note)
{
    /// <summary>Parts that lie open to be looked at without coming off.</summary>
    [JsonIgnore]
    public IReadOnlyList<string> Shows { get; init; } = [];

    /// <summary>Whether a part comes off in this job.</summary>
    public bool Takes(string part) => Parts is null || Parts.Contains(part);
}

/// <summary>What a line of the ledger says about the fault.</summary>
/// <param name="Part">The part, or <c>*</c> for any.</param>
/// <param name="Sign">A verdict, <c>wrong-way</c>, <c>turns-low</c> or <c>turns-high</c>.</param>
/// <param name="TurnsOff">Turns off the starting setting from which it counts; null where turns do not come in.</param>
/// <param name="FindingId">The finding.</param>
public sealed record StripSign(string Part, string Sign, double? TurnsOff, string FindingId)
{
    /// <summary>The sign of a part that came out the wrong way round.</summary>
    public const string WrongWay = "wrong-way";
}

/// <summary>What the bench knows about taking apart. The tables are data/strip/*.csv.</summary>
public sealed class LedgerKnowledge : IKnowledge<LedgerKnowledge>
{
    private sealed record PartRow(StripPart Part, IReadOnlyList<CarburetorFamily> Families, string When);

    /// <summary>Words for what is to be proven; an empty cell stands for nothing.</summary>
    /// <param name="row">The row.</param>
    /// <param name="column">The column.</param>
    public static IReadOnlyList<Proof> Proofs(TableRow row, string column) =>
        [
            .. row.MayBeEmpty(column)
                .Split(' ', StringSplitOptions.RemoveEmptyEntries)
                .Select(word =>
                    Enum.TryParse<Proof>(word, true, out var proof) ? proof : throw row.Wrong(column, "names what nothing is proven by")
                ),
        ];

    private sealed record JobRow(StripJob Job, IReadOnlyList<CarburetorFamily> Families);

    private readonly IReadOnlyList<PartRow> parts;
    private readonly IReadOnlyList<JobRow> jobs;

    private LedgerKnowledge(IReadOnlyList<PartRow> parts, IReadOnlyList<JobRow> jobs, IReadOnlyList<StripSign> signs)
    {
        this.parts = parts;
        this.jobs = jobs;
        Signs = signs;
    }

    /// <summary>What lines of the ledger say about the fault.</summary>
    public IReadOnlyList<StripSign> Signs { get; }

    /// <summary>How far a carburetor of a family can be taken apart.</summary>
    public IReadOnlyList<StripJob> Jobs(CarburetorFamily family) =>
        [.. jobs.Where(row => row.Families.Contains(family)).Select(row => row.Job)];

    /// <summary>The parts a carburetor should have, in the order they come off.</summary>
    /// <param name="kind">Its kind.</param>
    /// <param name="spec">Its spec sheet; without one, parts that hang on it are listed as not sure.</param>
    public IReadOnlyList<StripPart> Expected(CarburetorKind kind, SpecSheet? spec) =>
        [
            .. Of(kind.Family)
                .Select(row => (row.Part, Has: Has(row.When, kind, spec)))
                .Where(pair => pair.Has != false)
                .Select(pair => pair.Part with { Sure = pair.Has == true, Material = MaterialOf(pair.Part, spec) }),
        ];

    /// <summary>Every part a family can have, the ones offered only by name too.</summary>
    public IReadOnlyList<StripPart> All(CarburetorFamily family) => [.. Of(family).Select(row => row.Part)];

    /// <inheritdoc/>
    public static LedgerKnowledge Read(Knowledge knowledge)
    {
        var kits = PartKnowledge.Shipped;
        var ways = knowledge
            .Rows("strip/ways.csv", row =>
                (Group: row.Text("group"), Way: new Way(row.Text("key"), row.Text("label"), row.TextOrNull("sheet")))
            )
            .ToLookup(row => row.Group, row => row.Way);
        var seen = Enum.GetValues<CarburetorFamily>().ToDictionary(family => family, _ => new HashSet<string>());
        var parts = knowledge.Rows("strip/parts.csv", row =>
        {
            var group = row.TextOrNull("ways");
            if (group is not null && !ways.Contains(group))
            {
                throw row.Wrong("ways", "is not a group of strip/ways.csv");
            }

            if (row.TextOrNull("kit_part") is { } kitPart && kits.Find(kitPart) is null)
            {
                throw row.Wrong("kit_part", "is not in parts/parts.csv");
            }

            if (!row.Text("when").Split(';', StringSplitOptions.TrimEntries).All(condition => IsCondition(condition, kits)))
            {
                throw row.Wrong("when", "is not a condition");
            }

            foreach (var family in row.Families("families"))
            {
                row.Once("key", seen[family]);
            }

            return new PartRow(
                new StripPart(
                    row.Text("key"),
                    row.Text("label"),
                    row.Text("group"),
                    (int)row.Number("order"),
                    [
                        .. row.MayBeEmpty("asks")
                            .Split(' ', StringSplitOptions.RemoveEmptyEntries)
                            .Select(word =>
                                Enum.TryParse<Ask>(word, true, out var ask) ? ask : throw row.Wrong("asks", "asks for something unknown")
                            ),
                    ],
                    group,
                    group is null ? [] : [.. ways[group]],
                    row.Word<Material>("material"),
                    row.TextOrNull("kit_part"),
                    row.MayBeEmpty("each_time") == "new",
                    row.TextOrNull("remind"),
                    true,
                    row.Text("source")
                )
                {
                    MayBeOff = row.MayBeEmpty("trial") is "off" or "running",
                    OffForChoke = row.MayBeEmpty("trial") == "off",
                    Proves = Proofs(row, "proves"),
                    IsOptional = row.Text("when") == "maybe",
                },
                row.Families("families"),
                row.Text("when")
            );
        });
        var known = parts.Select(row => row.Part.Key).ToHashSet();
        var jobs = knowledge.Rows("strip/jobs.csv", row =>
        {
            var list = row.MayBeEmpty("parts");
            IReadOnlyList<string>? taken = list == "*" ? null : list.Split(' ', StringSplitOptions.RemoveEmptyEntries);
            return taken?.FirstOrDefault(part => !known.Contains(part)) is { } unknown
                ? throw row.Wrong("parts", $"speaks of {unknown}, which is not in strip/parts.csv")
                : new JobRow(
                    new StripJob(row.Text("key"), row.Text("label"), taken, row.Text("note")) { Shows = row.WordsOf("shows") },
                    row.Families("families")
                );
        });
        var signs = knowledge.Rows("strip/signs.csv", row => new StripSign(
            row.Text("part") is "*" || known.Contains(row.Text("part"))
                ? row.Text("part")
                : throw row.Wrong("part", "is not in strip/parts.csv"),
            row.Text("sign"),
            (double?)row.DecimalOrNull("turns_off"),
            row.Text("finding")
        ));
        return new LedgerKnowledge([.. parts.OrderBy(row => row.Part.Order)], jobs, signs);
    }

    private IEnumerable<PartRow> Of(CarburetorFamily family) => parts.Where(row => row.Families.Contains(family));

    /// <summary>What a part is made of: by the sheet where that says it is metal, else as is usual for its family.</summary>
    private static Material MaterialOf(StripPart part, SpecSheet? spec) =>
        spec?.Needs.FirstOrDefault(need => need.Part == part.KitPart)?.Features is { } features
        && (features.GetValueOrDefault("made of") is "brass" || features.GetValueOrDefault("tip") is "metal")
            ? Material.Metal
            : part.Material;

    /// <summary>Whether a carburetor has a part: yes, no, or nothing says so.</summary>
    private static bool? Has(string when, CarburetorKind kind, SpecSheet? spec)
    {
        var all = when.Split(';', StringSplitOptions.TrimEntries).Select(condition => Holds(condition, kind, spec)).ToList();
        return all.Contains(false) ? false
            : all.Contains(null) ? null
            : true;
    }

    private static bool IsCondition(string when, PartKnowledge kits) =>
        when.Split(':') switch
        {
            ["always" or "maybe" or "emulsion" or "idle-speed"] or ["jet", _] => true,
            ["choke", var choke] => Enum.TryParse<ChokeKind>(choke, true, out var found) && Enum.IsDefined(found),
            ["need", var part] => kits.Find(part) is not null,
            ["needles", var count] => int.TryParse(count, out var needles) && needles > 0,
            _ => false,
        };

    private static bool? Holds(string when, CarburetorKind kind, SpecSheet? spec)
    {
        var (word, argument) = when.Split(':') is [var first, var second] ? (first, second) : (when, "");
        return (word, spec) switch
        {
            ("always", _) => true,
            ("maybe", _) => false,
            ("choke", _) => kind.Choke is { } choke ? choke.ToString().Equals(argument, StringComparison.OrdinalIgnoreCase) : null,
            (_, null) => null,
            ("need", _) => spec.Needs.Any(need => need.Part == argument),
            ("jet", _) => spec.Jets.Any(jet => jet.Key == argument),
            ("emulsion", _) => spec.EmulsionRows.Count > 0,
            ("idle-speed", _) => spec.IdleSpeed is not null,
            ("needles", _) => spec.Traits is { } traits
                ? traits.MixtureNeedles >= int.Parse(argument, System.Globalization.CultureInfo.InvariantCulture)
                : null,
            _ => throw new ArgumentException($"“{when}” is not a condition.", nameof(when)),
        };
    }
}
