using Npgsql;

namespace BlueDawn.Server.Tests.OwnShop;

/// <summary>A shop that begins empty, on a database of its own; Nessa is its first lead.</summary>
public sealed class EmptyShop : IAsyncLifetime
{
    public const string Code = "K7QM-3XHT-9WPD";
    public const string Password = "four brass floats rising";

    private readonly string name = $"blue_dawn_empty_{Guid.NewGuid():N}";
    private string admin = "";
    private OtherServer server = null!;

    public string Database { get; private set; } = "";

    /// <summary>What came of two first starts at the same moment.</summary>
    public IReadOnlyList<Answer> Starts { get; private set; } = [];

    public async ValueTask InitializeAsync()
    {
        admin = Environment.GetEnvironmentVariable("BLUE_DAWN_TEST_DATABASE")
            ?? throw new InvalidOperationException("BLUE_DAWN_TEST_DATABASE is not set; run these tests with ./test.");
        await Shop.ExecuteAsync(admin, $"create database {name}");
        Database = new NpgsqlConnectionStringBuilder(admin) { Database = name }.ToString();
        server = new OtherServer(Database, ("BLUE_DAWN_DEMO", "false"), ("BLUE_DAWN_SETUP_CODE", Code));
        var (one, other) = (server.Visit(), server.Visit());
        await Task.WhenAll(one.RefreshAsync(), other.RefreshAsync());
        Starts = await Task.WhenAll(
            one.PostAsync("/api/session/first", First("nessa")),
            other.PostAsync("/api/session/first", First("nils"))
        );
    }

    public async ValueTask DisposeAsync()
    {
        await server.DisposeAsync();
        NpgsqlConnection.ClearAllPools();
        await Shop.ExecuteAsync(admin, $"drop database {name} with (force)");
    }

    public IServiceProvider Services => server.Services;

    public Visitor Visit() => server.Visit();

    /// <summary>The first lead, signed in.</summary>
    public async Task<Visitor> LeadAsync()
    {
        var first = (string)(await Shop.ExecuteAsync(Database, "select user_name from people order by id limit 1"))!;
        return await SignInAsync(first, Password);
    }

    /// <summary>Somebody new with a role, signed in by their code.</summary>
    public async Task<(Visitor Visitor, Guid Id, string UserName)> AddAsync(string role)
    {
        var (lead, id) = (await LeadAsync(), Guid.CreateVersion7());
        var userName = "p" + id.ToString("N")[20..];
        var added = await lead.PostAsync(
            "/api/people",
            new
            {
                id,
                userName,
                displayName = "Somebody " + userName,
                initials = "SB",
                role,
            }
        );
        Assert.Equal(HttpStatusCode.OK, added.Status);
        var visitor = Visit();
        await visitor.RefreshAsync();
        Assert.Equal(
            HttpStatusCode.OK,
            (
                await visitor.PostAsync(
                    "/api/session/code",
                    new
                    {
                        userName,
                        code = added.Body.GetProperty("code").GetString(),
                        password = Password,
                    }
                )
            ).Status
        );
        await visitor.RefreshAsync();
        return (visitor, id, userName);
    }

    public async Task<Visitor> SignInAsync(string userName, string password)
    {
        var visitor = Visit();
        Assert.Equal(HttpStatusCode.OK, (await visitor.SignInAsync(userName, password)).Status);
        return visitor;
    }

    public static object First(string userName, string code = Code, string password = Password) =>
        new
        {
            code,
            shopName = "Lee Shore",
            timeZone = "Pacific/Kiritimati",
            currency = "NOK",
            labour = "612,50",
            units = "metric",
            displayName = "First " + userName,
            userName,
            password,
        };
}
