using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Safety;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tables;

namespace BlueDawn.Core.Faults;

/// <summary>Reads the fault knowledge from its tables and refuses one that does not hold together.</summary>
internal static class FaultKnowledgeReader
{
    /// <summary>Reads the tables.</summary>
    /// <param name="tables">The tables, and what is known of bench parts: a cause can sit at one.</param>
    /// <exception cref="TableException">A table does not hold together; the message says which row.</exception>
    public static FaultKnowledge Read(Knowledge tables)
    {
        var (ledger, ids) = (tables.Of<LedgerKnowledge>(), new Dictionary<string, HashSet<string>>());
        HashSet<string> Ids(string table) => ids.TryGetValue(table, out var known) ? known : ids[table] = [];
        string Finding(TableRow row, string column) => row.In(column, Ids(Findings), Findings);
        string[] FindingsOf(TableRow row, string column) =>
            row.MayBeEmpty(column).Split(' ', StringSplitOptions.RemoveEmptyEntries) is var named
            && named.FirstOrDefault(id => !Ids(Findings).Contains(id)) is { } unknown
                ? throw row.Wrong(column, $"speaks of {unknown}, which is not in {Findings}")
                : named;
        Dictionary<string, string> CauseByFinding(string table) =>
            tables
                .Rows($"faults/{table}.csv", row =>
                    (Finding: row.Once("finding", Ids(table)), Known: Finding(row, "finding"), Cause: row.In("cause", Ids(Causes), Causes))
                )
                .ToDictionary(row => row.Finding, row => row.Cause);
        var strengths = tables
            .Rows("faults/strengths.csv", row => (Word: row.Once("word", Ids("strengths")), Probability: row.Share("probability")))
            .ToDictionary(pair => pair.Word, pair => pair.Probability);
        var reliability = tables
            .Rows("faults/reliability.csv", row =>
                (From: row.Once("from", Ids("reliability")), Value: new Witness(row.Share("seen"), row.Share("false_alarm")))
            )
            .ToDictionary(pair => pair.From, pair => pair.Value);
        var findings = tables.Rows(Findings, row => new Finding(
            row.Once("id", Ids(Findings)),
            row.Text("label"),
            row.TextOrNull("short") ?? row.Text("label"),
            row.Text("stage"),
            row.Word<FindingRole>("role"),
            Applies(row),
            row.Share("background"),
            row.Text("source")
        ));
        var cautions = tables
            .Rows("faults/cautions.csv", row =>
                (
                    Key: row.Once("key", Ids(Cautions)),
                    Caution: new CheckCaution(
                        new Caution(row.Text("key"), row.MayBeEmpty("text")),
                        row.TextOrNull("precondition"),
                        row.TextOrNull("condition") is null ? null : row.Word<SafetyCondition>("condition")
                    )
                )
            )
            .ToDictionary(pair => pair.Key, pair => pair.Caution);
        return new FaultKnowledge(
            tables.Rows(Causes, row =>
                PlacedCause(
                    row,
                    ledger,
                    new Cause(
                        row.Once("id", Ids(Causes)),
                        row.Text("label"),
                        row.Text("circuit"),
                        row.Word<Place>("place"),
                        row.MayBeEmpty("parts").Split(' ', StringSplitOptions.RemoveEmptyEntries),
                        Applies(row),
                        row.Word<ApartLevel>("apart"),
                        row.Text("fix"),
                        row.Number("fix_minutes"),
                        row.Number("parts_money"),
                        row.Text("refer") == "yes",
                        row.Number("prior_weight"),
                        row.Text("source")
                    )
                )
            ),
            findings,
            tables.Rows("faults/checks.csv", row => new Check(
                row.Once("id", Ids("checks")),
                row.Text("label"),
                row.Word<CheckState>("state"),
                row.Number("minutes"),
                FindingsOf(row, "reveals") is { Length: > 0 } reveals ? reveals : throw row.Wrong("reveals", "must name what it shows"),
                row.In("caution", Ids(Cautions), Cautions),
                FindingsOf(row, "not_with"),
                Applies(row),
                row.Text("source")
            )),
            tables.Rows("faults/cause-findings.csv", row => new CauseFinding(
                row.In("cause", Ids(Causes), Causes),
                Ids($"links of {row.Text("cause")}").Add(Finding(row, "finding"))
                    ? row.Text("finding")
                    : throw row.Wrong("finding", "stands there already for this cause"),
                row.Text("strength"),
                strengths.TryGetValue(row.Text("strength"), out var probability)
                    ? probability
                    : throw row.Wrong("strength", "is not one of the words of faults/strengths.csv"),
                row.Text("source")
            )),
            cautions,
            tables.Rows("faults/apart.csv", row => new ApartCost(
                row.Word<ApartLevel>("level"),
                row.Number("open_minutes"),
                row.Number("close_minutes"),
                row.Text("label")
            )),
            [
                .. tables.Rows("faults/station-findings.csv", row => new StationFinding(
                    row.Text("line"),
                    row.Text("judged"),
                    Finding(row, "finding"),
                    row.Text("answer") == "present",
                    row.TextOrNull("cause") is null ? null : row.In("cause", Ids(Causes), Causes)
                )),
                // A complaint tried again at Prove answers the finding it is.
                .. findings
                    .Where(finding => finding.Role == FindingRole.Trouble)
                    .SelectMany(finding =>
                        new StationFinding[]
                        {
                            new(Complaint.KeyOf(finding.Id), Complaint.StillThere, finding.Id, true, null),
                            new(Complaint.KeyOf(finding.Id), Complaint.Gone, finding.Id, false, null),
                        }
                    ),
            ],
            new Reliability(
                reliability["owner"],
                reliability["technician"],
                reliability["gauge"],
                reliability["doubtful"],
                reliability["plain"]
            ),
            tables.Rows("faults/needs.csv", row => new Need(
                row.Once("need", Ids("needs")),
                row.Text("words"),
                [
                    .. row.Text("for")
                        .Split(' ')
                        .Select(what =>
                            what == Need.Running || Ids("checks").Contains(what)
                                ? what
                                : throw row.Wrong("for", $"speaks of {what}, which is neither running nor a check")
                        ),
                ],
                FindingsOf(row, "only_with"),
                FindingsOf(row, "ruled_out_by"),
                FindingsOf(row, "shown_by"),
                row.TextOrNull("asked_by") is null ? null : row.In("asked_by", Ids("checks"), "faults/checks.csv")
            )),
            CauseByFinding("decisive"),
            CauseByFinding("perishables"),
            tables
                .Rows("faults/measured.csv", row => (Check: row.In("check", Ids("checks"), "faults/checks.csv"), Line: row.Text("line")))
                .ToLookup(row => row.Check, row => row.Line),
            tables
                .Rows("faults/fixes.csv", row =>
                    (
                        Cause: row.Once("cause", Ids("fixes")),
                        Known: row.In("cause", Ids(Causes), Causes),
                        Fix: new FixNeed(
                            row.Text("running") == "yes",
                            Caution.Find(row.Text("caution")) ?? throw row.Wrong("caution", "is not a caution of the bench"),
                            LedgerKnowledge.Proofs(row, "proves")
                        )
                    )
                )
                .ToDictionary(row => row.Cause, row => row.Fix),
            tables
                .Rows("faults/done.csv", row =>
                    (Cause: row.Once("cause", Ids("done")), Known: row.In("cause", Ids(Causes), Causes), Words: row.Text("words"))
                )
                .ToDictionary(row => row.Cause, row => row.Words),
            tables.Rows("faults/contradictions.csv", row => new Contradiction(
                row.Once("id", Ids("contradictions")),
                FindingsOf(row, "told"),
                row.Text("told_answer") == "present",
                FindingsOf(row, "seen"),
                row.Text("words")
            ))
        );
    }

    private const string Causes = "faults/causes.csv",
        Findings = "faults/findings.csv",
        Cautions = "faults/cautions.csv";

    /// <summary>A cause whose parts are bench parts: each is one of a family of the cause, and what sits in the carburetor has one in
    /// every family.</summary>
    private static Cause PlacedCause(TableRow row, LedgerKnowledge ledger, Cause cause)
    {
        foreach (
            var part in cause.Parts.Where(part => !cause.Applies.Families.Any(family => ledger.All(family).Any(known => known.Key == part)))
        )
        {
            throw row.Wrong("parts", $"speaks of {part}, which is no bench part of its families");
        }

        return cause.Place == Place.Carburetor && cause.Applies.Families.Any(family => cause.PartIn(family, ledger) is null)
            ? throw row.Wrong("parts", "must name the part it sits at for each of its families")
            : cause;
    }

    private static AppliesTo Applies(TableRow row) =>
        new(
            row.Families("families"),
            [
                .. row.Text("engines")
                    .Select(digit =>
                        digit switch
                        {
                            '2' => EngineKind.TwoStroke,
                            '4' => EngineKind.FourStroke,
                            _ => throw row.Wrong("engines", "must be of the digits 2 and 4"),
                        }
                    ),
            ],
            row.Text("chokes") == "any"
                ? []
                :
                [
                    .. row.Text("chokes")
                        .Split(' ')
                        .Select(word =>
                            Enum.TryParse<ChokeKind>(word, true, out var choke)
                                ? choke
                                : throw row.Wrong("chokes", "is not a kind of choke")
                        ),
                ]
        );
}
