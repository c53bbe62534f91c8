using System.Net.Sockets;

namespace BlueDawn.Server.Tests;

/// <summary>Passes bytes between the server and PostgreSQL on loopback, until it is stopped.</summary>
public sealed class Relay : IAsyncDisposable
{
    private readonly string host;
    private readonly int target;
    private readonly List<TcpClient> open = [];
    private readonly Lock gate = new();
    private TcpListener? listener;

    public Relay(string host, int target)
    {
        this.host = host;
        this.target = target;
        listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        Port = ((IPEndPoint)listener.LocalEndpoint).Port;
        _ = AcceptAsync(listener);
    }

    public int Port { get; }

    /// <summary>The plug is pulled: every connection breaks and none is taken.</summary>
    public void Stop()
    {
        lock (gate)
        {
            listener?.Dispose();
            listener = null;
            open.ForEach(client => client.Dispose());
            open.Clear();
        }
    }

    /// <summary>The database is back.</summary>
    public void Start()
    {
        lock (gate)
        {
            listener = new TcpListener(IPAddress.Loopback, Port);
            listener.Start();
            _ = AcceptAsync(listener);
        }
    }

    public ValueTask DisposeAsync()
    {
        Stop();
        return ValueTask.CompletedTask;
    }

    private async Task AcceptAsync(TcpListener on)
    {
        try
        {
            while (true)
            {
                var near = await on.AcceptTcpClientAsync();
                var far = new TcpClient();
                await far.ConnectAsync(host, target);
                lock (gate)
                {
                    open.AddRange([near, far]);
                }

                _ = PassAsync(near, far);
                _ = PassAsync(far, near);
            }
        }
        catch (Exception e) when (e is SocketException or ObjectDisposedException)
        {
            // Stopped.
        }
    }

    private static async Task PassAsync(TcpClient from, TcpClient to)
    {
        try
        {
            await from.GetStream().CopyToAsync(to.GetStream());
        }
        catch (Exception e) when (e is IOException or ObjectDisposedException or InvalidOperationException)
        {
            // The other side has gone.
        }
        finally
        {
            to.Dispose();
        }
    }
}
