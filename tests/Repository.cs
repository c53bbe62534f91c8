namespace BlueDawn.Tests;

/// <summary>The files of the repository these tests were built in.</summary>
internal static class Repository
{
    /// <summary>Its root.</summary>
    public static string Root { get; } = Find(new DirectoryInfo(AppContext.BaseDirectory));

    private static string Find(DirectoryInfo? at) =>
        at is null ? throw new DirectoryNotFoundException("These tests are not in their repository.")
        : File.Exists(Path.Combine(at.FullName, "BlueDawn.slnx")) ? at.FullName
        : Find(at.Parent);
}
