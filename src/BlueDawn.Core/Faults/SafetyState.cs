using System.Text.Json.Serialization;

namespace BlueDawn.Core.Faults;

/// <summary>Something that must be so before a check may start.</summary>
public enum SafetyCondition
{
    /// <summary>The engine is cool to the touch.</summary>
    EngineCool,

    /// <summary>The plug lead is off and held clear.</summary>
    LeadOff,

    /// <summary>No flame or spark near, ventilated, the fuel can closed and away.</summary>
    NoFlame,

    /// <summary>Oil thinned by fuel has been changed.</summary>
    OilChanged,

    /// <summary>The oil has been read: at its mark, smelling of oil.</summary>
    OilRead,
}

/// <summary>Which conditions are met at this moment.</summary>
/// <param name="Met">Conditions that are met.</param>
/// <param name="OilThinned">Fuel was found in the oil and the oil has not been changed since.</param>
/// <param name="OilUnread">It flooded, and nobody has read the oil: a needle that leaks fills the sump.</param>
public sealed record SafetyState(IReadOnlySet<SafetyCondition> Met, bool OilThinned, bool OilUnread = false)
{
    internal const string FuelInOil = "fuel-in-oil";

    /// <summary>What has to be said of the oil before the engine runs, or null.</summary>
    [JsonIgnore]
    public (SafetyCondition Condition, string Words)? BeforeRunning =>
        OilThinned ? (SafetyCondition.OilChanged, "Fuel in the oil: drain and change it before the engine runs")
        : OilUnread
            ? (
                SafetyCondition.OilRead,
                "It floods or smokes, and a needle that leaks fills the sump: read the oil, at its mark and smelling of oil"
            )
        : null;

    /// <summary>The same with what the findings say of flooding.</summary>
    /// <param name="knowledge">The fault knowledge.</param>
    /// <param name="kind">The carburetor.</param>
    /// <param name="items">Findings as they stand.</param>
    public SafetyState After(FaultKnowledge knowledge, Carburetors.CarburetorKind kind, IReadOnlyList<EvidenceItem> items) =>
        this with
        {
            // Whatever was put right since: what ran into the sump is still there.
            OilUnread =
                knowledge.FindFinding(FuelInOil)?.Applies.Matches(kind) == true
                && items.Any(item =>
                    item.Present && knowledge.Needs.Any(need => need.Id == Need.Oil && need.OnlyWith.Contains(item.FindingId))
                )
                && !items.Any(item => item.FindingId == FuelInOil)
                && !Met.Contains(SafetyCondition.OilRead),
        };

    /// <summary>
    /// What a tray's trace notes leave behind, oldest first. A check with the engine running makes it hot again and
    /// needs the lead on: what was met before it has to be met anew.
    /// </summary>
    public static SafetyState Of(FaultKnowledge knowledge, Carburetors.CarburetorKind kind, IEnumerable<TraceNote> notes)
    {
        var met = new HashSet<SafetyCondition>();
        var thinned = false;
        var hasSump = knowledge.FindFinding(FuelInOil)?.Applies.Matches(kind) == true;
        foreach (var note in notes)
        {
            switch (note)
            {
                case SafetyNote safety:
                    met.Add(safety.Condition);
                    thinned &= safety.Condition != SafetyCondition.OilChanged;
                    break;
                case FindingsNote found:
                    if (found.CheckId is { } id && knowledge.FindCheck(id)?.State == CheckState.Running)
                    {
                        met.Remove(SafetyCondition.EngineCool);
                        met.Remove(SafetyCondition.LeadOff);
                    }

                    foreach (var answer in found.Answers.Where(answer => hasSump && answer.FindingId == FuelInOil))
                    {
                        thinned = answer.Said == Said.Present;
                    }

                    break;
            }
        }

        return new SafetyState(met, thinned);
    }

    /// <summary>What has to be so before this check, and is not yet; null when it may start.</summary>
    public (SafetyCondition Condition, string Words)? Before(Check check, FaultKnowledge knowledge)
    {
        if (check.State == CheckState.Running && BeforeRunning is { } oil)
        {
            return oil;
        }

        return knowledge.Cautions[check.CautionKey] is { Condition: { } condition, Precondition: { } words } && !Met.Contains(condition)
            ? (condition, words)
            : null;
    }
}
