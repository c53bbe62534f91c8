using System.Text.Json;
using BlueDawn.Core.Shop;
using BlueDawn.Store.Carburetors;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Store;

/// <summary>What every shop begins with: its defaults and the roles.</summary>
public static class ShopSeed
{
    private const string DefaultsFile = "reference/shop-defaults.json";

    /// <summary>The defaults every shop comes with.</summary>
    public static ShopDefaults ShippedDefaults { get; } = Read();

    /// <summary>Puts the shop's defaults and the roles in place; does nothing where they are there already.</summary>
    public static async Task EnsureAsync(BlueDawnDb db, RoleManager<IdentityRole<Guid>> roles, CancellationToken cancel)
    {
        if (!await db.Shop.AnyAsync(cancel))
        {
            db.Shop.Add(new ShopRow { Defaults = ShippedDefaults });
            await db.SaveChangesAsync(cancel);
        }

        foreach (var role in Roles.All.Select(entry => entry.Name))
        {
            if (!await roles.RoleExistsAsync(role))
            {
                await roles.CreateAsync(new IdentityRole<Guid>(role));
            }
        }
    }

    private static ShopDefaults Read()
    {
        using var stream = typeof(ShopSeed).Assembly.GetManifestResourceStream(DefaultsFile)
            ?? throw new InvalidOperationException($"{DefaultsFile} is missing from the build.");
        return JsonSerializer.Deserialize<ShopDefaults>(stream, StoreJson.Options)
            ?? throw new InvalidOperationException($"{DefaultsFile} is empty.");
    }
}
