using System;
using Microsoft.EntityFrameworkCore.Migrations;
using Npgsql.EntityFrameworkCore.PostgreSQL.Metadata;

#nullable disable

namespace BlueDawn.Store.Migrations
{
    /// <inheritdoc />
    public partial class Initial : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateSequence<int>(
                name: "tray_numbers");

            migrationBuilder.CreateTable(
                name: "data_protection_keys",
                columns: table => new
                {
                    id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    friendly_name = table.Column<string>(type: "text", nullable: true),
                    xml = table.Column<string>(type: "text", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_data_protection_keys", x => x.id);
                });

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

            migrationBuilder.CreateTable(
                name: "owners",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    name = table.Column<string>(type: "text", nullable: false),
                    contact = table.Column<string>(type: "text", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_owners", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "people",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    display_name = table.Column<string>(type: "text", nullable: false),
                    units = table.Column<string>(type: "text", nullable: false),
                    pins = table.Column<string>(type: "text", nullable: false),
                    user_name = table.Column<string>(type: "character varying(256)", maxLength: 256, nullable: true),
                    normalized_user_name = table.Column<string>(type: "character varying(256)", maxLength: 256, nullable: true),
                    email = table.Column<string>(type: "character varying(256)", maxLength: 256, nullable: true),
                    normalized_email = table.Column<string>(type: "character varying(256)", maxLength: 256, nullable: true),
                    email_confirmed = table.Column<bool>(type: "boolean", nullable: false),
                    password_hash = table.Column<string>(type: "text", nullable: true),
                    security_stamp = table.Column<string>(type: "text", nullable: true),
                    concurrency_stamp = table.Column<string>(type: "text", nullable: true),
                    phone_number = table.Column<string>(type: "text", nullable: true),
                    phone_number_confirmed = table.Column<bool>(type: "boolean", nullable: false),
                    two_factor_enabled = table.Column<bool>(type: "boolean", nullable: false),
                    lockout_end = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true),
                    lockout_enabled = table.Column<bool>(type: "boolean", nullable: false),
                    access_failed_count = table.Column<int>(type: "integer", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_people", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "roles",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    name = table.Column<string>(type: "character varying(256)", maxLength: 256, nullable: true),
                    normalized_name = table.Column<string>(type: "character varying(256)", maxLength: 256, nullable: true),
                    concurrency_stamp = table.Column<string>(type: "text", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_roles", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "shop",
                columns: table => new
                {
                    id = table.Column<int>(type: "integer", nullable: false),
                    defaults = table.Column<string>(type: "jsonb", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_shop", x => x.id);
                });

            migrationBuilder.CreateTable(
                name: "spec_sheets",
                columns: table => new
                {
                    code = table.Column<string>(type: "text", nullable: false),
                    sheet = table.Column<string>(type: "jsonb", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_spec_sheets", x => x.code);
                });

            migrationBuilder.CreateTable(
                name: "machines",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    owner_id = table.Column<Guid>(type: "uuid", nullable: false),
                    name = table.Column<string>(type: "text", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_machines", x => x.id);
                    table.ForeignKey(
                        name: "fk_machines_owners_owner_id",
                        column: x => x.owner_id,
                        principalTable: "owners",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "person_claims",
                columns: table => new
                {
                    id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    user_id = table.Column<Guid>(type: "uuid", nullable: false),
                    claim_type = table.Column<string>(type: "text", nullable: true),
                    claim_value = table.Column<string>(type: "text", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_person_claims", x => x.id);
                    table.ForeignKey(
                        name: "fk_person_claims_people_user_id",
                        column: x => x.user_id,
                        principalTable: "people",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "person_logins",
                columns: table => new
                {
                    login_provider = table.Column<string>(type: "text", nullable: false),
                    provider_key = table.Column<string>(type: "text", nullable: false),
                    provider_display_name = table.Column<string>(type: "text", nullable: true),
                    user_id = table.Column<Guid>(type: "uuid", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_person_logins", x => new { x.login_provider, x.provider_key });
                    table.ForeignKey(
                        name: "fk_person_logins_people_user_id",
                        column: x => x.user_id,
                        principalTable: "people",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "person_tokens",
                columns: table => new
                {
                    user_id = table.Column<Guid>(type: "uuid", nullable: false),
                    login_provider = table.Column<string>(type: "text", nullable: false),
                    name = table.Column<string>(type: "text", nullable: false),
                    value = table.Column<string>(type: "text", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_person_tokens", x => new { x.user_id, x.login_provider, x.name });
                    table.ForeignKey(
                        name: "fk_person_tokens_people_user_id",
                        column: x => x.user_id,
                        principalTable: "people",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "person_roles",
                columns: table => new
                {
                    user_id = table.Column<Guid>(type: "uuid", nullable: false),
                    role_id = table.Column<Guid>(type: "uuid", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_person_roles", x => new { x.user_id, x.role_id });
                    table.ForeignKey(
                        name: "fk_person_roles_people_user_id",
                        column: x => x.user_id,
                        principalTable: "people",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_person_roles_roles_role_id",
                        column: x => x.role_id,
                        principalTable: "roles",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "role_claims",
                columns: table => new
                {
                    id = table.Column<int>(type: "integer", nullable: false)
                        .Annotation("Npgsql:ValueGenerationStrategy", NpgsqlValueGenerationStrategy.IdentityByDefaultColumn),
                    role_id = table.Column<Guid>(type: "uuid", nullable: false),
                    claim_type = table.Column<string>(type: "text", nullable: true),
                    claim_value = table.Column<string>(type: "text", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_role_claims", x => x.id);
                    table.ForeignKey(
                        name: "fk_role_claims_roles_role_id",
                        column: x => x.role_id,
                        principalTable: "roles",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "trays",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    number = table.Column<int>(type: "integer", nullable: false, defaultValueSql: "nextval('tray_numbers')"),
                    machine_id = table.Column<Guid>(type: "uuid", nullable: false),
                    stamped_number = table.Column<string>(type: "text", nullable: false),
                    spec_code = table.Column<string>(type: "text", nullable: true),
                    kit_id = table.Column<Guid>(type: "uuid", nullable: true),
                    kit_from_shelf = table.Column<bool>(type: "boolean", nullable: false),
                    complaint = table.Column<string>(type: "text", nullable: false),
                    promised_day = table.Column<DateOnly>(type: "date", nullable: false),
                    waits_for = table.Column<string>(type: "text", nullable: false),
                    wait_note = table.Column<string>(type: "text", nullable: false),
                    checked_in_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    xmin = table.Column<uint>(type: "xid", rowVersion: true, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_trays", x => x.id);
                    table.ForeignKey(
                        name: "fk_trays_kits_kit_id",
                        column: x => x.kit_id,
                        principalTable: "kits",
                        principalColumn: "id");
                    table.ForeignKey(
                        name: "fk_trays_machines_machine_id",
                        column: x => x.machine_id,
                        principalTable: "machines",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_trays_spec_sheets_spec_code",
                        column: x => x.spec_code,
                        principalTable: "spec_sheets",
                        principalColumn: "code");
                });

            migrationBuilder.CreateTable(
                name: "logbook_entries",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    tray_id = table.Column<Guid>(type: "uuid", nullable: false),
                    kind = table.Column<string>(type: "text", nullable: false),
                    line_key = table.Column<string>(type: "text", nullable: true),
                    supersedes_id = table.Column<Guid>(type: "uuid", nullable: true),
                    person_id = table.Column<Guid>(type: "uuid", nullable: false),
                    person_name = table.Column<string>(type: "text", nullable: false),
                    taken_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    recorded_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    typed = table.Column<string>(type: "jsonb", nullable: true),
                    reading = table.Column<string>(type: "jsonb", nullable: true),
                    finding = table.Column<string>(type: "text", nullable: true),
                    words = table.Column<string>(type: "text", nullable: false),
                    report = table.Column<string>(type: "jsonb", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_logbook_entries", x => x.id);
                    table.ForeignKey(
                        name: "fk_logbook_entries_logbook_entries_supersedes_id",
                        column: x => x.supersedes_id,
                        principalTable: "logbook_entries",
                        principalColumn: "id");
                    table.ForeignKey(
                        name: "fk_logbook_entries_trays_tray_id",
                        column: x => x.tray_id,
                        principalTable: "trays",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "stock_moves",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    kit_id = table.Column<Guid>(type: "uuid", nullable: false),
                    pieces = table.Column<int>(type: "integer", nullable: false),
                    tray_id = table.Column<Guid>(type: "uuid", nullable: true),
                    person_id = table.Column<Guid>(type: "uuid", nullable: false),
                    at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_stock_moves", x => x.id);
                    table.ForeignKey(
                        name: "fk_stock_moves_kits_kit_id",
                        column: x => x.kit_id,
                        principalTable: "kits",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_stock_moves_trays_tray_id",
                        column: x => x.tray_id,
                        principalTable: "trays",
                        principalColumn: "id");
                });

            migrationBuilder.CreateIndex(
                name: "ix_kits_number",
                table: "kits",
                column: "number",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_logbook_entries_supersedes_id",
                table: "logbook_entries",
                column: "supersedes_id",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_logbook_entries_tray_id_taken_at",
                table: "logbook_entries",
                columns: new[] { "tray_id", "taken_at" });

            migrationBuilder.CreateIndex(
                name: "ix_machines_owner_id",
                table: "machines",
                column: "owner_id");

            migrationBuilder.CreateIndex(
                name: "ix_owners_name",
                table: "owners",
                column: "name");

            migrationBuilder.CreateIndex(
                name: "EmailIndex",
                table: "people",
                column: "normalized_email");

            migrationBuilder.CreateIndex(
                name: "UserNameIndex",
                table: "people",
                column: "normalized_user_name",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_person_claims_user_id",
                table: "person_claims",
                column: "user_id");

            migrationBuilder.CreateIndex(
                name: "ix_person_logins_user_id",
                table: "person_logins",
                column: "user_id");

            migrationBuilder.CreateIndex(
                name: "ix_person_roles_role_id",
                table: "person_roles",
                column: "role_id");

            migrationBuilder.CreateIndex(
                name: "ix_role_claims_role_id",
                table: "role_claims",
                column: "role_id");

            migrationBuilder.CreateIndex(
                name: "RoleNameIndex",
                table: "roles",
                column: "normalized_name",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_stock_moves_kit_id",
                table: "stock_moves",
                column: "kit_id");

            migrationBuilder.CreateIndex(
                name: "ix_stock_moves_tray_id",
                table: "stock_moves",
                column: "tray_id");

            migrationBuilder.CreateIndex(
                name: "ix_trays_kit_id",
                table: "trays",
                column: "kit_id");

            migrationBuilder.CreateIndex(
                name: "ix_trays_machine_id",
                table: "trays",
                column: "machine_id");

            migrationBuilder.CreateIndex(
                name: "ix_trays_number",
                table: "trays",
                column: "number",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "ix_trays_spec_code",
                table: "trays",
                column: "spec_code");

            migrationBuilder.CreateIndex(
                name: "ix_trays_waits_for",
                table: "trays",
                column: "waits_for");

            // The logbook and the stock moves are added to, never edited: the database itself refuses anything else.
            migrationBuilder.Sql("""
                create function refuse_change() returns trigger language plpgsql as $$
                begin
                    raise exception '% is append-only: add a correction instead', tg_table_name using errcode = 'restrict_violation';
                end $$;
                create trigger logbook_entries_append_only before update or delete or truncate on logbook_entries
                    for each statement execute function refuse_change();
                create trigger stock_moves_append_only before update or delete or truncate on stock_moves
                    for each statement execute function refuse_change();
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "data_protection_keys");

            migrationBuilder.DropTable(
                name: "logbook_entries");

            migrationBuilder.DropTable(
                name: "person_claims");

            migrationBuilder.DropTable(
                name: "person_logins");

            migrationBuilder.DropTable(
                name: "person_roles");

            migrationBuilder.DropTable(
                name: "person_tokens");

            migrationBuilder.DropTable(
                name: "role_claims");

            migrationBuilder.DropTable(
                name: "shop");

            migrationBuilder.DropTable(
                name: "stock_moves");

            migrationBuilder.DropTable(
                name: "people");

            migrationBuilder.DropTable(
                name: "roles");

            migrationBuilder.DropTable(
                name: "trays");

            migrationBuilder.DropTable(
                name: "kits");

            migrationBuilder.DropTable(
                name: "machines");

            migrationBuilder.DropTable(
                name: "spec_sheets");

            migrationBuilder.DropTable(
                name: "owners");

            migrationBuilder.DropSequence(
                name: "tray_numbers");
        }
    }
}
