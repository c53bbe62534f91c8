using System.Globalization;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Intake;

/// <summary>The tray was made.</summary>
/// <param name="SpecCode">The spec sheet that its stamped number led to, or null.</param>
public sealed record CheckedInNote(string? SpecCode) : Note
{
    /// <summary>How it is checked, said and kept.</summary>
    public static NoteKind<CheckedInNote> Kind { get; } =
        new("checkedIn")
        {
            Needs = Permission.CheckIn,
            Lookup = NoteLookup.None,
            RecordedByBench = "This is recorded by the bench itself.",
            WhenWrong = NoteAnswers.Right,
            Says = (note, _) =>
                note.SpecCode is { } code
                    ? Sentence.Say($"Checked in; spec sheet {code} by its stamped number")
                    : Sentence.Of("Checked in"),
            Leaves = NoteAnswers.AsBefore,
            Shelf = NoteAnswers.Stays,
            Work = NoteAnswers.NotWork,
        };
}

/// <summary>A photo was added.</summary>
/// <param name="Part">The part it shows, or null for the whole carburetor.</param>
public sealed record PhotoNote(string? Part) : Note
{
    /// <summary>How it is checked, said and kept.</summary>
    public static NoteKind<PhotoNote> Kind { get; } =
        new("photo")
        {
            Needs = Permission.CheckIn,
            Lookup = NoteLookup.None,
            RecordedByBench = "A photo comes with its picture.",
            WhenWrong = NoteAnswers.Right,
            Says = (note, tray) =>
                note.Part is { } part ? Sentence.Say($"Photo: {tray.Ledger.Find(part)?.Part.Label ?? part}") : Sentence.Of("Photo"),
            Leaves = NoteAnswers.AsBefore,
            Shelf = NoteAnswers.Stays,
            Work = NoteAnswers.NotWork,
        };
}

/// <summary>What was taken down at check-in was put right: whose it is, or what was told.</summary>
/// <param name="Words">What, in words.</param>
public sealed record PutRightNote(string Words) : Note
{
    /// <summary>How it is checked, said and kept.</summary>
    public static NoteKind<PutRightNote> Kind { get; } =
        new("putRight")
        {
            Needs = Permission.ChangeTrays,
            Lookup = NoteLookup.None,
            RecordedByBench = "This is recorded by the bench itself.",
            IsDecidedOnFacts = true,
            ChangesHead = true,
            WhenWrong = NoteAnswers.Right,
            Says = (note, _) => Sentence.Say($"Put right: {note.Words.Replace('{', '(').Replace('}', ')')}"),
            Leaves = NoteAnswers.AsBefore,
            Shelf = NoteAnswers.Stays,
            Work = NoteAnswers.NotWork,
        };
}

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
    /// <summary>How it is checked, said and kept.</summary>
    public static NoteKind<FactsNote> Kind { get; } =
        new("facts")
        {
            Needs = Permission.ChangeTrays,
            Lookup = NoteLookup.None,
            IsDecidedOnFacts = true,
            WhenWrong = FactsChange.Check,
            Says = (note, _) => Sentence.Say($"{string.Join("; ", note.Changes ?? [])}"),
            Leaves = (note, tray) => FactsChange.Apply(note, tray.Facts).After,
            Shelf = NoteAnswers.Stays,
            Work = NoteAnswers.NotWork,
            Completed = (note, tray) => note with { Changes = FactsChange.Apply(note, tray.Facts).Words },
            SaysNothingNew = (note, tray) => FactsChange.Apply(note, tray.Facts).Words.Count == 0,
            Besides = FactsChange.NeedsOnTray,
            BringsBack = note => note.WaitsFor is not null,
        };

    /// <inheritdoc/>
    public override Note AsSent() => this with { Changes = null };
}

/// <summary>What a change of a tray's facts may be, and what it leaves.</summary>
internal static class FactsChange
{
    private const int LongestNote = 200;
    private const int LongestComplaint = 2000;
    private const decimal MostMoney = 100_000;

    /// <summary>What kind of carburetor it is is seen at the bench, and only who may hand back brings one back that has gone.</summary>
    public static Permission? NeedsOnTray(FactsNote note, TrayBook tray)
    {
        var after = Apply(note, tray.Facts).After;
        return tray.IsHandedBack && after.WaitsFor != tray.Facts.WaitsFor ? Permission.HandBack
            : after.Kind != tray.Kind || after.StampedNumber != tray.Facts.StampedNumber ? Permission.WorkAtTheBench
            : null;
    }

    public static IReadOnlyList<FieldProblem> Check(FactsNote change, TrayBook tray)
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
    public static (TrayFacts After, IReadOnlyList<string> Words) Apply(FactsNote change, TrayFacts facts)
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

/// <summary>Entries from before notes had a shape of their own.</summary>
public static class OldWords
{
    /// <summary>How such an entry is said; none is recorded any more.</summary>
    public static NoteKind<WordsNote> Kind { get; } =
        new("words")
        {
            Needs = Permission.WorkAtTheBench,
            Lookup = NoteLookup.None,
            RecordedByBench = "This is recorded by the bench itself.",
            IsDecidedOnFacts = true,
            WhenWrong = NoteAnswers.Right,
            Says = (note, _) => Sentence.Say($"{note.Words.Replace('{', '(').Replace('}', ')')}"),
            Leaves = NoteAnswers.AsBefore,
            Shelf = NoteAnswers.Stays,
            Work = NoteAnswers.NotWork,
        };
}
