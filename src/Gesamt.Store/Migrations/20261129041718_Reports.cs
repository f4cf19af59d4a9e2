using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Gesamt.Store.Migrations
{
    /// <inheritdoc />
    public partial class Reports : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<long>(
                name: "BeganAt",
                table: "Runs",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "OverAt",
                table: "Runs",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Campaign",
                table: "Projects",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "Standing_AgreedBy",
                table: "Projects",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "Standing_Chases",
                table: "Projects",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Standing_Dates",
                table: "Projects",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<string>(
                name: "Standing_Furthest",
                table: "Projects",
                type: "TEXT",
                nullable: false,
                defaultValue: "Lead");

            migrationBuilder.AddColumn<int>(
                name: "Standing_Gates",
                table: "Projects",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.CreateTable(
                name: "Goals",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Year = table.Column<int>(type: "INTEGER", nullable: false),
                    Title = table.Column<string>(type: "TEXT", nullable: false),
                    Measures = table.Column<string>(type: "TEXT", nullable: false),
                    Removed = table.Column<bool>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Goals", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Stays",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    ProjectId = table.Column<long>(type: "INTEGER", nullable: false),
                    Gate = table.Column<string>(type: "TEXT", nullable: false),
                    Since = table.Column<string>(type: "TEXT", nullable: true),
                    Days = table.Column<int>(type: "INTEGER", nullable: true),
                    Left = table.Column<bool>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Stays", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Stays_Projects_ProjectId",
                        column: x => x.ProjectId,
                        principalTable: "Projects",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Goals_Year",
                table: "Goals",
                column: "Year");

            migrationBuilder.CreateIndex(
                name: "IX_Stays_ProjectId_Gate",
                table: "Stays",
                columns: new[] { "ProjectId", "Gate" },
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Goals");

            migrationBuilder.DropTable(
                name: "Stays");

            migrationBuilder.DropColumn(
                name: "BeganAt",
                table: "Runs");

            migrationBuilder.DropColumn(
                name: "OverAt",
                table: "Runs");

            migrationBuilder.DropColumn(
                name: "Campaign",
                table: "Projects");

            migrationBuilder.DropColumn(
                name: "Standing_AgreedBy",
                table: "Projects");

            migrationBuilder.DropColumn(
                name: "Standing_Chases",
                table: "Projects");

            migrationBuilder.DropColumn(
                name: "Standing_Dates",
                table: "Projects");

            migrationBuilder.DropColumn(
                name: "Standing_Furthest",
                table: "Projects");

            migrationBuilder.DropColumn(
                name: "Standing_Gates",
                table: "Projects");
        }
    }
}
