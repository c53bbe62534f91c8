using System.Text.Json.Serialization;
using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Carburetors;

/// <summary>A box of a sheet for one number.</summary>
/// <param name="Name">Its name within its group, as the sheet has it.</param>
/// <param name="Label">Its words.</param>
/// <param name="Dimension">What it measures.</param>
/// <param name="Get">What a sheet says.</param>
/// <param name="Free">True when it may stay unknown though the rest of its group is known.</param>
/// <param name="Usual">Taken, in the base unit, when the rest of its group is given and this is not; null where nothing is usual. Own
/// judgement.</param>
public sealed record SheetBox(
    string Name,
    string Label,
    Dimension Dimension,
    [property: JsonIgnore] Func<SpecSheet, double?> Get,
    bool Free = false,
    double? Usual = null
);

/// <summary>Numbers of a sheet that go together: they are known all at once or not at all.</summary>
/// <param name="At">Where they stand on the sheet.</param>
/// <param name="Title">Their heading.</param>
/// <param name="Hint">What to know before, or null.</param>
/// <param name="Families">Families that have them; empty for any.</param>
/// <param name="Chokes">Chokes that have them; empty for any.</param>
/// <param name="Boxes">The boxes.</param>
public sealed record SheetGroup(
    string At,
    string Title,
    string? Hint,
    IReadOnlyList<CarburetorFamily> Families,
    IReadOnlyList<ChokeKind> Chokes,
    IReadOnlyList<SheetBox> Boxes
)
{
    /// <summary>Whether a carburetor of a kind has them.</summary>
    /// <param name="family">Its family.</param>
    /// <param name="choke">Its choke, or null.</param>
    public bool IsFor(CarburetorFamily family, ChokeKind? choke) =>
        (Families.Count == 0 || Families.Contains(family)) && (Chokes.Count == 0 || (choke is { } known && Chokes.Contains(known)));
}

/// <summary>A jet as it is typed. What is null stays as it stands on the sheet it is written from.</summary>
/// <param name="Key">Its key on that sheet; null for a jet that is not on it.</param>
/// <param name="Label">Its name at the bench.</param>
/// <param name="Bore">Its bore.</param>
/// <param name="Tolerance">Allowed either way; empty for what is usual.</param>
public sealed record TypedJet(string? Key, string? Label, string? Bore, string? Tolerance);

/// <summary>A row of an emulsion tube as it is typed. What is null stays as it stands on the sheet it is written from.</summary>
/// <param name="Row">Its row on that sheet, from 1; null for a row that is not on it.</param>
/// <param name="Holes">Its holes.</param>
/// <param name="Bore">Their bore.</param>
/// <param name="Tolerance">Allowed either way; empty for what is usual.</param>
/// <param name="Height">Height above the jet; empty for 0.</param>
public sealed record TypedRow(int? Row, string? Holes, string? Bore, string? Tolerance, string? Height);

/// <summary>A spec sheet as it is typed.</summary>
/// <param name="Units">The units that numbers without a unit are in.</param>
/// <param name="Code">Its code.</param>
/// <param name="Maker">Who made the carburetor.</param>
/// <param name="Family">Its kind.</param>
/// <param name="Engine">The engine it is found on, or null.</param>
/// <param name="Choke">Its choke, or null.</param>
/// <param name="Stamped">Numbers found on it, with commas between them.</param>
/// <param name="Source">Where the figures are from.</param>
/// <param name="LeverDatum">From where the metering lever is measured.</param>
/// <param name="Numbers">What was typed into the boxes of <see cref="SheetForm.Groups"/>, by group and name, such as
/// <c>float.heightMm</c>; a box that is not there stays as it was.</param>
/// <param name="Jets">Its jets.</param>
/// <param name="Rows">Rows of its emulsion tube, from the top.</param>
/// <param name="Plates">Engine plates it is found on, with commas between them; null stays as it was, as with all that follow.</param>
/// <param name="Screws">What it says of screws, as <see cref="ScrewText"/> has it.</param>
/// <param name="Element">What moves a heat choke.</param>
/// <param name="BodyShape">How the float is shaped, for how deep it sinks.</param>
/// <param name="FloatShape">How the float looks from above, to know the carburetor by.</param>
public sealed record TypedSheet(
    UnitSystem Units,
    string Code,
    string Maker,
    CarburetorFamily Family,
    EngineKind? Engine,
    ChokeKind? Choke,
    string Stamped,
    string Source,
    LeverDatum LeverDatum,
    IReadOnlyDictionary<string, string> Numbers,
    IReadOnlyList<TypedJet> Jets,
    IReadOnlyList<TypedRow> Rows,
    string? Plates = null,
    string? Screws = null,
    HeatElement? Element = null,
    FloatShape? BodyShape = null,
    string? FloatShape = null
);

/// <summary>A typed sheet, read.</summary>
/// <param name="Sheet">What it says as far as it could be read.</param>
/// <param name="Problems">What is wrong with it, by the path of its field.</param>
public sealed record ReadSheet(SpecSheet Sheet, IReadOnlyList<FieldProblem> Problems)
{
    /// <summary>The windows that can be drawn already, by the path of their field.</summary>
    public IReadOnlyDictionary<string, Span> Windows()
    {
        var windows = new Dictionary<string, Span>();
        void About(string field, decimal middle, decimal either)
        {
            if (Problems.All(problem => !problem.Field.StartsWith(field, StringComparison.Ordinal)) && middle > 0 && either > 0)
            {
                windows[field] = new Span(Dimension.Length, (double)(middle - either), (double)(middle + either));
            }
        }

        foreach (var (jet, i) in Sheet.Jets.Select((jet, i) => (jet, i)))
        {
            About($"jets[{i}]", jet.BoreMm, jet.ToleranceMm);
        }

        foreach (var (row, i) in Sheet.EmulsionRows.Select((row, i) => (row, i)))
        {
            About($"emulsionRows[{i}]", row.BoreMm, row.ToleranceMm);
        }

        return windows;
    }
}

/// <summary>How a spec sheet is typed: its boxes, and what is read from them. A new number of a sheet gets its box here.</summary>
public static class SheetForm
{
    /// <summary>Allowed either way of a bore when nobody says it, in millimetres: a jet and a row of an emulsion tube. Own
    /// judgement.</summary>
    public const decimal UsualJetToleranceMm = 0.015m,
        UsualRowToleranceMm = 0.02m;

    /// <summary>How a float looks from above, in the words of a sheet.</summary>
    public static IReadOnlyList<string> FloatShapes { get; } = ["round", "twin", "horseshoe", "none"];

    /// <summary>Every group, in the order it is typed.</summary>
    public static IReadOnlyList<SheetGroup> Groups { get; } =
    [
        new(
            "float",
            "Float",
            "Carburetor upside down. The two lengths are from the hinge pin: to where the tab touches the needle, and to where the height is measured.",
            [CarburetorFamily.FloatBowl],
            [],
            [
                new("heightMm", "height", Dimension.Length, sheet => (double?)sheet.Float?.HeightMm),
                new("toleranceMm", "either way", Dimension.Length, sheet => (double?)sheet.Float?.ToleranceMm, Usual: 0.5),
                new("unevennessLimitMm", "uneven at most", Dimension.Length, sheet => (double?)sheet.Float?.UnevennessLimitMm, Usual: 0.5),
                new("tabArmMm", "pin to tab", Dimension.Length, sheet => (double?)sheet.Float?.TabArmMm),
                new("measuringArmMm", "pin to measure", Dimension.Length, sheet => (double?)sheet.Float?.MeasuringArmMm),
                new("dryMassG", "dry mass", Dimension.Mass, sheet => sheet.Float?.DryMassG, Free: true),
                new("massToleranceG", "mass either way", Dimension.Mass, sheet => sheet.Float?.MassToleranceG, Usual: 0.3),
                new("dropMm", "drop at least", Dimension.Length, sheet => (double?)sheet.Float?.DropMm, Free: true),
            ]
        ),
        new(
            "float.body",
            "What the float has to shut",
            "For whether it can shut the needle, and where the fuel stands. The head is the tank’s top above the needle.",
            [CarburetorFamily.FloatBowl],
            [],
            [
                new("volumeML", "volume", Dimension.Volume, sheet => sheet.Float?.Body?.VolumeML),
                new("armMm", "pin to middle", Dimension.Length, sheet => sheet.Float?.Body?.ArmMm),
                new("seatBoreMm", "seat’s bore", Dimension.Length, sheet => sheet.Float?.Body?.SeatBoreMm),
                new("headMm", "head of fuel", Dimension.Length, sheet => sheet.Float?.Body?.HeadMm),
                new("tallMm", "own height", Dimension.Length, sheet => sheet.Float?.Body?.TallMm, Free: true),
                new("pumpKPa", "pump", Dimension.Pressure, sheet => sheet.Float?.Body?.PumpKPa, Free: true),
            ]
        ),
        new(
            "spring",
            "Metering lever’s spring",
            "For what the spring alone gives at pop-off. Arms are from the pivot.",
            [CarburetorFamily.Diaphragm],
            [],
            [
                new("rateNPerMm", "rate, N/mm", Dimension.Count, sheet => sheet.Spring?.RateNPerMm),
                new("preloadMm", "pressed by", Dimension.Length, sheet => sheet.Spring?.PreloadMm),
                new("springArmMm", "to the spring", Dimension.Length, sheet => sheet.Spring?.SpringArmMm),
                new("needleArmMm", "to the needle", Dimension.Length, sheet => sheet.Spring?.NeedleArmMm),
                new("diaphragmArmMm", "to the diaphragm", Dimension.Length, sheet => sheet.Spring?.DiaphragmArmMm),
                new("seatBoreMm", "seat’s bore", Dimension.Length, sheet => sheet.Spring?.SeatBoreMm),
            ]
        ),
        new(
            "feeds",
            "Largest engine it feeds",
            null,
            [],
            [],
            [
                new("sweptML", "swept volume", Dimension.Volume, sheet => sheet.Feeds?.SweptML),
                new("fullRpm", "full load at", Dimension.Speed, sheet => sheet.Feeds?.FullRpm),
            ]
        ),
        new(
            "traits",
            "Known by, when no number is legible",
            null,
            [],
            [],
            [
                new("throatMm", "throat at the plate", Dimension.Length, sheet => (double?)sheet.Traits?.ThroatMm),
                new("boltSpacingMm", "flange bolts apart", Dimension.Length, sheet => (double?)sheet.Traits?.BoltSpacingMm),
                new("mixtureNeedles", "mixture needles", Dimension.Count, sheet => sheet.Traits?.MixtureNeedles),
            ]
        ),
        new(
            "hold",
            "Hold test",
            "Left empty, the shop’s own limits stand in.",
            [CarburetorFamily.FloatBowl, CarburetorFamily.Diaphragm],
            [],
            [
                new("pressureKPa", "pressure", Dimension.Pressure, sheet => sheet.Hold?.PressureKPa),
                new("windowS", "for", Dimension.Time, sheet => sheet.Hold?.WindowS),
                new("dropLimitKPa", "drop at most", Dimension.Pressure, sheet => sheet.Hold?.DropLimitKPa),
                new("settlingS", "settling", Dimension.Time, sheet => sheet.Hold?.SettlingS, Usual: 2),
                new("testVolumeML", "test volume", Dimension.Volume, sheet => sheet.Hold?.TestVolumeML, Usual: 20),
                new("gaugeResolutionKPa", "gauge step", Dimension.Pressure, sheet => sheet.Hold?.GaugeResolutionKPa, Usual: 1),
            ]
        ),
        new(
            "popOff",
            "Pop-off",
            null,
            [CarburetorFamily.Diaphragm],
            [],
            [
                new("lowKPa", "lowest", Dimension.Pressure, sheet => sheet.PopOff?.LowKPa),
                new("highKPa", "highest", Dimension.Pressure, sheet => sheet.PopOff?.HighKPa),
                new("reseatKPa", "shuts above", Dimension.Pressure, sheet => sheet.PopOff?.ReseatKPa, Free: true),
            ]
        ),
        new(
            "lever",
            "Metering lever",
            null,
            [CarburetorFamily.Diaphragm],
            [],
            [
                new("heightMm", "height", Dimension.Length, sheet => (double?)sheet.Lever?.HeightMm),
                new("toleranceMm", "either way", Dimension.Length, sheet => (double?)sheet.Lever?.ToleranceMm, Usual: 0.15),
            ]
        ),
        new(
            "idleSpeed",
            "Idle speed",
            "Left empty: a machine of one speed, with no idle to tune.",
            [],
            [],
            Window(sheet => sheet.IdleSpeed)
        ),
        new("governedSpeed", "Governed speed", null, [], [], Window(sheet => sheet.GovernedSpeed)),
        new(
            "compression",
            "Compression",
            "Of the engine it feeds, plug out, throttle open. Between the two it cannot be told.",
            [],
            [],
            [
                new("floorKPa", "low below", Dimension.Pressure, sheet => sheet.Compression?.FloorKPa),
                new("goodKPa", "good from", Dimension.Pressure, sheet => sheet.Compression?.GoodKPa),
            ]
        ),
        new(
            "opens",
            "Choke opens",
            "Seconds from the start; of a heat choke on a day of 20 °C.",
            [],
            [ChokeKind.Vacuum, ChokeKind.Heat],
            [
                new("opensLowS", "not before", Dimension.Time, sheet => sheet.Opens?.OpensLowS, Free: true),
                new("opensHighS", "no later than", Dimension.Time, sheet => sheet.Opens?.OpensHighS, Free: true),
                new("beginsC", "begins at", Dimension.Temperature, sheet => sheet.Opens?.BeginsC, Free: true),
                new("fullC", "fully open at", Dimension.Temperature, sheet => sheet.Opens?.FullC, Free: true),
                new("strokeMm", "pin’s stroke", Dimension.Length, sheet => sheet.Opens?.StrokeMm, Free: true),
            ]
        ),
        new(
            "opens.strip",
            "Bimetal strip",
            "Unrolled. The difference is how much more one layer grows than the other, in millionths a kelvin.",
            [],
            [ChokeKind.Heat],
            [
                new("lengthMm", "length", Dimension.Length, sheet => sheet.Opens?.Strip?.LengthMm),
                new("thicknessMm", "thickness", Dimension.Length, sheet => sheet.Opens?.Strip?.ThicknessMm),
                new("expansionDifferencePerK", "difference", Dimension.Count, sheet => sheet.Opens?.Strip?.ExpansionDifferencePerK * 1e6),
            ]
        ),
    ];

    /// <summary>Reads what was typed.</summary>
    /// <param name="typed">What was typed.</param>
    /// <param name="from">The sheet it is written from, or null. What has no box is kept from it.</param>
    public static ReadSheet Read(TypedSheet typed, SpecSheet? from)
    {
        var problems = new List<FieldProblem>();
        double? Number(string field, string? text, Dimension dimension, double? before)
        {
            if (text is null)
            {
                return before;
            }

            if (text.Trim().Length == 0)
            {
                return null;
            }

            var read = MeasureEntry.Parse(text, dimension, typed.Units);
            if (!read.IsRight)
            {
                problems.Add(new(field, read.Problem!));
                return 0;
            }

            return (double)read.Value;
        }

        decimal Bore(string field, string? text, decimal? before, string? needed, decimal usual)
        {
            if (Number(field, text, Dimension.Length, (double?)before) is { } number)
            {
                return (decimal)number;
            }

            if (needed is not null)
            {
                problems.Add(new(field, needed));
            }

            return usual;
        }

        var group = Groups.ToDictionary(one => one.At, one => Group(one, typed, from, Number, problems));
        var sheet = new SpecSheet(
            typed.Code.Trim().ToUpperInvariant(),
            typed.Maker.Trim(),
            typed.Family,
            (from?.Issue ?? 0) + 1,
            Split(typed.Stamped),
            [
                .. typed.Jets.Select(
                    (jet, i) =>
                    {
                        var before = from?.Jets.FirstOrDefault(one => one.Key == jet.Key);
                        var label = (jet.Label ?? before?.Label ?? "").Trim();
                        return new BoreSpec(
                            before?.Key ?? KeyOf(label),
                            label,
                            Bore($"jets[{i}].boreMm", jet.Bore, before?.BoreMm, "What is its bore? Take the jet out when nobody knows.", 0),
                            Bore($"jets[{i}].toleranceMm", jet.Tolerance, before?.ToleranceMm, null, UsualJetToleranceMm)
                        );
                    }
                ),
            ],
            [
                .. typed.Rows.Select(
                    (row, i) =>
                    {
                        var before = from?.EmulsionRows.FirstOrDefault(one => one.Row == row.Row);
                        var holes = Number($"emulsionRows[{i}].holes", row.Holes, Dimension.Count, before?.Holes);
                        if (holes is null)
                        {
                            problems.Add(new($"emulsionRows[{i}].holes", "How many holes has it?"));
                        }
                        else if (holes != Math.Truncate(holes.Value))
                        {
                            problems.Add(new($"emulsionRows[{i}].holes", "Enter a whole number: it is a count."));
                        }

                        return new EmulsionRowSpec(
                            i + 1,
                            (int)(holes ?? 0),
                            Bore($"emulsionRows[{i}].boreMm", row.Bore, before?.BoreMm, "What is their bore?", 0),
                            Bore($"emulsionRows[{i}].toleranceMm", row.Tolerance, before?.ToleranceMm, null, UsualRowToleranceMm),
                            Bore($"emulsionRows[{i}].heightMm", row.Height, before?.HeightMm, null, 0)
                        );
                    }
                ),
            ],
            group["float"] is { } f
                ? new FloatSpec(
                    (decimal)f("heightMm")!,
                    (decimal)f("toleranceMm")!,
                    (decimal)f("unevennessLimitMm")!,
                    (decimal)f("tabArmMm")!,
                    (decimal)f("measuringArmMm")!,
                    f("dryMassG"),
                    f("massToleranceG")!.Value,
                    Body(group["float.body"], typed.BodyShape ?? from?.Float?.Body?.Shape ?? Carburetors.FloatShape.Upright),
                    (decimal?)f("dropMm")
                )
                : null,
            group["hold"] is { } h
                ? new HoldSpec(
                    h("pressureKPa")!.Value,
                    h("windowS")!.Value,
                    h("dropLimitKPa")!.Value,
                    h("settlingS")!.Value,
                    h("testVolumeML")!.Value,
                    h("gaugeResolutionKPa")!.Value
                )
                : null,
            group["idleSpeed"] is { } idle ? new SpeedSpec(idle("lowRpm")!.Value, idle("highRpm")!.Value) : null,
            group["governedSpeed"] is { } governed ? new SpeedSpec(governed("lowRpm")!.Value, governed("highRpm")!.Value) : null,
            from?.Needs ?? [],
            typed.Source.Trim(),
            group["traits"] is { } traits
                ? new CarburetorTraits(
                    (decimal)traits("throatMm")!,
                    (decimal)traits("boltSpacingMm")!,
                    (int)traits("mixtureNeedles")!,
                    (typed.FloatShape ?? from?.Traits?.FloatShape ?? "").Trim().ToLowerInvariant() is { Length: > 0 } shape ? shape : "none"
                )
                : null,
            typed.Plates is null ? from?.Plates : Split(typed.Plates),
            Screws(typed, from, problems),
            typed.Engine,
            typed.Choke,
            group["lever"] is { } lever
                ? new LeverSpec(typed.LeverDatum, (decimal)lever("heightMm")!, (decimal)lever("toleranceMm")!)
                : null,
            group["popOff"] is { } pop ? new PopOffSpec(pop("lowKPa")!.Value, pop("highKPa")!.Value, pop("reseatKPa")) : null,
            group["spring"] is { } spring
                ? new MeteringSpring(
                    spring("rateNPerMm")!.Value,
                    spring("preloadMm")!.Value,
                    spring("springArmMm")!.Value,
                    spring("needleArmMm")!.Value,
                    spring("diaphragmArmMm")!.Value,
                    spring("seatBoreMm")!.Value
                )
                : null,
            group["feeds"] is { } feeds ? new EngineSize(feeds("sweptML")!.Value, feeds("fullRpm")!.Value) : null,
            Opens(
                group["opens"],
                group["opens.strip"],
                typed.Choke == ChokeKind.Heat ? typed.Element ?? from?.Opens?.Element : from?.Opens?.Element
            ),
            group["compression"] is { } compression
                ? new CompressionBand(compression("floorKPa")!.Value, compression("goodKPa")!.Value)
                : null
        );
        if (group["float.body"] is not null && sheet.Float is null)
        {
            problems.Add(new("float.heightMm", "Needed with what the float has to shut."));
        }

        // What could not be read is said once, at its box.
        return new ReadSheet(
            sheet,
            [.. problems, .. SheetCheck.Problems(sheet).Where(wrong => problems.All(problem => problem.Field != wrong.Field))]
        );
    }

    /// <summary>The numbers of a sheet by group and name, such as <c>float.heightMm</c>: what its boxes show before anybody
    /// types.</summary>
    /// <param name="sheet">The sheet.</param>
    public static IReadOnlyDictionary<string, double> Numbers(SpecSheet sheet)
    {
        var numbers = new Dictionary<string, double>();
        foreach (var (group, box) in Groups.SelectMany(group => group.Boxes.Select(box => (group, box))))
        {
            if (box.Get(sheet) is { } known)
            {
                numbers[$"{group.At}.{box.Name}"] = known;
            }
        }

        return numbers;
    }

    private static SheetBox[] Window(Func<SpecSheet, SpeedSpec?> speed) =>
        [
            new("lowRpm", "slowest", Dimension.Speed, sheet => speed(sheet)?.LowRpm),
            new("highRpm", "fastest", Dimension.Speed, sheet => speed(sheet)?.HighRpm),
        ];

    private static Func<string, double?>? Group(
        SheetGroup group,
        TypedSheet typed,
        SpecSheet? from,
        Func<string, string?, Dimension, double?, double?> number,
        List<FieldProblem> problems
    )
    {
        if (!group.IsFor(typed.Family, typed.Choke))
        {
            return null;
        }

        var read = group.Boxes.ToDictionary(
            box => box.Name,
            box =>
                number(
                    $"{group.At}.{box.Name}",
                    typed.Numbers.GetValueOrDefault($"{group.At}.{box.Name}"),
                    box.Dimension,
                    from is null ? null : box.Get(from)
                )
        );
        if (read.Values.All(value => value is null))
        {
            return null;
        }

        foreach (var box in group.Boxes.Where(box => read[box.Name] is null && !box.Free))
        {
            if (box.Usual is null)
            {
                problems.Add(new($"{group.At}.{box.Name}", $"Needed with the rest of {group.Title.ToLowerInvariant()}."));
            }

            read[box.Name] = box.Usual ?? 0;
        }

        return name => read[name];
    }

    private static string[] Split(string typed) =>
        typed.Split([',', ';', '\n'], StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);

    private static FloatBody? Body(Func<string, double?>? body, FloatShape shape) =>
        body is null
            ? null
            : new FloatBody(
                body("volumeML")!.Value,
                body("armMm")!.Value,
                body("seatBoreMm")!.Value,
                body("headMm")!.Value,
                shape,
                body("tallMm"),
                body("pumpKPa")
            );

    private static IReadOnlyList<ScrewSpec>? Screws(TypedSheet typed, SpecSheet? from, List<FieldProblem> problems)
    {
        if (typed.Screws is null || typed.Screws == ScrewText.Write(from?.Screws))
        {
            return from?.Screws;
        }

        var read = ScrewText.Read(typed.Screws, typed.Units);
        if (!read.IsRight)
        {
            problems.Add(new("screws", read.Problem!));
            return from?.Screws;
        }

        return read.Value!.Count == 0 ? null : read.Value;
    }

    private static ChokeLimits? Opens(Func<string, double?>? group, Func<string, double?>? strip, HeatElement? element)
    {
        var opens = new ChokeLimits(
            group?.Invoke("opensLowS"),
            group?.Invoke("opensHighS"),
            element,
            group?.Invoke("beginsC"),
            group?.Invoke("fullC"),
            group?.Invoke("strokeMm"),
            strip is null
                ? null
                : new BimetalStrip(strip("lengthMm")!.Value, strip("thicknessMm")!.Value, strip("expansionDifferencePerK")!.Value / 1e6)
        );
        return opens == new ChokeLimits() ? null : opens;
    }

    /// <summary>A jet's key from its name: Main jet is main-jet.</summary>
    private static string KeyOf(string label)
    {
        var key = string.Join(
            '-',
            label
                .ToLowerInvariant()
                .Split(' ', StringSplitOptions.RemoveEmptyEntries)
                .Select(word => new string([.. word.Where(char.IsAsciiLetterOrDigit)]))
                .Where(word => word.Length > 0)
        );
        return key.Length > 0 && char.IsAsciiLetter(key[0]) ? key : "jet";
    }
}
