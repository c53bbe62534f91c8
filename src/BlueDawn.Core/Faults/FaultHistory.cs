namespace BlueDawn.Core.Faults;

/// <summary>
/// What the shop itself has confirmed on carburetors like this one, and how it shifts the odds: a Beta posterior for each
/// cause, with the expert table as a prior worth <see cref="ExpertTrays"/> trays.
/// </summary>
/// <param name="Alike">Closed trays of the same spec sheet.</param>
/// <param name="AlikeConfirmed">In how many of them each cause was confirmed.</param>
/// <param name="Kin">Closed trays of the same family with another sheet, or with none.</param>
/// <param name="KinConfirmed">In how many of them each cause was confirmed.</param>
public sealed record FaultHistory(
    int Alike, IReadOnlyDictionary<string, int> AlikeConfirmed, int Kin, IReadOnlyDictionary<string, int> KinConfirmed)
{
    /// <summary>Trays the expert table is worth. Own judgement: a dozen trays of one's own outweigh it.</summary>
    public const double ExpertTrays = 12;

    /// <summary>What a tray of the same family counts against one of the same spec sheet. Own judgement.</summary>
    public const double KinShare = 0.2;

    /// <summary>No history, or history switched off.</summary>
    public static readonly FaultHistory None = new(0, new Dictionary<string, int>(), 0, new Dictionary<string, int>());

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
    public double Shift(string causeId, double expertPrior) =>
        ((ExpertTrays * expertPrior) + Confirmed(causeId)) / (ExpertTrays + Trays);
}
