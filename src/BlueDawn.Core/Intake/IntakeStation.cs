using System.Globalization;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Intake;

/// <summary>The tray was made.</summary>
/// <param name="SpecCode">The spec sheet that its stamped number led to, or null.</param>
public sealed record CheckedInNote(string? SpecCode) : Note;

/// <summary>A photo was added.</summary>
/// <param name="Part">The part it shows, or null for the whole carburetor.</param>
public sealed record PhotoNote(string? Part) : Note;

/// <summary>What was taken down at check-in was put right: whose it is, or what was told.</summary>
/// <param name="Words">What, in words.</param>
public sealed record PutRightNote(string Words) : Note;

/// <summary>A change of what stands on the tray; what is left out stays as it is.</summary>
/// <param name="PromisedDay">The day it is promised for.</param>
/// <param name="WaitsFor">What it waits for; brings a tray that was handed back to the bench again.</param>
/// <param name="WaitNote">More about the wait.</param>
/// <param name="Complaint">What the owner says.</param>
/// <param name="StampedNumber">Number stamped on it.</param>
/// <param name="Family">Its family.</param>
/// <param name="Engine">The engine it feeds.</param>
/// <param name="Choke">Its choke.</param>
/// <param name="OwnerLimit">What the owner agreed to spend, in the shop's currency; 0 for not known.</param>
/// <param name="MachineWorth">What the machine would sell for, in the shop's currency; 0 for not known.</param>
/// <param name="Changes">What that changed, in words; worked out when it is recorded.</param>
public sealed record FactsNote(
    DateOnly? PromisedDay = null,
    WaitsFor? WaitsFor = null,
    string? WaitNote = null,
    string? Complaint = null,
    string? StampedNumber = null,
    CarburetorFamily? Family = null,
    EngineKind? Engine = null,
    ChokeKind? Choke = null,
    decimal? OwnerLimit = null,
    decimal? MachineWorth = null,
    IReadOnlyList<string>? Changes = null
) : Note
{
    /// <inheritdoc/>
    public override Note AsSent() => this with { Changes = null };
}

/// <summary>Check in: whose it is, what it does, what it looks like.</summary>
public sealed class IntakeStation : StationModule
{
    private const int LongestNote = 200;
    private const int LongestComplaint = 2000;
    private const decimal MostMoney = 100_000;

    /// <inheritdoc/>
    public override Station Station => Station.Intake;

    /// <inheritdoc/>
    public override IReadOnlyList<NoteKind> Notes { get; } =
    [
        NoteKind.Of<CheckedInNote>("checkedIn", May.CheckIn),
        NoteKind.Of<PhotoNote>("photo", May.CheckIn),
        NoteKind.Of<FactsNote>("facts", May.ChangeTrays),
        NoteKind.Of<PutRightNote>("putRight", May.ChangeTrays),
        NoteKind.Of<WordsNote>("words", May.WorkAtTheBench),
    ];

    /// <inheritdoc/>
    public override StationState State(TrayBook tray) => new IntakeState();

    /// <inheritdoc/>
    public override bool ChangesFacts(Note note) => note is FactsNote or PutRightNote;

    /// <summary>What kind of carburetor it is is seen at the bench, and only who may hand back brings one back that has gone.</summary>
    /// <inheritdoc/>
    public override May? TakesBesides(Note note, TrayBook tray)
    {
        if (note is not FactsNote facts)
        {
            return null;
        }

        var after = Apply(facts, tray.Facts).After;
        return tray.IsHandedBack && after.WaitsFor != tray.Facts.WaitsFor ? May.HandBack
            : after.Kind != tray.Kind || after.StampedNumber != tray.Facts.StampedNumber ? May.WorkAtTheBench
            : null;
    }

    /// <inheritdoc/>
    public override bool ChangesNothing(Note note, TrayBook tray) => note is FactsNote facts && Apply(facts, tray.Facts).Words.Count == 0;

    /// <inheritdoc/>
    public override IReadOnlyList<FieldProblem> Check(Note note, TrayBook tray) =>
        note switch
        {
            FactsNote facts => Check(facts, tray),
            PhotoNote => [],
            _ => Wrong("kind", "This is recorded by the bench itself."),
        };

    /// <inheritdoc/>
    public override Note Complete(Note note, TrayBook tray) =>
        note is FactsNote facts ? facts with { Changes = Apply(facts, tray.Facts).Words } : note;

    /// <inheritdoc/>
    public override TrayFacts Facts(Note note, TrayBook tray) => note is FactsNote facts ? Apply(facts, tray.Facts).After : tray.Facts;

    /// <inheritdoc/>
    public override Sentence Say(Note note, TrayBook tray) =>
        note switch
        {
            CheckedInNote { SpecCode: { } code } => Sentence.Say($"Checked in; spec sheet {code} by its stamped number"),
            CheckedInNote => Sentence.Of("Checked in"),
            PhotoNote { Part: { } part } => Sentence.Say($"Photo: {tray.Ledger.Find(part)?.Part.Label ?? part}"),
            PhotoNote => Sentence.Of("Photo"),
            FactsNote facts => Sentence.Say($"{string.Join("; ", facts.Changes ?? [])}"),
            PutRightNote right => Sentence.Say($"Put right: {right.Words.Replace('{', '(').Replace('}', ')')}"),
            WordsNote words => Sentence.Say($"{words.Words.Replace('{', '(').Replace('}', ')')}"),
            _ => Sentence.None,
        };

    private static List<FieldProblem> Check(FactsNote change, TrayBook tray)
    {
        var problems = new List<FieldProblem>();
        if (change.PromisedDay is { } day && day != tray.Facts.PromisedDay)
        {
            problems.AddRange(
                CheckIn.CheckPromise(day, tray.Context.Today).Select(problem => problem with { Field = "note." + problem.Field })
            );
        }

        if (change.WaitsFor == WaitsFor.HandedBack)
        {
            problems.Add(new("note.waitsFor", "Handing back is done at the last station, where everything is checked."));
        }

        if (change.WaitNote?.Length > LongestNote)
        {
            problems.Add(new("note.waitNote", $"Longer than {LongestNote} characters. Shorten it."));
        }

        if (change.Complaint is { } complaint && (complaint.Trim().Length == 0 || complaint.Length > LongestComplaint))
        {
            problems.Add(new("note.complaint", $"Say what the owner says, in no more than {LongestComplaint} characters."));
        }

        if (change.StampedNumber?.Length > StampedNumber.Longest)
        {
            problems.Add(new("note.stampedNumber", $"Longer than {StampedNumber.Longest} characters. Check the number."));
        }

        foreach (var (field, amount) in ((string, decimal?)[])[("ownerLimit", change.OwnerLimit), ("machineWorth", change.MachineWorth)])
        {
            if (amount is < 0 or > MostMoney)
            {
                problems.Add(new("note." + field, $"Give an amount from 0 to {MostMoney}; 0 when it is not known."));
            }
        }

        return problems;
    }

    /// <summary>What stands on a tray after a change of it, and the change in words.</summary>
    private static (TrayFacts After, IReadOnlyList<string> Words) Apply(FactsNote change, TrayFacts facts)
    {
        var words = new List<string>();
        if (change.PromisedDay is { } day && day != facts.PromisedDay)
        {
            words.Add(string.Create(CultureInfo.InvariantCulture, $"Promised {facts.PromisedDay:yyyy-MM-dd} → {day:yyyy-MM-dd}"));
            facts = facts with { PromisedDay = day };
        }

        if (change.WaitsFor is { } waits && waits != facts.WaitsFor)
        {
            words.Add($"Waits for {Words(facts.WaitsFor)} → {Words(waits)}");
            facts = facts with { WaitsFor = waits };
        }

        if (change.WaitNote?.Trim() is { } note && note != facts.WaitNote)
        {
            words.Add(note.Length == 0 ? "Note removed" : $"Note: {note}");
            facts = facts with { WaitNote = note };
        }

        if (change.Complaint?.Trim() is { } complaint && complaint != facts.Complaint)
        {
            words.Add($"Owner says: {complaint}");
            facts = facts with { Complaint = complaint };
        }

        if (change.StampedNumber?.Trim() is { } stamped && stamped != facts.StampedNumber)
        {
            words.Add($"Stamped number {(facts.StampedNumber.Length == 0 ? "unknown" : facts.StampedNumber)} → {stamped}");
            facts = facts with { StampedNumber = stamped };
        }

        var kind = facts.Kind;
        if (change.Family is { } family && family != kind.Family)
        {
            words.Add($"Family {kind.Family} → {family}");
            kind = kind with { Family = family };
        }

        if (change.Engine is { } engine && engine != kind.Engine)
        {
            words.Add($"Engine {kind.Engine?.ToString() ?? "unknown"} → {engine}");
            kind = kind with { Engine = engine };
        }

        if (change.Choke is { } choke && choke != kind.Choke)
        {
            words.Add($"Choke {kind.Choke?.ToString() ?? "unknown"} → {choke}");
            kind = kind with { Choke = choke };
        }

        facts = facts with { Kind = kind };
        if (Amount("Owner agreed to", change.OwnerLimit, facts.OwnerLimit, words) is { } limit)
        {
            facts = facts with { OwnerLimit = limit.Amount };
        }

        if (Amount("Machine is worth", change.MachineWorth, facts.MachineWorth, words) is { } worth)
        {
            facts = facts with { MachineWorth = worth.Amount };
        }

        return (facts, words);
    }

    private static (decimal? Amount, bool _)? Amount(string what, decimal? change, decimal? now, List<string> words)
    {
        if (change is not { } amount || amount == (now ?? 0))
        {
            return null;
        }

        words.Add(string.Create(CultureInfo.InvariantCulture, $"{what} {(amount == 0 ? "not known" : $"{amount:0.##}")}"));
        return (amount == 0 ? null : decimal.Round(amount, 2), true);
    }

    private static string Words(WaitsFor waits) =>
        waits switch
        {
            WaitsFor.Hands => "hands",
            WaitsFor.Bath => "bath",
            WaitsFor.Parts => "parts",
            WaitsFor.BedIn => "bed-in",
            WaitsFor.RunUp => "run-up",
            WaitsFor.Owner => "owner",
            WaitsFor.HandedBack => "nothing, handed back",
        };
}

/// <summary>A tray that is there has been checked in.</summary>
public sealed class IntakeState : StationState
{
    /// <inheritdoc/>
    public override Station Station => Station.Intake;

    /// <inheritdoc/>
    public override StationProgress Progress => StationProgress.Done("done");
}
