using BlueDawn.Core.Tables;

namespace BlueDawn.Core.Carburetors;

/// <summary>How tables of knowledge name families of carburetors.</summary>
public static class FamilyLetters
{
    /// <summary>Families of carburetors by their letters F, D and S.</summary>
    /// <param name="row">The row.</param>
    /// <param name="column">The column.</param>
    /// <exception cref="TableException">There is another letter.</exception>
    public static IReadOnlyList<CarburetorFamily> Families(this TableRow row, string column) =>
        [
            .. row.Text(column)
                .Select(letter =>
                    letter switch
                    {
                        'F' => CarburetorFamily.FloatBowl,
                        'D' => CarburetorFamily.Diaphragm,
                        'S' => CarburetorFamily.SuctionTank,
                        _ => throw row.Wrong(column, "must be of the letters F, D and S"),
                    }
                ),
        ];
}
