using BlueDawn.Core.Parts;

namespace BlueDawn.Core.Stations;

/// <summary>What was done on a job, by which a line is owed or stands aside.</summary>
/// <param name="Facts">What stands on the tray.</param>
/// <param name="Ledger">What was opened.</param>
/// <param name="Mended">What has to be proven for what was mended or set, whatever was opened; null while nothing was.</param>
/// <param name="Measured">Whether a part was measured: what was measured was open.</param>
/// <param name="IsGood">Whether the line of a key was read and is good.</param>
public sealed record JobScope(TrayFacts Facts, Ledger Ledger, IReadOnlySet<Proof>? Mended, bool Measured, Func<string, bool> IsGood)
{
    /// <summary>Whether something has to be proven for a part that was off or for what was mended.</summary>
    /// <param name="proof">What.</param>
    public bool Owes(Proof proof) => Mended?.Contains(proof) == true || Ledger.Taken.Any(line => line.Part.Proves.Contains(proof));

    /// <summary>Whether somebody said that nothing is taken apart, nothing says otherwise, and it is known what the job is instead: what the
    /// owner came with, what was mended or what was off.</summary>
    public bool IsClosed =>
        Ledger.Job is { Parts: [] }
        && !Measured
        && (Mended is not null || Ledger.Taken.Count > 0 || Facts.Complaints.Any(complaint => complaint.Id != Complaint.Said));
}
