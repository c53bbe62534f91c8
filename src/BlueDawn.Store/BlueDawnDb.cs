using System.Text.Json;
using BlueDawn.Core.Catalogue;
using BlueDawn.Store.Carburetors;
using BlueDawn.Store.Catalogue;
using BlueDawn.Store.Cleaning;
using BlueDawn.Store.Intake;
using BlueDawn.Store.Logbook;
using BlueDawn.Store.People;
using BlueDawn.Store.Stock;
using BlueDawn.Store.Trays;
using Microsoft.AspNetCore.DataProtection.EntityFrameworkCore;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Identity.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.ChangeTracking;
using Microsoft.EntityFrameworkCore.Metadata;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace BlueDawn.Store;

/// <summary>The shop's book in PostgreSQL.</summary>
public sealed class BlueDawnDb(DbContextOptions<BlueDawnDb> options)
    : IdentityDbContext<Person, IdentityRole<Guid>, Guid>(options),
        IDataProtectionKeyContext
{
    /// <summary>Trays, on the bench and handed back.</summary>
    public DbSet<Tray> Trays => Set<Tray>();

    /// <summary>Causes the shop has confirmed, counted by a trigger.</summary>
    public DbSet<ClosedTraceRow> ClosedTraces => Set<ClosedTraceRow>();

    /// <summary>Owners.</summary>
    public DbSet<Owner> Owners => Set<Owner>();

    /// <summary>Machines.</summary>
    public DbSet<Machine> Machines => Set<Machine>();

    /// <summary>Spec sheets.</summary>
    public DbSet<SpecSheetRow> SpecSheets => Set<SpecSheetRow>();

    /// <summary>What is sold: kits, parts, assortments, carburetors.</summary>
    public DbSet<ItemRow> Items => Set<ItemRow>();

    /// <summary>Parts with certain features, shared by the items they are in.</summary>
    public DbSet<PartVariant> PartVariants => Set<PartVariant>();

    /// <summary>What is in the items.</summary>
    public DbSet<ItemContent> ItemContents => Set<ItemContent>();

    /// <summary>What the items are listed for.</summary>
    public DbSet<ItemFit> ItemFits => Set<ItemFit>();

    /// <summary>Numbers that took another's place.</summary>
    public DbSet<SupersessionRow> Supersessions => Set<SupersessionRow>();

    /// <summary>Suppliers.</summary>
    public DbSet<SupplierRow> Suppliers => Set<SupplierRow>();

    /// <summary>What suppliers ask.</summary>
    public DbSet<OfferRow> Offers => Set<OfferRow>();

    /// <summary>How makers write the day a carburetor was made.</summary>
    public DbSet<DateCodeRow> DateCodes => Set<DateCodeRow>();

    /// <summary>Carburetors kept for parts.</summary>
    public DbSet<DonorRow> Donors => Set<DonorRow>();

    /// <summary>Parts taken off them; append-only.</summary>
    public DbSet<DonorTaking> DonorTakings => Set<DonorTaking>();

    /// <summary>What the shop fitted before it kept its book here.</summary>
    public DbSet<EarlierReturns> EarlierReturns => Set<EarlierReturns>();

    /// <summary>Stock moves; append-only.</summary>
    public DbSet<StockMove> StockMoves => Set<StockMove>();

    /// <summary>What the stock moves come to, by item.</summary>
    public DbSet<ShelfRow> ShelfRows => Set<ShelfRow>();

    /// <summary>The logbook; append-only.</summary>
    public DbSet<LogbookEntry> LogbookEntries => Set<LogbookEntry>();

    /// <summary>What happened at the baths; append-only.</summary>
    public DbSet<BathEventRow> BathEvents => Set<BathEventRow>();

    /// <summary>Photos of trays.</summary>
    public DbSet<Photo> Photos => Set<Photo>();

    /// <summary>The shop's defaults; one row.</summary>
    public DbSet<ShopRow> Shop => Set<ShopRow>();

    /// <summary>What was changed about the shop itself; append-only.</summary>
    public DbSet<ShopChange> ShopChanges => Set<ShopChange>();

    /// <summary>Versions of what the shop knows; append-only.</summary>
    public DbSet<KnowledgeVersion> KnowledgeVersions => Set<KnowledgeVersion>();

    /// <summary>Devices on which somebody is signed in.</summary>
    public DbSet<DeviceSession> Sessions => Set<DeviceSession>();

    /// <summary>Shared devices on which people sign in by PIN.</summary>
    public DbSet<SharedBench> SharedBenches => Set<SharedBench>();

    /// <summary>Tries at the door, counted.</summary>
    public DbSet<SignInTry> SignInTries => Set<SignInTry>();

    /// <summary>Imports that are going on.</summary>
    public DbSet<ImportJob> ImportJobs => Set<ImportJob>();

    /// <summary>The files of imports that are going on, in pieces.</summary>
    public DbSet<ImportPiece> ImportPieces => Set<ImportPiece>();

    /// <summary>Keys that sign-in cookies are protected with, so that a restart signs nobody out.</summary>
    public DbSet<DataProtectionKey> DataProtectionKeys => Set<DataProtectionKey>();

    /// <summary>Saves; stock moves are added to the running sum of the shelf in the same transaction.</summary>
    public override async Task<int> SaveChangesAsync(bool acceptAllChangesOnSuccess, CancellationToken cancellationToken = default)
    {
        var moves = ChangeTracker
            .Entries<StockMove>()
            .Where(entry => entry.State == EntityState.Added)
            .Select(entry => entry.Entity)
            .ToList();
        if (moves.Count == 0)
        {
            return await base.SaveChangesAsync(acceptAllChangesOnSuccess, cancellationToken);
        }

        await using var own = Database.CurrentTransaction is null ? await Database.BeginTransactionAsync(cancellationToken) : null;
        var written = await base.SaveChangesAsync(acceptAllChangesOnSuccess, cancellationToken);
        await Shelf.SumAsync(this, moves, cancellationToken);
        if (own is not null)
        {
            await own.CommitAsync(cancellationToken);
        }

        return written;
    }

    /// <summary>A number or a telephone number without spaces, dots, dashes and slashes, in capitals; the database works it out, and
    /// has indexes on it.</summary>
    /// <param name="text">As it was written.</param>
    /// <exception cref="NotSupportedException">Outside a query.</exception>
    public static string Tidy(string text) => throw new NotSupportedException($"“{text}” is tidied by the database only.");

    /// <inheritdoc/>
    protected override void OnModelCreating(ModelBuilder builder)
    {
        base.OnModelCreating(builder);
        builder.HasDbFunction(() => Tidy("")).HasName("tidy");
        builder.Entity<Person>().ToTable("people");
        builder.Entity<Person>().Property(person => person.Units).HasConversion<string>();
        builder.Entity<IdentityRole<Guid>>().ToTable("roles");
        builder.Entity<IdentityUserRole<Guid>>().ToTable("person_roles");
        builder.Entity<IdentityUserClaim<Guid>>().ToTable("person_claims");
        builder.Entity<IdentityUserLogin<Guid>>().ToTable("person_logins");
        builder.Entity<IdentityUserToken<Guid>>().ToTable("person_tokens");
        builder.Entity<IdentityRoleClaim<Guid>>().ToTable("role_claims");

        builder.Entity<DeviceSession>(session =>
        {
            session.ToTable("sessions");
            session.HasOne<Person>().WithMany().HasForeignKey(s => s.PersonId);
            session.HasIndex(s => s.PersonId);
        });
        builder.Entity<SignInTry>().ToTable("sign_in_tries").HasKey(one => one.Key);

        builder.HasSequence<int>("tray_numbers").StartsAt(1);
        builder.Entity<Tray>(tray =>
        {
            tray.Property(t => t.Number).HasDefaultValueSql("nextval('tray_numbers')");
            tray.HasIndex(t => t.Number).IsUnique();
            tray.HasIndex(t => t.Number, "ix_trays_open").HasDatabaseName("ix_trays_open").HasFilter("waits_for <> 'HandedBack'");
            tray.HasIndex(t => t.Number, "ix_trays_handed_back")
                .HasDatabaseName("ix_trays_handed_back")
                .HasFilter("waits_for = 'HandedBack'");
            tray.HasIndex(t => t.Id, "ix_trays_in_bath").HasDatabaseName("ix_trays_in_bath").HasFilter("in_bath");
            // Kept by a trigger as well.
            tray.Property(t => t.InBath).HasDefaultValue(false).Metadata.SetAfterSaveBehavior(PropertySaveBehavior.Ignore);
            tray.Property(t => t.WaitsFor).HasConversion<string>();
            tray.Property(t => t.Family).HasConversion<string>();
            tray.Property(t => t.Engine).HasConversion<string>();
            tray.Property(t => t.Choke).HasConversion<string>();
            AsJson(tray.Property(t => t.Rules));
            AsJson(tray.Property(t => t.Story));
            AsJson(tray.Property(t => t.Fitting));
            tray.Property(t => t.OwnerLimit).HasPrecision(12, 2);
            tray.Property(t => t.MachineWorth).HasPrecision(12, 2);
            tray.HasIndex(t => new { t.MachineId, t.Number });
            tray.Property(t => t.Version).IsConcurrencyToken();
            // Kept by a trigger: whoever reads it sees it, nobody writes it.
            tray.Property(t => t.Revision).HasDefaultValue(0).Metadata.SetAfterSaveBehavior(PropertySaveBehavior.Ignore);
            tray.HasOne(t => t.Spec).WithMany().HasForeignKey(t => new { t.SpecCode, t.SpecIssue });
        });
        builder.Entity<ClosedTraceRow>(closed =>
        {
            closed
                .ToTable("closed_traces")
                .HasKey(c => new
                {
                    c.Family,
                    c.SpecCode,
                    c.Cause,
                });
            closed.Property(c => c.Family).HasConversion<string>();
        });
        builder.Entity<Owner>(owner =>
        {
            // By the letters alone: so an index finds what begins with some of them, and lists them in order.
            owner.Property(o => o.Folded).UseCollation("C");
            owner.HasIndex(o => o.Folded);
            owner.HasIndex(o => o.Near).HasMethod("gin");
        });
        builder.Entity<SpecSheetRow>(sheet =>
        {
            sheet.ToTable("spec_sheets").HasKey(s => new { s.Code, s.Issue });
            sheet.HasIndex(s => s.Code).IsUnique().HasFilter("current");
            AsJson(sheet.Property(s => s.Sheet));
            sheet.Property(s => s.Version).IsRowVersion();
        });
        builder.Entity<ShopChange>(change =>
        {
            change.ToTable("shop_changes");
            change.Property(c => c.Id).ValueGeneratedNever();
            change.HasIndex(c => new { c.About, c.At });
        });
        builder.Entity<KnowledgeVersion>(version =>
        {
            version.ToTable("knowledge_versions").HasKey(v => v.Number);
            version.Property(v => v.Number).ValueGeneratedNever();
            AsJson(version.Property(v => v.Changes));
        });
        builder.Entity<ShopRow>(shop =>
        {
            shop.ToTable("shop");
            shop.Property(s => s.Id).ValueGeneratedNever();
            AsJson(shop.Property(s => s.Defaults));
            shop.Property(s => s.Version).IsRowVersion();
        });
        BuildCatalogue(builder);
        BuildStock(builder);
        builder.Entity<BathEventRow>(happened =>
        {
            happened.ToTable("bath_events");
            happened.HasOne<Tray>().WithMany().HasForeignKey(e => e.TrayId);
            happened.HasIndex(e => new { e.Bath, e.At });
            happened.HasIndex(e => e.At);
            happened.Property(e => e.Kind).HasConversion<string>();
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
            AsJson(entry.Property(e => e.Note));
            entry.OwnsOne(
                e => e.Old,
                old =>
                {
                    old.Property(o => o.LineKey).HasColumnName("line_key");
                    old.Property(o => o.Finding).HasColumnName("finding");
                    AsJson(old.Property(o => o.Typed)).HasColumnName("typed");
                    AsJson(old.Property(o => o.Reading)).HasColumnName("reading");
                    AsJson(old.Property(o => o.Trace)).HasColumnName("trace");
                    AsJson(old.Property(o => o.OldPart)).HasColumnName("old_part");
                    AsJson(old.Property(o => o.Ledger)).HasColumnName("ledger");
                    AsJson(old.Property(o => o.Cleaning)).HasColumnName("cleaning");
                }
            );
            entry.Navigation(e => e.Old).IsRequired();
            entry.Property(e => e.Report).HasColumnType("jsonb");
        });
    }

    private static void BuildCatalogue(ModelBuilder builder)
    {
        builder.HasPostgresExtension("pg_trgm");
        builder.Entity<ImportJob>(job =>
        {
            job.Property(j => j.File).HasConversion<string>();
            job.Property(j => j.State).HasConversion<string>();
            job.Property(j => j.Phase).HasConversion<string>();
            AsJson(job.Property(j => j.Report));
        });
        builder.Entity<ImportPiece>(piece =>
        {
            piece.HasKey(p => new { p.JobId, p.Place });
            piece.HasOne<ImportJob>().WithMany().HasForeignKey(p => p.JobId);
        });
        builder.Entity<ItemRow>(item =>
        {
            item.ToTable("catalogue_items");
            item.HasIndex(i => i.Number).IsUnique();
            item.Property(i => i.Kind).HasConversion(kind => CatalogueCsv.Write(kind), text => CatalogueCsv.ReadKind(text)!.Value);
            item.HasMany(i => i.Contents).WithOne().HasForeignKey(content => content.ItemId);
            item.HasMany(i => i.Fits).WithOne().HasForeignKey(fit => fit.ItemId);
            item.HasMany(i => i.Offers).WithOne().HasForeignKey(offer => offer.ItemId);
        });
        builder.Entity<PartVariant>().HasIndex(variant => new { variant.Part, variant.Features }).IsUnique();
        builder.Entity<ItemContent>(content =>
        {
            content.HasKey(c => new { c.ItemId, c.VariantId });
            content.HasOne(c => c.Variant).WithMany().HasForeignKey(c => c.VariantId);
        });
        builder.Entity<ItemFit>(fit =>
        {
            fit.HasKey(f => new
            {
                f.ItemId,
                f.Kind,
                f.Number,
            });
            fit.Property(f => f.Kind)
                .HasConversion(
                    kind => kind == MarkKind.Stamp ? "stamp" : "plate",
                    text => text == "stamp" ? MarkKind.Stamp : MarkKind.Plate
                );
            fit.HasIndex(f => f.Folded);
        });
        builder.Entity<SupersessionRow>().ToTable("supersessions").HasKey(row => row.Old);
        builder.Entity<SupplierRow>(supplier =>
        {
            supplier.ToTable("suppliers").HasKey(s => s.Name);
            supplier.Property(s => s.Freight).HasPrecision(12, 2);
        });
        builder.Entity<OfferRow>(offer =>
        {
            offer.ToTable("offers").HasKey(o => new { o.Supplier, o.ItemId });
            offer.HasOne<SupplierRow>().WithMany().HasForeignKey(o => o.Supplier);
            offer.Property(o => o.PackPrice).HasPrecision(12, 2);
        });
        builder.Entity<DateCodeRow>(code =>
        {
            code.ToTable("date_codes").HasKey(c => c.Maker);
            AsJson(code.Property(c => c.Code));
        });
    }

    private static void BuildStock(ModelBuilder builder)
    {
        builder.Entity<StockMove>(move =>
        {
            move.HasOne<ItemRow>().WithMany().HasForeignKey(m => m.ItemId);
            move.HasOne<Tray>().WithMany().HasForeignKey(m => m.TrayId);
            move.HasOne<DonorRow>().WithMany().HasForeignKey(m => m.DonorId);
            move.Property(m => m.Kind).HasConversion<string>();
            move.HasIndex(m => m.ItemId);
            move.HasIndex(m => m.At);
        });
        builder.Entity<ShelfRow>(row =>
        {
            row.ToTable("shelf");
            row.HasKey(r => r.ItemId);
            row.HasOne<ItemRow>().WithOne().HasForeignKey<ShelfRow>(r => r.ItemId);
        });
        builder.Entity<DonorRow>(donor =>
        {
            donor.ToTable("donors");
            AsJson(donor.Property(d => d.Parts));
        });
        builder.Entity<DonorTaking>(taking =>
        {
            taking.HasOne<DonorRow>().WithMany().HasForeignKey(t => t.DonorId);
            taking.HasOne<Tray>().WithMany().HasForeignKey(t => t.TrayId);
        });
        builder.Entity<EarlierReturns>(returns =>
        {
            returns.ToTable("earlier_returns").HasKey(r => r.Option);
            returns.Property(r => r.Option).HasConversion<string>();
        });
    }

    private static PropertyBuilder<T> AsJson<T>(PropertyBuilder<T> property) =>
        property
            .HasColumnType("jsonb")
            .HasConversion(
                value => JsonSerializer.Serialize(value, StoreJson.Options),
                text => JsonSerializer.Deserialize<T>(text, StoreJson.Options)!,
                new ValueComparer<T>(
                    (a, b) => JsonSerializer.Serialize(a, StoreJson.Options) == JsonSerializer.Serialize(b, StoreJson.Options),
                    value => JsonSerializer.Serialize(value, StoreJson.Options).GetHashCode(StringComparison.Ordinal),
                    value => value
                )
            );
}
