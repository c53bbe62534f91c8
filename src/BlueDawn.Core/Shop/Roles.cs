using System.Diagnostics.CodeAnalysis;
using System.Text.Json.Serialization;

namespace BlueDawn.Core.Shop;

/// <summary>What somebody can be allowed to do. What is on no list of a role is not allowed to it.</summary>
[SuppressMessage("Naming", "CA1711", Justification = "It is what the field calls it; no class of the framework is meant.")]
public enum Permission
{
    /// <summary>Look at trays, stock and reports.</summary>
    Look,

    /// <summary>Check machines in and photograph them.</summary>
    CheckIn,

    /// <summary>Change what stands on a tray: promised day, what it waits for, what the owner says and agreed to.</summary>
    ChangeTrays,

    /// <summary>Record readings, trace, strip, clean, set, build, prove, decide what to fit, move stock.</summary>
    WorkAtTheBench,

    /// <summary>Hand a tray back to its owner.</summary>
    HandBack,

    /// <summary>Sign for what is handed back with something open.</summary>
    Sign,

    /// <summary>Import into the catalogue.</summary>
    ImportCatalogue,

    /// <summary>Add people, give them roles and codes, lock them out.</summary>
    ManagePeople,

    /// <summary>Make spec sheets and new issues of them.</summary>
    MakeSheets,

    /// <summary>Retire spec sheets, change the shop's name, its rules and defaults.</summary>
    ManageShop,
}

/// <summary>A role somebody has.</summary>
public enum Role
{
    /// <summary>Works at the bench.</summary>
    [JsonStringEnumMemberName("technician")]
    Technician,

    /// <summary>All that a technician may, and signs.</summary>
    [JsonStringEnumMemberName("lead")]
    Lead,

    /// <summary>Checks in, answers owners, changes promised days; takes no readings.</summary>
    [JsonStringEnumMemberName("front-desk")]
    FrontDesk,
}

/// <summary>What a role is called and may do.</summary>
/// <param name="Role">The role.</param>
/// <param name="Name">Its name in the store and on the wire, never changed.</param>
/// <param name="Label">Its name on the screen.</param>
/// <param name="Permissions">What it may do.</param>
public sealed record RoleEntry(Role Role, string Name, string Label, IReadOnlyList<Permission> Permissions);

/// <summary>The roles people have, each a list of what it may do. A new role is one value and one row here.</summary>
public static class Roles
{
    /// <summary>All roles, in the order they are offered.</summary>
    public static IReadOnlyList<RoleEntry> All { get; } =
    [
        Entry(
            Role.Technician,
            "technician",
            "Technician",
            Permission.Look,
            Permission.CheckIn,
            Permission.ChangeTrays,
            Permission.WorkAtTheBench,
            Permission.HandBack,
            Permission.MakeSheets
        ),
        Entry(Role.Lead, "lead", "Lead", Enum.GetValues<Permission>()),
        Entry(Role.FrontDesk, "front-desk", "Front desk", Permission.Look, Permission.CheckIn, Permission.ChangeTrays),
    ];

    /// <summary>The entry of a role.</summary>
    /// <param name="role">The role.</param>
    public static RoleEntry Of(Role role) => All.Single(entry => entry.Role == role);

    /// <summary>The entry of a role by its name in the store; null when it is not known.</summary>
    /// <param name="name">Its name.</param>
    public static RoleEntry? Find(string? name) => All.FirstOrDefault(entry => entry.Name == name);

    /// <summary>What a role may do, by its name in the store; nothing when it is not known.</summary>
    /// <param name="name">Its name.</param>
    public static IReadOnlyList<Permission> Allow(string? name) => Find(name)?.Permissions ?? [];

    /// <summary>What a role may do.</summary>
    /// <param name="role">The role.</param>
    public static IReadOnlyList<Permission> Allow(Role role) => Of(role).Permissions;

    private static RoleEntry Entry(Role role, string name, string label, params IReadOnlyList<Permission> permissions) =>
        new(role, name, label, permissions);
}
