using System;
using Microsoft.EntityFrameworkCore.Migrations;
using Npgsql.EntityFrameworkCore.PostgreSQL.Metadata;

#nullable disable

namespace BlueDawn.Store.Migrations
{
    /// <inheritdoc />
    public partial class Catalogue : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropForeignKey(
                name: "fk_stock_moves_kits_kit_id",
                table: "stock_moves");

            migrationBuilder.DropForeignKey(
                name: "fk_trays_kits_kit_id",
                table: "trays");

            migrationBuilder.RenameColumn(
                name: "kit_id",
                table: "stock_moves",
                newName: "item_id");

            migrationBuilder.RenameIndex(
                name: "ix_stock_moves_kit_id",
                table: "stock_moves",
                newName: "ix_stock_moves_item_id");

            migrationBuilder.AlterDatabase()
                .Annotation("Npgsql:PostgresExtension:pg_trgm", ",,");

            migrationBuilder.AddColumn<string>(
                name: "fitting",
                table: "trays",
                type: "jsonb",
                nullable: true);

            migrationBuilder.AddColumn<decimal>(
                name: "machine_worth",
                table: "trays",
                type: "numeric(12,2)",
                precision: 12,
                scale: 2,
                nullable: true);

            migrationBuilder.AddColumn<decimal>(
                name: "owner_limit",
                table: "trays",
                type: "numeric(12,2)",
                precision: 12,
                scale: 2,
                nullable: true);

            migrationBuilder.AddColumn<Guid>(
                name: "donor_id",
                table: "stock_moves",
                type: "uuid",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "kind",
                table: "stock_moves",
                type: "text",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "note",
                table: "stock_moves",
                type: "text",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "old_part",
                table: "logbook_entries",
                type: "jsonb",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "catalogue_items",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    number = table.Column<string>(type: "text", nullable: false),
                    kind = table.Column<string>(type: "text", nullable: false),
                    name = table.Column<string>(type: "text", nullable: false),
                    maker = table.Column<string>(type: "text", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_catalogue_items", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "date_codes",
                columns: table => new
                {
                    maker = table.Column<string>(type: "text", nullable: false),
                    code = table.Column<string>(type: "jsonb", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_date_codes", x => x.maker);
                });

            migrationBuilder.CreateTable(
                name: "donors",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    name = table.Column<string>(type: "text", nullable: false),
                    spec_code = table.Column<string>(type: "text", nullable: true),
                    parts = table.Column<string>(type: "jsonb", nullable: false),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_donors", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "earlier_returns",
                columns: table => new
                {
                    option = table.Column<string>(type: "text", nullable: false),
                    fitted = table.Column<int>(type: "integer", nullable: false),
                    came_back = table.Column<int>(type: "integer", nullable: false),
                    source = table.Column<string>(type: "text", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_earlier_returns", x => x.option);
                });

            migrationBuilder.CreateTable(
                name: "part_variants",
                columns: table => new
                {
                    id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    part = table.Column<string>(type: "text", nullable: false),
                    features = table.Column<string>(type: "text", nullable: false),
                    uses = table.Column<int>(type: "integer", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_part_variants", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "supersessions",
                columns: table => new
                {
                    old = table.Column<string>(type: "text", nullable: false),
                    @new = table.Column<string>(name: "new", type: "text", nullable: false),
                    changed = table.Column<string>(type: "text", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_supersessions", x => x.old);
                });

            migrationBuilder.CreateTable(
                name: "suppliers",
                columns: table => new
                {
                    name = table.Column<string>(type: "text", nullable: false),
                    freight = table.Column<decimal>(type: "numeric(12,2)", precision: 12, scale: 2, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_suppliers", x => x.name);
                });

            migrationBuilder.CreateTable(
                name: "item_fits",
                columns: table => new
                {
                    item_id = table.Column<Guid>(type: "uuid", nullable: false),
                    kind = table.Column<string>(type: "text", nullable: false),
                    number = table.Column<string>(type: "text", nullable: false),
                    maker = table.Column<string>(type: "text", nullable: false),
                    folded = table.Column<string>(type: "text", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_item_fits", x => new { x.item_id, x.kind, x.number });
                    table.ForeignKey(
                        name: "fk_item_fits_catalogue_items_item_id",
                        column: x => x.item_id,
                        principalTable: "catalogue_items",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "donor_takings",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    donor_id = table.Column<Guid>(type: "uuid", nullable: false),
                    part = table.Column<string>(type: "text", nullable: false),
                    quantity = table.Column<int>(type: "integer", nullable: false),
                    tray_id = table.Column<Guid>(type: "uuid", nullable: true),
                    person_id = table.Column<Guid>(type: "uuid", nullable: false),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_donor_takings", x => x.id);
                    table.ForeignKey(
                        name: "fk_donor_takings_donors_donor_id",
                        column: x => x.donor_id,
                        principalTable: "donors",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_donor_takings_trays_tray_id",
                        column: x => x.tray_id,
                        principalTable: "trays",
                        principalColumn: "id");
                });

            migrationBuilder.CreateTable(
                name: "item_contents",
                columns: table => new
                {
                    item_id = table.Column<Guid>(type: "uuid", nullable: false),
                    variant_id = table.Column<int>(type: "integer", nullable: false),
                    quantity = table.Column<int>(type: "integer", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_item_contents", x => new { x.item_id, x.variant_id });
                    table.ForeignKey(
                        name: "fk_item_contents_catalogue_items_item_id",
                        column: x => x.item_id,
                        principalTable: "catalogue_items",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_item_contents_part_variants_variant_id",
                        column: x => x.variant_id,
                        principalTable: "part_variants",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "offers",
                columns: table => new
                {
                    supplier = table.Column<string>(type: "text", nullable: false),
                    item_id = table.Column<Guid>(type: "uuid", nullable: false),
                    pack_pieces = table.Column<int>(type: "integer", nullable: false),
                    pack_price = table.Column<decimal>(type: "numeric(12,2)", precision: 12, scale: 2, nullable: false),
                    lead_days = table.Column<int>(type: "integer", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_offers", x => new { x.supplier, x.item_id });
                    table.ForeignKey(
                        name: "fk_offers_catalogue_items_item_id",
                        column: x => x.item_id,
                        principalTable: "catalogue_items",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_offers_suppliers_supplier",
                        column: x => x.supplier,
                        principalTable: "suppliers",
                        principalColumn: "name",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "ix_stock_moves_donor_id",
                table: "stock_moves",
                column: "donor_id");

            migrationBuilder.CreateIndex(
                name: "ix_catalogue_items_number",
                table: "catalogue_items",
                column: "number",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_donor_takings_donor_id",
                table: "donor_takings",
                column: "donor_id");

            migrationBuilder.CreateIndex(
                name: "ix_donor_takings_tray_id",
                table: "donor_takings",
                column: "tray_id");

            migrationBuilder.CreateIndex(
                name: "ix_item_contents_variant_id",
                table: "item_contents",
                column: "variant_id");

            migrationBuilder.CreateIndex(
                name: "ix_item_fits_folded",
                table: "item_fits",
                column: "folded");

            migrationBuilder.CreateIndex(
                name: "ix_offers_item_id",
                table: "offers",
                column: "item_id");

            migrationBuilder.CreateIndex(
                name: "ix_part_variants_part_features",
                table: "part_variants",
                columns: new[] { "part", "features" },
                unique: true);

            // Numbers are looked up by pieces of them.
            migrationBuilder.Sql("create index ix_item_fits_folded_trigrams on item_fits using gin (folded gin_trgm_ops)");

            // Shops from before the catalogue keep their kits, what they are listed for, their prices, and what was chosen.
            migrationBuilder.Sql("""
                insert into catalogue_items (id, number, kind, name, maker)
                    select id, number, 'kit', contents->>'name', contents->>'maker' from kits;
                create temp table kit_parts on commit drop as
                    select k.id, p->>'part' as part, (p->>'quantity')::int as quantity,
                        coalesce((select string_agg(f.key || '=' || regexp_replace(f.value, '^([0-9.]+) × ([0-9.]+)$', '\1 × \2 mm'), '; ' order by f.key collate "C")
                            from jsonb_each_text(p->'features') f where f.key <> 'kind'), '') as features
                    from kits k, jsonb_array_elements(k.contents->'parts') p;
                insert into part_variants (part, features, uses) select part, features, count(*) from kit_parts group by part, features;
                insert into item_contents (item_id, variant_id, quantity)
                    select k.id, v.id, sum(k.quantity) from kit_parts k join part_variants v using (part, features) group by k.id, v.id;
                insert into item_fits (item_id, kind, maker, number, folded)
                    select distinct k.id, 'stamp', '', n, translate(upper(regexp_replace(n, '[^A-Za-z0-9]', '', 'g')), 'ODQILSBZG', '000115826')
                    from kits k, jsonb_array_elements_text(k.contents->'listedFor') n;
                insert into suppliers (name, freight) select 'Earlier price list', 0 where exists (select 1 from kits);
                insert into offers (supplier, item_id, pack_pieces, pack_price, lead_days) select 'Earlier price list', id, 1, price, 3 from kits;
                update trays t set fitting = jsonb_build_object(
                        'option', 'kit',
                        'what', k.number || ' ' || (k.contents->>'name'),
                        'items', jsonb_build_array(jsonb_build_object(
                            'number', k.number, 'name', k.contents->>'name', 'pieces', 1, 'fromShelf', t.kit_from_shelf, 'parts', k.contents->'parts')),
                        'parts', (select coalesce(jsonb_agg(p->>'part'), '[]'::jsonb) from jsonb_array_elements(k.contents->'parts') p),
                        'donorId', null,
                        'partsMoney', k.price)
                    from kits k where k.id = t.kit_id;
                alter table stock_moves disable trigger stock_moves_append_only;
                update stock_moves set
                    kind = case when pieces < 0 then 'Fitted' when tray_id is null then 'Received' else 'Returned' end,
                    pieces = abs(pieces);
                alter table stock_moves enable trigger stock_moves_append_only;
                create trigger donor_takings_append_only before update or delete or truncate on donor_takings
                    for each statement execute function refuse_change();
                update shop set defaults = defaults || '{
                    "fit": {"worthShare": 0.5, "comebackMinutes": 20, "inspectMinutes": 20, "kitMinutes": 45, "carburetorMinutes": 25, "donorMinutes": 15,
                        "returns": {"kit": 0.04, "singleParts": 0.07, "makersCarburetor": 0.03, "patternCarburetor": 0.3, "donorPart": 0.15, "makeIt": 0.1, "stopgap": 0.5},
                        "returnsWeight": 10},
                    "stock": {"serviceLevel": 0.95, "lookBackDays": 90, "latePerDay": 4}}'::jsonb
                    where not defaults ? 'fit';
                """);

            migrationBuilder.DropTable(
                name: "kits");

            migrationBuilder.DropIndex(
                name: "ix_trays_kit_id",
                table: "trays");

            migrationBuilder.DropColumn(
                name: "kit_from_shelf",
                table: "trays");

            migrationBuilder.DropColumn(
                name: "kit_id",
                table: "trays");

            migrationBuilder.AddForeignKey(
                name: "fk_stock_moves_catalogue_items_item_id",
                table: "stock_moves",
                column: "item_id",
                principalTable: "catalogue_items",
                principalColumn: "id",
                onDelete: ReferentialAction.Cascade);

            migrationBuilder.AddForeignKey(
                name: "fk_stock_moves_donors_donor_id",
                table: "stock_moves",
                column: "donor_id",
                principalTable: "donors",
                principalColumn: "id");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropForeignKey(
                name: "fk_stock_moves_catalogue_items_item_id",
                table: "stock_moves");

            migrationBuilder.DropForeignKey(
                name: "fk_stock_moves_donors_donor_id",
                table: "stock_moves");

            migrationBuilder.DropTable(
                name: "date_codes");

            migrationBuilder.DropTable(
                name: "donor_takings");

            migrationBuilder.DropTable(
                name: "earlier_returns");

            migrationBuilder.DropTable(
                name: "item_contents");

            migrationBuilder.DropTable(
                name: "item_fits");

            migrationBuilder.DropTable(
                name: "offers");

            migrationBuilder.DropTable(
                name: "supersessions");

            migrationBuilder.DropTable(
                name: "donors");

            migrationBuilder.DropTable(
                name: "part_variants");

            migrationBuilder.DropTable(
                name: "catalogue_items");

            migrationBuilder.DropTable(
                name: "suppliers");

            migrationBuilder.DropIndex(
                name: "ix_stock_moves_donor_id",
                table: "stock_moves");

            migrationBuilder.DropColumn(
                name: "fitting",
                table: "trays");

            migrationBuilder.DropColumn(
                name: "machine_worth",
                table: "trays");

            migrationBuilder.DropColumn(
                name: "owner_limit",
                table: "trays");

            migrationBuilder.DropColumn(
                name: "donor_id",
                table: "stock_moves");

            migrationBuilder.DropColumn(
                name: "kind",
                table: "stock_moves");

            migrationBuilder.DropColumn(
                name: "note",
                table: "stock_moves");

            migrationBuilder.DropColumn(
                name: "old_part",
                table: "logbook_entries");

            migrationBuilder.RenameColumn(
                name: "item_id",
                table: "stock_moves",
                newName: "kit_id");

            migrationBuilder.RenameIndex(
                name: "ix_stock_moves_item_id",
                table: "stock_moves",
                newName: "ix_stock_moves_kit_id");

            migrationBuilder.AlterDatabase()
                .OldAnnotation("Npgsql:PostgresExtension:pg_trgm", ",,");

            migrationBuilder.AddColumn<bool>(
                name: "kit_from_shelf",
                table: "trays",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<Guid>(
                name: "kit_id",
                table: "trays",
                type: "uuid",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "kits",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    contents = table.Column<string>(type: "jsonb", nullable: false),
                    number = table.Column<string>(type: "text", nullable: false),
                    price = table.Column<decimal>(type: "numeric", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_kits", x => x.id);
                });

            migrationBuilder.CreateIndex(
                name: "ix_trays_kit_id",
                table: "trays",
                column: "kit_id");

            migrationBuilder.CreateIndex(
                name: "ix_kits_number",
                table: "kits",
                column: "number",
                unique: true);

            migrationBuilder.AddForeignKey(
                name: "fk_stock_moves_kits_kit_id",
                table: "stock_moves",
                column: "kit_id",
                principalTable: "kits",
                principalColumn: "id",
                onDelete: ReferentialAction.Cascade);

            migrationBuilder.AddForeignKey(
                name: "fk_trays_kits_kit_id",
                table: "trays",
                column: "kit_id",
                principalTable: "kits",
                principalColumn: "id");
        }
    }
}
