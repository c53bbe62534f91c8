using System.Globalization;
using System.Text.Json.Serialization;
using BlueDawn.Core.Parts;

namespace BlueDawn.Core.Kits;

/// <summary>How often something fitted came back.</summary>
/// <param name="Option">What was fitted.</param>
/// <param name="DefaultShare">The share the shop starts from, 0 to 1.</param>
/// <param name="DefaultWeight">How many fitted ones that share counts as.</param>
/// <param name="Fitted">How many the shop has fitted and handed back.</param>
/// <param name="CameBack">How many of those came back.</param>
public sealed record ReturnRate(FitOption Option, double DefaultShare, double DefaultWeight, int Fitted, int CameBack)
{
    /// <summary>
    /// The chance that the next one comes back: the mean of a beta distribution that starts from the shop's default and
    /// has learned from its returns (any textbook on Bayesian inference: beta-binomial).
    /// </summary>
    public double Share => (DefaultShare * DefaultWeight + CameBack) / (DefaultWeight + Fitted);
}

/// <summary>What one option takes, before the sums.</summary>
/// <param name="Option">Which option.</param>
/// <param name="What">What would be fitted or done, in words.</param>
/// <param name="PartsMoney">What the parts cost.</param>
/// <param name="Minutes">Work at the bench, in minutes.</param>
/// <param name="WaitDays">Days until the parts are there; 0 from the shelf.</param>
/// <param name="Obstacle">Why it cannot be done, or null when it can.</param>
public sealed record FitOffer(FitOption Option, string What, decimal PartsMoney, double Minutes, int WaitDays, string? Obstacle)
{
    /// <summary>An option that cannot be taken.</summary>
    public static FitOffer Not(FitOption option, string obstacle) => new(option, "", 0, 0, 0, obstacle);

    /// <summary>Whether it may be advised: what leaves a worn part in is chosen by hand.</summary>
    [JsonIgnore]
    public bool Advisable { get; init; } = true;

    /// <summary>Whether it renews what is marked to be renewed.</summary>
    [JsonIgnore]
    public bool Renews => Option is not FitOption.CleanAndRefit;
}

/// <summary>What the sums go by.</summary>
/// <param name="LabourPerHour">The shop's hourly rate.</param>
/// <param name="ComebackMinutes">Minutes lost on every comeback besides doing the work again.</param>
/// <param name="InspectMinutes">Minutes already spent on a machine that is declined.</param>
/// <param name="WorthShare">Share of a machine's worth that a repair may cost, 0 to 1.</param>
/// <param name="OwnerLimit">What the owner agreed to spend, or null.</param>
/// <param name="MachineWorth">What the machine would sell for, or null.</param>
/// <param name="DaysToPromise">Days until the promised day; negative when it is past.</param>
/// <param name="LatePerDay">What a day past the promised day is taken to cost when nothing is in time.</param>
public sealed record FitTerms(
    decimal LabourPerHour,
    double ComebackMinutes,
    double InspectMinutes,
    decimal WorthShare,
    decimal? OwnerLimit,
    decimal? MachineWorth,
    int DaysToPromise,
    decimal LatePerDay
)
{
    /// <summary>The most that makes sense on this machine, or null when its worth is not known.</summary>
    public decimal? WorthLimit => MachineWorth * WorthShare;
}

/// <summary>One line of an option's sum.</summary>
/// <param name="Label">What it is.</param>
/// <param name="Money">How much.</param>
/// <param name="How">How it comes about.</param>
public sealed record SumLine(string Label, decimal Money, string How);

/// <summary>An option worked out in full.</summary>
/// <param name="Option">Which option.</param>
/// <param name="What">What would be fitted or done.</param>
/// <param name="Obstacle">Why it cannot be done, or null.</param>
/// <param name="PartsMoney">Parts.</param>
/// <param name="Minutes">Work in minutes.</param>
/// <param name="LabourMoney">Work in money.</param>
/// <param name="OwnerPays">What the owner is charged.</param>
/// <param name="WaitDays">Days to wait for parts.</param>
/// <param name="DaysLate">Days past the promised day; 0 when in time.</param>
/// <param name="ComebackShare">Chance that it comes back, 0 to 1.</param>
/// <param name="ExpectedMoney">Cost with the comeback that is to be expected.</param>
/// <param name="OverOwnerLimit">True when it is more than the owner agreed to.</param>
/// <param name="OverWorth">True when it is more than the machine is worth to mend.</param>
/// <param name="Sum">The arithmetic, line by line.</param>
public sealed record OptionStanding(
    FitOption Option,
    string What,
    string? Obstacle,
    decimal PartsMoney,
    double Minutes,
    decimal LabourMoney,
    decimal OwnerPays,
    int WaitDays,
    int DaysLate,
    double ComebackShare,
    decimal ExpectedMoney,
    bool OverOwnerLimit,
    bool OverWorth,
    IReadOnlyList<SumLine> Sum
)
{
    /// <summary>Whether it can be done at all.</summary>
    public bool Possible => Obstacle is null;
}

/// <summary>Every option side by side and the one that is advised.</summary>
/// <param name="Options">In the order the shop lists them.</param>
/// <param name="Advised">The one advised.</param>
/// <param name="Why">Why.</param>
/// <param name="OwnerLimit">What the owner agreed to spend, or null.</param>
/// <param name="WorthLimit">The most that makes sense on this machine, or null.</param>
public sealed record FitDecision(
    IReadOnlyList<OptionStanding> Options,
    FitOption Advised,
    string Why,
    decimal? OwnerLimit,
    decimal? WorthLimit
)
{
    /// <summary>
    /// Works out every option and advises the one of least expected cost that the owner's limit, the machine's worth and
    /// the promised day allow. A late one is advised only when none is in time, a stopgap only when nothing mends the
    /// fault within the limits, declining only when nothing else is left.
    /// </summary>
    /// <param name="offers">What each option takes.</param>
    /// <param name="rates">How often each came back; an option without one never does.</param>
    /// <param name="terms">What the sums go by.</param>
    public static FitDecision Of(IReadOnlyList<FitOffer> offers, IReadOnlyList<ReturnRate> rates, FitTerms terms)
    {
        var options = offers
            .OrderBy(Place)
            .Select(offer => Work(offer, rates.FirstOrDefault(rate => rate.Option == offer.Option), terms))
            .ToList();
        var allowed = options
            .Where(option => option is { Possible: true, OverOwnerLimit: false, OverWorth: false } && option.Option != FitOption.Decline)
            .Where(option => offers.First(offer => offer.Option == option.Option).Advisable)
            .ToList();
        var mending = allowed.Where(option => option.Option != FitOption.Stopgap).ToList();
        var pool =
            mending.Any(option => option.DaysLate == 0) ? [.. mending.Where(option => option.DaysLate == 0)]
            : mending.Count > 0 ? mending
            : allowed;
        var best = pool.MinBy(option => (option.ExpectedMoney + option.DaysLate * terms.LatePerDay, option.WaitDays));
        return new FitDecision(options, best?.Option ?? FitOption.Decline, Say(best, options, terms), terms.OwnerLimit, terms.WorthLimit);
    }

    /// <summary>In the order of the list; to put it back as it is stands first where nothing is to be renewed, else before declining.</summary>
    private static int Place(FitOffer offer) =>
        offer.Option != FitOption.CleanAndRefit ? 2 * (int)offer.Option
        : offer.Advisable ? -1
        : 2 * (int)FitOption.Decline - 1;

    private static OptionStanding Work(FitOffer offer, ReturnRate? rate, FitTerms terms)
    {
        decimal Labour(double minutes) => Money((decimal)minutes / 60 * terms.LabourPerHour);
        var share = offer.Option == FitOption.Decline ? 0 : rate?.Share ?? 0;
        var labour = Labour(offer.Minutes);
        var pays = offer.Option == FitOption.Decline ? 0 : offer.PartsMoney + labour;
        var again = offer.PartsMoney + labour + Labour(terms.ComebackMinutes);
        var comeback = Money((decimal)share * again);
        string Said(double minutes) =>
            string.Create(CultureInfo.InvariantCulture, $"{minutes:0} min at {terms.LabourPerHour:0.00} an hour");
        IReadOnlyList<SumLine> sum =
            offer.Option == FitOption.Decline
                ?
                [
                    new SumLine("Charged to the owner", 0, "the shop’s rule: a machine that is not worth the repair costs nothing"),
                    new SumLine("Work already done, at the shop’s cost", Labour(terms.InspectMinutes), Said(terms.InspectMinutes)),
                ]
                :
                [
                    new SumLine("Parts", offer.PartsMoney, offer.What),
                    new SumLine("Work", labour, Said(offer.Minutes)),
                    new SumLine(
                        "Comeback to be expected",
                        comeback,
                        string.Create(
                            CultureInfo.InvariantCulture,
                            $"{share * 100:0.#} % of {again:0.00}: parts and work again and {terms.ComebackMinutes:0} min besides; {Learned(rate)}"
                        )
                    ),
                ];
        return new OptionStanding(
            offer.Option,
            offer.What,
            offer.Obstacle,
            offer.PartsMoney,
            offer.Minutes,
            labour,
            pays,
            offer.WaitDays,
            Math.Max(0, offer.WaitDays - Math.Max(0, terms.DaysToPromise)),
            share,
            sum.Sum(line => line.Money),
            pays > terms.OwnerLimit,
            pays > terms.WorthLimit,
            sum
        );
    }

    private static string Learned(ReturnRate? rate) =>
        rate is null
            ? "no rate known"
            : string.Create(
                CultureInfo.InvariantCulture,
                $"the shop’s {rate.DefaultShare * 100:0.#} % to start from, counted as "
                    + $"{rate.DefaultWeight:0.#}, and {rate.CameBack} of {rate.Fitted} that came back"
            );

    private static decimal Money(decimal amount) => Math.Round(amount, 2, MidpointRounding.AwayFromZero);

    private static string Say(OptionStanding? best, List<OptionStanding> options, FitTerms terms)
    {
        var possible = options
            .Where(option => option.Possible && option.Option is not (FitOption.Decline or FitOption.Stopgap or FitOption.CleanAndRefit))
            .ToList();
        if (best is null)
        {
            return possible.Count == 0 ? "Nothing that mends it can be had."
                : possible.All(option => option.OverOwnerLimit)
                    ? "Everything costs more than the owner agreed to: ask the owner, or leave it."
                : terms.WorthLimit is not null && possible.All(option => option.OverWorth)
                    ? "Everything costs more than the machine is worth to mend."
                : "Nothing is within both the owner’s limit and the machine’s worth.";
        }

        if (best.Option == FitOption.Stopgap)
        {
            return "Nothing that mends the fault is within the limits. It gets by, the fault stays: say so to the owner.";
        }

        if (best.Option == FitOption.CleanAndRefit)
        {
            return "No part is marked to be renewed. Mark one above, or clean it and put it back as it is.";
        }

        var cheaperButLate = possible
            .Where(option =>
                option is { OverOwnerLimit: false, OverWorth: false } && option.ExpectedMoney < best.ExpectedMoney && option.DaysLate > 0
            )
            .ToList();
        return best.DaysLate > 0
                ? string.Create(
                    CultureInfo.InvariantCulture,
                    $"Nothing that mends it is in time. This is the cheapest with the late days counted: {best.DaysLate} "
                        + $"{(best.DaysLate == 1 ? "day" : "days")} late."
                )
            : cheaperButLate.Count > 0 ? "Cheapest of what is there by the promised day, comebacks counted."
            : "Cheapest, comebacks counted.";
    }
}
