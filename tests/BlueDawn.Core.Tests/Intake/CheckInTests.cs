using BlueDawn.Core.Intake;

namespace BlueDawn.Core.Tests.Intake;

public class CheckInTests
{
    private static readonly DateOnly Today = new(2026, 11, 24);
    private static readonly CheckIn Good = new("Boat Kittiwake", null, "Wash-down pump", "4107", "Hunts when warm", Today.AddDays(2));

    [Fact]
    public void What_is_needed_is_enough() => Assert.Empty(Good.Check(Today));

    [Fact]
    public void Each_thing_left_out_is_asked_for_by_name()
    {
        var empty = Good with { OwnerName = " ", MachineName = "", Complaint = "", PromisedDay = Today.AddDays(-1) };
        Assert.Equal(["ownerName", "machineName", "complaint", "promisedDay"], empty.Check(Today).Select(problem => problem.Field));
    }

    [Fact]
    public void Endless_text_is_refused() =>
        Assert.Equal("complaint", Assert.Single((Good with { Complaint = new string('x', 3000) }).Check(Today)).Field);

    [Fact]
    public void Today_is_a_promise_and_two_years_are_a_slip()
    {
        Assert.Empty(CheckIn.CheckPromise(Today, Today));
        Assert.NotEmpty(CheckIn.CheckPromise(Today.AddYears(2), Today));
    }
}
