using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Cleaning;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tests.Trays;

namespace BlueDawn.Core.Tests.Strip;

public sealed class LedgerTests
{
    [Fact]
    public void A_float_bowl_without_adjustable_needles_is_fourteen_lines_in_five_groups_at_most()
    {
        var simple = new Bench(
            CarburetorFamily.FloatBowl,
            Sheets.Spec with
            {
                Traits = new CarburetorTraits(18, 42, 0, "round"),
                IdleSpeed = null,
            }
        );
        simple.Does(new JobNote("full"));
        Assert.InRange(simple.Ledger.ToStrip.Count, 8, 14);
        Assert.InRange(simple.Ledger.ToStrip.Select(line => line.Part.Group).Distinct().Count(), 3, 5);
    }

    /// <summary>What only some have gets a line once it is said to be there; what it has none of is asked for nowhere.</summary>
    [Fact]
    public void What_it_has_and_has_not_is_said_once()
    {
        var bench = Bench.FloatBowl().Does(new JobNote("full"));
        Assert.Contains("insulator", bench.Ledger.ToStrip.Select(line => line.Part.Key));
        Assert.DoesNotContain("choke-link", bench.Ledger.ToStrip.Select(line => line.Part.Key));
        Assert.Contains("choke-link", bench.Ledger.Optional.Select(part => part.Key));
        Assert.Equal(bench.Ledger.Optional.OrderBy(part => part.Order), bench.Ledger.Optional);

        bench.Does(new HasNote(["choke-link"], ["insulator", "idle-jet"]));
        var strip = bench.Ledger.ToStrip.Select(line => line.Part.Key).ToList();
        Assert.Contains("choke-link", strip);
        Assert.DoesNotContain("insulator", strip);
        // Nor is it measured, nor does anything wait for it at Build.
        Assert.False(bench.Ledger.Opens("idle-jet"));
        Assert.DoesNotContain(bench.Tray.Book.Lines, line => line.Line.Key == "gauging/idle-jet" && line.IsOpen);
        Assert.Equal(
            "It has choke link; none of this: insulator, idle jet",
            Said(bench, new HasNote(["choke-link"], ["insulator", "idle-jet"]))
        );

        // It has one after all; and what came out is there whatever is said.
        bench.Does(new HasNote(["insulator"], []));
        Assert.Contains("insulator", bench.Ledger.ToStrip.Select(line => line.Part.Key));
        bench.Does(new OutNote("insulator", LineVerdict.Refit));
        Assert.Contains("has come out already", bench.Wrong(new HasNote([], ["insulator"]))[0].Message, StringComparison.Ordinal);
    }

    [Fact]
    public void What_cannot_be_had_and_not_had_is_refused()
    {
        var bench = Bench.FloatBowl().Does(new JobNote("full"));
        Assert.NotEmpty(bench.Wrong(new HasNote([], [])));
        Assert.NotEmpty(bench.Wrong(new HasNote(["flux capacitor"], [])));
        Assert.NotEmpty(bench.Wrong(new HasNote(["choke-link"], ["choke-link"])));
        // Of a part job only what comes off with it is asked.
        Assert.Equal(
            ["shut-off-plunger", "drain-bolt"],
            Bench.FloatBowl().Does(new JobNote("bowl")).Ledger.Optional.Select(part => part.Key).Where(key => key != "plunger")
        );
        Assert.Empty(Bench.FloatBowl().Does(new JobNote("closed")).Ledger.Optional);
    }

    /// <summary>The last that was said of its sheet stands on the next one, until somebody says otherwise of that.</summary>
    [Fact]
    public void What_others_of_its_sheet_had_is_where_the_next_one_starts()
    {
        var job = new JobNote("full").After([new(["choke-link"], ["insulator"]), new(["insulator", "drain-bolt"], ["choke-link"])]);
        Assert.Equal(["insulator", "drain-bolt"], job.Has!);
        Assert.Equal(["choke-link"], job.HasNot!);
        Assert.Equal(new JobNote("full"), job.AsSent());
        var bench = Bench.FloatBowl().Does(job);
        var strip = bench.Ledger.ToStrip.Select(line => line.Part.Key).ToList();
        Assert.Contains("drain-bolt", strip);
        Assert.DoesNotContain("choke-link", strip);
        Assert.DoesNotContain("drain-bolt", bench.Does(new HasNote([], ["drain-bolt"])).Ledger.ToStrip.Select(line => line.Part.Key));
    }

    [Fact]
    public void A_new_part_that_came_bad_is_out_again_and_not_back_on_the_shelf()
    {
        var bench = Bench.FloatBowl().Does(new JobNote("bowl")).Does(new OutNote("bowl-gasket", LineVerdict.Renew));
        var bad = new CameBadNote("bowl-gasket", " cut on one side ");
        Assert.Contains("Nothing new", bench.Wrong(bad)[0].Message, StringComparison.Ordinal);
        bench.Does(new BackNote("bowl-gasket", Fate.Renewed, Item: "BG-01", FromShelf: true));
        Assert.Contains("what is wrong", bench.Wrong(bad with { What = "x" })[0].Message, StringComparison.Ordinal);
        Assert.Contains("Shorten", bench.Wrong(bad with { Supplier = new string('x', 121) })[0].Message, StringComparison.Ordinal);
        Assert.Equal(
            new ShelfMove("BG-01", false) { Bad = "cut on one side", Supplier = "The chandler" },
            bench.Ledger.Moves(bad with { Supplier = " The chandler " })
        );
        Assert.Null(bench.Ledger.Moves(bad)!.Supplier);
        bench.Does(bad);
        Assert.Equal(LedgerState.Out, bench.Ledger.Find("bowl-gasket")!.State);
        Assert.Equal("BG-01", bench.Tray.Log.Notes<CameBadNote>()[0].Note.Item);
        // One that no item stands for moves nothing.
        bench.Does(new BackNote("bowl-gasket", Fate.Renewed, NearMatch: false, Elsewhere: new(Origin.OverTheCounter, "ring")));
        Assert.Null(bench.Ledger.Moves(bad));
    }

    private static string Said(Bench bench, LedgerNote note) => bench.Ledger.Say(note, []).ToString();

    [Fact]
    public void Parts_follow_the_spec_sheet()
    {
        var knowledge = LedgerKnowledge.Shipped;
        IEnumerable<string> Keys(SpecSheet? spec, bool sure) =>
            knowledge
                .Expected(new CarburetorKind(CarburetorFamily.FloatBowl, null, null), spec)
                .Where(part => part.Sure == sure)
                .Select(part => part.Key);

        Assert.Contains("idle-jet", Keys(Sheets.Spec, true));
        Assert.DoesNotContain("idle-jet", Keys(Sheets.Spec with { Jets = [] }, true));
        Assert.DoesNotContain("plunger", Keys(Sheets.Spec, true));
        Assert.Contains(
            "plunger",
            Keys(Sheets.Spec with { Needs = [new PartNeed("plunger seat", 1, new Dictionary<string, string>())] }, true)
        );
        Assert.Contains("idle-jet", Keys(null, false)); // nothing says so without a sheet
        Assert.Contains("bowl", Keys(null, true));
    }

    [Fact]
    public void Every_line_comes_out_and_ends()
    {
        var bench = Bench.FloatBowl().Strips();
        Assert.Empty(bench.Ledger.ToStrip);
        Assert.Equal(bench.Ledger.Lines.Count, bench.Ledger.Open.Count);
        Assert.StartsWith($"{bench.Ledger.Open.Count} lines of the ledger are open", bench.WhyNotProven, StringComparison.Ordinal);
        bench.BuildsUpTo("nothing");
        Assert.Empty(bench.Ledger.Open);
        Assert.Empty(bench.Problems);
        Assert.Null(bench.WhyNotProven);
    }

    /// <summary>The gasket between carburetor and engine is renewed each time it comes off; out of stock it is cut from sheet. Common
    /// practice, no source.</summary>
    [Fact]
    public void The_intake_gasket_does_not_go_back_by_default()
    {
        var bench = Bench.FloatBowl().Strips().BuildsUpTo("intake-gasket");
        Assert.Contains("cut one from sheet", bench.Refuses(new BackNote("intake-gasket", Fate.Refitted, "up")), StringComparison.Ordinal);
        bench
            .Does(new BackNote("intake-gasket", Fate.Refitted, "up", Reason: "Fitted last week, not a mark on it"))
            .Does(new UndoNote("intake-gasket"));
        bench.Does(new BackNote("intake-gasket", Fate.Made, "up"));
        Assert.Equal("intake gasket", bench.Ledger.Find("intake-gasket")!.Part.KitPart);
        Assert.Equal("sheet gasket", Core.Catalogue.PartKnowledge.Shipped.Find("intake gasket")!.Make!.What);
    }

    [Fact]
    public void What_has_not_come_out_cannot_go_back_and_what_is_back_cannot_go_back_twice()
    {
        var bench = Bench.FloatBowl().Does(new JobNote("full"));
        Assert.Equal("It has not come out.", bench.Refuses(new BackNote("bowl", Fate.Refitted)));
        bench.Does(new OutNote("bowl", LineVerdict.Clean)).Does(new BackNote("bowl", Fate.Refitted, "under-float"));
        Assert.Equal("It is back in already. Take it out first.", bench.Refuses(new BackNote("bowl", Fate.Refitted)));
        Assert.Equal("It is back in. Take that back first.", bench.Refuses(new OutNote("bowl", LineVerdict.Clean)));
    }

    [Fact]
    public void Taking_back_goes_one_step_at_a_time()
    {
        var bench = Bench
            .FloatBowl()
            .Does(new JobNote("full"))
            .Does(new OutNote("bowl", LineVerdict.Clean))
            .Does(new BackNote("bowl", Fate.Refitted));
        Assert.Equal(LedgerState.Back, bench.Ledger.Find("bowl")!.State);
        bench.Does(new UndoNote("bowl"));
        Assert.Equal(LedgerState.Out, bench.Ledger.Find("bowl")!.State);
        bench.Does(new UndoNote("bowl"));
        Assert.Equal(LedgerState.Expected, bench.Ledger.Find("bowl")!.State);
        Assert.Contains("Nothing has been said", bench.Refuses(new UndoNote("bowl")), StringComparison.Ordinal);
    }

    [Fact]
    public void A_missing_part_is_open_until_something_takes_its_place_or_somebody_signs()
    {
        var bench = Bench.Diaphragm().Does(new JobNote("full")).Does(new OutNote("inlet-screen", LineVerdict.Missing));
        Assert.Equal(LedgerState.Missing, bench.Ledger.Find("inlet-screen")!.State);
        Assert.StartsWith("It was missing", bench.Refuses(new BackNote("inlet-screen", Fate.Refitted)), StringComparison.Ordinal);
        Assert.Contains("which kit or item", bench.Refuses(new BackNote("inlet-screen", Fate.Renewed)), StringComparison.Ordinal);
        Assert.Contains(
            "at least 10 characters",
            bench.Refuses(new BackNote("inlet-screen", Fate.LeftOff, Reason: "no")),
            StringComparison.Ordinal
        );
        bench.Does(new BackNote("inlet-screen", Fate.LeftOff, Reason: "Filter in the line instead, owner knows"));
        Assert.Empty(bench.Ledger.Open);
        Assert.False(bench.Ledger.Find("inlet-screen")!.IsIn);
    }

    [Fact]
    public void What_was_found_to_be_no_good_goes_back_only_with_a_reason()
    {
        var bench = Bench.FloatBowl().Does(new JobNote("full")).Does(new OutNote("needle", LineVerdict.Renew));
        Assert.Contains("Say why", bench.Refuses(new BackNote("needle", Fate.Refitted)), StringComparison.Ordinal);
        bench.Does(new BackNote("needle", Fate.Refitted, Reason: "New one is the wrong length"));
    }

    [Fact]
    public void What_does_not_belong_is_thrown_out_and_what_belongs_is_not()
    {
        var bench = Bench
            .FloatBowl()
            .Does(new JobNote("full"))
            .Does(new OutNote("extra:1", LineVerdict.Added, Label: "wedge in the choke", From: "throat"));
        Assert.Equal("wedge in the choke", bench.Ledger.Find("extra:1")!.Part.Label);
        Assert.Contains("does not belong", bench.Refuses(new BackNote("extra:1", Fate.Renewed, Item: "X")), StringComparison.Ordinal);
        bench.Does(new BackNote("extra:1", Fate.Scrapped)).Does(new OutNote("bowl", LineVerdict.Clean));
        Assert.Contains("left off", bench.Refuses(new BackNote("bowl", Fate.Scrapped)), StringComparison.Ordinal);
        Assert.Contains("say what it is", bench.Refuses(new OutNote("extra:2", LineVerdict.Added)), StringComparison.Ordinal);
    }

    [Fact]
    public void A_small_job_leaves_the_rest_alone()
    {
        var bench = Bench.FloatBowl().Strips("main-jet");
        Assert.Equal(["bowl-nut", "bowl", "bowl-gasket", "main-jet", "emulsion-tube"], bench.Ledger.Taken.Select(line => line.Part.Key));
        bench.BuildsUpTo("nothing");
        Assert.Null(bench.WhyNotProven);
        Assert.All(bench.Ledger.Lines.Where(line => !line.InJob), line => Assert.Equal(LedgerState.Expected, line.State));
    }

    [Fact]
    public void The_next_step_follows_the_work()
    {
        var bench = Bench.FloatBowl();
        NextStep? At(Station station) => bench.StepAt(station);
        Assert.StartsWith("Brush the outside clean, then say how far", At(Station.Strip)!.Do.Text, StringComparison.Ordinal);
        bench.Does(new JobNote("full"));
        Assert.Equal("Take off: filter housing.", At(Station.Strip)!.Do.Text);
        Assert.Null(At(Station.Cleaning));
        foreach (var line in bench.Ledger.ToStrip)
        {
            bench.Does(new OutNote(line.Part.Key, LineVerdict.Clean));
        }

        Assert.Null(At(Station.Strip));
        Assert.Equal("Say what has to come off.", At(Station.Cleaning)!.Do.Text);
        bench.Cleans(new SoilsNote(["varnish"]));
        Assert.Equal("Choose: heated bath, water-based.", At(Station.Cleaning)!.Do.Text);
        bench.Cleans(new MethodNote("bath", MethodStep.Done));
        Assert.Equal("Choose: warm soapy water and a soft brush.", At(Station.Cleaning)!.Do.Text);
        bench.Cleans(new MethodNote("soap", MethodStep.Done));
        Assert.Equal("Rinse, blow out and dry.", At(Station.Cleaning)!.Do.Text);
        bench.Cleans(new DryNote());
        Assert.StartsWith("Fuel inlet: air in", At(Station.Cleaning)!.Do.Text, StringComparison.Ordinal);
        foreach (var passage in bench.Cleaning.Passages)
        {
            bench.Cleans(new PassageNote(passage.Passage.Key, true, true));
        }

        Assert.Null(At(Station.Cleaning));
        Assert.Equal("Fit: idle jet.", At(Station.Build)!.Do.Text);
        bench.BuildsUpTo("seat");
        Assert.Equal("Fit: inlet seat, groove into the body.", At(Station.Build)!.Do.Text);
        bench.Does(new BackNote("seat", Fate.Refitted, "outward"));
        Assert.StartsWith("Take it out again", At(Station.Build)!.Do.Text, StringComparison.Ordinal);
        bench.Tray.Adds(new BasketNote("Heated bath", 1, true));
        Assert.StartsWith("In the bath", At(Station.Cleaning)!.Do.Text, StringComparison.Ordinal);
    }

    [Fact]
    public void Nothing_taken_apart_stops_nobody()
    {
        Assert.Null(Bench.FloatBowl().WhyNotProven);
        Assert.Null(Bench.FloatBowl().Does(new JobNote("closed")).WhyNotProven);
    }

    [Theory]
    [InlineData(0, "0")]
    [InlineData(1, "⅛")]
    [InlineData(8, "1")]
    [InlineData(10, "1¼")]
    [InlineData(23, "2⅞")]
    public void Turns_are_written_in_eighths(int eighths, string text) => Assert.Equal(text, Turns.Text(eighths));

    [Theory]
    [InlineData(-1)]
    [InlineData(81)]
    public void Turns_nobody_can_have_counted_are_refused(int eighths) =>
        Assert.Contains(
            "turns from 0",
            Bench.FloatBowl().Does(new JobNote("full")).Refuses(new OutNote("idle-needle", LineVerdict.Refit, TurnsEighths: eighths)),
            StringComparison.Ordinal
        );

    [Fact]
    public void Heads_of_screws_are_kept_in_words_and_not_without_end()
    {
        Assert.Contains(
            "10 mm, two",
            new OutNote("filter-housing", LineVerdict.Clean, Heads: "10 mm, two").Say("filter housing", []).Text,
            StringComparison.Ordinal
        );
        Assert.Contains(
            "characters",
            Bench.FloatBowl().Does(new JobNote("full")).Refuses(new OutNote("filter-housing", LineVerdict.Clean, Heads: new('x', 201))),
            StringComparison.Ordinal
        );
    }

    [Theory]
    [InlineData("a,b\n1,2,3\n")]
    [InlineData("a,b\n1\n")]
    public void A_table_whose_row_has_other_cells_than_its_heading_is_refused(string table) =>
        Assert.Throws<Core.Tables.TableException>(() =>
            Core.Tables.CsvTable.Rows(_ => new StringReader(table), "t.csv", row => row.Text("a"))
        );

    [Fact]
    public void Not_counted_is_an_answer() =>
        Assert.Contains(
            "turns not counted",
            new OutNote("idle-needle", LineVerdict.Refit, NotCounted: true).Say("idle mixture screw", []).Text,
            StringComparison.Ordinal
        );

    [Theory]
    [InlineData("insulator", "down", "insulator-wrong-way")]
    [InlineData("seat", "outward", "earlier-work")]
    public void A_part_found_the_wrong_way_round_is_a_finding(string part, string way, string finding)
    {
        var bench = Bench.FloatBowl().Does(new JobNote("full")).Does(new OutNote(part, LineVerdict.Refit, Way: way));
        Assert.Contains(bench.Signs, sign => sign.FindingId == finding && sign.Source == $"strip/{part}");
    }

    [Fact]
    public void A_part_found_the_right_way_round_is_none() =>
        Assert.Empty(Bench.FloatBowl().Does(new JobNote("full")).Does(new OutNote("insulator", LineVerdict.Refit, Way: "up")).Signs);

    [Theory]
    [InlineData(2, "screws-in")] // a quarter out of the usual one turn
    [InlineData(14, "screws-out")]
    public void Screws_far_from_where_they_start_are_a_finding(int eighths, string finding) =>
        Assert.Equal(
            finding,
            Assert
                .Single(
                    Bench
                        .FloatBowl()
                        .Does(new JobNote("full"))
                        .Does(new OutNote("idle-needle", LineVerdict.Refit, TurnsEighths: eighths))
                        .Signs
                )
                .FindingId
        );

    [Fact]
    public void Screws_near_it_are_none() =>
        Assert.Empty(
            Bench.FloatBowl().Does(new JobNote("full")).Does(new OutNote("idle-needle", LineVerdict.Refit, TurnsEighths: 10)).Signs
        );

    [Fact]
    public void A_finding_stays_when_the_part_has_gone_back_right()
    {
        var bench = Bench
            .FloatBowl()
            .Does(new JobNote("full"))
            .Does(new OutNote("insulator", LineVerdict.Refit, Way: "down"))
            .Does(new BackNote("insulator", Fate.Refitted, "up"));
        Assert.Contains(bench.Signs, sign => sign.FindingId == "insulator-wrong-way");
    }

    [Fact]
    public void Every_sign_is_a_finding_the_trace_knows() =>
        Assert.All(LedgerKnowledge.Shipped.Signs, sign => Assert.NotNull(Core.Faults.FaultKnowledge.Shipped.FindFinding(sign.FindingId)));

    [Fact]
    public void Every_kit_part_is_one_the_bench_can_compare() =>
        Assert.All(
            Enum.GetValues<CarburetorFamily>().SelectMany(LedgerKnowledge.Shipped.All).Where(part => part.KitPart is not null),
            part => Assert.NotNull(Core.Catalogue.PartKnowledge.Shipped.Find(part.KitPart!))
        );

    [Theory]
    [InlineData("bowl-gasket", LineVerdict.Renew)]
    [InlineData("bowl-gasket", LineVerdict.Missing)]
    [InlineData("bowl", LineVerdict.Clean)]
    [InlineData("bowl", LineVerdict.DoesNotBelong)]
    public void What_is_offered_for_a_part_is_taken_and_what_is_not_offered_is_refused(string part, LineVerdict found)
    {
        var bench = Bench.FloatBowl().Does(new JobNote("full")).Does(new OutNote(part, found));
        var line = bench.Ledger.Find(part)!;
        Assert.NotEmpty(line.Fates);
        foreach (var fate in Enum.GetValues<Fate>())
        {
            var wrong = bench.Wrong(
                new BackNote(part, fate, part == "bowl" ? "under-float" : null, "CK-1", Reason: "The owner wants it so")
            );
            // What a kit can bring may be bought singly too, so a new one is never refused for want of a kit part.
            Assert.True(
                line.Fates.Contains(fate) == (wrong.Count == 0) || (fate == Fate.Renewed && line.Part.KitPart is null && !line.IsStrange),
                $"{fate}: {string.Join(' ', wrong)}"
            );
        }
    }

    /// <summary>A broken spring is in no kit: what goes in is the same one or near to it, and which of the two is said.</summary>
    [Fact]
    public void A_spring_that_is_in_no_kit_is_renewed_as_the_same_or_as_a_near_match()
    {
        var bench = Bench.FloatBowl().Does(new JobNote("closed")).Does(new OutNote("governor-spring", LineVerdict.Broken));
        Assert.Contains(Fate.Renewed, bench.Ledger.Find("governor-spring")!.Fates);
        Assert.Equal("note.nearMatch", Assert.Single(bench.Ledger.Check(new BackNote("governor-spring", Fate.Renewed), bench.Jobs)).Field);
        bench.Does(new BackNote("governor-spring", Fate.Renewed, NearMatch: true));
        Assert.Contains("a near match", bench.Ledger.Say(bench.Ledger.Notes[^1].Note, bench.Jobs).Text, StringComparison.Ordinal);
        // What a kit holds is still from a kit or an item, whatever is said of its likeness.
        bench.Does(new OutNote("bowl-gasket", LineVerdict.Renew));
        Assert.Equal(
            "note.item",
            Assert.Single(bench.Ledger.Check(new BackNote("bowl-gasket", Fate.Renewed, NearMatch: true), bench.Jobs)).Field
        );
    }
}
