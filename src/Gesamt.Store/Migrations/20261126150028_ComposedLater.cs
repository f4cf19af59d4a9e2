using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Gesamt.Store.Migrations
{
    /// <inheritdoc />
    public partial class ComposedLater : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            // by SQLite itself: the other way writes the whole table anew
            migrationBuilder.Sql("ALTER TABLE Outbox DROP COLUMN Message");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<byte[]>(
                name: "Message",
                table: "Outbox",
                type: "BLOB",
                nullable: false,
                defaultValue: new byte[0]);
        }
    }
}
