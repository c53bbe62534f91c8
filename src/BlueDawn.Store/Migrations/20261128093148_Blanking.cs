using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace BlueDawn.Store.Migrations
{
    /// <inheritdoc />
    public partial class Blanking : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            // A name is blanked in rows that are never changed otherwise. Who works at the bench has no right to change them, and
            // none is given: these functions run as the role that owns the tables, and let nothing through but the name.
            migrationBuilder.Sql("""
                create or replace function refuse_change() returns trigger language plpgsql as $$
                begin
                    if tg_op = 'UPDATE' and current_setting('blue_dawn.blanking', true) = 'yes' then
                        return null;
                    end if;
                    raise exception '% is append-only: add a correction instead', tg_table_name using errcode = 'restrict_violation';
                end $$;

                create function without_name(said text, was text, alias text) returns text language sql immutable set search_path = public, pg_temp as $$
                    select case when coalesce(was, '') = '' then said
                        else regexp_replace(said, '(?<!\w)' || regexp_replace(was, '([.*+?^${}()|\[\]\\])', '\\\1', 'g') || '(?!\w)', alias, 'g') end
                $$;

                create function without_name(said jsonb, was text, alias text) returns jsonb language sql immutable set search_path = public, pg_temp as $$
                    select without_name(said::text, substr(to_json(was)::text, 2, length(to_json(was)::text) - 2), alias)::jsonb
                $$;

                create function blank_owner(owner uuid, alias text) returns void language plpgsql security definer set search_path = public, pg_temp as $$
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

                create function blank_person(person uuid, alias text, signs_in_as text) returns void language plpgsql security definer set search_path = public, pg_temp as $$
                declare
                    was people%rowtype;
                begin
                    select * into strict was from people where id = person for update;
                    perform set_config('blue_dawn.blanking', 'yes', true);
                    update trays t set version = t.version + 1 where exists (select from logbook_entries e where e.tray_id = t.id and e.person_id = person);
                    update logbook_entries e set
                        person_name = case when e.person_id = person then alias else e.person_name end,
                        note = without_name(e.note, was.display_name, alias),
                        words = without_name(e.words, was.display_name, alias),
                        report = without_name(e.report, was.display_name, alias)
                    where e.person_id = person or strpos(concat(e.note::text, e.words, e.report::text), was.display_name) > 0;
                    update bath_events set person_name = alias where person_id = person;
                    perform set_config('blue_dawn.blanking', 'no', true);
                    update photos set person_name = alias where person_id = person;
                    update shop_changes c set
                        by = case when c.by = was.display_name then alias else c.by end,
                        about = case when c.about = 'person/' || was.user_name then 'person/' || signs_in_as else c.about end,
                        what = without_name(without_name(c.what, was.display_name, alias), was.user_name, signs_in_as),
                        why = without_name(c.why, was.display_name, alias);
                    update spec_sheets set made_by = alias where made_by = was.display_name;
                    update shared_benches set trusted_by = alias where trusted_by = was.display_name;
                    update knowledge_versions v set by = case when v.by = was.display_name then alias else v.by end, why = without_name(v.why, was.display_name, alias);
                    delete from sessions where person_id = person;
                    update people set display_name = alias, user_name = signs_in_as, normalized_user_name = upper(signs_in_as), initials = '', pins = '',
                        password_hash = null, door_pin_hash = null, code_hash = null, code_until = null, locked_out = true where id = person;
                end $$;
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) => migrationBuilder.Sql("""
            drop function blank_person(uuid, text, text);
            drop function blank_owner(uuid, text);
            drop function without_name(jsonb, text, text);
            drop function without_name(text, text, text);
            create or replace function refuse_change() returns trigger language plpgsql as $$
            begin
                raise exception '% is append-only: add a correction instead', tg_table_name using errcode = 'restrict_violation';
            end $$;
            """);
    }
}
