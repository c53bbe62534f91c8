using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using BlueDawn.Core.Logbook;
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
    public override StationState State(TrayBook tray) => new IntakeState();
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
public sealed class IntakeState : StationState
{
    /// <inheritdoc/>
    public override Station Station => Station.Intake;

    /// <inheritdoc/>
    public override StationProgress Progress => StationProgress.Done("done");
}
