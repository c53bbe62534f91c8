using BlueDawn.Core.Tests.Faults;

namespace BlueDawn.Bench;

/// <summary>The stories of tests/BlueDawn.Core.Tests/Faults/stories.csv, led by the trace and by the cheapest check first.</summary>
internal static class StoryBench
{
    /// <summary>Prints both halves.</summary>
    /// <param name="steps">Whether every step of the half that is tuned on is printed as well.</param>
    public static void Run(bool steps)
    {
        foreach (var (setAside, name) in new[] { (false, "tuned on"), (true, "set aside") })
        {
            var stories = Story.All.Where(story => story.SetAside == setAside).ToList();
            var good = stories.Sum(story => story.GoodMinutes);
            Console.WriteLine($"{stories.Count} stories, {name}; a good mechanic {good:0} min");
            foreach (
                var (how, policy) in new (string, Policy?)[]
                {
                    ("the trace", null),
                    ("cheapest check first, till 85 %", FaultSimulator.CheapestCheckFirst),
                }
            )
            {
                var runs = stories.Select(story => StoryRunner.Run(story, policy)).ToList();
                var minutes = runs.Sum(run => run.Minutes);
                Console.WriteLine(
                    $"  {how, -32} {minutes, 6:0} min, {minutes / good:0.00} of the mechanic; "
                        + $"true cause first at the story {runs.Count(run => run.FirstAtStory)}; "
                        + $"for nothing {runs.Sum(run => run.ForNothing.Count)}; "
                        + $"must not {runs.Sum(run => run.Impossible.Count)}; left {runs.Sum(run => run.Left.Count)}"
                );
                foreach (var (story, run) in stories.Zip(runs).Where(_ => steps && policy is null && !setAside))
                {
                    Console.WriteLine($"    {story.Id} {run.Minutes, 4:0} {story.GoodMinutes, 4:0}  {string.Join(" > ", run.Steps)}");
                }
            }
        }
    }
}
