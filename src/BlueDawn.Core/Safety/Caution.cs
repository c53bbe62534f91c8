namespace BlueDawn.Core.Safety;

/// <summary>A short caution shown where the hand is. Wording is the product's own; the dangers are common practice, no source.</summary>
/// <param name="Key">Stable name.</param>
/// <param name="Text">What to do so that nothing happens.</param>
public sealed record Caution(string Key, string Text)
{
    /// <summary>Pins and wires in small holes, spray and compressed air.</summary>
    public static readonly Caution Eyes = new("eyes", "Glasses on before spray or compressed air. Point the jet away from your face.");

    /// <summary>A pin that is forced cuts the hole.</summary>
    public static readonly Caution NeverForce = new(
        "neverForce",
        "A pin is felt, not pushed. Forced, it cuts brass and the jet is spoiled."
    );

    /// <summary>A jet that is opened on purpose.</summary>
    public static readonly Caution Emission = new(
        "emission",
        "A larger idle jet changes an emission setting, and local law may forbid it. Ask first: nothing makes the hole small again."
    );

    /// <summary>Bending the tab with the needle under it.</summary>
    public static readonly Caution OffTheNeedle = new(
        "offTheNeedle",
        "Hold the tab with pliers while you bend. Pressing on the needle marks its tip."
    );

    /// <summary>A float that may hold fuel.</summary>
    public static readonly Caution FuelInFloat = new(
        "fuelInFloat",
        "A float can hold fuel. Keep it from flame and hot iron; never solder one that has fuel in it."
    );

    /// <summary>A pocket that may hold fuel.</summary>
    public static readonly Caution FuelInPocket = new(
        "fuelInPocket",
        "Wipe the pocket dry, never blow it out: fuel goes into the eyes. Glasses on."
    );

    /// <summary>Pressure at the inlet.</summary>
    public static readonly Caution Pressure = new(
        "pressure",
        "Hand pump only, never shop air, never by mouth. Drain the fuel first, glasses on."
    );

    /// <summary>Open fuel on the bench.</summary>
    public static readonly Caution Vapour = new(
        "vapour",
        "Fuel vapour: ventilate, no flame or spark, extinguisher within reach, tray under it."
    );

    /// <summary>An engine running.</summary>
    public static readonly Caution Running = new(
        "running",
        "Outdoors or with the exhaust led out: carbon monoxide kills. What it drives is off or out of gear; hands and sleeves clear of anything that turns."
    );

    /// <summary>Handing a machine back.</summary>
    public static readonly Caution HandBack = new(
        "handBack",
        "Stop switch, throttle return and fuel tap tried before it leaves the shop. Local rules on emissions and waste fuel come first."
    );

    /// <summary>The heated bath.</summary>
    public static readonly Caution Bath = new(
        "bath",
        "Hot water and a heavy basket: tongs and gloves, lid on. Water only: petrol or solvent in a heated bath can catch fire."
    );

    /// <summary>A part in a cup of hot water.</summary>
    public static readonly Caution HotWater = new(
        "hotWater",
        "Hot water scalds: tongs, a cup that stands firm. Heat it away from fuel and its vapour."
    );

    /// <summary>The acid soak.</summary>
    public static readonly Caution Acid = new("acid", "Gloves and glasses, window open. Never near bleach. Waste by local rule.");

    /// <summary>Alcohol to drive water out.</summary>
    public static readonly Caution Alcohol = new(
        "alcohol",
        "Alcohol burns with a flame you cannot see, and methanol is poison through skin and lungs: gloves, air, no heat, castings cold."
    );

    /// <summary>Taking off parts under spring tension.</summary>
    public static readonly Caution Strip = new("strip", "Engine cool, plug lead off, fuel shut off or clamped. Glasses on: springs fly.");

    /// <summary>Hands or a gauge where the engine turns.</summary>
    public static readonly Caution LeadOff = new(
        "leadOff",
        "Plug lead off and held clear before hands go in; a spark goes to earth, away from fuel."
    );

    private static readonly Caution[] All =
    [
        Eyes,
        NeverForce,
        Emission,
        OffTheNeedle,
        FuelInFloat,
        FuelInPocket,
        Pressure,
        Vapour,
        Running,
        HandBack,
        Bath,
        HotWater,
        Acid,
        Alcohol,
        Strip,
        LeadOff,
    ];

    /// <summary>A caution by its key, or null.</summary>
    public static Caution? Find(string key) => All.FirstOrDefault(caution => caution.Key == key);
}
