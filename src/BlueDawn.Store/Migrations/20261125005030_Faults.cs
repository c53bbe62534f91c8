using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace BlueDawn.Store.Migrations
{
    /// <inheritdoc />
    public partial class Faults : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "choke",
                table: "trays",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "engine",
                table: "trays",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "family",
                table: "trays",
                type: "text",
                nullable: false,
                defaultValue: "FloatBowl");

            migrationBuilder.AddColumn<string>(
                name: "story",
                table: "trays",
                type: "jsonb",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "trace",
                table: "logbook_entries",
                type: "jsonb",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "photos",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    tray_id = table.Column<Guid>(type: "uuid", nullable: false),
                    jpeg = table.Column<byte[]>(type: "bytea", nullable: false),
                    width = table.Column<int>(type: "integer", nullable: false),
                    height = table.Column<int>(type: "integer", nullable: false),
                    person_id = table.Column<Guid>(type: "uuid", nullable: false),
                    person_name = table.Column<string>(type: "text", nullable: false),
                    added_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_photos", x => x.id);
                    table.ForeignKey(
                        name: "fk_photos_trays_tray_id",
                        column: x => x.tray_id,
                        principalTable: "trays",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "ix_photos_tray_id",
                table: "photos",
                column: "tray_id");

            // Shops from before faults were traced get the costs that tracing reckons with.
            migrationBuilder.Sql("""
                update shop set defaults = defaults || '{"trace": {"labourPerHour": 48, "proofMinutes": 5, "referMinutes": 240}}'::jsonb
                    where not defaults ? 'trace';
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "photos");

            migrationBuilder.DropColumn(
                name: "choke",
                table: "trays");

            migrationBuilder.DropColumn(
                name: "engine",
                table: "trays");

            migrationBuilder.DropColumn(
                name: "family",
                table: "trays");

            migrationBuilder.DropColumn(
                name: "story",
                table: "trays");

            migrationBuilder.DropColumn(
                name: "trace",
                table: "logbook_entries");
        }
    }
}
