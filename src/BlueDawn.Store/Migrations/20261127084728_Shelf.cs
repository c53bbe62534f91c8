using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace BlueDawn.Store.Migrations
{
    /// <inheritdoc />
    public partial class Shelf : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "shelf",
                columns: table => new
                {
                    item_id = table.Column<Guid>(type: "uuid", nullable: false),
                    on_hand = table.Column<int>(type: "integer", nullable: false),
                    on_order = table.Column<int>(type: "integer", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_shelf", x => x.item_id);
                    table.ForeignKey(
                        name: "fk_shelf_catalogue_items_item_id",
                        column: x => x.item_id,
                        principalTable: "catalogue_items",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "ix_stock_moves_at",
                table: "stock_moves",
                column: "at");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "shelf");

            migrationBuilder.DropIndex(
                name: "ix_stock_moves_at",
                table: "stock_moves");
        }
    }
}
