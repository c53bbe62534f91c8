using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Faults;

/// <summary>Who or what an answer is from.</summary>
public enum EvidenceFrom
{
    /// <summary>What the owner said.</summary>
    Owner,

    /// <summary>What a technician saw.</summary>
    Technician,

    /// <summary>A reading at another station.</summary>
    Gauge,

    /// <summary>How a part was found as it came out.</summary>
    Strip,
}

/// <summary>How something that has to be so stands.</summary>
public enum NeedState
{
    /// <summary>It is so, or nothing asks for it.</summary>
    Met,

    /// <summary>Nobody has looked.</summary>
    Unknown,

    /// <summary>It is not so.</summary>
    RuledOut,
}

/// <summary>One finding as it stands, with where it is from.</summary>
/// <param name="FindingId">The finding.</param>
/// <param name="Label">What is found.</param>
/// <param name="Present">Whether it is there.</param>
/// <param name="Doubtful">Marked as doubtful.</param>
/// <param name="From">Who or what it is from.</param>
/// <param name="LineKey">The gauge line it is from, or null.</param>
/// <param name="EntryId">Its logbook entry.</param>
/// <param name="TakenAt">When.</param>
/// <param name="BeforeFix">True when something that explains part of it has been put right since.</param>
/// <param name="AsLeft">True when a part reads good only after work on the carburetor: that says nothing of how it came in.</param>
/// <param name="CannotShow">True when it is said not to be there of a machine that could not show it: one that does not start does not
/// hunt.</param>
public sealed record EvidenceItem(
    string FindingId,
    string Label,
    bool Present,
    bool Doubtful,
    EvidenceFrom From,
    string? LineKey,
    Guid EntryId,
    DateTimeOffset TakenAt,
    bool BeforeFix,
    bool AsLeft,
    bool CannotShow = false
);

/// <summary>A cause that is settled as having been there.</summary>
/// <param name="CauseId">The cause.</param>
/// <param name="Label">What was wrong.</param>
/// <param name="At">When it was put right or referred.</param>
/// <param name="Outcome">Put right or referred.</param>
/// <param name="FromLine">The gauge line whose readings showed it, before and after; null when it was confirmed by hand.</param>
/// <param name="EntryId">The logbook entry that settled it.</param>
/// <param name="Reason">Why it stays as it is, for what is left.</param>
/// <param name="OwnerSaid">What the owner said to it, for what is left.</param>
/// <param name="Done">What was done, in the technician's words; null for the usual words.</param>
public sealed record FaultFound(
    string CauseId,
    string Label,
    DateTimeOffset At,
    FaultOutcome Outcome,
    string? FromLine,
    Guid EntryId,
    string? Reason = null,
    string? OwnerSaid = null,
    string? Done = null
)
{
    /// <summary>True while it is still there: it was sent on, or left as it is.</summary>
    public bool Stays => Outcome is FaultOutcome.Referred or FaultOutcome.Left;
}

/// <summary>Everything known about a fault, gathered from the trace and from the other stations.</summary>
/// <param name="Items">Findings as they stand, oldest first: one for each finding and each stretch between fixes.</param>
/// <param name="Found">Causes that were there.</param>
/// <param name="Settled">Causes that are out of the question by now.</param>
/// <param name="RuledOut">Causes that were said not to be it.</param>
/// <param name="Recheck">Findings that were there before the last fix and have not been looked at since.</param>
/// <param name="DoneChecks">Checks done since the last fix; the owner is asked once.</param>
/// <param name="NothingFound">True when the trace was closed without a cause.</param>
/// <param name="Apart">How far apart the carburetor is.</param>
/// <param name="Safety">What is safe to do.</param>
/// <param name="Told">What the owner told, whatever was seen since: by finding, whether it is there.</param>
/// <param name="Tried">What was tried before it came in.</param>
/// <param name="Offered">What somebody says is wrong.</param>
/// <param name="NoCure">What was done here and did not cure it, oldest first.</param>
public sealed record Evidence(
    IReadOnlyList<EvidenceItem> Items,
    IReadOnlyList<FaultFound> Found,
    IReadOnlySet<string> Settled,
    IReadOnlyList<string> RuledOut,
    IReadOnlyList<string> Recheck,
    IReadOnlySet<string> DoneChecks,
    bool NothingFound,
    ApartLevel Apart,
    SafetyState Safety,
    IReadOnlyDictionary<string, bool> Told,
    IReadOnlyList<TriedFix> Tried,
    IReadOnlyList<OfferedCause> Offered,
    IReadOnlyList<string> NoCure
)
{
    /// <summary>Causes that were tried to be put right before it came in, without help.</summary>
    public IReadOnlySet<string> InVain =>
        Tried.Where(tried => tried.Outcome == TriedOutcome.NoHelp).Select(tried => tried.CauseId).ToHashSet();

    /// <summary>Gathers the evidence of a tray.</summary>
    /// <param name="knowledge">The fault knowledge.</param>
    /// <param name="kind">The carburetor.</param>
    /// <param name="notes">The trace's notes, oldest first.</param>
    /// <param name="readings">Readings that count at other stations, oldest first.</param>
    /// <param name="lineKeys">Every line of the tray's worksheet.</param>
    /// <param name="signs">What the lines of its strip ledger amount to.</param>
    public static Evidence Gather(
        FaultKnowledge knowledge,
        CarburetorKind kind,
        IReadOnlyList<Logged<TraceNote>> notes,
        IReadOnlyList<JudgedReading> readings,
        IReadOnlyList<string> lineKeys,
        IReadOnlyList<FindingSign> signs
    )
    {
        var said = FaultNote.Standing(notes).Select(logged => (Logged: logged, Note: (FaultNote)logged.Note)).ToList();
        var found = FoundIn(knowledge, kind, said, readings, signs);
        var fixes = found.Where(fault => fault.Outcome == FaultOutcome.Fixed).ToList();
        // Only a fix that can have touched a part makes an older look at it a look of before; trouble is tried again after any.
        bool Touches(FaultFound fix, string finding) =>
            knowledge.Touches(fix.CauseId, finding) || knowledge.FindFinding(finding)?.Role == FindingRole.Trouble;
        int Stretch(string finding, DateTimeOffset at) => fixes.Count(fix => fix.At <= at && Touches(fix, finding));
        bool Touched(string finding, DateTimeOffset at) => fixes.Any(fix => fix.At > at && Touches(fix, finding));

        // One item a finding and a stretch between fixes that touch it: the last answer of the stretch stands.
        var standing = new Dictionary<(string Finding, int Stretch), EvidenceItem>();
        foreach (
            var item in Answers(knowledge, notes)
                .Concat(FromStations(knowledge, readings, lineKeys))
                .Concat(
                    signs.Select(sign => new Answer(
                        sign.FindingId,
                        sign.Present ? Said.Present : Said.Absent,
                        false,
                        From(sign),
                        sign.Source,
                        sign.EntryId,
                        sign.TakenAt,
                        false,
                        sign.MendedAt is not null
                    ))
                )
                .OrderBy(answer => answer.At)
                .Where(answer => Applies(knowledge, kind, answer.FindingId))
        )
        {
            var key = (item.FindingId, Stretch(item.FindingId, item.At));
            if (item.Said == Said.CouldNotTell)
            {
                standing.Remove(key);
                continue;
            }

            // How a part was left does not take back how it was found.
            if (item.AsLeft && standing.TryGetValue(key, out var asFound) && !asFound.AsLeft)
            {
                continue;
            }

            standing[key] = new EvidenceItem(
                item.FindingId,
                knowledge.FindFinding(item.FindingId)!.Label,
                item.Said == Said.Present,
                item.Doubtful,
                item.From,
                item.LineKey,
                item.EntryId,
                item.At,
                item.Mended || Touched(item.FindingId, item.At),
                item.AsLeft
            );
        }

        var silent = knowledge
            .Needs.Where(need =>
                need.RuledOutBy.Any(finding =>
                    standing.Values.Any(item => item.FindingId == finding && item is { Present: true, BeforeFix: false })
                )
            )
            .SelectMany(need => need.ShownBy)
            .ToHashSet();
        var items = standing
            .Values.OrderBy(item => item.TakenAt)
            .ThenBy(item => item.FindingId, StringComparer.Ordinal)
            .Select(item =>
                item is { Present: false, BeforeFix: false } && silent.Contains(item.FindingId) ? item with { CannotShow = true } : item
            )
            .ToList();
        var noCure = said.Where(one => one.Note.Outcome == FaultOutcome.NoCure).Select(one => one.Note.CauseId!).ToList();
        var ruledOut = said.Where(one => one.Note.Outcome == FaultOutcome.NotIt).Select(one => one.Note.CauseId!).Concat(noCure).ToList();
        var settled = found.Select(fault => fault.CauseId).Concat(ruledOut).ToHashSet();
        var since = items.Where(item => !item.BeforeFix).Select(item => item.FindingId).ToHashSet();
        // Oil that a gauge line found thin is as thin as oil that was smelt.
        var thinned = items.Any(item =>
            item is { FindingId: SafetyState.FuelInOil, Present: true, From: EvidenceFrom.Gauge }
            && !notes.Any(note => note.Note is SafetyNote { Condition: SafetyCondition.OilChanged } && note.TakenAt > item.TakenAt)
        );
        var told = notes.Select(note => note.Note).OfType<ToldNote>().LastOrDefault();
        var safety = SafetyState.Of(knowledge, kind, notes.Select(note => note.Note));
        return new Evidence(
            items,
            found,
            settled,
            ruledOut,
            [
                .. items
                    .Where(item =>
                        item is { Present: true, BeforeFix: true }
                        && !since.Contains(item.FindingId)
                        && knowledge.FindFinding(item.FindingId)!.Role == FindingRole.Trouble
                    )
                    .Select(item => item.FindingId)
                    .Distinct(),
            ],
            // A check stays done unless something was put right since that could change what it shows; the owner is asked once.
            (
                from note in notes
                where note.Note is FindingsNote { CheckId: not null }
                let done = (FindingsNote)note.Note
                where
                    done.FromOwner || !(knowledge.FindCheck(done.CheckId!)?.Reveals.Any(finding => Touched(finding, note.TakenAt)) ?? false)
                select done.CheckId!
            )
                .Concat(Measured(knowledge, readings, Touched))
                .ToHashSet(),
            found.Count == 0 && said.Any(one => one.Note.Outcome == FaultOutcome.NothingFound),
            ApartNow(knowledge, notes),
            (safety with { OilThinned = safety.OilThinned || thinned }).After(knowledge, kind, items),
            notes
                .Select(note => note.Note)
                .OfType<FindingsNote>()
                .Where(note => note.FromOwner)
                .SelectMany(note => note.Answers)
                .Where(answer => answer.Said != Said.CouldNotTell)
                .GroupBy(answer => answer.FindingId)
                .ToDictionary(answers => answers.Key, answers => answers.Last().Said == Said.Present),
            told?.Tried ?? [],
            told?.Offered ?? [],
            noCure
        );
    }

    /// <summary>
    /// Checks that were done by reading a gauge line: one that answers all they show. A reading that cannot tell is not asked
    /// for again at once.
    /// </summary>
    private static IEnumerable<string> Measured(
        FaultKnowledge knowledge,
        IReadOnlyList<JudgedReading> readings,
        Func<string, DateTimeOffset, bool> touched
    ) =>
        from check in knowledge.Checks
        where
            knowledge
                .LinesOf(check.Id)
                .Any(line =>
                    readings.LastOrDefault(reading => reading.LineKey == line) is { } reading
                    && check.Reveals.All(finding =>
                        !touched(finding, reading.TakenAt)
                        && knowledge.StationFindings.Any(station => station.FindingId == finding && station.Matches(line))
                    )
                )
        select check.Id;

    /// <summary>Whether a finding is there now, as far as is known: seen or told, and nothing put right since.</summary>
    /// <param name="finding">The finding.</param>
    public bool IsThere(string finding) => Items.Any(item => item.FindingId == finding && item is { Present: true, BeforeFix: false });

    /// <summary>How often a cause that stays has to bring a finding about for that to be explained by it: the word “sometimes”.</summary>
    private const double Explains = 0.3;

    /// <summary>Whether something that was sent on, or left as it is, explains a finding.</summary>
    /// <param name="finding">The finding.</param>
    /// <param name="knowledge">The fault knowledge.</param>
    public bool IsExplainedByWhatStays(string finding, FaultKnowledge knowledge) =>
        Found.Any(fault =>
            fault.Stays
            && knowledge.Links.Any(link => link.CauseId == fault.CauseId && link.FindingId == finding && link.Probability >= Explains)
        );

    /// <summary>How what a check needs stands.</summary>
    /// <param name="need">The need.</param>
    /// <param name="kind">The carburetor.</param>
    /// <param name="knowledge">The fault knowledge.</param>
    public NeedState StateOf(Need need, CarburetorKind kind, FaultKnowledge knowledge)
    {
        if (need.OnlyWith.Count > 0 && !need.OnlyWith.Any(IsThere))
        {
            return NeedState.Met;
        }

        if (need.RuledOutBy.Any(IsThere))
        {
            return NeedState.RuledOut;
        }

        var asks = need.AskedBy is { } id && knowledge.FindCheck(id) is { } check && check.Applies.Matches(kind) ? check : null;
        return
            asks is null
            || DoneChecks.Contains(asks.Id)
            || need.ShownBy.Any(finding => Items.Any(item => item.FindingId == finding && item.Present))
            || need.RuledOutBy.Where(asks.Reveals.Contains)
                .All(finding => Items.Any(item => item.FindingId == finding && item is { Present: false, BeforeFix: false }))
            ? NeedState.Met
            : NeedState.Unknown;
    }

    /// <summary>Findings that say something of how it came in, in the order the network counts them.</summary>
    public IReadOnlyList<EvidenceItem> Speaking => [.. Items.Where(item => item is { AsLeft: false, CannotShow: false })];

    /// <summary>The findings as the network counts them, one for each of <see cref="Speaking"/>.</summary>
    /// <param name="faults">The case.</param>
    public IReadOnlyList<Observation> Observations(FaultCase faults)
    {
        var observations = new List<Observation>();
        foreach (var item in Speaking)
        {
            var finding = faults.FindingAt(item.FindingId);
            var absent = 1 - faults.Findings[finding].Background;
            foreach (var fault in Found.Where(fault => fault.Stays || fault.At > item.TakenAt))
            {
                if (faults.CauseAt(fault.CauseId) is >= 0 and var cause)
                {
                    absent *= 1 - faults.Strengths[finding][cause];
                }
            }

            observations.Add(new Observation(finding, item.Present, WitnessOf(item, faults.Knowledge), absent));
        }

        return observations;
    }

    /// <summary>
    /// Findings that were answered since the last fix and need no second look, by their place in the case. What is
    /// doubtful, and what an owner said of a part, is worth a look of one's own.
    /// </summary>
    public IReadOnlySet<int> Known(FaultCase faults) =>
        Items
            .Where(item => !item.BeforeFix && !item.Doubtful)
            .Select(item => (Finding: faults.FindingAt(item.FindingId), item.From))
            .Where(known => known.From != EvidenceFrom.Owner || faults.Findings[known.Finding].Role != FindingRole.Part)
            .Select(known => known.Finding)
            .ToHashSet();

    private const string QuickTests = "faults/";

    private static EvidenceFrom From(FindingSign sign) =>
        sign.Source.StartsWith(QuickTests, StringComparison.Ordinal) ? EvidenceFrom.Gauge : EvidenceFrom.Strip;

    private static Witness WitnessOf(EvidenceItem item, FaultKnowledge knowledge) =>
        WitnessOf(item, knowledge.Reliability, knowledge.Decisive.ContainsKey(item.FindingId));

    private static Witness WitnessOf(EvidenceItem item, Reliability reliability, bool decisive) =>
        item.Doubtful ? reliability.Doubtful
        : decisive && item is { Present: true, From: not EvidenceFrom.Owner } ? reliability.Plain
        : item.From switch
        {
            EvidenceFrom.Owner => reliability.Owner,
            EvidenceFrom.Gauge => reliability.Gauge,
            EvidenceFrom.Technician or EvidenceFrom.Strip => reliability.Technician,
        };

    private readonly record struct Answer(
        string FindingId,
        Said Said,
        bool Doubtful,
        EvidenceFrom From,
        string? LineKey,
        Guid EntryId,
        DateTimeOffset At,
        bool AsLeft,
        bool Mended = false
    );

    private static bool Applies(FaultKnowledge knowledge, CarburetorKind kind, string findingId) =>
        knowledge.FindFinding(findingId)?.Applies.Matches(kind) == true;

    private static IEnumerable<Answer> Answers(FaultKnowledge knowledge, IReadOnlyList<Logged<TraceNote>> notes) =>
        from logged in notes
        where logged.Note is FindingsNote
        let note = (FindingsNote)logged.Note
        from answer in note.Answers
        where knowledge.FindFinding(answer.FindingId) is not null
        select new Answer(
            answer.FindingId,
            answer.Said,
            answer.Doubtful,
            note.FromOwner ? EvidenceFrom.Owner : EvidenceFrom.Technician,
            null,
            logged.EntryId,
            logged.TakenAt,
            false
        );

    /// <summary>
    /// What gauge lines say of findings. A finding of several lines (the rows of a tube) is there as soon as one line
    /// says so, and not there only when every line that can say so has been read and does.
    /// </summary>
    private static IEnumerable<Answer> FromStations(
        FaultKnowledge knowledge,
        IReadOnlyList<JudgedReading> readings,
        IReadOnlyList<string> lineKeys
    )
    {
        foreach (var mapping in knowledge.StationFindings.GroupBy(station => station.FindingId))
        {
            var lines = lineKeys.Where(key => mapping.Any(station => station.Matches(key))).ToList();
            // A line that can only say that it is there is not asked before it is said not to be.
            var asked = lines.Where(key => mapping.Any(station => !station.Present && station.Matches(key))).ToList();
            var said = new Dictionary<string, bool?>();
            var isPart = knowledge.FindFinding(mapping.Key)!.Role == FindingRole.Part;
            var readAsFound = false;
            foreach (var reading in readings.Where(reading => lines.Contains(reading.LineKey)))
            {
                said[reading.LineKey] = mapping
                    .FirstOrDefault(station => station.Matches(reading.LineKey) && station.Judged == reading.Finding)
                    ?.Present;
                bool? all =
                    said.Values.Any(value => value == true) ? true
                    : asked.Count > 0 && asked.All(key => said.GetValueOrDefault(key) == false) ? false
                    : null;
                readAsFound |= !reading.AsLeft;
                yield return new Answer(
                    mapping.Key,
                    all switch
                    {
                        true => Said.Present,
                        false => Said.Absent,
                        _ => Said.CouldNotTell,
                    },
                    false,
                    EvidenceFrom.Gauge,
                    reading.LineKey,
                    reading.EntryId,
                    reading.TakenAt,
                    isPart && all == false && !readAsFound
                );
            }
        }
    }

    /// <summary>Causes confirmed by hand, those that a bad reading followed by a good one on the same line shows, and those of a part that
    /// was found bad and renewed.</summary>
    private static List<FaultFound> FoundIn(
        FaultKnowledge knowledge,
        CarburetorKind kind,
        List<(Logged<TraceNote> Logged, FaultNote Note)> said,
        IReadOnlyList<JudgedReading> readings,
        IReadOnlyList<FindingSign> signs
    )
    {
        var found = new List<FaultFound>();
        foreach (var sign in signs.Where(sign => sign is { Present: true, MendedAt: not null }))
        {
            if (
                knowledge.FaultOf(sign.FindingId) is { } id
                && knowledge.FindCause(id) is { } cause
                && cause.Applies.Matches(kind)
                && found.All(fault => fault.CauseId != id)
            )
            {
                found.Add(new FaultFound(id, cause.Label, sign.MendedAt!.Value, FaultOutcome.Fixed, sign.Source, sign.EntryId));
            }
        }

        foreach (var station in knowledge.StationFindings.Where(station => station.CauseId is not null))
        {
            var cause = knowledge.FindCause(station.CauseId!)!;
            if (!cause.Applies.Matches(kind) || found.Any(fault => fault.CauseId == cause.Id))
            {
                continue;
            }

            foreach (var line in readings.Where(reading => station.Matches(reading.LineKey)).GroupBy(reading => reading.LineKey))
            {
                var bad = line.FirstOrDefault(reading => reading.Finding == station.Judged);
                var good = bad is null ? null : line.LastOrDefault(reading => reading.TakenAt > bad.TakenAt);
                var mended =
                    good is not null
                    && knowledge.StationFindings.Any(other =>
                        other.FindingId == station.FindingId && !other.Present && other.Judged == good.Finding && other.Matches(line.Key)
                    );
                if (mended)
                {
                    found.Add(new FaultFound(cause.Id, cause.Label, good!.TakenAt, FaultOutcome.Fixed, line.Key, good.EntryId));
                    break;
                }
            }
        }

        foreach (var (logged, note) in said)
        {
            // Confirmed by hand stands before what readings imply, at the moment the part was put right; what was said
            // not to be it is not.
            var implied = found.FirstOrDefault(fault => fault.CauseId == note.CauseId);
            if (note.CauseId is { } id && knowledge.FindCause(id) is { } cause && note.Outcome != FaultOutcome.Open)
            {
                found.RemoveAll(fault => fault.CauseId == id);
                if (note.Settles)
                {
                    found.Add(
                        new FaultFound(
                            id,
                            cause.Label,
                            implied?.At ?? logged.TakenAt,
                            note.Outcome,
                            null,
                            logged.EntryId,
                            note.Reason,
                            note.OwnerSaid,
                            note.Done
                        )
                    );
                }
            }
        }

        return [.. found.OrderBy(fault => fault.At)];
    }

    private static ApartLevel ApartNow(FaultKnowledge knowledge, IReadOnlyList<Logged<TraceNote>> notes)
    {
        var level = ApartLevel.Together;
        foreach (var logged in notes)
        {
            level = logged.Note switch
            {
                ApartNote apart => apart.Level,
                FindingsNote { CheckId: { } id } when knowledge.FindCheck(id) is { } check => check.LeavesApart(level),
                _ => level,
            };
        }

        return level;
    }
}
