using BlueDawn.Core.Parts;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Faults;

/// <summary>What Trace has to say on the report: what was wrong and what was done, what was tried in vain, what was seen.</summary>
internal static class FaultPoints
{
    /// <summary>The points.</summary>
    /// <param name="knowledge">The fault knowledge.</param>
    /// <param name="tray">The tray.</param>
    /// <param name="state">How its trace stands.</param>
    public static IReadOnlyList<ReportPoint> Of(FaultKnowledge knowledge, TrayBook tray, FaultsState state)
    {
        var evidence = state.Evidence;
        string Label(string cause) => knowledge.FindCause(cause)?.Label ?? cause;
        return
        [
            .. evidence
                .Found.Where(fault => fault.Outcome == FaultOutcome.Fixed)
                .Select(fault => ReportPoint.Of(ReportChapter.Wrong, $"{fault.Label}. {Done(fault, knowledge, tray)}.")),
            .. evidence
                .Found.Where(fault => fault.Outcome == FaultOutcome.Referred)
                .Select(fault => ReportPoint.Of(ReportChapter.Wrong, $"{fault.Label}. Not mended here: sent on.")),
            .. evidence.NothingFound ? [ReportPoint.Of(ReportChapter.Wrong, "No cause was found.")] : Array.Empty<ReportPoint>(),
            .. evidence.Tried.Select(tried =>
                ReportPoint.Of(
                    ReportChapter.Tried,
                    $"{Label(tried.CauseId)}: tried by {ToldNote.Who(tried.By)} before it came in{ToldNote.Came(tried.Outcome)}."
                )
            ),
            .. evidence.NoCure.Select(cause => ReportPoint.Of(ReportChapter.Tried, $"{Label(cause)}: done here, did not cure it.")),
            .. evidence
                .Found.Where(fault => fault.Outcome == FaultOutcome.Left)
                .Select(fault =>
                    ReportPoint.Of(
                        ReportChapter.Left,
                        $"{fault.Label}: left as it is. {Ended(fault.Reason)} The owner: {Ended(fault.OwnerSaid)}"
                    )
                ),
            // What is unsafe leads the report.
            .. state
                .Open.Where(fault => !fault.IsDanger)
                .Select(fault => ReportPoint.Of(ReportChapter.Left, $"{fault.Label}: {fault.Word}.")),
            .. Seen(knowledge, tray, state).Select(label => ReportPoint.Of(ReportChapter.Found, $"{label}.")),
        ];
    }

    /// <summary>What was seen, whatever became of it: what was taken back before anything was done about it was not.</summary>
    private static IEnumerable<string> Seen(FaultKnowledge knowledge, TrayBook tray, FaultsState state)
    {
        var work = state
            .Notes.Where(logged => logged.Note is FaultNote { Outcome: not (FaultOutcome.Open or FaultOutcome.NotIt) })
            .Select(logged => logged.TakenAt)
            .ToList();
        var answers = state
            .Notes.Where(logged => logged.Note is FindingsNote { FromOwner: false })
            .SelectMany(logged => ((FindingsNote)logged.Note).Answers.Select(answer => (answer.FindingId, answer.Said, logged.TakenAt)))
            .GroupBy(answer => answer.FindingId);
        foreach (var finding in answers)
        {
            var said = finding.ToList();
            var stands = said.Where(
                (one, i) =>
                    one.Said == Said.Present
                    && (
                        i + 1 == said.Count
                        || said[i + 1].Said == Said.Present
                        || work.Any(at => at >= one.TakenAt && at <= said[i + 1].TakenAt)
                    )
            );
            if (stands.Any() && knowledge.FindFinding(finding.Key) is { } known && known.Applies.Matches(tray.Kind))
            {
                yield return known.Label;
            }
        }
    }

    /// <summary>What was done about a fault: in the technician's words, else by what became of its part, else the usual words.</summary>
    private static string Done(FaultFound fault, FaultKnowledge knowledge, TrayBook tray)
    {
        if (fault.Done is { Length: > 0 } done)
        {
            return done.TrimEnd('.');
        }

        var cause = knowledge.FindCause(fault.CauseId)!;
        if (tray.Fitting is { Option: FitOption.PatternCarburetor or FitOption.MakersCarburetor } && cause.Place == Place.Carburetor)
        {
            return "Exchanged with the carburetor";
        }

        var usual = knowledge.Done.GetValueOrDefault(cause.Id, "Put right");
        // The part that showed it says what became of it before those the cause usually sits at.
        var parts = fault.FromLine?.Split('/') is ["strip", var shown] ? cause.Parts.Prepend(shown) : cause.Parts;
        return parts.Select(tray.Ledger.Find).FirstOrDefault(one => one?.Fitted is not null) is { Fitted: { } fitted, Part: var part }
            ? fitted.Fate switch
            {
                Fate.Renewed when fitted.NearMatch == true => $"{Capital(part.Label)} renewed with a near match",
                Fate.Renewed => $"{Capital(part.Label)} renewed",
                Fate.Made => $"{Capital(part.Label)} made here and fitted",
                Fate.LeftOff or Fate.Scrapped or Fate.Refitted => usual,
            }
            : usual;
    }

    private static string Capital(string text) => char.ToUpperInvariant(text[0]) + text[1..];

    private static string Ended(string? words) => (words ?? "").Trim().TrimEnd('.') + ".";
}
