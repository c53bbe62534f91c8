using System.Text.RegularExpressions;
using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Carburetors;

/// <summary>
/// What is asked of a spec sheet before it is put on file. A sheet may know very little; what it says has to be possible.
/// The edges are own judgement: wide enough for any small engine, narrow enough to catch a wrong unit.
/// </summary>
public static partial class SheetCheck
{
    private const int LongestText = 200,
        MostJets = 20,
        MostRows = 12,
        MostNumbers = 60;

    /// <summary>What is wrong with a sheet, by the path of its field, such as <c>jets[0].boreMm</c>; empty when it can be put on
    /// file.</summary>
    public static IReadOnlyList<FieldProblem> Problems(SpecSheet sheet)
    {
        var found = new Found();
        found.When(!Code().IsMatch(sheet.Code), "code", "A sheet’s code has 1 to 20 capitals, digits or dashes, such as FB18.");
        found.Text(sheet.Maker, "maker", "Write who made the carburetor, or “unknown”.");
        found.Text(sheet.Source, "source", "Write where the figures are from: a plate, a manual’s page, measured here.");
        found.When(sheet.StampedNumbers.Count > MostNumbers, "stampedNumbers", $"No more than {MostNumbers} numbers.");
        found.When(
            sheet.StampedNumbers.Any(number => number.Trim().Length is 0 or > StampedNumber.Longest),
            "stampedNumbers",
            $"A stamped number has 1 to {StampedNumber.Longest} characters."
        );
        Jets(sheet, found);
        Float(sheet, found);
        found.Number(sheet.Hold?.PressureKPa, 5, 300, "hold.pressureKPa", "kPa");
        found.Number(sheet.Hold?.WindowS, 1, 600, "hold.windowS", "s");
        found.Number(sheet.Hold?.DropLimitKPa, 0.01, sheet.Hold?.PressureKPa ?? 300, "hold.dropLimitKPa", "kPa");
        found.Number(sheet.Hold?.SettlingS, 0, 120, "hold.settlingS", "s");
        found.Number(sheet.Hold?.TestVolumeML, 0.1, 5000, "hold.testVolumeML", "mL");
        found.Number(sheet.Hold?.GaugeResolutionKPa, 0.001, 50, "hold.gaugeResolutionKPa", "kPa");
        Speed(sheet.IdleSpeed, "idleSpeed", found);
        Speed(sheet.GovernedSpeed, "governedSpeed", found);
        found.Number(sheet.Compression?.FloorKPa, 50, 2500, "compression.floorKPa", "kPa");
        found.Number(sheet.Compression?.GoodKPa, 50, 2500, "compression.goodKPa", "kPa");
        found.When(sheet.Compression is { } band && band.FloorKPa > band.GoodKPa, "compression.goodKPa", "Good must be above low.");
        found.When(
            sheet is { IdleSpeed: { } idle, GovernedSpeed: { } governed } && idle.HighRpm >= governed.HighRpm,
            "idleSpeed.highRpm",
            "Idle must be slower than the governed speed."
        );
        found.Number(sheet.PopOff?.LowKPa, 5, 500, "popOff.lowKPa", "kPa");
        found.When(sheet.PopOff is { } pop && pop.HighKPa <= pop.LowKPa, "popOff.highKPa", "The higher pressure must be above the lower.");
        found.When(
            sheet.PopOff is { ReseatKPa: { } reseat, LowKPa: var low } && reseat >= low,
            "popOff.reseatKPa",
            "It must shut below the pressure at which it opens."
        );
        found.Number((double?)sheet.Lever?.HeightMm, -10, 20, "lever.heightMm", "mm");
        found.Number((double?)sheet.Lever?.ToleranceMm, 0.01, 3, "lever.toleranceMm", "mm");
        Choke(sheet, found);
        foreach (var (screw, i) in (sheet.Screws ?? []).Select((screw, i) => (screw, i)))
        {
            found.Number(screw.TurnsOut, 0, 10, $"screws[{i}].turnsOut", "turns");
            found.Number(screw.TorqueNm, 0.05, 60, $"screws[{i}].torqueNm", "N·m");
        }

        found.Number((double?)sheet.Traits?.ThroatMm, 3, 80, "traits.throatMm", "mm");
        found.Number((double?)sheet.Traits?.BoltSpacingMm, 5, 200, "traits.boltSpacingMm", "mm");
        found.Number(sheet.Traits?.MixtureNeedles, 0, 6, "traits.mixtureNeedles", "needles");
        found.When(
            sheet.Traits is { } traits && !SheetForm.FloatShapes.Contains(traits.FloatShape),
            "traits.floatShape",
            $"A float is {string.Join(", ", SheetForm.FloatShapes)}."
        );
        found.When(
            sheet.Plates?.Count > MostNumbers || sheet.Plates?.Any(plate => plate.Trim().Length is 0 or > StampedNumber.Longest) == true,
            "plates",
            $"No more than {MostNumbers} plates of 1 to {StampedNumber.Longest} characters."
        );
        found.Number(sheet.Spring?.RateNPerMm, 0.005, 50, "spring.rateNPerMm", "N/mm");
        found.Number(sheet.Spring?.PreloadMm, 0, 30, "spring.preloadMm", "mm");
        found.Number(sheet.Spring?.SpringArmMm, 0.5, 60, "spring.springArmMm", "mm");
        found.Number(sheet.Spring?.NeedleArmMm, 0.5, 60, "spring.needleArmMm", "mm");
        found.Number(sheet.Spring?.DiaphragmArmMm, 0.5, 60, "spring.diaphragmArmMm", "mm");
        found.Number(sheet.Spring?.SeatBoreMm, 0.3, 8, "spring.seatBoreMm", "mm");
        found.Number(sheet.Feeds?.SweptML, 5, 3000, "feeds.sweptML", "mL");
        found.Number(sheet.Feeds?.FullRpm, 500, 20_000, "feeds.fullRpm", "rpm");
        return found.Problems;
    }

    private static void Jets(SpecSheet sheet, Found found)
    {
        found.When(sheet.Jets.Count > MostJets, "jets", $"No more than {MostJets} jets.");
        found.When(
            sheet.Jets.Select(jet => jet.Key).Distinct(StringComparer.Ordinal).Count() != sheet.Jets.Count,
            "jets",
            "This jet is on the sheet twice."
        );
        foreach (var (jet, i) in sheet.Jets.Select((jet, i) => (jet, i)))
        {
            found.When(!Key().IsMatch(jet.Key), $"jets[{i}].key", "A key has small letters and dashes, such as main-jet.");
            found.Text(jet.Label, $"jets[{i}].label", "Write what the jet is called at the bench.");
            found.Number((double)jet.BoreMm, 0.1, 6, $"jets[{i}].boreMm", "mm");
            found.Number((double)jet.ToleranceMm, 0.001, 0.5, $"jets[{i}].toleranceMm", "mm");
        }

        found.When(sheet.EmulsionRows.Count > MostRows, "emulsionRows", $"No more than {MostRows} rows.");
        found.When(
            sheet.EmulsionRows.Select((row, i) => row.Row != i + 1).Any(wrong => wrong),
            "emulsionRows",
            "Rows are counted from the top, from 1."
        );
        foreach (var (row, i) in sheet.EmulsionRows.Select((row, i) => (row, i)))
        {
            found.Number(row.Holes, 1, 30, $"emulsionRows[{i}].holes", "holes");
            found.Number((double)row.BoreMm, 0.1, 4, $"emulsionRows[{i}].boreMm", "mm");
            found.Number((double)row.ToleranceMm, 0.001, 0.5, $"emulsionRows[{i}].toleranceMm", "mm");
            found.Number((double)row.HeightMm, 0, 100, $"emulsionRows[{i}].heightMm", "mm");
        }
    }

    private static void Float(SpecSheet sheet, Found found)
    {
        found.When(
            sheet.Float is not null && sheet.Family != CarburetorFamily.FloatBowl,
            "float",
            "Only a float-bowl carburetor has a float."
        );
        found.Number((double?)sheet.Float?.HeightMm, 1, 80, "float.heightMm", "mm");
        found.Number((double?)sheet.Float?.ToleranceMm, 0.05, 5, "float.toleranceMm", "mm");
        found.Number((double?)sheet.Float?.UnevennessLimitMm, 0.05, 5, "float.unevennessLimitMm", "mm");
        found.Number((double?)sheet.Float?.TabArmMm, 1, 60, "float.tabArmMm", "mm");
        found.Number((double?)sheet.Float?.MeasuringArmMm, 1, 100, "float.measuringArmMm", "mm");
        found.Number(sheet.Float?.DryMassG, 0.2, 100, "float.dryMassG", "g");
        found.Number(sheet.Float?.MassToleranceG, 0.01, 10, "float.massToleranceG", "g");
        found.Number(sheet.Float?.Body?.VolumeML, 0.5, 200, "float.body.volumeML", "mL");
        found.Number(sheet.Float?.Body?.ArmMm, 1, 100, "float.body.armMm", "mm");
        found.Number(sheet.Float?.Body?.SeatBoreMm, 0.3, 8, "float.body.seatBoreMm", "mm");
        found.Number(sheet.Float?.Body?.HeadMm, 0, 3000, "float.body.headMm", "mm");
        found.Number(sheet.Float?.Body?.TallMm, 1, 80, "float.body.tallMm", "mm");
        found.Number(sheet.Float?.Body?.PumpKPa, 0, 100, "float.body.pumpKPa", "kPa");
        found.Number((double?)sheet.Float?.DropMm, 1, 80, "float.dropMm", "mm");
    }

    private static void Choke(SpecSheet sheet, Found found)
    {
        found.Number(sheet.Opens?.OpensLowS, 0, 3600, "opens.opensLowS", "s");
        found.Number(sheet.Opens?.OpensHighS, 0.5, 3600, "opens.opensHighS", "s");
        found.When(
            sheet.Opens is { OpensLowS: { } low, OpensHighS: { } high } && low >= high,
            "opens.opensHighS",
            "The latest must be after the earliest."
        );
        // The shop's latest may lie before this sheet's earliest.
        found.When(
            sheet.Opens is { OpensLowS: not null, OpensHighS: null },
            "opens.opensHighS",
            "Give the latest as well, or leave out the earliest."
        );
        found.Number(sheet.Opens?.BeginsC, -20, 150, "opens.beginsC", "°C");
        found.Number(sheet.Opens?.FullC, 0, 200, "opens.fullC", "°C");
        found.When(
            sheet.Opens is { BeginsC: { } begins, FullC: { } full } && begins >= full,
            "opens.fullC",
            "It must be fully open above where it begins."
        );
        found.Number(sheet.Opens?.StrokeMm, 0.2, 30, "opens.strokeMm", "mm");
        found.Number(sheet.Opens?.Strip?.LengthMm, 10, 2000, "opens.strip.lengthMm", "mm");
        found.Number(sheet.Opens?.Strip?.ThicknessMm, 0.1, 3, "opens.strip.thicknessMm", "mm");
        found.Number(sheet.Opens?.Strip?.ExpansionDifferencePerK, 1e-6, 60e-6, "opens.strip.expansionDifferencePerK", "per kelvin");
    }

    private static void Speed(SpeedSpec? speed, string field, Found found)
    {
        found.Number(speed?.LowRpm, 200, 20_000, $"{field}.lowRpm", "rpm");
        found.Number(speed?.HighRpm, 200, 20_000, $"{field}.highRpm", "rpm");
        found.When(speed is { } window && window.HighRpm <= window.LowRpm, $"{field}.highRpm", "The fastest must be above the slowest.");
    }

    private sealed class Found
    {
        public List<FieldProblem> Problems { get; } = [];

        public void When(bool wrong, string field, string must)
        {
            if (wrong)
            {
                Problems.Add(new(field, must));
            }
        }

        public void Number(double? value, double least, double most, string field, string unit) =>
            When(
                value is { } number && !(number >= least && number <= most),
                field,
                $"From {least} to {most} {unit}. Check the number and its unit."
            );

        public void Text(string? text, string field, string must) =>
            When(string.IsNullOrWhiteSpace(text) || text.Length > LongestText, field, must);
    }

    [GeneratedRegex("^[A-Z0-9][A-Z0-9-]{0,19}$")]
    private static partial Regex Code();

    [GeneratedRegex("^[a-z][a-z0-9-]{0,39}$")]
    private static partial Regex Key();
}
