namespace BlueDawn.Core.Logbook;

/// <summary>
/// A tray's logbook in order of time, and the one place where it is worked out which entries count: one that was
/// superseded does not, and withdrawing a correction does not bring back what was corrected.
/// </summary>
public sealed class Log
{
    private readonly HashSet<Guid> superseded;

    private Log(List<Entry> entries)
    {
        Entries = entries;
        superseded = [.. entries.Select(entry => entry.Supersedes).OfType<Guid>()];
    }

    /// <summary>A logbook with nothing in it.</summary>
    public static Log Empty { get; } = new([]);

    /// <summary>Every entry, oldest first; those taken at one moment in the order of their ids.</summary>
    public IReadOnlyList<Entry> Entries { get; }

    /// <summary>A logbook of these entries, in whatever order they come.</summary>
    public static Log Of(IEnumerable<Entry> entries) => new([.. entries.OrderBy(entry => entry.TakenAt).ThenBy(entry => entry.Id)]);

    /// <summary>The logbook with one more entry.</summary>
    public Log With(Entry entry) => Of(Entries.Append(entry));

    /// <summary>The logbook as if one entry had never been made.</summary>
    public Log Without(Guid id) => new([.. Entries.Where(entry => entry.Id != id)]);

    /// <summary>The entry of that id, or null.</summary>
    public Entry? Find(Guid id) => Entries.FirstOrDefault(entry => entry.Id == id);

    /// <summary>Whether an entry has been corrected or withdrawn.</summary>
    public bool IsSuperseded(Guid id) => superseded.Contains(id);

    /// <summary>The notes of one kind that count, oldest first.</summary>
    /// <typeparam name="T">The kind of note, or what several kinds have in common.</typeparam>
    public IReadOnlyList<Logged<T>> Notes<T>()
        where T : Note =>
        [
            .. Entries
                .Where(entry => entry.Note is T && !superseded.Contains(entry.Id))
                .Select(entry => new Logged<T>(entry.Id, entry.TakenAt, entry.By, (T)entry.Note)),
        ];

    /// <summary>For each thing that is spoken of, the last that was said of it, in the order they were first spoken of.</summary>
    /// <typeparam name="T">The kind of note.</typeparam>
    /// <param name="of">What a note speaks of.</param>
    public IReadOnlyList<Logged<T>> Last<T>(Func<T, string> of)
        where T : Note => [.. Notes<T>().GroupBy(logged => of(logged.Note)).Select(group => group.Last())];
}
