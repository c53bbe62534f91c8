using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Faults;

/// <summary>How a fault that has not come to its end stands.</summary>
public enum OpenFaultState
{
    /// <summary>It was seen, and nothing has been done about it.</summary>
    NotMended,

    /// <summary>Something was put right, and it is still there.</summary>
    StillThere,

    /// <summary>Something was put right, and nobody has tried whether it is gone.</summary>
    NotTried,
}

/// <summary>
/// Something that was seen to be wrong, at any station and at any time, and has not come to its end: mended and tried again, sent on, or
/// left with a reason and the owner's word. It stands in the way of handing back.
/// </summary>
/// <param name="Id">The cause, or the finding of one that has no cause yet.</param>
/// <param name="Label">What it is.</param>
/// <param name="CauseId">The cause, or null while none is known.</param>
/// <param name="FindingId">The finding that shows it.</param>
/// <param name="State">How it stands.</param>
/// <param name="Since">When it was seen.</param>
/// <param name="Seen">What showed it, in words.</param>
public sealed record OpenFault(
    string Id,
    string Label,
    string? CauseId,
    string FindingId,
    OpenFaultState State,
    DateTimeOffset Since,
    string Seen
)
{
    /// <summary>How likely a cause has to be for it to stand open once another was put right. Own judgement: as good as certain.</summary>
    private const double Sure = 0.9;

    /// <summary>Its key among the obstacles.</summary>
    public string Key => "faults/open-" + Id;

    /// <summary>How it stands, in a few words.</summary>
    public string Word =>
        State switch
        {
            OpenFaultState.NotMended => "not mended",
            OpenFaultState.StillThere => "still there",
            OpenFaultState.NotTried => "mended, not tried again",
        };

    /// <summary>Whether the list of dangers has it as well.</summary>
    public bool IsDanger => Dangers.Signs.Any(sign => sign.IsThere && sign.Sign == $"finding:{FindingId}");

    /// <summary>What is open on a tray, the oldest first.</summary>
    /// <param name="knowledge">The fault knowledge.</param>
    /// <param name="tray">The tray.</param>
    /// <param name="evidence">What is known.</param>
    /// <param name="history">The shop's history.</param>
    /// <param name="settled">Whether something was said to be the fault: then another that is as good as certain is open as well.</param>
    public static IReadOnlyList<OpenFault> Of(
        FaultKnowledge knowledge,
        TrayBook tray,
        Evidence evidence,
        FaultHistory history,
        bool settled
    )
    {
        // What stands open on a line of its own station is asked for there; what the owner came with is tried at Prove.
        var lines = tray.Lines.Where(line => line.IsOpen).Select(line => line.Line.Key).ToHashSet();
        var tried = tray.Lines.Select(line => line.Line.Key).ToHashSet();
        bool IsTriedAtProve(string finding) => tried.Contains(Complaint.KeyOf(finding));
        bool Stays(string finding) => evidence.IsExplainedByWhatStays(finding, knowledge);
        var open = new List<OpenFault>();
        foreach (
            var item in evidence.Items.Where(item =>
                item is { Present: true, BeforeFix: false, From: not EvidenceFrom.Owner }
                && !(item.LineKey is { } key && lines.Contains(key))
            )
        )
        {
            var finding = knowledge.FindFinding(item.FindingId)!;
            if (finding.Role == FindingRole.Trouble && knowledge.FaultOf(finding.Id) is null)
            {
                if (!IsTriedAtProve(finding.Id) && !Stays(finding.Id))
                {
                    open.Add(
                        new(
                            finding.Id,
                            finding.Label,
                            null,
                            finding.Id,
                            evidence.Found.Any(fault => fault.Outcome == FaultOutcome.Fixed)
                                ? OpenFaultState.StillThere
                                : OpenFaultState.NotMended,
                            item.TakenAt,
                            finding.Label
                        )
                    );
                }
            }
            else if (
                knowledge.FaultOf(finding.Id) is { } id
                && !evidence.Settled.Contains(id)
                && knowledge.FindCause(id) is { } cause
                && cause.Applies.Matches(tray.Kind)
                // A part that is out is accounted for at Build.
                && item.From != EvidenceFrom.Strip
            )
            {
                open.Add(new(id, finding.Label, id, finding.Id, OpenFaultState.NotMended, item.TakenAt, finding.Label));
            }
        }

        open.AddRange(
            evidence
                .Recheck.Where(id => !IsTriedAtProve(id) && !Stays(id))
                .Select(id => new OpenFault(
                    id,
                    knowledge.FindFinding(id)!.Label,
                    null,
                    id,
                    OpenFaultState.NotTried,
                    evidence.Items.Last(item => item.FindingId == id).TakenAt,
                    knowledge.FindFinding(id)!.Label
                ))
        );
        if (settled && evidence.Items.LastOrDefault(item => item is { Present: true, BeforeFix: false }) is { } speaks)
        {
            open.AddRange(
                Trace
                    .AsGoodAsCertain(knowledge, tray.Kind, history, evidence, Sure)
                    // What a line that is open asks for is asked for there.
                    .Where(cause => !knowledge.StationFindings.Any(row => row.CauseId == cause.Id && lines.Any(row.Matches)))
                    .Select(cause => new OpenFault(
                        cause.Id,
                        cause.Label,
                        cause.Id,
                        speaks.FindingId,
                        OpenFaultState.NotMended,
                        speaks.TakenAt,
                        speaks.Label
                    ))
            );
        }

        return [.. open.DistinctBy(fault => fault.Id).OrderBy(fault => fault.Since)];
    }
}
