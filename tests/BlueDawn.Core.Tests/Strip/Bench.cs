using BlueDawn.Core.Bench;
using BlueDawn.Core.Build;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Cleaning;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Strip;
using BlueDawn.Core.Tests.Worksheets;

namespace BlueDawn.Core.Tests.Strip;

/// <summary>A carburetor on the bench, taken apart and put together entry by entry.</summary>
internal sealed class Bench(CarburetorFamily family, SpecSheet? spec = null, ChokeKind? choke = null)
{
    private readonly List<LoggedLedgerNote> notes = [];
    private readonly List<LoggedCleaningNote> cleaning = [];
    private DateTimeOffset clock = new(2026, 11, 2, 8, 0, 0, TimeSpan.Zero);

    public CarburetorKind Kind { get; } = new(family, EngineKind.FourStroke, choke);

    public IReadOnlyList<StripJob> Jobs => LedgerKnowledge.Shipped.Jobs(family);

    public TrayWork Work => TrayWork.Of(Kind, spec, notes, cleaning);

    public Ledger Ledger => Work.Ledger;

    public IReadOnlyList<StackProblem> Problems => Work.Problems;

    public IReadOnlyList<LedgerSign> Signs => LedgerSigns.Of(LedgerKnowledge.Shipped, StackKnowledge.Shipped, family, spec, Ledger);

    public static Bench FloatBowl() => new(CarburetorFamily.FloatBowl, Sheets.Spec with { Traits = new CarburetorTraits(18, 42, 1, "round") });

    public static Bench Diaphragm() => new(CarburetorFamily.Diaphragm, Sheets.Spec with
    {
        Family = CarburetorFamily.Diaphragm,
        Jets = [],
        EmulsionRows = [],
        Float = null,
        Traits = new CarburetorTraits(14, 31, 2, "none"),
    });

    /// <summary>Records an entry that has to be in order.</summary>
    public Bench Does(LedgerNote note)
    {
        Assert.Empty(Ledger.Check(note, Jobs));
        clock = clock.AddMinutes(1);
        notes.Add(new LoggedLedgerNote(Guid.CreateVersion7(clock), clock, "Ilse", note));
        return this;
    }

    public Bench Cleans(CleaningNote note)
    {
        Assert.Empty(Work.Cleaning.Check(note, CleaningKnowledge.Shipped));
        clock = clock.AddMinutes(1);
        cleaning.Add(new LoggedCleaningNote(Guid.CreateVersion7(clock), clock, note));
        return this;
    }

    /// <summary>What is wrong with an entry that is refused.</summary>
    public string Refuses(LedgerNote note) => Assert.Single(Ledger.Check(note, Jobs)).Message;

    /// <summary>Takes everything of the job off, each as usual.</summary>
    public Bench Strips(string job = "full")
    {
        Does(new JobNote(job));
        foreach (var line in Ledger.ToStrip)
        {
            Does(new OutNote(line.Part.Key, LineVerdict.Refit));
        }

        return this;
    }

    /// <summary>Puts everything back in the order that is advised, each the right way round, up to a part.</summary>
    public Bench BuildsUpTo(string part)
    {
        while (Work.Advice is [var next, ..] && next.Part != part)
        {
            Does(new BackNote(next.Part, Fate.Refitted, next.RightWay?.Key));
        }

        return this;
    }
}
