using Microsoft.AspNetCore.Mvc.Testing;

namespace BlueDawn.Server.Tests;

/// <summary>Another server on a database that one works on already.</summary>
public sealed class OtherServer(string database, params (string Name, string Value)[] settings) : IAsyncDisposable
{
    private readonly WebApplicationFactory<Program> factory = new WebApplicationFactory<Program>().WithWebHostBuilder(host =>
    {
        host.WithQuickPasswords().UseSetting("BLUE_DAWN_DATABASE", database);
        foreach (var (name, value) in settings)
        {
            host.UseSetting(name, value);
        }
    });

    public IServiceProvider Services => factory.Services;

    public Visitor Visit() =>
        new(factory.CreateClient(new WebApplicationFactoryClientOptions { BaseAddress = new Uri("http://localhost") }));

    public async Task<Visitor> SignInAsync(string userName)
    {
        var visitor = Visit();
        await visitor.SignInAsync(userName, "sandrigg-quay");
        return visitor;
    }

    public ValueTask DisposeAsync() => factory.DisposeAsync();
}
