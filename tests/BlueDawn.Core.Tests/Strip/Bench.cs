using BlueDawn.Core.Build;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Cleaning;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tests.Trays;
using BlueDawn.Core.Trays;

namespace BlueDawn.Core.Tests.Strip;

/// <summary>A carburetor on the bench, taken apart and put together entry by entry.</summary>
internal sealed class Bench(CarburetorFamily family, SpecSheet? spec = null, ChokeKind? choke = null)
{
    public CarburetorKind Kind { get; } = new(family, EngineKind.FourStroke, choke);

    public TestTray Tray { get; } = new(spec, new CarburetorKind(family, EngineKind.FourStroke, choke));

    public IReadOnlyList<StripJob> Jobs => LedgerKnowledge.Shipped.Jobs(family);

    public Ledger Ledger => Tray.Book.Ledger;

    public CleaningPlan Cleaning => Tray.Book.State<CleaningState>().Plan;

    public IReadOnlyList<StackProblem> Problems => Tray.Book.State<BuildState>().Problems;

    public IReadOnlyList<BuildAdvice> Advice => Tray.Book.State<BuildState>().Advice;

    public string? WhyNotProven => Policy.WhyNotProven(Tray.Book);

    public IReadOnlyList<FindingSign> Signs => Tray.Book.Signs;

    public NextStep? StepAt(Station station) => Tray.Book.State(station).Step;

    public static Bench FloatBowl() =>
        new(CarburetorFamily.FloatBowl, Sheets.Spec with { Traits = new CarburetorTraits(18, 42, 1, "round") });

    public static Bench Diaphragm() =>
        new(
            CarburetorFamily.Diaphragm,
            Sheets.Spec with
            {
                Family = CarburetorFamily.Diaphragm,
                Jets = [],
                EmulsionRows = [],
                Float = null,
                Traits = new CarburetorTraits(14, 31, 2, "none"),
            }
        );

    /// <summary>Records an entry that the ledger takes; how a stack must lie is not asked.</summary>
    public Bench Does(LedgerNote note)
    {
        Assert.Empty(Ledger.Check(note, Jobs));
        Tray.Adds(note);
        return this;
    }

    public Bench Cleans(CleaningNote note)
    {
        Tray.Does(note);
        return this;
    }

    /// <summary>What is wrong with an entry that is refused.</summary>
    public IReadOnlyList<FieldProblem> Wrong(LedgerNote note) => Ledger.Check(note, Jobs);

    public string Refuses(LedgerNote note) => Assert.Single(Ledger.Check(note, Jobs)).Message;

    /// <summary>Takes everything of the job off in the usual order, each as usual, and these besides.</summary>
    public Bench Strips(string job = "full", params string[] besides)
    {
        Does(new JobNote(job));
        foreach (
            var part in LedgerKnowledge
                .Shipped.All(Tray.Book.Kind.Family)
                .OrderBy(part => part.Order)
                .Select(part => part.Key)
                .Where(part => besides.Contains(part) || Ledger.ToStrip.Any(line => line.Part.Key == part))
        )
        {
            Does(new OutNote(part, LineVerdict.Refit));
        }

        return this;
    }

    /// <summary>Puts everything back in the order that is advised, each the right way round, up to a part.</summary>
    /// <summary>A part goes back as it should: the old one, or one cut from sheet where the old is not used twice.</summary>
    public static BackNote Back(string part, string? way = null) =>
        new(part, part is "intake-gasket" or "spacer-gasket" or "manifold-gasket" ? Fate.Made : Fate.Refitted, way);

    public Bench BuildsUpTo(string part)
    {
        while (Advice is [var next, ..] && next.Part != part)
        {
            Does(Back(next.Part, next.RightWay?.Key));
        }

        return this;
    }
}
