using BlueDawn.Core.Build;
using BlueDawn.Core.Cleaning;
using BlueDawn.Core.Handover;
using BlueDawn.Core.Safety;
using BlueDawn.Core.Strip;
using BlueDawn.Core.Worksheets;

namespace BlueDawn.Core.Bench;

/// <summary>What has been taken apart, cleaned and put together on a tray, and what that leaves to do.</summary>
/// <param name="Ledger">Every part that came out.</param>
/// <param name="Cleaning">How its parts are cleaned.</param>
/// <param name="Problems">What is wrong with how it has been put together.</param>
/// <param name="Advice">What to see to before each open part goes in, in the order they go in.</param>
/// <param name="InBath">Whether its basket is in a bath.</param>
public sealed record TrayWork(Ledger Ledger, CleaningPlan Cleaning, IReadOnlyList<StackProblem> Problems, IReadOnlyList<BuildAdvice> Advice, bool InBath)
{
    /// <summary>The work of a tray as its entries leave it.</summary>
    /// <param name="kind">The carburetor.</param>
    /// <param name="spec">Its spec sheet, or null.</param>
    /// <param name="ledgerNotes">Entries of its ledger, oldest first.</param>
    /// <param name="cleaningNotes">Entries about cleaning, oldest first.</param>
    /// <param name="inBath">Whether its basket is in a bath.</param>
    public static TrayWork Of(
        CarburetorKind kind, SpecSheet? spec, IReadOnlyList<LoggedLedgerNote> ledgerNotes, IReadOnlyList<LoggedCleaningNote> cleaningNotes, bool inBath = false)
    {
        var strip = StripKnowledge.Shipped;
        var build = BuildKnowledge.Shipped;
        var cleaning = CleaningKnowledge.Shipped;
        var ledger = Ledger.Of(strip.Jobs(kind.Family), strip.Expected(kind, spec), strip.All(kind.Family), ledgerNotes);
        return new TrayWork(
            ledger,
            CleaningPlan.Of(cleaning, cleaning.Passages(kind.Family), ledger, cleaningNotes),
            StackCheck.Problems(build, kind.Family, ledger),
            [.. StackCheck.Order(ledger).Select(line => StackCheck.Advice(build, kind.Family, ledger, line))],
            inBath);
    }

    /// <summary>A tray nobody has taken apart.</summary>
    public static TrayWork None(CarburetorKind kind, SpecSheet? spec) => Of(kind, spec, [], []);

    /// <summary>True when everything comes off: then every passage is looked through.</summary>
    public bool IsWhole => Ledger.Job is { Parts: null };

    /// <summary>What is open at Cleaning: dirt to name, ways to use, water to drive out, passages to see air through.</summary>
    public int CleaningOpen => !Cleans ? 0
        : (Cleaning.Soils is null ? 1 : 0)
            + (Cleaning.Offers.Count(offer => offer.Chosen) is > 0 and var chosen ? chosen : Cleaning.Offers.Any(offer => offer is { Standing: RecipeStanding.Advised, Done: false }) ? 1 : 0)
            + (Cleaning.Wet ? 1 : 0)
            + (IsWhole ? Cleaning.Passages.Count(passage => passage.IsOpen) : 0);

    /// <summary>Whether anything is to be cleaned.</summary>
    public bool Cleans => IsWhole || Ledger.Lines.Any(line => line.Found?.Verdict == LineVerdict.Clean);

    /// <summary>Why it cannot be proven yet, or null when it can: a tray is not proven while a part of it lies on the bench.</summary>
    public string? WhyNotProven
    {
        get
        {
            var open = Ledger.Open.Select(line => line.Part.Label).ToList();
            return open.Count > 0 ? $"{(open.Count == 1 ? "One line of the ledger is" : $"{open.Count} lines of the ledger are")} open: {string.Join(", ", open)}. Fit, renew or sign for {(open.Count == 1 ? "it" : "each")} at Build."
                : Problems.Count > 0 ? $"{Problems[0].What} {Problems[0].Mend}"
                : null;
        }
    }

    /// <summary>What stands in the way of handing back.</summary>
    public IReadOnlyList<Obstacle> Obstacles =>
    [
        .. Ledger.Open.Select(line => new Obstacle(
            $"build/{line.Part.Key}", Capital(line.Part.Label), Station.Build, ObstacleKind.Missing, line.State == LedgerState.Missing ? "Missing, nothing in its place" : "Out, not back in")),
        .. Problems.Select(problem => new Obstacle(
            $"build/{problem.Part}", Capital(Ledger.Find(problem.Part)!.Part.Label), Station.Build, ObstacleKind.Failing, problem.Fault switch
            {
                StackFault.WrongWay => "Wrong way round",
                StackFault.WrongOrder => "Wrong order",
                _ => "Something left out under it",
            })),
    ];

    /// <summary>The next step at Strip, Cleaning or Build, or null when nothing is to do there.</summary>
    /// <param name="station">The station.</param>
    /// <param name="measured">Whether anything has been measured: then nobody is asked to take it apart first.</param>
    public NextStep? StepAt(Station station, bool measured) => station switch
    {
        Station.Strip => StripStep(measured),
        Station.Cleaning => CleaningStep(),
        Station.Build => BuildStep(),
        _ => null,
    };

    private NextStep? StripStep(bool measured)
    {
        if (Ledger.Job is null)
        {
            return measured || Ledger.IsBegun ? null : NextStep.At(
                Station.Strip, "Say how far it comes apart.", "Every part that comes out gets a line: so nothing stays on the bench and nothing goes back the wrong way round.", Caution.Strip);
        }

        return Ledger.ToStrip is [var line, ..]
            ? NextStep.At(Station.Strip, $"Take off: {line.Part.Label}.", line.Part.Remind ?? $"{Ledger.ToStrip.Count} to go.", Caution.Strip)
            : null;
    }

    private NextStep? CleaningStep()
    {
        if (InBath)
        {
            return NextStep.At(Station.Cleaning, "In the bath: another tray meanwhile.", "Its timer calls on every page.", Caution.Bath);
        }

        if (!Cleans || Ledger.Taken.Count == 0 || CleaningOpen == 0)
        {
            return null;
        }

        if (Cleaning.Soils is null)
        {
            return NextStep.At(Station.Cleaning, "Say what has to come off.", "Varnish, white corrosion, rust and dirt each want their own way.", null);
        }

        if (Cleaning.Offers.FirstOrDefault(offer => offer.Chosen) is { } chosen)
        {
            return NextStep.At(Station.Cleaning, $"{chosen.Recipe.Label}.", chosen.Why, chosen.Recipe.Cautions is [var first, ..] ? first : null);
        }

        if (Cleaning.Offers.FirstOrDefault(offer => offer is { Standing: RecipeStanding.Advised, Done: false }) is { } advised)
        {
            return NextStep.At(Station.Cleaning, $"Choose: {Lower(advised.Recipe.Label)}.", advised.Why, advised.Recipe.Cautions is [var first, ..] ? first : null);
        }

        if (Cleaning.Wet)
        {
            return NextStep.At(Station.Cleaning, "Rinse, blow out and dry.", "What was used before has to be off before anything else follows.", Caution.Eyes);
        }

        return Cleaning.Passages.FirstOrDefault(one => one.IsOpen)?.Passage is { } passage
            ? NextStep.At(
                Station.Cleaning,
                $"{passage.Label}: air in at {passage.Into}, out at {passage.Exit}.",
                passage.Gentle ? "A check valve sits in it: gently, a blast ruins it." : "Light through is not enough: air has to come out at the far end.",
                Caution.Eyes)
            : null;
    }

    private NextStep? BuildStep()
    {
        if (Problems is [var problem, ..])
        {
            return NextStep.At(Station.Build, problem.Mend, $"{problem.What} {problem.Why}", null);
        }

        if (Advice is not [var next, ..])
        {
            return null;
        }

        var line = Ledger.Find(next.Part)!;
        return NextStep.At(
            Station.Build,
            line.State == LedgerState.Missing ? $"It was missing: renew, make or sign for {line.Part.Label}." : $"Fit: {line.Part.Label}{(next.RightWay is { } way ? $", {Lower(way.Label)}" : "")}.",
            next.Reason ?? $"{Ledger.Open.Count} to go.",
            null);
    }

    private static string Capital(string text) => char.ToUpperInvariant(text[0]) + text[1..];

    private static string Lower(string text) => char.ToLowerInvariant(text[0]) + text[1..];
}
