using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Tables;

namespace BlueDawn.Core.Stations;

/// <summary>
/// Everything known about one tray, given to every station alike: the facts that stand on it, its logbook, the shop, and
/// what follows from them for more than one station. Worked out when it is asked for, then kept; never changed.
/// </summary>
public sealed class TrayBook
{
    private readonly Lazy<IReadOnlyList<JudgedLine>> lines;
    private readonly Lazy<Ledger> ledger;
    private readonly Lazy<IReadOnlyList<FindingSign>> signs;
    private readonly Lazy<IReadOnlyList<StandingDanger>> dangers;
    private readonly Dictionary<Station, StationState> states = [];
    private readonly Func<Note, NoteKind> kindOf;

    /// <summary>A tray seen by these stations.</summary>
    /// <param name="facts">What stands on it.</param>
    /// <param name="context">What it is judged by.</param>
    /// <param name="log">Its logbook.</param>
    /// <param name="modules">The stations, in bench order.</param>
    /// <param name="kindOf">The kind of a note, of those the stations list.</param>
    public TrayBook(TrayFacts facts, TrayContext context, Log log, IReadOnlyList<StationModule> modules, Func<Note, NoteKind> kindOf)
    {
        Facts = facts;
        Context = context;
        Log = log;
        Modules = modules;
        this.kindOf = kindOf;
        lines = new(() =>
        {
            var judged = JudgedLine
                .Judge(
                    modules.SelectMany(module => module.Lines(facts, facts.MeasuredBy, Shop)).Select(line => line.After(log)),
                    log,
                    context.Pins,
                    WorkBegan
                )
                .Where(line => line.Standing is not null || (line.Line.IsOffered && !(IsHandedBack && line.Line.GoesWithTheTray)))
                .ToList();
            bool IsGood(string key) => judged.Any(line => line.Line.Key == key && line.Judgement.Verdict == Verdict.Good);
            var job = new JobScope(
                facts,
                Ledger,
                modules.Select(module => module.Proves(log, context.Knowledge)).OfType<IReadOnlyList<Proof>>().ToList()
                    is { Count: > 0 } done
                    ? done.SelectMany(proofs => proofs).ToHashSet()
                    : null,
                judged.Any(line => line is { Line.Part: not null, Line.Station: Station.Gauging or Station.Setting, Readings.Count: > 0 }),
                IsGood
            );
            return
            [
                .. judged.Select(line =>
                    line with
                    {
                        InScope = modules.Single(module => module.Station == line.Line.Station).IsInScope(line.Line, job),
                        StoodFor = line.Line.StoodForBy.Count > 0 && line.Line.StoodForBy.All(IsGood),
                    }
                ),
            ];
        });
        ledger = new(() =>
            Ledger.Of(
                Knowledge.Of<LedgerKnowledge>().Jobs(Kind.Family),
                Knowledge.Of<LedgerKnowledge>().Expected(Kind, Sheet),
                Knowledge.Of<LedgerKnowledge>().All(Kind.Family),
                log.Notes<LedgerNote>()
            )
        );
        signs = new(() => [.. modules.SelectMany(module => module.Signs(this))]);
        dangers = new(() => Stations.Dangers.Standing([.. modules.SelectMany(module => module.Seen(this)), .. Read(), .. LeftOff()]));
    }

    /// <summary>What stands on the tray itself.</summary>
    public TrayFacts Facts { get; }

    /// <summary>What it is judged by.</summary>
    public TrayContext Context { get; }

    /// <summary>Its logbook.</summary>
    public Log Log { get; }

    /// <summary>The stations, in bench order.</summary>
    public IReadOnlyList<StationModule> Modules { get; }

    /// <summary>The carburetor and its choke.</summary>
    public CarburetorKind Kind => Facts.Kind;

    /// <summary>Its spec sheet, or null while it has none.</summary>
    public SpecSheet? Sheet => Facts.Sheet;

    /// <summary>The shop's defaults.</summary>
    public ShopDefaults Shop => Context.Shop;

    /// <summary>What the bench knows.</summary>
    public Knowledge Knowledge => Context.Knowledge;

    /// <summary>What has been decided to fit, or null.</summary>
    public Fitting? Fitting => Facts.Fitting;

    /// <summary>Whether it has been handed back.</summary>
    public bool IsHandedBack => Facts.WaitsFor == WaitsFor.HandedBack;

    /// <summary>Every gauge line that is asked for, judged, in bench order.</summary>
    public IReadOnlyList<JudgedLine> Lines => lines.Value;

    /// <summary>Every reading that counts, oldest first.</summary>
    public IReadOnlyList<JudgedReading> Readings =>
        [.. Lines.SelectMany(line => line.Readings).OrderBy(reading => reading.TakenAt).ThenBy(reading => reading.EntryId)];

    /// <summary>When something was first done to the carburetor, or null.</summary>
    public DateTimeOffset? WorkBegan => Log.Notes<Note>().FirstOrDefault(logged => kindOf(logged.Note).IsWork(logged.Note))?.TakenAt;

    /// <summary>Whether hands have begun: something was read, or parts came out.</summary>
    public bool IsWorkedOn => Ledger.IsBegun || Lines.Any(line => !line.Line.IsQuickTest && line.Readings.Count > 0);

    /// <summary>Every part that came out.</summary>
    public Ledger Ledger => ledger.Value;

    /// <summary>What the stations have come upon that speaks for a fault.</summary>
    public IReadOnlyList<FindingSign> Signs => signs.Value;

    /// <summary>What is unsafe about the machine as it stands, wherever it was entered; the worst first.</summary>
    public IReadOnlyList<StandingDanger> Dangers => dangers.Value;

    /// <summary>
    /// What stands in the way of handing back: dangers first, whatever was decided; then what is open at the stations before it, in
    /// bench order. When it was decided not to repair it nothing else has to be done before it goes, unless it was repaired already.
    /// </summary>
    public IReadOnlyList<Obstacle> OpenElsewhere =>
        [
            .. Dangers.Select(danger => new Obstacle(
                $"danger/{danger.Danger.Id}",
                danger.Danger.Label,
                danger.Danger.At,
                ObstacleKind.Danger,
                "Unsafe"
            )),
            .. IsDeclined && !IsRepaired
                ? []
                : Modules.Where(module => module.Station != Station.Handover).SelectMany(module => State(module.Station).Obstacles),
        ];

    /// <summary>Whether it was decided not to repair it.</summary>
    public bool IsDeclined => Fitting is { Option: FitOption.Decline };

    /// <summary>Whether something new went into it.</summary>
    public bool IsRepaired => Ledger.Lines.Any(line => line.Fitted?.Fate is Fate.Renewed or Fate.Made);

    /// <summary>What is off, by name, while the engine is tried, and bears on what is read at a station.</summary>
    /// <param name="at">The station.</param>
    public IReadOnlyList<string> TriedWithout(Station at) => [.. Modules.SelectMany(module => State(module.Station).TriedWithout(at))];

    /// <summary>Parts that a new one is needed of for what was found, by their keys in the ledger.</summary>
    public IReadOnlyList<string> PartsNeeded => [.. Modules.SelectMany(module => State(module.Station).PartsNeeded).Distinct()];

    /// <summary>How a station stands.</summary>
    /// <param name="station">Which.</param>
    /// <exception cref="InvalidOperationException">It is not one of this tray's stations.</exception>
    public StationState State(Station station) =>
        states.TryGetValue(station, out var state)
            ? state
            : states[station] = Modules.Single(module => module.Station == station).State(this);

    /// <summary>The state of a station whose state is of this class.</summary>
    /// <typeparam name="T">The state's class.</typeparam>
    public T State<T>()
        where T : StationState => Modules.Select(module => State(module.Station)).OfType<T>().Single();

    /// <summary>What was read on its lines: what is read later on a line takes back what was found on it before, if it decides.</summary>
    private IEnumerable<Seen> Read()
    {
        var byLine = Log.Notes<ReadingNote>().ToLookup(logged => logged.Note.Line);
        foreach (var line in Lines.Where(line => Stations.Dangers.IsShownBy(line.Line.Key)))
        {
            string? standing = null;
            foreach (var logged in byLine[line.Line.Key])
            {
                var judgement = line.Line.Judge(logged.Note.Reading, Context.Pins);
                var sign = $"line:{line.Line.Key}={judgement.Finding}";
                var words = $"{line.Line.Label}: {judgement.Word.ToLowerInvariant()}";
                if (standing is not null && standing != sign && judgement.Verdict != Verdict.CannotTell)
                {
                    yield return new(standing, false, words, logged.TakenAt, logged.By);
                }

                yield return new(sign, true, words, logged.TakenAt, logged.By);
                standing = judgement.Verdict == Verdict.CannotTell && standing is not null ? standing : sign;
            }
        }
    }

    /// <summary>Parts that were out and for which nothing went back.</summary>
    private IEnumerable<Seen> LeftOff() =>
        Ledger
            .Lines.Where(line => line.Fitted?.Fate is Fate.LeftOff)
            .Select(line => new Seen($"part:{line.Part.Key}", true, $"Left off: {line.Part.Label}", line.At ?? default, line.By ?? ""));
}
