using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tables;
using BlueDawn.Core.Tests.Trays;

namespace BlueDawn.Core.Tests.Faults;

/// <summary>The shipped tables hold together. What they say is common practice, no source.</summary>
public class FaultKnowledgeTests
{
    private static readonly FaultKnowledge Knowledge = FaultKnowledge.Shipped;

    /// <summary>A caution fits the act: who runs an engine is told of exhaust and of what turns, and where fuel has to flow nobody is
    /// told to shut it off first. Which checks need it to flow is written here by hand. Common practice, no source.</summary>
    [Fact]
    public void A_caution_fits_what_is_done()
    {
        var knowledge = Knowledge;
        string Words(Check check) => knowledge.Cautions[check.CautionKey].Caution.Text;
        Assert.All(knowledge.Checks.Where(check => check.State == CheckState.Running), check =>
        {
            Assert.Contains("exhaust", Words(check), StringComparison.OrdinalIgnoreCase);
            Assert.Contains("anything that turns", Words(check), StringComparison.Ordinal);
        });
        foreach (var id in new[] { "line-flow", "primer-press", "lever-flow", "fuel-watch", "cap-loose" })
        {
            Assert.DoesNotContain("shut off", Words(knowledge.FindCheck(id)!), StringComparison.OrdinalIgnoreCase);
            Assert.Equal(SafetyCondition.NoFlame, knowledge.Cautions[knowledge.FindCheck(id)!.CautionKey].Condition);
        }
    }

    [Fact]
    public void Every_row_names_its_source()
    {
        Assert.All(Knowledge.Causes, cause => Assert.NotEmpty(cause.Source));
        Assert.All(Knowledge.Links, link => Assert.NotEmpty(link.Source));
        Assert.All(Knowledge.Checks, check => Assert.NotEmpty(check.Source));
    }

    [Fact]
    public void Every_cause_always_shows_as_something_that_a_check_of_its_own_kind_reveals()
    {
        foreach (var cause in Knowledge.Causes)
        {
            var always = Knowledge
                .Links.Where(link => link.CauseId == cause.Id && link.Probability >= 0.9)
                .Select(link => link.FindingId)
                .ToList();
            foreach (var family in cause.Applies.Families)
            {
                var kind = new CarburetorKind(
                    family,
                    cause.Applies.Engines[0],
                    cause.Applies.Chokes.Count > 0 ? cause.Applies.Chokes[0] : null
                );
                Assert.True(
                    Knowledge.Checks.Any(check =>
                        check.Applies.Matches(kind)
                        && check.Reveals.Any(id => always.Contains(id) && Knowledge.FindFinding(id)!.Applies.Matches(kind))
                    ),
                    $"{cause.Id} on {family} is never proven by any check"
                );
            }
        }
    }

    [Fact]
    public void Every_finding_that_is_not_a_story_is_revealed_by_a_check_and_shown_by_a_cause()
    {
        foreach (var finding in Knowledge.Findings)
        {
            Assert.True(
                Knowledge.Checks.Any(check => check.Reveals.Contains(finding.Id)) || FailureTimeLine.Tells.Contains(finding.Id),
                $"no check reveals {finding.Id}"
            );
            Assert.True(Knowledge.Links.Any(link => link.FindingId == finding.Id), $"no cause shows as {finding.Id}");
        }
    }

    [Fact]
    public void Every_line_the_table_speaks_of_is_a_line_of_some_sheet()
    {
        var lines = Sheets
            .LinesOfEveryFamily.Select(line => line.Key)
            .Concat(Knowledge.Findings.Select(finding => Complaint.KeyOf(finding.Id)))
            .ToList();
        Assert.All(Knowledge.StationFindings, station => Assert.Contains(lines, station.Matches));
        Assert.Contains(Knowledge.StationFindings, station => station.Matches("gauging/emulsion-row-7"));
    }

    [Fact]
    public void Two_strokes_have_no_oil_to_smell_and_four_strokes_do_not_four_stroke()
    {
        var four = new CarburetorKind(CarburetorFamily.FloatBowl, EngineKind.FourStroke, null);
        var two = new CarburetorKind(CarburetorFamily.Diaphragm, EngineKind.TwoStroke, null);
        Assert.False(Knowledge.FindFinding("fuel-in-oil")!.Applies.Matches(two));
        Assert.False(Knowledge.FindFinding("four-strokes-at-full")!.Applies.Matches(four));
        Assert.DoesNotContain(Knowledge.Causes, cause =>
            cause.Id.StartsWith("float-", StringComparison.Ordinal) && cause.Applies.Matches(two)
        );
    }

    [Fact]
    public void No_carburetor_has_more_causes_than_a_set_can_hold() =>
        Assert.All(
            from family in Enum.GetValues<CarburetorFamily>()
            from engine in Enum.GetValues<EngineKind>()
            from choke in Enum.GetValues<ChokeKind>()
            select new CarburetorKind(family, engine, choke),
            kind => Assert.True(Knowledge.Causes.Count(cause => cause.Applies.Matches(kind)) <= FaultNetwork.MostCauses)
        );

    [Theory]
    [InlineData("causes.csv", "main-jet-blocked,", "main-jet-blocked,,", "")]
    [InlineData("cause-findings.csv", "fuel-stale,wont-start,usually", "fuel-stale,wont-start,mostly", "strength")]
    [InlineData("cause-findings.csv", "fuel-stale,wont-start", "fuel-stale,no-such-finding", "no-such-finding")]
    [InlineData("checks.csv", "hot-surface", "no-such-caution", "no-such-caution")]
    [InlineData("findings.csv", "0.05,", "1.05,", "background")]
    [InlineData("causes.csv", "carburetor,needle,FD", "carburetor,pin,FD", "row 15, parts: “pin” speaks of pin")]
    [InlineData("causes.csv", "carburetor,needle,FD", "carburetor,,FD", "must name the part")]
    [InlineData("causes.csv", "main-jet carburetor,FS", "main-jet,FS", "for each of its families")]
    [InlineData("causes.csv", "tank-vent-blocked,", "fuel-stale,", "stands there already")]
    public void A_table_that_does_not_hold_together_is_refused_and_says_where(string table, string from, string to, string says)
    {
        var thrown = Assert.Throws<TableException>(() => ShippedKnowledge.With("faults/" + table, from, to).Of<FaultKnowledge>());
        Assert.StartsWith($"faults/{table}, row ", thrown.Message, StringComparison.Ordinal);
        Assert.Contains(says, thrown.Message, StringComparison.Ordinal);
    }
}
