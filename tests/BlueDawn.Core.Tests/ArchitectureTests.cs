using BlueDawn.Core.Stations;

using NetArchTest.Rules;

namespace BlueDawn.Core.Tests;

public class ArchitectureTests
{
    [Fact]
    public void Core_knows_no_database_no_web_no_clock()
    {
        var result = Types.InAssembly(typeof(StationModule).Assembly)
            .ShouldNot()
            .HaveDependencyOnAny(
                "Microsoft.EntityFrameworkCore", "Microsoft.AspNetCore", "Npgsql", "BlueDawn.Store", "BlueDawn.Server",
                "System.IO.File", "System.Net", "System.TimeProvider")
            .GetResult();
        Assert.True(result.IsSuccessful, string.Join(", ", result.FailingTypeNames ?? []));
    }

    [Fact]
    public void Every_line_lives_in_the_room_of_its_station()
    {
        foreach (var line in Trays.Sheets.Lines)
        {
            Assert.Equal($"BlueDawn.Core.{line.Station}", line.GetType().Namespace);
        }
    }
}
