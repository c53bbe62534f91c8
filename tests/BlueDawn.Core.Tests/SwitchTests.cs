using Microsoft.CodeAnalysis;
using Microsoft.CodeAnalysis.CSharp;
using Microsoft.CodeAnalysis.CSharp.Syntax;

namespace BlueDawn.Core.Tests;

/// <summary>
/// A switch over an enumeration of ours, or over kinds of note, names every one: what a new value means is asked by the
/// compiler, and an arm for the rest would hide the question. Looked at as the compiler does, by syntax and types.
/// </summary>
public sealed class SwitchTests
{
    private const string Usings = """
        global using System; global using System.Collections.Generic; global using System.IO; global using System.Linq;
        global using System.Threading; global using System.Threading.Tasks;
        """;

    [Fact]
    public void No_switch_over_an_enum_of_ours_or_over_notes_has_an_arm_for_the_rest()
    {
        var found = Rest(Sources().Select(file => Parse(File.ReadAllText(file), file)));
        Assert.True(found.Count == 0, string.Join("\n", found));
    }

    /// <summary>The look itself finds what it has to, and nothing else.</summary>
    [Theory]
    [InlineData("static int A(Of of) => of switch { Of.One => 1, _ => 2 };", true)]
    [InlineData("static int A(Of? of) => of switch { Of.One => 1, null => 0, _ => 2 };", true)]
    [InlineData("static int A(Of of) => of switch { Of.One => 1, var other => 2 };", true)]
    [InlineData("static int A(Of of) { switch (of) { case Of.One: return 1; default: return 2; } }", true)]
    [InlineData("static int A(BlueDawn.Core.Logbook.Note n) => n switch { BlueDawn.Core.Logbook.WordsNote => 1, _ => 2 };", true)]
    [InlineData("static int A(Of of) => of switch { Of.One => 1, Of.Two => 2 };", false)]
    [InlineData("static int A(Of of, bool b) => of switch { _ when b => 0, Of.One => 1, Of.Two => 2 };", false)]
    [InlineData("static int A(string text) => text switch { \"a\" => 1, _ => 2 };", false)]
    public void What_is_looked_for_is_found(string member, bool isFound)
    {
        var tree = Parse($"namespace BlueDawn.Core.X; public enum Of {{ One, Two }} static class C {{ {member} }}", "x.cs");
        var note = Parse("namespace BlueDawn.Core.Logbook; public abstract record Note; public sealed record WordsNote : Note;", "note.cs");
        Assert.Equal(isFound, Rest([tree, note]).Count > 0);
    }

    private static SyntaxTree Parse(string text, string path) =>
        CSharpSyntaxTree.ParseText(text, path: path, cancellationToken: TestContext.Current.CancellationToken);

    private static List<string> Rest(IEnumerable<SyntaxTree> trees)
    {
        var platform = ((string)AppContext.GetData("TRUSTED_PLATFORM_ASSEMBLIES")!)
            .Split(Path.PathSeparator)
            .Where(path => Path.GetFileName(path).StartsWith("System.", StringComparison.Ordinal))
            .Select(path => MetadataReference.CreateFromFile(path));
        var all = trees.Append(Parse(Usings, "usings.cs")).ToList();
        var compilation = CSharpCompilation.Create("looked-at", all, platform);
        var found = new List<string>();
        foreach (var tree in all)
        {
            var model = compilation.GetSemanticModel(tree);
            foreach (var node in tree.GetRoot().DescendantNodes())
            {
                var (over, rest) = node switch
                {
                    SwitchExpressionSyntax { Arms: var arms } expression => (
                        expression.GoverningExpression,
                        arms.Any(arm => arm.WhenClause is null && arm.Pattern is DiscardPatternSyntax or VarPatternSyntax)
                    ),
                    SwitchStatementSyntax { Sections: var sections } statement => (
                        statement.Expression,
                        sections.SelectMany(section => section.Labels).Any(label => label is DefaultSwitchLabelSyntax)
                    ),
                    _ => (null, false),
                };
                if (rest && over is not null && IsOurs(model.GetTypeInfo(over).Type))
                {
                    var at = node.GetLocation().GetLineSpan();
                    found.Add($"{at.Path}:{at.StartLinePosition.Line + 1}: {over}");
                }
            }
        }

        return found;
    }

    private static bool IsOurs(ITypeSymbol? type)
    {
        if (type is INamedTypeSymbol { OriginalDefinition.SpecialType: SpecialType.System_Nullable_T, TypeArguments: [var inner] })
        {
            return IsOurs(inner);
        }

        return type?.ContainingNamespace?.ToString()?.StartsWith("BlueDawn.", StringComparison.Ordinal) == true
            && (type.TypeKind == TypeKind.Enum || type.ToString() == "BlueDawn.Core.Logbook.Note");
    }

    private static IEnumerable<string> Sources() =>
        Directory
            .EnumerateFiles(Path.Combine(Repository.Root, "src"), "*.cs", SearchOption.AllDirectories)
            .Where(file => !file.Contains("/obj/", StringComparison.Ordinal) && !file.Contains("/bin/", StringComparison.Ordinal))
            .Where(file =>
                !file.Contains("/Migrations/", StringComparison.Ordinal) && !file.Contains("/node_modules/", StringComparison.Ordinal)
            );
}
