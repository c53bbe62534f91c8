using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Chokes;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Proving;
using BlueDawn.Core.Setting;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tables;
using BlueDawn.Core.Tests.Trays;

namespace BlueDawn.Core.Tests.Faults;

/// <summary>
/// What a reading at a station says of findings, written here line by line as a mechanic would say it, not read from the
/// table. + is there, - is not. Common practice, no source.
/// </summary>
public class StationAnswersTests
{
    public static TheoryData<string, string, string> Said =>
        new()
        {
            // Below the floor after ten pulls with the throttle open it is low; between the two marks nothing is said.
            { "faults/compression", "compressionLow", "pull-weak+" },
            { "faults/compression", "compressionGood", "pull-weak-" },
            { "faults/bulb-strokes", "bulbFills", "primer-wont-fill- primer-slow-" },
            { "faults/bulb-strokes", "bulbSlow", "primer-wont-fill- primer-slow+" },
            { "faults/bulb-strokes", "bulbEmpty", "primer-wont-fill+" },
            // What is gone from the tank and stands over the oil's mark went past the needle; what is nowhere leaked outside.
            { "faults/missing-fuel", "noneMissing", "tank-lost-fuel-" },
            { "faults/missing-fuel", "inSump", "tank-lost-fuel+ fuel-in-oil+" },
            { "faults/missing-fuel", "partInSump", "tank-lost-fuel+ fuel-in-oil+" },
            { "faults/missing-fuel", "goneOutside", "tank-lost-fuel+ fuel-in-oil-" },
            { "gauging/main-jet", "restricted", "main-jet-small+ main-jet-large-" },
            { "gauging/main-jet", "inGauge", "main-jet-small- main-jet-large- main-jet-dark-" },
            { "gauging/main-jet", "openedUp", "main-jet-small- main-jet-large+ main-jet-dark-" },
            { "gauging/idle-jet", "restricted", "idle-jet-dark+" },
            { "gauging/main-jet", "blocked", "main-jet-dark+ main-jet-small+" },
            { "gauging/idle-jet", "blocked", "idle-jet-dark+" },
            { "gauging/idle-jet", "inGauge", "idle-jet-dark-" },
            { "gauging/idle-jet", "openedUp", "idle-jet-dark-" },
            { "gauging/emulsion-row-1", "blocked", "tube-holes-dark+" },
            { "gauging/emulsion-row-1", "restricted", "tube-holes-dark+" },
            { "gauging/emulsion-row-1", "inGauge", "tube-holes-dark-" },
            { "gauging/emulsion-row-1", "openedUp", "tube-holes-dark-" },
            { "setting/float-mass", "takenOnFuel", "float-has-fuel+" },
            { "setting/float-mass", "dry", "float-has-fuel-" },
            // Body upside down, needle shut: a float too far from the body shuts at a low level, one too near at a high one.
            { "setting/float-height", "tooHigh", "float-level-low+ float-level-high-" },
            { "setting/float-height", "tooLow", "float-level-high+ float-level-low-" },
            { "setting/float-height", "level", "float-level-low- float-level-high-" },
            { "setting/hold-test", "leaks", "inlet-fails-hold+" },
            { "setting/hold-test", "held", "inlet-fails-hold-" },
            { "setting/bowl-gasket", "proud", "bowl-gasket-poor+" },
            { "setting/bowl-squeeze", "gasketThin", "bowl-gasket-poor+" },
            { "setting/bowl-squeeze", "gasketThick", "bowl-gasket-poor+" },
            { "setting/metering-diaphragm", "silent", "diaphragm-stiff- diaphragm-torn-" },
            { "setting/metering-diaphragm", "crackles", "diaphragm-stiff+" },
            { "setting/metering-diaphragm", "holed", "diaphragm-torn+" },
            { "setting/diaphragm-centre", "differs", "diaphragm-mismatch+" },
            { "setting/pump-flaps", "flat", "flaps-not-flat-" },
            { "setting/pump-flaps", "curled", "flaps-not-flat+" },
            // It should pass one way only: both ways or neither is the same finding.
            { "setting/nozzle-valve", "oneWay", "nozzle-passes-both-" },
            { "setting/nozzle-valve", "both", "nozzle-passes-both+" },
            { "setting/nozzle-valve", "neither", "nozzle-passes-both+" },
            { "setting/inlet-passes", "drains", "lever-no-flow-" },
            { "setting/inlet-passes", "stays", "lever-no-flow+" },
            { "setting/lever-height", "leverLow", "lever-below+" },
            { "setting/lever-height", "leverHigh", "lever-above+" },
            { "setting/lever-height", "leverRight", "lever-below- lever-above-" },
            { "setting/pickup-screens", "pass", "screen-clogged-" },
            { "setting/pickup-screens", "slow", "screen-clogged+" },
            { "setting/pickup-screens", "blocked", "screen-clogged+" },
            // Fuel in the choke's chamber has come through its diaphragm.
            { "setting/choke-chamber", "dry", "fuel-in-choke-chamber-" },
            { "setting/choke-chamber", "wet", "fuel-in-choke-chamber+" },
            { "setting/choke-springs", "both", "choke-spring-wrong-pocket- choke-small-spring-out-" },
            { "setting/choke-springs", "large", "choke-spring-wrong-pocket+" },
            { "setting/choke-springs", "tiny", "choke-small-spring-out+" },
            { "chokes/vacuum-rest", "open", "choke-open-at-rest+" },
            { "chokes/vacuum-rest", "shut", "choke-open-at-rest-" },
            { "chokes/heat-rest", "open", "choke-open-at-rest+" },
            { "chokes/heat-rest", "shut", "choke-open-at-rest-" },
            { "chokes/vacuum-eases", "stays", "choke-slow-to-close+" },
            { "chokes/vacuum-eases", "eases", "choke-slow-to-close-" },
            { "chokes/opening", "opensLate", "choke-slow-to-open+" },
            { "chokes/opening", "neverOpened", "choke-slow-to-open+" },
            // An engine that runs on as the plate opens is neither held by its choke nor starved behind it.
            { "chokes/opening", "opensRight", "choke-slow-to-open- falters-as-choke-opens-" },
            { "chokes/opening", "starvedAsItOpens", "falters-as-choke-opens+" },
            { "chokes/lever-lets", "misses", "choke-release-misses+" },
            { "chokes/lever-lets", "lets", "choke-release-misses-" },
            { "chokes/return-spring", "springTight", "choke-spring-wound+" },
            { "chokes/return-spring", "springSlack", "choke-spring-wound+" },
            { "chokes/return-spring", "springRight", "choke-spring-wound-" },
            { "chokes/throttle-returns", "hangs", "throttle-wont-return+" },
            { "chokes/throttle-returns", "returns", "throttle-wont-return-" },
            // A choke that has to stay shut is the complaint itself; a chamber that loses its suction is its diaphragm.
            { "chokes/runs-open", "onlyChoked", "runs-only-choked+" },
            { "chokes/runs-open", "runsOpen", "runs-only-choked-" },
            { "chokes/chamber-hold", "chamberLeaks", "choke-diaphragm-poor+" },
            { "proving/manifold-shake", "rocks", "manifold-moves+" },
            { "proving/manifold-shake", "firm", "manifold-moves-" },
            { "proving/linkage-travel", "linkBinds", "linkage-out+" },
            { "proving/linkage-travel", "allFree", "linkage-out-" },
            { "proving/stop-switch", "wireOff", "stop-switch-dead+" },
            { "proving/stop-switch", "sound", "stop-switch-dead-" },
            { "proving/fuel-on", "dry", "wet-at-bowl-joint- fuel-from-overflow- wet-at-tap- drips-from-plunger- leaks-fuel-" },
            { "proving/fuel-on", "wetAtBowlJoint", "wet-at-bowl-joint+ leaks-fuel+" },
            { "proving/fuel-on", "overflows", "fuel-from-overflow+ leaks-fuel+" },
            { "proving/fuel-on", "wetAtInlet", "wet-at-tap+ leaks-fuel+" },
            { "proving/fuel-on", "plungerWeeps", "drips-from-plunger+ leaks-fuel+" },
            { "proving/governed-speed", "hunts", "hunts+" },
            { "proving/governed-speed", "inWindow", "hunts- governor-off-" },
            { "proving/idle-speed", "hunts", "hunts+" },
            { "proving/idle-speed", "inWindow", "hunts-" },
            // Looks: written as a mechanic would say what each answer is.
            { "setting/lever-free", "sticks", "lever-misfitted+" },
            { "setting/lever-free", "back", "lever-misfitted-" },
            { "setting/lever-fork", "beside", "lever-misfitted+" },
            { "setting/lever-fork", "hooked", "lever-misfitted-" },
            { "setting/lever-spring", "crooked", "lever-misfitted+" },
            { "setting/lever-spring", "seated", "lever-misfitted-" },
            { "setting/plate-side", "turned", "diaphragm-mismatch+" },
            { "setting/needle-tip", "grooved", "needle-tip-worn+" },
            { "setting/needle-tip", "swollen", "needle-tip-worn+" },
            { "setting/needle-tip", "smooth", "needle-tip-worn-" },
            { "setting/seat-side", "up", "seat-wrong-way+" },
            { "setting/seat-side", "down", "seat-wrong-way-" },
            { "setting/float-free", "binds", "float-sticks+" },
            { "setting/float-free", "swings", "float-sticks-" },
            { "setting/bowl-turn", "turned", "float-sticks+" },
            { "setting/needle-lift", "stuck", "needle-stuck+" },
            { "setting/needle-lift", "free", "needle-stuck-" },
            { "setting/turn-test", "always", "inlet-fails-hold+" },
            { "setting/turn-test", "never", "needle-stuck+" },
            { "setting/adjuster-rings", "cut", "screw-seal-flat+" },
            { "setting/adjuster-rings", "whole", "screw-seal-flat-" },
            { "setting/bowl-gasket", "seated", "bowl-gasket-poor-" },
            { "chokes/plate-moves", "binds", "choke-plate-stuck+" },
            { "chokes/plate-moves", "stopsShort", "choke-plate-stuck+" },
            { "chokes/plate-moves", "free", "choke-plate-stuck-" },
            { "chokes/knob-ends", "notShut", "choke-plate-stuck+" },
            { "chokes/knob-ends", "notOpen", "choke-plate-stuck+" },
            { "chokes/choke-held", "wedged", "choke-held+" },
            { "chokes/choke-held", "nothing", "choke-held-" },
            { "chokes/vacuum-eases", "snaps", "choke-diaphragm-poor+" },
            { "chokes/lever-lets", "early", "choke-spring-wound+" },
            { "chokes/lever-return", "half", "choke-slow-to-open+" },
            { "chokes/lever-seats", "tab", "linkage-out+" },
            { "chokes/lever-seats", "loose", "linkage-out+" },
            { "chokes/hot-restart", "notAfter", "hard-hot-start+" },
            { "chokes/hot-restart", "starts", "hard-hot-start-" },
            { "chokes/rod-travel", "rodShort", "choke-release-misses+" },
            { "chokes/warm-water", "pinStays", "actuator-dead+" },
            { "chokes/warm-water", "pinMoves", "actuator-dead-" },
            { "chokes/warm-strip", "coilSpent", "actuator-dead+" },
            { "chokes/warm-strip", "coilTurns", "actuator-dead-" },
            { "proving/fuel-on", "floodsThroat", "fuel-from-overflow+ leaks-fuel+" },
            { "proving/fuel-on", "wetAtCover", "leaks-fuel+" },
            { "proving/fuel-on", "wetAtTankTop", "leaks-fuel+" },
            { "proving/fuel-on", "stillWeeps", "leaks-fuel+" },
            { "proving/key-on", "runsOver", "fuel-from-overflow+ leaks-fuel+" },
            { "proving/hot-restart", "notHot", "hard-hot-start+" },
            { "proving/stops-running", "keepsRunning", "stop-switch-dead+" },
            { "proving/complaint-low-power", "stillThere", "low-power+" },
            { "proving/complaint-low-power", "gone", "low-power-" },
        };

    [Theory]
    [MemberData(nameof(Said))]
    public void A_reading_answers_what_a_mechanic_would_say_and_nothing_else(string line, string judged, string answers) =>
        Assert.Equal(
            answers.Split(' ').Order(),
            FaultKnowledge
                .Shipped.StationFindings.Where(row => row.Matches(line) && row.Judged == judged)
                .Select(row => row.FindingId + (row.Present ? '+' : '-'))
                .Order()
        );

    [Fact]
    public void The_table_has_no_row_that_is_not_here() =>
        Assert.All(
            FaultKnowledge.Shipped.StationFindings.Where(row => !row.Line.StartsWith("proving/complaint-", StringComparison.Ordinal)),
            row => Assert.Contains(Said, one => row.Matches(one.Data.Item1) && row.Judged == one.Data.Item2)
        );

    /// <summary>
    /// Every judgement a line can come to is above, or says nothing of the fault: undecided, uneven, or a speed that is off
    /// without swinging, which is a setting.
    /// </summary>
    [Fact]
    public void Every_judgement_a_line_comes_to_is_decided_on()
    {
        string[] nothing =
        [
            "cannotTell",
            "uneven",
            "tooSlow",
            "tooFast",
            // A reading that does not decide; minutes to failure say several things at once, which FailureTimeLineTests hold.
            "fewPulls",
            "throttleShut",
            "compressionBetween",
            "bulbOnce",
            "moreOil",
            "withChoke",
            "asTankSeals",
            "tankOrCoil",
            "late",
            "early",
            "runsOn",
            "ranShort",
            "livesWithCapOpen",
            "diesWithCapOpen",
            "livesWithPlateHeld",
            // No cause is a guard that is missing: it is in the list of dangers.
            "guardsOn",
            "guardMissing",
            // What the machine drives, and a rag.
            "dryAtKeyOn",
            "startsHot",
            "stopsAtOnce",
            "driveSound",
            "driveLoose",
            "wipedDown",
            "newTight",
            "newWeeps",
            "notWiped",
            // Looks at a needle, a seat or a bowl that are put right in the hand: the hold test and the fuel tell what came of them.
            "smooth",
            "grooved",
            "free",
            "stuck",
            "askew",
            "turns",
            "always",
            "never",
            "whole",
            "cut",
            "faces",
            "turned",
            "round",
            "asOld",
            "unknown",
            "swollen",
            "down",
            "up",
            "screwed",
            "seated",
            "under",
            "beside",
            "none",
            "swings",
            "binds",
            "even",
            "tilted",
            "there",
            "gone",
            "all",
            "short",
            "hooked",
            "crooked",
            "back",
            "sticks",
            "same",
            "noOld",
            "inLine",
            "covered",
            "setting/tank-top=sound",
            "bent",
            "cracked",
            // Pressures a needle opens and shuts at are set; whether it seals is the hold test's to say.
            // A seat's bore and a float's drop are set; a new part that weeps has not decided yet, and one that still does may be
            // plunger or seat.
            "seatFits",
            "seatStarves",
            "seatTooLarge",
            "dropShort",
            "dropEnough",
            "gasketFits",
            "beddingIn",
            // Looks at a choke that are put right in the hand; what it does from the start is timed.
            "free",
            "binds",
            "nothing",
            "wedged",
            "notShut",
            "notOpen",
            "knobBoth",
            "snaps",
            "in",
            "out",
            "starts",
            "waits",
            "early",
            "lazy",
            "opens",
            "half",
            "right",
            "tab",
            "loose",
            "openedEarly",
            "rodShort",
            "rodRight",
            "pinMoves",
            "pinStays",
            "pullEnough",
            "pullWeak",
            "stopsShort",
            "notAfter",
            // What moves a heat choke is renewed in the hand; a tight chamber may have a hard
            // diaphragm all the same.
            "notchHolds",
            "jumps",
            "coilTurns",
            "coilSpent",
            "chamberHolds",
            // On a diaphragm type or a tank it is looked at where it came out; the trace has no such finding.
            "floodsThroat",
            "wetAtCover",
            "wetAtTankTop",
            "popsRight",
            "popsLow",
            "popsHigh",
            "popsDiffer",
            "shutsLate",
        ];
        bool SaysNothing(string line, string finding) => nothing.Contains(finding) || nothing.Contains($"{line}={finding}");
        var seen = new HashSet<(string, string)>();
        foreach (
            var line in Sheets
                .LinesOfEveryFamily.Concat(FuelOnOfEveryFamily)
                .Where(line => !line.Key.StartsWith("gauging/emulsion-row-", StringComparison.Ordinal) || line.Key.EndsWith('1'))
        )
        {
            foreach (var typed in Typed(line))
            {
                var read = line.Read(typed);
                Assert.True(read.Reading is not null, $"{line.Key}: {string.Join(' ', read.Problems.Select(problem => problem.Message))}");
                var finding = line.Judge(read.Reading, PinSet.Empty).Finding;
                seen.Add((line.Key, finding));
                Assert.True(
                    SaysNothing(line.Key, finding) || Said.Any(one => one.Data.Item1 == line.Key && one.Data.Item2 == finding),
                    $"{line.Key}: {finding}"
                );
            }
        }

        Assert.Equal(
            Said.Select(one => (one.Data.Item1, one.Data.Item2))
                .Where(one => !one.Item1.Contains("complaint", StringComparison.Ordinal))
                // What still weeps after its days, and a jet nothing goes through, no typed reading comes to.
                .Where(one => one is not (_, "stillWeeps") and not ("gauging/main-jet" or "gauging/idle-jet", "blocked"))
                .Order(),
            seen.Where(one => Said.Any(said => (said.Data.Item1, said.Data.Item2) == one) || !SaysNothing(one.Item1, one.Item2)).Order()
        );
    }

    private static IReadOnlyList<string> NoFinding { get; } =
        CsvTable.Rows(CsvTable.OpenShipped, "faults/no-finding.csv", row => $"{row.Text("what")}|{row.Text("why")}|{row.Text("source")}");

    private static bool IsNoFinding(string what) =>
        NoFinding.Any(row =>
            row.Split('|')[0] is var name
            && (
                name == what
                || name.Contains('*', StringComparison.Ordinal)
                    && what.StartsWith(name[..name.IndexOf('*', StringComparison.Ordinal)], StringComparison.Ordinal)
                    && what.EndsWith(name[(name.IndexOf('*', StringComparison.Ordinal) + 1)..], StringComparison.Ordinal)
            )
        );

    /// <summary>Minutes to failure say several things at once, each held against its own time: QuickTestTests hold them.</summary>
    private static readonly string[] BySign = [FailureTimeLine.LineKey];

    /// <summary>What is not good anywhere is a finding of Trace, or stands in a list with its reason: by the tables, for whatever is added
    /// to them.</summary>
    [Fact]
    public void Whatever_is_not_good_is_a_finding_or_has_a_reason_why_not()
    {
        var bad = Sheets
            .LinesOfEveryFamily.Where(line => !BySign.Contains(line.Key))
            .SelectMany(line =>
                line.Findings.Where(finding => finding.Verdict == Verdict.NotGood).Select(finding => (line.Key, finding.Id))
            )
            .Distinct()
            .ToList();
        var silent = bad.Where(one =>
                !FaultKnowledge.Shipped.StationFindings.Any(row => row.Matches(one.Key) && row.Judged == one.Id && row.Present)
            )
            .Select(one => $"{one.Key}={one.Id}")
            .ToList();
        var ledger = Core.Tables.Knowledge.Shipped.Of<Core.Parts.LedgerKnowledge>();
        silent.AddRange(
            Enum.GetValues<CarburetorFamily>()
                .SelectMany(ledger.All)
                .Select(part => part.Key)
                .Distinct()
                .Where(part =>
                    !ledger.Signs.Any(sign => sign.Part == part && sign.Sign.Equals("broken", StringComparison.OrdinalIgnoreCase))
                )
                .Select(part => $"part:{part}")
        );
        Assert.True(silent.All(IsNoFinding), string.Join(' ', silent.Where(what => !IsNoFinding(what))));
        Assert.All(NoFinding, row =>
            Assert.Contains(silent, what => IsNoFinding(what) && row.Split('|')[0] is { } name && (name == what || name.Contains('*')))
        );
    }

    public static TheoryData<CarburetorFamily, EngineKind, ChokeKind> Kinds =>
        [
            .. from family in Enum.GetValues<CarburetorFamily>()
            from engine in Enum.GetValues<EngineKind>()
            from choke in Enum.GetValues<ChokeKind>()
            select new TheoryDataRow<CarburetorFamily, EngineKind, ChokeKind>(family, engine, choke),
        ];

    /// <summary>The same for each carburetor by itself: a finding of another family or engine says nothing of this one.</summary>
    [Theory]
    [MemberData(nameof(Kinds))]
    public void It_is_a_finding_of_this_kind_of_carburetor(CarburetorFamily family, EngineKind engine, ChokeKind choke)
    {
        var kind = new CarburetorKind(family, engine, choke);
        bool Speaks(string finding) => FaultKnowledge.Shipped.FindFinding(finding)!.Applies.Matches(kind);
        // A diaphragm type has no jet of its own on the sheet yet, a suction tank the main one.
        var sheet = family switch
        {
            CarburetorFamily.FloatBowl => Sheets.Spec,
            CarburetorFamily.Diaphragm => Sheets.Spec with { Family = family, Float = null, Jets = [], EmulsionRows = [] },
            CarburetorFamily.SuctionTank => Sheets.Spec with
            {
                Family = family,
                Float = null,
                Jets = [.. Sheets.Spec.Jets.Where(jet => jet.Key == "main-jet")],
                EmulsionRows = [],
            },
        };
        var silent = new TestTray(sheet, kind)
            .Book.Lines.Where(line => !BySign.Contains(line.Line.Key))
            .SelectMany(line =>
                line.Line.Findings.Where(finding => finding.Verdict == Verdict.NotGood).Select(finding => (line.Line.Key, finding.Id))
            )
            .Where(one =>
                !FaultKnowledge.Shipped.StationFindings.Any(row =>
                    row.Matches(one.Key) && row.Judged == one.Id && row.Present && Speaks(row.FindingId)
                )
            )
            .Select(one => $"{one.Key}={one.Id}")
            .ToList();
        var ledger = Core.Tables.Knowledge.Shipped.Of<Core.Parts.LedgerKnowledge>();
        silent.AddRange(
            ledger
                .Expected(kind, null)
                .Select(part => part.Key)
                .Where(part =>
                    !ledger.Signs.Any(sign =>
                        sign.Part == part && sign.Sign.Equals("broken", StringComparison.OrdinalIgnoreCase) && Speaks(sign.FindingId)
                    )
                )
                .Select(part => $"part:{part}")
        );
        Assert.True(silent.All(IsNoFinding), string.Join(' ', silent.Where(what => !IsNoFinding(what))));
    }

    private static IEnumerable<TypedReading> Typed(GaugeLine of) => of is FuelWatchLine watch ? FuelOn(watch.Family) : Typed(of.Key);

    private static IEnumerable<GaugeLine> FuelOnOfEveryFamily =>
        Enum.GetValues<CarburetorFamily>().Select(family => new FuelWatchLine(4, 2, family, true));

    private static IEnumerable<TypedReading> FuelOn(CarburetorFamily family) =>
        (
            family switch
            {
                CarburetorFamily.FloatBowl => new[] { "dry", "bowlJoint", "overflow", "inletFitting", "plunger", "newPart" },
                CarburetorFamily.Diaphragm => ["dry", "throat", "cover", "inletFitting"],
                CarburetorFamily.SuctionTank => ["dry", "throat", "tankTop", "inletFitting"],
            }
        ).Select(leak => TypedReading.Of(("minutes", "4"), ("rocked", "yes"), ("leak", leak)));

    private static IEnumerable<TypedReading> Typed(string line) =>
        line switch
        {
            "faults/compression" =>
            [
                .. new[]
                {
                    ("1000", "10", "open"),
                    ("100", "10", "open"),
                    ("350", "10", "open"),
                    ("100", "3", "open"),
                    ("100", "10", "shut"),
                }.Select(one => TypedReading.Of(("pressure", one.Item1), ("pulls", one.Item2), ("throttle", one.Item3))),
            ],
            "faults/bulb-strokes" =>
            [
                .. new[] { ("6", "yes", "again"), ("60", "yes", "again"), ("60", "yes", "dry"), ("60", "no", "dry") }.Select(one =>
                    TypedReading.Of(("strokes", one.Item1), ("fills", one.Item2), ("dry", one.Item3))
                ),
            ],
            "faults/missing-fuel" =>
            [
                .. new[] { ("0", "0"), ("600", "600"), ("2000", "500"), ("600", "0"), ("100", "900") }.Select(one =>
                    TypedReading.Of(("missing", one.Item1), ("risen", one.Item2))
                ),
            ],
            "faults/minutes-to-failure" =>
            [
                TypedReading.Of(("minutes", "4"), ("choke", "4"), ("ended", "died")),
                TypedReading.Of(("minutes", "3"), ("ended", "died")),
                TypedReading.Of(("minutes", "20"), ("ended", "died")),
                TypedReading.Of(("minutes", "12"), ("ended", "stopped")),
                TypedReading.Of(("minutes", "2"), ("ended", "stopped")),
            ],
            "gauging/main-jet" or "gauging/idle-jet" =>
            [
                Pins("0.10", "0.12"),
                Pins("0.9", "0.92"),
                line.EndsWith("main-jet", StringComparison.Ordinal) ? Pins("0.715", "0.725") : Pins("0.32", "0.34"),
                Pins("0.10", "0.9"),
            ],
            "gauging/emulsion-row-1" =>
            [
                Row("3", "0.59", "0.61"),
                Row("4", "0.30", "0.32"),
                Row("4", "0.80", "0.82"),
                Row("4", "0.59", "0.61"),
            ],
            "setting/float-mass" => [TypedReading.Of(("mass", "8")), TypedReading.Of(("mass", "6.2"))],
            "setting/float-height" =>
            [
                Heights("14", "14", "14"),
                Heights("16", "16", "16"),
                Heights("12", "12", "12"),
                Heights("13.6", "14", "14.6"),
            ],
            "setting/lever-height" =>
            [
                TypedReading.Of(("height", "0")),
                TypedReading.Of(("height", "-0.5")),
                TypedReading.Of(("height", "0.5")),
            ],
            "setting/pop-off" =>
            [
                Pops("110 70 112 71 109 69"),
                Pops("70 60 71 60 70 59"),
                Pops("160 70 162 71 161 70"),
                Pops("90 60 130 70 105 60"),
                Pops("110 30 112 31 109 30"),
            ],
            "chokes/opening" =>
            [
                TypedReading.Of(("open", "2.4"), ("end", "ranOn")),
                TypedReading.Of(("open", "300"), ("end", "ranOn")),
                TypedReading.Of(("end", "notOpened")),
                TypedReading.Of(("open", "2.4"), ("faltered", "3"), ("end", "faltered")),
                TypedReading.Of(("open", "2.9"), ("end", "ranOn")),
            ],
            "chokes/chamber-hold" =>
            [
                Sheets.Rows("pressure", "time", ("2", "10"), ("7", "10"), ("12", "10")),
                Sheets.Rows("pressure", "time", ("2", "10"), ("7", "7"), ("12", "4.9")),
            ],
            "chokes/warm-strip" =>
            [
                TypedReading.Of(("cold", "20"), ("warm", "60"), ("turned", "40"), ("length", "400"), ("thickness", "0.6")),
                TypedReading.Of(("cold", "20"), ("warm", "60"), ("turned", "1")),
            ],
            "chokes/suction-force" => [Force("6", "36"), Force("1", "36")],
            "chokes/rod-travel" => [TypedReading.Of(("needed", "8"), ("given", "10")), TypedReading.Of(("needed", "8"), ("given", "6"))],
            "chokes/return-spring" => [Turns("4", "6", "5"), Turns("4", "6", "7"), Turns("4", "6", "3")],
            "chokes/warm-water" =>
            [
                TypedReading.Of(("water", "80"), ("stroke", "4")),
                TypedReading.Of(("water", "80"), ("stroke", "0.5")),
                TypedReading.Of(("water", "50"), ("stroke", "0.5")),
            ],
            _ when (
                    SettingStation.ShippedLooks.FirstOrDefault(look => line == $"setting/{look.Key}")
                    ?? ChokesStation.ShippedLooks.FirstOrDefault(look => line == $"chokes/{look.Key}")
                    ?? ProvingStation.ShippedLooks.FirstOrDefault(look => line == $"proving/{look.Key}")
                )
                    is { } look => [.. look.Answers.Select(answer => TypedReading.Of(("seen", answer.Value)))],
            "setting/float-drop" => [TypedReading.Of(("drop", "14.5")), TypedReading.Of(("drop", "18"))],
            "setting/seat-bore" => [TypedReading.Of(("bore", "1.8")), TypedReading.Of(("bore", "0.7")), TypedReading.Of(("bore", "12"))],
            "setting/bowl-squeeze" =>
            [
                TypedReading.Of(("thickness", "2"), ("groove", "1.5")),
                TypedReading.Of(("thickness", "1.5"), ("groove", "1.5")),
                TypedReading.Of(("thickness", "3"), ("groove", "1.4")),
            ],
            "setting/hold-test" => [Pressures("48", "48", "48"), Pressures("48", "40", "33")],
            "proving/governed-speed" => [Speed("3400", ""), Speed("3400", "400"), Speed("2800", ""), Speed("3900", "")],
            "proving/idle-speed" => [Speed("1600", ""), Speed("1600", "400"), Speed("1200", ""), Speed("2100", "")],
            _ => throw new ArgumentOutOfRangeException(nameof(line), line, "has no readings here"),
        };

    private static TypedReading Pops(string pressures) =>
        new(
            UnitSystem.Metric,
            new Dictionary<string, string>(),
            [.. pressures.Split(' ').Chunk(2).Select(p => new Dictionary<string, string> { ["opened"] = p[0], ["shut"] = p[1] })]
        );

    private static TypedReading Force(string suction, string chamber) =>
        TypedReading.Of(("suction", suction), ("diaphragm", chamber), ("plate", "20"), ("spring", "250"));

    private static TypedReading Turns(string slack, string tight, string now) =>
        TypedReading.Of(("slack", slack), ("tight", tight), ("now", now));

    private static TypedReading Pins(string go, string noGo) => TypedReading.Of(("go", go), ("noGo", noGo));

    private static TypedReading Row(string open, string go, string noGo) =>
        TypedReading.Of(("openHoles", open), ("go", go), ("noGo", noGo));

    private static TypedReading Speed(string speed, string swing) => TypedReading.Of(("speed", speed), ("swing", swing));

    private static TypedReading Heights(string a, string b, string c) => Sheets.Rows("height", "angle", ("0", a), ("120", b), ("240", c));

    private static TypedReading Pressures(string a, string b, string c) => Sheets.Rows("pressure", "time", ("2", a), ("7", b), ("12", c));
}
