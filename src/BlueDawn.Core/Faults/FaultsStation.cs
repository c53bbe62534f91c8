using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tables;

namespace BlueDawn.Core.Faults;

/// <summary>Trace: from what was found to what is wrong.</summary>
public sealed class FaultsStation : LinesStation
{
    /// <inheritdoc/>
    public override Station Station => Station.Faults;

    /// <inheritdoc/>
    public override IReadOnlyList<NoteKind> Notes { get; } =
    [FindingsNote.Kind, FaultNote.Kind, ApartNote.Kind, SafetyNote.Kind, ToldNote.Kind];

    /// <inheritdoc/>
    public override IReadOnlyList<ReadingKind> Readings { get; } =
    [
        ReadingKind.Of<CompressionReading>("compression", CompressionLine.CanFind),
        ReadingKind.Of<BulbStrokesReading>("bulbStrokes", BulbStrokesLine.CanFind),
        ReadingKind.Of<FailureTimeReading>("failureTime", FailureTimeLine.CanFind),
        ReadingKind.Of<MissingFuelReading>("missingFuel", MissingFuelLine.CanFind),
    ];

    /// <summary>Quick tests that give a number. None has to be read: the trace asks for one where it tells something.</summary>
    /// <inheritdoc/>
    public override IEnumerable<GaugeLine> Lines(TrayFacts tray, SpecSheet sheet, ShopDefaults shop) =>
        QuickTests(tray.Kind, sheet, shop.QuickTests, shop.Chokes, tray.FailsAfterMin);

    /// <summary>The quick tests of a carburetor.</summary>
    /// <param name="kind">The carburetor.</param>
    /// <param name="sheet">Its sheet, or what stands in for one.</param>
    /// <param name="usual">What they are held against where the sheet says nothing.</param>
    /// <param name="chokes">What chokes are.</param>
    /// <param name="failsAfterMin">Minutes after which it is said to fail, or null.</param>
    public static IEnumerable<GaugeLine> QuickTests(
        CarburetorKind kind,
        SpecSheet sheet,
        QuickTestDefaults usual,
        ChokeDefaults chokes,
        double? failsAfterMin
    )
    {
        yield return CompressionLine.Of(kind, sheet, usual);
        yield return FailureTimeLine.Of(kind, sheet, usual, chokes, failsAfterMin);
        yield return new BulbStrokesLine(usual.BulbFew, usual.BulbMany);
        if (kind.Engine != EngineKind.TwoStroke)
        {
            yield return new MissingFuelLine(usual.MissingLeastML);
        }
    }

    /// <inheritdoc/>
    public override StationState State(TrayBook tray) => new FaultsState(tray);

    /// <summary>What the fixes that stand want proven.</summary>
    /// <inheritdoc/>
    public override IReadOnlyList<Proof>? Proves(Log log, Knowledge knowledge) =>
        FaultNote
            .Standing(log.Notes<TraceNote>())
            .Select(logged => logged.Note)
            .OfType<FaultNote>()
            .Where(note => note is { CauseId: not null, Outcome: FaultOutcome.Fixed or FaultOutcome.NoCure })
            .Select(note => knowledge.Of<FaultKnowledge>().FixOf(note.CauseId!).Proves)
            .ToList()
            is { Count: > 0 } fixes
            ? [.. fixes.SelectMany(proofs => proofs)]
            : null;

    /// <summary>What minutes to failure say, each held against its own time.</summary>
    /// <inheritdoc/>
    public override IReadOnlyList<FindingSign> Signs(TrayBook tray) =>
        tray.Lines.FirstOrDefault(line => line.Line is FailureTimeLine)
            is { Line: FailureTimeLine line, Standing: { } standing, Reading: var reading }
            ? line.Signs(reading, standing.EntryId, standing.TakenAt)
            : [];

    /// <summary>What was answered, told or done for safety. A doubtful no is no all-clear.</summary>
    /// <inheritdoc/>
    public override IEnumerable<Seen> Seen(TrayBook tray)
    {
        var knowledge = tray.Knowledge.Of<FaultKnowledge>();
        foreach (var logged in tray.Log.Notes<TraceNote>())
        {
            if (logged.Note is SafetyNote { Condition: SafetyCondition.OilChanged } changed)
            {
                yield return new("note:oilChanged", true, changed.Words(knowledge), logged.TakenAt, logged.By);
            }
            else if (logged.Note is FindingsNote found)
            {
                foreach (
                    var answer in found.Answers.Where(answer => answer is { Said: Said.Present } or { Said: Said.Absent, Doubtful: false })
                )
                {
                    // A two-stroke has no sump to fill, whatever was answered.
                    if (knowledge.FindFinding(answer.FindingId) is not { } finding || !finding.Applies.Matches(tray.Kind))
                    {
                        continue;
                    }

                    yield return new(
                        $"finding:{answer.FindingId}",
                        answer.Said == Said.Present,
                        found.FromOwner ? $"{finding.Label} (the owner says)" : finding.Label,
                        logged.TakenAt,
                        logged.By
                    );
                }
            }
        }
    }

    /// <inheritdoc/>
    public override IJsonTypeInfoResolver Json => FaultsJson.Default;
}

/// <summary>Its notes and readings as JSON.</summary>
[JsonSourceGenerationOptions(GenerationMode = JsonSourceGenerationMode.Metadata)]
[JsonSerializable(typeof(FindingsNote))]
[JsonSerializable(typeof(FaultNote))]
[JsonSerializable(typeof(ApartNote))]
[JsonSerializable(typeof(SafetyNote))]
[JsonSerializable(typeof(ToldNote))]
[JsonSerializable(typeof(CompressionReading))]
[JsonSerializable(typeof(BulbStrokesReading))]
[JsonSerializable(typeof(FailureTimeReading))]
[JsonSerializable(typeof(MissingFuelReading))]
internal sealed partial class FaultsJson : JsonSerializerContext;

/// <summary>How a trace stands. The ranking is worked out only when somebody looks at it.</summary>
public sealed class FaultsState : StationState
{
    private readonly TrayBook tray;
    private readonly FaultKnowledge knowledge;
    private readonly Lazy<Evidence> evidence;
    private readonly Lazy<Trace> trace;
    private readonly Lazy<IReadOnlyList<OpenFault>> open;

    /// <summary>The trace of a tray.</summary>
    /// <param name="tray">The tray.</param>
    public FaultsState(TrayBook tray)
    {
        this.tray = tray;
        knowledge = tray.Knowledge.Of<FaultKnowledge>();
        Notes = tray.Log.Notes<TraceNote>();
        evidence = new(() =>
            Evidence.Gather(knowledge, tray.Kind, Notes, tray.Readings, [.. tray.Lines.Select(line => line.Line.Key)], tray.Signs)
        );
        trace = new(() => Trace.Of(knowledge, tray.Kind, tray.Shop.Trace, tray.Context.History, evidence.Value));
        open = new(() => OpenFault.Of(knowledge, tray, evidence.Value, tray.Context.History, IsSettled));
    }

    /// <summary>Its steps, oldest first.</summary>
    public IReadOnlyList<Logged<TraceNote>> Notes { get; }

    /// <summary>Everything known about the fault.</summary>
    public Evidence Evidence => evidence.Value;

    /// <summary>Ranked causes and the next best step.</summary>
    public Trace Trace => trace.Value;

    /// <summary>What was seen to be wrong and has not come to its end.</summary>
    public IReadOnlyList<OpenFault> Open => open.Value;

    /// <summary>Parts that the mend of a fault takes new, where a look or a measure showed that fault and it has not been put right.</summary>
    /// <inheritdoc/>
    public override IReadOnlyList<string> PartsNeeded =>
        [
            .. Evidence
                .Items.Where(item => item is { Present: true, BeforeFix: false, Doubtful: false, From: not EvidenceFrom.Owner })
                .Select(item => knowledge.FaultOf(item.FindingId))
                .OfType<string>()
                .Where(id => !Evidence.Settled.Contains(id))
                .Distinct()
                .Select(knowledge.FindCause)
                .OfType<Cause>()
                .Where(cause => cause.PartsMoney > 0 && !cause.Refer && cause.Applies.Matches(tray.Kind))
                .SelectMany(cause => cause.Parts)
                .Distinct(),
        ];

    /// <summary>Whether what it came in for was tried again and is still there: then the trace leads.</summary>
    public bool IsBack => tray.Lines.Any(line => line.Judgement.Finding == Complaint.StillThere);

    /// <summary>Whether anything has been found or asked.</summary>
    public bool IsBegun => Notes.Any(logged => logged.Note is FindingsNote or FaultNote);

    /// <summary>Whether it was said what was wrong, or that nothing was found. What else was seen may still be open.</summary>
    public bool IsSettled => FaultNote.IsSettled(Notes);

    /// <summary>Causes confirmed by hand, for the shop's history; null while the trace is not settled.</summary>
    public IReadOnlyList<string>? Confirmed =>
        !IsSettled
            ? null
            :
            [
                .. FaultNote
                    .Standing(Notes)
                    .Select(logged => (FaultNote)logged.Note)
                    .Where(note => note is { Settles: true, CauseId: not null })
                    .Select(note => note.CauseId!),
            ];

    /// <inheritdoc/>
    public override Station Station => Station.Faults;

    /// <inheritdoc/>
    public override StationProgress Progress =>
        IsBack ? new StationProgress(1, 1, false, "still there")
        : Open.Count > 0 && IsSettled ? new StationProgress(Open.Count, Open.Count + 1, false, $"{Open.Count} open")
        : IsSettled ? StationProgress.Done(Told)
        : IsBegun ? new StationProgress(1, 1, false, "open")
        : StationProgress.NotBegun("not begun");

    /// <summary>Whether everything that a quick test showed was put right after it, or is not there any more by a later look.</summary>
    private bool IsOfBefore(JudgedLine line)
    {
        var shown = knowledge
            .StationFindings.Where(row => row.Present && row.Matches(line.Line.Key) && row.Judged == line.Judgement.Finding)
            .Select(row => row.FindingId)
            .Concat(tray.Signs.Where(sign => sign.Present && sign.Source == line.Line.Key).Select(sign => sign.FindingId))
            .Where(finding => Evidence.Items.Any(item => item.FindingId == finding))
            .ToList();
        return shown.Count > 0 && !shown.Any(Evidence.IsThere);
    }

    /// <summary>What was found, in a few words.</summary>
    private string Told =>
        Evidence.Found switch
        {
            [] => "no cause found",
            [var only] => char.ToLowerInvariant(only.Label[0]) + only.Label[1..],
            var several => $"{several.Count} things found",
        };

    /// <inheritdoc/>
    public override NextStep? Step =>
        Open.Count == 0 && !IsBack && (IsSettled || Notes.Count == 0) ? null
        : Trace.Next.Kind != StepKind.Done ? new NextStep(Station.Faults, null, null, Trace.Next.Do, Trace.Next.Why, [], Trace.Next.Caution)
        : Open is [var first, ..]
            ? NextStep.At(Station.Faults, $"{first.Label}: {first.Word}.", "Say what became of it; it is not forgotten before that.", null)
        : NextStep.At(
            Station.Faults,
            "It is still there: say what was done and did not cure it.",
            "It came in for this, and it was tried again.",
            null
        );

    /// <summary>What was seen to be wrong and has not come to its end; what is unsafe stands for itself.</summary>
    public override IReadOnlyList<Obstacle> Obstacles =>
        [
            .. Open.Where(fault => !fault.IsDanger)
                .Select(fault => new Obstacle(
                    fault.Key,
                    fault.Label,
                    Station.Faults,
                    fault.State == OpenFaultState.NotTried ? ObstacleKind.Missing : ObstacleKind.Failing,
                    fault.Word
                )),
        ];

    /// <inheritdoc/>
    public override IReadOnlyList<ReportSection> Report =>
        [
            new FaultsSection(
                [
                    .. Evidence.Found.Select(fault => new ReportFault(
                        fault.Label,
                        knowledge.FindCause(fault.CauseId)!.Fix,
                        fault.Outcome == FaultOutcome.Referred
                    )),
                ],
                Evidence.NothingFound,
                tray.Lines.Where(line => line.Line.IsQuickTest && IsOfBefore(line)).Select(line => line.Line.Key).ToHashSet()
            ),
            new LinesSection([
                .. tray
                    .Lines.Where(line => line.Line.Station == Station.Faults && line.Counts)
                    .Select(line => ReportLine.Of(line, tray.Log)),
            ]),
            new PointsSection(FaultPoints.Of(knowledge, tray, this)),
        ];
}
