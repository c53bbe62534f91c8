namespace BlueDawn.Core.Tests.Trays;

/// <summary>Every story led through the stations as its technician did it.</summary>
public class BenchJobTests(ITestOutputHelper output)
{
    [Fact]
    public void Every_step_of_a_job_is_taken_and_nothing_is_owed_that_nobody_touched()
    {
        var runs = BenchJob.All.Select(job => (job.Story.Id, Run: job.Run())).ToList();
        foreach (var (id, run) in runs)
        {
            output.WriteLine($"{id}: {run.Refused.Count} refused, {run.Owed.Count} owed");
        }

        output.WriteLine(
            $"{runs.Count} jobs: {runs.Sum(one => one.Run.Refused.Count)} refused, {runs.Sum(one => one.Run.Owed.Count)} owed"
        );
        Assert.Equal(Tests.Faults.Story.All.Select(story => story.Id), runs.Select(one => one.Id));
        var wrong = runs.SelectMany(one =>
                one.Run.Refused.Select(what => $"{one.Id} REFUSED {what}")
                    .Concat(one.Run.Owed.Select(what => $"{one.Id} OWED {what}"))
                    .Concat(one.Run.Said.Select(what => $"{one.Id} SAID {what}"))
            )
            .ToList();
        Assert.True(wrong.Count == 0, string.Join("\n", wrong));
    }
}
