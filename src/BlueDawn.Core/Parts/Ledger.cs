using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Parts;

/// <summary>Where a line of the ledger stands.</summary>
public enum LedgerState
{
    /// <summary>Expected; nothing has been said about it.</summary>
    Expected,

    /// <summary>Left in on purpose.</summary>
    StaysIn,

    /// <summary>Out, on the bench.</summary>
    Out,

    /// <summary>Should have been there and was not.</summary>
    Missing,

    /// <summary>Ended: something went back in its place, or nothing on purpose.</summary>
    Back,
}

/// <summary>A part with everything that stands about it.</summary>
/// <param name="Part">The part.</param>
/// <param name="State">Where it stands.</param>
/// <param name="Found">How it was found, or null.</param>
/// <param name="Fitted">How it ended, or null.</param>
/// <param name="EntryId">The entry that stands, or null.</param>
/// <param name="At">When that was, or null.</param>
/// <param name="By">Who said so, or null.</param>
/// <param name="InJob">Whether it comes off in the job that was chosen.</param>
public sealed record LedgerLine(
    StripPart Part,
    LedgerState State,
    OutNote? Found,
    BackNote? Fitted,
    Guid? EntryId,
    DateTimeOffset? At,
    string? By,
    bool InJob
)
{
    /// <summary>True when the strip list shows it: it comes off in this job, or something has been said of it.</summary>
    public bool IsListed => InJob || State != LedgerState.Expected;

    /// <summary>True while it is still to be taken off.</summary>
    public bool IsToStrip => InJob && State == LedgerState.Expected;

    /// <summary>True once it was out or found missing.</summary>
    public bool IsTaken => Found is not null && State != LedgerState.Expected;

    /// <summary>True while it is on the bench or missing and nothing has gone in its place.</summary>
    public bool IsOpen => State is LedgerState.Out or LedgerState.Missing;

    /// <summary>True when there is something in its place in the carburetor, as far as is known.</summary>
    public bool IsIn =>
        State is LedgerState.Expected or LedgerState.StaysIn || Fitted is { Fate: Fate.Refitted or Fate.Renewed or Fate.Made };

    /// <summary>True for a part that is not this carburetor's: it goes back as it was, with a reason, or is thrown out.</summary>
    public bool IsStrange => Found?.Verdict is LineVerdict.Added or LineVerdict.DoesNotBelong;

    /// <summary>What can become of it now; nothing while it is not open.</summary>
    public IReadOnlyList<Fate> Fates =>
        !IsOpen ? []
        : IsStrange ? [Fate.Refitted, Fate.Scrapped]
        : [.. State == LedgerState.Missing ? [] : new[] { Fate.Refitted }, Fate.Renewed, Fate.Made, Fate.LeftOff];
}

/// <summary>Every part that came out of a tray's carburetor, and what became of it.</summary>
/// <param name="Job">How far it is taken apart, or null while that has not been said.</param>
/// <param name="Lines">Its parts in the order they come off, what was found besides at the end.</param>
/// <param name="Notes">Every entry, oldest first.</param>
/// <param name="Known">Every part the family can have.</param>
public sealed record Ledger(
    StripJob? Job,
    IReadOnlyList<LedgerLine> Lines,
    IReadOnlyList<Logged<LedgerNote>> Notes,
    IReadOnlyList<StripPart> Known
)
{
    /// <summary>A ledger that has not been begun.</summary>
    public static readonly Ledger Empty = new(null, [], [], []);

    /// <summary>True once anything has been said.</summary>
    public bool IsBegun => Notes.Count > 0;

    /// <summary>What it has and has not, as far as somebody said it of this one or, before it was taken apart, of another of its
    /// sheet.</summary>
    public IReadOnlyDictionary<string, bool> Has { get; init; } = new Dictionary<string, bool>();

    /// <summary>Optional parts that come off on the way of the job, in the order they come off.</summary>
    public IReadOnlyList<StripPart> Optional =>
        Job is null ? [] : [.. Known.Where(part => part.IsOptional && IsOnTheWay(part, Job, Known))];

    /// <summary>Lines that come off in this job and have not been answered for.</summary>
    public IReadOnlyList<LedgerLine> ToStrip => Job is null ? [] : [.. Lines.Where(line => line.IsToStrip)];

    /// <summary>Lines that are on the bench or missing: the tray cannot be proven while there are any.</summary>
    public IReadOnlyList<LedgerLine> Open => [.. Lines.Where(line => line.IsOpen)];

    /// <summary>Lines that were out.</summary>
    public IReadOnlyList<LedgerLine> Taken => [.. Lines.Where(line => line.IsTaken)];

    /// <summary>Which part came off when, first 1: as it was written down at Strip; what was written down in one moment goes by the usual
    /// order. What did not come off, or was missing, is not in it.</summary>
    public IReadOnlyDictionary<string, int> OrderOff =>
        Notes
            .Select(logged => (logged.TakenAt, Note: logged.Note as OutNote))
            .Where(pair => pair.Note is { Verdict: not LineVerdict.Missing })
            .Select(pair => (pair.TakenAt, Line: Find(pair.Note!.Part)))
            .Where(pair => pair.Line is { IsTaken: true, State: not LedgerState.Missing })
            .GroupBy(pair => pair.Line!.Part.Key)
            .Select(group => group.Last())
            .OrderBy(pair => pair.TakenAt)
            .ThenBy(pair => pair.Line!.Part.Order)
            .Select((pair, place) => (pair.Line!.Part.Key, Place: place + 1))
            .ToDictionary(pair => pair.Key, pair => pair.Place);

    /// <summary>Whether a part is opened on this job: all are while nobody said how far it comes apart; then those of the job that do not
    /// stay in, and what came out besides.</summary>
    /// <param name="part">The part's key.</param>
    public bool Opens(string part) =>
        Find(part) switch
        {
            { State: LedgerState.StaysIn } => false,
            { IsTaken: true } => true,
            _ when !Has.GetValueOrDefault(part, true) => false,
            _ => Job is null || Job.Takes(part) || Job.Shows.Contains(part),
        };

    /// <summary>Whether the carburetor itself was exchanged: another one went on in its place.</summary>
    public bool IsExchanged => Find("carburetor")?.Fitted?.Fate is Fate.Renewed;

    /// <summary>A line by its part's key, or null.</summary>
    public LedgerLine? Find(string part) => Lines.FirstOrDefault(line => line.Part.Key == part);

    /// <summary>The ledger as its entries leave it.</summary>
    /// <param name="jobs">The jobs there are.</param>
    /// <param name="expected">The parts it should have, in the order they come off.</param>
    /// <param name="all">Every part of its family, for parts that were named though they were not expected.</param>
    /// <param name="notes">Its entries, oldest first.</param>
    public static Ledger Of(
        IReadOnlyList<StripJob> jobs,
        IReadOnlyList<StripPart> expected,
        IReadOnlyList<StripPart> all,
        IReadOnlyList<Logged<LedgerNote>> notes
    )
    {
        var job = notes.Select(logged => logged.Note).OfType<JobNote>().LastOrDefault() is { } said
            ? jobs.FirstOrDefault(one => one.Key == said.Job)
            : null;
        var standing = new Dictionary<string, List<Logged<LedgerNote>>>();
        foreach (var logged in notes)
        {
            if (logged.Note is not PartNote note)
            {
                continue;
            }

            var stack = standing.TryGetValue(note.Part, out var there) ? there : standing[note.Part] = [];
            if (note is not (UndoNote or CameBadNote))
            {
                stack.Add(logged);
            }
            else if (stack.Count > 0)
            {
                stack.RemoveAt(stack.Count - 1);
            }
        }

        var has = HasOf(notes);
        // What came out is there, whatever was said before.
        var parts = expected
            .Where(part => has.GetValueOrDefault(part.Key, true) || standing.GetValueOrDefault(part.Key) is { Count: > 0 })
            .Concat(all.Where(part => has.GetValueOrDefault(part.Key) && expected.All(one => one.Key != part.Key)))
            .ToList();
        var besides = standing
            .Where(pair => pair.Value.Count > 0 && parts.All(part => part.Key != pair.Key))
            .OrderBy(pair => pair.Value[0].TakenAt)
            .ThenBy(pair => pair.Key, StringComparer.Ordinal);
        foreach (var (key, stack) in besides)
        {
            var label = stack
                .Select(logged => logged.Note)
                .OfType<OutNote>()
                .Select(note => note.Label)
                .LastOrDefault(one => one is not null);
            parts.Add(all.FirstOrDefault(part => part.Key == key) ?? StripPart.Extra(key, label ?? key));
        }

        return new Ledger(
            job,
            [
                .. parts
                    .OrderBy(part => part.Order)
                    .Select(part =>
                        Line(
                            part,
                            standing.GetValueOrDefault(part.Key) ?? [],
                            job is not null && (job.Takes(part.Key) || (has.GetValueOrDefault(part.Key) && IsOnTheWay(part, job, all)))
                        )
                    ),
            ],
            notes,
            all
        )
        {
            Has = has,
        };
    }

    /// <summary>Whether a part comes off on the way of a job: with what the job takes off.</summary>
    private static bool IsOnTheWay(StripPart part, StripJob job, IReadOnlyList<StripPart> all) =>
        job.Parts is not { } parts || all.Any(one => one.Group == part.Group && parts.Contains(one.Key));

    /// <summary>What was said of this carburetor; before that, of others of its sheet.</summary>
    private static Dictionary<string, bool> HasOf(IReadOnlyList<Logged<LedgerNote>> notes)
    {
        var before = notes.Select(logged => logged.Note).OfType<JobNote>().LastOrDefault();
        return HasNote.Last(
            notes.Select(logged => logged.Note).OfType<HasNote>().Prepend(new HasNote(before?.Has ?? [], before?.HasNot ?? []))
        );
    }

    /// <summary>What is wrong with an entry as things stand, field by field; empty when it can be recorded.</summary>
    /// <param name="note">The entry.</param>
    /// <param name="jobs">The jobs there are.</param>
    public IReadOnlyList<FieldProblem> Check(LedgerNote note, IReadOnlyList<StripJob> jobs)
    {
        if (note is JobNote job)
        {
            return jobs.Any(one => one.Key == job.Job) ? [] : [new("note.job", "There is no job of that name. Pick one from the list.")];
        }

        if (note is HasNote said)
        {
            return [.. CheckHas(said)];
        }

        var part = (PartNote)note;
        // A part the family can have and nobody expected is known by name all the same.
        var line = Find(part.Part) ?? (Known.FirstOrDefault(known => known.Key == part.Part) is { } known ? Line(known, [], false) : null);
        if (line is null && part is not OutNote { Label.Length: > 0 })
        {
            return [new("note.label", "This part is on no list: say what it is.")];
        }

        var problems = new List<FieldProblem>();
        var state = line?.State ?? LedgerState.Expected;
        switch (part)
        {
            case OutNote found:
                CheckFound(found, line, state, problems);
                break;
            case StaysNote when state != LedgerState.Expected:
                problems.Add(new("note.part", "It has come out already. Take that back first."));
                break;
            case UndoNote when line?.EntryId is null:
                problems.Add(new("note.part", "Nothing has been said about it that could be taken back."));
                break;
            case CameBadNote when line?.Fitted is not { Fate: Fate.Renewed }:
                problems.Add(new("note.part", "Nothing new is in there that could have come bad."));
                break;
            case CameBadNote bad:
                problems.AddRange(bad.Problems());
                break;
            case BackNote back:
                CheckFitted(back, line!, problems);
                break;
        }

        return problems;
    }

    private IEnumerable<FieldProblem> CheckHas(HasNote said)
    {
        if (said.Has.Count + said.HasNot.Count is 0 or > MostHas)
        {
            yield return new("note.has", $"Name at least one part, and no more than {MostHas}.");
            yield break;
        }

        if (said.Has.Concat(said.HasNot).FirstOrDefault(key => Known.All(known => known.Key != key)) is { } unknown)
        {
            yield return new("note.has", $"There is no part “{unknown}” on the list of this family.");
        }

        if (said.Has.Intersect(said.HasNot).FirstOrDefault() is { } both)
        {
            yield return new("note.hasNot", $"It either has it or has it not: {NameOf(both)}.");
        }

        if (said.HasNot.FirstOrDefault(key => Find(key)?.IsTaken == true) is { } taken)
        {
            yield return new("note.hasNot", $"It has come out already: {NameOf(taken)}. Take that back first.");
        }
    }

    private string NameOf(string key) => Known.FirstOrDefault(known => known.Key == key)?.Label ?? key;

    private const int MostHas = 60;

    /// <summary>What usually becomes of a part: what is going to be renewed is, soft parts go back, the rest is cleaned.</summary>
    /// <param name="part">The part.</param>
    /// <param name="renewed">Parts that were decided to be renewed, as kits call them.</param>
    public static LineVerdict Usual(StripPart part, IReadOnlyCollection<string> renewed) =>
        part.KitPart is { } kitPart && renewed.Contains(kitPart) ? LineVerdict.Renew
        : part.Material is Material.Metal or Material.Plastic ? LineVerdict.Clean
        : LineVerdict.Refit;

    /// <summary>What an entry says, for the logbook.</summary>
    /// <param name="note">The entry.</param>
    /// <param name="jobs">The jobs of the family.</param>
    public Sentence Say(LedgerNote note, IReadOnlyList<StripJob> jobs) =>
        note switch
        {
            JobNote job => job.Say(jobs.FirstOrDefault(one => one.Key == job.Job)?.Label ?? job.Job, []),
            HasNote said => said.Say(NameOf),
            PartNote about => (Find(about.Part)?.Part ?? Known.FirstOrDefault(known => known.Key == about.Part)) is var part
                ? note.Say((note as OutNote)?.Label is { Length: > 0 } named ? named : part?.Label ?? about.Part, part?.Ways ?? [])
                : Sentence.None,
            _ => Sentence.None,
        };

    /// <summary>What leaves the shelf or goes back to it with an entry; null when nothing does.</summary>
    /// <param name="note">The entry.</param>
    public ShelfMove? Moves(LedgerNote note) =>
        note switch
        {
            BackNote { Fate: Fate.Renewed, FromShelf: true, Item: { } item } => new ShelfMove(item, true),
            CameBadNote bad when Find(bad.Part)?.Fitted is { Fate: Fate.Renewed, Item: { } item } => new ShelfMove(item, false)
            {
                Bad = bad.What.Trim(),
                Supplier = string.IsNullOrWhiteSpace(bad.Supplier) ? null : bad.Supplier.Trim(),
            },
            UndoNote undo when Find(undo.Part)?.Fitted is { Fate: Fate.Renewed, FromShelf: true, Item: { } item } => new ShelfMove(
                item,
                false
            ),
            _ => null,
        };

    private static void CheckFound(OutNote found, LedgerLine? line, LedgerState state, List<FieldProblem> problems)
    {
        if (state == LedgerState.Back)
        {
            problems.Add(new("note.part", "It is back in. Take that back first."));
        }

        if (found.Way is { } way && line is not null && line.Part.Ways.Count > 0 && line.Part.Ways.All(one => one.Key != way))
        {
            problems.Add(new("note.way", "It has no such way round. Pick one of the drawings."));
        }

        if (Turns.Check(found.TurnsEighths) is { } turns)
        {
            problems.Add(turns);
        }

        problems.AddRange(found.Read().Problems);
        foreach (
            var (field, text) in ((string, string?)[])
                [
                    ("label", found.Label),
                    ("from", found.From),
                    ("position", found.Position),
                    ("hole", found.Hole),
                    ("heads", found.Heads),
                    ("remark", found.Remark),
                ]
        )
        {
            if (text?.Length > LongestText)
            {
                problems.Add(new("note." + field, $"Longer than {LongestText} characters. Shorten it."));
            }
        }
    }

    private static void CheckFitted(BackNote back, LedgerLine line, List<FieldProblem> problems)
    {
        if (!line.IsOpen)
        {
            problems.Add(
                new("note.part", line.State == LedgerState.Back ? "It is back in already. Take it out first." : "It has not come out.")
            );
            return;
        }

        var strange = line.IsStrange;
        (string Field, string Problem)? wrong = back.Fate switch
        {
            Fate.Refitted when line.State == LedgerState.Missing => (
                "fate",
                "It was missing: there is none to refit. Renew it, make it, or leave it off with a reason."
            ),
            Fate.Refitted
                when line.Found!.Verdict is LineVerdict.Renew or LineVerdict.Broken or LineVerdict.DoesNotBelong
                    && string.IsNullOrWhiteSpace(back.Reason) => (
                "reason",
                "At Strip it was found to be no good. Say why the old one goes back."
            ),
            Fate.Refitted when line.Part.NewEachTime && !strange && string.IsNullOrWhiteSpace(back.Reason) => (
                "reason",
                "It is not used twice: fit a new one or cut one from sheet. If the old one goes back, say why."
            ),
            Fate.Renewed or Fate.Made or Fate.LeftOff when strange => (
                "fate",
                "It does not belong here: refit it with a reason, or throw it out."
            ),
            Fate.Renewed when back is { Elsewhere: not null, Item: not null } or { Elsewhere: not null, FromShelf: true } => (
                "item",
                "It is from an item or from elsewhere, not from both."
            ),
            Fate.Renewed when back.Item is { } item && line.Part.KitPart is null => (
                "item",
                $"{item} is in the book as something else than {line.Part.Label}. Say what the new one is and where it is from."
            ),
            Fate.Renewed
                when back.NearMatch is null
                    && (back.Elsewhere is not null || (line.Part.KitPart is null && line.Part.Asks.Contains(Ask.Match))) => (
                "nearMatch",
                "Say whether the new one is the same or only near to it."
            ),
            Fate.Renewed when string.IsNullOrWhiteSpace(back.Item) && back.Elsewhere is null && line.Part.KitPart is not null => (
                "item",
                "Say which kit or item the new one is from, or that it is from elsewhere."
            ),
            Fate.Refitted or Fate.Made or Fate.LeftOff or Fate.Scrapped when back.Elsewhere is not null => (
                "elsewhere",
                "Only a new one comes from elsewhere."
            ),
            Fate.LeftOff when Reason.Problem(back.Reason) is { } reason => ("reason", reason),
            Fate.Scrapped when !strange => ("fate", "Thrown out with nothing in its place is left off: give a reason for it."),
            Fate.Refitted or Fate.Renewed or Fate.Made or Fate.LeftOff or Fate.Scrapped => null,
        };
        if (wrong is { } found)
        {
            problems.Add(new("note." + found.Field, found.Problem));
        }

        problems.AddRange(back.Elsewhere?.Problems() ?? []);
        if (back.SoBecause is { } because && Reason.Problem(because) is { } tooShort)
        {
            problems.Add(new("note.soBecause", tooShort));
        }
        else if (back.SoBecause?.Length > LongestText)
        {
            problems.Add(new("note.soBecause", $"Longer than {LongestText} characters. Shorten it."));
        }

        if (back.Way is { } way && line.Part.Ways.All(one => one.Key != way))
        {
            problems.Add(new("note.way", "It has no such way round. Pick one of the drawings."));
        }

        if (
            line.Found?.Hole is { Length: > 0 } hole
            && back.Fate is Fate.Refitted or Fate.Renewed or Fate.Made
            && string.IsNullOrWhiteSpace(back.Hole)
        )
        {
            problems.Add(new("note.hole", $"Say which hole it went into: it came out of “{hole}”."));
        }
        else if (back.Hole?.Length > LongestText)
        {
            problems.Add(new("note.hole", $"Longer than {LongestText} characters. Shorten it."));
        }

        if (Turns.Check(back.TurnsEighths) is { } turns)
        {
            problems.Add(turns);
        }

        if (back.Reason?.Length > LongestText)
        {
            problems.Add(new("note.reason", $"Longer than {LongestText} characters. Shorten it."));
        }
    }

    private const int LongestText = 200;

    private static LedgerLine Line(StripPart part, List<Logged<LedgerNote>> stack, bool inJob)
    {
        var last = stack.Count == 0 ? null : stack[^1];
        var found = stack.Select(logged => logged.Note).OfType<OutNote>().LastOrDefault();
        var state = last?.Note switch
        {
            OutNote { Verdict: LineVerdict.Missing } => LedgerState.Missing,
            OutNote => LedgerState.Out,
            StaysNote => LedgerState.StaysIn,
            BackNote => LedgerState.Back,
            _ => LedgerState.Expected,
        };
        return new LedgerLine(part, state, found, last?.Note as BackNote, last?.EntryId, last?.TakenAt, last?.By, inJob);
    }
}
