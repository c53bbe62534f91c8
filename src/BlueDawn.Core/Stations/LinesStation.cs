using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Stations;

/// <summary>What every station with gauge lines does with a reading.</summary>
public abstract class LinesStation : StationModule
{
    /// <summary>The kinds of note all such stations share; listed by the first of them.</summary>
    protected static IReadOnlyList<NoteKind> ReadingNotes { get; } =
    [NoteKind.Of<ReadingNote>("reading"), NoteKind.Of<WithdrawalNote>("withdrawal")];

    /// <inheritdoc/>
    public override StationState State(TrayBook tray) => new LinesState(Station, tray);

    /// <inheritdoc/>
    public override IReadOnlyList<FieldProblem> Check(Note note, TrayBook tray) =>
        note is not ReadingNote reading || Line(reading, tray) is not { } line ? []
        : line.Wrong(reading.Typed) is { Count: > 0 } problems ? problems
        : reading.Sure ? []
        :
        [
            .. Slip.Find(line, reading.Typed)
                .Select(slip => new FieldProblem(slip.Field, $"{slip.Question} Type it again, or say that it is really so.")),
        ];

    /// <inheritdoc/>
    public override Note Complete(Note note, TrayBook tray) =>
        note is ReadingNote reading && Line(reading, tray) is { } line && line.Read(reading.Typed).Reading is { } read
            ? reading with
            {
                Reading = read,
                Finding = line.Judge(read, PinSet.Empty).Finding,
            }
            : note;

    /// <inheritdoc/>
    public override Sentence Say(Note note, TrayBook tray) =>
        note switch
        {
            ReadingNote { Reading: { } read } reading when Line(reading, tray) is { } line => Sentence.Say(
                $"{line.Label}: {line.Describe(read)}"
            ),
            ReadingNote reading => Sentence.Say($"{reading.Line}"),
            _ => Sentence.None,
        };

    private static GaugeLine? Line(ReadingNote note, TrayBook tray) => tray.Lines.FirstOrDefault(line => line.Line.Key == note.Line)?.Line;
}
