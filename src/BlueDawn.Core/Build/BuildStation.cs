using System.Globalization;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tables;

namespace BlueDawn.Core.Build;

/// <summary>Build: put together in order and the right way round, every line of the ledger ended.</summary>
public sealed class BuildStation : StationModule
{
    /// <inheritdoc/>
    public override Station Station => Station.Build;

    /// <inheritdoc/>
    public override IReadOnlyList<NoteKind> Notes { get; } =
    [
        new NoteKind<BackNote>("back")
        {
            Needs = Permission.WorkAtTheBench,
            Lookup = NoteLookup.None,
            WhenWrong = Check,
            Says = (note, tray) => tray.Ledger.Say(note, Jobs(tray)),
            Leaves = NoteAnswers.AsBefore,
            Shelf = (note, tray) => tray.Ledger.Moves(note),
            Work = NoteAnswers.IsWork,
        },
        new NoteKind<CameBadNote>("cameBad")
        {
            Needs = Permission.WorkAtTheBench,
            Lookup = NoteLookup.None,
            WhenWrong = (note, tray) => tray.Ledger.Check(note, Jobs(tray)),
            Says = (note, tray) => tray.Ledger.Say(note, Jobs(tray)),
            Leaves = NoteAnswers.AsBefore,
            Shelf = (note, tray) => tray.Ledger.Moves(note),
            Work = NoteAnswers.IsWork,
            Completed = (note, tray) => note with { Item = tray.Ledger.Find(note.Part)?.Fitted?.Item },
        },
        TrialNote.Kind,
        TurnsNote.Kind,
    ];

    /// <inheritdoc/>
    public override IJsonTypeInfoResolver Json => BuildJson.Default;

    /// <summary>A screw that was turned is heard at idle and at speed.</summary>
    /// <inheritdoc/>
    public override IReadOnlyList<Proof>? Proves(Log log, Knowledge knowledge) =>
        log.Notes<TurnsNote>().Any() ? [Proof.Idle, Proof.Governed] : null;

    /// <inheritdoc/>
    public override StationState State(TrayBook tray) => new BuildState(tray);

    private static IReadOnlyList<FieldProblem> Check(BackNote back, TrayBook tray)
    {
        IReadOnlyList<FieldProblem> problems =
        [
            .. tray.Ledger.Check(back, Jobs(tray)),
            .. StackCheck.Check(tray.Knowledge.Of<StackKnowledge>(), tray.Kind.Family, tray.Sheet, tray.Ledger, back),
        ];
        if (
            problems.Count == 0
            && back is { Fate: Fate.Renewed, FromShelf: false }
            && tray.Fitting?.Items.FirstOrDefault(item => item.Number == back.Item) is { FromShelf: false } coming
        )
        {
            return NoteAnswers.Wrong(
                "item",
                $"{coming.Number} is still on order: what has not come cannot be in. Take one from the shelf, or wait for it."
            );
        }

        return
            problems.Count == 0
            && back is { Fate: Fate.Renewed, FromShelf: false, Item: not null }
            && tray.Fitting?.Items.Any(item => item.Number == back.Item) != true
            ? NoteAnswers.Wrong("item", "That is not what was decided on at Kit. Take one from the shelf, or decide on it first.")
            : problems;
    }

    private static IReadOnlyList<StripJob> Jobs(TrayBook tray) => tray.Knowledge.Of<LedgerKnowledge>().Jobs(tray.Kind.Family);
}

/// <summary>Its note as JSON.</summary>
[JsonSourceGenerationOptions(GenerationMode = JsonSourceGenerationMode.Metadata)]
[JsonSerializable(typeof(BackNote))]
[JsonSerializable(typeof(CameBadNote))]
[JsonSerializable(typeof(TrialNote))]
[JsonSerializable(typeof(TurnsNote))]
internal sealed partial class BuildJson : JsonSerializerContext;

/// <summary>How far a tray is put together.</summary>
/// <param name="tray">The tray.</param>
public sealed class BuildState(TrayBook tray) : StationState
{
    private readonly Ledger ledger = tray.Ledger;
    private readonly Lazy<IReadOnlyList<StackProblem>> problems = new(() =>
        StackCheck.Problems(tray.Knowledge.Of<StackKnowledge>(), tray.Kind.Family, tray.Sheet, tray.Ledger)
    );
    private readonly Lazy<IReadOnlyList<Screw>> screws = new(() => Screw.Of(tray));
    private readonly Lazy<IReadOnlyList<BuildAdvice>> advice = new(() =>
        [
            .. StackCheck
                .Order(tray.Knowledge.Of<StackKnowledge>(), tray.Kind.Family, tray.Ledger)
                .Select(line => StackCheck.Advice(tray.Knowledge.Of<StackKnowledge>(), tray.Kind.Family, tray.Sheet, tray.Ledger, line)),
        ]
    );

    /// <summary>Its screws whose turns are counted, and where each stands.</summary>
    public IReadOnlyList<Screw> Screws => screws.Value;

    /// <summary>What is wrong with how it has been put together.</summary>
    public IReadOnlyList<StackProblem> Problems => problems.Value;

    /// <summary>What to see to before each open part goes in, in the order they go in.</summary>
    public IReadOnlyList<BuildAdvice> Advice => advice.Value;

    /// <summary>Why it is not together yet, or null when it is.</summary>
    public string? WhyNotTogether
    {
        get
        {
            var open = ledger.Open.Select(line => line.Part.Label).ToList();
            return open.Count > 0
                    ? $"{(open.Count == 1 ? "One line of the ledger is" : $"{open.Count} lines of the ledger are")} "
                        + $"open: {string.Join(", ", open)}. Fit it, renew it or leave it off with a reason, at Build."
                : Problems.Count > 0 ? $"{Problems[0].What} {Problems[0].Mend}"
                : null;
        }
    }

    /// <summary>Parts that are out and must never be while it is tried: without them fuel is in the open or nothing stops the engine.</summary>
    public IReadOnlyList<string> NeverWithout =>
        [
            .. ledger
                .Open.Where(line => Dangers.Signs.Any(sign => sign.IsThere && sign.Sign == $"part:{line.Part.Key}"))
                .Select(line => line.Part.Label),
        ];

    /// <summary>Why the engine must not run yet for what is read at a station; null when it is together, when only parts are off that may be,
    /// or when a reason was given.</summary>
    /// <param name="at">The station.</param>
    public string? WhyNotTried(Station at) => WhyNotTogether is { } why && !MayBeTried(at) ? why : null;

    /// <summary>What is off while it is tried all the same: what may be off for a trial, or what a reason was given for. A choke is watched
    /// with the filter off: that bears on nothing.</summary>
    /// <inheritdoc/>
    public override IReadOnlyList<string> TriedWithout(Station at) =>
        WhyNotTogether is null || !MayBeTried(at)
            ? []
            :
            [
                .. ledger.Open.Where(line => at != Station.Chokes || !line.Part.OffForChoke).Select(line => line.Part.Label),
                .. Problems.Count > 0 ? ["how it is put together"] : Array.Empty<string>(),
            ];

    private bool MayBeTried(Station at) =>
        NeverWithout.Count == 0
        && (
            TrialNote.Stands(tray)
            || (Problems.Count == 0 && ledger.Open.All(line => at == Station.Chokes ? line.Part.OffForChoke : line.Part.MayBeOff))
        );

    /// <inheritdoc/>
    public override Station Station => Station.Build;

    /// <inheritdoc/>
    public override StationProgress Progress
    {
        get
        {
            var (open, total) = (ledger.Open.Count + Problems.Count, ledger.Taken.Count);
            return !ledger.IsBegun ? new StationProgress(0, 0, true, "nothing out")
                : open > 0 ? new StationProgress(open, total, false, $"{open} open")
                : StationProgress.Done(total == 0 ? "nothing out" : "all in", total);
        }
    }

    /// <inheritdoc/>
    public override NextStep? Step
    {
        get
        {
            if (Problems is [var problem, ..])
            {
                return NextStep.At(Station.Build, problem.Mend, $"{problem.What} {problem.Why}", null);
            }

            if (Advice is not [var next, ..])
            {
                return null;
            }

            var line = ledger.Find(next.Part)!;
            return NextStep.At(
                Station.Build,
                line.State == LedgerState.Missing
                    ? $"It was missing: renew or make {line.Part.Label}, or leave it off with a reason."
                    : $"Fit: {line.Part.Label}{(next.RightWay is { } way ? $", {Lower(way.Label)}" : "")}.",
                next.Reason ?? $"{ledger.Open.Count} to go.",
                null
            );
        }
    }

    /// <inheritdoc/>
    public override IReadOnlyList<Obstacle> Obstacles =>
        [
            .. ledger.Open.Select(line => new Obstacle(
                $"build/{line.Part.Key}",
                Capital(line.Part.Label),
                Station.Build,
                ObstacleKind.Missing,
                line.State == LedgerState.Missing ? "Missing, nothing in its place" : "Out, not back in"
            )),
            .. Problems.Select(problem => new Obstacle(
                $"build/{problem.Part}",
                Capital(ledger.Find(problem.Part)!.Part.Label),
                Station.Build,
                ObstacleKind.Failing,
                problem.Fault switch
                {
                    StackFault.WrongWay => "Wrong way round",
                    StackFault.WrongOrder => "Wrong order",
                    StackFault.WrongHole => "In another hole",
                    StackFault.LeftOut => "Something left out under it",
                }
            )),
        ];

    /// <summary>The parts of the ledger that are worth telling: what simply went back is not. And why it was tried before all was on.</summary>
    public override IReadOnlyList<ReportSection> Report =>
        [
            new PartsSection(
                [
                    .. ledger
                        .Lines.Where(line => line.Fitted is { } fitted && (fitted.Fate != Fate.Refitted || fitted.TurnsEighths is not null))
                        .Select(line => new ReportPart(
                            line.Part.Label,
                            line.Fitted!.Fate,
                            line.Fitted.Item,
                            Screws.FirstOrDefault(screw => screw.Part == line.Part.Key)?.Eighths ?? line.Fitted.TurnsEighths,
                            line.Fitted.Reason,
                            line.By ?? ""
                        )),
                ],
                ledger.Lines.Where(line => line.Fitted is not null).ToDictionary(line => line.Part.Key, line => line.Fitted!.Fate)
            ),
            new PointsSection([
                .. tray
                    .Log.Notes<TrialNote>()
                    .Select(logged => ReportPoint.Of(ReportChapter.Found, $"Tried before all was on, because: {logged.Note.Because}.")),
                .. ledger
                    .Lines.Where(line =>
                        line.Fitted is { Fate: not Fate.Refitted } or { Reason.Length: > 0 } or { SoBecause: not null }
                        || line is { Found.Verdict: LineVerdict.Ours, Fitted: not null }
                    )
                    .Select(line => new ReportPoint(
                        ReportChapter.Parts,
                        line is { Found.Verdict: LineVerdict.Ours, Fitted.Fate: not Fate.LeftOff }
                            ? Sentence.Say($"Put in by us: {line.Part.Label}.")
                            : Sentence.Say($"{line.Fitted!.Say(line.Part.Label, line.Part.Ways)}{Price(line.Fitted)}.")
                    )),
                .. ledger
                    .Lines.Where(line => line.Fitted is { Fate: Fate.Renewed, NearMatch: true })
                    .Select(line =>
                        ReportPoint.Of(
                            ReportChapter.Watch,
                            $"{line.Part.Label} is only near to the old one: if something comes back, it is looked at first."
                        )
                    ),
                .. Screws
                    .Where(screw => screw is { IsIn: true, Eighths: not null } && (screw.Steps.Count > 0 || IsSet(screw)))
                    .Select(screw =>
                        ReportPoint.Of(
                            ReportChapter.Screws,
                            $"{screw.Label}: {Turns.Text(screw.Eighths!.Value)} turns out from a light seat{WasAt(screw)}{Because(screw)}."
                        )
                    ),
            ]),
        ];

    private string Price(BackNote fitted) =>
        fitted.Elsewhere?.Price is { } price ? string.Create(CultureInfo.InvariantCulture, $", {price:0.00} {tray.Shop.Currency}") : "";

    private bool IsSet(Screw screw) => ledger.Find(screw.Part)?.Fitted?.TurnsEighths is not null;

    private static string WasAt(Screw screw) =>
        screw.FoundEighths is { } found && found != screw.Eighths ? $", found at {Turns.Text(found)}" : "";

    private static string Because(Screw screw) =>
        screw.Steps is [.., { Why: { } why }] && why.Trim().Length > 0 ? $", because: {why.Trim().TrimEnd('.')}" : "";

    private static string Capital(string text) => char.ToUpperInvariant(text[0]) + text[1..];

    private static string Lower(string text) => char.ToLowerInvariant(text[0]) + text[1..];
}
