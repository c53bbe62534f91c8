using BlueDawn.Core.Build;
using BlueDawn.Core.Cleaning;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Handover;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Proving;
using BlueDawn.Core.Safety;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Trays;

/// <summary>
/// The rules between stations, all of them. A station knows only itself; what one means for another is said here.
/// </summary>
public static class Policy
{
    /// <summary>The one thing to do next on a tray.</summary>
    /// <param name="tray">The tray.</param>
    public static NextStep Next(TrayBook tray)
    {
        // Handed back: nothing is left to do.
        if (tray.IsHandedBack)
        {
            return tray.State(Station.Handover).Step!;
        }

        // Not worth the repair: nothing else has to be done first.
        if (IsDeclined(tray))
        {
            return NextStep.At(
                Station.Handover,
                "Hand it back as it came.",
                "It was decided not to repair it. The shop’s rule: nothing is charged.",
                Caution.HandBack
            );
        }

        // What runs the engine waits until what is unsafe is settled.
        return tray.Dangers is [var worst, ..] && After(tray) is { } next && RunsTheEngine(next, tray) ? Settle(worst) : After(tray);
    }

    private static NextStep Settle(StandingDanger worst) =>
        NextStep.At(
            worst.Danger.At,
            $"{worst.Danger.Label}: {worst.Danger.Settle}",
            $"{string.Join("; ", worst.Shown)}. {worst.Danger.Why}",
            worst.Danger.IsFloor || worst.Danger.At == Station.Faults ? Caution.Vapour : Caution.Strip
        );

    /// <summary>The trace's own next step as its page shows it: the same words as the tray's where Trace leads, and nothing that runs the
    /// engine while something is unsafe.</summary>
    /// <param name="tray">The tray.</param>
    public static TraceStep NextAtTrace(TrayBook tray)
    {
        var state = Trace(tray);
        var step = state.Trace.Next;
        TraceStep Plain(NextStep next) => new(StepKind.Done, null, null, next.Do, next.Why, 0, [], [], null, null, next.Caution, []);
        return tray.Dangers is [var worst, ..] && state.Step is { } runs && RunsTheEngine(runs, tray) ? Plain(Settle(worst))
            : step.Kind == StepKind.Done && state.Step is { } open ? Plain(open)
            : step;
    }

    private static bool RunsTheEngine(NextStep step, TrayBook tray) =>
        step.Caution == Caution.Running
        || tray.Lines.FirstOrDefault(line => line.Line.Key == step.LineKey)?.Line.Running == true
        || (
            step.Station == Station.Faults
            && ((FaultsState)tray.State(Station.Faults)).Trace.Next.CheckId is { } check
            && tray.Knowledge.Of<FaultKnowledge>().FindCheck(check)?.State == CheckState.Running
        );

    /// <summary>What is next on a tray that is repaired, were it safe to run.</summary>
    private static NextStep After(TrayBook tray)
    {
        // A new part that wept has had its days: the tray calls for that look, whatever else is open.
        if (BedIn.IsDue(tray) && tray.State(Station.Proving).Step is { } look)
        {
            return look;
        }

        // What it came in for is still there: back to the trace, whatever else is open.
        if (Trace(tray) is { IsBack: true, Step: { } again })
        {
            return again;
        }

        // An open trace leads until something after it has been started.
        if (TraceLeads(tray) && IsToBeTraced(Trace(tray)) && Trace(tray).Step is { } trace)
        {
            return trace;
        }

        // The sheet says what is good. Whoever has begun without one goes on.
        if (tray.Sheet is null && !tray.IsWorkedOn)
        {
            return tray.State(Station.Kits).Step!;
        }

        var next = tray
            .Modules.Where(module => module.Station != Station.Faults && !Waits(module.Station, tray))
            .Select(module => tray.State(module.Station).Step)
            .OfType<NextStep>()
            .First();
        // What was seen bad is mended before it goes together, whatever has to be tried after it was proven.
        if (
            LeadsAgain(next.Station, Trace(tray))
            && Trace(tray).Step is { } fault
            && !(next.Station == Station.Build && RunsTheEngine(fault, tray))
        )
        {
            return fault;
        }

        // Read and good is not the same as done: what was left out is named before it goes.
        return next.Station == Station.Handover && NotDone(tray) is { Count: > 0 } left
            ? next with
            {
                Do = Sentence.Say($"Read and good, but look what was not done before it goes."),
                Why = Sentence.Say($"{string.Join(" ", left)}"),
            }
            : next;
    }

    /// <summary>What the owner's trouble asked for and nobody did, in words for hand-back and report; empty for a machine that is not
    /// repaired.</summary>
    /// <param name="tray">The tray.</param>
    public static IReadOnlyList<string> NotDone(TrayBook tray)
    {
        if (IsDeclined(tray))
        {
            return [];
        }

        var (trace, cleaning) = ((FaultsState)tray.State(Station.Faults), (CleaningState)tray.State(Station.Cleaning));
        var left = new List<string>();
        // What the owner said and nobody has looked at since; a steady speed at Prove is a look at hunting.
        foreach (
            var complaint in trace
                .Evidence.Items.Where(item =>
                    item is { From: EvidenceFrom.Owner, Present: true }
                    && tray.Knowledge.Of<FaultKnowledge>().FindFinding(item.FindingId)!.Role == FindingRole.Trouble
                )
                .Where(item => !trace.Evidence.Items.Any(other => other.FindingId == item.FindingId && other.TakenAt > item.TakenAt))
                .Where(item => trace.Open.All(fault => fault.Id != item.FindingId))
                // One that has a line at Prove stands among the open lines.
                .Where(item => !tray.Lines.Any(line => line.Line.Key == Complaint.KeyOf(item.FindingId)))
        )
        {
            left.Add($"The owner’s complaint was not tried again: {complaint.Label.ToLowerInvariant()}.");
        }

        if (trace is { IsBegun: true, IsSettled: false, Evidence.Found: [] })
        {
            left.Add("The trace is open: what was wrong has not been settled.");
        }

        // Where nothing came out to be cleaned, nothing was left.
        if (
            (cleaning.Cleans || !tray.Ledger.IsBegun)
            && cleaning.Plan.Offers.All(offer => !offer.Done)
            && !tray.Log.Notes<PassageNote>().Any(logged => logged.Note.Cleaned)
        )
        {
            left.Add("Nothing was cleaned.");
        }

        return left;
    }

    /// <summary>What stands in the way of handing back, in bench order; nothing for a machine that is not repaired.</summary>
    /// <param name="tray">The tray.</param>
    public static IReadOnlyList<Obstacle> Obstacles(TrayBook tray) => ((HandoverState)tray.State(Station.Handover)).Open;

    /// <summary>Why it cannot be proven yet, or null when it can: a tray is not proven while a part of it lies on the bench.</summary>
    /// <param name="tray">The tray.</param>
    public static string? WhyNotProven(TrayBook tray) => Build(tray).WhyNotTried(Station.Proving);

    /// <summary>Why its choke cannot be timed yet, or null when it can: what is off may seal its vacuum.</summary>
    /// <param name="tray">The tray.</param>
    public static string? WhyNotTimed(TrayBook tray) => Build(tray).WhyNotTried(Station.Chokes);

    private static BuildState Build(TrayBook tray) => (BuildState)tray.State(Station.Build);

    /// <summary>
    /// Why its engine must not run, at any station; null when nothing is known against it: a danger stands, wherever it was entered, or
    /// it flooded and nobody has read the oil.
    /// </summary>
    /// <param name="tray">The tray.</param>
    public static string? WhyNotRun(TrayBook tray) =>
        tray.Dangers is [var worst, ..]
            ? $"{worst.Danger.Label} ({string.Join("; ", worst.Shown)}). {worst.Danger.Why} {worst.Danger.Settle}"
            : RunAfter(tray) switch
            {
                SafetyCondition.OilChanged =>
                    "There is fuel in the oil. Drain it by the local rule for waste oil and fill fresh, then say that it is changed.",
                null => null,
                SafetyCondition.OilRead or SafetyCondition.EngineCool or SafetyCondition.LeadOff or SafetyCondition.NoFlame =>
                    "It flooded or it smokes, and a needle that leaks fills the sump. Read the oil the way that engine wants it: at its mark, smelling of oil.",
            };

    /// <summary>What has to be said of the oil before the engine may run; null when nothing has.</summary>
    /// <param name="tray">The tray.</param>
    public static SafetyCondition? RunAfter(TrayBook tray) =>
        ((FaultsState)tray.State(Station.Faults)).Evidence.Safety.BeforeRunning?.Condition;

    /// <summary>Why a note is refused whatever its station says, or null.</summary>
    /// <param name="note">The note.</param>
    /// <param name="tray">The tray.</param>
    public static Refusal? Refuses(Note note, TrayBook tray)
    {
        // A tray that was handed back takes no more entries, save the one that brings it back to the bench.
        if (tray.IsHandedBack && !StationList.KindOf(note).ReopensTray(note))
        {
            return Refusal.Conflict(
                $"Tray {tray.Facts.Number} has been handed back.",
                "Bring it back to the bench first; its history stays."
            );
        }

        // What nobody can sign for goes only as it came, with its tag.
        if (note is ReleaseNote && !tray.IsDeclined && tray.Dangers.FirstOrDefault(one => one.Danger.IsFloor) is { } floor)
        {
            return Refusal.Conflict(
                $"It must not go like this: {floor.Danger.Label.ToLowerInvariant()}.",
                $"{floor.Danger.Why} {floor.Danger.Settle} Otherwise decide at Kit not to repair it: then it goes back, not to be filled or run."
            );
        }

        if (
            note is FindingsNote { CheckId: { } checkId, FromOwner: false }
            && tray.Knowledge.Of<FaultKnowledge>().FindCheck(checkId)?.State == CheckState.Running
            && tray.Dangers.Count > 0
        )
        {
            return Refusal.Conflict("This engine must not run yet.", WhyNotRun(tray)!);
        }

        // "None was found" and a cause that was there do not stand together.
        if (
            note is FaultNote { Outcome: FaultOutcome.NothingFound }
            && FaultNote
                .Standing(((FaultsState)tray.State(Station.Faults)).Notes)
                .Select(logged => logged.Note)
                .OfType<FaultNote>()
                .FirstOrDefault(one => one.IsFound)
                is { } found
        )
        {
            return Refusal.Conflict(
                $"A cause was found: {tray.Knowledge.Of<FaultKnowledge>().FindCause(found.CauseId!)?.Label.ToLowerInvariant()}.",
                "If it was not that, say so at Trace first; then close it without a cause."
            );
        }

        if (note is BackNote { Fate: Fate.Refitted } back && WentBackWrong(back, tray) is { } wrong)
        {
            return Refusal.Wrong(
                NoteAnswers.Wrong(
                    "reason",
                    $"It was seen to be wrong: {wrong.ToLowerInvariant()}. Turn it round, or say why it goes back so."
                )
            );
        }

        if (note is not ReadingNote reading)
        {
            return null;
        }

        if (tray.Lines.FirstOrDefault(line => line.Line.Key == reading.Line) is not { } judged)
        {
            return Refusal.NotFound(
                $"Tray {tray.Facts.Number} has no such line.",
                "Choose its spec sheet first; the sheet says what is measured."
            );
        }

        // Prove waits for Build: what is read now would be of another carburetor.
        // Nor does an engine run on a carburetor in parts, to time its choke.
        return judged.Line is { Station: Station.Chokes, Running: true } && WhyNotTimed(tray) is { } untimed
                ? Refusal.Conflict("Not to be timed yet.", untimed)
            : (judged.Line.Station == Station.Proving || judged.Line.Running) && WhyNotProven(tray) is { } why
                ? Refusal.Conflict("Not to be proven yet.", why)
            : judged.Line.Running && WhyNotRun(tray) is { } stop ? Refusal.Conflict("This engine must not run yet.", stop)
            : null;
    }

    /// <summary>What Trace or Strip saw of a part that goes back the same way round and without a reason; null when nothing is wrong with
    /// that.</summary>
    private static string? WentBackWrong(BackNote back, TrayBook tray)
    {
        if (back.Way is null || !string.IsNullOrWhiteSpace(back.Reason) || tray.Ledger.Find(back.Part) is not { Found: { } found } line)
        {
            return null;
        }

        var usual = tray.Knowledge.Of<StackKnowledge>().Layer(tray.Kind.Family, back.Part)?.Way;
        var same = found.Way is { } way ? back.Way == way : usual is not null and not StackLayer.AsFound && back.Way != usual;
        return !same
            ? null
            : tray
                .Knowledge.Of<LedgerKnowledge>()
                .Signs.Where(sign =>
                    sign.Part == line.Part.Key && sign.Sign == StripSign.WrongWay && Trace(tray).Evidence.IsThere(sign.FindingId)
                )
                .Select(sign => tray.Knowledge.Of<FaultKnowledge>().FindFinding(sign.FindingId)!.Label)
                .FirstOrDefault();
    }

    /// <summary>Whether what is next hangs on what the shop has confirmed on other carburetors.</summary>
    /// <param name="tray">The tray.</param>
    public static bool AsksHistory(TrayBook tray) =>
        !tray.IsHandedBack
        && !IsDeclined(tray)
        && (TraceLeads(tray) && Trace(tray) is { IsSettled: false, Notes.Count: > 0 } || Trace(tray).IsBack || Trace(tray).Open.Count > 0);

    private static bool IsDeclined(TrayBook tray) => tray.IsDeclined;

    private static FaultsState Trace(TrayBook tray) => (FaultsState)tray.State(Station.Faults);

    private static bool IsToBeTraced(FaultsState trace) =>
        !trace.IsSettled || trace.Open.Any(fault => fault.State != OpenFaultState.NotTried);

    private static bool LeadsAgain(Station next, FaultsState trace) =>
        next switch
        {
            Station.Build or Station.Chokes or Station.Proving => trace.Open.Any(fault => fault.State != OpenFaultState.NotTried),
            Station.Handover => trace.Open.Count > 0,
            Station.Intake or Station.Faults or Station.Kits or Station.Strip or Station.Cleaning or Station.Gauging or Station.Setting =>
                false,
        };

    private static bool TraceLeads(TrayBook tray) => tray.Fitting is null && tray.Readings.Count == 0 && !tray.Ledger.IsBegun;

    private static bool Waits(Station station, TrayBook tray) =>
        station switch
        {
            // Half taken apart it is taken apart first: what comes out may say what to fit.
            Station.Kits => tray.Ledger.ToStrip.Count > 0,
            // Nobody who has measured is asked to take it apart first.
            Station.Strip => !tray.Ledger.IsBegun && tray.Readings.Count > 0,
            // Most of a choke is seen on a carburetor that is together: what is out goes back first.
            Station.Chokes => Build(tray).WhyNotTogether is not null,
            Station.Intake
            or Station.Faults
            or Station.Cleaning
            or Station.Gauging
            or Station.Setting
            or Station.Build
            or Station.Proving
            or Station.Handover => false,
        };
}
