using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Chokes;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Gauging;
using BlueDawn.Core.Holding;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Setting;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;
using BlueDawn.Server.Problems;
using BlueDawn.Store;
using BlueDawn.Store.Trays;
using Microsoft.AspNetCore.Http.HttpResults;

namespace BlueDawn.Server.Compute;

/// <summary>Text to read as a measure.</summary>
/// <param name="Text">What was typed.</param>
/// <param name="Dimension">What it measures.</param>
/// <param name="Units">Units of a number without a unit; metric when not given.</param>
internal sealed record MeasureInput(string Text, Dimension Dimension, UnitSystem Units = UnitSystem.Metric);

/// <summary>A measure that was read.</summary>
/// <param name="Value">In the base unit.</param>
/// <param name="Unit">The base unit: mm, kPa, g, rpm, s …</param>
internal sealed record MeasureResult(decimal Value, string Unit);

/// <summary>A number drill.</summary>
internal sealed record NumberDrillView(int Number, decimal DiameterIn, decimal DiameterMm);

/// <summary>Findings to rank causes by.</summary>
/// <param name="Family">The carburetor's family.</param>
/// <param name="Answers">What was found; ids as in /api/faults/knowledge.</param>
/// <param name="Engine">The engine, when known.</param>
/// <param name="Choke">The choke, when known.</param>
/// <param name="FromOwner">True when it is the owner's word.</param>
/// <param name="LabourPerHour">Hourly rate that turns money into minutes, above 0.</param>
/// <param name="ProofMin">Minutes to prove a fix.</param>
/// <param name="ReferMin">What giving up costs, in minutes.</param>
/// <param name="Steps">What was done since, in order: entries of the trace as a tray's logbook has them (findings, fault, apart, safety,
/// told), and readings of its quick tests. A check that told nothing is a findings entry whose answers could not be told.</param>
internal sealed record FaultTraceInput(
    CarburetorFamily Family,
    IReadOnlyList<FindingAnswer> Answers,
    EngineKind? Engine = null,
    ChokeKind? Choke = null,
    bool FromOwner = false,
    double LabourPerHour = 48,
    double ProofMin = 5,
    double ReferMin = 240,
    IReadOnlyList<Note>? Steps = null
);

/// <summary>A check that may come next.</summary>
/// <param name="CheckId">Which.</param>
/// <param name="Label">What to do.</param>
/// <param name="Min">Minutes it takes from here, with what has to be asked before it.</param>
/// <param name="ExpectedMin">Expected minutes to a fix this way.</param>
/// <param name="BeforeCheckId">The check that has to be done first, or null.</param>
/// <param name="Reveals">Findings it answers.</param>
/// <param name="Lines">Quick tests on which what it shows is read as a number.</param>
internal sealed record RankedCheck(
    string CheckId,
    string Label,
    double Min,
    double ExpectedMin,
    string? BeforeCheckId,
    IReadOnlyList<string> Reveals,
    IReadOnlyList<string> Lines
);

/// <summary>What a reading among the steps said.</summary>
/// <param name="Line">The quick test.</param>
/// <param name="Verdict">Its verdict.</param>
/// <param name="Finding">What was found.</param>
/// <param name="DoNext">What to do about it.</param>
internal sealed record TraceReading(string Line, Verdict Verdict, string Finding, string DoNext);

/// <summary>A cause and how likely it is.</summary>
internal sealed record RankedCause(string CauseId, string Label, double Probability);

/// <summary>Ranked causes and the next best step.</summary>
internal sealed record FaultTraceResult(
    IReadOnlyList<RankedCause> Causes,
    double NoneProbability,
    double SeveralProbability,
    double ElsewhereProbability,
    StepKind NextKind,
    string? NextCheckId,
    string? NextCauseId,
    double NextMin,
    string NextDo,
    string NextWhy,
    IReadOnlyList<string> NextAsks,
    SafetyCondition? NextFirst,
    string? NextFirstWords,
    IReadOnlyList<RankedCheck> Checks,
    ApartLevel Apart,
    IReadOnlyList<Hypothesis> Hypotheses,
    IReadOnlyList<string> Doubts,
    IReadOnlyList<TraceReading> Readings
);

/// <summary>The pure computations, for scripts: no sign-in, nothing stored, the unit in every field name.</summary>
internal static class ComputeEndpoints
{
    private const int MostSteps = 200;

    public static void MapCompute(this RouteGroupBuilder api)
    {
        var compute = api.MapGroup("/compute").WithTags("Compute");
        compute
            .MapPost("/jet-gauge", (JetGaugeInput input) => Judge(input, JetGauge.Check, JetGauge.Judge))
            .WithName("computeJetGauge")
            .WithSummary("Size a jet from pins that go and do not go");
        compute
            .MapPost("/float-level", (FloatLevelInput input) => Judge(input, FloatLevel.Check, FloatLevel.Judge))
            .WithName("computeFloatLevel")
            .WithSummary("Judge float heights");
        compute
            .MapPost("/float-mass", (FloatMassInput input) => Judge(input, FloatMass.Check, FloatMass.Judge))
            .WithName("computeFloatMass")
            .WithSummary("Judge a float's mass");
        compute
            .MapPost("/hold-test", (HoldTestInput input) => Judge(input, HoldTest.Check, HoldTest.Judge))
            .WithName("computeHoldTest")
            .WithSummary("Judge a pressure hold test");
        compute
            .MapPost("/float-balance", (FloatBalanceInput input) => Judge(input, FloatBalance.Check, FloatBalance.Of))
            .WithName("computeFloatBalance")
            .WithSummary("Where a float comes to rest against its needle");
        compute
            .MapPost("/pop-off", (PopOffInput input) => Judge(input, PopOff.Check, PopOff.Look))
            .WithName("computePopOff")
            .WithSummary("Find where a needle lets go in a series of pressures");
        compute
            .MapPost("/choke-opening", (OpeningSeriesInput input) => Judge(input, OpeningSeries.Check, OpeningSeries.Look))
            .WithName("computeChokeOpening")
            .WithSummary("Find in a series of plate angle and speed when a choke opened and whether the engine faltered");
        compute.MapPost("/fault-trace", TraceFaultAsync).WithName("computeFaultTrace").WithSummary("Trace a fault from findings");
        compute
            .MapPost("/measure", (MeasureInput input) => ReadMeasure(input))
            .WithName("computeMeasure")
            .WithSummary("Read a measure as it is typed");
        compute
            .MapGet("/number-drills", () =>
                TypedResults.Ok(NumberDrills.All.Select(drill => new NumberDrillView(drill.Number, drill.DiameterIn, drill.DiameterMm)))
            )
            .WithName("listNumberDrills")
            .WithSummary("Number drills and their sizes");
        compute.MapKitCompute();
        compute.MapCleaningCompute();
    }

    private static Results<Ok<TResult>, ValidationProblem> Judge<TInput, TResult>(
        TInput input,
        Func<TInput, IReadOnlyList<FieldProblem>> check,
        Func<TInput, TResult> judge
    ) => check(input) is { Count: > 0 } problems ? Problem.Fields(problems) : TypedResults.Ok(judge(input));

    private static async Task<Results<Ok<FaultTraceResult>, ValidationProblem>> TraceFaultAsync(
        FaultTraceInput input,
        BlueDawnDb db,
        KnowledgeMemory memory,
        CancellationToken cancel
    )
    {
        var knowledge = (await memory.OfAsync(db, cancel)).Of().Of<FaultKnowledge>();
        var note = new FindingsNote(null, input.Answers, input.FromOwner);
        var shop = new TraceDefaults(input.LabourPerHour, input.ProofMin, input.ReferMin);
        var steps = input.Steps ?? [];
        var kind = new CarburetorKind(input.Family, input.Engine, input.Choke);
        var lines = FaultsStation.QuickTests(kind, SpecSheet.NoneYet(kind), new(), new(), null).ToList();
        List<FieldProblem> problems =
        [
            .. note.Check(knowledge),
            .. shop.Check(),
            .. steps.Count > MostSteps ? [new FieldProblem("steps", $"No more than {MostSteps} steps.")] : Array.Empty<FieldProblem>(),
            .. steps.SelectMany(
                (step, i) =>
                    step is TraceNote trace
                        ? trace.Check(knowledge).Select(problem => problem with { Field = $"steps[{i}].{problem.Field["note.".Length..]}" })
                    : step is ReadingNote reading
                        ? Problems(reading, lines).Select(problem => problem with { Field = $"steps[{i}].{problem.Field}" })
                    : [new FieldProblem($"steps[{i}]", "A step of a trace is one of findings, fault, apart, safety, told and reading.")]
            ),
        ];
        if (problems.Count > 0)
        {
            return Problem.Fields(problems);
        }

        var timed = steps.Prepend(note).Select((step, i) => (Note: step, At: DateTimeOffset.UnixEpoch.AddMinutes(i))).ToList();
        var read = (
            from step in timed
            where step.Note is ReadingNote
            let line = lines.First(line => line.Key == ((ReadingNote)step.Note).Line)
            let reading = line.Read(((ReadingNote)step.Note).Typed).Reading
            select (step.At, Line: line, Reading: reading, Judged: line.Judge(reading, PinSet.Empty))
        ).ToList();
        var evidence = Evidence.Gather(
            knowledge,
            kind,
            [
                .. timed
                    .Where(step => step.Note is TraceNote)
                    .Select(step => new Logged<TraceNote>(Guid.Empty, step.At, "", (TraceNote)step.Note)),
            ],
            [.. read.Select(one => new JudgedReading(Guid.Empty, one.Line.Key, one.Judged.Finding, one.At, false))],
            [.. lines.Select(line => line.Key)],
            [
                .. read.Where(one => one.Line is FailureTimeLine)
                    .TakeLast(1)
                    .SelectMany(one => ((FailureTimeLine)one.Line).Signs(one.Reading, Guid.Empty, one.At)),
            ]
        );
        var trace = Trace.Of(knowledge, kind, shop, FaultHistory.None, evidence);
        return TypedResults.Ok(
            new FaultTraceResult(
                [.. trace.Causes.Select(standing => new RankedCause(standing.Cause.Id, standing.Cause.Label, standing.Probability))],
                trace.NoneProbability,
                trace.SeveralProbability,
                trace.ElsewhereProbability,
                trace.Next.Kind,
                trace.Next.CheckId,
                trace.Next.CauseId,
                trace.Next.Minutes,
                trace.Next.Do.ToString(),
                trace.Next.Why.ToString(),
                trace.Next.Asks,
                trace.Next.First,
                trace.Next.FirstWords,
                [
                    .. trace.Checks.Select(value => new RankedCheck(
                        value.Check.Id,
                        value.Check.Label,
                        value.Minutes,
                        value.ExpectedMinutes,
                        value.Before?.Id,
                        value.Check.Reveals,
                        knowledge.LinesOf(value.Check.Id)
                    )),
                ],
                trace.Evidence.Apart,
                trace.Hypotheses,
                trace.Doubts,
                [
                    .. read.Select(one => new TraceReading(
                        one.Line.Key,
                        one.Judged.Verdict,
                        one.Judged.Finding,
                        one.Judged.DoNext.ToString()
                    )),
                ]
            )
        );
    }

    private static IEnumerable<FieldProblem> Problems(ReadingNote reading, List<GaugeLine> lines) =>
        lines.FirstOrDefault(line => line.Key == reading.Line) is { } line
            ? line.Wrong(reading.Typed)
            :
            [
                new FieldProblem(
                    "line",
                    $"Not a quick test of this machine. There are: {string.Join(", ", lines.Select(one => one.Key))}."
                ),
            ];

    private static Results<Ok<MeasureResult>, ValidationProblem> ReadMeasure(MeasureInput input) =>
        MeasureEntry.Parse(input.Text, input.Dimension, input.Units) is { Problem: null, Value: var value }
            ? TypedResults.Ok(new MeasureResult(value, MetricText.UnitOf(input.Dimension)))
            : Problem.Field("text", MeasureEntry.Parse(input.Text, input.Dimension, input.Units).Problem!);
}
