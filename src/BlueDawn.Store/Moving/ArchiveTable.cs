namespace BlueDawn.Store.Moving;

/// <summary>A table that moves with a shop.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Order">The columns its rows are written by, so that the same shop gives the same file.</param>
/// <param name="LeftOut">Columns that stay behind.</param>
public sealed record ArchiveTable(string Name, string Order, params string[] LeftOut)
{
    /// <summary>
    /// What moves, each table after those its rows name. A new table is added here or to <see cref="StaysBehind"/>; a test
    /// says so.
    /// </summary>
    public static IReadOnlyList<ArchiveTable> All { get; } =
    [
        // Nobody's password leaves the shop, nor a hash of it: everybody gets a code at the new place.
        new(
            "people",
            "id",
            "password_hash",
            "security_stamp",
            "concurrency_stamp",
            "code_hash",
            "code_until",
            "lockout_end",
            "access_failed_count",
            "door_pin_hash"
        ),
        new("person_roles", "user_id, role_id"),
        new("spec_sheets", "code, issue"),
        new("date_codes", "maker"),
        new("earlier_returns", "option"),
        // A name is folded again where it arrives.
        new("owners", "id", "folded", "near"),
        new("machines", "id", "folded"),
        new("trays", "number"),
        new("suppliers", "name"),
        new("catalogue_items", "id"),
        new("part_variants", "id"),
        new("item_contents", "item_id, variant_id"),
        new("item_fits", "item_id, kind, number"),
        new("offers", "supplier, item_id"),
        new("supersessions", "old"),
        new("donors", "id"),
        new("logbook_entries", "recorded_at, id"),
        new(Photos, "id", "jpeg"),
        new("donor_takings", "id"),
        new("stock_moves", "id"),
        new("shelf", "item_id"),
        new("bath_events", "at, id"),
        new("shop_changes", "at, id"),
        new("knowledge_versions", "number"),
    ];

    /// <summary>The table whose pictures are files of their own.</summary>
    internal const string Photos = "photos";

    /// <summary>Tables that do not move, and why.</summary>
    public static IReadOnlyDictionary<string, string> StaysBehind { get; } =
        new Dictionary<string, string>
        {
            ["shop"] = "one row, in the archive’s own heading",
            ["closed_traces"] = "counted again as the trays arrive",
            ["roles"] = "every shop has the same; who has which moves by its name",
            ["sessions"] = "who is signed in where",
            ["shared_benches"] = "devices that are trusted here",
            ["sign_in_tries"] = "who has tried to sign in lately",
            ["data_protection_keys"] = "the keys of cookies",
            ["import_jobs"] = "imports that are going on",
            ["import_pieces"] = "imports that are going on",
            ["person_claims"] = "not used",
            ["person_logins"] = "not used",
            ["person_tokens"] = "not used",
            ["role_claims"] = "not used",
        };

    /// <summary>What a row is written from and read into: roles by their name, everything else as it stands.</summary>
    internal string Select =>
        Name == "person_roles" ? "(select p.user_id, r.name as role from person_roles p join roles r on r.id = p.role_id) t" : $"{Name} t";

    /// <summary>Where its rows stand in the archive.</summary>
    internal string Path => $"tables/{Name}.jsonl";
}
