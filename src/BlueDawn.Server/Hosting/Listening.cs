using System.Net;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
using BlueDawn.Store;
using Microsoft.AspNetCore.HostFiltering;
using Microsoft.AspNetCore.HttpOverrides;

namespace BlueDawn.Server.Hosting;

/// <summary>
/// Where the server listens. Alone it is reached from its own machine only. BLUE_DAWN_LISTEN opens it to the shop's
/// network: with a certificate of its own, or behind a proxy that has one, or in plain text when it is told so on purpose.
/// </summary>
internal static class Listening
{
    /// <summary>An address of this machine with a port, such as <c>192.168.1.20:5443</c> or <c>0.0.0.0:5443</c>.</summary>
    private const string Listen = "BLUE_DAWN_LISTEN";

    /// <summary>A PEM file with the certificate and those it stands on.</summary>
    private const string Certificate = "BLUE_DAWN_CERTIFICATE";

    /// <summary>A PEM file with the certificate's key, when that is a file of its own.</summary>
    private const string Key = "BLUE_DAWN_KEY";

    /// <summary>The names the shop's devices call it by, with commas between.</summary>
    private const string Hosts = "BLUE_DAWN_HOSTS";

    /// <summary>The address of a proxy that speaks TLS and says for whom it asks.</summary>
    private const string Proxy = "BLUE_DAWN_PROXY";

    /// <summary>"yes" to send passwords over the network in plain text.</summary>
    private const string Plain = "BLUE_DAWN_PLAIN";

    private static readonly string[] Here = ["localhost", "127.0.0.1", "[::1]"];

    /// <summary>Sets up the addresses, the names and the proxy.</summary>
    /// <exception cref="CannotStartException">What was asked for is not safe, or does not hold together.</exception>
    public static void AddListening(this WebApplicationBuilder builder)
    {
        var settings = builder.Configuration;
        var own = Uri.TryCreate(settings["urls"], UriKind.Absolute, out var uri) ? uri : new Uri("http://127.0.0.1:5080");
        if (!IPAddress.TryParse(own.Host, out var ownAddress) || !IPAddress.IsLoopback(ownAddress))
        {
            throw new CannotStartException(
                $"--urls is for this machine itself, such as http://127.0.0.1:5080. {Listen} opens it to others."
            );
        }

        var names = (settings[Hosts] ?? "").Split(',', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);
        var network = Network(settings, names);
        builder.WebHost.ConfigureKestrel(kestrel =>
        {
            kestrel.Listen(ownAddress, own.Port);
            if (network is { } open)
            {
                kestrel.Listen(open.At, options =>
                {
                    if (open.Certificate is { } certificate)
                    {
                        options.UseHttps(certificate);
                    }
                });
            }
        });
        builder.Services.Configure<HostFilteringOptions>(options => options.AllowedHosts = [.. Here, .. names]);
        builder.Services.AddHsts(options => options.MaxAge = TimeSpan.FromDays(180));
        if (settings[Proxy] is { Length: > 0 } proxy)
        {
            var address = IPAddress.TryParse(proxy, out var known)
                ? known
                : throw new CannotStartException($"{Proxy} has to be the proxy's address, such as 127.0.0.1.");
            builder.Services.Configure<ForwardedHeadersOptions>(options =>
            {
                options.ForwardedHeaders = ForwardedHeaders.XForwardedFor | ForwardedHeaders.XForwardedProto;
                options.KnownIPNetworks.Clear();
                options.KnownProxies.Clear();
                options.KnownProxies.Add(address);
            });
        }
    }

    private static (IPEndPoint At, X509Certificate2? Certificate)? Network(ConfigurationManager settings, string[] names)
    {
        if (settings[Listen] is not { Length: > 0 } wanted)
        {
            return null;
        }

        if (!IPEndPoint.TryParse(wanted, out var at) || at.Port == 0)
        {
            throw new CannotStartException($"{Listen}={wanted} is no address of this machine with a port, such as 0.0.0.0:5443.");
        }

        if (names.Length == 0)
        {
            throw new CannotStartException($"Say in {Hosts} by which names the shop's devices call this machine, such as bench.example.");
        }

        if (settings[Certificate] is { Length: > 0 } file)
        {
            try
            {
                using var pem = X509Certificate2.CreateFromPemFile(file, settings[Key] is { Length: > 0 } key ? key : null);
                // Kept whole, so that TLS can use the key wherever it runs.
                return (at, X509CertificateLoader.LoadPkcs12(pem.Export(X509ContentType.Pkcs12), null));
            }
            catch (Exception e) when (e is CryptographicException or IOException or UnauthorizedAccessException)
            {
                throw new CannotStartException($"The certificate in {file} cannot be used: {e.Message}");
            }
        }

        return settings[Plain] == "yes"
            ? (at, null)
            : throw new CannotStartException(
                $"{Listen} without {Certificate} would send passwords in plain text. Give a certificate, put a proxy with one in "
                    + $"front (and leave {Listen} out when it runs on this machine), or set {Plain}=yes if nobody else can hear this network."
            );
    }
}
