using MathNet.Numerics;

namespace BlueDawn.Core.Stock;

/// <summary>When to order more of something, and why.</summary>
/// <param name="UsePerDay">Pieces used a day.</param>
/// <param name="LeadDays">Days from ordering to having it.</param>
/// <param name="ServiceLevel">How sure to be that the shelf lasts until it comes, 0 to 1.</param>
/// <param name="Point">Order when the pieces on hand and on order are down to this.</param>
/// <param name="ShareServed">How sure that really is: the chance that no more than <paramref name="Point"/> are wanted meanwhile.</param>
public sealed record Reorder(double UsePerDay, double LeadDays, double ServiceLevel, int Point, double ShareServed)
{
    private const int MostPieces = 1_000_000;

    /// <summary>
    /// The reorder point: the fewest pieces of which at most that many are wanted during the lead time with the service
    /// level's certainty, wants taken as a Poisson process (any textbook on inventory; MathNet.Numerics and printed
    /// tables agree, see the tests).
    /// </summary>
    /// <param name="usePerDay">Pieces used a day, 0 or more.</param>
    /// <param name="leadDays">Days from ordering to having it, 0 or more.</param>
    /// <param name="serviceLevel">Above 0 and below 1.</param>
    /// <exception cref="ArgumentOutOfRangeException">A value is outside its range.</exception>
    public static Reorder Of(double usePerDay, double leadDays, double serviceLevel)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(usePerDay);
        ArgumentOutOfRangeException.ThrowIfNegative(leadDays);
        ArgumentOutOfRangeException.ThrowIfLessThanOrEqual(serviceLevel, 0);
        ArgumentOutOfRangeException.ThrowIfGreaterThanOrEqual(serviceLevel, 1);
        var mean = usePerDay * leadDays;
        // The tail, not the sum below it: near certainty a sum of many terms is off by more than what is left.
        double More(int pieces) => mean == 0 ? 0 : SpecialFunctions.GammaLowerRegularized(pieces + 1, mean);
        var point = 0;
        while (More(point) > 1 - serviceLevel && point < MostPieces)
        {
            point++;
        }

        return new Reorder(usePerDay, leadDays, serviceLevel, point, 1 - More(point));
    }
}

/// <summary>How an item stands on the shelf.</summary>
public enum ShelfStanding
{
    /// <summary>Nothing on hand and nothing on order, though it is used.</summary>
    Out,

    /// <summary>Down to the reorder point.</summary>
    Reorder,

    /// <summary>Down to the reorder point, but enough is on order.</summary>
    OnItsWay,

    /// <summary>Enough.</summary>
    Enough,

    /// <summary>On hand, but not used in the time looked back on.</summary>
    Idle,
}
