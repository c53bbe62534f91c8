using System.Text.RegularExpressions;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Cleaning;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Handover;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tables;
using BlueDawn.Core.Trays;

namespace BlueDawn.Core.Tests.Trays;

/// <summary>What is unsafe holds at every station until it is settled, wherever it was entered. Common practice, no source.</summary>
public sealed class DangerTests
{
    private static readonly ReadingNote GovernedSpeed = Reads("proving/governed-speed", ("speed", "3000"));

    private static ReadingNote Reads(string line, params (string Field, string Value)[] typed) => new(line, TypedReading.Of(typed));

    private static ReadingNote Looks(string look, string value) => Reads(look, ("seen", value));

    private static FindingsNote Found(string finding, Said said = Said.Present, string? check = null, bool owner = false) =>
        new(check, [new FindingAnswer(finding, said)], owner);

    private static ReadingNote Fuel(string leak) => Reads("proving/fuel-on", ("minutes", "5"), ("rocked", "yes"), ("leak", leak));

    private static ReleaseNote Signed(params string[] dangers) =>
        new(
            "It is needed on the boat tonight",
            Dangers: [.. dangers.Select(id => new SignedDanger(id, "He will not start it before it is mended"))]
        )
        {
            Signer = "Ilse",
        };

    [Fact]
    public void A_dead_stop_switch_and_a_hanging_throttle_at_trace_stop_prove_and_hand_back()
    {
        var tray = TestTray.Untouched().Does(Found("stop-switch-dead")).Does(Found("throttle-wont-return"));
        Assert.Equal(RefusalKind.Conflict, tray.Refuses(GovernedSpeed)!.Kind);
        Assert.Contains("cannot be stopped", tray.Refuses(GovernedSpeed)!.Detail, StringComparison.Ordinal);
        Assert.Equal(["stop-switch", "throttle"], tray.Book.Dangers.Select(one => one.Danger.Id));
        // Nobody signs for an engine that cannot be stopped.
        Assert.Contains("cannot be stopped", tray.Refuses(Signed("stop-switch", "throttle"))!.Title, StringComparison.Ordinal);

        // Mended is not yet tried: what was put right is looked at again.
        tray.Does(new FaultNote(FaultKnowledge.Shipped.Causes[0].Id, FaultOutcome.Fixed));
        Assert.NotNull(tray.Refuses(GovernedSpeed));
        tray.Does(Looks("proving/stop-switch", "sound"));
        Assert.Contains("does not return", tray.Refuses(GovernedSpeed)!.Detail, StringComparison.Ordinal);
        tray.Does(Looks("chokes/throttle-returns", "returns"));
        Assert.Empty(tray.Book.Dangers);
        Assert.Null(tray.Refuses(GovernedSpeed));
    }

    [Fact]
    public void Each_danger_that_can_be_signed_for_has_its_own_reason()
    {
        var tray = TestTray.Untouched().Does(Looks("proving/guards", "guardMissing")).Does(Found("fuel-in-oil"));
        Assert.Equal(["oil", "guard"], tray.Book.Dangers.Select(one => one.Danger.Id));
        Assert.Contains(tray.Refuses(Signed("guard"))!.Fields, field => field.Field == "note.dangers.oil");
        Assert.DoesNotContain(tray.Refuses(Signed("guard"))!.Fields, field => field.Field == "note.dangers.guard");
    }

    [Theory]
    [InlineData("wet-at-bowl-joint")]
    [InlineData("wet-at-tap")]
    [InlineData("leaks-fuel")]
    [InlineData("liquid-in-intake")]
    public void Fuel_in_the_open_runs_nothing_until_it_was_watched_dry(string finding)
    {
        var tray = TestTray.Untouched().Does(Found(finding, owner: finding == "leaks-fuel"));
        Assert.NotNull(tray.Refuses(GovernedSpeed));
        Assert.NotNull(tray.Refuses(Found("spark-lost-hot", Said.Absent, "hot-run")));
        // A glance that is too short decides nothing, and a doubtful no is no all-clear.
        tray.Does(Reads("proving/fuel-on", ("minutes", "1"), ("rocked", "yes"), ("leak", "dry")));
        tray.Does(new FindingsNote(null, [new FindingAnswer(finding, Said.Absent, true)]));
        Assert.NotNull(tray.Refuses(GovernedSpeed));
        tray.Does(Fuel("dry"));
        Assert.DoesNotContain(tray.Book.Dangers, one => one.Danger.Id == "open-leak");
    }

    [Fact]
    public void A_new_part_that_weeps_is_a_leak_and_a_reading_taken_back_is_none()
    {
        var tray = TestTray.Renewed().Does(Fuel("newPart"));
        Assert.Contains("Bedding in", string.Join(' ', tray.Book.Dangers.Single().Shown), StringComparison.OrdinalIgnoreCase);
        tray = TestTray.Untouched().Does(Fuel("bowlJoint"), out var wrong);
        Assert.Single(tray.Book.Dangers);
        Assert.Empty(tray.Does(new WithdrawalNote(), wrong).Book.Dangers);
    }

    [Fact]
    public void Oil_with_fuel_in_it_stands_until_it_is_changed()
    {
        var tray = TestTray.Untouched().Does(Found("fuel-in-oil")).Does(Found("oil-over-mark"));
        Assert.Equal("oil", Assert.Single(tray.Book.Dangers).Danger.Id);
        Assert.Empty(tray.Does(new SafetyNote(SafetyCondition.OilChanged)).Book.Dangers);
        Assert.Single(tray.Does(Found("fuel-in-oil")).Book.Dangers);
        var twoStroke = new TestTray(null, new CarburetorKind(CarburetorFamily.Diaphragm, EngineKind.TwoStroke, null));
        Assert.Empty(twoStroke.Does(Found("fuel-in-oil")).Book.Dangers);
        Assert.Single(twoStroke.Does(Found("stop-switch-dead")).Book.Dangers);
        // Oil that only smokes is not in the list; it is read before the engine runs.
        Assert.Empty(TestTray.Untouched().Does(Found("oil-smoke")).Book.Dangers);
    }

    [Fact]
    public void What_nobody_can_sign_for_goes_only_as_declined_and_not_to_be_run()
    {
        var tray = TestTray.Untouched().Does(Fuel("bowlJoint"));
        Assert.Equal(RefusalKind.Conflict, tray.Refuses(Signed("open-leak"))!.Kind);
        tray.Fits(new Fitting(FitOption.Decline, "Not repaired", [], [], null, 0));
        Assert.Contains(tray.Refuses(Signed("open-leak"))!.Fields, field => field.Field == "note.notToBeRun");
        Assert.Contains(tray.Refuses(new ReleaseNote("It goes as it came", NotToBeRun: true))!.Fields, field =>
            field.Field == "note.dangers.open-leak"
        );
        tray.Does(Signed("open-leak") with { NotToBeRun = true });
        var signed = tray.Book.State<HandoverState>().Signed!;
        Assert.Equal("open-leak", Assert.Single(signed.Dangers!).Danger);
        Assert.Contains("Fuel in the open", signed.Dangers![0].What!, StringComparison.Ordinal);
    }

    [Fact]
    public void To_decline_clears_no_danger_and_gets_nobody_round_what_was_repaired()
    {
        var decline = new Fitting(FitOption.Decline, "Not repaired", [], [], null, 0);
        Assert.Equal(
            "stop-switch",
            Assert.Single(TestTray.Untouched().Does(Found("stop-switch-dead")).Fits(decline).Book.Dangers).Danger.Id
        );
        // Nothing was done and nothing is unsafe: it goes as it came.
        Assert.Null(TestTray.Untouched().Fits(decline).Refuses(new ReleaseNote()));
        var repaired = new TestTray(Sheets.Spec).Does(new JobNote("bowl"));
        foreach (var part in new[] { "bowl-nut", "bowl", "bowl-gasket" })
        {
            repaired.Adds(new OutNote(part, LineVerdict.Refit));
        }

        foreach (var part in new[] { "bowl-gasket", "bowl", "bowl-nut" })
        {
            repaired.Adds(new BackNote(part, part == "bowl-gasket" ? Fate.Renewed : Fate.Refitted));
        }

        Assert.NotEmpty(repaired.Fits(decline).Book.OpenElsewhere);
    }

    [Theory]
    [InlineData("needle", "inlet-open")]
    [InlineData("bowl-gasket", "fuel-joint-open")]
    [InlineData("throttle-spring", "throttle")]
    public void A_part_left_off_is_a_danger_until_it_is_in(string part, string danger)
    {
        var tray = new TestTray(Sheets.Spec).Does(new JobNote("full"));
        tray.Adds(new OutNote(part, LineVerdict.Refit));
        tray.Adds(new BackNote(part, Fate.LeftOff, Reason: "It was not there"));
        Assert.Equal(danger, Assert.Single(tray.Book.Dangers).Danger.Id);
        tray.Adds(new UndoNote(part)).Adds(new BackNote(part, Fate.Refitted));
        Assert.Empty(tray.Book.Dangers);
    }

    [Fact]
    public void What_comes_next_never_runs_an_engine_that_is_unsafe()
    {
        var tray = TestTray.Untouched().Reads(Sheets.AllGood()).Does(Looks("proving/guards", "guardMissing"));
        Assert.Equal("guard", Assert.Single(tray.Book.Dangers).Danger.Id);
        Assert.NotEqual(Core.Safety.Caution.Running, tray.Next.Caution);
    }

    [Fact]
    public void No_cause_and_a_cause_do_not_stand_together()
    {
        var cause = FaultKnowledge.Shipped.Causes[0].Id;
        var none = new FaultNote(null, FaultOutcome.NothingFound);
        var tray = TestTray.Untouched().Does(Found("hunts")).Does(none);
        Assert.True(tray.Book.State<FaultsState>().Evidence.NothingFound);
        tray.Does(new FaultNote(cause, FaultOutcome.Fixed));
        Assert.False(tray.Book.State<FaultsState>().Evidence.NothingFound);
        Assert.Equal(RefusalKind.Conflict, tray.Refuses(none)!.Kind);
        Assert.Null(tray.Does(new FaultNote(cause, FaultOutcome.NotIt)).Refuses(none));
    }

    [Fact]
    public void A_passage_that_was_cleaned_is_no_nothing_was_cleaned()
    {
        var tray = new TestTray(Sheets.Spec).Does(new JobNote("full"));
        Assert.Contains("Nothing was cleaned.", Policy.NotDone(tray.Book));
        var passage = tray.Book.State<CleaningState>().Plan.Passages[0].Passage.Key;
        Assert.DoesNotContain("Nothing was cleaned.", Policy.NotDone(tray.Adds(new PassageNote(passage, true, true)).Book));
    }

    [Theory]
    [InlineData("primer-cracked")]
    [InlineData("liquid-in-intake")]
    [InlineData("throttle-stiff")]
    [InlineData("stop-switch-dead")]
    public void No_trace_runs_what_is_unsafe(string danger)
    {
        var would = 0;
        foreach (var story in new[] { "hunts", "low-power", "wont-rev", "dies-after-minutes", "runs-only-choked" })
        {
            var tray = new TestTray(Sheets.Spec).Does(Found(story, check: "owner-story", owner: true)).Does(Safe());
            for (var step = 0; step < 12 && tray.Book.State<FaultsState>().Trace.Next is { CheckId: { } id, Asks: var asks }; step++)
            {
                if (Runs(id))
                {
                    // It would run now; with the danger it does not, whatever the trace would ask.
                    would++;
                    tray.Does(Found(danger));
                    var next = tray.Book.State<FaultsState>().Trace.Next;
                    Assert.True(
                        next.CheckId is null
                            || !Runs(next.CheckId)
                            || tray.Next.Do.Text.StartsWith(tray.Book.Dangers[0].Danger.Label, StringComparison.Ordinal)
                    );
                    Assert.NotNull(tray.Refuses(new FindingsNote(id, [new FindingAnswer(asks[0], Said.Absent)])));
                    break;
                }

                tray.Does(new FindingsNote(id, [.. asks.Select(finding => new FindingAnswer(finding, Said.Absent))]));
            }
        }

        Assert.True(would > 0, "no trace came to a run");
    }

    private static bool Runs(string check) => FaultKnowledge.Shipped.FindCheck(check)!.State == CheckState.Running;

    /// <summary>What has to be so before it runs is looked at, and is so.</summary>
    private static FindingsNote Safe() =>
        new(
            "before-it-runs",
            [.. FaultKnowledge.Shipped.FindCheck("before-it-runs")!.Reveals.Select(finding => new FindingAnswer(finding, Said.Absent))]
        );

    [Fact]
    public void Every_sign_of_the_list_can_be_entered()
    {
        var known = Enterable().Select(one => one.Sign).ToHashSet();
        Assert.All(Dangers.Signs.Where(sign => !sign.Sign.StartsWith("note:", StringComparison.Ordinal)), sign =>
            Assert.Contains(sign.Sign, known)
        );
        // Each can come about.
        Assert.All(Dangers.All, danger => Assert.Contains(Dangers.Signs, sign => sign.Danger == danger && sign.IsThere));
    }

    [Fact]
    public void Whatever_can_be_found_wrong_is_a_danger_or_harmless_because()
    {
        var harmless = CsvTable
            .Rows(CsvTable.OpenShipped, "safety/harmless.csv", row => (Signs: row.Text("signs").Split(' '), Because: row.Text("because")))
            .SelectMany(row => row.Signs)
            .Select(sign => (Sign: sign, Pattern: new Regex($"^{Regex.Escape(sign).Replace("\\*", ".*", StringComparison.Ordinal)}$")))
            .ToList();
        var dangers = Dangers.Signs.Where(sign => sign.IsThere).Select(sign => sign.Sign).ToHashSet();
        var wrong = Enterable().Where(one => one.IsWrong).Select(one => one.Sign).Distinct().ToList();
        Assert.DoesNotContain(wrong, sign => !dangers.Contains(sign) && !harmless.Any(row => row.Pattern.IsMatch(sign)));
        // A row that nothing needs hides what was meant.
        Assert.DoesNotContain(harmless, row => !wrong.Any(sign => !dangers.Contains(sign) && row.Pattern.IsMatch(sign)));
    }

    /// <summary>Everything that can be answered, read or left off, of every family.</summary>
    private static IEnumerable<(string Sign, bool IsWrong)> Enterable() =>
        [
            .. FaultKnowledge.Shipped.Findings.Select(finding => ($"finding:{finding.Id}", true)),
            .. Sheets.LinesOfEveryFamily.SelectMany(line =>
                line.Findings.Select(finding => ($"line:{line.Key}={finding.Id}", finding.Verdict == Verdict.NotGood))
            ),
            .. Enum.GetValues<CarburetorFamily>()
                .SelectMany(family => Knowledge.Shipped.Of<LedgerKnowledge>().All(family))
                .Select(part => ($"part:{part.Key}", true)),
        ];
}
