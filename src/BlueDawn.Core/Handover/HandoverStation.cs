using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Safety;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Handover;

/// <summary>The tray is handed back.</summary>
/// <param name="Reason">Why it may go with something open; null when nothing is.</param>
/// <param name="Signed">The lead's signature for it; worked out when it is recorded.</param>
/// <param name="Dangers">Why it may go with each danger that stands; null when none does.</param>
/// <param name="NotToBeRun">True when it is said that it is not to be filled or run, and the tag is on it.</param>
public sealed record ReleaseNote(
    string? Reason = null,
    SignedReason? Signed = null,
    IReadOnlyList<SignedDanger>? Dangers = null,
    bool NotToBeRun = false
) : Note
{
    /// <summary>How it is checked, said and kept.</summary>
    public static NoteKind<ReleaseNote> Kind { get; } =
        new("release")
        {
            Needs = Permission.HandBack,
            Lookup = NoteLookup.Signature,
            IsDecidedOnFacts = true,
            WhenWrong = (note, tray) => note.Wrong(tray),
            Says = (note, _) =>
                note.Signed is { } signed
                    ? Sentence.Say(
                        $"Handed back{(note.NotToBeRun ? ", not to be filled or run" : "")}, signed by {signed.SignedBy}: {signed.Reason}"
                    )
                    : Sentence.Of("Handed back"),
            Leaves = (_, tray) => Waiting.After(tray.Facts, WaitEvent.HandBack),
            Shelf = NoteAnswers.Stays,
            Work = NoteAnswers.NotWork,
            Completed = (note, tray) =>
                tray.OpenElsewhere is { Count: > 0 } open
                    ? note with
                    {
                        Signed = new SignedReason(
                            note.Reason!.Trim(),
                            note.Signer ?? "",
                            [
                                .. open.Where(obstacle => obstacle.Kind != ObstacleKind.Danger)
                                    .Select(obstacle => $"{obstacle.Label}: {obstacle.Word}"),
                            ],
                            [
                                .. tray.Dangers.Select(one => new SignedDanger(
                                    one.Danger.Id,
                                    note.ReasonFor(one)!.Trim(),
                                    $"{one.Danger.Label}: {string.Join("; ", one.Shown)}"
                                )),
                            ]
                        ),
                    }
                    : note,
            StopsAt = (note, tray) => string.IsNullOrEmpty(note.Reason) ? tray.OpenElsewhere : [],
        };

    /// <summary>Who signs, once name and password have been found right; never kept as such.</summary>
    [JsonIgnore]
    public string? Signer { get; init; }

    /// <inheritdoc/>
    public override Note AsSent() => this with { Signed = null, Signer = null };

    private string? ReasonFor(StandingDanger danger) => Dangers?.FirstOrDefault(one => one.Danger == danger.Danger.Id)?.Reason;

    /// <summary>One reason for what is open, and one for each danger; what nobody can sign for is said not to be run.</summary>
    private IReadOnlyList<FieldProblem> Wrong(TrayBook tray) =>
        tray.OpenElsewhere.Count == 0
            ? []
            :
            [
                .. Logbook.Reason.Problem(Reason) is { } problem ? NoteAnswers.Wrong("reason", problem) : [],
                .. tray
                    .Dangers.Where(one => Logbook.Reason.Problem(ReasonFor(one)) is not null)
                    .SelectMany(one => NoteAnswers.Wrong($"dangers.{one.Danger.Id}", $"Say why it may go with this: {one.Danger.Label}.")),
                .. !NotToBeRun && tray.Dangers.Any(one => one.Danger.IsFloor)
                    ? NoteAnswers.Wrong("notToBeRun", "Say that it is not to be filled or run, and put the tag on it.")
                    : [],
            ];
}

/// <summary>Hand back: what is still open, the signature for it, the report.</summary>
public sealed class HandoverStation : StationModule
{
    /// <inheritdoc/>
    public override Station Station => Station.Handover;

    /// <inheritdoc/>
    public override IReadOnlyList<NoteKind> Notes { get; } = [ReleaseNote.Kind, RemarkNote.Kind];

    /// <inheritdoc/>
    public override IJsonTypeInfoResolver Json => HandoverJson.Default;

    /// <inheritdoc/>
    public override StationState State(TrayBook tray) => new HandoverState(tray);

    /// <summary>What somebody noted to be unsafe, until it is at its end.</summary>
    /// <inheritdoc/>
    public override IEnumerable<Seen> Seen(TrayBook tray) =>
        RemarkNote
            .Standing(tray.Log)
            .Where(logged => logged.Note.Fate == RemarkFate.Unsafe)
            .Select(logged => new Seen("note:saidUnsafe", true, logged.Note.About(tray), logged.TakenAt, logged.By));
}

/// <summary>Its note as JSON.</summary>
[JsonSourceGenerationOptions(GenerationMode = JsonSourceGenerationMode.Metadata)]
[JsonSerializable(typeof(ReleaseNote))]
[JsonSerializable(typeof(RemarkNote))]
internal sealed partial class HandoverJson : JsonSerializerContext;

/// <summary>Whether a tray may go.</summary>
/// <param name="tray">The tray.</param>
public sealed class HandoverState(TrayBook tray) : StationState
{
    /// <summary>The lead's signature for it as it was last handed back; null when it needed none.</summary>
    public SignedReason? Signed => tray.Log.Notes<ReleaseNote>() is [.., var last] ? last.Note.Signed : null;

    /// <summary>What stands in the way at the other stations; nothing for a machine that is not repaired.</summary>
    public IReadOnlyList<Obstacle> Open => tray.OpenElsewhere;

    /// <summary>What was remarked and stands, oldest first.</summary>
    public IReadOnlyList<Logged<RemarkNote>> Remarks { get; } = RemarkNote.Standing(tray.Log);

    /// <summary>Remarks by their fate; what is for the shop alone is not among them.</summary>
    public override IReadOnlyList<ReportSection> Report =>
        [
            new PointsSection([
                .. Remarks
                    .Where(logged => Chapter(logged.Note.Fate) is not null)
                    .Select(logged => ReportPoint.Of(Chapter(logged.Note.Fate)!.Value, Ended(logged.Note.About(tray)))),
            ]),
        ];

    private static ReportChapter? Chapter(RemarkFate fate) =>
        fate switch
        {
            RemarkFate.Done => ReportChapter.Done,
            RemarkFate.Seen => ReportChapter.Found,
            RemarkFate.Left => ReportChapter.Left,
            // It stands among the dangers.
            RemarkFate.Unsafe => null,
            RemarkFate.Watch or RemarkFate.ForOwner => ReportChapter.Watch,
            RemarkFate.ToCome => ReportChapter.ToCome,
            RemarkFate.ShopOnly => null,
        };

    private static string Ended(string words) => words[^1] is '.' or '!' or '?' or '”' ? words : words + ".";

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
