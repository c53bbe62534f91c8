using System.Net.Http.Json;
using System.Net.Sockets;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
using BlueDawn.Server.Hosting;
using BlueDawn.Store;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Mvc.Testing;

namespace BlueDawn.Server.Tests.Hosting;

/// <summary>Who can reach the server, by which name, and what every answer says besides.</summary>
public class ListeningTests(Shop shop)
{
    /// <summary>A token beside words that others may choose could be guessed by the size of the answer: that one is sent as it is.</summary>
    [Fact]
    public async Task Answers_are_sent_small_and_a_session_as_it_is()
    {
        var jory = await shop.SignInAsync("jory");
        async Task<(string? Encoding, int Bytes)> Ask(string path, string accept)
        {
            using var request = new HttpRequestMessage(HttpMethod.Get, path);
            request.Headers.Add("Accept-Encoding", accept);
            using var answer = await jory.Http.SendAsync(request, TestContext.Current.CancellationToken);
            var body = await answer.Content.ReadAsByteArrayAsync(TestContext.Current.CancellationToken);
            return (answer.Content.Headers.ContentEncoding.SingleOrDefault(), body.Length);
        }

        var (plain, small) = (await Ask("/api/trays/31/trace", "identity"), await Ask("/api/trays/31/trace", "br"));
        Assert.Equal((null, "br"), (plain.Encoding, small.Encoding));
        Assert.True(small.Bytes * 4 < plain.Bytes, $"{small.Bytes} of {plain.Bytes} bytes");
        Assert.Null((await Ask("/api/session", "br")).Encoding);
    }

    [Theory]
    [InlineData("would send passwords in plain text", "BLUE_DAWN_LISTEN=0.0.0.0:5443", "BLUE_DAWN_HOSTS=bench.example")]
    [InlineData("by which names", "BLUE_DAWN_LISTEN=0.0.0.0:5443", "BLUE_DAWN_PLAIN=yes")]
    [InlineData("no address", "BLUE_DAWN_LISTEN=the-bench", "BLUE_DAWN_HOSTS=bench.example")]
    [InlineData("cannot be used", "BLUE_DAWN_LISTEN=0.0.0.0:5443", "BLUE_DAWN_HOSTS=bench.example", "BLUE_DAWN_CERTIFICATE=/nowhere.pem")]
    [InlineData("the proxy's address", "BLUE_DAWN_PROXY=somewhere")]
    [InlineData("for this machine itself", "urls=http://0.0.0.0:5080")]
    public void What_is_not_safe_or_does_not_hold_together_does_not_start(string why, params string[] settings)
    {
        var builder = WebApplication.CreateBuilder();
        foreach (var setting in settings)
        {
            builder.Configuration[setting.Split('=')[0]] = setting.Split('=', 2)[1];
        }

        Assert.Contains(why, Assert.Throws<CannotStartException>(builder.AddListening).Message, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Over_TLS_cookies_are_secure_the_browser_is_told_to_stay_and_other_names_are_refused()
    {
        using var key = RSA.Create(2048);
        var request = new CertificateRequest("CN=bench.example", key, HashAlgorithmName.SHA256, RSASignaturePadding.Pkcs1);
        using var certificate = request.CreateSelfSigned(DateTimeOffset.UtcNow.AddDays(-1), DateTimeOffset.UtcNow.AddDays(1));
        var folder = Directory.CreateTempSubdirectory();
        var (file, keyFile) = (Path.Combine(folder.FullName, "cert.pem"), Path.Combine(folder.FullName, "key.pem"));
        await File.WriteAllTextAsync(file, certificate.ExportCertificatePem(), TestContext.Current.CancellationToken);
        await File.WriteAllTextAsync(keyFile, key.ExportPkcs8PrivateKeyPem(), TestContext.Current.CancellationToken);
        var (own, open) = (FreePort(), FreePort());
        await using var factory = new WebApplicationFactory<Program>().WithWebHostBuilder(host =>
            host.UseSetting("BLUE_DAWN_DATABASE", shop.Database)
                .UseSetting("urls", $"http://127.0.0.1:{own}")
                .UseSetting("BLUE_DAWN_LISTEN", $"127.0.0.1:{open}")
                .UseSetting("BLUE_DAWN_HOSTS", "bench.example")
                .UseSetting("BLUE_DAWN_CERTIFICATE", file)
                .UseSetting("BLUE_DAWN_KEY", keyFile)
        );
        factory.UseKestrel();
        factory.StartServer();
        using var handler = new SocketsHttpHandler
        {
            // The shop's name leads to loopback here; the certificate is the one made above.
            ConnectCallback = async (_, cancel) =>
            {
                var socket = new Socket(SocketType.Stream, ProtocolType.Tcp);
                await socket.ConnectAsync(IPAddress.Loopback, open, cancel);
                return new NetworkStream(socket, ownsSocket: true);
            },
            SslOptions =
            {
                RemoteCertificateValidationCallback = (_, remote, _, _) => remote!.GetCertHashString() == certificate.GetCertHashString(),
            },
        };
        using var http = new HttpClient(handler);
        using var session = await http.GetAsync($"https://bench.example:{open}/api/session", TestContext.Current.CancellationToken);
        Assert.Equal(HttpStatusCode.OK, session.StatusCode);
        Assert.Contains("max-age=15552000", session.Headers.GetValues("Strict-Transport-Security").Single(), StringComparison.Ordinal);
        var token = (await session.Content.ReadFromJsonAsync<JsonElement>(TestContext.Current.CancellationToken))
            .GetProperty("token")
            .GetString();
        using var signIn = new HttpRequestMessage(HttpMethod.Post, $"https://bench.example:{open}/api/session")
        {
            Content = JsonContent.Create(new { userName = "jory", password = "sandrigg-quay" }),
        };
        signIn.Headers.Add("X-Blue-Dawn-Token", token);
        using var signedIn = await http.SendAsync(signIn, TestContext.Current.CancellationToken);
        Assert.Equal(HttpStatusCode.OK, signedIn.StatusCode);
        Assert.All(session.Headers.GetValues("Set-Cookie").Concat(signedIn.Headers.GetValues("Set-Cookie")), cookie =>
        {
            Assert.Contains("; secure", cookie, StringComparison.OrdinalIgnoreCase);
            Assert.Contains("; samesite=strict", cookie, StringComparison.OrdinalIgnoreCase);
            Assert.Contains("; httponly", cookie, StringComparison.OrdinalIgnoreCase);
        });
        using var other = await http.GetAsync($"https://elsewhere.example:{open}/api/session", TestContext.Current.CancellationToken);
        Assert.Equal(HttpStatusCode.BadRequest, other.StatusCode);
        folder.Delete(recursive: true);
    }

    [Fact]
    public async Task Every_answer_guards_itself_also_when_something_is_wrong()
    {
        var jory = await shop.SignInAsync("jory");
        foreach (var path in (string[])["/", "/api/bench", "/api/nothing-here", "/api/trays/99999", "/api/baths"])
        {
            using var response = await jory.Http.GetAsync(path, TestContext.Current.CancellationToken);
            Assert.Equal("nosniff", response.Headers.GetValues("X-Content-Type-Options").Single());
            Assert.Contains(
                "frame-ancestors 'none'",
                response.Headers.GetValues("Content-Security-Policy").Single(),
                StringComparison.Ordinal
            );
            Assert.Contains("geolocation=()", response.Headers.GetValues("Permissions-Policy").Single(), StringComparison.Ordinal);
            Assert.Equal("same-origin", response.Headers.GetValues("Referrer-Policy").Single());
            if (path.StartsWith("/api", StringComparison.Ordinal))
            {
                Assert.Contains(response.Headers.CacheControl!.ToString(), (string[])["no-store", "no-cache, private"]);
            }
        }
    }

    private static int FreePort()
    {
        using var probe = new TcpListener(IPAddress.Loopback, 0);
        probe.Start();
        return ((IPEndPoint)probe.LocalEndpoint).Port;
    }
}
