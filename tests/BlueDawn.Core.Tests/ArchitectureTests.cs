using System.Text.RegularExpressions;
using BlueDawn.Core.Stations;
using NetArchTest.Rules;

namespace BlueDawn.Core.Tests;

public partial class ArchitectureTests
{
    [Fact]
    public void Core_knows_no_database_no_web_no_clock()
    {
        var result = Types
            .InAssembly(typeof(StationModule).Assembly)
            .ShouldNot()
            .HaveDependencyOnAny(
                "Microsoft.EntityFrameworkCore",
                "Microsoft.AspNetCore",
                "Npgsql",
                "BlueDawn.Store",
                "BlueDawn.Server",
                "System.IO.File",
                "System.Net",
                "System.TimeProvider"
            )
            .GetResult();
        Assert.True(result.IsSuccessful, string.Join(", ", result.FailingTypeNames ?? []));
    }

    [Fact]
    public void Every_line_lives_in_the_room_of_its_station()
    {
        // A look is the same thing wherever it is taken.
        foreach (var line in Trays.Sheets.LinesOfEveryFamily.Where(line => line is not LookLine))
        {
            Assert.Equal($"BlueDawn.Core.{line.Station}", line.GetType().Namespace);
        }
    }

    [Fact]
    public void Every_arrow_between_two_rooms_is_on_the_table_and_the_table_has_no_other()
    {
        var found = new SortedDictionary<string, SortedSet<string>>(StringComparer.Ordinal);
        foreach (var file in Sources("BlueDawn.Core"))
        {
            var room = Path.GetFileName(Path.GetDirectoryName(file))!;
            var to = found.TryGetValue(room, out var known) ? known : found[room] = new(StringComparer.Ordinal);
            to.UnionWith(UsedRoom().Matches(File.ReadAllText(file)).Select(match => match.Groups[1].Value).Where(other => other != room));
        }

        // What a room may know. An arrow that is gone is struck here; a new one is argued for in docs/architecture.md.
        Assert.Equal(
            RoomArrows.Allowed.Replace("\n    ", " ", StringComparison.Ordinal),
            string.Join('\n', found.Select(room => $"{room.Key}: {string.Join(' ', room.Value)}".TrimEnd()))
        );
    }

    [GeneratedRegex(@"\b(?:using BlueDawn\.Core|global::BlueDawn\.Core|Core)\.([A-Z]\w+)\b")]
    private static partial Regex UsedRoom();

    private static IEnumerable<string> Sources(string project = "") =>
        Directory
            .EnumerateFiles(Path.Combine(Repository.Root, "src", project), "*.cs", SearchOption.AllDirectories)
            .Where(file => !file.Split(Path.DirectorySeparatorChar).Any(part => part is "obj" or "bin" or "node_modules" or "Migrations"));
}
