using System.Globalization;
using System.Text.Json;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Cleaning;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Trays;

namespace BlueDawn.Core.Tests.Trays;

/// <summary>What a job at the bench came to.</summary>
/// <param name="Refused">Steps that were refused, with what was said.</param>
/// <param name="Owed">What still stood open when the technician was done.</param>
/// <param name="Said">What was said before it went though nothing was open.</param>
internal sealed record BenchJobRun(IReadOnlyList<string> Refused, IReadOnlyList<string> Owed, IReadOnlyList<string> Said);

/// <summary>A job as its technician does it, in his order; <c>bench-jobs.txt</c> says how it is written.</summary>
/// <param name="Story">The story it is of.</param>
/// <param name="Sheet">Its spec sheet, or null where the shop has none.</param>
/// <param name="Steps">What is done, in order.</param>
internal sealed record BenchJob(Tests.Faults.Story Story, SpecSheet? Sheet, IReadOnlyList<string> Steps)
{
    private const string BeforeItRuns = "before-it-runs";

    private static readonly Dictionary<string, SpecSheet> OnFile = JsonSerializer
        .Deserialize<List<SpecSheet>>(File.ReadAllText(Path.Combine(Repository.Root, "data/demo/spec-sheets.json")), CoreJson.Options)!
        .ToDictionary(sheet => sheet.Code);

    public static IReadOnlyList<BenchJob> All { get; } = [.. Read()];

    public BenchJobRun Run()
    {
        var tray = new TestTray(Sheet, Story.Kind with { Choke = Sheet?.Choke ?? Story.Kind.Choke });
        tray.Facts = tray.Facts with
        {
            Complaints =
            [
                .. Story.Told.Select(id => new Complaint(id, tray.Context.Knowledge.Of<FaultKnowledge>().FindFinding(id)!.Label)),
            ],
        };
        tray.Adds(
            new FindingsNote("owner-story", [.. Story.Told.Select(id => new FindingAnswer(id, Core.Faults.Said.Present))], FromOwner: true)
        );
        var refused = new List<string>();
        void Do(string step, Note note)
        {
            if (tray.Refuses(note) is { } refusal)
            {
                refused.Add($"{step} -- {refusal.Title} {refusal.Detail}");
            }
            else
            {
                tray.Adds(note);
            }
        }

        foreach (var step in Steps)
        {
            var words = step.Split(' ', StringSplitOptions.RemoveEmptyEntries);
            switch (words[0])
            {
                case "gone":
                    foreach (var complaint in Tried(tray))
                    {
                        Do(step, complaint);
                    }

                    for (var asked = Asked(tray); asked is not null && refused.Count == 0; asked = Asked(tray))
                    {
                        Do(step, asked);
                    }

                    break;
                case "hand":
                    break;
                default:
                    foreach (var note in Notes(words[0], words[1..], tray))
                    {
                        Do(step, note);
                    }

                    break;
            }
        }

        return new(
            refused,
            [.. Policy.Obstacles(tray.Book).Select(open => $"{open.Label}: {open.Word} ({open.Station})")],
            Policy.NotDone(tray.Book)
        );
    }

    private static IEnumerable<Note> Notes(string verb, string[] rest, TestTray tray) =>
        verb switch
        {
            "see" => [new FindingsNote(null, [.. rest.Select(id => new FindingAnswer(id, Core.Faults.Said.Present))])],
            "not" => [new FindingsNote(null, [.. rest.Select(id => new FindingAnswer(id, Core.Faults.Said.Absent))])],
            "ok" => rest.Select(one => new SafetyNote(
                one switch
                {
                    "cool" => SafetyCondition.EngineCool,
                    "lead" => SafetyCondition.LeadOff,
                    "read" => SafetyCondition.OilRead,
                    "changed" => SafetyCondition.OilChanged,
                    "flame" => SafetyCondition.NoFlame,
                    _ => throw new InvalidDataException(one),
                }
            )),
            "job" => [new JobNote(rest[0])],
            "stays" => rest.Select(part => new StaysNote(part)),
            "out" => [Out(rest[0], Pairs(rest[1..]))],
            "back" => [Back(rest[0], Pairs(rest[1..]))],
            "turns" => [new Core.Build.TurnsNote(rest[0], Whole(rest[2]), Whole(rest[1]), Text(rest[3]))],
            "soils" => [new SoilsNote(rest)],
            "clean" => [Clean(rest)],
            "rinsed" => [new DryNote()],
            "pass" => rest.Select(passage => new PassageNote(passage, true, true)),
            "trial" => [new Core.Build.TrialNote(Text(rest[0]))],
            "mend" => [new FaultNote(rest[0], FaultOutcome.Fixed)],
            "read" => [Reading(rest[0], rest[1..], tray)],
            _ => throw new InvalidDataException(verb),
        };

    private static MethodNote Clean(string[] rest)
    {
        var minutes = rest.Length > 1 && double.TryParse(rest[1], CultureInfo.InvariantCulture, out var read) ? read : (double?)null;
        var pieces = rest[(minutes is null ? 1 : 2)..];
        return new(rest[0], MethodStep.Done, pieces.Length > 0 ? pieces : null, minutes);
    }

    private static OutNote Out(string part, Dictionary<string, string> said) =>
        new(
            part,
            said.TryGetValue("as", out var verdict) ? Enum.Parse<LineVerdict>(verdict) : LineVerdict.Refit,
            Label: said.GetValueOrDefault("label"),
            Way: said.GetValueOrDefault("way"),
            TurnsEighths: said.TryGetValue("turns", out var turns) ? Whole(turns) : null,
            Position: said.GetValueOrDefault("position"),
            Hole: said.GetValueOrDefault("hole"),
            Thread: said.GetValueOrDefault("thread"),
            Screw: said.GetValueOrDefault("screw"),
            Heads: said.GetValueOrDefault("heads")
        );

    private static BackNote Back(string part, Dictionary<string, string> said) =>
        new(
            part,
            said.TryGetValue("as", out var fate) ? Enum.Parse<Fate>(fate) : Fate.Refitted,
            Way: said.GetValueOrDefault("way"),
            TurnsEighths: said.TryGetValue("turns", out var turns) ? Whole(turns) : null,
            Reason: said.GetValueOrDefault("reason"),
            Hole: said.GetValueOrDefault("hole"),
            Elsewhere: said.TryGetValue("got", out var got)
                ? new(
                    got switch
                    {
                        "counter" => Origin.OverTheCounter,
                        "owner" => Origin.BroughtByOwner,
                        "roll" => Origin.OffARoll,
                        "drawer" => Origin.OutOfADrawer,
                        _ => throw new InvalidDataException(got),
                    },
                    said["what"],
                    said.GetValueOrDefault("whom"),
                    said.TryGetValue("price", out var price) ? decimal.Parse(price, CultureInfo.InvariantCulture) : null
                )
                : null,
            NearMatch: said.ContainsKey("got") ? false : null,
            SoBecause: said.GetValueOrDefault("because")
        );

    /// <summary>A reading by the end of its line's key: values by their names, or value@place rows.</summary>
    private static ReadingNote Reading(string line, string[] rest, TestTray tray)
    {
        var key = tray.Book.Lines.Select(one => one.Line.Key).FirstOrDefault(one => one.EndsWith("/" + line, StringComparison.Ordinal));
        var rows = rest.Where(one => one.Contains('@', StringComparison.Ordinal)).Select(one => one.Split('@')).ToList();
        var (value, at) = line switch
        {
            "hold-test" => ("pressure", "time"),
            "pop-off" => ("opened", "shut"),
            _ => ("height", "angle"),
        };
        return rows.Count > 0
            ? new(key ?? line, Sheets.Rows(value, at, [.. rows.Select(row => (row[1], row[0]))]))
            : new(key ?? line, TypedReading.Of([.. Pairs(rest).Select(pair => (pair.Key, pair.Value))]));
    }

    /// <summary>What it came in for, tried again on its line at Prove.</summary>
    private static IReadOnlyList<Note> Tried(TestTray tray) =>
        [
            .. tray
                .Facts.Complaints.Where(complaint => tray.Book.Lines.Any(line => line.Line.Key == complaint.LineKey && line.IsOpen))
                .Select(complaint => new ReadingNote(
                    complaint.LineKey,
                    TypedReading.Of(("state", Complaint.Gone), ("ran", "25"), ("stood", "60"))
                )),
        ];

    /// <summary>What Trace asks after a fix and before it runs for it: gone, and safe; null when it asks nothing of the kind.</summary>
    private static FindingsNote? Asked(TestTray tray) =>
        tray.Book.State<FaultsState>().Trace.Next is { Asks: { Count: > 0 } asks } next
        && (next.Kind == StepKind.Recheck || next.CheckId == BeforeItRuns)
            ? new(next.CheckId, [.. asks.Select(id => new FindingAnswer(id, Core.Faults.Said.Absent))])
            : null;

    private static Dictionary<string, string> Pairs(IEnumerable<string> words) =>
        words.Select(word => word.Split('=', 2)).ToDictionary(pair => pair[0], pair => Text(pair[1]));

    private static string Text(string word) => word.Replace('_', ' ');

    private static int Whole(string word) => int.Parse(word, CultureInfo.InvariantCulture);

    private static IEnumerable<BenchJob> Read()
    {
        var lines = File.ReadLines(Path.Combine(AppContext.BaseDirectory, "Trays", "bench-jobs.txt"))
            .Where(line => line.Length > 0 && line[0] != '#')
            .ToList();
        for (var i = 0; i < lines.Count; )
        {
            var head = lines[i++].Split(' ');
            var steps = lines
                .Skip(i)
                .TakeWhile(line => line[0] == ' ')
                .SelectMany(line => line.Split(" ; ", StringSplitOptions.TrimEntries))
                .ToList();
            i += lines.Skip(i).TakeWhile(line => line[0] == ' ').Count();
            yield return new(Tests.Faults.Story.All.Single(story => story.Id == head[0]), head[1] == "-" ? null : OnFile[head[1]], steps);
        }
    }
}
