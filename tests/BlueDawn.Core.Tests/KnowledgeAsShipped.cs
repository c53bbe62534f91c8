using BlueDawn.Core.Tables;

namespace BlueDawn.Core.Tests;

/// <summary>What ships, for tests of one room. The program itself asks the tray, whose shop may know something else.</summary>
internal static class KnowledgeAsShipped
{
    extension<T>(T)
        where T : class, IKnowledge<T>
    {
        public static T Shipped => Knowledge.Shipped.Of<T>();
    }
}
