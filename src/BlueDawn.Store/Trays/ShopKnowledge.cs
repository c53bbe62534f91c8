using BlueDawn.Core.Tables;
using BlueDawn.Core.Trays;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Store.Trays;

/// <summary>The tables of knowledge as a shop had them from some moment on. Append-only: going back is one more of them.</summary>
public sealed class KnowledgeVersion
{
    /// <summary>Counts up from 1. 0, as everything ships, has no row.</summary>
    public int Number { get; set; }

    /// <summary>From when.</summary>
    public DateTimeOffset At { get; set; }

    /// <summary>Who accepted it, by the name they had then.</summary>
    public string By { get; set; } = "";

    /// <summary>What became other, in words.</summary>
    public string What { get; set; } = "";

    /// <summary>Why.</summary>
    public string Why { get; set; } = "";

    /// <summary>Everything that is not as it ships.</summary>
    public IReadOnlyList<TableChange> Changes { get; set; } = [];
}

/// <summary>What a shop knows: every version of its tables, and which one stands.</summary>
public sealed class ShopKnowledge
{
    private readonly IReadOnlyList<IReadOnlyList<TableChange>> versions;

    private ShopKnowledge(IReadOnlyList<IReadOnlyList<TableChange>> versions, IReadOnlyList<TableProblem> problems)
    {
        this.versions = versions;
        Problems = problems;
    }

    /// <summary>As everything ships.</summary>
    public static ShopKnowledge Shipped { get; } =
        new(
            [
                [],
            ],
            []
        );

    /// <summary>The version that stands.</summary>
    public int Version => versions.Count - 1;

    /// <summary>
    /// Why the version that stands cannot be used with this version of the product, in which a table became other: then
    /// everything is judged as it ships until a lead has settled it. Empty as long as it can.
    /// </summary>
    public IReadOnlyList<TableProblem> Problems { get; }

    /// <summary>What the shop has changed, of those changes that are used.</summary>
    /// <param name="version">A version a tray keeps, or null for the one that stands.</param>
    public IReadOnlyList<TableChange> Changes(int? version = null) => versions[Math.Min(version ?? Version, Version)];

    /// <summary>What the bench knows.</summary>
    /// <param name="version">A version a tray keeps, or null for the one that stands.</param>
    public Knowledge Of(int? version = null) => Knowledge.With(Changes(version));

    /// <summary>Every version of a shop, read from its database.</summary>
    /// <param name="db">The store.</param>
    /// <param name="cancel">Cancellation.</param>
    public static async Task<ShopKnowledge> ReadAsync(BlueDawnDb db, CancellationToken cancel)
    {
        var rows = await db.KnowledgeVersions.AsNoTracking().OrderBy(version => version.Number).ToListAsync(cancel);
        var checkedRows = rows.Select(row => (row.Changes, Problems: KnowledgeEdit.Check(row.Changes))).ToList();
        return new ShopKnowledge(
            [
                [],
                .. checkedRows.Select(row => row.Problems.Count == 0 ? row.Changes : []),
            ],
            checkedRows.LastOrDefault().Problems ?? []
        );
    }
}

/// <summary>What a server has read of its shop's knowledge; it is read again when another version stands.</summary>
public sealed class KnowledgeMemory
{
    private volatile ShopKnowledge last = ShopKnowledge.Shipped;

    /// <summary>What the shop knows, for those who have not read its row.</summary>
    /// <param name="db">The store.</param>
    /// <param name="cancel">Cancellation.</param>
    public async ValueTask<ShopKnowledge> OfAsync(BlueDawnDb db, CancellationToken cancel) =>
        await OfAsync(db, await db.Shop.Select(shop => shop.KnowledgeVersion).SingleAsync(cancel), cancel);

    /// <summary>What the shop knows.</summary>
    /// <param name="db">The store.</param>
    /// <param name="version">The version that stands, as the shop's row says.</param>
    /// <param name="cancel">Cancellation.</param>
    public async ValueTask<ShopKnowledge> OfAsync(BlueDawnDb db, int version, CancellationToken cancel) =>
        last is var known && known.Version == version ? known : last = await ShopKnowledge.ReadAsync(db, cancel);
}
