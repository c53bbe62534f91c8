using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Safety;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Strip;

/// <summary>Strip: taken apart, every part a line of the ledger.</summary>
public sealed class StripStation : StationModule
{
    /// <inheritdoc/>
    public override Station Station => Station.Strip;

    /// <inheritdoc/>
    public override IReadOnlyList<NoteKind> Notes { get; } =
    [
        Kind<JobNote>("job", lookup: NoteLookup.HadBefore),
        Kind<HasNote>("has"),
        Kind<OutNote>("out", (note, _) => note.Read().Note),
        Kind<StaysNote>("stays"),
        Kind<UndoNote>("undo"),
    ];

    /// <inheritdoc/>
    public override IJsonTypeInfoResolver Json => StripJson.Default;

    /// <inheritdoc/>
    public override StationState State(TrayBook tray) => new StripState(tray);

    /// <inheritdoc/>
    public override IReadOnlyList<FindingSign> Signs(TrayBook tray) =>
        LedgerSigns.Of(
            tray.Knowledge.Of<LedgerKnowledge>(),
            tray.Knowledge.Of<StackKnowledge>(),
            tray.Kind.Family,
            tray.Sheet,
            tray.Ledger
        );

    /// <summary>What parts showed as they came out, until they were renewed or put back right.</summary>
    /// <inheritdoc/>
    public override IEnumerable<Seen> Seen(TrayBook tray)
    {
        foreach (var sign in Signs(tray))
        {
            var entry = tray.Log.Find(sign.EntryId)!;
            var words = StripState.FoundWords(tray, sign.Source);
            yield return new($"finding:{sign.FindingId}", true, words, sign.TakenAt, entry.By);
            if (sign.MendedAt is { } mended)
            {
                yield return new($"finding:{sign.FindingId}", false, words, mended, entry.By);
            }
        }
    }

    /// <summary>An entry of the ledger: the ledger checks it, says it, and knows what goes back to the shelf.</summary>
    private static NoteKind<T> Kind<T>(string word, Func<T, TrayBook, T>? completed = null, NoteLookup lookup = NoteLookup.None)
        where T : LedgerNote =>
        new(word)
        {
            Needs = Permission.WorkAtTheBench,
            Lookup = lookup,
            WhenWrong = (note, tray) => tray.Ledger.Check(note, Jobs(tray)),
            Says = (note, tray) => tray.Ledger.Say(note, Jobs(tray)),
            Leaves = NoteAnswers.AsBefore,
            Shelf = (note, tray) => tray.Ledger.Moves(note),
            Work = NoteAnswers.NotWork,
            Completed = completed,
        };

    private static IReadOnlyList<StripJob> Jobs(TrayBook tray) => tray.Knowledge.Of<LedgerKnowledge>().Jobs(tray.Kind.Family);
}

/// <summary>Its notes as JSON.</summary>
[JsonSourceGenerationOptions(GenerationMode = JsonSourceGenerationMode.Metadata)]
[JsonSerializable(typeof(JobNote))]
[JsonSerializable(typeof(HasNote))]
[JsonSerializable(typeof(OutNote))]
[JsonSerializable(typeof(StaysNote))]
[JsonSerializable(typeof(UndoNote))]
internal sealed partial class StripJson : JsonSerializerContext;

/// <summary>How far a tray is taken apart.</summary>
/// <param name="tray">The tray.</param>
public sealed class StripState(TrayBook tray) : StationState
{
    private readonly Ledger ledger = tray.Ledger;

    /// <summary>How a part was found, in words.</summary>
    /// <param name="tray">The tray.</param>
    /// <param name="source">What showed it, <c>strip/…</c>.</param>
    internal static string FoundWords(TrayBook tray, string source) =>
        tray.Ledger.Find(source[(source.IndexOf('/', StringComparison.Ordinal) + 1)..]) is { Found: { } found, Part: var part }
            ? found.Say(part.Label, part.Ways).ToString()
            : source;

    /// <inheritdoc/>
    public override Station Station => Station.Strip;

    /// <inheritdoc/>
    public override StationProgress Progress
    {
        get
        {
            if (ledger.Job is null)
            {
                return StationProgress.NotBegun("not begun");
            }

            var (open, total) = (ledger.ToStrip.Count, ledger.Lines.Count(line => line.InJob));
            return open > 0
                ? new StationProgress(open, total, false, $"{open} to go")
                : StationProgress.Done(total == 0 ? "stays shut" : "all out", total);
        }
    }

    /// <inheritdoc/>
    public override NextStep? Step =>
        ledger switch
        {
            { Job: null, IsBegun: false } => NextStep.At(
                Station.Strip,
                "Brush the outside clean, then say how far it comes apart.",
                "Dirt from outside blocks the next jet. Every part that comes out gets a line: so nothing stays on the bench, "
                    + "and nothing goes back the wrong way round.",
                Caution.Strip
            ),
            { Job: not null, ToStrip: [var line, ..] } => NextStep.At(
                Station.Strip,
                $"Take off: {line.Part.Label}.",
                line.Part.Remind ?? $"{ledger.ToStrip.Count} to go.",
                Caution.Strip
            ),
            _ => null,
        };

    /// <summary>What was found as it came out, and was not simply right.</summary>
    public override IReadOnlyList<ReportSection> Report =>
        [
            new PointsSection([
                .. ledger
                    .Lines.Where(line =>
                        line.Found is { } found
                        && (
                            found.Verdict is not (LineVerdict.Refit or LineVerdict.Clean or LineVerdict.Renew or LineVerdict.Ours)
                            || !string.IsNullOrWhiteSpace(found.Remark)
                        )
                    )
                    .Select(line => new ReportPoint(
                        ReportChapter.Found,
                        Sentence.Say($"{line.Found!.Say(line.Part.Label, line.Part.Ways)}.")
                    )),
                .. ledger.Job is { Parts: { } } job
                    ? [ReportPoint.Of(ReportChapter.Found, $"Not opened further than: {job.Label.ToLowerInvariant()}.")]
                    : Array.Empty<ReportPoint>(),
            ]),
        ];
}
