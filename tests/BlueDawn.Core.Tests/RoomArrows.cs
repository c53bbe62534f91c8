namespace BlueDawn.Core.Tests;

/// <summary>Which room of Core may know which other: the basement first, then the stations, which know no other station, Trays, which
/// knows all of them, and Pages, which shows them.</summary>
internal static class RoomArrows
{
    /// <summary>One line a room, what it knows behind the colon, in alphabetical order; an indented line goes on with the one before.</summary>
    public const string Allowed = """
        Build: Carburetors Catalogue Logbook Measures Parts Shop Stations Tables
        Carburetors: Measures Tables
        Catalogue: Carburetors Measures Tables
        Chokes: Carburetors Holding Measures Parts Safety Shop Stations Tables
        Cleaning: Carburetors Logbook Measures Parts Safety Shop Stations Tables
        Faults: Carburetors Logbook Measures Parts Safety Shop Stations Tables
        Gauging: Carburetors Logbook Measures Safety Shop Stations
        Handover: Carburetors Logbook Measures Parts Safety Shop Stations
        Holding: Carburetors Measures Stations
        Intake: Carburetors Logbook Measures Shop Stations
        Kits: Carburetors Catalogue Logbook Measures Parts Shop Stations
        Logbook:
        Measures: Tables
        Pages: Build Carburetors Catalogue Cleaning Faults Handover Intake Kits Logbook Measures Parts Safety Setting Shop Stations Tables Trays
        Parts: Carburetors Catalogue Logbook Measures Tables
        Proving: Carburetors Logbook Measures Parts Safety Shop Stations Tables
        Safety:
        Setting: Carburetors Catalogue Holding Measures Safety Shop Stations Tables
        Shop: Carburetors Measures Parts Tables
        Stations: Carburetors Logbook Measures Parts Safety Shop Tables
        Stock: Measures
        Strip: Carburetors Measures Parts Safety Shop Stations
        Tables:
        Trays: Build Catalogue Chokes Cleaning Faults Gauging Handover Intake Kits Logbook Measures Parts
            Proving Safety Setting Shop Stations Strip Tables
        """;
}
