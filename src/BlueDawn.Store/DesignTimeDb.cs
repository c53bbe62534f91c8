using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Design;

namespace BlueDawn.Store;

/// <summary>Lets the migration tool see the model without a server or a database.</summary>
internal sealed class DesignTimeDb : IDesignTimeDbContextFactory<BlueDawnDb>
{
    public BlueDawnDb CreateDbContext(string[] args) =>
        new(StoreSetup.Configure(new DbContextOptionsBuilder<BlueDawnDb>(), "Host=none").Options);
}
