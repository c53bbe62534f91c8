using Npgsql;

namespace BlueDawn.Server.Tests;

/// <summary>A shop, empty or the demo, on a database and a server of its own.</summary>
internal sealed record Place(string Admin, string Database, OtherServer Server) : IAsyncDisposable
{
    /// <summary>The code of its terminal.</summary>
    public const string Code = "K7QM-3XHT-9WPD";

    public static async Task<Place> NewAsync(string admin, bool demo = false)
    {
        var name = $"blue_dawn_place_{Guid.NewGuid():N}";
        await (demo ? DemoSeed.CopyAsync(admin, name) : Shop.ExecuteAsync(admin, $"create database {name}"));
        var database = new NpgsqlConnectionStringBuilder(admin) { Database = name }.ToString();
        return new Place(
            admin,
            database,
            new OtherServer(database, ("BLUE_DAWN_DEMO", demo ? "true" : "false"), ("BLUE_DAWN_SETUP_CODE", Code))
        );
    }

    public async ValueTask DisposeAsync()
    {
        await Server.DisposeAsync();
        await using (var connection = new NpgsqlConnection(Database))
        {
            NpgsqlConnection.ClearPool(connection);
        }

        await Shop.ExecuteAsync(Admin, $"drop database {new NpgsqlConnectionStringBuilder(Database).Database} with (force)");
    }
}
