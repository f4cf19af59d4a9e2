using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Gesamt.Store.Migrations
{
    /// <inheritdoc />
    public partial class CountedInIndexes : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Projects_Standing_BookedAt_Standing_Ended_Standing_Stage",
                table: "Projects");

            migrationBuilder.DropIndex(
                name: "IX_People_Name",
                table: "People");

            migrationBuilder.DropIndex(
                name: "IX_Invoices_Currency",
                table: "Invoices");

            migrationBuilder.CreateIndex(
                name: "IX_Projects_Standing_BookedAt_Standing_Ended_Standing_Stage",
                table: "Projects",
                columns: new[] { "Standing_BookedAt", "Standing_Ended", "Standing_Stage" });

            migrationBuilder.CreateIndex(
                name: "IX_People_Name_MergedInto_RemovedAt",
                table: "People",
                columns: new[] { "Name", "MergedInto", "RemovedAt" });

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_Currency_Year",
                table: "Invoices",
                columns: new[] { "Currency", "Year" });

            migrationBuilder.CreateIndex(
                name: "IX_Costs_Currency_Removed",
                table: "Costs",
                columns: new[] { "Currency", "Removed" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Projects_Standing_BookedAt_Standing_Ended_Standing_Stage",
                table: "Projects");

            migrationBuilder.DropIndex(
                name: "IX_People_Name_MergedInto_RemovedAt",
                table: "People");

            migrationBuilder.DropIndex(
                name: "IX_Invoices_Currency_Year",
                table: "Invoices");

            migrationBuilder.DropIndex(
                name: "IX_Costs_Currency_Removed",
                table: "Costs");

            migrationBuilder.CreateIndex(
                name: "IX_Projects_Standing_BookedAt_Standing_Ended_Standing_Stage",
                table: "Projects",
                columns: new[] { "Standing_BookedAt", "Standing_Ended", "Standing_Stage" },
                filter: "NOT Rehearsal");

            migrationBuilder.CreateIndex(
                name: "IX_People_Name",
                table: "People",
                column: "Name",
                filter: "MergedInto IS NULL AND RemovedAt IS NULL");

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_Currency",
                table: "Invoices",
                column: "Currency",
                filter: "Year > 0");
        }
    }
}
