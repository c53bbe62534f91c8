namespace BlueDawn.Core.Shop;

/// <summary>What somebody can be allowed to do. What is on no list of a role is not allowed to it.</summary>
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

/// <summary>The roles people have, each a list of what it may do. A role that is not known may do nothing.</summary>
public static class Roles
{
    /// <summary>Works at the bench.</summary>
    public const string Technician = "technician";

    /// <summary>All that a technician may, and signs.</summary>
    public const string Lead = "lead";

    /// <summary>Checks in, answers owners, changes promised days; takes no readings.</summary>
    public const string FrontDesk = "front-desk";

    private static readonly Dictionary<string, IReadOnlyList<Permission>> Lists = new()
    {
        [Technician] =
        [
            Permission.Look,
            Permission.CheckIn,
            Permission.ChangeTrays,
            Permission.WorkAtTheBench,
            Permission.HandBack,
            Permission.MakeSheets,
        ],
        [Lead] =
        [
            Permission.Look,
            Permission.CheckIn,
            Permission.ChangeTrays,
            Permission.WorkAtTheBench,
            Permission.HandBack,
            Permission.Sign,
            Permission.ImportCatalogue,
            Permission.ManagePeople,
            Permission.MakeSheets,
            Permission.ManageShop,
        ],
        [FrontDesk] = [Permission.Look, Permission.CheckIn, Permission.ChangeTrays],
    };

    /// <summary>All roles.</summary>
    public static IReadOnlyCollection<string> All => Lists.Keys;

    /// <summary>What a role may do; nothing when it is not known.</summary>
    /// <param name="role">The role's name.</param>
    public static IReadOnlyList<Permission> Allow(string? role) => role is not null && Lists.TryGetValue(role, out var list) ? list : [];
}
