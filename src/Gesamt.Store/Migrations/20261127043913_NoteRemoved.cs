using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Gesamt.Store.Migrations
{
    /// <inheritdoc />
    public partial class NoteRemoved : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<bool>(
                name: "Removed",
                table: "Notes",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.Sql(
                "UPDATE Notes SET Removed = 1 WHERE EXISTS (SELECT 1 FROM Facts WHERE Facts.ProjectId = Notes.ProjectId AND Facts.Kind = 'NoteTakenBack' AND CASE WHEN json_valid(Facts.Payload) THEN json_extract(Facts.Payload, '$.note') END = Notes.Id)"
            );
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "Removed",
                table: "Notes");
        }
    }
}
