using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Cleaning;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Kits;
using BlueDawn.Core.Logbook;
using BlueDawn.Core.Parts;
using BlueDawn.Core.Stations;

namespace BlueDawn.Store.Logbook;

/// <summary>Columns that only rows from before notes had one shape use. Nothing is written to them any more.</summary>
public sealed class OldColumns
{
    /// <summary>The gauge line, for readings and withdrawals.</summary>
    public string? LineKey { get; set; }

    /// <summary>The reading as it was typed.</summary>
    public TypedReading? Typed { get; set; }

    /// <summary>The reading as it was understood, in base units.</summary>
    public Reading? Reading { get; set; }

    /// <summary>What was found at that time.</summary>
    public string? Finding { get; set; }

    /// <summary>A step of the trace.</summary>
    public TraceNote? Trace { get; set; }

    /// <summary>An old part as measured.</summary>
    public ItemPart? OldPart { get; set; }

    /// <summary>An entry of the ledger.</summary>
    public LedgerNote? Ledger { get; set; }

    /// <summary>An entry about cleaning.</summary>
    public CleaningNote? Cleaning { get; set; }
}

/// <summary>Reads rows from before notes had one shape. The rows stay as they are: the logbook is append-only.</summary>
public static class OldRow
{
    /// <summary>The note an old row stands for.</summary>
    /// <param name="row">A row without a note.</param>
    public static Note Upcast(LogbookEntry row) =>
        row switch
        {
            { Kind: "Reading", Old: { LineKey: { } line, Typed: { } typed, Reading: { } reading } old } => new ReadingNote(
                line,
                typed,
                reading,
                old.Finding
            ),
            { Kind: "Withdrawn" } => new WithdrawalNote(),
            { Old.Trace: { } trace } => trace,
            { Old.Ledger: { } ledger } => ledger,
            { Old.Cleaning: { } cleaning } => cleaning,
            { Old.OldPart: { } part } => new OldPartNote(part.Part, part.Quantity, part.Features, Measured: part.Features),
            _ => new WordsNote(row.Kind, row.Words),
        };
}
