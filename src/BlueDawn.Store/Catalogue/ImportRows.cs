using BlueDawn.Core.Catalogue;

namespace BlueDawn.Store.Catalogue;

/// <summary>How far an import has come.</summary>
public enum ImportState
{
    /// <summary>It is being gone through.</summary>
    Running,

    /// <summary>Gone through; nothing has been changed yet.</summary>
    Checked,

    /// <summary>Done.</summary>
    Imported,

    /// <summary>It broke off; nothing has been changed.</summary>
    Failed,
}

/// <summary>An import that is going on. It belongs to the database: any server of it can say how it stands, or go on with it.</summary>
public sealed class ImportJob
{
    /// <summary>Its id, made by the page.</summary>
    public Guid Id { get; set; }

    /// <summary>Which file of the catalogue.</summary>
    public CatalogueFile File { get; set; }

    /// <summary>The file's own name.</summary>
    public string Name { get; set; } = "";

    /// <summary>How far it has come.</summary>
    public ImportState State { get; set; }

    /// <summary>What is being done while it runs.</summary>
    public ImportPhase Phase { get; set; }

    /// <summary>Rows read so far.</summary>
    public int RowsRead { get; set; }

    /// <summary>Bytes in the file.</summary>
    public long Bytes { get; set; }

    /// <summary>Bytes read so far.</summary>
    public long BytesRead { get; set; }

    /// <summary>What it would change or has changed, or null while it runs.</summary>
    public ImportReport? Report { get; set; }

    /// <summary>Whether somebody has said that the file's commas are decimal commas.</summary>
    public bool DecimalComma { get; set; }

    /// <summary>When whoever runs it was last heard of.</summary>
    public DateTimeOffset HeardAt { get; set; }
}

/// <summary>A piece of a file that is being imported.</summary>
public sealed class ImportPiece
{
    /// <summary>The import.</summary>
    public Guid JobId { get; set; }

    /// <summary>Its place in the file, from 0.</summary>
    public int Place { get; set; }

    /// <summary>The bytes.</summary>
    public byte[] Bytes { get; set; } = [];
}
