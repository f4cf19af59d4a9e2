using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Gesamt.Store.Migrations
{
    /// <inheritdoc />
    public partial class RecurringInvoices : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<int>(
                name: "Occurrence",
                table: "Invoices",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "Recurring",
                table: "Invoices",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "Attempt",
                table: "Checkouts",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Consent",
                table: "Checkouts",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "ConsentBy",
                table: "Checkouts",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "Changes",
                table: "BillDrafts",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "KeptMeans",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    ProjectId = table.Column<long>(type: "INTEGER", nullable: false),
                    PersonId = table.Column<long>(type: "INTEGER", nullable: false),
                    Token = table.Column<string>(type: "TEXT", nullable: false),
                    Words = table.Column<string>(type: "TEXT", nullable: false),
                    Consent = table.Column<string>(type: "TEXT", nullable: false),
                    Means = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    TakenBackAt = table.Column<long>(type: "INTEGER", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_KeptMeans", x => x.Id);
                    table.ForeignKey(
                        name: "FK_KeptMeans_Projects_ProjectId",
                        column: x => x.ProjectId,
                        principalTable: "Projects",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "Recurring",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    ProjectId = table.Column<long>(type: "INTEGER", nullable: false),
                    Bill = table.Column<string>(type: "TEXT", nullable: false),
                    Every = table.Column<string>(type: "TEXT", nullable: false),
                    First = table.Column<string>(type: "TEXT", nullable: false),
                    Until = table.Column<string>(type: "TEXT", nullable: true),
                    Count = table.Column<int>(type: "INTEGER", nullable: true),
                    Issued = table.Column<int>(type: "INTEGER", nullable: false),
                    Next = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Recurring", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Recurring_Projects_ProjectId",
                        column: x => x.ProjectId,
                        principalTable: "Projects",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_Recurring_Occurrence",
                table: "Invoices",
                columns: new[] { "Recurring", "Occurrence" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Checkouts_InvoiceId_Attempt",
                table: "Checkouts",
                columns: new[] { "InvoiceId", "Attempt" },
                unique: true,
                filter: "Attempt IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "IX_KeptMeans_ProjectId",
                table: "KeptMeans",
                column: "ProjectId");

            migrationBuilder.CreateIndex(
                name: "IX_Recurring_Next",
                table: "Recurring",
                column: "Next");

            migrationBuilder.CreateIndex(
                name: "IX_Recurring_ProjectId",
                table: "Recurring",
                column: "ProjectId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "KeptMeans");

            migrationBuilder.DropTable(
                name: "Recurring");

            migrationBuilder.DropIndex(
                name: "IX_Invoices_Recurring_Occurrence",
                table: "Invoices");

            migrationBuilder.DropIndex(
                name: "IX_Checkouts_InvoiceId_Attempt",
                table: "Checkouts");

            migrationBuilder.DropColumn(
                name: "Occurrence",
                table: "Invoices");

            migrationBuilder.DropColumn(
                name: "Recurring",
                table: "Invoices");

            migrationBuilder.DropColumn(
                name: "Attempt",
                table: "Checkouts");

            migrationBuilder.DropColumn(
                name: "Consent",
                table: "Checkouts");

            migrationBuilder.DropColumn(
                name: "ConsentBy",
                table: "Checkouts");

            migrationBuilder.DropColumn(
                name: "Changes",
                table: "BillDrafts");
        }
    }
}
