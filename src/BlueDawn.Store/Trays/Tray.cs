using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tables;
using BlueDawn.Core.Trays;
using BlueDawn.Store.Carburetors;
using BlueDawn.Store.Intake;

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

    /// <summary>Issue of that sheet, or null.</summary>
    public int? SpecIssue { get; set; }

    /// <summary>The spec sheet it is judged by, or null.</summary>
    public SpecSheetRow? Spec { get; set; }

    /// <summary>The shop's defaults it is judged by when they were changed after work on it began; null for those of today.</summary>
    public Core.Shop.ShopDefaults? Rules { get; set; }

    /// <summary>Version of the shop's knowledge it was handed back by, when that is not the one that stands; null otherwise.</summary>
    public int? KnowledgeVersion { get; set; }

    /// <summary>What has been decided to fit to it, or null.</summary>
    public Core.Parts.Fitting? Fitting { get; set; }

    /// <summary>What the owner agreed to spend, or null.</summary>
    public decimal? OwnerLimit { get; set; }

    /// <summary>What the machine would sell for, or null.</summary>
    public decimal? MachineWorth { get; set; }

    /// <summary>The carburetor's family.</summary>
    public CarburetorFamily Family { get; set; }

    /// <summary>The engine it feeds, or null while it is not known.</summary>
    public EngineKind? Engine { get; set; }

    /// <summary>Its choke, or null while it is not known.</summary>
    public ChokeKind? Choke { get; set; }

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

    /// <summary>Version of what stands on the tray: one more with each change of it. A change is decided on a version.</summary>
    public int Version { get; set; } = 1;

    /// <summary>One more with each entry of the logbook; kept by a trigger. Two answers of the same revision are the same.</summary>
    public int Revision { get; set; }

    /// <summary>Causes confirmed by its trace, for the shop's history; null while the trace is not settled. Follows from the
    /// logbook.</summary>
    public string[]? Confirmed { get; set; }

    /// <summary>Whether a basket of it is in a bath; kept by a trigger on what happens at the baths.</summary>
    public bool InBath { get; set; }

    /// <summary>Whether it has ever been handed back.</summary>
    public bool Released { get; set; }

    /// <summary>Whether it has come back after that.</summary>
    public bool CameBack { get; set; }

    /// <summary>What stands on it, as Core's rules see it.</summary>
    /// <param name="knowledge">What the bench knows.</param>
    public TrayFacts Facts(Knowledge knowledge) =>
        new(
            Number,
            new CarburetorKind(Family, Engine, Choke),
            StampedNumber,
            Spec?.Sheet,
            Fitting,
            Complaint,
            PromisedDay,
            WaitsFor,
            WaitNote,
            OwnerLimit,
            MachineWorth
        )
        {
            Complaints = StoryEvidence.Complaints(Story, Complaint, knowledge.Of<FaultKnowledge>()),
            FailsAfterMin = Story?.FailsAfterMin,
        };

    /// <summary>Takes over what stands on it after an entry.</summary>
    /// <param name="facts">What stands on it then.</param>
    public void Take(TrayFacts facts)
    {
        Released |= facts.WaitsFor == WaitsFor.HandedBack;
        if (WaitsFor == WaitsFor.HandedBack && facts.WaitsFor != WaitsFor.HandedBack)
        {
            (CameBack, KnowledgeVersion) = (true, null);
        }

        (Family, Engine, Choke) = (facts.Kind.Family, facts.Kind.Engine, facts.Kind.Choke);
        StampedNumber = facts.StampedNumber;
        SpecCode = facts.Sheet?.Code;
        SpecIssue = facts.Sheet?.Issue;
        Fitting = facts.Fitting;
        Complaint = facts.Complaint;
        PromisedDay = facts.PromisedDay;
        WaitsFor = facts.WaitsFor;
        WaitNote = facts.WaitNote;
        OwnerLimit = facts.OwnerLimit;
        MachineWorth = facts.MachineWorth;
        Version++;
    }
}
