using BlueDawn.Core.Measures;
using BlueDawn.Core.Safety;
using BlueDawn.Core.Worksheets;

namespace BlueDawn.Core.Bench;

/// <summary>The one thing to do next on a tray, why, and the caution that belongs to it.</summary>
/// <param name="Station">Where it is done.</param>
/// <param name="LineKey">The gauge line it is about, or null.</param>
/// <param name="LineLabel">The line's name, or null.</param>
/// <param name="Do">What to do.</param>
/// <param name="Why">Why this and not something else.</param>
/// <param name="Answers">Quick answers that would settle it.</param>
/// <param name="Caution">The caution, or null.</param>
public sealed record NextStep(
    Station Station,
    string? LineKey,
    string? LineLabel,
    Sentence Do,
    Sentence Why,
    IReadOnlyList<QuickAnswer> Answers,
    Caution? Caution)
{
    /// <summary>
    /// Finds the next step: what stands undecided or failing first, in bench order, then what has not been read.
    /// </summary>
    /// <param name="hasSpec">Whether a spec sheet has been chosen.</param>
    /// <param name="hasKit">Whether a kit has been chosen.</param>
    /// <param name="released">Whether the tray has been handed back.</param>
    /// <param name="lines">The judged lines in bench order.</param>
    /// <param name="work">What has been taken apart, cleaned and put together.</param>
    public static NextStep Of(bool hasSpec, bool hasKit, bool released, IReadOnlyList<JudgedLine> lines, TrayWork work)
    {
        if (released)
        {
            return Plain(Station.Handover, Sentence.Of("Handed back."), Sentence.Of("Nothing is left to do on this tray."), null);
        }

        if (!hasSpec)
        {
            return Plain(Station.Kits, Sentence.Of("Find its spec sheet by the stamped number."), Sentence.Of("Nothing can be judged without the sheet."), null);
        }

        var measured = lines.Any(line => line.Reading is not null);
        foreach (var station in Enum.GetValues<Station>())
        {
            // Half taken apart it is taken apart first: what comes out may say what to fit.
            if (station == Station.Kits && !hasKit && work.Ledger.ToStrip.Count == 0)
            {
                return Plain(Station.Kits, Sentence.Of("Decide what to fit to this tray."), Sentence.Of("The sheet is known; match the parts, then decide what goes back in."), null);
            }

            if (work.StepAt(station, measured) is { } step)
            {
                return step;
            }

            var here = lines.Where(line => line.Line.Station == station && line.IsOpen).ToList();
            var open = here.FirstOrDefault(line => line.Judgement.Verdict == Verdict.CannotTell)
                ?? here.FirstOrDefault(line => line.Judgement.Verdict == Verdict.NotGood)
                ?? here.FirstOrDefault();
            if (open is not null)
            {
                return Of(open);
            }
        }

        return Plain(Station.Handover, Sentence.Of("Everything is read and good: hand it back."), Sentence.Of("No line is open."), Caution.HandBack);
    }

    /// <summary>The next step of a machine that is not worth the repair.</summary>
    public static NextStep Declined { get; } = Plain(
        Station.Handover, Sentence.Of("Hand it back as it came."), Sentence.Of("It was decided not to repair it. The shop’s rule: nothing is charged."), Caution.HandBack);

    /// <summary>The next step of a trace that is still open.</summary>
    public static NextStep Of(Faults.TraceStep trace) => new(Station.Faults, null, null, trace.Do, trace.Why, [], trace.Caution);

    /// <summary>A step in plain words.</summary>
    /// <param name="station">Where it is done.</param>
    /// <param name="what">What to do.</param>
    /// <param name="why">Why.</param>
    /// <param name="caution">The caution, or null.</param>
    public static NextStep At(Station station, string what, string why, Caution? caution) =>
        Plain(station, Sentence.Of(what), Sentence.Of(why), caution);

    private static NextStep Of(JudgedLine open) => new(
        open.Line.Station,
        open.Line.Key,
        open.Line.Label,
        open.Judgement.DoNext,
        open.Judgement.Verdict switch
        {
            Verdict.CannotTell => open.Judgement.Why.Count > 0 ? open.Judgement.Why[0] : Sentence.None,
            Verdict.NotGood => Sentence.Of($"{open.Judgement.Word}. {open.Line.Target.Text}".TrimEnd(), [.. open.Line.Target.Quantities]),
            _ => Sentence.Of("Should be " + open.Line.Target.Text + ".", [.. open.Line.Target.Quantities]),
        },
        open.Judgement.Answers,
        open.Line.Caution);

    private static NextStep Plain(Station station, Sentence what, Sentence why, Caution? caution) =>
        new(station, null, null, what, why, [], caution);
}
