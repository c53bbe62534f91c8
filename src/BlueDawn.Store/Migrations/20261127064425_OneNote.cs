using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace BlueDawn.Store.Migrations
{
    /// <inheritdoc />
    public partial class OneNote : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            // The version was PostgreSQL's own xmin, which changed with every write; now it counts changes of what stands on the tray.
            migrationBuilder.AddColumn<int>(
                name: "version",
                table: "trays",
                type: "integer",
                nullable: false,
                defaultValue: 1);

            migrationBuilder.AddColumn<bool>(
                name: "came_back",
                table: "trays",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string[]>(
                name: "confirmed",
                table: "trays",
                type: "text[]",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "released",
                table: "trays",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<int>(
                name: "revision",
                table: "trays",
                type: "integer",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<string>(
                name: "note",
                table: "logbook_entries",
                type: "jsonb",
                nullable: true);

            migrationBuilder.Sql(
                """
                create function count_entry() returns trigger language plpgsql as $$
                begin
                    update trays set revision = revision + 1 where id = new.tray_id;
                    return null;
                end $$;
                create trigger logbook_entries_counted after insert on logbook_entries for each row execute function count_entry();
                update trays t set revision = (select count(*) from logbook_entries e where e.tray_id = t.id);
                update trays t set
                    released = exists (select 1 from logbook_entries e where e.tray_id = t.id and e.kind = 'Released'),
                    came_back = exists (select 1 from logbook_entries e where e.tray_id = t.id and e.kind = 'BroughtBack');
                with last as (
                    select distinct on (tray_id, coalesce(trace ->> 'causeId', ''))
                        tray_id, trace ->> 'causeId' as cause, trace ->> 'outcome' as outcome
                    from logbook_entries where trace ->> 'kind' = 'fault'
                    order by tray_id, coalesce(trace ->> 'causeId', ''), taken_at desc, id desc)
                update trays t set confirmed = array(
                    select cause from last where last.tray_id = t.id and outcome in ('fixed', 'referred') and cause is not null order by cause)
                where exists (select 1 from last where last.tray_id = t.id and outcome in ('fixed', 'referred', 'nothingFound'));
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "came_back",
                table: "trays");

            migrationBuilder.DropColumn(
                name: "confirmed",
                table: "trays");

            migrationBuilder.DropColumn(
                name: "released",
                table: "trays");

            migrationBuilder.DropColumn(
                name: "revision",
                table: "trays");

            migrationBuilder.DropColumn(
                name: "note",
                table: "logbook_entries");

            migrationBuilder.DropColumn(
                name: "version",
                table: "trays");

            migrationBuilder.Sql("drop trigger logbook_entries_counted on logbook_entries; drop function count_entry();");
        }
    }
}
