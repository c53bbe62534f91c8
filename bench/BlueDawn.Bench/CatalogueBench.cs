using System.Diagnostics;
using System.Globalization;
using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Kits;
using BlueDawn.Core.Tables;
using BlueDawn.Store;
using BlueDawn.Store.Catalogue;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace BlueDawn.Bench;

/// <summary>
/// A catalogue of 100,000 kits, 1,000,000 lines of contents and 300,000 fits, made by a seeded generator: how long it
/// takes to come in against PostgreSQL's own COPY of the same rows, and how long looking up takes against a plain
/// indexed look-up of an exact number in the same database in the same run.
/// </summary>
internal sealed class CatalogueBench(string database)
{
    private const int Kits = 100_000;
    private const int PartsInAKit = 10;
    private const int FitsOfAKit = 3;
    private const int Numbers = 60_000;
    private const int Asked = 300;
    private const int Seed = 20261125;

    private static readonly PartKnowledge Knowledge = PartKnowledge.Shipped;

    private readonly Random random = new(Seed);
    private readonly List<ItemPart> variants = [];
    private readonly List<string> stamps = [];
    private readonly List<string[]> items = [];
    private readonly List<string[]> contents = [];
    private readonly List<string[]> fits = [];

    public async Task RunAsync()
    {
        Generate();
        await using (var db = Open())
        {
            await db.Database.MigrateAsync();
        }

        Console.WriteLine(
            $"Catalogue of {items.Count:N0} kits, {contents.Count:N0} lines of contents, {fits.Count:N0} fits, {variants.Count:N0} different parts"
        );
        await ImportAsync(CatalogueFile.Items, items);
        await ImportAsync(CatalogueFile.Contents, contents);
        await ImportAsync(CatalogueFile.Fits, fits);
        await ExecuteAsync("analyze");
        await LookUpAsync();
    }

    private static double At(List<double> sorted, double share) => sorted[Math.Min(sorted.Count - 1, (int)(share * sorted.Count))];

    private static string Csv(CatalogueFile file, List<string[]> rows)
    {
        using var writer = new StringWriter(CultureInfo.InvariantCulture);
        CsvOut.WriteAsync(CatalogueCsv.Columns(file), rows.ToAsyncEnumerable(), writer).GetAwaiter().GetResult();
        return writer.ToString();
    }

    private BlueDawnDb Open() => new(StoreSetup.Configure(new DbContextOptionsBuilder<BlueDawnDb>(), database).Options);

    private async Task ExecuteAsync(string sql)
    {
        await using var connection = new NpgsqlConnection(database);
        await connection.OpenAsync();
        await using var command = new NpgsqlCommand(sql, connection) { CommandTimeout = 0 };
        await command.ExecuteNonQueryAsync();
    }

    private void Generate()
    {
        var parts = Knowledge.Parts.Where(part => part.Features.Any(feature => feature.Kind == FeatureKind.Length)).ToList();
        foreach (var part in parts)
        {
            for (var i = 0; i < 300; i++)
            {
                variants.Add(
                    new ItemPart(
                        part.Name,
                        1,
                        part.Features.Where(feature => feature.Kind != FeatureKind.Squeeze)
                            .ToDictionary(
                                feature => feature.Name,
                                feature =>
                                    feature.Kind switch
                                    {
                                        FeatureKind.Length => (4 + random.Next(0, 400) * 0.125m).ToString(
                                            "0.###",
                                            CultureInfo.InvariantCulture
                                        ) + " mm",
                                        FeatureKind.Count => random.Next(3, 8).ToString(CultureInfo.InvariantCulture),
                                        FeatureKind.Ring => $"{random.Next(3, 20)} × {1 + random.Next(0, 4) * 0.5m} mm",
                                        _ => feature.Words[random.Next(feature.Words.Count)],
                                    }
                            )
                    )
                );
            }
        }

        const string Letters = "ABCDEFGHJKMNPRSTUVWXYZ";
        var seen = new HashSet<string>();
        while (stamps.Count < Numbers)
        {
            var ending = random.Next(3) == 0 ? Letters[random.Next(Letters.Length)].ToString() : "";
            var stamp = $"{Letters[random.Next(Letters.Length)]}{random.Next(10, 100)}-{random.Next(1000, 10000)}{ending}";
            if (seen.Add(stamp))
            {
                stamps.Add(stamp);
            }
        }

        var byPart = variants.GroupBy(variant => variant.Part).Select(group => group.ToList()).ToList();
        for (var kit = 0; kit < Kits; kit++)
        {
            var number = $"KIT-{kit:000000}";
            items.Add([number, "kit", "Generated kit", "Mardle"]);
            foreach (var place in Enumerable.Range(0, byPart.Count).OrderBy(_ => random.Next()).Take(PartsInAKit))
            {
                var variant = byPart[place][random.Next(byPart[place].Count)];
                contents.Add([number, variant.Part, "1", FeatureText.Write(variant.Features)]);
            }

            foreach (var stamp in Enumerable.Range(0, FitsOfAKit).Select(_ => stamps[random.Next(stamps.Count)]).Distinct())
            {
                fits.Add([number, "stamp", "Ostrel", stamp]);
            }
        }
    }

    private async Task ImportAsync(CatalogueFile file, List<string[]> rows)
    {
        var text = Csv(file, rows);
        await using var connection = new NpgsqlConnection(database);
        await connection.OpenAsync();
        var columns = CatalogueCsv.Columns(file);
        await using (
            var make = new NpgsqlCommand(
                $"create table plain_{file} ({string.Join(", ", columns.Select(column => $"\"{column}\" text"))})",
                connection
            )
        )
        {
            await make.ExecuteNonQueryAsync();
        }

        var watch = Stopwatch.StartNew();
        await using (var copy = await connection.BeginTextImportAsync($"copy plain_{file} from stdin (format csv, header)"))
        {
            await copy.WriteAsync(text);
        }

        var plain = watch.Elapsed.TotalSeconds;
        watch.Restart();
        using (var reader = new StringReader(text))
        {
            await CatalogueImport.RunAsync(connection, file, reader, decimalComma: false, apply: false, null, default);
        }

        var dry = watch.Elapsed.TotalSeconds;
        watch.Restart();
        using (var reader = new StringReader(text))
        {
            var report = await CatalogueImport.RunAsync(connection, file, reader, decimalComma: false, apply: true, null, default);
            if (!report.Applied || report.Added != rows.Count)
            {
                throw new InvalidOperationException($"{file}: {report.FirstRejected.Count} rejected.");
            }
        }

        var import = watch.Elapsed.TotalSeconds;
        Console.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"  {file, -9} COPY {rows.Count / plain, 9:0} rows/s   dry run {rows.Count / dry, 8:0} rows/s, {dry / plain, 5:0.0} "
                    + $"times as long   import {rows.Count / import, 8:0} rows/s, {import / plain, 5:0.0} times as long"
            )
        );
    }

    private async Task LookUpAsync()
    {
        await using var db = Open();
        var wanted = Enumerable.Range(0, Asked).Select(_ => fits[random.Next(fits.Count)][3]).ToList();
        var plain = await TimeAsync(wanted, async stamp =>
        {
            var folded = Stamp.Fold(stamp);
            return (await db.ItemFits.AsNoTracking().Where(fit => fit.Folded == folded).ToListAsync()).Count > 0;
        });
        Report("exact number, plain indexed look-up", plain, plain);
        async Task<bool> IdentifyAsync(string stamp, string read)
        {
            var found = await CatalogueSearch.NumbersAsync(db, MarkKind.Stamp, read, default);
            return Stamp.Rank(read, found.Select(number => number.Number).Distinct()).Take(12).Any(reading => reading.OnRecord == stamp);
        }

        Report("stamp read cleanly", await TimeAsync(wanted, stamp => IdentifyAsync(stamp, stamp)), plain);
        Report("stamp with two look-alikes", await TimeAsync(wanted, stamp => IdentifyAsync(stamp, LookAlikes(stamp))), plain);
        Report(
            "stamp with one unreadable",
            await TimeAsync(wanted, stamp => IdentifyAsync(stamp, With(stamp, StampedNumber.Unreadable))),
            plain
        );
        Report("stamp with one wrong character", await TimeAsync(wanted, stamp => IdentifyAsync(stamp, With(stamp, '7'))), plain);
        Report("stamp with its end missing", await TimeAsync(wanted, stamp => IdentifyAsync(stamp, stamp[..^2])), plain);
        var kits = Enumerable.Range(0, Asked).Select(_ => items[random.Next(items.Count)][0]).ToList();
        var parts = contents.ToLookup(row => row[0]);
        Report("kit by three measured old parts", await TimeAsync(kits, async kit =>
            {
                var old = parts[kit]
                    .Take(3)
                    .Select(row => new ItemPart(row[1], 1, FeatureText.Read(row[1], row[3], Knowledge).Value!))
                    .ToList();
                var asked = WantedPart.Of([], old, Knowledge);
                var found = await CatalogueSearch.ItemsAsync(
                    db,
                    [.. await CatalogueSearch.WithPartsAsync(db, asked, Knowledge, default)],
                    default
                );
                return found
                    .Select(stocked => (stocked.Item.Number, Match: ItemMatch.Of(stocked.Item, asked, [], Knowledge)))
                    .OrderByDescending(pair => pair.Match.Agreeing)
                    .Take(12)
                    .Any(pair => pair.Number == kit);
            }), plain);
    }

    private string With(string stamp, char other)
    {
        var place = random.Next(stamp.Length);
        return stamp[place] == '-' ? With(stamp, other) : stamp[..place] + other + stamp[(place + 1)..];
    }

    private static string LookAlikes(string stamp)
    {
        var changed = 0;
        return new string([
            .. stamp.Select(c =>
                changed >= 2
                    ? c
                    : c switch
                    {
                        '0' when ++changed > 0 => 'O',
                        '1' when ++changed > 0 => 'I',
                        '5' when ++changed > 0 => 'S',
                        '8' when ++changed > 0 => 'B',
                        '2' when ++changed > 0 => 'Z',
                        '6' when ++changed > 0 => 'G',
                        _ => c,
                    }
            ),
        ]);
    }

    private static async Task<(double Median, double P99, double Found)> TimeAsync<T>(List<T> asked, Func<T, Task<bool>> look)
    {
        foreach (var one in asked.Take(20))
        {
            await look(one);
        }

        var times = new List<double>();
        var found = 0;
        foreach (var one in asked)
        {
            var watch = Stopwatch.StartNew();
            found += await look(one) ? 1 : 0;
            times.Add(watch.Elapsed.TotalMilliseconds);
        }

        times.Sort();
        return (At(times, 0.5), At(times, 0.99), found / (double)asked.Count);
    }

    private static void Report(
        string what,
        (double Median, double P99, double Found) time,
        (double Median, double P99, double Found) plain
    ) =>
        Console.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"  {what, -36} median {time.Median, 7:0.00} ms, {time.Median / plain.Median, 6:0.0} times   99 % "
                    + $"within {time.P99, 7:0.00} ms, {time.P99 / plain.P99, 6:0.0} times   found {time.Found * 100, 5:0.0} %"
            )
        );
}
