using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Intake;

namespace BlueDawn.Core.Tests.Intake;

public class CheckInTests
{
    private static readonly SpecSheet Diaphragm = Trays.Sheets.Spec with
    {
        Family = CarburetorFamily.Diaphragm,
        Engine = EngineKind.TwoStroke,
        Choke = ChokeKind.Manual,
    };

    /// <summary>What was said stands, of what nobody said the sheet speaks, and a sheet of another family says nothing.</summary>
    [Fact]
    public void What_nobody_said_the_sheet_of_the_stamp_says()
    {
        Assert.Equal(
            new CarburetorKind(CarburetorFamily.Diaphragm, EngineKind.TwoStroke, ChokeKind.Manual),
            CheckIn.KindOf(null, null, null, Diaphragm).Value
        );
        Assert.Equal(
            new CarburetorKind(CarburetorFamily.Diaphragm, EngineKind.FourStroke, ChokeKind.Manual),
            CheckIn.KindOf(null, EngineKind.FourStroke, null, Diaphragm).Value
        );
        Assert.Equal(
            new CarburetorKind(CarburetorFamily.FloatBowl, null, null),
            CheckIn.KindOf(CarburetorFamily.FloatBowl, null, null, Diaphragm).Value
        );
        Assert.StartsWith("Which kind is it?", CheckIn.KindOf(null, EngineKind.TwoStroke, null, null).Problem, StringComparison.Ordinal);
    }

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
