using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace BlueDawn.Store.Migrations
{
    /// <inheritdoc />
    public partial class Folded : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "ix_trays_machine_id",
                table: "trays");

            migrationBuilder.DropIndex(
                name: "ix_trays_waits_for",
                table: "trays");

            migrationBuilder.DropIndex(
                name: "ix_owners_name",
                table: "owners");

            migrationBuilder.AddColumn<bool>(
                name: "in_bath",
                table: "trays",
                type: "boolean",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "folded",
                table: "owners",
                type: "text",
                nullable: true,
                collation: "C");

            migrationBuilder.AddColumn<string[]>(
                name: "near",
                table: "owners",
                type: "text[]",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "folded",
                table: "machines",
                type: "text",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "closed_traces",
                columns: table => new
                {
                    family = table.Column<string>(type: "text", nullable: false),
                    spec_code = table.Column<string>(type: "text", nullable: false),
                    cause = table.Column<string>(type: "text", nullable: false),
                    trays = table.Column<int>(type: "integer", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_closed_traces", x => new { x.family, x.spec_code, x.cause });
                });

            migrationBuilder.CreateIndex(
                name: "ix_trays_handed_back",
                table: "trays",
                column: "number",
                filter: "waits_for = 'HandedBack'");

            migrationBuilder.CreateIndex(
                name: "ix_trays_in_bath",
                table: "trays",
                column: "id",
                filter: "in_bath");

            migrationBuilder.CreateIndex(
                name: "ix_trays_machine_id_number",
                table: "trays",
                columns: new[] { "machine_id", "number" });

            migrationBuilder.CreateIndex(
                name: "ix_trays_open",
                table: "trays",
                column: "number",
                filter: "waits_for <> 'HandedBack'");

            migrationBuilder.CreateIndex(
                name: "ix_owners_folded",
                table: "owners",
                column: "folded");

            migrationBuilder.CreateIndex(
                name: "ix_owners_near",
                table: "owners",
                column: "near")
                .Annotation("Npgsql:IndexMethod", "gin");

            migrationBuilder.CreateIndex(
                name: "ix_bath_events_at",
                table: "bath_events",
                column: "at");

            migrationBuilder.Sql("""
                create function tidy(said text) returns text language sql immutable parallel safe as $$
                    select upper(regexp_replace(said, '[- /.]', '', 'g'))
                $$;
                create index ix_owners_folded_within on owners using gin (folded gin_trgm_ops) with (fastupdate = off);
                create index ix_owners_name_within on owners using gin (name gin_trgm_ops) with (fastupdate = off);
                create index ix_owners_contact_within on owners using gin (tidy(contact) gin_trgm_ops) with (fastupdate = off);
                create index ix_machines_name_within on machines using gin (name gin_trgm_ops) with (fastupdate = off);
                create index ix_trays_complaint_within on trays using gin (complaint gin_trgm_ops) with (fastupdate = off);
                create index ix_trays_stamped_within on trays using gin (tidy(stamped_number) gin_trgm_ops) with (fastupdate = off);
                create index ix_logbook_entries_plate_within on logbook_entries using gin (tidy(note->>'plate') gin_trgm_ops) with (fastupdate = off) where kind = 'marks';

                -- What is told of a tray says how far it is: whoever has it so far already need not look.
                create or replace function tell_tray() returns trigger language plpgsql as $$
                begin perform pg_notify('blue_dawn', concat_ws(' ', 'tray', new.number, new.revision, new.version)); return null; end $$;

                -- A basket is in the bath when it went in and has not come out since; one may be told of after the other.
                create function note_basket() returns trigger language plpgsql as $$
                begin
                    update trays t set in_bath = exists (
                        select from bath_events placed where placed.tray_id = t.id and placed.kind = 'Placed' and not exists (
                            select from bath_events later where later.tray_id = t.id and later.kind = 'TakenOut' and later.at >= placed.at))
                    where t.id = new.tray_id;
                    return null;
                end $$;
                create trigger bath_events_noted after insert on bath_events for each row
                    when (new.tray_id is not null and new.kind in ('Placed', 'TakenOut')) execute function note_basket();
                update trays t set in_bath = true where exists (
                    select from bath_events placed where placed.tray_id = t.id and placed.kind = 'Placed' and not exists (
                        select from bath_events later where later.tray_id = t.id and later.kind = 'TakenOut' and later.at >= placed.at));

                -- Two who confirm the same causes the other way round would wait for each other: who counts holds all of it.
                create function count_closed_trace() returns trigger language plpgsql as $$
                begin
                    perform pg_advisory_xact_lock(hashtext('closed_traces'));
                    if old.confirmed is not null then
                        update closed_traces c set trays = c.trays - 1
                        where c.family = old.family and c.spec_code = coalesce(old.spec_code, '') and (c.cause = '' or c.cause = any(old.confirmed));
                    end if;
                    if new.confirmed is not null then
                        insert into closed_traces (family, spec_code, cause, trays)
                        select new.family, coalesce(new.spec_code, ''), cause, 1 from unnest(array_append(new.confirmed, '')) cause group by cause
                        on conflict (family, spec_code, cause) do update set trays = closed_traces.trays + 1;
                    end if;
                    return null;
                end $$;
                create trigger trays_closed_changed after update of confirmed, family, spec_code on trays for each row
                    when (old.confirmed is distinct from new.confirmed
                        or new.confirmed is not null and (old.family <> new.family or old.spec_code is distinct from new.spec_code))
                    execute function count_closed_trace();

                -- Many that come at once, as a shop does that moves in, are counted at once.
                create function count_closed_traces() returns trigger language plpgsql as $$
                begin
                    if exists (select from added where confirmed is not null) then
                        perform pg_advisory_xact_lock(hashtext('closed_traces'));
                        insert into closed_traces (family, spec_code, cause, trays)
                        select family, coalesce(spec_code, ''), cause, count(distinct id) from added, unnest(array_append(confirmed, '')) cause
                        where confirmed is not null group by 1, 2, 3
                        on conflict (family, spec_code, cause) do update set trays = closed_traces.trays + excluded.trays;
                    end if;
                    return null;
                end $$;
                create trigger trays_closed_added after insert on trays referencing new table as added
                    for each statement execute function count_closed_traces();
                insert into closed_traces (family, spec_code, cause, trays)
                select family, coalesce(spec_code, ''), cause, count(distinct id) from trays, unnest(array_append(confirmed, '')) cause
                where confirmed is not null group by 1, 2, 3;

                create or replace function blank_owner(owner uuid, alias text) returns void language plpgsql security definer set search_path = public, pg_temp as $$
                declare
                    was owners%rowtype;
                    mine uuid[];
                begin
                    select * into strict was from owners where id = owner for update;
                    select coalesce(array_agg(t.id), '{}') into mine from trays t join machines m on m.id = t.machine_id where m.owner_id = owner;
                    perform set_config('blue_dawn.blanking', 'yes', true);
                    update logbook_entries e set
                        note = without_name(without_name(e.note, was.name, alias), was.contact, '–'),
                        words = without_name(without_name(e.words, was.name, alias), was.contact, '–'),
                        report = without_name(without_name(e.report, was.name, alias), was.contact, '–')
                    where e.tray_id = any(mine);
                    perform set_config('blue_dawn.blanking', 'no', true);
                    update trays t set
                        complaint = without_name(without_name(t.complaint, was.name, alias), was.contact, '–'),
                        wait_note = without_name(without_name(t.wait_note, was.name, alias), was.contact, '–'),
                        version = t.version + 1
                    where t.id = any(mine);
                    update machines m set name = without_name(m.name, was.name, alias), folded = null where m.owner_id = owner;
                    update owners set name = alias, contact = '', folded = null, near = null where id = owner;
                end $$;
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("""
                drop trigger trays_closed_changed on trays;
                drop trigger trays_closed_added on trays;
                drop function count_closed_traces();
                drop function count_closed_trace();
                drop trigger bath_events_noted on bath_events;
                drop function note_basket();
                drop index ix_owners_folded_within, ix_owners_name_within, ix_owners_contact_within, ix_machines_name_within,
                    ix_trays_complaint_within, ix_trays_stamped_within, ix_logbook_entries_plate_within;
                drop function tidy(text);
                create or replace function tell_tray() returns trigger language plpgsql as $$
                begin perform pg_notify('blue_dawn', 'tray ' || new.number); return null; end $$;

                create or replace function blank_owner(owner uuid, alias text) returns void language plpgsql security definer set search_path = public, pg_temp as $$
                declare
                    was owners%rowtype;
                    mine uuid[];
                begin
                    select * into strict was from owners where id = owner for update;
                    select coalesce(array_agg(t.id), '{}') into mine from trays t join machines m on m.id = t.machine_id where m.owner_id = owner;
                    perform set_config('blue_dawn.blanking', 'yes', true);
                    update logbook_entries e set
                        note = without_name(without_name(e.note, was.name, alias), was.contact, '–'),
                        words = without_name(without_name(e.words, was.name, alias), was.contact, '–'),
                        report = without_name(without_name(e.report, was.name, alias), was.contact, '–')
                    where e.tray_id = any(mine);
                    perform set_config('blue_dawn.blanking', 'no', true);
                    update trays t set
                        complaint = without_name(without_name(t.complaint, was.name, alias), was.contact, '–'),
                        wait_note = without_name(without_name(t.wait_note, was.name, alias), was.contact, '–'),
                        version = t.version + 1
                    where t.id = any(mine);
                    update machines m set name = without_name(m.name, was.name, alias) where m.owner_id = owner;
                    update owners set name = alias, contact = '' where id = owner;
                end $$;
                """);

            migrationBuilder.DropTable(
                name: "closed_traces");

            migrationBuilder.DropIndex(
                name: "ix_trays_handed_back",
                table: "trays");

            migrationBuilder.DropIndex(
                name: "ix_trays_in_bath",
                table: "trays");

            migrationBuilder.DropIndex(
                name: "ix_trays_machine_id_number",
                table: "trays");

            migrationBuilder.DropIndex(
                name: "ix_trays_open",
                table: "trays");

            migrationBuilder.DropIndex(
                name: "ix_owners_folded",
                table: "owners");

            migrationBuilder.DropIndex(
                name: "ix_owners_near",
                table: "owners");

            migrationBuilder.DropIndex(
                name: "ix_bath_events_at",
                table: "bath_events");

            migrationBuilder.DropColumn(
                name: "in_bath",
                table: "trays");

            migrationBuilder.DropColumn(
                name: "folded",
                table: "owners");

            migrationBuilder.DropColumn(
                name: "near",
                table: "owners");

            migrationBuilder.DropColumn(
                name: "folded",
                table: "machines");

            migrationBuilder.CreateIndex(
                name: "ix_trays_machine_id",
                table: "trays",
                column: "machine_id");

            migrationBuilder.CreateIndex(
                name: "ix_trays_waits_for",
                table: "trays",
                column: "waits_for");

            migrationBuilder.CreateIndex(
                name: "ix_owners_name",
                table: "owners",
                column: "name");
        }
    }
}
