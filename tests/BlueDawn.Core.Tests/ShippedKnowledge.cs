using BlueDawn.Core.Tables;

namespace BlueDawn.Core.Tests;

/// <summary>What ships, with something in it changed.</summary>
internal static class ShippedKnowledge
{
    /// <summary>The tables as they ship, with one text of one of them replaced.</summary>
    /// <param name="table">Its name, such as <c>faults/causes.csv</c>.</param>
    /// <param name="was">What stands there.</param>
    /// <param name="now">What stands there instead.</param>
    public static Knowledge With(string table, string was, string now) =>
        new(
            name =>
            {
                using var shipped = CsvTable.OpenShipped(name);
                var text = shipped.ReadToEnd();
                if (name != table)
                {
                    return new StringReader(text);
                }

                Assert.Contains(was, text, StringComparison.Ordinal);
                return new StringReader(text.Replace(was, now, StringComparison.Ordinal));
            },
            []
        );
}
