using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace BlueDawn.Store.Migrations
{
    /// <summary>A session that ends is told of, so that its pages hear nothing more.</summary>
    public partial class SessionsEnd : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder) =>
            migrationBuilder.Sql(
                """
                create function tell_ended() returns trigger language plpgsql as $$
                begin perform pg_notify('blue_dawn', 'ended ' || old.id); return null; end $$;
                create trigger sessions_told after delete on sessions for each row execute function tell_ended();
                """
            );

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) =>
            migrationBuilder.Sql(
                """
                drop trigger sessions_told on sessions;
                drop function tell_ended();
                """
            );
    }
}
