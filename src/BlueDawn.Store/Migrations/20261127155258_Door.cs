using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace BlueDawn.Store.Migrations
{
    /// <inheritdoc />
    public partial class Door : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "import_jobs",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    file = table.Column<string>(type: "text", nullable: false),
                    name = table.Column<string>(type: "text", nullable: false),
                    state = table.Column<string>(type: "text", nullable: false),
                    phase = table.Column<string>(type: "text", nullable: false),
                    rows_read = table.Column<int>(type: "integer", nullable: false),
                    bytes = table.Column<long>(type: "bigint", nullable: false),
                    bytes_read = table.Column<long>(type: "bigint", nullable: false),
                    report = table.Column<string>(type: "jsonb", nullable: true),
                    heard_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_import_jobs", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "sessions",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    person_id = table.Column<Guid>(type: "uuid", nullable: false),
                    device = table.Column<string>(type: "text", nullable: false),
                    address = table.Column<string>(type: "text", nullable: false),
                    signed_in_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    seen_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_sessions", x => x.id);
                    table.ForeignKey(
                        name: "fk_sessions_people_person_id",
                        column: x => x.person_id,
                        principalTable: "people",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "sign_in_tries",
                columns: table => new
                {
                    key = table.Column<string>(type: "text", nullable: false),
                    tries = table.Column<int>(type: "integer", nullable: false),
                    since = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_sign_in_tries", x => x.key);
                });

            migrationBuilder.CreateTable(
                name: "import_pieces",
                columns: table => new
                {
                    job_id = table.Column<Guid>(type: "uuid", nullable: false),
                    place = table.Column<int>(type: "integer", nullable: false),
                    bytes = table.Column<byte[]>(type: "bytea", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_import_pieces", x => new { x.job_id, x.place });
                    table.ForeignKey(
                        name: "fk_import_pieces_import_jobs_job_id",
                        column: x => x.job_id,
                        principalTable: "import_jobs",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "ix_sessions_person_id",
                table: "sessions",
                column: "person_id");

            // What changes is told to every server that listens. What is told twice in one transaction is told once.
            migrationBuilder.Sql(
                """
                create function tell_tray() returns trigger language plpgsql as $$
                begin perform pg_notify('blue_dawn', 'tray ' || new.number); return null; end $$;
                create function tell() returns trigger language plpgsql as $$
                begin perform pg_notify('blue_dawn', tg_argv[0]); return null; end $$;
                create trigger trays_told after insert or update on trays for each row execute function tell_tray();
                create trigger bath_events_told after insert on bath_events for each statement execute function tell('baths');
                create trigger stock_moves_told after insert on stock_moves for each statement execute function tell('stock');
                create trigger donor_takings_told after insert on donor_takings for each statement execute function tell('stock');
                create trigger donors_told after insert on donors for each statement execute function tell('stock');
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql(
                """
                drop trigger trays_told on trays;
                drop trigger bath_events_told on bath_events;
                drop trigger stock_moves_told on stock_moves;
                drop trigger donor_takings_told on donor_takings;
                drop trigger donors_told on donors;
                drop function tell_tray();
                drop function tell();
                """);
            migrationBuilder.DropTable(
                name: "import_pieces");

            migrationBuilder.DropTable(
                name: "sessions");

            migrationBuilder.DropTable(
                name: "sign_in_tries");

            migrationBuilder.DropTable(
                name: "import_jobs");
        }
    }
}
