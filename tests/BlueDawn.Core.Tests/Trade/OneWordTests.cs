using System.Text.RegularExpressions;

namespace BlueDawn.Core.Tests.Trade;

/// <summary>
/// One thing, one word, everywhere a person reads it: pages, tables, and what Core says. The word that is used stands in
/// docs/glossary.md.
/// </summary>
public partial class OneWordTests
{
    /// <summary>Words that are not used, and the one that is. Common practice, no source.</summary>
    private static readonly (string Never, string Instead)[] Words =
    [
        ("membranes?", "diaphragm"),
        ("gasoline", "petrol"),
        ("float chamber", "bowl"),
        ("butterfly", "plate"),
        ("(expansion|core) plugs?", "welch plug"),
        ("petcock", "fuel tap"),
        ("near miss(es)?", "does not fit"),
        ("reckon(ed|s)?", "say what is worked out, and from what"),
        ("lateness", "days late"),
        ("upside down up", "which side is up"),
        ("lines? (has|have) ended", "the parts are in"),
        ("lines? open", "parts to go, or lines still to be read"),
        ("hijack|stakeholder|utilize", "a plain word"),
        ("1 (rows|lines|pieces|parts|days|trays|orders|entries|photos)", "the word for one"),
    ];

    /// <summary>A list of materials by their names in the table, and the title of a standard.</summary>
    private static readonly string[] Names = ["rubber membrane", "gasoline diluent"];

    [Fact]
    public void What_a_person_reads_uses_one_word_for_one_thing()
    {
        var found = Texts()
            .SelectMany(text =>
                Words
                    .Where(word => Regex.IsMatch(text.Words, $@"\b({word.Never})\b", RegexOptions.IgnoreCase))
                    .Select(word => $"{text.Where}: “{text.Words}” has {word.Never}; say {word.Instead}")
            )
            .ToList();
        Assert.True(found.Count == 0, string.Join("\n", found));
    }

    /// <summary>The test sees what it looks for: it reads all three kinds of text, and a great many of them.</summary>
    [Fact]
    public void It_reads_pages_tables_and_Core()
    {
        var texts = Texts().ToList();
        foreach (var (kind, least) in new[] { (".tsx", 1000), (".csv", 2000), (".cs", 1000) })
        {
            Assert.True(texts.Count(text => text.Where.EndsWith(kind, StringComparison.Ordinal)) > least, kind);
        }

        Assert.Contains(texts, text => text.Words.Contains("Check in a carburetor", StringComparison.Ordinal));
    }

    private static IEnumerable<(string Where, string Words)> Texts()
    {
        foreach (
            var (folder, pattern, of) in new (string, string, Func<string, IEnumerable<string>>)[]
            {
                ("src/BlueDawn.Core", "*.cs", text => Quoted().Matches(Comment().Replace(text, "")).Select(match => match.Groups[1].Value)),
                ("src/web/src", "*.tsx", OfPage),
                ("data", "*.csv", text => text.Split('\n').Where(line => !line.StartsWith('#')).SelectMany(line => line.Split(','))),
            }
        )
        {
            foreach (
                var file in Directory
                    .EnumerateFiles(Path.Combine(Repository.Root, folder), pattern, SearchOption.AllDirectories)
                    .Where(file =>
                        !file.Contains("/obj/", StringComparison.Ordinal)
                        && !file.Contains("/bin/", StringComparison.Ordinal)
                        && !file.EndsWith(".test.tsx", StringComparison.Ordinal)
                    )
            )
            {
                foreach (
                    var words in of(File.ReadAllText(file))
                        .Select(words => words.Trim())
                        .Where(words =>
                            words.Contains(' ', StringComparison.Ordinal)
                            && !Names.Any(name => words.StartsWith(name, StringComparison.Ordinal))
                        )
                )
                {
                    yield return (Path.GetRelativePath(Repository.Root, file), words);
                }
            }
        }
    }

    private static IEnumerable<string> OfPage(string text)
    {
        var bare = Comment().Replace(text, "");
        return Single()
            .Matches(bare)
            .Select(match => match.Groups[1].Value)
            .Concat(Quoted().Matches(bare).Select(match => match.Groups[1].Value))
            .Concat(Between().Matches(bare).Select(match => match.Groups[1].Value));
    }

    [GeneratedRegex(@"//[^\n]*|/\*.*?\*/", RegexOptions.Singleline)]
    private static partial Regex Comment();

    [GeneratedRegex("\"((?:[^\"\\\\\\n]|\\\\.)*)\"")]
    private static partial Regex Quoted();

    [GeneratedRegex("['`]((?:[^'`\\\\\\n]|\\\\.)*)['`]")]
    private static partial Regex Single();

    [GeneratedRegex(">([^<>{}]+)[<{]")]
    private static partial Regex Between();
}
