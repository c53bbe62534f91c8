using System.Text.RegularExpressions;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Tables;

namespace BlueDawn.Core.Shop;

/// <summary>What is said of somebody who works here.</summary>
/// <param name="UserName">The name they sign in with.</param>
/// <param name="DisplayName">The name in the logbook.</param>
/// <param name="Initials">Up to four letters that stand for them; empty to take them from the name.</param>
/// <param name="Role">Their role.</param>
public sealed partial record StaffEntry(string UserName, string DisplayName, string Initials, Role Role)
{
    private const int LongestName = 60;

    /// <summary>What stands for them: what was said, or the first letters of the first and last word of the name.</summary>
    public string Short => (Initials.Length > 0 ? Initials : InitialsOf(DisplayName)).ToUpperInvariant();

    /// <summary>What is wrong with it, field by field.</summary>
    public IReadOnlyList<FieldProblem> Check()
    {
        var problems = new List<FieldProblem>();
        if (!SignInName().IsMatch(UserName))
        {
            problems.Add(new("userName", "A sign-in name has 2 to 32 letters, digits, dots or dashes, such as anna or anna.k."));
        }

        if (DisplayName.Trim().Length is 0 or > LongestName)
        {
            problems.Add(new("displayName", $"Write the name that stands in the book, in no more than {LongestName} characters."));
        }

        if (Initials.Length > 0 && !FewLetters().IsMatch(Initials))
        {
            problems.Add(new("initials", "One to four letters, such as AK; left empty they are taken from the name."));
        }

        return problems;
    }

    /// <summary>Initials of a name: the first letters of its first and last word.</summary>
    /// <param name="displayName">The name.</param>
    private static string InitialsOf(string displayName)
    {
        var words = displayName.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        return words.Length == 0 ? ""
            : words.Length == 1 ? words[0][..1].ToUpperInvariant()
            : (words[0][..1] + words[^1][..1]).ToUpperInvariant();
    }

    [GeneratedRegex(@"^[A-Za-z0-9][A-Za-z0-9.\-]{1,31}$")]
    private static partial Regex SignInName();

    [GeneratedRegex(@"^\p{L}{1,4}$")]
    private static partial Regex FewLetters();
}

/// <summary>
/// Which passwords are taken: long ones, of any characters, that are not on the list of those everybody tries. Source: OWASP
/// Application Security Verification Standard 4.0.3, chapter 2.1, and NIST SP 800-63B, section 5.1.1.2, from memory.
/// </summary>
public static class PasswordRules
{
    /// <summary>Shortest password, in characters.</summary>
    public const int Shortest = 12;

    /// <summary>Longest password, in characters.</summary>
    public const int Longest = 128;

    private static readonly string[] Rows =
    [
        "abcdefghijklmnopqrstuvwxyz",
        "01234567890123456789",
        "qwertyuiopasdfghjklzxcvbnm",
        "azertyuiopqsdfghjklmwxcvbn",
    ];

    /// <summary>What everybody tries, in lower case without digits and marks at the end: data/reference/common-passwords.txt.</summary>
    private static readonly Lazy<HashSet<string>> Common = new(() =>
    {
        using var reader = CsvTable.OpenShipped("common-passwords.txt");
        return [.. reader.ReadToEnd().Split('\n').Select(line => line.Trim()).Where(line => line.Length > 0 && line[0] != '#')];
    });

    /// <summary>Checks that the list can be read.</summary>
    internal static int ListLength => Common.Value.Count;

    /// <summary>What is wrong with a password, or null.</summary>
    /// <param name="password">The password.</param>
    /// <param name="near">Words it may not be made of: names of the person and of the shop.</param>
    public static string? Problem(string password, params IReadOnlyList<string> near)
    {
        if (password.EnumerateRunes().Count() < Shortest)
        {
            return $"At least {Shortest} characters. A few words one after the other are easily remembered.";
        }

        if (password.Length > Longest)
        {
            return $"No more than {Longest} characters.";
        }

        var plain = new string([.. password.ToLowerInvariant().Where(char.IsLetterOrDigit)]);
        var core = plain.TrimEnd([.. "0123456789"]);
        if (plain.Distinct().Count() < 5 || Runs(plain) || Common.Value.Contains(plain) || Common.Value.Contains(core) || Halves(core))
        {
            return "That one is on every list of passwords that are tried first. Take other words.";
        }

        return near.Select(word => new string([.. word.ToLowerInvariant().Where(char.IsLetterOrDigit)]))
            .Any(word => word.Length > 2 && plain.Replace(word, "", StringComparison.Ordinal).TrimEnd([.. "0123456789"]).Length < 4)
            ? "It is made of a name that is known here. Take other words."
            : null;
    }

    /// <summary>One row of keys or of the alphabet, up or down.</summary>
    private static bool Runs(string plain) =>
        Rows.Any(row =>
            row.Contains(plain, StringComparison.Ordinal) || new string([.. row.Reverse()]).Contains(plain, StringComparison.Ordinal)
        );

    /// <summary>The same common word twice.</summary>
    private static bool Halves(string core) =>
        core.Length % 2 == 0
        && core[..(core.Length / 2)] is var half
        && half == core[(core.Length / 2)..]
        && (half.Length < 4 || Common.Value.Contains(half));
}

/// <summary>
/// Which PINs are taken for a shared bench: few digits, since a device has to be trusted, tries are few, and what needs a lead
/// still needs the password. Own choice; NIST SP 800-63B, section 5.1.1.1, takes a secret of 6 digits, or fewer where tries
/// are limited like this, from memory.
/// </summary>
public static class DoorPin
{
    /// <summary>Fewest digits.</summary>
    public const int Shortest = 4;

    /// <summary>Most digits.</summary>
    public const int Longest = 8;

    /// <summary>Wrong tries in a row after which only the password opens.</summary>
    public const int Tries = 5;

    /// <summary>What is wrong with a PIN, or null.</summary>
    /// <param name="pin">The PIN.</param>
    public static string? Problem(string pin)
    {
        if (pin.Length is < Shortest or > Longest || !pin.All(char.IsAsciiDigit))
        {
            return $"{Shortest} to {Longest} digits.";
        }

        var steps = pin.Zip(pin.Skip(1), (one, next) => next - one).Distinct().ToList();
        return steps is [>= -1 and <= 1] ? "That is one that everybody tries. Take other digits." : null;
    }
}

/// <summary>How a shop begins: who is its first lead, and what it goes by.</summary>
/// <param name="ShopName">The shop's name.</param>
/// <param name="TimeZone">Its time zone by its IANA name, such as <c>Europe/Lisbon</c>.</param>
/// <param name="Currency">Currency of its prices, three letters (ISO 4217).</param>
/// <param name="Labour">What an hour at the bench costs, in that currency, as it was typed.</param>
public sealed partial record ShopStart(string ShopName, string TimeZone, string Currency, string Labour)
{
    /// <summary>The rule an hour's price is held against, here and on the page Rules.</summary>
    private static readonly ShopRule Rate = ShopRules.Find("labourPerHour")!;

    /// <summary>The defaults of the shop as it begins; <see cref="Check"/> has found nothing wrong.</summary>
    /// <param name="shipped">The defaults every shop comes with.</param>
    public ShopDefaults Begin(ShopDefaults shipped) =>
        Rate.Set(shipped with { Currency = Currency }, Rate.Read(Labour, UnitSystem.Metric).Value);

    private const int LongestName = 80;

    /// <summary>What is wrong with it, field by field.</summary>
    public IReadOnlyList<FieldProblem> Check()
    {
        var problems = new List<FieldProblem>();
        if (ShopName.Trim().Length is 0 or > LongestName)
        {
            problems.Add(new("shopName", $"Write what the shop is called, in no more than {LongestName} characters."));
        }

        if (
            !TimeZoneInfo.TryFindSystemTimeZoneById(TimeZone, out _)
            || !(TimeZone == "UTC" || TimeZone.Contains('/', StringComparison.Ordinal))
        )
        {
            problems.Add(new("timeZone", "There is no such time zone. Choose one from the list, such as Europe/Lisbon."));
        }

        if (!CurrencyCode().IsMatch(Currency))
        {
            problems.Add(new("currency", "Three letters, such as EUR."));
        }

        if (Rate.Read(Labour, UnitSystem.Metric) is { Problem: { } rate })
        {
            problems.Add(new("labour", rate));
        }

        return problems;
    }

    [GeneratedRegex("^[A-Z]{3}$")]
    private static partial Regex CurrencyCode();
}
