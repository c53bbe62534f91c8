using System.Text.Json.Nodes;

namespace BlueDawn.Server.Compute;

/// <summary>One worked request for each computation, in the interface's document; each is sent as it stands by a test.</summary>
internal static class Examples
{
    private static readonly Dictionary<string, string> Bodies = new(StringComparer.Ordinal)
    {
        ["jet-gauge"] = """
            {"goPinMm":0.30,"noGoPinMm":0.34,"nominalBoreMm":0.33,"toleranceMm":0.015,"pinsMm":[0.305,0.315,0.325]}
            """,
        ["float-level"] = """
            {"points":[{"angleDeg":0,"heightMm":15.2},{"angleDeg":180,"heightMm":15.2}],"nominalHeightMm":14,"toleranceMm":0.5,
            "unevennessLimitMm":0.4,"tabArmMm":8,"measuringArmMm":24}
            """,
        ["float-mass"] = """{"massG":7.1,"dryMassG":6.2,"toleranceG":0.3,"resolutionG":0.1}""",
        ["hold-test"] = """
            {"samples":[{"timeS":2,"pressureKPa":48},{"timeS":7,"pressureKPa":48},{"timeS":12,"pressureKPa":47.5}],"testPressureKPa":48,
            "windowS":10,"dropLimitKPa":1.5,"settlingS":2,"testVolumeML":20,"gaugeResolutionKPa":1}
            """,
        ["float-balance"] = """
            {"volumeML":14,"massG":6.2,"floatArmMm":26,"tabArmMm":8,"seatBoreMm":1.8,"fuelGPerML":0.7475,"supplyKPa":2.2}
            """,
        ["pop-off"] = """
            {"pressuresKPa":[0,20,40,60,80,95,70,68,85,96,71,69],"timesS":[0,1,2,3,4,5,5.2,6,7,8,8.2,9],"gaugeResolutionKPa":1}
            """,
        ["choke-opening"] = """
            {"timesS":[0,5,10,15,20,25,30],"anglesDeg":[2,2,10,30,55,74,75],"speedsRpm":[2600,2900,3000,3050,3100,3100,3100],
            "shutDeg":2,"openDeg":75}
            """,
        ["fault-trace"] = """{"family":"floatBowl","engine":"fourStroke","answers":[{"findingId":"hunts","said":"present"}]}""",
        ["measure"] = """{"text":"#70","dimension":"length"}""",
        ["stamp"] = """{"read":"41O7","onRecord":["4187","4107","9999"]}""",
        ["o-ring-squeeze"] = """{"size":"AS568-008","grooveMm":1.42}""",
        ["reorder"] = """{"usePerDay":0.05,"leadDays":6,"serviceLevel":0.95}""",
        ["clearing-tools"] = """{"boreMm":0.33,"toleranceMm":0.015}""",
        ["bath-curve"] = """
            {"samples":[{"minute":0,"temperatureC":20},{"minute":5,"temperatureC":30},{"minute":10,"temperatureC":38},{"minute":15,"temperatureC":44}]}
            """,
    };

    /// <summary>The request for an address; null where there is none.</summary>
    /// <param name="path">The address.</param>
    public static JsonNode? Of(string path) =>
        path.StartsWith("/api/compute/", StringComparison.Ordinal) && Bodies.TryGetValue(path["/api/compute/".Length..], out var body)
            ? JsonNode.Parse(body)
            : null;
}
