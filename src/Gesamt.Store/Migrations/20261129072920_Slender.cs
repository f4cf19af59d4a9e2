using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Gesamt.Store.Migrations
{
    /// <inheritdoc />
    /// <remarks>The column is dropped by SQLite itself, in the transaction that has moved it: laying the table anew would leave the transaction.</remarks>
    public partial class Slender : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Projects_Standing_OnTable",
                table: "Projects");

            migrationBuilder.DropIndex(
                name: "IX_Invoices_OwedMinor_Due",
                table: "Invoices");

            migrationBuilder.DropIndex(
                name: "IX_Invoices_Recurring_Occurrence",
                table: "Invoices");

            migrationBuilder.CreateTable(
                name: "PinnedRules",
                columns: table => new
                {
                    ProjectId = table.Column<long>(type: "INTEGER", nullable: false),
                    Rules = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_PinnedRules", x => x.ProjectId);
                    table.ForeignKey(
                        name: "FK_PinnedRules_Projects_ProjectId",
                        column: x => x.ProjectId,
                        principalTable: "Projects",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.Sql("INSERT INTO PinnedRules(ProjectId, Rules) SELECT Id, Rules FROM Projects");
            migrationBuilder.Sql("ALTER TABLE Projects DROP COLUMN Rules");

            migrationBuilder.CreateIndex(
                name: "IX_Refunds_At",
                table: "Refunds",
                column: "At");

            migrationBuilder.CreateIndex(
                name: "IX_Projects_Campaign",
                table: "Projects",
                column: "Campaign",
                filter: "Campaign IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "IX_Projects_Standing_Ended",
                table: "Projects",
                column: "Standing_Ended",
                filter: "Standing_OnTable");

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_Currency",
                table: "Invoices",
                column: "Currency",
                filter: "Year > 0");

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_Currency_Due",
                table: "Invoices",
                columns: new[] { "Currency", "Due" },
                filter: "OwedMinor > 0 AND Year > 0");

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_Recurring_Occurrence",
                table: "Invoices",
                columns: new[] { "Recurring", "Occurrence" },
                unique: true,
                filter: "Recurring IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_Sort_Due",
                table: "Invoices",
                columns: new[] { "Sort", "Due" },
                filter: "OwedMinor > 0");

            migrationBuilder.CreateIndex(
                name: "ByClients",
                table: "Facts",
                column: "Recorded",
                filter: "By = 'Client'");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Refunds_At",
                table: "Refunds");

            migrationBuilder.DropIndex(
                name: "IX_Projects_Campaign",
                table: "Projects");

            migrationBuilder.DropIndex(
                name: "IX_Projects_Standing_Ended",
                table: "Projects");

            migrationBuilder.DropIndex(
                name: "IX_Invoices_Currency",
                table: "Invoices");

            migrationBuilder.DropIndex(
                name: "IX_Invoices_Currency_Due",
                table: "Invoices");

            migrationBuilder.DropIndex(
                name: "IX_Invoices_Recurring_Occurrence",
                table: "Invoices");

            migrationBuilder.DropIndex(
                name: "IX_Invoices_Sort_Due",
                table: "Invoices");

            migrationBuilder.DropIndex(
                name: "ByClients",
                table: "Facts");

            migrationBuilder.AddColumn<string>(
                name: "Rules",
                table: "Projects",
                type: "TEXT",
                nullable: false,
                defaultValue: "");
            migrationBuilder.Sql("UPDATE Projects SET Rules = (SELECT Rules FROM PinnedRules WHERE ProjectId = Id)");
            migrationBuilder.DropTable(
                name: "PinnedRules");

            migrationBuilder.CreateIndex(
                name: "IX_Projects_Standing_OnTable",
                table: "Projects",
                column: "Standing_OnTable",
                filter: "Standing_OnTable");

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_OwedMinor_Due",
                table: "Invoices",
                columns: new[] { "OwedMinor", "Due" });

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_Recurring_Occurrence",
                table: "Invoices",
                columns: new[] { "Recurring", "Occurrence" },
                unique: true);
        }
    }
}
