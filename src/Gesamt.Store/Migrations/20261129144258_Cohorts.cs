using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Gesamt.Store.Migrations
{
    /// <inheritdoc />
    public partial class Cohorts : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Hours_ProjectId",
                table: "Hours");

            migrationBuilder.AddColumn<long>(
                name: "BeganAt",
                table: "Stays",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "Reminded",
                table: "Invoices",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<long>(
                name: "RemindedAt",
                table: "Invoices",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.CreateIndex(
                name: "IX_Stays_BeganAt_Gate_Days_Left_Since",
                table: "Stays",
                columns: new[] { "BeganAt", "Gate", "Days", "Left", "Since" });

            migrationBuilder.CreateIndex(
                name: "IX_Hours_ProjectId_Removed_Minutes",
                table: "Hours",
                columns: new[] { "ProjectId", "Removed", "Minutes" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Stays_BeganAt_Gate_Days_Left_Since",
                table: "Stays");

            migrationBuilder.DropIndex(
                name: "IX_Hours_ProjectId_Removed_Minutes",
                table: "Hours");

            migrationBuilder.DropColumn(
                name: "BeganAt",
                table: "Stays");

            migrationBuilder.DropColumn(
                name: "Reminded",
                table: "Invoices");

            migrationBuilder.DropColumn(
                name: "RemindedAt",
                table: "Invoices");

            migrationBuilder.CreateIndex(
                name: "IX_Hours_ProjectId",
                table: "Hours",
                column: "ProjectId");
        }
    }
}
