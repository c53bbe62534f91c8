using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Safety;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tables;

namespace BlueDawn.Core.Faults;

/// <summary>Reads the fault knowledge from its tables and refuses one that does not hold together.</summary>
public static class FaultKnowledgeReader
{
    private const string Resources = "faults/";

    /// <summary>The tables, by file name.</summary>
    public static IReadOnlyList<string> Tables { get; } =
    [
        "causes.csv", "findings.csv", "checks.csv", "cause-findings.csv", "strengths.csv", "cautions.csv", "apart.csv", "station-findings.csv",
        "reliability.csv",
    ];

    /// <summary>The tables that ship with the product.</summary>
    /// <exception cref="InvalidDataException">A table is missing or does not hold together.</exception>
    public static FaultKnowledge ReadShipped() => Read(name => CsvTable.OpenShipped(Resources + name), LedgerKnowledge.Shipped);

    /// <summary>Reads tables from wherever they are.</summary>
    /// <param name="open">Opens a table by its file name.</param>
    /// <param name="ledger">The bench parts a cause can sit at.</param>
    /// <exception cref="InvalidDataException">A table does not hold together; the message says which row.</exception>
    public static FaultKnowledge Read(Func<string, TextReader> open, LedgerKnowledge ledger)
    {
        var strengths = CsvTable.Rows(open, "strengths.csv", row => (row.Text("word"), Probability: row.Share("probability")))
            .ToDictionary(pair => pair.Item1, pair => pair.Probability);
        var reliability = CsvTable.Rows(open, "reliability.csv", row => (From: row.Text("from"), Value: new Witness(row.Share("seen"), row.Share("false_alarm"))))
            .ToDictionary(pair => pair.From, pair => pair.Value);
        var findings = CsvTable.Rows(open, "findings.csv", row => new Finding(
            row.Text("id"), row.Text("label"), row.MayBeEmpty("short") is { Length: > 0 } brief ? brief : row.Text("label"), row.Text("stage"), row.Word<FindingRole>("role"), Applies(row), row.Share("background"), row.Text("source")));
        var knowledge = new FaultKnowledge(
            CsvTable.Rows(open, "causes.csv", row => PlacedCause(row, ledger, new Cause(
                row.Text("id"),
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
                row.Text("source")))),
            findings,
            CsvTable.Rows(open, "checks.csv", row => new Check(
                row.Text("id"),
                row.Text("label"),
                row.Word<CheckState>("state"),
                row.Number("minutes"),
                row.Text("reveals").Split(' ', StringSplitOptions.RemoveEmptyEntries),
                row.Text("caution"),
                row.MayBeEmpty("not_with").Split(' ', StringSplitOptions.RemoveEmptyEntries),
                Applies(row),
                row.Text("source"))),
            CsvTable.Rows(open, "cause-findings.csv", row => new CauseFinding(
                row.Text("cause"),
                row.Text("finding"),
                row.Text("strength"),
                strengths.TryGetValue(row.Text("strength"), out var probability) ? probability : throw row.Wrong("strength", "is not one of the strength words"),
                row.Text("source"))),
            CsvTable.Rows(open, "cautions.csv", row => (Key: row.Text("key"), Caution: new CheckCaution(
                new Caution(row.Text("key"), row.MayBeEmpty("text")),
                row.MayBeEmpty("precondition") is { Length: > 0 } precondition ? precondition : null,
                row.MayBeEmpty("condition").Length > 0 ? row.Word<SafetyCondition>("condition") : null)))
                .ToDictionary(pair => pair.Key, pair => pair.Caution),
            CsvTable.Rows(open, "apart.csv", row => new ApartCost(
                row.Word<ApartLevel>("level"), row.Number("open_minutes"), row.Number("close_minutes"), row.Text("label"))),
            [
                .. CsvTable.Rows(open, "station-findings.csv", row => new StationFinding(
                    row.Text("line"),
                    row.Text("judged"),
                    row.Text("finding"),
                    row.Text("answer") == "present",
                    row.MayBeEmpty("cause") is { Length: > 0 } cause ? cause : null)),
                // A complaint tried again at Prove answers the finding it is.
                .. findings.Where(finding => finding.Role == FindingRole.Trouble).SelectMany(finding => new StationFinding[]
                {
                    new(Complaint.KeyOf(finding.Id), Complaint.StillThere, finding.Id, true, null),
                    new(Complaint.KeyOf(finding.Id), Complaint.Gone, finding.Id, false, null),
                }),
            ],
            new Reliability(reliability["owner"], reliability["technician"], reliability["gauge"], reliability["doubtful"]));
        Check(knowledge);
        return knowledge;
    }

    private static void Check(FaultKnowledge knowledge)
    {
        var causes = Unique(knowledge.Causes.Select(cause => cause.Id), "causes.csv");
        var findings = Unique(knowledge.Findings.Select(finding => finding.Id), "findings.csv");
        Unique(knowledge.Checks.Select(check => check.Id), "checks.csv");
        Unique(knowledge.Links.Select(link => $"{link.CauseId} {link.FindingId}"), "cause-findings.csv");
        void Known(HashSet<string> ids, string id, string where)
        {
            if (!ids.Contains(id))
            {
                throw new InvalidDataException($"{where} speaks of {id}, which is not there.");
            }
        }

        foreach (var link in knowledge.Links)
        {
            Known(causes, link.CauseId, "cause-findings.csv");
            Known(findings, link.FindingId, "cause-findings.csv");
        }

        foreach (var check in knowledge.Checks)
        {
            Known([.. knowledge.Cautions.Keys], check.CautionKey, $"checks.csv, {check.Id}");
            foreach (var finding in check.Reveals.Concat(check.NotWith))
            {
                Known(findings, finding, $"checks.csv, {check.Id}");
            }
        }

        foreach (var station in knowledge.StationFindings)
        {
            Known(findings, station.FindingId, "station-findings.csv");
            if (station.CauseId is { } cause)
            {
                Known(causes, cause, "station-findings.csv");
            }
        }
    }

    private static HashSet<string> Unique(IEnumerable<string> ids, string table)
    {
        var seen = new HashSet<string>();
        foreach (var id in ids)
        {
            if (!seen.Add(id))
            {
                throw new InvalidDataException($"{table} has {id} twice.");
            }
        }

        return seen;
    }

    /// <summary>A cause whose parts are bench parts: each is one of a family of the cause, and what sits in the carburetor has one in every family.</summary>
    private static Cause PlacedCause(TableRow row, LedgerKnowledge ledger, Cause cause)
    {
        foreach (var part in cause.Parts.Where(part => !cause.Applies.Families.Any(family => ledger.All(family).Any(known => known.Key == part))))
        {
            throw row.Wrong("parts", $"speaks of {part}, which is no bench part of its families");
        }

        return cause.Place == Place.Carburetor && cause.Applies.Families.Any(family => cause.PartIn(family, ledger) is null)
            ? throw row.Wrong("parts", "must name the part it sits at for each of its families")
            : cause;
    }

    private static AppliesTo Applies(TableRow row) => new(
        row.Families("families"),
        [.. row.Text("engines").Select(digit => digit switch
        {
            '2' => EngineKind.TwoStroke,
            '4' => EngineKind.FourStroke,
            _ => throw row.Wrong("engines", "must be of the digits 2 and 4"),
        })],
        row.Text("chokes") == "any"
            ? []
            : [.. row.Text("chokes").Split(' ').Select(word => Enum.TryParse<ChokeKind>(word, true, out var choke) ? choke : throw row.Wrong("chokes", "is not a kind of choke"))]);
}
