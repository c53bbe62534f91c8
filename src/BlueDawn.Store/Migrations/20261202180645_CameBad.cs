using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace BlueDawn.Store.Migrations
{
    /// <summary>Who a piece that came bad was from.</summary>
    public partial class CameBad : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "supplier",
                table: "stock_moves",
                type: "text",
                nullable: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "supplier",
                table: "stock_moves");
        }
    }
}
