using System.Reflection;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Handover;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Trays;

namespace BlueDawn.Core.Tests.Trays;

/// <summary>Whatever a line can find is declared: there is no other word to judge by.</summary>
public sealed class FindingsTests
{
    /// <summary>A finding that a line's class holds and does not list would be judged by and stand in no document.</summary>
    [Fact]
    public void Every_finding_that_a_line_holds_is_in_its_list()
    {
        var classes = typeof(GaugeLine)
            .Assembly.GetTypes()
            .Where(type => type.IsAssignableTo(typeof(GaugeLine)) && !type.IsAbstract && type != typeof(LookLine))
            .ToList();
        Assert.True(classes.Count > 20);
        foreach (var type in classes)
        {
            var held = type.GetFields(BindingFlags.Static | BindingFlags.NonPublic | BindingFlags.Public)
                .Where(field => field.FieldType == typeof(LineFinding))
                .Select(field => (LineFinding)field.GetValue(null)!)
                .ToHashSet();
            var listed = ((IReadOnlyList<LineFinding>)type.GetProperty("CanFind")!.GetValue(null)!).ToHashSet();
            Assert.True(held.IsSubsetOf(listed), $"{type.Name} holds {string.Join(", ", held.Except(listed).Select(one => one.Id))}.");
            Assert.All(listed, finding =>
                Assert.True(StationList.Findings.Any(known => known.Id == finding.Id), $"{type.Name}: {finding.Id}")
            );
        }
    }

    [Fact]
    public void What_is_judged_is_what_was_declared_for_every_reading_that_can_be_drawn()
    {
        var draw = new Random(7);
        var found = new HashSet<string>();
        foreach (var line in Sheets.LinesOfEveryFamily)
        {
            var declared = line.Findings.Append(LineFinding.NotRead).ToLookup(finding => finding.Id);
            for (var i = 0; i < 60; i++)
            {
                var reading = TypedDraw.Of(line, draw) is { } typed ? line.Read(typed).Reading : null;
                var said = line.Judge(reading, PinSet.Empty);
                found.Add(said.Finding);
                Assert.Contains(declared[said.Finding], finding => finding.Verdict == said.Verdict);
                Assert.Equal(reading is null, said.Verdict == Verdict.NotRead);
            }
        }

        Assert.True(found.Count > 120, $"Only {found.Count} findings were met.");
    }

    /// <summary>Words of looks are those of their tables: "none" is good of one thing and bad of another.</summary>
    [Fact]
    public void An_id_has_one_verdict_wherever_it_stands()
    {
        var kinds = StationList
            .All.SelectMany(station => station.Readings)
            .Where(kind => kind.Type != typeof(LookReading))
            .SelectMany(kind => kind.Findings);
        foreach (var finding in kinds.Where(finding => finding.Id != LineFinding.CannotTell.Id).GroupBy(finding => finding.Id))
        {
            Assert.Single(finding.Select(one => one.Verdict).Distinct());
        }
    }

    /// <summary>What else speaks of findings speaks of declared ones: the trace's table, and what an owner is told to watch.</summary>
    [Fact]
    public void Whoever_speaks_of_a_finding_speaks_of_one_that_a_line_declares()
    {
        var declared = StationList.Findings.Select(finding => finding.Id).ToHashSet();
        Assert.All(WatchList.Troubles, trouble => Assert.Contains(trouble, declared));
        var rows = FaultKnowledge.Shipped.StationFindings;
        Assert.True(rows.Count > 100);
        Assert.All(rows, row => Assert.Contains(row.Judged, declared));
    }

    /// <summary>A line nobody knows a limit for says so itself; none is made up for it.</summary>
    [Fact]
    public void Without_a_sheet_no_limit_is_shown_and_none_is_judged_by()
    {
        var lines = new TestTray(null).Book.Lines.Select(judged => judged.Line).Where(line => line.Limits is null).ToList();
        Assert.Equal(
            ["gauging/idle-jet", "gauging/main-jet", "proving/governed-speed", "proving/idle-speed", "setting/float-height"],
            lines.Select(line => line.Key).Order()
        );
        var draw = new Random(3);
        Assert.All(lines, line =>
        {
            Assert.False(line.Required);
            Assert.False(line.StandsAside);
            Assert.Equal("No limit known", line.Target.ToString());
            Assert.Null(line.Window);
            Assert.All(line.Form.Groups.SelectMany(group => group.Fields), box => Assert.Null(line.ExpectedIn(box.Name)));
            var said = line.Judge(line.Read(TypedDraw.Of(line, draw)!).Reading, PinSet.Empty);
            Assert.Equal((Verdict.CannotTell, "noLimit"), (said.Verdict, said.Finding));
            Assert.Empty(said.Figures);
        });
    }
}
