using System.Globalization;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Tables;
using CsCheck;

namespace BlueDawn.Core.Tests.Faults;

/// <summary>
/// Noisy-OR with preconditions, against the joint distribution gone through state by state. Three causes, a trouble that
/// keeps the machine from running, two that show only while it runs, and a part. The definition: a trouble is there when a
/// cause brings it about (or it is there by itself) and the machine runs.
/// </summary>
public sealed class NeedsTests
{
    private static readonly string[] Causes = ["a", "b", "c"],
        Findings = ["dead", "hunts", "weak", "part"];
    private static readonly CarburetorKind Kind = new(CarburetorFamily.FloatBowl, EngineKind.FourStroke, null);

    private sealed record Drawn(double[][] Strength, double[] Background, double[] Weight, bool Dead, bool Hunts, bool Weak, bool Part);

    /// <summary>A dead machine does not hunt, and nobody who looks says that it does.</summary>
    private static readonly Gen<Drawn> Any =
        from strength in Gen.Double[0.02, 0.95].Array[3].Array[4]
        from background in Gen.Double[0.01, 0.4].Array[4]
        from weight in Gen.Double[0.2, 5].Array[3]
        from dead in Gen.Bool
        from hunts in Gen.Bool
        from weak in Gen.Bool
        from part in Gen.Bool
        select new Drawn(strength, background, weight, dead, hunts && !dead, weak && !dead, part);

    [Fact]
    public void Ranking_agrees_with_the_joint_distribution_state_by_state() =>
        Any.Sample(
            drawn =>
            {
                var knowledge = Tables(drawn);
                var tray = Evidence.Gather(
                    knowledge,
                    Kind,
                    [
                        new(
                            Guid.Empty,
                            DateTimeOffset.UnixEpoch,
                            "",
                            new FindingsNote(
                                null,
                                [Said("dead", drawn.Dead), Said("hunts", drawn.Hunts), Said("weak", drawn.Weak), Said("part", drawn.Part)]
                            )
                        ),
                    ],
                    [],
                    [],
                    []
                );
                var faults = new FaultCase(knowledge, Kind, FaultHistory.None, new HashSet<string>());
                var posterior = faults.Network.Infer(tray.Observations(faults));
                var expected = ByTheJoint(drawn, faults.Prior);
                for (var cause = 0; cause < Causes.Length; cause++)
                {
                    Assert.Equal(expected[cause], posterior.CauseProbability[cause], tolerance: 5e-7);
                }
            },
            iter: 300
        );

    /// <summary>Every set of causes with every state of the four findings, weighed, and kept where it is what was seen.</summary>
    private static double[] ByTheJoint(Drawn drawn, IReadOnlyList<double> prior)
    {
        var (total, with) = (0.0, new double[3]);
        for (var set = 0; set < 8; set++)
        {
            var weight = Enumerable.Range(0, 3).Aggregate(1.0, (w, c) => w * ((set >> c & 1) == 1 ? prior[c] : 1 - prior[c]));
            double Brought(int finding) =>
                1
                - Enumerable
                    .Range(0, 3)
                    .Where(c => (set >> c & 1) == 1)
                    .Aggregate(1 - drawn.Background[finding], (absent, c) => absent * (1 - drawn.Strength[finding][c]));
            for (var state = 0; state < 16; state++)
            {
                // What the causes bring about; what shows of it depends on whether it runs.
                bool Is(int finding) => (state >> finding & 1) == 1;
                var p = Enumerable.Range(0, 4).Aggregate(weight, (w, f) => w * (Is(f) ? Brought(f) : 1 - Brought(f)));
                if (Is(0) == drawn.Dead && (Is(1) && !Is(0)) == drawn.Hunts && (Is(2) && !Is(0)) == drawn.Weak && Is(3) == drawn.Part)
                {
                    total += p;
                    for (var c = 0; c < 3; c++)
                    {
                        with[c] += (set >> c & 1) == 1 ? p : 0;
                    }
                }
            }
        }

        return [.. with.Select(one => one / total)];
    }

    private static FindingAnswer Said(string finding, bool present) =>
        new(finding, present ? Core.Faults.Said.Present : Core.Faults.Said.Absent);

    private static FaultKnowledge Tables(Drawn drawn)
    {
        static string Number(double value) => value.ToString("R", CultureInfo.InvariantCulture);
        var words = Findings.SelectMany((_, f) => Causes.Select((_, c) => (Word: $"w{f}{c}", Probability: drawn.Strength[f][c]))).ToList();
        var tables = new Dictionary<string, string>
        {
            ["faults/causes.csv"] =
                "id,label,circuit,place,parts,families,engines,chokes,apart,fix,fix_minutes,parts_money,refer,prior_weight,source\n"
                + string.Join(
                    '\n',
                    Causes.Select(
                        (cause, c) => $"{cause},{cause},main,machine,,F,24,any,together,Fix,10,0,no,{Number(drawn.Weight[c])},invented"
                    )
                ),
            ["faults/findings.csv"] =
                "id,label,short,stage,role,families,engines,chokes,background,source\n"
                + string.Join(
                    '\n',
                    Findings.Select(
                        (finding, f) =>
                            $"{finding},{finding},,complaint,{(finding == "part" ? "part" : "trouble")},F,24,any,{Number(drawn.Background[f])},invented"
                    )
                ),
            ["faults/checks.csv"] =
                "id,label,state,minutes,reveals,caution,not_with,families,engines,chokes,source\nlook,Look,any,2,part,none,,F,24,any,invented",
            ["faults/cause-findings.csv"] =
                "cause,finding,strength,source\n"
                + string.Join(
                    '\n',
                    Findings.SelectMany((finding, f) => Causes.Select((cause, c) => $"{cause},{finding},w{f}{c},invented"))
                ),
            ["faults/strengths.csv"] =
                "word,probability,source\n" + string.Join('\n', words.Select(word => $"{word.Word},{Number(word.Probability)},invented")),
            ["faults/reliability.csv"] =
                "from,seen,false_alarm,source\n"
                + string.Join(
                    '\n',
                    new[] { "owner", "technician", "gauge", "doubtful", "plain" }.Select(who => $"{who},0.9999999999,0.0000000001,invented")
                ),
            ["faults/cautions.csv"] = "key,text,precondition,condition,source\nnone,,,,invented",
            ["faults/station-findings.csv"] = "line,judged,finding,answer,cause,source",
            ["faults/needs.csv"] =
                "need,words,for,only_with,ruled_out_by,shown_by,asked_by,source\nruns,It has to run,look,,dead,hunts weak,,invented",
            ["faults/decisive.csv"] = "finding,cause,source",
            ["faults/perishables.csv"] = "finding,cause,source",
            ["faults/done.csv"] = "cause,words,source",
            ["faults/measured.csv"] = "check,line,source",
            ["faults/fixes.csv"] = "cause,running,caution,source",
            ["faults/contradictions.csv"] = "id,told,told_answer,seen,words,source",
        };
        return new Knowledge(
            name => tables.TryGetValue(name, out var text) ? new StringReader(text) : CsvTable.OpenShipped(name),
            []
        ).Of<FaultKnowledge>();
    }
}
