using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Holding;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tables;

namespace BlueDawn.Core.Setting;

/// <summary>Set: float, needle and seat.</summary>
public sealed class SettingStation : LinesStation
{
    /// <inheritdoc/>
    public override Station Station => Station.Setting;

    /// <summary>What is looked at here, in bench order: data/setting/looks.csv.</summary>
    public static IReadOnlyList<Look> ShippedLooks { get; } = Look.Read(CsvTable.OpenShipped, "setting/looks.csv");

    /// <summary>Where a metering lever stands when no sheet says: flush with the gauge's middle leg. Common practice, no source; the
    /// tolerance is own judgement.</summary>
    private static readonly LeverSpec UsualLever = new(LeverDatum.GaugeLeg, 0, 0.15m);

    /// <summary>What the inlet of a diaphragm type should hold, in kPa (10 psi). Common practice, no source.</summary>
    private const double DiaphragmHoldKPa = 69;

    /// <inheritdoc/>
    public override IReadOnlyList<ReadingKind> Readings { get; } =
    [
        ReadingKind.Of<FloatHeightReading>("floatHeight", FloatHeightLine.CanFind),
        ReadingKind.Of<FloatMassReading>("floatMass", FloatMassLine.CanFind),
        ReadingKind.Of<HoldReading>("hold", NeedleHoldLine.CanFind),
        ReadingKind.Of(ShippedLooks),
        ReadingKind.Of<LeverHeightReading>("leverHeight", LeverHeightLine.CanFind),
        ReadingKind.Of<PopOffReading>("popOff", PopOffLine.CanFind),
        ReadingKind.Of<FloatDropReading>("floatDrop", FloatDropLine.CanFind),
        ReadingKind.Of<SeatBoreReading>("seatBore", SeatBoreLine.CanFind),
        ReadingKind.Of<BowlGasketReading>("bowlGasket", BowlGasketLine.CanFind),
    ];

    /// <inheritdoc/>
    public override IJsonTypeInfoResolver Json => SettingJson.Default;

    /// <inheritdoc/>
    public override bool IsInScope(GaugeLine line, JobScope job) =>
        !job.Ledger.IsExchanged && (line.Part is not { } part || job.Ledger.Opens(part));

    /// <inheritdoc/>
    public override IEnumerable<GaugeLine> Lines(TrayFacts tray, SpecSheet sheet, ShopDefaults shop) =>
        tray.Kind.Family switch
        {
            CarburetorFamily.FloatBowl =>
            [
                .. Float(sheet),
                new NeedleHoldLine(sheet.Hold ?? shop.Hold, sheet.Hold is null ? "Shop default for float types" : sheet.Name),
                .. Looks(tray),
                .. Seat(sheet),
                new BowlGasketLine(),
            ],
            CarburetorFamily.Diaphragm =>
            [
                .. Looks(tray),
                new LeverHeightLine(sheet.Lever ?? UsualLever, sheet.Lever is null ? "Common practice for diaphragm types" : sheet.Name),
                new PopOffLine(
                    sheet.PopOff,
                    (sheet.Hold ?? shop.Hold).GaugeResolutionKPa,
                    sheet.PopOff is null ? "none given" : sheet.Name,
                    sheet.Spring
                ),
                new NeedleHoldLine(
                    sheet.Hold ?? shop.Hold with { PressureKPa = DiaphragmHoldKPa },
                    sheet.Hold is null ? "Common practice for diaphragm types" : sheet.Name
                ),
            ],
            // No needle, no seat, no float: nothing is measured or held, only looked at.
            CarburetorFamily.SuctionTank => Looks(tray),
        };

    private static IEnumerable<GaugeLine> Looks(TrayFacts tray) =>
        ShippedLooks.Where(look => look.Asks(tray.Kind)).Select(look => new LookLine(Station.Setting, "setting", look));

    private static IEnumerable<GaugeLine> Float(SpecSheet sheet)
    {
        if (sheet.Float is not { } limits)
        {
            yield return new FloatHeightLine(null, sheet.Name);
            yield break;
        }

        if (limits.DryMassG is { } dry)
        {
            yield return new FloatMassLine(dry, limits.MassToleranceG, sheet.Name, limits.Body is null ? null : limits);
        }

        yield return new FloatHeightLine(limits, sheet.Name);
        if (limits.DropMm is not null || limits.Body is not null)
        {
            yield return new FloatDropLine(limits, limits.Body?.SeatBoreMm, sheet.Name);
        }
    }

    private static IEnumerable<GaugeLine> Seat(SpecSheet sheet)
    {
        if (sheet.Float is { Body: { } body, DryMassG: not null } limits)
        {
            var line = new SeatBoreLine(limits, body, sheet.Feeds, sheet.Name, sheet.Engine == EngineKind.TwoStroke);
            // A float that shuts no seat that would feed the engine: then the sheet is wrong, and no bore is right.
            if (line.MostMm > (line.LeastMm ?? 0))
            {
                yield return line;
            }
        }
    }
}

/// <summary>Its readings as JSON.</summary>
[JsonSourceGenerationOptions(GenerationMode = JsonSourceGenerationMode.Metadata)]
[JsonSerializable(typeof(FloatHeightReading))]
[JsonSerializable(typeof(FloatMassReading))]
[JsonSerializable(typeof(HoldReading))]
[JsonSerializable(typeof(LookReading))]
[JsonSerializable(typeof(LeverHeightReading))]
[JsonSerializable(typeof(PopOffReading))]
[JsonSerializable(typeof(FloatDropReading))]
[JsonSerializable(typeof(SeatBoreReading))]
[JsonSerializable(typeof(BowlGasketReading))]
internal sealed partial class SettingJson : JsonSerializerContext;
