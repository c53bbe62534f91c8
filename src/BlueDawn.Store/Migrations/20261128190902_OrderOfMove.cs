using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace BlueDawn.Store.Migrations
{
    /// <inheritdoc />
    public partial class OrderOfMove : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<Guid>(
                name: "order_id",
                table: "stock_moves",
                type: "uuid",
                nullable: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "order_id",
                table: "stock_moves");
        }
    }
}
