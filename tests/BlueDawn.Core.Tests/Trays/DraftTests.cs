using System.Text.Json;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Cleaning;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Pages;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Shop;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Trays;

namespace BlueDawn.Core.Tests.Trays;

/// <summary>What is said while a reading is typed is what is said once it is recorded.</summary>
public sealed class DraftTests
{
    /// <summary>Trays of every family and choke, without a sheet too.</summary>
    private static IEnumerable<TestTray> Trays()
    {
        foreach (var family in Enum.GetValues<CarburetorFamily>())
        {
            foreach (var choke in Enum.GetValues<ChokeKind>())
            {
                var sheet = Sheets.Spec with { Family = family, Float = family == CarburetorFamily.FloatBowl ? Sheets.Spec.Float : null };
                var kind = new CarburetorKind(family, EngineKind.FourStroke, choke);
                yield return With(new TestTray(sheet, kind));
                yield return With(new TestTray(null, kind));
            }
        }

        static TestTray With(TestTray tray)
        {
            tray.Facts = tray.Facts with
            {
                Complaints = [new Complaint("hunts", "Hunts"), new Complaint("dies-after-minutes", "Dies after some minutes")],
                FailsAfterMin = 6,
            };
            tray.Context = tray.Context with { Shop = tray.Context.Shop with { JetSchool = JetSchool.OneStepUp } };
            return tray;
        }
    }

    /// <summary>What can stand in a logbook before a reading and bears on what a reading says.</summary>
    private static readonly Note[] Before =
    [
        new ReadingNote("gauging/idle-jet", TypedReading.Of(("go", "0.32"), ("noGo", "0.34"))),
        new ReadingNote("gauging/idle-jet/step-up", TypedReading.Of(("drill", "#80"), ("law", "lookedUp"))),
        new ReadingNote("faults/minutes-to-failure", TypedReading.Of(("minutes", "12"), ("ended", "died"))),
        new ReadingNote("proving/fuel-on", TypedReading.Of(("minutes", "1"), ("rocked", "yes"), ("leak", "newPart"))),
        new ReadingNote(
            "chokes/opening",
            TypedReading.Of(("begins", "20"), ("half", "60"), ("open", "130"), ("ambient", "10"), ("end", "ranOn"))
        ),
        new FindingsNote("owner-story", [new("hunts", Said.Present)], true),
        new FaultNote("fuel-stale", FaultOutcome.Fixed),
        new JobNote("full"),
        new DryNote(),
        new PassageNote("idle-feed", true, true),
        new BackNote("bowl", Fate.Refitted, "under-float"),
    ];

    [Fact]
    public void A_draft_says_what_its_reading_says_once_it_is_recorded_on_every_line_after_every_kind_of_note()
    {
        var draw = new Random(26);
        var lines = new HashSet<string>();
        foreach (var tray in Trays())
        {
            foreach (var note in Before.Prepend(null))
            {
                if (note is not null && tray.Refuses(note) is null)
                {
                    tray.Adds(note);
                }

                // Days later: a plunger that wept has had its time to bed in.
                var later = tray.Context with { Today = tray.Context.Today.AddDays(draw.Next(0, 4)) };
                var book = StationList.Open(tray.Facts, later, tray.Log);
                foreach (var line in book.Lines.Select(judged => judged.Line))
                {
                    if (TypedDraw.Of(line, draw) is not { } typed)
                    {
                        continue;
                    }

                    var draft = DraftJudgement.Of(new ReadingDraft(line.Key, typed), book)!;
                    var at = new DateTimeOffset(2026, 11, 2, 20, 0, 0, TimeSpan.Zero);
                    var entry = new NewEntry(Guid.CreateVersion7(at), at, new ReadingNote(line.Key, typed));
                    var written = Writing.Write(entry, book, "Ilse", at);
                    var after = StationList.Open(written.Facts, later, tray.Log.With(written.Entry));
                    var recorded = after.Lines.Single(judged => judged.Line.Key == line.Key);
                    Assert.Equal(Json(recorded.Judgement), Json(draft.Judgement));
                    Assert.Equal(Json(recorded.Reading), Json(draft.Reading));
                    lines.Add(line.Key);
                }
            }
        }

        // Nothing passes because nothing could be typed.
        Assert.True(lines.Count > 60, $"Only {lines.Count} lines were drawn for.");
        static string Json<T>(T value) => JsonSerializer.Serialize(value, CoreJson.Web);
    }

    [Fact]
    public void An_idle_jet_opened_one_step_up_is_judged_by_its_new_bore_while_it_is_typed()
    {
        var tray = TestTray.Untouched();
        tray.Context = tray.Context with { Shop = tray.Context.Shop with { JetSchool = JetSchool.OneStepUp } };
        tray.Does(new ReadingNote("gauging/idle-jet", TypedReading.Of(("go", "0.32"), ("noGo", "0.34"))))
            .Does(new ReadingNote("gauging/idle-jet/step-up", TypedReading.Of(("drill", "#80"), ("law", "lookedUp"))));
        var pins = TypedReading.Of(("go", "0.335"), ("noGo", "0.355"));
        Assert.Equal("inGauge", DraftJudgement.Of(new ReadingDraft("gauging/idle-jet", pins), tray.Book)!.Judgement!.Finding);
        // By the sheet's own bore it would be too wide.
        Assert.Equal(
            "cannotTell",
            DraftJudgement.Of(new ReadingDraft("gauging/idle-jet", pins), TestTray.Untouched().Book)!.Judgement!.Finding
        );
    }

    [Fact]
    public void A_line_that_the_tray_does_not_have_has_no_draft() =>
        Assert.Null(DraftJudgement.Of(new ReadingDraft("gauging/none", TypedReading.Of(("go", "1"))), TestTray.Untouched().Book));
}

/// <summary>Draws something that can be typed into a line's boxes.</summary>
internal static class TypedDraw
{
    private const int Tries = 300;

    private static readonly string[] Numbers =
    [
        "0",
        "0.3",
        "0.32",
        "0.34",
        "0.36",
        "0.5",
        "0.6",
        "0.71",
        "0.72",
        "1",
        "1.5",
        "2",
        "3",
        "5",
        "6.2",
        "8",
        "14",
        "14.1",
        "20",
        "48",
        "60",
        "100",
        "130",
        "1600",
        "3400",
    ];

    /// <summary>A typed reading that the line understands; null when none was found.</summary>
    public static TypedReading? Of(GaugeLine line, Random draw)
    {
        for (var i = 0; i < Tries; i++)
        {
            var form = line.Form;
            var boxes = form.Groups.Count == 0 ? [] : form.Groups[draw.Next(form.Groups.Count)].Fields;
            var typed = new TypedReading(
                UnitSystem.Metric,
                Fill(boxes, draw),
                form.Rows is { } rows ? [.. Enumerable.Range(0, rows.Fewest + draw.Next(3)).Select(_ => Fill(rows.Columns, draw))] : []
            );
            if (line.Read(typed).Reading is not null)
            {
                return typed;
            }
        }

        return null;
    }

    private static Dictionary<string, string> Fill(IReadOnlyList<EntryField> boxes, Random draw) =>
        boxes
            .Where(box => !box.Optional || draw.Next(2) == 0)
            .ToDictionary(
                box => box.Name,
                box => box.Kind == FieldKind.Choice ? box.Choices[draw.Next(box.Choices.Count)].Value : Numbers[draw.Next(Numbers.Length)]
            );
}
