using System.Data;
using System.IO.Compression;
using System.Text;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Npgsql;
using NpgsqlTypes;

namespace BlueDawn.Store.Moving;

/// <summary>The heading of an archive: its file <c>blue-dawn.json</c>.</summary>
/// <param name="Format">The archive's format; 1.</param>
/// <param name="Version">The last migration of the version that wrote it.</param>
/// <param name="Name">The shop's name.</param>
/// <param name="TimeZone">Its time zone.</param>
/// <param name="At">When it was written.</param>
/// <param name="Defaults">What the shop goes by.</param>
/// <param name="Rows">Rows by table.</param>
public sealed record ArchiveHeading(
    int Format,
    string Version,
    string Name,
    string TimeZone,
    DateTimeOffset At,
    JsonElement Defaults,
    IReadOnlyDictionary<string, int> Rows
);

/// <summary>Why an archive cannot be taken; its message is for whoever brought it. Nothing has been changed.</summary>
public sealed class ArchiveException(string message) : Exception(message);

/// <summary>
/// Everything of a shop as one ZIP of open formats: a heading, a file of JSON rows for each table (one object a line, columns
/// by their names), photos as JPEG. It moves a shop to another place; unlike a backup it holds no passwords and can be read
/// by anything.
/// </summary>
public static class ShopArchive
{
    /// <summary>What a whole archive may unpack to, in bytes.</summary>
    public const long LargestUnpacked = 16L * 1024 * 1024 * 1024;

    private const string HeadingPath = "blue-dawn.json";
    private const int Format = 1;
    private static readonly JsonSerializerOptions Written = new(JsonSerializerDefaults.Web) { WriteIndented = true };
    private static readonly Encoding Utf8 = new UTF8Encoding(false);

    /// <summary>Writes everything as it stands at one moment.</summary>
    /// <param name="connection">An open connection without a transaction.</param>
    /// <param name="version">The last migration of this version.</param>
    /// <param name="now">The time.</param>
    /// <param name="archive">Where to.</param>
    /// <param name="cancel">Cancels.</param>
    public static async Task WriteAsync(
        NpgsqlConnection connection,
        string version,
        DateTimeOffset now,
        Stream archive,
        CancellationToken cancel
    )
    {
        // Everything as of one moment, however long it takes and whatever is recorded meanwhile.
        await using var transaction = await connection.BeginTransactionAsync(IsolationLevel.RepeatableRead, cancel);
        using var zip = new ZipArchive(archive, ZipArchiveMode.Create, leaveOpen: true);
        var rows = new Dictionary<string, int>();
        foreach (var table in ArchiveTable.All)
        {
            await using var writer = new StreamWriter(zip.CreateEntry(table.Path).Open(), Utf8);
            await using var command = new NpgsqlCommand(
                $"select (to_jsonb(t) - array[{string.Join(", ", table.LeftOut.Select(column => $"'{column}'"))}]::text[])::text "
                    + $"from {table.Select}{Order(table)}",
                connection,
                transaction
            )
            {
                CommandTimeout = 0,
            };
            await using var reader = await command.ExecuteReaderAsync(cancel);
            while (await reader.ReadAsync(cancel))
            {
                await writer.WriteAsync(reader.GetString(0).AsMemory(), cancel);
                await writer.WriteAsync("\n".AsMemory(), cancel);
                rows[table.Name] = rows.GetValueOrDefault(table.Name) + 1;
            }
        }

        await using (
            var photos = new NpgsqlCommand("select id, jpeg from photos order by id", connection, transaction) { CommandTimeout = 0 }
        )
        await using (var reader = await photos.ExecuteReaderAsync(CommandBehavior.SequentialAccess, cancel))
        {
            while (await reader.ReadAsync(cancel))
            {
                // A JPEG gets no smaller.
                await using var file = zip.CreateEntry(PhotoPath(reader.GetGuid(0)), CompressionLevel.NoCompression).Open();
                await using var jpeg = await reader.GetStreamAsync(1, cancel);
                await jpeg.CopyToAsync(file, cancel);
            }
        }

        await using var shop = new NpgsqlCommand("select name, time_zone, defaults::text from shop", connection, transaction);
        await using var one = await shop.ExecuteReaderAsync(cancel);
        await one.ReadAsync(cancel);
        await using var heading = zip.CreateEntry(HeadingPath).Open();
        await JsonSerializer.SerializeAsync(
            heading,
            new ArchiveHeading(
                Format,
                version,
                one.GetString(0),
                one.GetString(1),
                now,
                JsonSerializer.Deserialize<JsonElement>(one.GetString(2)),
                rows
            ),
            Written,
            cancel
        );
    }

    /// <summary>Takes an archive into a shop that has nothing yet: all of it or nothing.</summary>
    /// <param name="connection">An open connection.</param>
    /// <param name="transaction">Its transaction, in which the shop's row is locked and nobody is found. Committed by the caller.</param>
    /// <param name="version">The last migration of this version.</param>
    /// <param name="archive">The archive; it can seek.</param>
    /// <param name="cancel">Cancels.</param>
    /// <exception cref="ArchiveException">It cannot be taken.</exception>
    public static async Task<ArchiveHeading> ReadAsync(
        NpgsqlConnection connection,
        NpgsqlTransaction transaction,
        string version,
        Stream archive,
        CancellationToken cancel
    )
    {
        using var zip = Open(archive);
        var heading = await HeadingAsync(zip, version, cancel);
        async Task DoAsync(string sql, params NpgsqlParameter[] values)
        {
            await using var command = new NpgsqlCommand(sql, connection, transaction) { CommandTimeout = 0 };
            command.Parameters.AddRange(values);
            await command.ExecuteNonQueryAsync(cancel);
        }

        await DoAsync("create temp table arriving (line int not null, doc jsonb not null) on commit drop");
        foreach (var table in ArchiveTable.All)
        {
            await DoAsync("truncate arriving");
            var lines = await StageAsync(connection, zip, table, cancel);
            if (lines != heading.Rows.GetValueOrDefault(table.Name))
            {
                throw new ArchiveException(
                    $"{table.Path} has {lines} rows, the heading says {heading.Rows.GetValueOrDefault(table.Name)}. It is not whole."
                );
            }

            await RefuseUnknownAsync(connection, transaction, table, cancel);
            try
            {
                if (table.Name == ArchiveTable.Photos)
                {
                    await PhotosAsync(connection, transaction, zip, cancel);
                }
                else
                {
                    await DoAsync(Insert(table));
                }
            }
            catch (PostgresException wrong)
            {
                throw new ArchiveException(
                    $"{table.Path}{(wrong.ColumnName is { } column ? $", {column}" : "")}: "
                        + $"{wrong.MessageText}{(wrong.Detail is { } detail ? " " + detail : "")}"
                );
            }
        }

        await DoAsync(
            "update shop set name = $1, time_zone = $2, defaults = $3, demo = false, "
                + "knowledge_version = (select coalesce(max(number), 0) from knowledge_versions)",
            new NpgsqlParameter { Value = heading.Name },
            new NpgsqlParameter { Value = heading.TimeZone },
            new NpgsqlParameter { Value = heading.Defaults.GetRawText(), NpgsqlDbType = NpgsqlDbType.Jsonb }
        );
        // The next tray and the next kind of part get numbers of their own.
        await DoAsync("select setval('tray_numbers', greatest((select max(number) from trays), 1), exists (select from trays))");
        await DoAsync(
            "select setval('part_variants_id_seq', greatest((select max(id) from part_variants), 1), exists (select from part_variants))"
        );
        return heading;
    }

    /// <summary>Reads everything once the way the shop reads it: a document that it could not read later is refused now.</summary>
    /// <param name="db">The store, in the transaction of <see cref="ReadAsync"/>.</param>
    /// <param name="cancel">Cancels.</param>
    /// <exception cref="ArchiveException">Something cannot be read.</exception>
    public static async Task ReadThroughAsync(BlueDawnDb db, CancellationToken cancel)
    {
        async Task AllAsync<T>(string what, IQueryable<T> rows)
            where T : class
        {
            try
            {
                await foreach (var row in rows.AsNoTracking().AsAsyncEnumerable().WithCancellation(cancel))
                {
                    ArgumentNullException.ThrowIfNull(row);
                }
            }
            catch (Exception wrong)
                when (wrong is JsonException or InvalidOperationException or NotSupportedException or FormatException or ArgumentException)
            {
                throw new ArchiveException($"{what} has something in it that cannot be read: {wrong.Message}");
            }
        }

        await AllAsync(HeadingPath, db.Shop);
        await AllAsync("tables/people.jsonl", db.Users);
        await AllAsync("tables/spec_sheets.jsonl", db.SpecSheets);
        await AllAsync("tables/date_codes.jsonl", db.DateCodes);
        await AllAsync("tables/trays.jsonl", db.Trays);
        await AllAsync("tables/logbook_entries.jsonl", db.LogbookEntries);
    }

    private static ZipArchive Open(Stream archive)
    {
        try
        {
            var zip = new ZipArchive(archive, ZipArchiveMode.Read, leaveOpen: true);
            return zip.Entries.Sum(entry => entry.Length) > LargestUnpacked
                ? throw new ArchiveException("It unpacks to more than 16 GB.")
                : zip;
        }
        catch (InvalidDataException)
        {
            throw new ArchiveException("It is no ZIP file, or not all of it arrived.");
        }
    }

    private static async Task<ArchiveHeading> HeadingAsync(ZipArchive zip, string version, CancellationToken cancel)
    {
        try
        {
            await using var file = (
                zip.GetEntry(HeadingPath) ?? throw new ArchiveException($"It has no {HeadingPath}: it is no archive of a shop.")
            ).Open();
            var heading = await JsonSerializer.DeserializeAsync<ArchiveHeading>(file, Written, cancel);
            return heading switch
            {
                { Format: Format } when heading.Version == version => heading,
                { Format: Format } => throw new ArchiveException(
                    $"It was written by another version ({heading.Version}; this one has {version}). Bring both to the same version, then write it again."
                ),
                _ => throw new ArchiveException($"{HeadingPath} is of a format that this version does not know."),
            };
        }
        catch (JsonException)
        {
            throw new ArchiveException($"{HeadingPath} cannot be read.");
        }
        catch (InvalidDataException)
        {
            throw new ArchiveException($"{HeadingPath} is damaged.");
        }
    }

    private static async Task<int> StageAsync(NpgsqlConnection connection, ZipArchive zip, ArchiveTable table, CancellationToken cancel)
    {
        var entry = zip.GetEntry(table.Path) ?? throw new ArchiveException($"{table.Path} is missing.");
        var line = 0;
        try
        {
            using var reader = new StreamReader(entry.Open(), Utf8);
            await using var copy = await connection.BeginBinaryImportAsync("copy arriving (line, doc) from stdin (format binary)", cancel);
            while (await reader.ReadLineAsync(cancel) is { } row)
            {
                line++;
                using var document = JsonDocument.Parse(row);
                if (document.RootElement.ValueKind != JsonValueKind.Object)
                {
                    throw new ArchiveException($"{table.Path}, row {line}: it is no JSON object.");
                }

                await copy.StartRowAsync(cancel);
                await copy.WriteAsync(line, NpgsqlDbType.Integer, cancel);
                await copy.WriteAsync(row, NpgsqlDbType.Jsonb, cancel);
            }

            await copy.CompleteAsync(cancel);
            return line;
        }
        catch (JsonException)
        {
            throw new ArchiveException($"{table.Path}, row {line}: it is no JSON.");
        }
        catch (InvalidDataException)
        {
            throw new ArchiveException($"{table.Path} is damaged after row {line}.");
        }
    }

    private static async Task RefuseUnknownAsync(
        NpgsqlConnection connection,
        NpgsqlTransaction transaction,
        ArchiveTable table,
        CancellationToken cancel
    )
    {
        await using var command = new NpgsqlCommand(
            """
            select a.line, key from arriving a, jsonb_object_keys(a.doc) key
            where key <> all($2) and key not in (select column_name from information_schema.columns where table_schema = 'public' and table_name = $1)
               or key = any($3)
            order by a.line limit 1
            """,
            connection,
            transaction
        )
        {
            Parameters =
            {
                new() { Value = table.Name },
                new() { Value = table.Name == "person_roles" ? ["role"] : Array.Empty<string>() },
                new() { Value = table.LeftOut },
            },
        };
        await using var reader = await command.ExecuteReaderAsync(cancel);
        if (await reader.ReadAsync(cancel))
        {
            throw new ArchiveException($"{table.Path}, row {reader.GetInt32(0)}, {reader.GetString(1)}: an archive has no such field.");
        }
    }

    private static string Insert(ArchiveTable table) =>
        table.Name switch
        {
            "person_roles" =>
                "insert into person_roles (user_id, role_id) select (doc->>'user_id')::uuid, (select id from roles where name = doc->>'role') from arriving",
            // Whoever has no password has a stamp of their own all the same.
            "people" =>
                "insert into people select p.* from arriving, jsonb_populate_record(null::people, doc || jsonb_build_object('security_stamp', "
                    + "gen_random_uuid(), 'concurrency_stamp', gen_random_uuid(), 'access_failed_count', 0)) p order by line",
            _ =>
                $"insert into {table.Name} overriding system value select t.* from arriving, jsonb_populate_record(null::{table.Name}, doc) t order by line",
        };

    private static async Task PhotosAsync(
        NpgsqlConnection connection,
        NpgsqlTransaction transaction,
        ZipArchive zip,
        CancellationToken cancel
    )
    {
        var ids = new List<Guid>();
        await using (var read = new NpgsqlCommand("select (doc->>'id')::uuid from arriving order by line", connection, transaction))
        await using (var reader = await read.ExecuteReaderAsync(cancel))
        {
            while (await reader.ReadAsync(cancel))
            {
                ids.Add(reader.GetGuid(0));
            }
        }

        foreach (var id in ids)
        {
            using var jpeg = new MemoryStream();
            await using (var file = (zip.GetEntry(PhotoPath(id)) ?? throw new ArchiveException($"{PhotoPath(id)} is missing.")).Open())
            {
                await file.CopyToAsync(jpeg, cancel);
            }

            if (jpeg.ToArray() is not [0xFF, 0xD8, 0xFF, ..])
            {
                throw new ArchiveException($"{PhotoPath(id)} is no JPEG.");
            }

            await using var command = new NpgsqlCommand(
                "insert into photos select p.* from arriving, jsonb_populate_record(null::photos, "
                    + "doc || jsonb_build_object('jpeg', $2::bytea)) p where (doc->>'id')::uuid = $1",
                connection,
                transaction
            )
            {
                Parameters =
                {
                    new() { Value = id },
                    new() { Value = jpeg.ToArray() },
                },
            };
            await command.ExecuteNonQueryAsync(cancel);
        }
    }

    private static string PhotoPath(Guid id) => $"photos/{id}.jpg";

    private static string Order(ArchiveTable table) =>
        table.Name == "person_roles" ? " order by user_id, role" : $" order by {table.Order}";

    /// <summary>The last migration of this version.</summary>
    /// <param name="db">The store.</param>
    public static string VersionOf(BlueDawnDb db) => db.Database.GetMigrations().Last();
}
