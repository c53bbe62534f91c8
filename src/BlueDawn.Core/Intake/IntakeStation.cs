using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Intake;

/// <summary>Check in: whose it is, what it does, what it looks like.</summary>
public sealed class IntakeStation : StationModule
{
    /// <inheritdoc/>
    public override Station Station => Station.Intake;

    /// <inheritdoc/>
    public override IReadOnlyList<NoteKind> Notes { get; } =
    [CheckedInNote.Kind, PhotoNote.Kind, FactsNote.Kind, PutRightNote.Kind, OldWords.Kind];

    /// <inheritdoc/>
    public override IJsonTypeInfoResolver Json => IntakeJson.Default;

    /// <inheritdoc/>
    public override StationState State(TrayBook tray) => new IntakeState(tray);
}

/// <summary>Its notes as JSON.</summary>
[JsonSourceGenerationOptions(GenerationMode = JsonSourceGenerationMode.Metadata)]
[JsonSerializable(typeof(CheckedInNote))]
[JsonSerializable(typeof(PhotoNote))]
[JsonSerializable(typeof(FactsNote))]
[JsonSerializable(typeof(PutRightNote))]
[JsonSerializable(typeof(WordsNote))]
internal sealed partial class IntakeJson : JsonSerializerContext;

/// <summary>A tray that is there has been checked in.</summary>
/// <param name="tray">The tray.</param>
public sealed class IntakeState(TrayBook tray) : StationState
{
    /// <inheritdoc/>
    public override Station Station => Station.Intake;

    /// <inheritdoc/>
    public override StationProgress Progress => StationProgress.Done("done");

    /// <summary>What the owner told us, in their words and by name.</summary>
    public override IReadOnlyList<ReportSection> Report =>
        [
            new PointsSection([
                .. tray.Facts.Complaint.Trim().Length > 0 ? [ReportPoint.Of(ReportChapter.Told, $"“{tray.Facts.Complaint.Trim()}”")] : None,
                // One trouble that is named says again what the words say.
                .. Named
                    .Where(_ => Named.Count > 1 || tray.Facts.Complaint.Trim().Length == 0)
                    .Select(complaint => ReportPoint.Of(ReportChapter.Told, $"{complaint.Label}.")),
                .. tray.Facts.FailsAfterMin is { } minutes
                    ? [new ReportPoint(ReportChapter.Told, Sentence.Say($"It fails after {Quantity.Min(minutes)}."))]
                    : None,
            ]),
        ];

    private IReadOnlyList<Complaint> Named => [.. tray.Facts.Complaints.Where(complaint => complaint.Id != Complaint.Said)];

    private static readonly ReportPoint[] None = [];
}
