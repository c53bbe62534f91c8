using System.Globalization;
using System.Text.Json.Serialization;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Shop;

namespace BlueDawn.Core.Cleaning;

/// <summary>Whether a way to clean is right for a tray now.</summary>
public enum RecipeStanding
{
    /// <summary>It must not be used now.</summary>
    NotNow,

    /// <summary>It may be used.</summary>
    Possible,

    /// <summary>It is for this dirt.</summary>
    Advised,
}

/// <summary>A piece that can be cleaned by itself.</summary>
/// <param name="Key">The part's key, or <see cref="CleaningPlan.Body"/>.</param>
/// <param name="Label">Its name.</param>
/// <param name="Material">What it is made of, by the sheet where that says it.</param>
public sealed record CleaningPiece(string Key, string Label, Material Material);

/// <summary>A way to clean, as it stands for a tray.</summary>
/// <param name="Recipe">The recipe.</param>
/// <param name="Standing">Whether it is right now.</param>
/// <param name="Why">Why.</param>
/// <param name="TakeOutFirst">Parts that are still in the body and must not go through it: they come out before the body goes in.</param>
/// <param name="StaysOut">Parts that must not go in with it: those that lie on the bench, or, while nothing has been taken apart, all it
/// may have.</param>
/// <param name="Chosen">Whether it has been chosen and not been done.</param>
/// <param name="Done">Whether it has been done.</param>
/// <param name="GoesIn">Keys of the pieces that go in where nobody chooses others: what was chosen for it before, or what lies on the bench
/// and may, and the body where all of it is in pieces.</param>
public sealed record RecipeOffer(
    CleaningRecipe Recipe,
    RecipeStanding Standing,
    string Why,
    IReadOnlyList<string> TakeOutFirst,
    IReadOnlyList<string> StaysOut,
    bool Chosen,
    bool Done,
    IReadOnlyList<string> GoesIn
)
{
    /// <summary>True when it must not follow what was used before, whatever goes in.</summary>
    [JsonIgnore]
    public bool Clashes { get; init; }
}

/// <summary>A passage as it stands.</summary>
/// <param name="Passage">The passage.</param>
/// <param name="Cleaned">Whether it has been cleaned.</param>
/// <param name="AirSeen">Whether air was seen at its exit.</param>
public sealed record PassageStanding(Passage Passage, bool Cleaned, bool AirSeen)
{
    /// <summary>True while it has not been cleaned, or no air has been seen.</summary>
    public bool IsOpen => !Cleaned || !AirSeen;
}

/// <summary>How a tray's parts are to be cleaned, and how far that is.</summary>
/// <param name="Soils">What dirt there is; null while nobody has looked.</param>
/// <param name="Offers">Every way to clean.</param>
/// <param name="Passages">Every passage.</param>
/// <param name="Wet">True when something was used and has not been rinsed and dried since.</param>
/// <param name="Caution">What could not be made sure of, or null.</param>
/// <param name="Pieces">What can be cleaned by itself: the body, and what lies on the bench.</param>
public sealed record CleaningPlan(
    IReadOnlyList<string>? Soils,
    IReadOnlyList<RecipeOffer> Offers,
    IReadOnlyList<PassageStanding> Passages,
    bool Wet,
    string? Caution,
    IReadOnlyList<CleaningPiece> Pieces
)
{
    /// <summary>The key of the body among the pieces: what is left of the carburetor when everything that was taken out is out.</summary>
    public const string Body = "body";

    private const int LongestReason = 200;

    /// <summary>Most minutes that anything is cleaned: four weeks.</summary>
    private const double LongestMin = 40_320;

    /// <summary>How many passages no air has been seen through.</summary>
    public int OpenPassages => Passages.Count(passage => passage.IsOpen);

    /// <summary>The plan as a tray's entries leave it.</summary>
    /// <param name="knowledge">What the bench knows about cleaning.</param>
    /// <param name="passages">The passages of its family.</param>
    /// <param name="ledger">Its ledger: what is out and what is still in.</param>
    /// <param name="notes">Its entries about cleaning, oldest first.</param>
    public static CleaningPlan Of(
        CleaningKnowledge knowledge,
        IReadOnlyList<Passage> passages,
        Ledger ledger,
        IReadOnlyList<Logged<CleaningNote>> notes
    )
    {
        var soils = notes.Select(logged => logged.Note).OfType<SoilsNote>().LastOrDefault()?.Soils;
        var round = notes
            .Reverse()
            .TakeWhile(logged => logged.Note is not DryNote)
            .Reverse()
            .Select(logged => logged.Note)
            .OfType<MethodNote>()
            .ToList();
        var standing = round.GroupBy(note => note.Recipe).ToDictionary(group => group.Key, group => group.Last().Step);
        // Chosen before the last rinse and not done yet is chosen still.
        foreach (
            var earlier in notes
                .Select(logged => logged.Note)
                .OfType<MethodNote>()
                .GroupBy(note => note.Recipe)
                .Where(group => group.Last().Step is MethodStep.Chosen or MethodStep.Short)
        )
        {
            standing.TryAdd(earlier.Key, MethodStep.Chosen);
        }

        var used = knowledge
            .Recipes.Where(recipe => standing.GetValueOrDefault(recipe.Key, MethodStep.Dropped) != MethodStep.Dropped)
            .ToList();
        var everDone = notes
            .Select(logged => logged.Note)
            .OfType<MethodNote>()
            .Where(note => note.Step == MethodStep.Done)
            .Select(note => note.Recipe)
            .ToHashSet();
        // What did not come off is still to come off, whatever was done.
        var tookItOff = notes
            .Select(logged => logged.Note)
            .OfType<MethodNote>()
            .Where(note => note.TookItOff)
            .Select(note => note.Recipe)
            .ToHashSet();
        var left = (soils ?? [])
            .Where(soil => knowledge.Recipes.All(recipe => !tookItOff.Contains(recipe.Key) || !recipe.Soils.Contains(soil)))
            .ToList();
        CleaningPiece[] pieces =
        [
            new(Body, "body of the carburetor", Material.Metal),
            .. ledger
                .Lines.Where(line => line.State == LedgerState.Out && line.Part.Key != "carburetor")
                .Select(line => new CleaningPiece(line.Part.Key, line.Part.Label, line.Part.Material)),
        ];
        var chosenFor = notes
            .Select(logged => logged.Note)
            .OfType<MethodNote>()
            .GroupBy(note => note.Recipe)
            .Where(group => group.Last() is { Step: MethodStep.Chosen or MethodStep.Short })
            .ToDictionary(group => group.Key, group => group.Last().Pieces);
        var last = notes
            .Where(logged => logged.Note is PassageNote)
            .Select(logged => (PassageNote)logged.Note)
            .GroupBy(note => note.Passage)
            .ToDictionary(group => group.Key, group => group.Last());
        return new CleaningPlan(
            soils,
            [
                .. knowledge.Recipes.Select(recipe =>
                    Offer(knowledge, recipe, ledger, left, used, standing, everDone, pieces, chosenFor.GetValueOrDefault(recipe.Key))
                ),
            ],
            [
                .. passages.Select(passage =>
                    last.TryGetValue(passage.Key, out var note)
                        ? new PassageStanding(passage, note.Cleaned, note.AirSeen)
                        : new PassageStanding(passage, false, false)
                ),
            ],
            round.Any(note => note.Step is MethodStep.Done or MethodStep.Short),
            ledger.IsBegun ? null : "Nothing is written at Strip: make sure yourself that rubber, plastic and diaphragms are out.",
            pieces
        );
    }

    /// <summary>A recipe as it stands for the tray, or null when there is none of that key.</summary>
    public RecipeOffer? Find(string recipe) => Offers.FirstOrDefault(offer => offer.Recipe.Key == recipe);

    /// <summary>The way to clean that a vessel is for, as it stands for the tray; the first of the table when there are several.</summary>
    /// <param name="vessel">The vessel.</param>
    public RecipeOffer ForVessel(Vessel vessel) => Offers.First(offer => offer.Recipe.Vessel == vessel);

    /// <summary>What is wrong with an entry as things stand, field by field; empty when it can be recorded.</summary>
    public IReadOnlyList<FieldProblem> Check(CleaningNote note, CleaningKnowledge knowledge) =>
        note switch
        {
            SoilsNote soils when soils.Soils.FirstOrDefault(soil => knowledge.Soils.All(one => one.Key != soil)) is { } unknown =>
            [
                new("note.soils", $"There is no dirt called “{unknown}”. Pick from the list."),
            ],
            MethodNote method when Find(method.Recipe) is not { } =>
            [
                new("note.recipe", "There is no such way to clean. Pick one from the list."),
            ],
            MethodNote { Step: not MethodStep.Dropped } method when Find(method.Recipe) is { } offer => CheckMethod(method, offer),
            PassageNote passage when Passages.All(one => one.Passage.Key != passage.Passage) =>
            [
                new("note.passage", "There is no such passage on this carburetor."),
            ],
            _ => [],
        };

    private List<FieldProblem> CheckMethod(MethodNote method, RecipeOffer offer)
    {
        // What was chosen before is in by now: a basket is always taken out again.
        var isIn = offer.Chosen && method.Step is MethodStep.Done or MethodStep.Short;
        if (offer.Standing == RecipeStanding.NotNow && !isIn && (method.Pieces is null || offer.Clashes))
        {
            return [new("note.recipe", offer.Why)];
        }

        var problems = new List<FieldProblem>();
        if (method.Pieces is { } pieces)
        {
            if (pieces.Count == 0)
            {
                problems.Add(new("note.pieces", "Say what goes in."));
            }

            foreach (var key in pieces.Where(key => !isIn || !offer.GoesIn.Contains(key)))
            {
                // What went in may be back in its place by now: only what has not begun is held against the bench.
                if (Pieces.FirstOrDefault(one => one.Key == key) is not { } piece)
                {
                    if (method.Step == MethodStep.Chosen)
                    {
                        problems.Add(new("note.pieces", $"“{key}” does not lie on the bench. Take it out first, or leave it away."));
                    }
                }
                else if (key == Body && offer.TakeOutFirst.Count > 0)
                {
                    problems.Add(
                        new(
                            "note.pieces",
                            $"The body only without these: {string.Join(", ", offer.TakeOutFirst)}. Take them out, or leave the body away."
                        )
                    );
                }
                else if (
                    offer.Recipe.OutFirst.Contains(piece.Material)
                    && method.SoBecause is null
                    && !(offer.Chosen && offer.GoesIn.Contains(key))
                )
                {
                    problems.Add(
                        new(
                            "note.soBecause",
                            $"{Capital(piece.Label)}: {Word(piece.Material)} does not go through this. Leave it away, or say why it may here."
                        )
                    );
                }
            }
        }

        if (method.SoBecause is { } because && Reason.Problem(because) is { } tooShort)
        {
            problems.Add(new("note.soBecause", tooShort));
        }
        else if (method.SoBecause?.Length > LongestReason)
        {
            problems.Add(new("note.soBecause", $"No longer than {LongestReason} characters."));
        }

        if (method.Minutes is { } minutes and not (> 0 and <= LongestMin))
        {
            problems.Add(
                new(
                    "note.minutes",
                    string.Create(CultureInfo.InvariantCulture, $"{minutes:0.#} min is not possible here: above 0, four weeks at most.")
                )
            );
        }

        return problems;
    }

    private static string Capital(string text) => char.ToUpperInvariant(text[0]) + text[1..];

    private static string Word(Material material) =>
        material switch
        {
            Material.Metal => "metal",
            Material.Rubber => "rubber",
            Material.Plastic => "plastic",
            Material.Gasket => "a gasket",
            Material.Membrane => "a diaphragm",
            Material.Electrical => "what has wire in it",
        };

    private static RecipeOffer Offer(
        CleaningKnowledge knowledge,
        CleaningRecipe recipe,
        Ledger ledger,
        List<string> soils,
        List<CleaningRecipe> used,
        Dictionary<string, MethodStep> standing,
        HashSet<string> everDone,
        CleaningPiece[] pieces,
        IReadOnlyList<string>? chosenPieces
    )
    {
        var step = standing.TryGetValue(recipe.Key, out var said) ? said : MethodStep.Dropped;
        // Once a ledger is begun it knows what is still in; parts that may not be there at all stop nobody.
        var takeOut = ledger.IsBegun
            ? ledger
                .Lines.Where(line =>
                    line.Part.Sure
                    && line.State is LedgerState.Expected or LedgerState.StaysIn
                    && recipe.OutFirst.Contains(line.Part.Material)
                )
                .Select(line => line.Part.Label)
                .ToList()
            : [];
        var staysOut = ledger
            .Lines.Where(line => recipe.OutFirst.Contains(line.Part.Material) && (line.State == LedgerState.Out || !ledger.IsBegun))
            .Select(line => line.Part.Label)
            .ToList();
        var clash = used.Where(other => other != recipe)
            .Select(other => (Other: other, Why: knowledge.Clash(recipe, other)))
            .FirstOrDefault(pair => pair.Why is not null);
        var forThis = recipe
            .Soils.Intersect(soils)
            .Select(soil => knowledge.Soils.First(one => one.Key == soil).Label.ToLowerInvariant())
            .ToList();
        var soft = ledger
            .Lines.Where(line =>
                line.State == LedgerState.Out
                && line.Found!.Verdict == LineVerdict.Clean
                && line.Part.Material is Material.Plastic or Material.Rubber
            )
            .Select(line => line.Part.Label)
            .ToList();
        // The body is in the dish where all of it comes apart; elsewhere it stays on the engine unless somebody chooses it.
        var goesIn = chosenPieces
            ??
            [
                .. pieces
                    .Where(piece =>
                        piece.Key == Body
                            ? ledger is { IsBegun: true, Job: { Parts: null } } && takeOut.Count == 0
                            : !recipe.OutFirst.Contains(piece.Material)
                                && ledger.Find(piece.Key)!.Found
                                    is { Verdict: not (LineVerdict.Renew or LineVerdict.Broken or LineVerdict.DoesNotBelong) }
                    )
                    .Select(piece => piece.Key),
            ];
        var (verdict, why) =
            clash.Why is not null
                ? (
                    RecipeStanding.NotNow,
                    $"Not together with {clash.Other.Label.ToLowerInvariant()}. {clash.Why} Rinse and dry between the two."
                )
            : takeOut.Count > 0 && (goesIn.Count == 0 || goesIn.Contains(Body))
                ? (RecipeStanding.NotNow, $"Take out first: {string.Join(", ", takeOut)}.")
            : forThis.Count > 0 ? (RecipeStanding.Advised, $"For {string.Join(" and ", forThis)}.")
            : recipe is { Kind: "water", Vessel: Vessel.None } && soft.Count > 0 && !everDone.Contains(recipe.Key)
                ? (RecipeStanding.Advised, $"For what must not go in the bath: {string.Join(", ", soft)}.")
            : recipe.Kind == "rinse" && used.Any(other => other.Vessel == Vessel.Heated)
                ? (RecipeStanding.Possible, "Drives the last water out, once it is cold.")
            : (RecipeStanding.Possible, soils.Count == 0 ? "Nothing here asks for it." : "Not for this dirt.");
        return new RecipeOffer(
            recipe,
            verdict,
            why,
            takeOut,
            // What is not seen goes in by itself: the body is named while something soft is in it.
            takeOut.Count > 0
            && !goesIn.Contains(Body)
                ? [.. staysOut, "body of the carburetor"]
                : staysOut,
            step is MethodStep.Chosen or MethodStep.Short,
            everDone.Contains(recipe.Key),
            goesIn
        )
        {
            Clashes = clash.Why is not null,
        };
    }
}
