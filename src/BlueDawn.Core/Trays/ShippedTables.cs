using BlueDawn.Core.Catalogue;
using BlueDawn.Core.Chokes;
using BlueDawn.Core.Cleaning;
using BlueDawn.Core.Measures;
using BlueDawn.Core.Proving;
using BlueDawn.Core.Setting;
using BlueDawn.Core.Stations;
using BlueDawn.Core.Tables;

namespace BlueDawn.Core.Trays;

/// <summary>Every table that ships with the product. The server reads them before anything else, so that a wrong row stops the build,
/// not somebody's first request.</summary>
public static class ShippedTables
{
    /// <summary>Reads all of them.</summary>
    /// <exception cref="InvalidDataException">A table does not hold together; the message says which file and row.</exception>
    public static void Check()
    {
        try
        {
            object[] tables =
            [
                NumberDrills.All,
                LetterDrills.All,
                PartKnowledge.Shipped,
                ORing.As568,
                ClearingTools.For(1, 0),
                Slip.LimitCount,
                Dangers.All,
                Dangers.Signs,
                ComplaintTry.Shipped,
                SettingStation.ShippedLooks,
                ChokesStation.ShippedLooks,
                ProvingStation.ShippedLooks,
            ];
            ArgumentOutOfRangeException.ThrowIfZero(tables.Length);
            if (KnowledgeEdit.Check([]) is [var problem, ..])
            {
                throw new InvalidDataException($"{problem.Table}, row {problem.Row}, {problem.Column}: {problem.What}");
            }
        }
        catch (TypeInitializationException e) when (e.GetBaseException() is InvalidDataException or TableException)
        {
            throw new InvalidDataException(e.GetBaseException().Message, e);
        }
    }
}
