namespace BlueDawn.Core.Tables;

/// <summary>A table of knowledge that a shop may change.</summary>
/// <param name="Name">Its name, such as <c>faults/causes.csv</c>.</param>
/// <param name="Label">What it is called.</param>
/// <param name="What">What stands in it.</param>
/// <param name="Keys">The columns that name a row; no two rows have the same in all of them.</param>
/// <param name="Stays">True when rows that ship with the product may be changed but not taken out: something else rests on them.</param>
/// <param name="Cautions">A column of cautions, or null: a row that ships may be given another caution, never fewer.</param>
/// <param name="NamedBy">The column by which entries of a logbook name a row, or null where none does.</param>
public sealed record KnowledgeTable(
    string Name,
    string Label,
    string What,
    IReadOnlyList<string> Keys,
    bool Stays = false,
    string? Cautions = null,
    string? NamedBy = null
)
{
    private readonly Lazy<(IReadOnlyList<string> Columns, IReadOnlyList<IReadOnlyList<string>> Rows)> shipped = new(() =>
        CsvTable.Cells(Name)
    );

    /// <summary>Every table, in the order they are shown.</summary>
    public static IReadOnlyList<KnowledgeTable> All { get; } =
    [
        new(
            "faults/causes.csv",
            "Causes",
            "What can be wrong, what mends it, what that takes, and how common it is.",
            ["id"],
            NamedBy: "id"
        ),
        new(
            "faults/findings.csv",
            "Findings",
            "What can be seen, heard or measured, and how often it is there by itself.",
            ["id"],
            true,
            NamedBy: "id"
        ),
        new(
            "faults/checks.csv",
            "Checks",
            "What can be looked at, how long it takes and which findings it shows.",
            ["id"],
            true,
            "caution",
            "id"
        ),
        new("faults/cause-findings.csv", "Links", "How a cause shows: which findings, and how often.", ["cause", "finding"]),
        new(
            "faults/needs.csv",
            "Before it is done",
            "What has to be so before something is done, what rules it out, and what asks for it.",
            ["need"],
            true
        ),
        new("faults/decisive.csv", "Findings that decide", "What is nearly always the fault once it is seen.", ["finding"]),
        new("faults/perishables.csv", "Renewed when seen bad", "Cheap parts that are renewed whatever else is wrong.", ["finding"]),
        new(
            "faults/fixes.csv",
            "What fixes need",
            "Whether the engine runs while it is mended, and what that endangers.",
            ["cause"],
            false,
            "caution"
        ),
        new("faults/done.csv", "What was done", "What the report says was done when a cause was put right.", ["cause"]),
        new("faults/contradictions.csv", "Told and seen", "What an owner tells and a bench sees that do not go together.", ["id"]),
        new("faults/strengths.csv", "Strengths", "What always, usually, sometimes and rarely mean.", ["word"], true),
        new(
            "faults/station-findings.csv",
            "Readings as findings",
            "What a verdict at a station says about the fault.",
            ["line", "judged", "finding"]
        ),
        new("faults/reliability.csv", "Witnesses", "How far an answer is believed, by who gave it.", ["from"], true),
        new("faults/apart.csv", "Apart", "What it takes to open it so far, and to close it again.", ["level"], true),
        new("cleaning/soils.csv", "Dirt", "Kinds of dirt.", ["key"], true, NamedBy: "key"),
        new(
            "cleaning/recipes.csv",
            "Recipes",
            "Ways to clean: what each takes off, how warm, how long, what has to be out first.",
            ["key"],
            false,
            "cautions",
            "key"
        ),
        new("cleaning/mixing.csv", "Not together", "What must not meet in one round of cleaning.", ["kind", "with"], true),
        new("cleaning/passages.csv", "Passages", "Where air goes in and has to come out.", ["families", "key"], NamedBy: "key"),
        new(
            "strip/parts.csv",
            "Parts",
            "What comes off, in which order, and what is asked about it.",
            ["families", "key"],
            true,
            NamedBy: "key"
        ),
        new("strip/ways.csv", "Ways round", "Which way round a part can lie.", ["group", "key"], true, NamedBy: "key"),
        new(
            "strip/jobs.csv",
            "How far apart",
            "How far a carburetor is taken apart, and which parts that takes off.",
            ["families", "key"],
            NamedBy: "key"
        ),
        new("strip/signs.csv", "Parts as findings", "What a part that came off says about the fault.", ["part", "sign", "finding"]),
        new(
            "build/stacks.csv",
            "Stacks",
            "What lies on what, which way round, and what goes wrong otherwise.",
            ["stack", "families", "place"]
        ),
        new("build/torques.csv", "Torques", "How firmly parts are fastened where the spec sheet does not say.", ["part"]),
        new(
            "build/settings.csv",
            "Starting settings",
            "Turns out a screw starts from where the spec sheet does not say.",
            ["family", "part"]
        ),
    ];

    /// <summary>Its columns.</summary>
    public IReadOnlyList<string> Columns => shipped.Value.Columns;

    /// <summary>The rows that ship with the product, cells in the order of the columns.</summary>
    public IReadOnlyList<IReadOnlyList<string>> Shipped => shipped.Value.Rows;

    /// <summary>A table by its name, or null.</summary>
    public static KnowledgeTable? Find(string name) => All.FirstOrDefault(table => table.Name == name);

    /// <summary>What names a row: its key cells with a blank between them.</summary>
    /// <param name="cells">Its cells, in the order of the columns.</param>
    public string KeyOf(IReadOnlyList<string> cells) => string.Join(' ', Keys.Select(key => cells[Place(key)]));

    /// <summary>Where a column stands.</summary>
    /// <param name="column">The column.</param>
    public int Place(string column) => Columns.ToList().IndexOf(column);
}
