using System.Globalization;
using System.Text.RegularExpressions;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Shop;

namespace BlueDawn.Core.Tests.Faults;

/// <summary>One job as it was: what the owner says, what is wrong, what shows while it is, and what a good mechanic would take.</summary>
/// <param name="Id">Its name.</param>
/// <param name="SetAside">True for the half that is not looked at while the tables are tuned.</param>
/// <param name="Kind">The carburetor.</param>
/// <param name="Told">Complaints the owner names.</param>
/// <param name="Faults">What is wrong, each with the findings it shows as.</param>
/// <param name="Also">What is there besides, whatever is mended.</param>
/// <param name="GoodMinutes">A good mechanic's minutes, estimated beforehand.</param>
internal sealed record Story(
    string Id,
    bool SetAside,
    CarburetorKind Kind,
    IReadOnlyList<string> Told,
    IReadOnlyDictionary<string, IReadOnlySet<string>> Faults,
    IReadOnlySet<string> Also,
    double GoodMinutes
)
{
    public static IReadOnlyList<Story> All { get; } =
    [
        .. File.ReadLines(Path.Combine(AppContext.BaseDirectory, "Faults", "stories.csv"))
            .Where(line => !line.StartsWith('#'))
            .Skip(1)
            .Select(Read),
    ];

    /// <summary>Whether a finding is there while these faults are.</summary>
    public bool Shows(string finding, IReadOnlySet<string> left) =>
        Also.Contains(finding) || left.Any(fault => Faults[fault].Contains(finding));

    private static Story Read(string line)
    {
        var cells = line.Split(',');
        return new Story(
            cells[0],
            cells[1] == "b",
            new CarburetorKind(
                cells[3] switch
                {
                    "F" => CarburetorFamily.FloatBowl,
                    "D" => CarburetorFamily.Diaphragm,
                    _ => CarburetorFamily.SuctionTank,
                },
                cells[4] == "2" ? EngineKind.TwoStroke : EngineKind.FourStroke,
                Enum.Parse<ChokeKind>(cells[5], true)
            ),
            cells[6].Split(' '),
            cells[7]
                .Split('|')
                .Select(fault => fault.Split('>'))
                .ToDictionary(pair => pair[0], pair => (IReadOnlySet<string>)pair[1].Split(' ').ToHashSet()),
            cells[8].Split(' ', StringSplitOptions.RemoveEmptyEntries).ToHashSet(),
            Regex.Matches(cells[9], @"\d+").Sum(match => double.Parse(match.Value, CultureInfo.InvariantCulture))
        );
    }
}

/// <summary>How a trace of a story went.</summary>
/// <param name="FirstAtStory">Whether a true cause was first by the story alone.</param>
/// <param name="Minutes">Bench minutes until nothing was left.</param>
/// <param name="Impossible">Steps that could not or must not be done, in words.</param>
/// <param name="ForNothing">Fixes of what was not wrong.</param>
/// <param name="Left">Faults left when it was closed or given up.</param>
/// <param name="Steps">What was done, in order.</param>
internal sealed record StoryRun(
    bool FirstAtStory,
    double Minutes,
    IReadOnlyList<string> Impossible,
    IReadOnlyList<string> ForNothing,
    IReadOnlyList<string> Left,
    IReadOnlyList<string> Steps
);

/// <summary>Leads a trace as a technician would who does what is advised and says what is there.</summary>
internal static class StoryRunner
{
    private const int MostSteps = 40;
    private static readonly string[] Leaks =
    [
        "wet-at-bowl-joint",
        "fuel-from-overflow",
        "drips-from-plunger",
        "wet-at-tap",
        "leaks-fuel",
        "leak-goes-on-pinched",
        "liquid-in-intake",
    ];
    private static readonly string[] RunsNot = ["wont-start", "starts-then-dies"];

    /// <summary>Checks for which it has to keep running; the others only turn or try to start it.</summary>
    private static readonly string[] KeepsRunning =
    [
        "part-choke",
        "cap-loose",
        "joint-test",
        "hot-run",
        "high-screw",
        "hot-spark",
        "governed-speed",
    ];

    /// <summary>Runs a story by a way of working.</summary>
    /// <param name="story">The story.</param>
    /// <param name="policy">The way of working; the product's own next step when null.</param>
    public static StoryRun Run(Story story, Policy? policy = null)
    {
        var left = story.Faults.Keys.ToHashSet();
        var tray = new Tray(story.Kind).Note(
            new FindingsNote("owner-story", [.. story.Told.Select(id => new FindingAnswer(id, Said.Present)), .. Context(story)], true)
        );
        var (minutes, oilChanged) = (0.0, false);
        List<string> impossible = [],
            nothing = [],
            steps = [];
        bool There(string finding) => story.Shows(finding, left);
        void Forbidden(string what, bool keepsRunning)
        {
            string? why =
                There("engine-locked") ? "it is stuck"
                : keepsRunning && RunsNot.Any(There) ? "it does not run"
                : Leaks.FirstOrDefault(There) is { } leak ? "it leaks: " + leak
                : There("fuel-in-oil") && !oilChanged ? "fuel in the oil"
                : There("throttle-wont-return") ? "the throttle does not return"
                : There("stop-switch-dead") ? "the stop switch is dead"
                : null;
            if (why is not null)
            {
                impossible.Add($"{what}, and {why}");
            }
        }

        var first = tray.Trace().Causes;
        var firstAtStory = first.Count > 0 && left.Contains(first[0].Cause.Id);
        for (var step = 0; step < MostSteps; step++)
        {
            var trace = tray.Trace();
            var next = trace.Next;
            if (next.First is { } condition && condition is SafetyCondition.OilRead or SafetyCondition.OilChanged)
            {
                if (condition == SafetyCondition.OilRead && There("fuel-in-oil"))
                {
                    minutes += 1;
                    steps.Add("oil read: thin");
                    tray.Note(new FindingsNote("oil-check", [new FindingAnswer("fuel-in-oil", Said.Present)]));
                }
                else
                {
                    minutes += condition == SafetyCondition.OilRead ? 1 : 15;
                    oilChanged |= condition == SafetyCondition.OilChanged;
                    steps.Add(condition == SafetyCondition.OilRead ? "oil read" : "oil changed");
                    tray.Note(new SafetyNote(condition));
                }

                continue;
            }

            if (next.Kind == StepKind.Recheck)
            {
                if (next.Caution == Core.Safety.Caution.Running)
                {
                    Forbidden("run again", false);
                }

                minutes += Tray.Shop.ProofMinutes;
                // The run shows whatever is there of the troubles, not only what was asked.
                var asked =
                    next.Caution == Core.Safety.Caution.Running
                        ? next
                            .Asks.Concat(FaultKnowledge.Shipped.ComplaintsFor(story.Kind).Select(finding => finding.Id).Where(There))
                            .Distinct()
                        : next.Asks;
                tray.Note(Answers(null, asked, There));
                steps.Add("again: " + string.Join(' ', asked.Where(There)));
                continue;
            }

            var faults = new FaultCase(FaultKnowledge.Shipped, story.Kind, FaultHistory.None, trace.Evidence.Settled);
            var costs = new RepairCosts(faults, Tray.Shop);
            var (check, causeId) = policy is null
                ? (next.CheckId is { } id ? FaultKnowledge.Shipped.FindCheck(id) : null, next.CauseId)
                : policy(faults, trace);
            if (check is not null)
            {
                if (check.State == CheckState.Running)
                {
                    Forbidden(check.Id, KeepsRunning.Contains(check.Id));
                }
                else if (check.Id == "compression" && There("engine-locked"))
                {
                    impossible.Add("compression, and it is stuck");
                }

                minutes += costs.Check(check, trace.Evidence.Apart).Minutes;
                tray.Note(Answers(check.Id, check.Reveals.Where(finding => faults.FindingAt(finding) >= 0), There));
                steps.Add(check.Id + ": " + string.Join(' ', check.Reveals.Where(There)));
            }
            else if (causeId is not null && faults.CauseAt(causeId) is >= 0 and var cause)
            {
                var level = costs.Level(cause) > trace.Evidence.Apart ? costs.Level(cause) : trace.Evidence.Apart;
                var was = left.Remove(causeId);
                var refer = faults.Causes[cause].Refer;
                minutes += (refer ? 0 : costs.Fix(cause)) + costs.Get(trace.Evidence.Apart, level);
                tray.Note(new ApartNote(level))
                    .Note(
                        new FaultNote(
                            causeId,
                            !was ? FaultOutcome.NotIt
                                : refer ? FaultOutcome.Referred
                                : FaultOutcome.Fixed
                        )
                    );
                steps.Add((was ? "mended " : "for nothing ") + causeId);
                if (!was)
                {
                    nothing.Add(causeId);
                }

                if (refer && was)
                {
                    break;
                }
            }
            else
            {
                steps.Add($"{next.Kind}: {next.Do.Text}");
                break;
            }
        }

        return new StoryRun(firstAtStory, minutes + (left.Count > 0 ? Tray.Shop.ReferMinutes : 0), impossible, nothing, [.. left], steps);
    }

    private static IEnumerable<FindingAnswer> Context(Story story) =>
        story.Also.Contains("stood-unused") ? [new FindingAnswer("stood-unused", Said.Present)] : [];

    private static FindingsNote Answers(string? checkId, IEnumerable<string> findings, Func<string, bool> there) =>
        new(checkId, [.. findings.Select(id => new FindingAnswer(id, there(id) ? Said.Present : Said.Absent))]);
}
