namespace BlueDawn.Store.Intake;

/// <summary>A photo of a tray, made anew by the server from what was sent: nothing of the original file is kept.</summary>
public sealed class Photo
{
    /// <summary>Id made by the client, UUIDv7.</summary>
    public Guid Id { get; set; }

    /// <summary>The tray.</summary>
    public Guid TrayId { get; set; }

    /// <summary>The part of the strip ledger it shows, or null for the whole carburetor.</summary>
    public string? Part { get; set; }

    /// <summary>The picture as JPEG.</summary>
    public byte[] Jpeg { get; set; } = [];

    /// <summary>Width in pixels.</summary>
    public int Width { get; set; }

    /// <summary>Height in pixels.</summary>
    public int Height { get; set; }

    /// <summary>Who took it.</summary>
    public Guid PersonId { get; set; }

    /// <summary>Their name at that time.</summary>
    public string PersonName { get; set; } = "";

    /// <summary>When the server had it.</summary>
    public DateTimeOffset AddedAt { get; set; }
}
