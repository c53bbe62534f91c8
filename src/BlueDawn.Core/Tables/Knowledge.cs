using System.Collections.Concurrent;

namespace BlueDawn.Core.Tables;

/// <summary>Something a room knows from tables.</summary>
/// <typeparam name="TSelf">Its own class.</typeparam>
public interface IKnowledge<TSelf>
    where TSelf : class, IKnowledge<TSelf>
{
    /// <summary>Reads it.</summary>
    /// <param name="knowledge">The tables, and what other rooms know from them.</param>
    /// <exception cref="TableException">A table does not hold together; the message says which row.</exception>
    static abstract TSelf Read(Knowledge knowledge);
}

/// <summary>
/// Everything the bench knows from tables: those that ship with the product, and what a shop has changed of them. Each room
/// reads its own when somebody asks for it, once; what has been read is never changed.
/// </summary>
/// <param name="open">Opens a table by its name, such as <c>faults/causes.csv</c>.</param>
/// <param name="changes">What a shop has changed of the tables that ship; empty where nothing was.</param>
public sealed class Knowledge(Func<string, TextReader> open, IReadOnlyList<TableChange> changes)
{
    private const int Remembered = 16;
    private static readonly ConcurrentDictionary<string, Knowledge> Known = new();
    private readonly ConcurrentDictionary<Type, Lazy<object>> read = new();

    /// <summary>As it ships.</summary>
    public static Knowledge Shipped { get; } = new(CsvTable.OpenShipped, []);

    /// <summary>As it ships, with what a shop has changed. The same changes are read once.</summary>
    /// <param name="changes">The changes.</param>
    public static Knowledge With(IReadOnlyList<TableChange> changes)
    {
        if (changes.Count == 0)
        {
            return Shipped;
        }

        if (Known.Count > Remembered)
        {
            Known.Clear();
        }

        return Known.GetOrAdd(string.Join('\n', changes.Select(change => change.Stamp)), _ => new Knowledge(
            new TableChanges(changes).Open,
            changes
        ));
    }

    /// <summary>What a shop has changed.</summary>
    public IReadOnlyList<TableChange> Changes => changes;

    /// <summary>What a room knows.</summary>
    /// <typeparam name="T">The room's class for it.</typeparam>
    /// <exception cref="TableException">A table does not hold together; the message says which row.</exception>
    public T Of<T>()
        where T : class, IKnowledge<T> => (T)read.GetOrAdd(typeof(T), _ => new Lazy<object>(() => T.Read(this))).Value;

    /// <summary>Reads every row of a table.</summary>
    /// <param name="table">The table's name, such as <c>faults/causes.csv</c>.</param>
    /// <param name="row">Reads one row.</param>
    /// <exception cref="TableException">A row is wrong; the message says which.</exception>
    public List<T> Rows<T>(string table, Func<TableRow, T> row) => CsvTable.Rows(open, table, row);
}
