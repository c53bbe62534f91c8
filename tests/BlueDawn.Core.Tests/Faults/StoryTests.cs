namespace BlueDawn.Core.Tests.Faults;

/// <summary>Forty-odd invented jobs, each led to its end by what the trace advises. Both halves are reported; the tables are tuned on
/// the first alone.</summary>
public sealed class StoryTests(ITestOutputHelper output)
{
    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public void Every_story_is_led_to_its_end_without_a_step_that_must_not_be_done(bool setAside)
    {
        var stories = Story.All.Where(story => story.SetAside == setAside).ToList();
        var runs = stories.Select(story => (Story: story, Run: StoryRunner.Run(story))).ToList();
        foreach (var (story, run) in runs)
        {
            output.WriteLine(
                $"{story.Id} {(run.FirstAtStory ? "first" : "     ")} {run.Minutes, 4:0} min, good {story.GoodMinutes, 3:0}"
                    + (run.Left.Count > 0 ? " LEFT " + string.Join(' ', run.Left) : "")
                    + (run.Impossible.Count > 0 ? " MUST NOT " + string.Join("; ", run.Impossible) : "")
                    + $" | {string.Join(" > ", run.Steps)}"
            );
        }

        output.WriteLine(
            $"{stories.Count} stories: first at the story {runs.Count(one => one.Run.FirstAtStory)}, "
                + $"minutes {runs.Sum(one => one.Run.Minutes):0} (good mechanic {stories.Sum(story => story.GoodMinutes):0}), "
                + $"fixes for nothing {runs.Sum(one => one.Run.ForNothing.Count)}, "
                + $"must not {runs.Sum(one => one.Run.Impossible.Count)}, left {runs.Sum(one => one.Run.Left.Count)}"
        );
        Assert.Empty(runs.SelectMany(one => one.Run.Impossible.Select(what => $"{one.Story.Id}: {what}")));
        Assert.Empty(runs.SelectMany(one => one.Run.Left.Select(what => $"{one.Story.Id}: {what}")));
    }
}
