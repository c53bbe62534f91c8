using BlueDawn.Core.Carburetors;
using BlueDawn.Core.Measures;

namespace BlueDawn.Core.Intake;

/// <summary>What is asked when a carburetor comes in.</summary>
/// <param name="OwnerName">Who owns the machine.</param>
/// <param name="OwnerContact">How to reach them; may be empty.</param>
/// <param name="MachineName">What it is and where it stands, such as <c>Wash-down pump, stall 4</c>.</param>
/// <param name="StampedNumber">Number stamped on the carburetor; may be empty when it cannot be read.</param>
/// <param name="Complaint">What the owner says.</param>
/// <param name="PromisedDay">The day it is promised for.</param>
public sealed record CheckIn(
    string OwnerName,
    string? OwnerContact,
    string MachineName,
    string? StampedNumber,
    string Complaint,
    DateOnly PromisedDay
)
{
    /// <summary>Longest name of an owner or a machine, in characters.</summary>
    public const int LongestName = 80;

    private const int LongestComplaint = 2000;
    private const int FarthestPromiseDays = 366;

    /// <summary>What is wrong with an owner's name or how they are reached, field by field.</summary>
    /// <param name="name">Name of the person, boat or stall.</param>
    /// <param name="contact">How to reach them; may be empty.</param>
    public static IReadOnlyList<FieldProblem> CheckOwner(string name, string contact) =>
        [
            .. name.Length is 0 or > LongestName
                ? [new FieldProblem("name", $"A name or a boat, of no more than {LongestName} characters.")]
                : Array.Empty<FieldProblem>(),
            .. contact.Length > LongestName
                ? [new FieldProblem("contact", $"Longer than {LongestName} characters. Shorten it.")]
                : Array.Empty<FieldProblem>(),
        ];

    /// <summary>What is wrong with a check-in, field by field; empty when the tray can be made.</summary>
    /// <param name="today">The day it comes in.</param>
    public IReadOnlyList<FieldProblem> Check(DateOnly today)
    {
        var problems = new List<FieldProblem>();
        void Text(string? text, string field, string missing, int longest)
        {
            var length = (text ?? "").Trim().Length;
            if (length == 0 && missing.Length > 0)
            {
                problems.Add(new(field, missing));
            }
            else if (length > longest)
            {
                problems.Add(new(field, $"Longer than {longest} characters. Shorten it."));
            }
        }

        Text(OwnerName, "ownerName", "Who brings it? A name or a boat will do.", LongestName);
        Text(OwnerContact, "ownerContact", "", LongestName);
        Text(MachineName, "machineName", "What is it off? Say the machine and where it stands.", LongestName);
        Text(StampedNumber, "stampedNumber", "", Carburetors.StampedNumber.Longest);
        Text(Complaint, "complaint", "What does the owner say it does?", LongestComplaint);
        problems.AddRange(CheckPromise(PromisedDay, today));
        return problems;
    }

    /// <summary>What kind of carburetor came in: what was said of it, and of what nobody said what the sheet of its stamped number
    /// says.</summary>
    /// <param name="family">The family as it was said, or null.</param>
    /// <param name="engine">The engine as it was said, or null.</param>
    /// <param name="choke">The choke as it was said, or null.</param>
    /// <param name="sheet">The one sheet its stamped number is on, or null.</param>
    /// <returns>The kind, or what to look at when neither says the family.</returns>
    public static Parsed<CarburetorKind> KindOf(CarburetorFamily? family, EngineKind? engine, ChokeKind? choke, SpecSheet? sheet)
    {
        // A sheet of another family is not this carburetor's: it says nothing of the rest.
        var said = sheet is not null && (family is null || family == sheet.Family) ? sheet : null;
        return (family ?? said?.Family) is { } known
            ? Parsed<CarburetorKind>.Right(new CarburetorKind(known, engine ?? said?.Engine, choke ?? said?.Choke))
            : Parsed<CarburetorKind>.Wrong("Which kind is it? A bowl below, covers with diaphragms, or standing on its tank.");
    }

    /// <summary>What is wrong with a promised day; empty when it will do.</summary>
    public static IReadOnlyList<FieldProblem> CheckPromise(DateOnly promised, DateOnly today) =>
        promised < today ? [new("promisedDay", "That day is past. Promise today or later.")]
        : promised > today.AddDays(FarthestPromiseDays) ? [new("promisedDay", "More than a year away. Check the day.")]
        : [];
}
