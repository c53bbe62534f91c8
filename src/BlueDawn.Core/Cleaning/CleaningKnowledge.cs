using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Safety;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Tables;

namespace BlueDawn.Core.Cleaning;

/// <summary>What dirt there is.</summary>
/// <param name="Key">Stable name.</param>
/// <param name="Label">The same in words.</param>
public sealed record Soil(string Key, string Label);

/// <summary>A way to clean.</summary>
/// <param name="Key">Stable name, such as <c>bath</c>.</param>
/// <param name="Label">The same in words.</param>
/// <param name="Vessel">What it is done in.</param>
/// <param name="Kind">What decides what may be mixed: <c>solvent</c>, <c>water</c>, <c>heat</c>, <c>acid</c>, <c>rinse</c>.</param>
/// <param name="LowC">Coldest that counts, degrees Celsius; null when temperature does not come in.</param>
/// <param name="TargetC">Best temperature.</param>
/// <param name="HighC">Hottest that is allowed.</param>
/// <param name="Minutes">Minutes it takes.</param>
/// <param name="MoreMinutes">Minutes more when it is not clean yet; null where that does not come in.</param>
/// <param name="OutFirst">Materials that are taken out before.</param>
/// <param name="Soils">Dirt it is for.</param>
/// <param name="Rinse">How it is rinsed.</param>
/// <param name="Dry">How it is dried.</param>
/// <param name="Cautions">What can hurt.</param>
/// <param name="Source">Where this is from.</param>
public sealed record CleaningRecipe(
    string Key,
    string Label,
    Vessel Vessel,
    string Kind,
    double? LowC,
    double? TargetC,
    double? HighC,
    double Minutes,
    double? MoreMinutes,
    IReadOnlyList<Material> OutFirst,
    IReadOnlyList<string> Soils,
    string Rinse,
    string Dry,
    IReadOnlyList<Caution> Cautions,
    string Source
);

/// <summary>Two kinds that must not be used on one tray in the same round.</summary>
/// <param name="Kind">One.</param>
/// <param name="With">The other.</param>
/// <param name="Why">Why.</param>
public sealed record MixingRule(string Kind, string With, string Why);

/// <summary>A passage that has to be clear.</summary>
/// <param name="Key">Stable name within the family.</param>
/// <param name="Label">Its name.</param>
/// <param name="Into">Where air goes in.</param>
/// <param name="Exit">Where it has to come out.</param>
/// <param name="Gentle">True when a check valve sits in it: a blast ruins it.</param>
public sealed record Passage(string Key, string Label, string Into, string Exit, bool Gentle);

/// <summary>What the bench knows about cleaning. The tables are data/cleaning/*.csv.</summary>
public sealed class CleaningKnowledge : IKnowledge<CleaningKnowledge>
{
    private readonly IReadOnlyList<(Passage Passage, IReadOnlyList<CarburetorFamily> Families, bool InTheNut)> passages;

    private CleaningKnowledge(
        IReadOnlyList<CleaningRecipe> recipes,
        IReadOnlyList<Soil> soils,
        IReadOnlyList<MixingRule> mixing,
        IReadOnlyList<(Passage Passage, IReadOnlyList<CarburetorFamily> Families, bool InTheNut)> passages
    )
    {
        Recipes = recipes;
        Soils = soils;
        Mixing = mixing;
        this.passages = passages;
    }

    /// <summary>Every way to clean.</summary>
    public IReadOnlyList<CleaningRecipe> Recipes { get; }

    /// <summary>Every kind of dirt.</summary>
    public IReadOnlyList<Soil> Soils { get; }

    /// <summary>What must not be mixed.</summary>
    public IReadOnlyList<MixingRule> Mixing { get; }

    /// <summary>A recipe by its key, or null.</summary>
    public CleaningRecipe? Find(string recipe) => Recipes.FirstOrDefault(one => one.Key == recipe);

    /// <summary>The passages of a carburetor.</summary>
    /// <param name="family">Its family.</param>
    /// <param name="sheet">Its spec sheet, or null: one without a main jet of its own has it drilled in the bowl nut.</param>
    public IReadOnlyList<Passage> Passages(CarburetorFamily family, SpecSheet? sheet) =>
        [
            .. passages
                .Where(row => row.Families.Contains(family) && (!row.InTheNut || sheet?.Jets.Any(jet => jet.Key == "main-jet") == false))
                .Select(row => row.Passage),
        ];

    /// <summary>Why two recipes must not be used in the same round, or null when they may.</summary>
    public string? Clash(CleaningRecipe one, CleaningRecipe other) =>
        Mixing
            .FirstOrDefault(rule =>
                (rule.Kind == one.Kind && rule.With == other.Kind) || (rule.Kind == other.Kind && rule.With == one.Kind)
            )
            ?.Why;

    /// <inheritdoc/>
    public static CleaningKnowledge Read(Knowledge knowledge)
    {
        var soils = knowledge.Rows("cleaning/soils.csv", row => new Soil(row.Text("key"), row.Text("label")));
        var recipes = knowledge.Rows("cleaning/recipes.csv", row =>
        {
            var vessel = row.Word<Vessel>("vessel");
            if (
                vessel == Vessel.Heated
                && (row.DecimalOrNull("low_c"), row.DecimalOrNull("target_c"), row.DecimalOrNull("high_c"))
                    is not
                    ({ } low, { } target, { } high)
            )
            {
                throw row.Wrong("low_c", "is needed for the heated bath, with target and high");
            }

            return new CleaningRecipe(
                row.Text("key"),
                row.Text("label"),
                vessel,
                row.Text("kind"),
                (double?)row.DecimalOrNull("low_c"),
                (double?)row.DecimalOrNull("target_c"),
                (double?)row.DecimalOrNull("high_c"),
                row.Number("minutes"),
                (double?)row.DecimalOrNull("more_minutes"),
                [
                    .. Words(row, "out_first")
                        .Select(word =>
                            Enum.TryParse<Material>(word, true, out var material)
                                ? material
                                : throw row.Wrong("out_first", "names an unknown material")
                        ),
                ],
                [
                    .. Words(row, "soils")
                        .Select(word =>
                            soils.Any(soil => soil.Key == word)
                                ? word
                                : throw row.Wrong("soils", "names dirt that is not in cleaning/soils.csv")
                        ),
                ],
                row.Text("rinse"),
                row.Text("dry"),
                [.. Words(row, "cautions").Select(word => Caution.Find(word) ?? throw row.Wrong("cautions", "names an unknown caution"))],
                row.Text("source")
            );
        });
        var kinds = recipes.Select(recipe => recipe.Kind).ToHashSet();
        return new CleaningKnowledge(
            recipes,
            soils,
            knowledge.Rows("cleaning/mixing.csv", row =>
                kinds.Contains(row.Text("kind")) && kinds.Contains(row.Text("with"))
                    ? new MixingRule(row.Text("kind"), row.Text("with"), row.Text("why"))
                    : throw row.Wrong("kind", "or its other half is no recipe’s kind")
            ),
            knowledge.Rows("cleaning/passages.csv", row => (
                    new Passage(row.Text("key"), row.Text("label"), row.Text("into"), row.Text("exit"), row.Text("gentle") == "yes"),
                    row.Families("families"),
                    row.Text("when") switch
                    {
                        "always" => false,
                        "no-main-jet" => true,
                        _ => throw row.Wrong("when", "is neither always nor no-main-jet"),
                    }
                ))
        );
    }

    private static string[] Words(TableRow row, string column) => row.MayBeEmpty(column).Split(' ', StringSplitOptions.RemoveEmptyEntries);
}
