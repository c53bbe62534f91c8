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

    private static readonly Dictionary<Type, (NoteKind Kind, StationModule Station)> ByType = All.SelectMany(station =>
            station.Notes.Select(kind => (kind, station))
        )
        .ToDictionary(pair => pair.kind.Type);

    /// <summary>The kind of a note.</summary>
    /// <param name="note">The note.</param>
    public static NoteKind KindOf(Note note) => ByType[note.GetType()].Kind;

    /// <summary>The station a note belongs to; a reading belongs to its line's.</summary>
    /// <param name="note">The note.</param>
    /// <param name="tray">The tray it is recorded on.</param>
    public static StationModule StationOf(Note note, TrayBook tray) =>
        note is ReadingNote reading && tray.Lines.FirstOrDefault(line => line.Line.Key == reading.Line) is { } line
            ? All.Single(station => station.Station == line.Line.Station)
            : ByType[note.GetType()].Station;

    /// <summary>A tray seen by these stations.</summary>
    /// <param name="facts">What stands on it.</param>
    /// <param name="context">What it is judged by.</param>
    /// <param name="log">Its logbook.</param>
    public static TrayBook Open(TrayFacts facts, TrayContext context, Log log) => new(facts, context, log, All);

    /// <summary>What an entry says, in the words of its station.</summary>
    /// <param name="entry">The entry.</param>
    /// <param name="tray">The tray.</param>
    public static Measures.Sentence Say(Entry entry, TrayBook tray) =>
        entry is { Note: WithdrawalNote, Supersedes: { } withdrawn } && tray.Log.Find(withdrawn) is { } before
            ? Measures.Sentence.Say($"Withdrawn: {Say(before, tray)}")
            : StationOf(entry.Note, tray).Say(entry.Note, tray);
}
