namespace BlueDawn.Store;

/// <summary>Text for the database to look for, whatever its capitals.</summary>
public static class Like
{
    /// <summary>What stands before a letter that means itself.</summary>
    public const string Sign = "\\";

    /// <summary>A pattern for this text and no other.</summary>
    /// <param name="text">The text.</param>
    public static string Exactly(string text) =>
        text.Replace(Sign, Sign + Sign, StringComparison.Ordinal)
            .Replace("%", Sign + "%", StringComparison.Ordinal)
            .Replace("_", Sign + "_", StringComparison.Ordinal);

    /// <summary>A pattern for everything with this text in it.</summary>
    /// <param name="text">The text.</param>
    public static string With(string text) => $"%{Exactly(text)}%";
}
