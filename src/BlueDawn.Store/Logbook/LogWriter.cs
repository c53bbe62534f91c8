using BlueDawn.Core.Faults;
using BlueDawn.Core.Trays;
using BlueDawn.Store.People;
using BlueDawn.Store.Trays;

namespace BlueDawn.Store.Logbook;

/// <summary>Adds entries to a tray's logbook and keeps in step what the tray's row holds of them.</summary>
public static class LogWriter
{
    /// <summary>Adds an entry; it is written with the next save.</summary>
    /// <param name="db">The store.</param>
    /// <param name="file">The tray before it, its row tracked.</param>
    /// <param name="written">The entry and what stands on the tray then.</param>
    /// <param name="person">Who records it.</param>
    /// <param name="now">Now, by the clock of the server.</param>
    /// <param name="report">For a release: the report as it is handed over, as JSON.</param>
    /// <returns>The tray after it.</returns>
    public static TrayFile Append(BlueDawnDb db, TrayFile file, Written written, Person person, DateTimeOffset now, string? report = null)
    {
        var after = file.After(written);
        var entry = written.Entry;
        db.LogbookEntries.Add(
            new LogbookEntry
            {
                Id = entry.Id,
                TrayId = file.Tray.Id,
                Kind = StationList.KindOf(entry.Note).Word,
                SupersedesId = entry.Supersedes,
                PersonId = person.Id,
                PersonName = person.DisplayName,
                TakenAt = entry.TakenAt,
                RecordedAt = now,
                Note = entry.Note,
                Words = StationList.Say(entry, after.Book).ToString(),
                Report = report,
            }
        );
        if (written.Facts != file.Book.Facts)
        {
            file.Tray.Take(written.Facts);
        }

        if (entry.Note is TraceNote)
        {
            file.Tray.Confirmed = after.Book.State<FaultsState>().Confirmed is { } confirmed ? [.. confirmed.Distinct()] : null;
        }

        return after;
    }
}
