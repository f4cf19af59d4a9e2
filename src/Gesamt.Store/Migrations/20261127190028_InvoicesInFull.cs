using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Gesamt.Store.Migrations
{
    /// <inheritdoc />
    public partial class InvoicesInFull : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Country",
                table: "Studio",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "ExemptReason",
                table: "Studio",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "InvoiceNote",
                table: "Studio",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "LateTerms",
                table: "Studio",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "PayAt",
                table: "Studio",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "ReferenceRates",
                table: "Studio",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<string>(
                name: "Buyer",
                table: "People",
                type: "TEXT",
                nullable: false,
                defaultValue: "Private");

            migrationBuilder.AddColumn<string>(
                name: "Country",
                table: "People",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Data",
                table: "Papers",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "CarriesInvoice",
                table: "Letters",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "InterestOf",
                table: "Invoices",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Means",
                table: "Checkouts",
                type: "TEXT",
                nullable: false,
                defaultValue: "Card");

            migrationBuilder.AddColumn<string>(
                name: "State",
                table: "Checkouts",
                type: "TEXT",
                nullable: false,
                defaultValue: "Open");

            migrationBuilder.AddColumn<string>(
                name: "Words",
                table: "Checkouts",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.CreateTable(
                name: "BillDrafts",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    ProjectId = table.Column<long>(type: "INTEGER", nullable: false),
                    Bill = table.Column<string>(type: "TEXT", nullable: false),
                    InterestOf = table.Column<long>(type: "INTEGER", nullable: true),
                    Edition = table.Column<int>(type: "INTEGER", nullable: false),
                    ChangedAt = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_BillDrafts", x => x.Id);
                    table.ForeignKey(
                        name: "FK_BillDrafts_Projects_ProjectId",
                        column: x => x.ProjectId,
                        principalTable: "Projects",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "Refunds",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    ProjectId = table.Column<long>(type: "INTEGER", nullable: false),
                    PaymentId = table.Column<long>(type: "INTEGER", nullable: false),
                    AmountMinor = table.Column<long>(type: "INTEGER", nullable: false),
                    Currency = table.Column<string>(type: "TEXT", nullable: false),
                    State = table.Column<string>(type: "TEXT", nullable: false),
                    Means = table.Column<string>(type: "TEXT", nullable: false),
                    NoteId = table.Column<long>(type: "INTEGER", nullable: true),
                    Key = table.Column<string>(type: "TEXT", nullable: true),
                    Words = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Refunds", x => x.Id);
                    table.CheckConstraint("Positive", "AmountMinor > 0");
                    table.ForeignKey(
                        name: "FK_Refunds_Projects_ProjectId",
                        column: x => x.ProjectId,
                        principalTable: "Projects",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateIndex(
                name: "IX_BillDrafts_ProjectId",
                table: "BillDrafts",
                column: "ProjectId",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Refunds_Key",
                table: "Refunds",
                column: "Key",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Refunds_PaymentId",
                table: "Refunds",
                column: "PaymentId");

            migrationBuilder.CreateIndex(
                name: "IX_Refunds_ProjectId",
                table: "Refunds",
                column: "ProjectId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "BillDrafts");

            migrationBuilder.DropTable(
                name: "Refunds");

            migrationBuilder.DropColumn(
                name: "Country",
                table: "Studio");

            migrationBuilder.DropColumn(
                name: "ExemptReason",
                table: "Studio");

            migrationBuilder.DropColumn(
                name: "InvoiceNote",
                table: "Studio");

            migrationBuilder.DropColumn(
                name: "LateTerms",
                table: "Studio");

            migrationBuilder.DropColumn(
                name: "PayAt",
                table: "Studio");

            migrationBuilder.DropColumn(
                name: "ReferenceRates",
                table: "Studio");

            migrationBuilder.DropColumn(
                name: "Buyer",
                table: "People");

            migrationBuilder.DropColumn(
                name: "Country",
                table: "People");

            migrationBuilder.DropColumn(
                name: "Data",
                table: "Papers");

            migrationBuilder.DropColumn(
                name: "CarriesInvoice",
                table: "Letters");

            migrationBuilder.DropColumn(
                name: "InterestOf",
                table: "Invoices");

            migrationBuilder.DropColumn(
                name: "Means",
                table: "Checkouts");

            migrationBuilder.DropColumn(
                name: "State",
                table: "Checkouts");

            migrationBuilder.DropColumn(
                name: "Words",
                table: "Checkouts");
        }
    }
}
