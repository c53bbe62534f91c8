using BlueDawn.Core.Gauging;
using BlueDawn.Core.Logbook;
using CsCheck;

namespace BlueDawn.Core.Tests.Logbook;

public class StandingReadingsTests
{
    private static readonly DateTimeOffset Start = new(2026, 11, 24, 8, 0, 0, TimeSpan.Zero);

    private static LoggedReading Read(Guid id, int minute, Guid? supersedes = null, bool withdrawn = false, string line = "gauging/main-jet") =>
        new(id, line, supersedes, Start.AddMinutes(minute), withdrawn ? null : new BoreReading(0.71m, 0.73m, null, null, null));

    [Fact]
    public void A_correction_stands_for_what_it_corrects_and_the_later_of_two_readings_is_last()
    {
        var (a, b, c) = (Guid.CreateVersion7(), Guid.CreateVersion7(), Guid.CreateVersion7());
        var standing = StandingReadings.ByLine([Read(a, 1), Read(b, 2, supersedes: a), Read(c, 3)])["gauging/main-jet"];
        Assert.Equal([b, c], standing.Select(entry => entry.Id));
    }

    [Fact]
    public void A_withdrawal_takes_a_reading_out_and_puts_nothing_in()
    {
        var (a, b) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        Assert.False(StandingReadings.ByLine([Read(a, 1), Read(b, 2, supersedes: a, withdrawn: true)]).ContainsKey("gauging/main-jet"));
    }

    [Fact]
    public void Withdrawing_a_correction_does_not_bring_back_what_was_corrected()
    {
        var (a, b, c) = (Guid.CreateVersion7(), Guid.CreateVersion7(), Guid.CreateVersion7());
        Assert.Empty(StandingReadings.ByLine([Read(a, 1), Read(b, 2, supersedes: a), Read(c, 3, supersedes: b, withdrawn: true)]));
    }

    [Fact]
    public void The_order_in_which_entries_arrive_does_not_matter() =>
        Gen.Int[0, 1_000_000].Sample(seed =>
        {
            var ids = Enumerable.Range(0, 6).Select(_ => Guid.CreateVersion7()).ToList();
            LoggedReading[] book =
            [
                Read(ids[0], 1), Read(ids[1], 2, supersedes: ids[0]), Read(ids[2], 3), Read(ids[3], 4, supersedes: ids[2], withdrawn: true),
                Read(ids[4], 5, line: "gauging/idle-jet"), Read(ids[5], 6),
            ];
            var shuffled = book.OrderBy(entry => HashCode.Combine(entry.Id, seed)).ToList();
            var (straight, mixed) = (StandingReadings.ByLine(book), StandingReadings.ByLine(shuffled));
            Assert.Equal(straight.Keys.Order(), mixed.Keys.Order());
            Assert.All(straight, line => Assert.Equal(line.Value.Select(e => e.Id), mixed[line.Key].Select(e => e.Id)));
        });
}
