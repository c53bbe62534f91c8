using BlueDawn.Core.Carburetors;

namespace BlueDawn.Core.Shop;

/// <summary>Traces that were closed on carburetors of one sheet, counted.</summary>
/// <param name="SpecCode">Their spec sheet, or null for those without one.</param>
/// <param name="Family">Their family.</param>
/// <param name="CauseId">A cause that was confirmed on them; null for all of them together, whatever was confirmed.</param>
/// <param name="Trays">How many trays.</param>
public sealed record ClosedTraces(string? SpecCode, CarburetorFamily Family, string? CauseId, int Trays);

/// <summary>
/// What the shop itself has confirmed on carburetors like this one, and how it shifts the odds: a Beta posterior for each
/// cause, with the expert table as a prior worth <see cref="ExpertTrays"/> trays.
/// </summary>
/// <param name="Alike">Closed trays of the same spec sheet.</param>
/// <param name="AlikeConfirmed">In how many of them each cause was confirmed.</param>
/// <param name="Kin">Closed trays of the same family with another sheet, or with none.</param>
/// <param name="KinConfirmed">In how many of them each cause was confirmed.</param>
public sealed record FaultHistory(
    int Alike,
    IReadOnlyDictionary<string, int> AlikeConfirmed,
    int Kin,
    IReadOnlyDictionary<string, int> KinConfirmed
)
{
    /// <summary>Trays the expert table is worth. Own judgement: one tray is an anecdote, thirty of one's own are worth the table.</summary>
    public const double ExpertTrays = 30;

    /// <summary>What a tray of the same family counts against one of the same spec sheet. Own judgement.</summary>
    public const double KinShare = 0.2;

    /// <summary>No history, or history switched off.</summary>
    public static readonly FaultHistory None = new(0, new Dictionary<string, int>(), 0, new Dictionary<string, int>());

    /// <summary>Counts what was confirmed on other trays.</summary>
    /// <param name="specCode">Spec sheet of the carburetor in question, or null.</param>
    /// <param name="family">Its family.</param>
    /// <param name="counts">Closed traces of other trays, counted.</param>
    public static FaultHistory Of(string? specCode, CarburetorFamily family, IEnumerable<ClosedTraces> counts)
    {
        var (alike, kin) = (0, 0);
        // In the order of their names: the same counts are the same text, wherever they come from.
        var (alikeConfirmed, kinConfirmed) = (
            new SortedDictionary<string, int>(StringComparer.Ordinal),
            new SortedDictionary<string, int>(StringComparer.Ordinal)
        );
        foreach (var count in counts.Where(count => count.Family == family))
        {
            var same = specCode is not null && count.SpecCode == specCode;
            if (count.CauseId is { } cause)
            {
                var confirmed = same ? alikeConfirmed : kinConfirmed;
                confirmed[cause] = confirmed.GetValueOrDefault(cause) + count.Trays;
            }
            else
            {
                (alike, kin) = same ? (alike + count.Trays, kin) : (alike, kin + count.Trays);
            }
        }

        return new FaultHistory(alike, alikeConfirmed, kin, kinConfirmed);
    }

    /// <summary>Every count in one text: the same text judges the same.</summary>
    public string Stamp { get; } =
        string.Join(
            ' ',
            AlikeConfirmed
                .Select(pair => $"{pair.Key}={pair.Value}")
                .Prepend($"{Alike}/{Kin}")
                .Concat(KinConfirmed.Select(pair => $"~{pair.Key}={pair.Value}"))
        );

    /// <summary>Trays that count, those of the same family by their share.</summary>
    public double Trays => Alike + (KinShare * Kin);

    /// <summary>What the shop's own trays weigh against the expert table, 0 to 1.</summary>
    public double Weight => Trays / (Trays + ExpertTrays);

    /// <summary>In how many trays that count a cause was confirmed.</summary>
    public double Confirmed(string causeId) =>
        AlikeConfirmed.GetValueOrDefault(causeId) + (KinShare * KinConfirmed.GetValueOrDefault(causeId));

    /// <summary>The prior of a cause after the shop's history: mean of Beta(E·p + n, E·(1 − p) + N − n).</summary>
    /// <param name="causeId">The cause.</param>
    /// <param name="expertPrior">Its prior by the expert table, p.</param>
    public double Shift(string causeId, double expertPrior) => ((ExpertTrays * expertPrior) + Confirmed(causeId)) / (ExpertTrays + Trays);
}
