using BlueDawn.Core.Catalogue;

namespace BlueDawn.Store.Catalogue;

/// <summary>The catalogue's tables seen as its files, in the files' columns: what an import is held against and what an export
/// writes.</summary>
internal static class CatalogueSql
{
    /// <summary>Rows as the file has them, columns <c>c0</c>, <c>c1</c> …, all text.</summary>
    public static string Live(CatalogueFile file) =>
        file switch
        {
            CatalogueFile.Items => "select number as c0, kind as c1, name as c2, maker as c3 from catalogue_items",
            CatalogueFile.Contents => """
                select i.number as c0, v.part as c1, c.quantity::text as c2, v.features as c3
                from item_contents c join catalogue_items i on i.id = c.item_id join part_variants v on v.id = c.variant_id
                """,
            CatalogueFile.Fits =>
                "select i.number as c0, f.kind as c1, f.maker as c2, f.number as c3 from item_fits f join catalogue_items i on i.id = f.item_id",
            CatalogueFile.Supersessions => "select old as c0, new as c1, changed as c2 from supersessions",
            CatalogueFile.Suppliers => "select name as c0, freight::numeric(12,2)::text as c1 from suppliers",
            CatalogueFile.Offers => """
                select o.supplier as c0, i.number as c1, o.pack_pieces::text as c2, o.pack_price::numeric(12,2)::text as c3, o.lead_days::text as c4
                from offers o join catalogue_items i on i.id = o.item_id
                """,
        };

    /// <summary>Whether a file says all there is about the items it names, so that what it leaves out goes.</summary>
    public static bool SaysAll(CatalogueFile file) => file is CatalogueFile.Contents or CatalogueFile.Fits;

    /// <summary>Rows that speak of something that is not there, with what to do, as SQL conditions on the row <c>i</c>.</summary>
    public static IEnumerable<(string Condition, string Reason)> Unknown(CatalogueFile file)
    {
        const string NoItem = "There is no item of this number. Import items.csv first.";
        switch (file)
        {
            case CatalogueFile.Contents or CatalogueFile.Fits:
                yield return ("not exists (select 1 from catalogue_items x where x.number = i.c0)", NoItem);
                break;
            case CatalogueFile.Supersessions:
                yield return (
                    "not exists (select 1 from catalogue_items x where x.number = i.c1)",
                    "The new number is not an item. Import items.csv first."
                );
                break;
            case CatalogueFile.Offers:
                yield return ("not exists (select 1 from catalogue_items x where x.number = i.c1)", NoItem);
                yield return (
                    "not exists (select 1 from suppliers s where s.name = i.c0)",
                    "There is no supplier of this name. Import suppliers.csv first."
                );
                break;
            case CatalogueFile.Items or CatalogueFile.Suppliers:
                break;
        }
    }

    /// <summary>Puts the rows of <c>judged</c> whose state is not “same” into the tables; rows of <c>leaving</c> go first.</summary>
    public static IEnumerable<string> Apply(CatalogueFile file) =>
        file switch
        {
            CatalogueFile.Items =>
            [
                """
                    insert into catalogue_items (id, number, kind, name, maker)
                    select gen_random_uuid(), c0, c1, c2, c3 from judged where state <> 'same'
                    on conflict (number) do update set kind = excluded.kind, name = excluded.name, maker = excluded.maker
                    """,
                "analyze catalogue_items",
            ],
            CatalogueFile.Contents =>
            [
                """
                    delete from item_contents c using leaving l, catalogue_items i, part_variants v
                    where i.number = l.c0 and v.part = l.c1 and v.features = l.c3 and c.item_id = i.id and c.variant_id = v.id
                    """,
                "insert into part_variants (part, features, uses) select distinct c1, c3, 0 from judged where state <> 'same' on conflict do nothing",
                "analyze part_variants",
                """
                    insert into item_contents (item_id, variant_id, quantity)
                    select i.id, v.id, n.c2::int from judged n
                        join catalogue_items i on i.number = n.c0 join part_variants v on v.part = n.c1 and v.features = n.c3
                    where n.state <> 'same'
                    on conflict (item_id, variant_id) do update set quantity = excluded.quantity
                    """,
                "update part_variants v set uses = n.uses from (select variant_id, count(*)::int as uses "
                    + "from item_contents group by variant_id) n where n.variant_id = v.id and v.uses <> n.uses",
                "analyze item_contents",
            ],
            CatalogueFile.Fits =>
            [
                "delete from item_fits f using leaving l, catalogue_items i where i.number = l.c0 and f.item_id = i.id and f.kind = l.c1 and f.number = l.c3",
                """
                    insert into item_fits (item_id, kind, maker, number, folded)
                    select i.id, n.c1, n.c2, n.c3, n.folded from judged n join catalogue_items i on i.number = n.c0 where n.state <> 'same'
                    on conflict (item_id, kind, number) do update set maker = excluded.maker
                    """,
                "analyze item_fits",
            ],
            CatalogueFile.Supersessions =>
            [
                """
                    insert into supersessions (old, new, changed) select c0, c1, c2 from judged where state <> 'same'
                    on conflict (old) do update set new = excluded.new, changed = excluded.changed
                    """,
            ],
            CatalogueFile.Suppliers =>
            [
                """
                    insert into suppliers (name, freight) select c0, c1::numeric from judged where state <> 'same'
                    on conflict (name) do update set freight = excluded.freight
                    """,
            ],
            CatalogueFile.Offers =>
            [
                """
                    insert into offers (supplier, item_id, pack_pieces, pack_price, lead_days)
                    select n.c0, i.id, n.c2::int, n.c3::numeric, n.c4::int from judged n join catalogue_items i on i.number = n.c1 where n.state <> 'same'
                    on conflict (supplier, item_id) do update
                        set pack_pieces = excluded.pack_pieces, pack_price = excluded.pack_price, lead_days = excluded.lead_days
                    """,
            ],
        };
}
