using BlueDawn.Core.Bench;
using BlueDawn.Store.Intake;
using BlueDawn.Store.Worksheets;

namespace BlueDawn.Store.Trays;

/// <summary>One carburetor on the bench. Everything hangs on a tray.</summary>
public sealed class Tray
{
    /// <summary>Id made by the client, UUIDv7.</summary>
    public Guid Id { get; set; }

    /// <summary>The short number on its tag, given by the database.</summary>
    public int Number { get; set; }

    /// <summary>The machine it came off.</summary>
    public Guid MachineId { get; set; }

    /// <summary>The machine it came off.</summary>
    public Machine Machine { get; set; } = null!;

    /// <summary>Number stamped on the carburetor, as read; may be empty.</summary>
    public string StampedNumber { get; set; } = "";

    /// <summary>Code of the spec sheet it is judged by, or null.</summary>
    public string? SpecCode { get; set; }

    /// <summary>The spec sheet it is judged by, or null.</summary>
    public SpecSheetRow? Spec { get; set; }

    /// <summary>What has been decided to fit to it, or null.</summary>
    public Core.Kits.Fitting? Fitting { get; set; }

    /// <summary>What the owner agreed to spend, or null.</summary>
    public decimal? OwnerLimit { get; set; }

    /// <summary>What the machine would sell for, or null.</summary>
    public decimal? MachineWorth { get; set; }

    /// <summary>The carburetor's family.</summary>
    public Core.Worksheets.CarburetorFamily Family { get; set; }

    /// <summary>The engine it feeds, or null while it is not known.</summary>
    public Core.Worksheets.EngineKind? Engine { get; set; }

    /// <summary>Its choke, or null while it is not known.</summary>
    public Core.Worksheets.ChokeKind? Choke { get; set; }

    /// <summary>What was said and seen at check-in, or null on trays from before it was asked.</summary>
    public Core.Intake.Story? Story { get; set; }

    /// <summary>What the owner says.</summary>
    public string Complaint { get; set; } = "";

    /// <summary>The day it is promised for.</summary>
    public DateOnly PromisedDay { get; set; }

    /// <summary>What it waits for.</summary>
    public WaitsFor WaitsFor { get; set; }

    /// <summary>More about the wait, such as the day parts are due; may be empty.</summary>
    public string WaitNote { get; set; } = "";

    /// <summary>When it came in.</summary>
    public DateTimeOffset CheckedInAt { get; set; }

    /// <summary>Concurrency token: PostgreSQL's xmin.</summary>
    public uint Version { get; set; }
}
