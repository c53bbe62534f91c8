using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace BlueDawn.Store.Migrations
{
    /// <inheritdoc />
    public partial class SharedBenches : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<bool>(
                name: "by_pin",
                table: "sessions",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "door_pin_hash",
                table: "people",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "door_pin_tries",
                table: "people",
                type: "integer",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.CreateTable(
                name: "shared_benches",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    label = table.Column<string>(type: "text", nullable: false),
                    trusted_by = table.Column<string>(type: "text", nullable: false),
                    trusted_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_shared_benches", x => x.id);
                });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "shared_benches");

            migrationBuilder.DropColumn(
                name: "by_pin",
                table: "sessions");

            migrationBuilder.DropColumn(
                name: "door_pin_hash",
                table: "people");

            migrationBuilder.DropColumn(
                name: "door_pin_tries",
                table: "people");
        }
    }
}
