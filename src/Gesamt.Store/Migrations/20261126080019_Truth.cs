using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Gesamt.Store.Migrations
{
    /// <inheritdoc />
    public partial class Truth : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Invoices_ProposalId_Instalment",
                table: "Invoices");

            migrationBuilder.AddColumn<string>(
                name: "Also",
                table: "People",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "CardUid",
                table: "People",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "PlainName",
                table: "People",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "By",
                table: "Meetings",
                type: "TEXT",
                nullable: false,
                defaultValue: "Client");

            migrationBuilder.AddColumn<string>(
                name: "Reply",
                table: "Meetings",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "HasHtml",
                table: "Letters",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "Original",
                table: "Letters",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "Again",
                table: "Invoices",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.CreateTable(
                name: "DetailDoubts",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    ProjectId = table.Column<long>(type: "INTEGER", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Said = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    GoneAt = table.Column<long>(type: "INTEGER", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_DetailDoubts", x => x.Id);
                    table.ForeignKey(
                        name: "FK_DetailDoubts_Projects_ProjectId",
                        column: x => x.ProjectId,
                        principalTable: "Projects",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "Papers",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    ProjectId = table.Column<long>(type: "INTEGER", nullable: false),
                    VersionId = table.Column<long>(type: "INTEGER", nullable: true),
                    Signatures = table.Column<int>(type: "INTEGER", nullable: false),
                    InvoiceId = table.Column<long>(type: "INTEGER", nullable: true),
                    Hash = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    DrawnLater = table.Column<bool>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Papers", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Papers_Projects_ProjectId",
                        column: x => x.ProjectId,
                        principalTable: "Projects",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateIndex(
                name: "IX_People_CardUid",
                table: "People",
                column: "CardUid");

            migrationBuilder.CreateIndex(
                name: "IX_People_PlainName",
                table: "People",
                column: "PlainName");

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_ProposalId_Instalment_Again",
                table: "Invoices",
                columns: new[] { "ProposalId", "Instalment", "Again" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_DetailDoubts_ProjectId_GoneAt",
                table: "DetailDoubts",
                columns: new[] { "ProjectId", "GoneAt" });

            migrationBuilder.CreateIndex(
                name: "IX_Papers_InvoiceId",
                table: "Papers",
                column: "InvoiceId",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Papers_ProjectId",
                table: "Papers",
                column: "ProjectId");

            migrationBuilder.CreateIndex(
                name: "IX_Papers_VersionId_Signatures",
                table: "Papers",
                columns: new[] { "VersionId", "Signatures" },
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "DetailDoubts");

            migrationBuilder.DropTable(
                name: "Papers");

            migrationBuilder.DropIndex(
                name: "IX_People_CardUid",
                table: "People");

            migrationBuilder.DropIndex(
                name: "IX_People_PlainName",
                table: "People");

            migrationBuilder.DropIndex(
                name: "IX_Invoices_ProposalId_Instalment_Again",
                table: "Invoices");

            migrationBuilder.DropColumn(
                name: "Also",
                table: "People");

            migrationBuilder.DropColumn(
                name: "CardUid",
                table: "People");

            migrationBuilder.DropColumn(
                name: "PlainName",
                table: "People");

            migrationBuilder.DropColumn(
                name: "By",
                table: "Meetings");

            migrationBuilder.DropColumn(
                name: "Reply",
                table: "Meetings");

            migrationBuilder.DropColumn(
                name: "HasHtml",
                table: "Letters");

            migrationBuilder.DropColumn(
                name: "Original",
                table: "Letters");

            migrationBuilder.DropColumn(
                name: "Again",
                table: "Invoices");

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_ProposalId_Instalment",
                table: "Invoices",
                columns: new[] { "ProposalId", "Instalment" },
                unique: true);
        }
    }
}
