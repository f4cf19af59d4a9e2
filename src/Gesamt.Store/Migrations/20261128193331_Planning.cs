using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Gesamt.Store.Migrations
{
    /// <inheritdoc />
    public partial class Planning : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Standing_Phases",
                table: "Projects",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<string>(
                name: "Standing_ToCome",
                table: "Projects",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.CreateTable(
                name: "Appointments",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    What = table.Column<string>(type: "TEXT", nullable: false),
                    Where = table.Column<string>(type: "TEXT", nullable: false),
                    Start = table.Column<long>(type: "INTEGER", nullable: false),
                    End = table.Column<long>(type: "INTEGER", nullable: false),
                    Edition = table.Column<int>(type: "INTEGER", nullable: false),
                    Removed = table.Column<bool>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Appointments", x => x.Id);
                    table.CheckConstraint("LastsAWhile", "\"End\" > Start");
                });

            migrationBuilder.CreateIndex(
                name: "IX_Tasks_WorkOn",
                table: "Tasks",
                column: "WorkOn",
                filter: "WorkOn IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "IX_Appointments_Removed_Start",
                table: "Appointments",
                columns: new[] { "Removed", "Start" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Appointments");

            migrationBuilder.DropIndex(
                name: "IX_Tasks_WorkOn",
                table: "Tasks");

            migrationBuilder.DropColumn(
                name: "Standing_Phases",
                table: "Projects");

            migrationBuilder.DropColumn(
                name: "Standing_ToCome",
                table: "Projects");
        }
    }
}
