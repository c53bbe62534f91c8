using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Cleaning;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Tables;
using BlueDawn.Core.Trays;

namespace BlueDawn.Core.Tests.Trays;

/// <summary>A shop changes what the bench knows: looked at before it counts, refused whole when it does not hold together.</summary>
public class KnowledgeEditTests
{
    private static readonly KnowledgeTable Causes = KnowledgeTable.Find("faults/causes.csv")!;
    private static readonly KnowledgeTable Links = KnowledgeTable.Find("faults/cause-findings.csv")!;
    private static readonly KnowledgeTable Checks = KnowledgeTable.Find("faults/checks.csv")!;

    private static IReadOnlyList<string> Row(KnowledgeTable table, string key) => table.Shipped.Single(row => table.KeyOf(row) == key);

    private static List<string> With(KnowledgeTable table, string key, string column, string cell)
    {
        var cells = Row(table, key).ToList();
        cells[table.Place(column)] = cell;
        return cells;
    }

    private static StringReader File(
        KnowledgeTable table,
        Func<IReadOnlyList<string>, IReadOnlyList<string>?> change,
        string delimiter = ",",
        string newLine = "\n"
    ) =>
        new(
            string.Join(
                newLine,
                [
                    string.Join(delimiter, table.Columns),
                    .. table
                        .Shipped.Select(change)
                        .OfType<IReadOnlyList<string>>()
                        .Select(row =>
                            string.Join(delimiter, row.Select(cell => $"\"{cell.Replace("\"", "\"\"", StringComparison.Ordinal)}\""))
                        ),
                ]
            )
        );

    [Fact]
    public void Every_table_that_ships_may_be_changed_or_is_named_as_one_that_may_not()
    {
        string[] fixedTables =
        [
            "faults/cautions.csv",
            "faults/measured.csv",
            "faults/no-finding.csv",
            "parts/parts.csv",
            "parts/features.csv",
            "proving/complaints.csv",
            "proving/looks.csv",
            "setting/looks.csv",
            "chokes/complaints.csv",
            "chokes/looks.csv",
            "safety/dangers.csv",
            "safety/signs.csv",
            "safety/harmless.csv",
        ];
        var shipped = typeof(CsvTable).Assembly.GetManifestResourceNames().Where(name => name.Contains('/', StringComparison.Ordinal));
        Assert.Equal(
            shipped.Order(StringComparer.Ordinal),
            KnowledgeTable.All.Select(table => table.Name).Concat(fixedTables).Order(StringComparer.Ordinal)
        );
    }

    [Fact]
    public void No_two_rows_of_a_table_have_the_same_key_and_none_has_a_blank_in_it()
    {
        foreach (var table in KnowledgeTable.All)
        {
            Assert.Equal(table.Shipped.Count, table.Shipped.Select(table.KeyOf).Distinct().Count());
            Assert.All(table.Shipped.SelectMany(row => table.Keys.Select(key => row[table.Place(key)])), cell =>
                Assert.DoesNotMatch(@"\s|^$", cell)
            );
        }
    }

    [Fact]
    public void A_row_changed_is_what_the_bench_goes_by_and_the_rest_is_as_it_ships()
    {
        var edit = KnowledgeEdit.OfRow([], Causes, "fuel-stale", With(Causes, "fuel-stale", "fix_minutes", "33"));
        Assert.Empty(edit.Problems);
        var change = Assert.Single(edit.Changes);
        Assert.Equal(("faults/causes.csv", "fuel-stale"), (change.Table, change.Key));
        Assert.Equal(Row(Causes, "fuel-stale"), change.Shipped);
        var (before, after) = (Knowledge.Shipped.Of<FaultKnowledge>(), Knowledge.With(edit.Changes).Of<FaultKnowledge>());
        Assert.Equal(33, after.FindCause("fuel-stale")!.FixMinutes);
        Assert.Equal(
            before.Causes.Where(cause => cause.Id != "fuel-stale").Select(cause => (cause.Id, cause.FixMinutes)),
            after.Causes.Where(cause => cause.Id != "fuel-stale").Select(cause => (cause.Id, cause.FixMinutes))
        );
        Assert.Equal(12, before.FindCause("fuel-stale")!.FixMinutes);
        // Written back as it was, nothing of the shop's own is left.
        Assert.Empty(KnowledgeEdit.OfRow(edit.Changes, Causes, "fuel-stale", Row(Causes, "fuel-stale")).Changes);
        Assert.Empty(KnowledgeEdit.Back(edit.Changes, Causes, "fuel-stale").Changes);
    }

    [Fact]
    public void Going_back_names_every_row_that_becomes_other()
    {
        var one = KnowledgeEdit.OfRow([], Causes, "fuel-stale", With(Causes, "fuel-stale", "fix_minutes", "33"));
        var two = KnowledgeEdit.OfRow(one.Changes, Links, "fuel-stale starts-then-dies", null);
        Assert.Equal("fuel-stale starts-then-dies", Assert.Single(two.Rows).Key);
        var back = KnowledgeEdit.To(two.Changes, []);
        Assert.Equal(
            [("fuel-stale", "12"), ("fuel-stale starts-then-dies", null)],
            back.Rows.Select(row => (row.Key, row.Table == Causes.Name ? row.After![Causes.Place("fix_minutes")] : null))
        );
        Assert.Empty(back.Problems);
    }

    [Theory]
    [InlineData("faults/causes.csv", "fuel-stale", "parts", "no-such-part", "speaks of no-such-part")]
    [InlineData("faults/causes.csv", "fuel-stale", "fix_minutes", "soon", "is not a number")]
    [InlineData("faults/causes.csv", "fuel-stale", "label", "", "must not be empty")]
    [InlineData("faults/checks.csv", "oil-check", "caution", "none", "came with it and stays")]
    [InlineData("faults/findings.csv", "wont-start", "background", "1.5", "must be below 1")]
    [InlineData("faults/cause-findings.csv", "fuel-stale wont-start", "strength", "mostly", "strengths.csv")]
    [InlineData("strip/signs.csv", "* added", "finding", "gone", "findings.csv")]
    [InlineData("cleaning/recipes.csv", "soap", "cautions", "nonsense", "unknown caution")]
    [InlineData("build/torques.csv", "filter-housing", "torque_nm", "-1", "0 or more")]
    public void A_cell_that_does_not_hold_together_is_named_by_its_column(string name, string key, string column, string cell, string says)
    {
        var table = KnowledgeTable.Find(name)!;
        var full = table.Shipped.Select(table.KeyOf).First(one => one == key || one.StartsWith(key + " ", StringComparison.Ordinal));
        var cells = With(table, full, column, cell);
        // A finding of a sign is part of its key: another one is another row.
        var edit = KnowledgeEdit.OfRow([], table, full, cells);
        var problem = Assert.Single(edit.Problems);
        Assert.Equal((name, column), (problem.Table, problem.Column));
        Assert.Contains(says, problem.What, StringComparison.Ordinal);
    }

    [Fact]
    public void What_other_tables_rest_on_is_not_taken_out()
    {
        var findings = KnowledgeTable.Find("faults/findings.csv")!;
        Assert.Contains(
            "stays",
            Assert.Single(KnowledgeEdit.OfRow([], findings, "wont-start", null).Problems).What,
            StringComparison.Ordinal
        );
        // A cause may go, but not while a link speaks of it; the problem names the link's table and row.
        var problem = Assert.Single(KnowledgeEdit.OfRow([], Causes, "fuel-stale", null).Problems);
        Assert.Equal((Links.Name, "cause"), (problem.Table, problem.Column));
        Assert.Equal(2, problem.Row);
        // The shop has a heated bath, and something has to be cleaned in it.
        var recipes = KnowledgeTable.Find("cleaning/recipes.csv")!;
        Assert.Contains(
            "No way to clean",
            Assert.Single(KnowledgeEdit.OfRow([], recipes, "bath", With(recipes, "bath", "vessel", "none")).Problems).What,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void A_file_is_taken_as_spreadsheets_write_it()
    {
        var minutes = Causes.Place("fix_minutes");
        var edit = KnowledgeEdit.OfFile(
            [],
            Causes,
            File(Causes, row => row[0] == "fuel-stale" ? [.. row.Select((cell, i) => i == minutes ? "33" : cell)] : row, ";", "\r\n")
        );
        Assert.Empty(edit.Problems);
        Assert.Equal("fuel-stale", Assert.Single(edit.Rows).Key);
        // The same file again changes nothing.
        Assert.Empty(KnowledgeEdit.OfFile([], Causes, File(Causes, row => row)).Rows);
    }

    [Fact]
    public void A_file_that_does_not_hold_together_is_refused_with_its_own_lines()
    {
        // The shop's table has its rows in another order than the file: the line said is the file's.
        var place = Causes.Place("prior_weight");
        var rows = Causes
            .Shipped.Reverse()
            .Select(row => row[0] == "fuel-stale" ? [.. row.Select((cell, i) => i == place ? "often" : cell)] : row)
            .ToList();
        var text = string.Join(
            '\n',
            [string.Join(',', Causes.Columns), "# a remark", .. rows.Select(row => string.Join(',', row.Select(cell => $"\"{cell}\"")))]
        );
        var problem = Assert.Single(KnowledgeEdit.OfFile([], Causes, new StringReader(text)).Problems);
        Assert.Equal((rows.Count + 2, "prior_weight"), (problem.Row, problem.Column));
        Assert.Contains(
            "lacks",
            Assert.Single(KnowledgeEdit.OfFile([], Causes, new StringReader("id,label\na,b")).Problems).What,
            StringComparison.Ordinal
        );
        var twice = KnowledgeEdit.OfFile(
            [],
            Causes,
            new StringReader(
                text.Replace("\"often\"", "\"8\"", StringComparison.Ordinal)
                    + "\n"
                    + string.Join(',', Causes.Shipped[0].Select(cell => $"\"{cell}\""))
            )
        );
        Assert.Contains("already", Assert.Single(twice.Problems).What, StringComparison.Ordinal);
    }

    [Fact]
    public void What_shipped_and_what_the_shop_changed_stay_told_apart_through_an_upgrade()
    {
        var then = Row(Causes, "fuel-stale").ToList();
        then[Causes.Place("fix_minutes")] = "11";
        List<TableChange> changes =
        [
            // Changed when another version shipped, changed from what ships, the shop's own, taken out, taken out and no longer shipped.
            new(Causes.Name, "fuel-stale", With(Causes, "fuel-stale", "fix_minutes", "33"), then),
            new(Causes.Name, "tank-vent-blocked", With(Causes, "tank-vent-blocked", "fix_minutes", "7"), Row(Causes, "tank-vent-blocked")),
            new(Links.Name, "fuel-stale wont-start", null, Row(Links, "fuel-stale wont-start")),
            new(Links.Name, "gone long-ago", null, ["gone", "long-ago", "always", ""]),
        ];
        var rows = new TableChanges(changes).Rows(Causes);
        Assert.Equal([RowStanding.ChangedTwice, RowStanding.Changed], rows.Take(2).Select(row => row.Standing));
        Assert.Equal(RowStanding.TakenOut, new TableChanges(changes).Rows(Links)[0].Standing);
        Assert.Equal(Links.Shipped.Count, new TableChanges(changes).Rows(Links).Count);
        Assert.Empty(KnowledgeEdit.Check(changes));
    }

    /// <summary>A row that a shop changed before the table got another column: it has there what ships, and the table is read.</summary>
    [Fact]
    public void A_row_from_before_a_column_was_added_is_read_as_it_ships_there()
    {
        var parts = KnowledgeTable.Find("strip/parts.csv")!;
        var row = parts.Shipped.Single(cells => cells[parts.Place("key")] == "filter-housing");
        var then = row.Take(parts.Place("trial")).ToList();
        List<string> mine = [.. then];
        mine[parts.Place("label")] = "filter box";
        List<string> own = [.. mine];
        own[parts.Place("key")] = "snorkel";
        own[parts.Place("order")] = "9";
        List<TableChange> changes = [new(parts.Name, parts.KeyOf(row), mine, then), new(parts.Name, parts.KeyOf(own), own, null)];
        Assert.Equal(RowStanding.Changed, new TableChanges(changes).Rows(parts).Single(one => one.Key == parts.KeyOf(row)).Standing);
        var known = Knowledge.With(changes).Of<LedgerKnowledge>().All(CarburetorFamily.FloatBowl);
        Assert.True(known.Single(part => part is { Key: "filter-housing", Label: "filter box" }).MayBeOff);
        Assert.False(known.Single(part => part.Key == "snorkel").MayBeOff);
    }

    [Fact]
    public void Changes_from_elsewhere_or_from_before_a_caution_shipped_are_held_against_what_ships_now()
    {
        TableProblem Problem(TableChange change) => Assert.Single(KnowledgeEdit.Check([change]));
        // A shop changed a check; the caution came with a later version of the product.
        var careless = With(Checks, "oil-check", "caution", "none");
        Assert.Equal("caution", Problem(new(Checks.Name, "oil-check", careless, careless)).Column);
        Assert.Contains("stays", Problem(new(Checks.Name, "oil-check", null, careless)).What, StringComparison.Ordinal);
        Assert.Contains("cells", Problem(new(Causes.Name, "fuel-stale", ["fuel-stale", "short"], null)).What, StringComparison.Ordinal);
        Assert.Contains("another key", Problem(new(Causes.Name, "other", Row(Causes, "fuel-stale"), null)).What, StringComparison.Ordinal);
        Assert.Contains("no such table", Problem(new("faults/cautions.csv", "lead-off", null, null)).What, StringComparison.Ordinal);
    }

    [Fact]
    public void A_tray_is_led_by_what_its_shop_knows()
    {
        var tray = new TestTray(null).Does(new JobNote("full"));
        var recipes = KnowledgeTable.Find("cleaning/recipes.csv")!;
        var edit = KnowledgeEdit.OfRow([], recipes, "soap", With(recipes, "soap", "minutes", "25"));
        var knowledge = Knowledge.With(edit.Changes);
        var then = new TestTray(null) { Context = tray.Context with { Knowledge = knowledge } };
        Assert.Equal(25, then.Book.State<CleaningState>().Plan.Offers.Single(offer => offer.Recipe.Key == "soap").Recipe.Minutes);
        Assert.Equal(10, tray.Book.State<CleaningState>().Plan.Offers.Single(offer => offer.Recipe.Key == "soap").Recipe.Minutes);
        Assert.Same(knowledge, Knowledge.With([.. edit.Changes]));
    }

    [Fact]
    public void What_a_tray_on_the_bench_speaks_of_is_not_taken_out()
    {
        var tray = new TestTray(Sheets.Spec).Does(new JobNote("bowl"));
        var jobs = KnowledgeTable.Find("strip/jobs.csv")!;
        var edit = KnowledgeEdit.OfRow([], jobs, "F bowl", null);
        Assert.Empty(edit.Problems);
        var orphan = Assert.Single(KnowledgeEffect.Orphans(edit, [tray.Book]));
        Assert.Contains("“bowl”", orphan.What, StringComparison.Ordinal);
        Assert.Empty(KnowledgeEffect.Orphans(edit, [new TestTray(Sheets.Spec).Does(new JobNote("full")).Book]));
    }
}
