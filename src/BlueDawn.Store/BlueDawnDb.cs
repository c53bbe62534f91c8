using System.Text.Json;
using BlueDawn.Store.Intake;
using BlueDawn.Store.Kits;
using BlueDawn.Store.Logbook;
using BlueDawn.Store.People;
using BlueDawn.Store.Trays;
using BlueDawn.Store.Worksheets;
using Microsoft.AspNetCore.DataProtection.EntityFrameworkCore;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Identity.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.ChangeTracking;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace BlueDawn.Store;

/// <summary>The shop's book in PostgreSQL.</summary>
public sealed class BlueDawnDb(DbContextOptions<BlueDawnDb> options)
    : IdentityDbContext<Person, IdentityRole<Guid>, Guid>(options), IDataProtectionKeyContext
{
    /// <summary>Trays, on the bench and handed back.</summary>
    public DbSet<Tray> Trays => Set<Tray>();

    /// <summary>Owners.</summary>
    public DbSet<Owner> Owners => Set<Owner>();

    /// <summary>Machines.</summary>
    public DbSet<Machine> Machines => Set<Machine>();

    /// <summary>Spec sheets.</summary>
    public DbSet<SpecSheetRow> SpecSheets => Set<SpecSheetRow>();

    /// <summary>Kits.</summary>
    public DbSet<Kit> Kits => Set<Kit>();

    /// <summary>Stock moves; append-only.</summary>
    public DbSet<StockMove> StockMoves => Set<StockMove>();

    /// <summary>The logbook; append-only.</summary>
    public DbSet<LogbookEntry> LogbookEntries => Set<LogbookEntry>();

    /// <summary>Photos of trays.</summary>
    public DbSet<Photo> Photos => Set<Photo>();

    /// <summary>The shop's defaults; one row.</summary>
    public DbSet<ShopRow> Shop => Set<ShopRow>();

    /// <summary>Keys that sign-in cookies are protected with, so that a restart signs nobody out.</summary>
    public DbSet<DataProtectionKey> DataProtectionKeys => Set<DataProtectionKey>();

    /// <inheritdoc/>
    protected override void OnModelCreating(ModelBuilder builder)
    {
        base.OnModelCreating(builder);
        builder.Entity<Person>().ToTable("people");
        builder.Entity<Person>().Property(person => person.Units).HasConversion<string>();
        builder.Entity<IdentityRole<Guid>>().ToTable("roles");
        builder.Entity<IdentityUserRole<Guid>>().ToTable("person_roles");
        builder.Entity<IdentityUserClaim<Guid>>().ToTable("person_claims");
        builder.Entity<IdentityUserLogin<Guid>>().ToTable("person_logins");
        builder.Entity<IdentityUserToken<Guid>>().ToTable("person_tokens");
        builder.Entity<IdentityRoleClaim<Guid>>().ToTable("role_claims");

        builder.HasSequence<int>("tray_numbers").StartsAt(1);
        builder.Entity<Tray>(tray =>
        {
            tray.Property(t => t.Number).HasDefaultValueSql("nextval('tray_numbers')");
            tray.HasIndex(t => t.Number).IsUnique();
            tray.HasIndex(t => t.WaitsFor);
            tray.Property(t => t.WaitsFor).HasConversion<string>();
            tray.Property(t => t.Family).HasConversion<string>();
            tray.Property(t => t.Engine).HasConversion<string>();
            tray.Property(t => t.Choke).HasConversion<string>();
            AsJson(tray.Property(t => t.Story));
            tray.HasIndex(t => t.MachineId);
            tray.Property(t => t.Version).IsRowVersion();
            tray.HasOne(t => t.Spec).WithMany().HasForeignKey(t => t.SpecCode);
        });
        builder.Entity<Owner>().HasIndex(owner => owner.Name);
        builder.Entity<SpecSheetRow>(sheet =>
        {
            sheet.ToTable("spec_sheets").HasKey(s => s.Code);
            AsJson(sheet.Property(s => s.Sheet));
        });
        builder.Entity<ShopRow>(shop =>
        {
            shop.ToTable("shop");
            shop.Property(s => s.Id).ValueGeneratedNever();
            AsJson(shop.Property(s => s.Defaults));
        });
        builder.Entity<Kit>(kit =>
        {
            kit.HasIndex(k => k.Number).IsUnique();
            AsJson(kit.Property(k => k.Contents));
        });
        builder.Entity<StockMove>(move =>
        {
            move.HasOne<Kit>().WithMany().HasForeignKey(m => m.KitId);
            move.HasOne<Tray>().WithMany().HasForeignKey(m => m.TrayId);
            move.HasIndex(m => m.KitId);
        });
        builder.Entity<Photo>(photo =>
        {
            photo.HasOne<Tray>().WithMany().HasForeignKey(p => p.TrayId);
            photo.HasIndex(p => p.TrayId);
        });
        builder.Entity<LogbookEntry>(entry =>
        {
            entry.HasOne<Tray>().WithMany().HasForeignKey(e => e.TrayId);
            entry.HasOne<LogbookEntry>().WithMany().HasForeignKey(e => e.SupersedesId);
            entry.HasIndex(e => new { e.TrayId, e.TakenAt });
            entry.HasIndex(e => e.SupersedesId).IsUnique();
            entry.Property(e => e.Kind).HasConversion<string>();
            AsJson(entry.Property(e => e.Typed));
            AsJson(entry.Property(e => e.Reading));
            AsJson(entry.Property(e => e.Trace));
            entry.Property(e => e.Report).HasColumnType("jsonb");
        });
    }

    private static void AsJson<T>(PropertyBuilder<T> property) =>
        property.HasColumnType("jsonb").HasConversion(
            value => JsonSerializer.Serialize(value, StoreJson.Options),
            text => JsonSerializer.Deserialize<T>(text, StoreJson.Options)!,
            new ValueComparer<T>(
                (a, b) => JsonSerializer.Serialize(a, StoreJson.Options) == JsonSerializer.Serialize(b, StoreJson.Options),
                value => JsonSerializer.Serialize(value, StoreJson.Options).GetHashCode(StringComparison.Ordinal),
                value => value));
}
