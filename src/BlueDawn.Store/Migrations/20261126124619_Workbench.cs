using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace BlueDawn.Store.Migrations
{
    /// <inheritdoc />
    public partial class Workbench : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "part",
                table: "photos",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "cleaning",
                table: "logbook_entries",
                type: "jsonb",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "ledger",
                table: "logbook_entries",
                type: "jsonb",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "bath_events",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    bath = table.Column<string>(type: "text", nullable: false),
                    kind = table.Column<string>(type: "text", nullable: false),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    tray_id = table.Column<Guid>(type: "uuid", nullable: true),
                    tray_number = table.Column<int>(type: "integer", nullable: true),
                    basket = table.Column<int>(type: "integer", nullable: true),
                    recipe = table.Column<string>(type: "text", nullable: true),
                    minutes = table.Column<double>(type: "double precision", nullable: true),
                    temperature_c = table.Column<double>(type: "double precision", nullable: true),
                    person_name = table.Column<string>(type: "text", nullable: false),
                    person_id = table.Column<Guid>(type: "uuid", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_bath_events", x => x.id);
                    table.ForeignKey(
                        name: "fk_bath_events_trays_tray_id",
                        column: x => x.tray_id,
                        principalTable: "trays",
                        principalColumn: "id");
                });

            migrationBuilder.CreateIndex(
                name: "ix_bath_events_bath_at",
                table: "bath_events",
                columns: new[] { "bath", "at" });

            migrationBuilder.CreateIndex(
                name: "ix_bath_events_tray_id",
                table: "bath_events",
                column: "tray_id");

            migrationBuilder.Sql(
                """
                create trigger bath_events_append_only before update or delete or truncate on bath_events
                    for each statement execute function refuse_change();
                update shop set defaults = defaults || '{
                    "cleaning": {"baths": [
                        {"key": "heated", "label": "Heated bath", "vessel": "heated", "baskets": 3, "roomC": 20, "timeConstantMin": 25},
                        {"key": "tub", "label": "Soak tub", "vessel": "tub", "baskets": 4, "roomC": 20, "timeConstantMin": 60}]}}'::jsonb
                    where not defaults ? 'cleaning';
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "bath_events");

            migrationBuilder.DropColumn(
                name: "part",
                table: "photos");

            migrationBuilder.DropColumn(
                name: "cleaning",
                table: "logbook_entries");

            migrationBuilder.DropColumn(
                name: "ledger",
                table: "logbook_entries");
        }
    }
}
