namespace BlueDawn.Core.Shop;

/// <summary>A vessel of the shop that trays share.</summary>
/// <param name="Key">Stable name, such as <c>heated</c>.</param>
/// <param name="Label">What the shop calls it.</param>
/// <param name="Vessel">What kind it is.</param>
/// <param name="Baskets">How many baskets it holds.</param>
/// <param name="RoomC">Temperature it cools down to, degrees Celsius.</param>
/// <param name="TimeConstantMin">Its time constant in minutes, until its own log shows another.</param>
public sealed record Bath(string Key, string Label, Vessel Vessel, int Baskets, double RoomC, double TimeConstantMin);

/// <summary>What parts are cleaned in.</summary>
public enum Vessel
{
    /// <summary>Nothing: by hand on the bench.</summary>
    None,

    /// <summary>The heated bath.</summary>
    Heated,

    /// <summary>The cold soak tub.</summary>
    Tub,
}
