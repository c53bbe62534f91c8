using BlueDawn.Store.Intake;
using Microsoft.EntityFrameworkCore;

namespace BlueDawn.Store.People;

/// <summary>
/// What stands in the book of one person or one owner: written out, or blanked. The book keeps the work; the name becomes
/// another one, the same in every place. Only this reaches rows that are never changed otherwise: the functions belong to the
/// role that owns the database.
/// </summary>
public static class PersonalData
{
    /// <summary>What a blanked person is called.</summary>
    /// <param name="person">Their id.</param>
    public static string FormerPerson(Guid person) => $"Former colleague {Mark(person)}";

    /// <summary>What a blanked owner is called.</summary>
    /// <param name="owner">Their id.</param>
    public static string FormerOwner(Guid owner) => $"Former owner {Mark(owner)}";

    /// <summary>Everything of a person, as JSON; null when there is nobody.</summary>
    /// <param name="db">The store.</param>
    /// <param name="person">Their id.</param>
    /// <param name="cancel">Cancellation.</param>
    public static Task<string?> OfPersonAsync(BlueDawnDb db, Guid person, CancellationToken cancel) =>
        db
            .Database.SqlQuery<string?>(
                $$"""
                select jsonb_pretty(jsonb_build_object(
                    'person', jsonb_build_object('signsInAs', p.user_name, 'name', p.display_name, 'initials', p.initials,
                        'units', p.units, 'pins', p.pins, 'lockedOut', p.locked_out,
                        'roles', (select coalesce(jsonb_agg(r.name), '[]') from person_roles h join roles r on r.id = h.role_id where h.user_id = p.id)),
                    'devices', (select coalesce(jsonb_agg(jsonb_build_object('device', s.device, 'address', s.address,
                            'signedInAt', s.signed_in_at, 'seenAt', s.seen_at) order by s.signed_in_at), '[]')
                        from sessions s where s.person_id = p.id),
                    'entries', (select coalesce(jsonb_agg(jsonb_build_object('tray', t.number, 'at', e.taken_at, 'kind', e.kind,
                            'words', e.words, 'note', e.note) order by e.taken_at, e.id), '[]')
                        from logbook_entries e join trays t on t.id = e.tray_id where e.person_id = p.id),
                    'photos', (select coalesce(jsonb_agg(jsonb_build_object('tray', t.number, 'at', f.added_at) order by f.added_at), '[]')
                        from photos f join trays t on t.id = f.tray_id where f.person_id = p.id),
                    'baths', (select coalesce(jsonb_agg(jsonb_build_object('bath', b.bath, 'at', b.at, 'kind', b.kind,
                            'tray', b.tray_number) order by b.at), '[]') from bath_events b where b.person_id = p.id),
                    'shop', (select coalesce(jsonb_agg(jsonb_build_object('at', c.at, 'by', c.by, 'what', c.what, 'why', c.why) order by c.at), '[]')
                        from shop_changes c where c.by = p.display_name or c.about = 'person/' || p.user_name)
                )) as "Value" from people p where p.id = {{person}}
                """
            )
            .SingleOrDefaultAsync(cancel);

    /// <summary>Everything of an owner, as JSON; null when there is none.</summary>
    /// <param name="db">The store.</param>
    /// <param name="owner">Their id.</param>
    /// <param name="cancel">Cancellation.</param>
    public static Task<string?> OfOwnerAsync(BlueDawnDb db, Guid owner, CancellationToken cancel) =>
        db
            .Database.SqlQuery<string?>(
                $$"""
                select jsonb_pretty(jsonb_build_object('owner', jsonb_build_object('name', o.name, 'contact', o.contact), 'machines', (
                    select coalesce(jsonb_agg(jsonb_build_object('machine', m.name, 'trays', (
                        select coalesce(jsonb_agg(jsonb_build_object('tray', t.number, 'checkedInAt', t.checked_in_at,
                            'promisedDay', t.promised_day, 'complaint', t.complaint, 'story', t.story,
                            'agreedToSpend', t.owner_limit, 'stampedNumber', t.stamped_number, 'waitsFor', t.waits_for,
                            'photos', (select count(*) from photos f where f.tray_id = t.id),
                            'entries', (select coalesce(jsonb_agg(jsonb_build_object('at', e.taken_at, 'kind', e.kind,
                                'words', e.words, 'note', e.note, 'report', e.report) order by e.taken_at, e.id), '[]')
                                from logbook_entries e where e.tray_id = t.id)) order by t.number), '[]')
                        from trays t where t.machine_id = m.id)) order by m.name, m.id), '[]')
                    from machines m where m.owner_id = o.id))) as "Value" from owners o where o.id = {{owner}}
                """
            )
            .SingleOrDefaultAsync(cancel);

    /// <summary>Blanks a person: name, initials, pins, sign-in and devices.</summary>
    /// <param name="db">The store.</param>
    /// <param name="person">Their id.</param>
    /// <param name="cancel">Cancellation.</param>
    public static Task BlankPersonAsync(BlueDawnDb db, Guid person, CancellationToken cancel) =>
        db.Database.ExecuteSqlAsync($"select blank_person({person}, {FormerPerson(person)}, {$"former-{Mark(person)}"})", cancel);

    /// <summary>Blanks an owner: name and how to reach them, wherever they stand on their trays.</summary>
    /// <param name="db">The store; what it tracks is forgotten.</param>
    /// <param name="owner">Their id.</param>
    /// <param name="cancel">Cancellation.</param>
    public static async Task BlankOwnerAsync(BlueDawnDb db, Guid owner, CancellationToken cancel)
    {
        await db.Database.ExecuteSqlAsync($"select blank_owner({owner}, {FormerOwner(owner)})", cancel);
        // What was read before bears the name still.
        db.ChangeTracker.Clear();
        await NameFolding.RunAsync(db, cancel);
    }

    /// <summary>Two that are blanked stay two: the end of the id, which is drawn.</summary>
    private static string Mark(Guid id) => id.ToString("N")[^5..];
}
