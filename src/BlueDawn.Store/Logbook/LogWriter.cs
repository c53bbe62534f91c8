using System.Text.Json;
using BlueDawn.Core.Faults;
using BlueDawn.Core.Handover;
using BlueDawn.Core.Trays;
using BlueDawn.Store.People;
using BlueDawn.Store.Trays;

namespace BlueDawn.Store.Logbook;

/// <summary>Adds entries to a tray's logbook and keeps in step what the tray's row holds of them.</summary>
public static class LogWriter
{
    /// <summary>Adds an entry that the rules allow; it is written with the next save. One that hands the tray back takes the report
    /// of that moment along.</summary>
    /// <param name="db">The store.</param>
    /// <param name="file">The tray before it, its row tracked.</param>
    /// <param name="written">The entry and what stands on the tray then.</param>
    /// <param name="person">Who records it.</param>
    /// <param name="now">Now, by the clock of the server.</param>
    /// <returns>The tray after it.</returns>
    public static TrayFile Append(BlueDawnDb db, TrayFile file, Written written, Person person, DateTimeOffset now)
    {
        var after = file.After(written);
        var entry = written.Entry;
        var kind = StationList.KindOf(entry.Note);
        db.LogbookEntries.Add(
            new LogbookEntry
            {
                Id = entry.Id,
                TrayId = file.Tray.Id,
                Kind = kind.Word,
                SupersedesId = entry.Supersedes,
                PersonId = person.Id,
                PersonName = person.DisplayName,
                TakenAt = entry.TakenAt,
                RecordedAt = now,
                Note = entry.Note,
                Words = StationList.Say(entry, after.Book).ToString(),
                Report = after.Book.IsHandedBack && !file.Book.IsHandedBack ? Report(file, after, person, now) : null,
            }
        );
        if (written.Facts != file.Book.Facts)
        {
            file.Tray.Take(written.Facts);
        }
        else if (kind.ChangesHead)
        {
            file.Tray.Version++;
        }

        var confirmed = after.Book.State<FaultsState>().Confirmed?.Distinct().ToArray();
        if (confirmed is null != file.Tray.Confirmed is null || confirmed?.SequenceEqual(file.Tray.Confirmed!) == false)
        {
            file.Tray.Confirmed = confirmed;
        }

        return after;
    }

    private static string Report(TrayFile before, TrayFile after, Person person, DateTimeOffset now) =>
        JsonSerializer.Serialize(
            before.Report() with
            {
                ReleasedAt = now,
                ReleasedBy = person.DisplayName,
                Signed = after.Book.State<HandoverState>().Signed,
            },
            StoreJson.Options
        );
}
