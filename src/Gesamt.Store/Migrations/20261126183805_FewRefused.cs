using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Gesamt.Store.Migrations
{
    /// <inheritdoc />
    public partial class FewRefused : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateIndex(
                name: "IX_PlannedSteps_RunId_State",
                table: "PlannedSteps",
                columns: new[] { "RunId", "State" });

            migrationBuilder.CreateIndex(
                name: "IX_Letters_Problem",
                table: "Letters",
                column: "Problem",
                filter: "Problem IS NOT NULL");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_PlannedSteps_RunId_State",
                table: "PlannedSteps");

            migrationBuilder.DropIndex(
                name: "IX_Letters_Problem",
                table: "Letters");
        }
    }
}
