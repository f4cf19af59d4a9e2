using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Gesamt.Store.Migrations
{
    /// <inheritdoc />
    public partial class Decided : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Projects_Standing_BookedAt",
                table: "Projects");

            migrationBuilder.CreateIndex(
                name: "IX_Projects_Standing_BookedAt_Standing_Ended_Standing_Stage",
                table: "Projects",
                columns: new[] { "Standing_BookedAt", "Standing_Ended", "Standing_Stage" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Projects_Standing_BookedAt_Standing_Ended_Standing_Stage",
                table: "Projects");

            migrationBuilder.CreateIndex(
                name: "IX_Projects_Standing_BookedAt",
                table: "Projects",
                column: "Standing_BookedAt");
        }
    }
}
