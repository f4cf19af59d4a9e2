using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Gesamt.Store.Migrations
{
    /// <inheritdoc />
    public partial class Books : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<long>(
                name: "Standing_ProposalOut",
                table: "Projects",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Chances",
                table: "Studio",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<bool>(
                name: "TaxAsReceived",
                table: "Studio",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<long>(
                name: "AccountId",
                table: "Payments",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "ChargedBack",
                table: "Payments",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<long>(
                name: "AccountId",
                table: "Costs",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "Occurrence",
                table: "Costs",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "Recurring",
                table: "Costs",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "CostId",
                table: "BankLines",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "Accounts",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Currency = table.Column<string>(type: "TEXT", nullable: false),
                    Iban = table.Column<string>(type: "TEXT", nullable: false),
                    Takes = table.Column<string>(type: "TEXT", nullable: false),
                    OpenedOn = table.Column<string>(type: "TEXT", nullable: false),
                    OpeningMinor = table.Column<long>(type: "INTEGER", nullable: false),
                    Removed = table.Column<bool>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Accounts", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "ClosedYears",
                columns: table => new
                {
                    Year = table.Column<int>(type: "INTEGER", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    Control = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ClosedYears", x => x.Year);
                });

            migrationBuilder.CreateTable(
                name: "Incomes",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    On = table.Column<string>(type: "TEXT", nullable: false),
                    Payer = table.Column<string>(type: "TEXT", nullable: false),
                    What = table.Column<string>(type: "TEXT", nullable: false),
                    Category = table.Column<string>(type: "TEXT", nullable: false),
                    GrossMinor = table.Column<long>(type: "INTEGER", nullable: false),
                    Currency = table.Column<string>(type: "TEXT", nullable: false),
                    TaxPartsPerMillion = table.Column<int>(type: "INTEGER", nullable: false),
                    AccountId = table.Column<long>(type: "INTEGER", nullable: true),
                    Removed = table.Column<bool>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Incomes", x => x.Id);
                    table.CheckConstraint("Positive", "GrossMinor > 0");
                });

            migrationBuilder.CreateTable(
                name: "RecurringCosts",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    ProjectId = table.Column<long>(type: "INTEGER", nullable: true),
                    Payee = table.Column<string>(type: "TEXT", nullable: false),
                    What = table.Column<string>(type: "TEXT", nullable: false),
                    Category = table.Column<string>(type: "TEXT", nullable: false),
                    GrossMinor = table.Column<long>(type: "INTEGER", nullable: false),
                    Currency = table.Column<string>(type: "TEXT", nullable: false),
                    TaxPartsPerMillion = table.Column<int>(type: "INTEGER", nullable: false),
                    AccountId = table.Column<long>(type: "INTEGER", nullable: true),
                    Every = table.Column<string>(type: "TEXT", nullable: false),
                    First = table.Column<string>(type: "TEXT", nullable: false),
                    Until = table.Column<string>(type: "TEXT", nullable: true),
                    Booked = table.Column<int>(type: "INTEGER", nullable: false),
                    Next = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_RecurringCosts", x => x.Id);
                    table.CheckConstraint("Positive", "GrossMinor > 0");
                    table.ForeignKey(
                        name: "FK_RecurringCosts_Projects_ProjectId",
                        column: x => x.ProjectId,
                        principalTable: "Projects",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "Transfers",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    On = table.Column<string>(type: "TEXT", nullable: false),
                    FromId = table.Column<long>(type: "INTEGER", nullable: false),
                    ToId = table.Column<long>(type: "INTEGER", nullable: false),
                    LeftMinor = table.Column<long>(type: "INTEGER", nullable: false),
                    ArrivedMinor = table.Column<long>(type: "INTEGER", nullable: false),
                    Words = table.Column<string>(type: "TEXT", nullable: false),
                    Removed = table.Column<bool>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Transfers", x => x.Id);
                    table.CheckConstraint("Positive", "LeftMinor > 0 AND ArrivedMinor > 0");
                    table.CheckConstraint("TwoAccounts", "FromId <> ToId");
                    table.ForeignKey(
                        name: "FK_Transfers_Accounts_FromId",
                        column: x => x.FromId,
                        principalTable: "Accounts",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "FK_Transfers_Accounts_ToId",
                        column: x => x.ToId,
                        principalTable: "Accounts",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Payments_GoneAt",
                table: "Payments",
                column: "GoneAt",
                filter: "GoneAt IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "IX_Costs_On",
                table: "Costs",
                column: "On");

            migrationBuilder.CreateIndex(
                name: "IX_Costs_Recurring_Occurrence",
                table: "Costs",
                columns: new[] { "Recurring", "Occurrence" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_BankLines_CostId",
                table: "BankLines",
                column: "CostId",
                unique: true,
                filter: "CostId IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "IX_Incomes_On",
                table: "Incomes",
                column: "On");

            migrationBuilder.CreateIndex(
                name: "IX_RecurringCosts_Next",
                table: "RecurringCosts",
                column: "Next");

            migrationBuilder.CreateIndex(
                name: "IX_RecurringCosts_ProjectId",
                table: "RecurringCosts",
                column: "ProjectId");

            migrationBuilder.CreateIndex(
                name: "IX_Transfers_FromId",
                table: "Transfers",
                column: "FromId");

            migrationBuilder.CreateIndex(
                name: "IX_Transfers_On",
                table: "Transfers",
                column: "On");

            migrationBuilder.CreateIndex(
                name: "IX_Transfers_ToId",
                table: "Transfers",
                column: "ToId");

            // until now only the facts told a charge back from a mistake
            migrationBuilder.Sql(
                """
                UPDATE Payments SET ChargedBack = 1
                WHERE GoneAt IS NOT NULL AND Id IN (
                    SELECT json_extract(Payload, '$.payment') FROM Facts WHERE Kind = 'PaymentChargedBack'
                )
                """
            );
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "ClosedYears");

            migrationBuilder.DropTable(
                name: "Incomes");

            migrationBuilder.DropTable(
                name: "RecurringCosts");

            migrationBuilder.DropTable(
                name: "Transfers");

            migrationBuilder.DropTable(
                name: "Accounts");

            migrationBuilder.DropIndex(
                name: "IX_Payments_GoneAt",
                table: "Payments");

            migrationBuilder.DropIndex(
                name: "IX_Costs_On",
                table: "Costs");

            migrationBuilder.DropIndex(
                name: "IX_Costs_Recurring_Occurrence",
                table: "Costs");

            migrationBuilder.DropIndex(
                name: "IX_BankLines_CostId",
                table: "BankLines");

            migrationBuilder.DropColumn(
                name: "Standing_ProposalOut",
                table: "Projects");

            migrationBuilder.DropColumn(
                name: "Chances",
                table: "Studio");

            migrationBuilder.DropColumn(
                name: "TaxAsReceived",
                table: "Studio");

            migrationBuilder.DropColumn(
                name: "AccountId",
                table: "Payments");

            migrationBuilder.DropColumn(
                name: "ChargedBack",
                table: "Payments");

            migrationBuilder.DropColumn(
                name: "AccountId",
                table: "Costs");

            migrationBuilder.DropColumn(
                name: "Occurrence",
                table: "Costs");

            migrationBuilder.DropColumn(
                name: "Recurring",
                table: "Costs");

            migrationBuilder.DropColumn(
                name: "CostId",
                table: "BankLines");

        }
    }
}
