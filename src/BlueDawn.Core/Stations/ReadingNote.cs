using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Shop;

namespace BlueDawn.Core.Stations;

/// <summary>A reading of a gauge line; a correction when its entry supersedes another.</summary>
/// <param name="Line">The line's key.</param>
/// <param name="Typed">What was typed.</param>
/// <param name="Reading">What that was understood as, in base units; worked out when it is recorded.</param>
/// <param name="Finding">What was found by the spec sheet of that day; worked out when it is recorded.</param>
/// <param name="Sure">True when a number far from the sheet was asked about and is really so.</param>
/// <param name="Without">What was off while the engine ran for it, by name; null when nothing was. Worked out when it is recorded.</param>
public sealed record ReadingNote(
    string Line,
    TypedReading Typed,
    Reading? Reading = null,
    string? Finding = null,
    bool Sure = false,
    IReadOnlyList<string>? Without = null
) : Note
{
    /// <summary>A reading is checked, judged and followed up by its line.</summary>
    public static NoteKind<ReadingNote> Kind { get; } =
        new("reading")
        {
            Needs = Permission.WorkAtTheBench,
            Lookup = NoteLookup.None,
            WhenWrong = (note, tray) => note.LineOn(tray) is { } line ? note.Wrong(line, tray) : [],
            Says = (note, tray) =>
                note.Reading is { } reading && note.LineOn(tray) is { } line
                    ? note.Without is { } off
                        ? Sentence.Say($"{line.Label}: {line.Describe(reading)}, without {string.Join(", ", off)}")
                        : Sentence.Say($"{line.Label}: {line.Describe(reading)}")
                    : Sentence.Say($"{note.Line}"),
            Leaves = (note, tray) =>
                note.Reading is { } reading && note.LineOn(tray) is { } line ? line.FactsAfter(reading, tray) : tray.Facts,
            Shelf = NoteAnswers.Stays,
            Work = NoteAnswers.NotWork,
            Completed = (note, tray) =>
                note.LineOn(tray) is { } line && line.Read(note.Typed).Reading is { } typed && line.Complete(typed, tray) is var reading
                    ? note with
                    {
                        Reading = reading,
                        Finding = line.Judge(reading, PinSet.Empty).Finding,
                        Without = line.Running && tray.TriedWithout(line.Station) is { Count: > 0 } off ? off : null,
                    }
                    : note,
            LeavesWithout = (note, tray) =>
                note.Reading is { } reading && note.LineOn(tray) is { } line ? line.FactsWithout(reading, tray) : tray.Facts,
        };

    /// <summary>What it says while it stands: what is good on a trial is good for now.</summary>
    /// <param name="judged">What its line says of it.</param>
    public Judgement Standing(Judgement judged) => Without is { Count: > 0 } off ? judged.OfATrial(off) : judged;

    /// <inheritdoc/>
    public override Note AsSent() => this with { Reading = null, Finding = null, Without = null };

    private GaugeLine? LineOn(TrayBook tray) => tray.Lines.FirstOrDefault(line => line.Line.Key == Line)?.Line;

    /// <summary>What cannot be read comes first, then what stands against it on this tray, then numbers far from the sheet.</summary>
    private IReadOnlyList<FieldProblem> Wrong(GaugeLine line, TrayBook tray) =>
        line.Wrong(Typed) is { Count: > 0 } problems ? problems
        : line.Read(Typed).Reading is { } reading && line.CheckOn(reading, tray) is { Count: > 0 } against ? against
        : Sure ? []
        :
        [
            .. Slip.Find(line, Typed)
                .Select(slip => new FieldProblem(slip.Field, $"{slip.Question} Type it again, or say that it is really so.")),
        ];
}

/// <summary>A reading is taken back with none in its place; its entry supersedes the reading's.</summary>
public sealed record WithdrawalNote : Note
{
    /// <summary>What it takes back says the rest.</summary>
    public static NoteKind<WithdrawalNote> Kind { get; } =
        new("withdrawal")
        {
            Needs = Permission.WorkAtTheBench,
            Lookup = NoteLookup.None,
            WhenWrong = NoteAnswers.Right,
            Says = (_, _) => Sentence.None,
            Leaves = NoteAnswers.AsBefore,
            Shelf = NoteAnswers.Stays,
            Work = NoteAnswers.NotWork,
        };
}
