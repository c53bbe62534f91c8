using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Safety;
using BlueDawn.Core.Stations;

namespace BlueDawn.Core.Setting;

/// <summary>Float heights around the float.</summary>
/// <param name="Points">Angle in degrees and height in millimetres.</param>
public sealed record FloatHeightReading(IReadOnlyList<HeightPoint> Points) : Reading;

/// <summary>Float height and evenness.</summary>
/// <param name="Float">The limits.</param>
/// <param name="SpecName">Where they are from.</param>
public sealed record FloatHeightLine(FloatSpec Float, string SpecName)
    : GaugeLine("setting/float-height", Station.Setting, "Float", "Float height")
{
    private static readonly string[] SuggestedAngles = ["0", "120", "240"];

    /// <inheritdoc/>
    public override string Part => "float";

    /// <inheritdoc/>
    public override Expected? ExpectedIn(string field) => field == "height" ? new((double)Float.HeightMm, Dimension.Length) : null;

    /// <inheritdoc/>
    public override Sentence Target =>
        Sentence.Of(
            "{0} ± {1}, even within {2}",
            Quantity.Mm(Float.HeightMm),
            Quantity.Mm(Float.ToleranceMm),
            Quantity.Mm(Float.UnevennessLimitMm)
        );

    /// <inheritdoc/>
    public override Span? Window =>
        new(Dimension.Length, (double)(Float.HeightMm - Float.ToleranceMm), (double)(Float.HeightMm + Float.ToleranceMm));

    /// <inheritdoc/>
    public override string LimitSource => SpecName;

    /// <inheritdoc/>
    public override Caution? Caution => Safety.Caution.OffTheNeedle;

    /// <inheritdoc/>
    public override EntryForm Form =>
        new(
            [],
            new EntryRows(
                "Point",
                [EntryField.MeasureDetail("angle", "at angle", Dimension.Angle), EntryField.Measure("height", "height", Dimension.Length)],
                2,
                SuggestedAngles.Select(angle => new Dictionary<string, string> { ["angle"] = angle }).ToList()
            )
        );

    /// <inheritdoc/>
    public override ReadReading Read(TypedReading typed)
    {
        var reader = new TypedReader(
            typed with
            {
                Rows = typed.Rows.Where(row => row.TryGetValue("height", out var h) && !string.IsNullOrWhiteSpace(h)).ToList(),
            }
        );
        var points = reader.Rows(row => new HeightPoint(
            (double)row.Required("height", Dimension.Length, 0, 100),
            (double?)row.Optional("angle", Dimension.Angle, -360, 360)
        ));
        if (points.Count == 0 && reader.Problems.Count == 0)
        {
            reader.Wrong("rows[0].height", "Enter the height at two points or more.");
        }

        if (points.Any(point => point.AngleDeg is null) && points.FindIndex(point => point.AngleDeg is not null) >= 0)
        {
            reader.Wrong($"rows[{points.FindIndex(point => point.AngleDeg is null)}].angle", "Note the angle at every height, or at none.");
        }

        return Result(reader, () => new FloatHeightReading(points));
    }

    /// <inheritdoc/>
    public override Sentence Describe(Reading reading)
    {
        var heights = (reading as FloatHeightReading)?.Points ?? [];
        return new Sentence(string.Join(", ", heights.Select((_, i) => "{" + i + "}")), [.. heights.Select(p => Quantity.Mm(p.HeightMm))]);
    }

    /// <inheritdoc/>
    public override Judgement Judge(Reading? reading, PinSet pins)
    {
        if (reading is not FloatHeightReading heights)
        {
            return Judgement.NotRead(
                Sentence.Of("Carburetor upside down, float resting: measure from body to float at two points or more.")
            );
        }

        var result = Level(heights);
        var toward = result.BendTowardNeedle == true;
        var (verdict, finding, word, lean, next) = result.Verdict switch
        {
            LevelVerdict.Level => (Verdict.Good, "level", "Level", Lean.None, Sentence.Of("Leave the tab. Check the drop and go on.")),
            LevelVerdict.TooHigh or LevelVerdict.TooLow => (
                Verdict.NotGood,
                toward ? "tooLow" : "tooHigh",
                toward ? "Too near the body" : "Too far from the body",
                toward ? Lean.Below : Lean.Above,
                Sentence.Of(
                    $"Bend the tab {{0}} {(toward ? "toward" : "away from")} the needle, then measure again.",
                    Quantity.Mm(Math.Round(result.TabBendMm, 2))
                )
            ),
            LevelVerdict.Uneven => (Verdict.NotGood, "uneven", "Uneven", Lean.None, Uneven(result)),
            LevelVerdict.CannotTell => (Verdict.CannotTell, "cannotTell", "Cannot tell yet", Lean.None, Open(result, heights.Points.Count)),
        };
        return new Judgement(
            verdict,
            finding,
            word,
            lean,
            next,
            new Span(Dimension.Length, heights.Points.Min(p => p.HeightMm), heights.Points.Max(p => p.HeightMm)),
            [.. Figures(result), .. LevelFigures(result)],
            [.. Why(result, heights.Points.Count), .. LevelWhy()],
            []
        );
    }

    /// <summary>Height in the middle of the float in millimetres.</summary>
    /// <param name="heights">Its heights.</param>
    public double Mean(FloatHeightReading heights) => Level(heights).MeanHeightMm;

    private FloatLevelResult Level(FloatHeightReading heights)
    {
        // Readings of before the angles were asked for together are judged as if none had been noted.
        var placed = heights.Points.All(point => point.AngleDeg is not null);
        return FloatLevel.Judge(
            new FloatLevelInput(
                placed ? heights.Points : [.. heights.Points.Select(point => point with { AngleDeg = null })],
                (double)Float.HeightMm,
                (double)Float.ToleranceMm,
                (double)Float.UnevennessLimitMm,
                (double)Float.TabArmMm,
                (double)Float.MeasuringArmMm
            )
        );
    }

    private List<Figure> LevelFigures(FloatLevelResult result) =>
        Float.DryMassG is { } dry && FloatStanding.Of(Float, result.MeanHeightMm, dry) is { LevelMm: { } level } standing
            ?
            [
                new("level", "Fuel below the body’s face, float dry", Quantity.Mm(Math.Round(level, 1))),
                new("levelMeant", "Where the sheet’s height puts it", Quantity.Mm(Math.Round(standing.MeantMm, 1))),
            ]
            : [];

    private List<Sentence> LevelWhy()
    {
        if (LevelChanges.Of(Float) is not { } changes)
        {
            return [];
        }

        var bend = Sentence.Of("{0} of bend moves the fuel by {1}.", Quantity.Mm(LevelChanges.BendByMm), Quantity.Mm(changes.BendMm));
        return changes is { SeatMm: { } seat, FuelInsideMm: { } inside }
            ?
            [
                bend,
                Sentence.Of(
                    "A seat {0} larger lets it stand {1} higher, {2} of fuel inside the float {3}.",
                    Quantity.Mm(LevelChanges.SeatByMm),
                    Quantity.Mm(seat),
                    Quantity.G(LevelChanges.FuelByG),
                    Quantity.Mm(inside)
                ),
                changes.PumpMm is { } pump
                    ? Sentence.Of(
                        "Behind a pump of {0} instead of the tank it stands {1} higher.",
                        Quantity.KPa(LevelChanges.PumpKPa),
                        Quantity.Mm(pump)
                    )
                    : Sentence.Of(
                        "It cannot shut behind a pump of {0}: fuel comes from the tank alone.",
                        Quantity.KPa(LevelChanges.PumpKPa)
                    ),
            ]
            : [bend];
    }

    private static Sentence Open(FloatLevelResult result, int points) =>
        points < 2 || result.UnevennessUncertaintyMm is null || result.MeanUncertaintyMm is null
            ? Sentence.Of(
                "One more height, at {0}: so far one side of the float has not been looked at.",
                Quantity.Deg(result.NextAngleDeg ?? 0)
            )
            : Sentence.Of("Too near the limit to say: measure once more, at {0}.", Quantity.Deg(result.NextAngleDeg ?? 0));

    private static Sentence Uneven(FloatLevelResult result) =>
        result.HighSideDeg is { } side
            ? Sentence.Of(
                "Straighten the float arms: it stands {0} higher at {1}. Bend that side {2} toward the body, the other as much away, and measure again.",
                Quantity.Mm(Math.Round(result.UnevennessMm, 2)),
                Quantity.Deg(Math.Round(side)),
                Quantity.Mm(Math.Round(result.UnevennessMm / 2, 2))
            )
            : Sentence.Of("Straighten the float arms: {0} from one side to the other.", Quantity.Mm(Math.Round(result.UnevennessMm, 2)));

    private static List<Figure> Figures(FloatLevelResult result)
    {
        var figures = new List<Figure>
        {
            new("meanHeight", "Mean height", Quantity.Mm(Math.Round(result.MeanHeightMm, 3))),
            new("heightError", "Off the spec height", Quantity.Mm(Math.Round(result.HeightErrorMm, 3))),
            new("unevenness", "Unevenness", Quantity.Mm(Math.Round(result.UnevennessMm, 3))),
        };
        void Add(string key, string label, double? mm)
        {
            if (mm is { } known)
            {
                figures.Add(new Figure(key, label, Quantity.Mm(Math.Round(known, 3))));
            }
        }

        Add("meanUncertainty", "Give or take on the height", result.MeanUncertaintyMm);
        Add("unevennessUncertainty", "Give or take on the unevenness", result.UnevennessUncertaintyMm);
        Add("tabBend", "Tab bend", result.TabBendMm > 0 ? result.TabBendMm : null);
        Add("tabBendUncertainty", "Give or take on the bend", result.TabBendUncertaintyMm);

        return figures;
    }

    private List<Sentence> Why(FloatLevelResult result, int points)
    {
        var why = new List<Sentence>
        {
            Sentence.Of(
                "A plane through {0} heights by least squares: {1} in the middle, {2} from its lowest to its highest side.",
                Quantity.Count(points),
                Quantity.Mm(Math.Round(result.MeanHeightMm, 3)),
                Quantity.Mm(Math.Round(result.UnevennessMm, 3))
            ),
            Sentence.Of(
                "A height is taken to be good to {0}; what that leaves open follows from where the heights were taken.",
                Quantity.Mm(2 * FloatLevel.HeightErrorMm)
            ),
        };
        if (result.Method == LevelMethod.EvenlySpread)
        {
            why.Add(Sentence.Of("No angles were noted: the heights are taken as evenly spread around the float."));
        }

        if (result.BendTowardNeedle is { } toward)
        {
            why.Add(
                Sentence.Of(
                    "Tab bend = height error {0} × tab arm {1} ÷ measuring arm {2} = {3}.",
                    Quantity.Mm(Math.Round(Math.Abs(result.HeightErrorMm), 3)),
                    Quantity.Mm(Float.TabArmMm),
                    Quantity.Mm(Float.MeasuringArmMm),
                    Quantity.Mm(Math.Round(result.TabBendMm, 3))
                )
            );
            why.Add(
                toward
                    ? Sentence.Of(
                        "Too near the body upside down means the bowl fills too high. Toward the needle moves the float away from the body."
                    )
                    : Sentence.Of(
                        "Too far from the body upside down means the bowl fills too low. Away from the needle lets the float come nearer the body."
                    )
            );
        }

        return why;
    }
}
