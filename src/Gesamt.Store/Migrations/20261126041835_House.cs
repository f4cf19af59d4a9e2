using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Gesamt.Store.Migrations
{
    /// <inheritdoc />
    public partial class House : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "From",
                table: "Uploads",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "CodeSecret",
                table: "Studio",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "CodeStep",
                table: "Studio",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0L);

            migrationBuilder.AddColumn<string>(
                name: "RecoveryCodes",
                table: "Studio",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "Asker",
                table: "Requests",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Content",
                table: "Requests",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "Sessions",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Began = table.Column<long>(type: "INTEGER", nullable: false),
                    SeenAt = table.Column<long>(type: "INTEGER", nullable: false),
                    Agent = table.Column<string>(type: "TEXT", nullable: false),
                    Address = table.Column<string>(type: "TEXT", nullable: false),
                    EndedAt = table.Column<long>(type: "INTEGER", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Sessions", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Upkeep",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false),
                    BackupAt = table.Column<long>(type: "INTEGER", nullable: true),
                    BackupTriedAt = table.Column<long>(type: "INTEGER", nullable: true),
                    BackupProblem = table.Column<string>(type: "TEXT", nullable: true),
                    ScrubbedTo = table.Column<string>(type: "TEXT", nullable: false),
                    ScrubbedAt = table.Column<long>(type: "INTEGER", nullable: true),
                    Changed = table.Column<string>(type: "TEXT", nullable: false),
                    LinksKey = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Upkeep", x => x.Id);
                    table.CheckConstraint("OneUpkeep", "Id = 1");
                });

            migrationBuilder.CreateIndex(
                name: "IX_Uploads_Taken_At",
                table: "Uploads",
                columns: new[] { "Taken", "At" });

            migrationBuilder.CreateIndex(
                name: "IX_Requests_At",
                table: "Requests",
                column: "At");

            migrationBuilder.CreateIndex(
                name: "IX_Sessions_Name",
                table: "Sessions",
                column: "Name",
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Sessions");

            migrationBuilder.DropTable(
                name: "Upkeep");

            migrationBuilder.DropIndex(
                name: "IX_Uploads_Taken_At",
                table: "Uploads");

            migrationBuilder.DropIndex(
                name: "IX_Requests_At",
                table: "Requests");

            migrationBuilder.DropColumn(
                name: "From",
                table: "Uploads");

            migrationBuilder.DropColumn(
                name: "CodeSecret",
                table: "Studio");

            migrationBuilder.DropColumn(
                name: "CodeStep",
                table: "Studio");

            migrationBuilder.DropColumn(
                name: "RecoveryCodes",
                table: "Studio");

            migrationBuilder.DropColumn(
                name: "Asker",
                table: "Requests");

            migrationBuilder.DropColumn(
                name: "Content",
                table: "Requests");
        }
    }
}
