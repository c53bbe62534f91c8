using BlueDawn.Core.Logbook;
using BlueDawn.Core.Stations;
using CsCheck;

namespace BlueDawn.Core.Tests.Logbook;

public class LogTests
{
    private static readonly DateTimeOffset Start = new(2026, 11, 24, 8, 0, 0, TimeSpan.Zero);

    private static Entry Read(Guid id, int minute, Guid? supersedes = null, bool withdrawn = false, string line = "gauging/main-jet") =>
        new(
            id,
            supersedes,
            Start.AddMinutes(minute),
            "Ilse",
            withdrawn ? new WithdrawalNote() : new ReadingNote(line, TypedReading.Of(("go", "0.71")))
        );

    private static IEnumerable<Guid> Counting(IEnumerable<Entry> entries) =>
        Log.Of(entries).Notes<ReadingNote>().Select(logged => logged.EntryId);

    [Fact]
    public void A_correction_stands_for_what_it_corrects_and_the_later_of_two_readings_is_last()
    {
        var (a, b, c) = (Guid.CreateVersion7(), Guid.CreateVersion7(), Guid.CreateVersion7());
        Assert.Equal([b, c], Counting([Read(a, 1), Read(b, 2, supersedes: a), Read(c, 3)]));
    }

    [Fact]
    public void A_withdrawal_takes_a_reading_out_and_puts_nothing_in()
    {
        var (a, b) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        Assert.Empty(Counting([Read(a, 1), Read(b, 2, supersedes: a, withdrawn: true)]));
    }

    [Fact]
    public void Withdrawing_a_correction_does_not_bring_back_what_was_corrected()
    {
        var (a, b, c) = (Guid.CreateVersion7(), Guid.CreateVersion7(), Guid.CreateVersion7());
        Assert.Empty(Counting([Read(a, 1), Read(b, 2, supersedes: a), Read(c, 3, supersedes: b, withdrawn: true)]));
    }

    [Fact]
    public void Of_each_thing_the_last_that_was_said_counts()
    {
        var (a, b, c) = (Guid.CreateVersion7(), Guid.CreateVersion7(), Guid.CreateVersion7());
        var last = Log.Of([Read(a, 1), Read(b, 2, line: "gauging/idle-jet"), Read(c, 3)]).Last<ReadingNote>(note => note.Line);
        Assert.Equal([("gauging/main-jet", c), ("gauging/idle-jet", b)], last.Select(logged => (logged.Note.Line, logged.EntryId)));
    }

    [Fact]
    public void The_order_in_which_entries_arrive_does_not_matter() =>
        Gen.Int[0, 1_000_000]
            .Sample(seed =>
            {
                var ids = Enumerable.Range(0, 6).Select(_ => Guid.CreateVersion7()).ToList();
                Entry[] book =
                [
                    Read(ids[0], 1),
                    Read(ids[1], 2, supersedes: ids[0]),
                    Read(ids[2], 3),
                    Read(ids[3], 4, supersedes: ids[2], withdrawn: true),
                    Read(ids[4], 5, line: "gauging/idle-jet"),
                    Read(ids[5], 6),
                ];
                Assert.Equal([ids[1], ids[4], ids[5]], Counting(book.OrderBy(entry => HashCode.Combine(entry.Id, seed))));
            });
}
