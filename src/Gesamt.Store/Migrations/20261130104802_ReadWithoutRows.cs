using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Gesamt.Store.Migrations
{
    /// <inheritdoc />
    public partial class ReadWithoutRows : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Projects_Standing_BookedAt_Standing_Ended_Standing_Stage",
                table: "Projects");

            migrationBuilder.DropIndex(
                name: "IX_People_MergedInto",
                table: "People");

            migrationBuilder.CreateIndex(
                name: "IX_Projects_Standing_BookedAt_Standing_Ended_Standing_Stage",
                table: "Projects",
                columns: new[] { "Standing_BookedAt", "Standing_Ended", "Standing_Stage" },
                filter: "NOT Rehearsal");

            migrationBuilder.CreateIndex(
                name: "IX_People_MergedInto",
                table: "People",
                column: "MergedInto",
                filter: "MergedInto IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "IX_Papers_VersionId_Signatures_At",
                table: "Papers",
                columns: new[] { "VersionId", "Signatures", "At" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Projects_Standing_BookedAt_Standing_Ended_Standing_Stage",
                table: "Projects");

            migrationBuilder.DropIndex(
                name: "IX_People_MergedInto",
                table: "People");

            migrationBuilder.DropIndex(
                name: "IX_Papers_VersionId_Signatures_At",
                table: "Papers");

            migrationBuilder.CreateIndex(
                name: "IX_Projects_Standing_BookedAt_Standing_Ended_Standing_Stage",
                table: "Projects",
                columns: new[] { "Standing_BookedAt", "Standing_Ended", "Standing_Stage" });

            migrationBuilder.CreateIndex(
                name: "IX_People_MergedInto",
                table: "People",
                column: "MergedInto");
        }
    }
}
