using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Identity;
using Microsoft.Extensions.DependencyInjection;

namespace BlueDawn.Server.Tests;

/// <summary>
/// Servers of these tests make passwords unreadable with few rounds: each of some thousand sign-ins takes a fifth of a second
/// of a processor otherwise. How many a shop's server takes is held by <c>DoorTests</c>.
/// </summary>
internal static class QuickPasswords
{
    public static IWebHostBuilder WithQuickPasswords(this IWebHostBuilder host) =>
        host.ConfigureServices(services => services.PostConfigure<PasswordHasherOptions>(options => options.IterationCount = 1_000));
}
