using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace BlueDawn.Store.Migrations
{
    /// <inheritdoc />
    public partial class OwnShop : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropForeignKey(
                name: "fk_trays_spec_sheets_spec_code",
                table: "trays");

            migrationBuilder.DropIndex(
                name: "ix_trays_spec_code",
                table: "trays");

            migrationBuilder.DropPrimaryKey(
                name: "pk_spec_sheets",
                table: "spec_sheets");

            migrationBuilder.AddColumn<int>(
                name: "spec_issue",
                table: "trays",
                type: "integer",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "issue",
                table: "spec_sheets",
                type: "integer",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<bool>(
                name: "current",
                table: "spec_sheets",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<DateTimeOffset>(
                name: "made_at",
                table: "spec_sheets",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "made_by",
                table: "spec_sheets",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "why",
                table: "spec_sheets",
                type: "text",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<bool>(
                name: "demo",
                table: "shop",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "name",
                table: "shop",
                type: "text",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "time_zone",
                table: "shop",
                type: "text",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "code_hash",
                table: "people",
                type: "text",
                nullable: true);

            migrationBuilder.AddColumn<DateTimeOffset>(
                name: "code_until",
                table: "people",
                type: "timestamp with time zone",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "initials",
                table: "people",
                type: "text",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<bool>(
                name: "locked_out",
                table: "people",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            // What was there is the current issue of each sheet; a shop with people in it was the demo shop: there was no other way in.
            migrationBuilder.Sql("""
                update spec_sheets set issue = (sheet->>'issue')::int, current = true;
                update trays set spec_issue = spec_sheets.issue from spec_sheets where spec_sheets.code = trays.spec_code;
                update shop set demo = exists (select from people);
                """);

            migrationBuilder.AddPrimaryKey(
                name: "pk_spec_sheets",
                table: "spec_sheets",
                columns: new[] { "code", "issue" });

            migrationBuilder.CreateTable(
                name: "shop_changes",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    by = table.Column<string>(type: "text", nullable: false),
                    about = table.Column<string>(type: "text", nullable: false),
                    what = table.Column<string>(type: "text", nullable: false),
                    why = table.Column<string>(type: "text", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_shop_changes", x => x.id);
                });

            migrationBuilder.CreateIndex(
                name: "ix_trays_spec_code_spec_issue",
                table: "trays",
                columns: new[] { "spec_code", "spec_issue" });

            migrationBuilder.CreateIndex(
                name: "ix_spec_sheets_code",
                table: "spec_sheets",
                column: "code",
                unique: true,
                filter: "current");

            migrationBuilder.CreateIndex(
                name: "ix_shop_changes_about_at",
                table: "shop_changes",
                columns: new[] { "about", "at" });

            migrationBuilder.AddForeignKey(
                name: "fk_trays_spec_sheets_spec_code_spec_issue",
                table: "trays",
                columns: new[] { "spec_code", "spec_issue" },
                principalTable: "spec_sheets",
                principalColumns: new[] { "code", "issue" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropForeignKey(
                name: "fk_trays_spec_sheets_spec_code_spec_issue",
                table: "trays");

            migrationBuilder.DropTable(
                name: "shop_changes");

            migrationBuilder.DropIndex(
                name: "ix_trays_spec_code_spec_issue",
                table: "trays");

            migrationBuilder.DropPrimaryKey(
                name: "pk_spec_sheets",
                table: "spec_sheets");

            migrationBuilder.DropIndex(
                name: "ix_spec_sheets_code",
                table: "spec_sheets");

            migrationBuilder.DropColumn(
                name: "spec_issue",
                table: "trays");

            migrationBuilder.DropColumn(
                name: "issue",
                table: "spec_sheets");

            migrationBuilder.DropColumn(
                name: "current",
                table: "spec_sheets");

            migrationBuilder.DropColumn(
                name: "made_at",
                table: "spec_sheets");

            migrationBuilder.DropColumn(
                name: "made_by",
                table: "spec_sheets");

            migrationBuilder.DropColumn(
                name: "why",
                table: "spec_sheets");

            migrationBuilder.DropColumn(
                name: "demo",
                table: "shop");

            migrationBuilder.DropColumn(
                name: "name",
                table: "shop");

            migrationBuilder.DropColumn(
                name: "time_zone",
                table: "shop");

            migrationBuilder.DropColumn(
                name: "code_hash",
                table: "people");

            migrationBuilder.DropColumn(
                name: "code_until",
                table: "people");

            migrationBuilder.DropColumn(
                name: "initials",
                table: "people");

            migrationBuilder.DropColumn(
                name: "locked_out",
                table: "people");

            migrationBuilder.AddPrimaryKey(
                name: "pk_spec_sheets",
                table: "spec_sheets",
                column: "code");

            migrationBuilder.CreateIndex(
                name: "ix_trays_spec_code",
                table: "trays",
                column: "spec_code");

            migrationBuilder.AddForeignKey(
                name: "fk_trays_spec_sheets_spec_code",
                table: "trays",
                column: "spec_code",
                principalTable: "spec_sheets",
                principalColumn: "code");
        }
    }
}
