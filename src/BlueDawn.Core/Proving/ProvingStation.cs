using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tables;

namespace BlueDawn.Core.Proving;

/// <summary>Prove: fuel on and rocked, what the owner complained of tried again, then idle and governed speed.</summary>
public sealed class ProvingStation : LinesStation
{
    /// <inheritdoc/>
    public override Station Station => Station.Proving;

    /// <summary>What is looked at here, in bench order: data/proving/looks.csv.</summary>
    public static IReadOnlyList<Look> ShippedLooks { get; } = Look.Read(CsvTable.OpenShipped, "proving/looks.csv");

    internal const string IdleSpeed = "proving/idle-speed";
    internal const string GovernedSpeed = "proving/governed-speed";
    private const string Hunts = "hunts";

    private static readonly (string Key, string Label)[] UsualSpeeds = [(IdleSpeed, "Idle speed"), (GovernedSpeed, "Governed speed")];

    /// <inheritdoc/>
    public override IReadOnlyList<ReadingKind> Readings { get; } =
    [
        ReadingKind.Of<FuelWatchReading>("fuelWatch", FuelWatchLine.CanFind),
        ReadingKind.Of<SpeedReading>("speed", SpeedLine.CanFind),
        ReadingKind.Of<ComplaintReading>("complaint", ComplaintLine.CanFind),
        ReadingKind.Of(ShippedLooks),
    ];

    /// <inheritdoc/>
    public override IJsonTypeInfoResolver Json => ProvingJson.Default;

    /// <inheritdoc/>
    public override IEnumerable<GaugeLine> Lines(TrayFacts tray, SpecSheet sheet, ShopDefaults shop)
    {
        yield return new FuelWatchLine(
            shop.FuelWatchMin,
            shop.BedInDays,
            sheet.Family,
            tray.Fitting is { Option: not (FitOption.Decline or FitOption.Stopgap or FitOption.CleanAndRefit) }
        );
        foreach (var complaint in tray.Complaints)
        {
            if (ComplaintTry.Shipped.TryGetValue(complaint.Id, out var how) && how.TriedBy is null)
            {
                yield return new ComplaintLine(complaint, how, tray.FailsAfterMin);
            }
        }

        var hunted = tray.Complaints.Any(complaint => complaint.Id == Hunts);
        if (sheet.IdleSpeed is { } idle)
        {
            yield return new SpeedLine(
                IdleSpeed,
                "Idle speed",
                idle,
                "Turn the idle-speed screw in a little and read again.",
                "Turn the idle-speed screw out a little and read again.",
                sheet.Name,
                hunted
            );
        }

        if (sheet.GovernedSpeed is { } governed)
        {
            yield return new SpeedLine(
                GovernedSpeed,
                "Governed speed",
                governed,
                "Move the spring tang for more tension, never the governor arm, and read again.",
                "Move the spring tang for less tension, never the governor arm, and read again.",
                sheet.Name,
                hunted,
                Governed: true
            );
        }

        // A sheet without a speed is of a machine that has none; without a sheet nobody knows.
        foreach (var (key, label) in sheet.IsOnFile ? [] : UsualSpeeds)
        {
            yield return new SpeedLine(key, label, null, "", "", sheet.Name, hunted);
        }

        foreach (var look in ShippedLooks.Where(look => look.Asks(tray.Kind)))
        {
            yield return new LookLine(Station.Proving, "proving", look);
        }
    }

    /// <summary>Where nothing was taken apart, what was taken off or mended says what has to be proven; a leak that the owner came with is
    /// watched, and a swing is read at the speed it swings at.</summary>
    /// <inheritdoc/>
    public override bool IsInScope(GaugeLine line, JobScope job) =>
        line.Proves is not { } proof
        || !job.IsClosed
        || job.Owes(proof)
        || job.Facts.Complaints.Any(complaint =>
            ComplaintTry.Shipped.TryGetValue(complaint.Id, out var how)
            && (
                how.TriedBy == line.Key
                || (
                    complaint.Id == Hunts
                    && (proof == Proof.Governed || (proof == Proof.Idle && job.Facts.MeasuredBy.GovernedSpeed is null))
                )
            )
        );

    /// <inheritdoc/>
    public override StationState State(TrayBook tray) => new ProvingState(tray);
}

/// <summary>How a tray stands at Prove.</summary>
/// <param name="tray">The tray.</param>
public sealed class ProvingState(TrayBook tray) : LinesState(Station.Proving, tray)
{
    private readonly TrayBook tray = tray;

    /// <summary>A new part that has had its days to bed in is looked at again before anything else.</summary>
    public override NextStep? Step =>
        BedIn.IsDue(tray) && Lines.FirstOrDefault(line => line.Line is FuelWatchLine) is { } watch
            ? NextStep.Of(watch) with
            {
                Do = Sentence.Of("It has had its days to bed in: fuel on, and watch it for {0}.", Quantity.Min(tray.Shop.FuelWatchMin)),
                Why = Sentence.Of("A new plunger or seat that wept is tight by now, or it is renewed once more."),
            }
            : base.Step;

    /// <summary>The lines, and whether it ran here.</summary>
    public override IReadOnlyList<ReportSection> Report => [.. base.Report, new PointsSection([Run()])];

    private ReportPoint Run()
    {
        var ran = tray.Lines.Where(line => line is { Line.Running: true, Standing: not null }).ToList();
        var longest = tray.Lines.Select(line => line.Reading?.RanForMin).Max();
        return ran.Count == 0 && longest is null
            ? ReportPoint.Of(ReportChapter.Run, "It was not run here.")
            : new ReportPoint(
                ReportChapter.Run,
                longest is { } minutes
                    ? Sentence.Say($"It was run here, the longest time {Quantity.Min(minutes)}.")
                    : Sentence.Of("It was run here; nobody wrote how long.")
            );
    }
}

/// <summary>Its readings as JSON.</summary>
[JsonSourceGenerationOptions(GenerationMode = JsonSourceGenerationMode.Metadata)]
[JsonSerializable(typeof(FuelWatchReading))]
[JsonSerializable(typeof(SpeedReading))]
[JsonSerializable(typeof(ComplaintReading))]
internal sealed partial class ProvingJson : JsonSerializerContext;
