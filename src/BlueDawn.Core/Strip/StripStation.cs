using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Safety;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Strip;

/// <summary>Strip: taken apart, every part a line of the ledger.</summary>
public sealed class StripStation : StationModule
{
    /// <inheritdoc/>
    public override Station Station => Station.Strip;

    /// <inheritdoc/>
    public override IReadOnlyList<NoteKind> Notes { get; } =
    [NoteKind.Of<JobNote>("job"), NoteKind.Of<OutNote>("out"), NoteKind.Of<StaysNote>("stays"), NoteKind.Of<UndoNote>("undo")];

    /// <inheritdoc/>
    public override StationState State(TrayBook tray) => new StripState(tray);

    /// <inheritdoc/>
    public override IReadOnlyList<FindingSign> Signs(TrayBook tray) =>
        LedgerSigns.Of(
            tray.Knowledge.Of<LedgerKnowledge>(),
            tray.Knowledge.Of<StackKnowledge>(),
            tray.Kind.Family,
            tray.Sheet,
            tray.Ledger
        );

    /// <inheritdoc/>
    public override IReadOnlyList<FieldProblem> Check(Note note, TrayBook tray) =>
        tray.Ledger.Check((LedgerNote)note, tray.Knowledge.Of<LedgerKnowledge>().Jobs(tray.Kind.Family));

    /// <inheritdoc/>
    public override Note Complete(Note note, TrayBook tray) => note is OutNote found ? found.Read().Note : note;

    /// <inheritdoc/>
    public override Sentence Say(Note note, TrayBook tray) =>
        tray.Ledger.Say((LedgerNote)note, tray.Knowledge.Of<LedgerKnowledge>().Jobs(tray.Kind.Family));

    /// <inheritdoc/>
    public override ShelfMove? Moves(Note note, TrayBook tray) => tray.Ledger.Moves((LedgerNote)note);
}

/// <summary>How far a tray is taken apart.</summary>
/// <param name="tray">The tray.</param>
public sealed class StripState(TrayBook tray) : StationState
{
    private readonly Ledger ledger = tray.Ledger;

    /// <inheritdoc/>
    public override Station Station => Station.Strip;

    /// <inheritdoc/>
    public override StationProgress Progress
    {
        get
        {
            if (ledger.Job is null)
            {
                return StationProgress.NotBegun("not begun");
            }

            var (open, total) = (ledger.ToStrip.Count, ledger.Lines.Count(line => line.InJob));
            return open > 0
                ? new StationProgress(open, total, false, $"{open} to go")
                : StationProgress.Done(total == 0 ? "stays shut" : "all out", total);
        }
    }

    /// <inheritdoc/>
    public override NextStep? Step =>
        ledger switch
        {
            { Job: null, IsBegun: false } => NextStep.At(
                Station.Strip,
                "Say how far it comes apart.",
                "Every part that comes out gets a line: so nothing stays on the bench and nothing goes back the wrong way round.",
                Caution.Strip
            ),
            { Job: not null, ToStrip: [var line, ..] } => NextStep.At(
                Station.Strip,
                $"Take off: {line.Part.Label}.",
                line.Part.Remind ?? $"{ledger.ToStrip.Count} to go.",
                Caution.Strip
            ),
            _ => null,
        };
}
