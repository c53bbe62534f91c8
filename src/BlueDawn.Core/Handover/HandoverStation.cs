using System.Text.Json.Serialization;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Safety;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Handover;

/// <summary>The tray is handed back.</summary>
/// <param name="Reason">Why it may go with something open; null when nothing is.</param>
/// <param name="Signed">The lead's signature for it; worked out when it is recorded.</param>
public sealed record ReleaseNote(string? Reason = null, SignedReason? Signed = null) : Note
{
    /// <summary>Who signs, once name and password have been found right; never kept as such.</summary>
    [JsonIgnore]
    public string? Signer { get; init; }

    /// <inheritdoc/>
    public override Note AsSent() => this with { Signed = null, Signer = null };
}

/// <summary>Hand back: what is still open, the signature for it, the report.</summary>
public sealed class HandoverStation : StationModule
{
    /// <inheritdoc/>
    public override Station Station => Station.Handover;

    /// <inheritdoc/>
    public override IReadOnlyList<NoteKind> Notes { get; } = [NoteKind.Of<ReleaseNote>("release", May.HandBack)];

    /// <inheritdoc/>
    public override StationState State(TrayBook tray) => new HandoverState(tray);

    /// <inheritdoc/>
    public override bool ChangesFacts(Note note) => note is ReleaseNote;

    /// <inheritdoc/>
    public override IReadOnlyList<FieldProblem> Check(Note note, TrayBook tray) =>
        note is ReleaseNote release && ((HandoverState)State(tray)).Open.Count > 0 && Reason.Problem(release.Reason) is { } problem
            ? Wrong("reason", problem)
            : [];

    /// <inheritdoc/>
    public override Note Complete(Note note, TrayBook tray) =>
        note is ReleaseNote release && ((HandoverState)State(tray)).Open is { Count: > 0 } open
            ? release with
            {
                Signed = new SignedReason(
                    release.Reason!.Trim(),
                    release.Signer ?? "",
                    [.. open.Select(obstacle => $"{obstacle.Label}: {obstacle.Word}")]
                ),
            }
            : note;

    /// <inheritdoc/>
    public override TrayFacts Facts(Note note, TrayBook tray) => Waiting.After(tray.Facts, WaitEvent.HandBack);

    /// <inheritdoc/>
    public override Sentence Say(Note note, TrayBook tray) =>
        note is ReleaseNote { Signed: { } signed }
            ? Sentence.Say($"Handed back, signed by {signed.SignedBy}: {signed.Reason}")
            : Sentence.Of("Handed back");
}

/// <summary>Whether a tray may go.</summary>
/// <param name="tray">The tray.</param>
public sealed class HandoverState(TrayBook tray) : StationState
{
    /// <summary>What stands in the way at the other stations; nothing for a machine that is not repaired.</summary>
    public IReadOnlyList<Obstacle> Open => tray.OpenElsewhere;

    /// <inheritdoc/>
    public override Station Station => Station.Handover;

    /// <inheritdoc/>
    public override StationProgress Progress =>
        tray.IsHandedBack ? StationProgress.Done("done")
        : Open.Count > 0 ? new StationProgress(1, 1, true, "not yet")
        : new StationProgress(1, 1, false, "ready");

    /// <inheritdoc/>
    public override NextStep? Step =>
        tray.IsHandedBack
            ? NextStep.At(Station.Handover, "Handed back.", "Nothing is left to do on this tray.", null)
            : NextStep.At(Station.Handover, "Everything is read and good: hand it back.", "No line is open.", Caution.HandBack);
}
