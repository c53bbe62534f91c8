using BlueDawn.Core.Build;
using BlueDawn.Core.Chokes;
using BlueDawn.Core.Cleaning;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Gauging;
using BlueDawn.Core.Handover;
using BlueDawn.Core.Intake;
using BlueDawn.Core.Kits;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Proving;
using BlueDawn.Core.Setting;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Strip;

namespace BlueDawn.Core.Trays;

/// <summary>The bench: its stations in bench order. A new station is one more line here.</summary>
public static class StationList
{
    /// <summary>Every station, in bench order.</summary>
    public static IReadOnlyList<StationModule> All { get; } =
    [
        new IntakeStation(),
        new FaultsStation(),
        new KitsStation(),
        new StripStation(),
        new CleaningStation(),
        new GaugingStation(),
        new SettingStation(),
        new ChokesStation(),
        new BuildStation(),
        new ProvingStation(),
        new HandoverStation(),
    ];

    /// <summary>Every kind of note.</summary>
    public static IReadOnlyList<NoteKind> Notes { get; } = [.. All.SelectMany(station => station.Notes)];

    /// <summary>Every kind of reading.</summary>
    public static IReadOnlyList<ReadingKind> Readings { get; } =
    [.. All.SelectMany(station => station.Readings).DistinctBy(kind => kind.Type)];

    /// <summary>Every finding a judgement can name, each id once.</summary>
    public static IReadOnlyList<LineFinding> Findings { get; } =
    [
        LineFinding.NotRead,
        .. All.SelectMany(station => station.Readings).SelectMany(kind => kind.Findings).DistinctBy(finding => finding.Id),
    ];

    private static readonly Dictionary<Type, NoteKind> ByType = Notes.ToDictionary(kind => kind.Type);

    /// <summary>The kind of a note.</summary>
    /// <param name="note">The note.</param>
    public static NoteKind KindOf(Note note) => ByType[note.GetType()];

    /// <summary>A tray seen by these stations.</summary>
    /// <param name="facts">What stands on it.</param>
    /// <param name="context">What it is judged by.</param>
    /// <param name="log">Its logbook.</param>
    public static TrayBook Open(TrayFacts facts, TrayContext context, Log log) => new(facts, context, log, All, KindOf);

    /// <summary>What an entry says, in the words of its station.</summary>
    /// <param name="entry">The entry.</param>
    /// <param name="tray">The tray.</param>
    public static Measures.Sentence Say(Entry entry, TrayBook tray) =>
        entry is { Note: WithdrawalNote, Supersedes: { } withdrawn } && tray.Log.Find(withdrawn) is { } before
            ? Measures.Sentence.Say($"Withdrawn: {Say(before, tray)}")
            : KindOf(entry.Note).Say(entry.Note, tray);
}
