using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Safety;
using BlueDawn.Core.Stations;
using MathNet.Numerics.Distributions;

namespace BlueDawn.Core.Setting;

/// <summary>Pressures at which the needle let go and shut again, some times over.</summary>
/// <param name="Pops">One after the other.</param>
/// <param name="GaugeResolutionKPa">The gauge's step in kPa.</param>
/// <param name="Seals">True when the lever was pressed under pressure and let go, and it sealed again; no pressure was read.</param>
public sealed record PopOffReading(IReadOnlyList<SeenPop> Pops, double GaugeResolutionKPa, bool Seals = false) : Reading;

/// <summary>One pop as it was read off the gauge.</summary>
/// <param name="OpenedKPa">Where it let go.</param>
/// <param name="ShutKPa">Where it shut again; null when not noted.</param>
public sealed record SeenPop(double OpenedKPa, double? ShutKPa);

/// <summary>Pop-off and reseat of a metering needle: the pressure at which it lets go and the one at which it shuts again.</summary>
/// <param name="Spec">The window, or null where no sheet gives one: then only the spread is judged.</param>
/// <param name="GaugeStepKPa">The shop's gauge.</param>
/// <param name="SourceName">Where the window is from.</param>
/// <param name="Spring">The lever with its spring, or null when it is not known.</param>
public sealed record PopOffLine(PopOffSpec? Spec, double GaugeStepKPa, string SourceName, MeteringSpring? Spring = null)
    : GaugeLine<PopOffReading>("setting/pop-off", Station.Setting, "Needle and seat", "Pop-off")
{
    private static readonly LineFinding PopsDiffer = LineFinding.Bad("popsDiffer", "Not alike");
    private static readonly LineFinding PopsAlike = LineFinding.Good("popsAlike", "Alike");
    private static readonly LineFinding PopsLow = LineFinding.Bad("popsLow", "Low", Lean.Below);
    private static readonly LineFinding PopsHigh = LineFinding.Bad("popsHigh", "High", Lean.Above);
    private static readonly LineFinding ShutsLate = LineFinding.Bad("shutsLate", "Shuts late", Lean.Below);
    private static readonly LineFinding PopsRight = LineFinding.Good("popsRight", "In window");

    private static readonly LineFinding SealsAgain = LineFinding.Good("sealsAgain", "Seals");

    /// <summary>Its kind of reading, with everything it can find.</summary>
    public static IReadOnlyList<LineFinding> CanFind { get; } =
    [LineFinding.CannotTell, PopsDiffer, PopsAlike, PopsLow, PopsHigh, ShutsLate, PopsRight, SealsAgain];

    /// <inheritdoc/>
    public override IReadOnlyList<LineFinding> Findings => CanFind;

    /// <summary>Pops that are asked for. Common practice, no source.</summary>
    private const int PopsAsked = 3;

    /// <summary>Largest spread of the pops, as a share of their mean, of a needle that is to be trusted. Own judgement.</summary>
    private const double MostSpread = 0.15;

    /// <summary>The change of spring, seat or lever that is told about, in millimetres.</summary>
    private const double ChangeMm = 0.1;

    /// <inheritdoc/>
    public override string Part => "needle";

    /// <inheritdoc/>
    public override bool Required => Spec is not null;

    /// <inheritdoc/>
    public override bool GoesWithTheTray => true;

    /// <inheritdoc/>
    public override LineLimits? Limits =>
        new(
            Spec is { } limits
                ? Sentence.Of("opens at {0} to {1}, three times alike", Quantity.KPa(limits.LowKPa), Quantity.KPa(limits.HighKPa))
                : Sentence.Of("three times alike"),
            Spec is { } window ? new Span(Dimension.Pressure, window.LowKPa, window.HighKPa) : null,
            SourceName
        );

    /// <inheritdoc/>
    public override Caution? Caution => Safety.Caution.Pressure;

    private LineBox<double> OpenedBox => Box.Number("opened", "opened at", Dimension.Pressure, 0, 700).About(AboutKPa);
    private LineBox<double?> ShutBox => Box.Optional("shut", "shut at", Dimension.Pressure, 0, 700).About(Spec?.ReseatKPa ?? AboutKPa);

    /// <summary>About where a needle lets go: by the sheet, else 100 kPa. Common practice, no source.</summary>
    private double AboutKPa => Spec is { } known ? (known.LowKPa + known.HighKPa) / 2 : 100;

    private static readonly IReadOnlyList<Dictionary<string, string>> EmptyRows =
    [
        .. Enumerable.Repeat(new Dictionary<string, string>(), PopsAsked),
    ];

    private LineBox<double> ResolutionBox => Box.Detail("resolution", "gauge step", Dimension.Pressure, 0.001m, 100, GaugeStepKPa);

    /// <inheritdoc/>
    protected override LineForm<PopOffReading> Boxes => new(new BoxGroup("gauge", "Gauge", ResolutionBox), boxes =>
        {
            var pops = boxes.Rows(
                row => new SeenPop(row.Get(OpenedBox), row.Get(ShutBox)),
                row => row.Values.Any(text => !string.IsNullOrWhiteSpace(text))
            );
            var resolution = boxes.Get(ResolutionBox);
            if (pops.Count == 0 && boxes.Get(SealsBox))
            {
                return new PopOffReading([], resolution, true);
            }

            if (pops.Count == 0 && boxes.IsRight)
            {
                boxes.Wrong("rows[0].opened", "Enter the pressure at which it let go.");
            }

            if (pops.FindIndex(pop => pop.ShutKPa >= pop.OpenedKPa) is var wrong and >= 0)
            {
                boxes.Wrong($"rows[{wrong}].shut", "It shuts at less than it opened at.");
            }

            return new PopOffReading(pops, resolution);
        }) { Rows = new BoxRows("Pop", [OpenedBox, ShutBox], 1, EmptyRows, FromSeries: SeriesPart.Pops), Besides = [SealsBox] };

    private static readonly LineBox<bool> SealsBox = Box.Said("seals", "pressed, let go", "yes", "Seals");

    /// <summary>The lever pressed under pressure and let go: it opens and seals. At which pressure it lets go by itself is not known.</summary>
    protected override IReadOnlyList<QuickAnswer> AnswersBefore =>
        [new("Pressed, let go, seals", new Dictionary<string, string> { ["seals"] = "yes" }, Spec is null ? "good" : "pressure not known")];

    /// <inheritdoc/>
    protected override Sentence Describe(PopOffReading read) =>
        read.Seals
            ? Sentence.Of("pressed and let go: seals again")
            : new(
                "opened at " + string.Join(", ", read.Pops.Select((_, i) => "{" + i + "}")),
                [.. read.Pops.Select(pop => Quantity.KPa(pop.OpenedKPa))]
            );

    /// <inheritdoc/>
    protected override Sentence Ask =>
        Sentence.Of("Wet the needle, pump slowly until it lets go, three times over: where it let go, where it shut again.");

    /// <inheritdoc/>
    protected override Judgement Judge(PopOffReading read, PinSet pins)
    {
        if (read.Seals)
        {
            return Spec is null
                ? Said(SealsAgain, Sentence.Of("It opens and seals. Its hold test says whether it keeps sealing. Go on."), null, [])
                : Said(
                    LineFinding.CannotTell,
                    Sentence.Of("It opens and seals. The sheet gives a window: pump until it lets go by itself, three times over."),
                    null,
                    []
                );
        }

        var pops = read.Pops;
        var mean = pops.Average(pop => pop.OpenedKPa);
        var shut = pops.Where(pop => pop.ShutKPa is not null).Select(pop => pop.ShutKPa!.Value).ToList();
        var spread = pops.Max(pop => pop.OpenedKPa) - pops.Min(pop => pop.OpenedKPa);
        var give = Give(pops, read.GaugeResolutionKPa);
        var found = new Span(Dimension.Pressure, pops.Min(pop => pop.OpenedKPa), pops.Max(pop => pop.OpenedKPa));
        List<Figure> figures =
        [
            new("pops", "Pops", Quantity.Count(pops.Count)),
            new("popOff", "Lets go at, on average", Quantity.KPa(Math.Round(mean, 1))),
            new("spread", "Between the lowest and the highest", Quantity.KPa(Math.Round(spread, 1))),
        ];
        if (shut.Count > 0)
        {
            figures.Add(new("reseat", "Shuts again at, on average", Quantity.KPa(Math.Round(shut.Average(), 1))));
        }

        if (give is { } known)
        {
            figures.Add(new("popOffUncertainty", "Give or take", Quantity.KPa(Math.Round(known, 1))));
        }

        if (Spring is { } spring)
        {
            figures.Add(new("expected", "Its spring alone gives", Quantity.KPa(Math.Round(SpringForce.PopOffKPa(spring), 1))));
        }

        if (pops.Count < PopsAsked)
        {
            return Said(
                LineFinding.CannotTell,
                Sentence.Of(
                    "{0} so far: let it go {1} times, one that is right may be luck.",
                    Quantity.Count(pops.Count),
                    Quantity.Count(PopsAsked)
                ),
                found,
                figures
            );
        }

        // A spread that the gauge's step alone explains says nothing of the needle.
        if (spread - read.GaugeResolutionKPa > MostSpread * mean)
        {
            return Said(
                PopsDiffer,
                Sentence.Of(
                    "It lets go where it likes: clean needle and seat, look at the spring and the fork, then again; renew both if it stays."
                ),
                found,
                figures
            );
        }

        if (Spec is not { } limits)
        {
            return Said(
                PopsAlike,
                Sentence.Of("Three times alike. The sheet gives no window: compare with the hold test and go on."),
                found,
                figures
            );
        }

        var uncertain = give ?? read.GaugeResolutionKPa;
        if (mean + uncertain < limits.LowKPa)
        {
            return Said(PopsLow, Low(limits.LowKPa - mean, mean), found, figures);
        }

        if (mean - uncertain > limits.HighKPa)
        {
            return Said(
                PopsHigh,
                Sentence.Of(
                    "It opens {0} too late and starves: look for the wrong spring, a smaller seat or a needle that sticks.",
                    Quantity.KPa(Math.Round(mean - limits.HighKPa, 1))
                ),
                found,
                figures
            );
        }

        if (mean - uncertain < limits.LowKPa || mean + uncertain > limits.HighKPa)
        {
            return Said(
                LineFinding.CannotTell,
                Sentence.Of("Too near the limit to say: let it go three times more, or use a finer gauge."),
                found,
                figures
            );
        }

        if (limits.ReseatKPa is not null && shut.Count == 0)
        {
            return Said(LineFinding.CannotTell, Sentence.Of("It lets go where it should. Note where it shuts again too."), found, figures);
        }

        return limits.ReseatKPa is { } least && shut.Average() < least
            ? Said(
                ShutsLate,
                Sentence.Of(
                    "It shuts again at {0}, {1} is asked: clean needle and seat, renew both if it stays.",
                    Quantity.KPa(Math.Round(shut.Average(), 1)),
                    Quantity.KPa(least)
                ),
                found,
                figures
            )
            : Said(PopsRight, Sentence.Of("It lets go and shuts where it should. Go on."), found, figures);
    }

    /// <summary>What to do about a needle that opens too early; with the spring known, how much of its length is gone.</summary>
    private Sentence Low(double earlyKPa, double mean) =>
        Spring is { } spring
            ? Sentence.Of(
                "It opens {0} too early and runs rich, as with a spring {1} short: look whether it sits in its pocket, then renew it.",
                Quantity.KPa(Math.Round(earlyKPa, 1)),
                Quantity.Mm(Math.Round(Math.Max(0, spring.PreloadMm - SpringForce.PreloadForMm(spring, mean)), 2))
            )
            : Sentence.Of(
                "It opens {0} too early and runs rich: check the spring's length and seat, then the lever's height. A cut or tired spring is renewed.",
                Quantity.KPa(Math.Round(earlyKPa, 1))
            );

    /// <summary>Give or take on the mean of the pops: Student's t of their scatter, and the gauge's step; null with one pop.</summary>
    private static double? Give(IReadOnlyList<SeenPop> pops, double step)
    {
        if (pops.Count < 2)
        {
            return null;
        }

        var mean = pops.Average(pop => pop.OpenedKPa);
        var variance = pops.Sum(pop => (pop.OpenedKPa - mean) * (pop.OpenedKPa - mean)) / (pops.Count - 1);
        return (StudentT.InvCDF(0, 1, pops.Count - 1, 0.975) * Math.Sqrt(variance / pops.Count)) + (step / 2);
    }

    private Judgement Said(LineFinding finding, Sentence next, Span? found, IReadOnlyList<Figure> figures) =>
        finding.Judged(next, found: found, figures: figures, why: Why());

    private List<Sentence> Why() =>
        [
            Sentence.Of(
                "Three pops or more; alike when they spread by no more than {0} of their mean beyond the gauge's step.",
                Quantity.Percent(100 * MostSpread)
            ),
            Sentence.Of("Give or take: Student's t of the pops, and half the gauge's step."),
            .. Spring is { } spring
                ?
                [
                    Sentence.Of(
                        "Its spring pressed by {0}, through arms of {1} and {2}, on a seat of {3}: {4} (Hooke).",
                        Quantity.Mm(spring.PreloadMm),
                        Quantity.Mm(spring.SpringArmMm),
                        Quantity.Mm(spring.NeedleArmMm),
                        Quantity.Mm(spring.SeatBoreMm),
                        Quantity.KPa(Math.Round(SpringForce.PopOffKPa(spring), 1))
                    ),
                    Sentence.Of(
                        "{0} shorter a spring: {1} less. A seat {0} larger: {2} less. The lever bent "
                            + "up {0} at its pivot: {3} less; bent beyond the spring it changes nothing.",
                        Quantity.Mm(ChangeMm),
                        Quantity.KPa(Math.Round(-SpringForce.LongerSpringKPa(spring, -ChangeMm), 1)),
                        Quantity.KPa(Math.Round(-SpringForce.LargerSeatKPa(spring, ChangeMm), 1)),
                        Quantity.KPa(Math.Round(-SpringForce.BentUpAtPivotKPa(spring, ChangeMm), 1))
                    ),
                ]
                : Array.Empty<Sentence>(),
            Sentence.Of($"Window: {SourceName}."),
        ];
}
