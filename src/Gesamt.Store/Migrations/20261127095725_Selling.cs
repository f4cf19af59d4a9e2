using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Gesamt.Store.Migrations
{
    /// <inheritdoc />
    public partial class Selling : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Signatures_VersionId_Signer",
                table: "Signatures");

            // in place, and not by building the table anew, so that all of it is one transaction
            migrationBuilder.AddColumn<long>(
                name: "ForKind",
                table: "Services",
                type: "INTEGER",
                nullable: true);
            migrationBuilder.Sql("UPDATE Services SET ForKind = KindId");
            migrationBuilder.DropIndex(
                name: "IX_Services_KindId",
                table: "Services");
            migrationBuilder.Sql("ALTER TABLE Services DROP COLUMN KindId");
            migrationBuilder.CreateIndex(
                name: "IX_Services_ForKind",
                table: "Services",
                column: "ForKind");

            migrationBuilder.AddColumn<int>(
                name: "SharedServicesEdition",
                table: "Studio",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<long>(
                name: "PersonId",
                table: "Signatures",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Proof",
                table: "Signatures",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<long>(
                name: "Cost",
                table: "Services",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "Gross",
                table: "Services",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<long>(
                name: "Hours",
                table: "Services",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Link",
                table: "Services",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<bool>(
                name: "OnRateSheet",
                table: "Services",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "Picture",
                table: "Services",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "PutAway",
                table: "Services",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "Steps",
                table: "Services",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Text",
                table: "Services",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "Standing_Currency",
                table: "Projects",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "Sealed",
                table: "Papers",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "Signing",
                table: "OfferDrafts",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "AsksCode",
                table: "ContractTemplates",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "File",
                table: "ContractTemplates",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "FileName",
                table: "ContractTemplates",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.CreateTable(
                name: "OfferTemplates",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    KindId = table.Column<long>(type: "INTEGER", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Offer = table.Column<string>(type: "TEXT", nullable: false),
                    ChangedAt = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_OfferTemplates", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "PaperFiles",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Hash = table.Column<string>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Type = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_PaperFiles", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "RateSheets",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    ProjectId = table.Column<long>(type: "INTEGER", nullable: false),
                    Services = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    Ticked = table.Column<string>(type: "TEXT", nullable: true),
                    AnsweredAt = table.Column<long>(type: "INTEGER", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_RateSheets", x => x.Id);
                    table.ForeignKey(
                        name: "FK_RateSheets_Projects_ProjectId",
                        column: x => x.ProjectId,
                        principalTable: "Projects",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "SignCodes",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    VersionId = table.Column<long>(type: "INTEGER", nullable: false),
                    PersonId = table.Column<long>(type: "INTEGER", nullable: false),
                    Hash = table.Column<string>(type: "TEXT", nullable: false),
                    SentTo = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    Tries = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_SignCodes", x => x.Id);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Signatures_VersionId_PersonId",
                table: "Signatures",
                columns: new[] { "VersionId", "PersonId" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "OneOfASide",
                table: "Signatures",
                columns: new[] { "VersionId", "Signer" },
                unique: true,
                filter: "PersonId IS NULL");

            migrationBuilder.CreateIndex(
                name: "IX_OfferTemplates_KindId",
                table: "OfferTemplates",
                column: "KindId");

            migrationBuilder.CreateIndex(
                name: "IX_PaperFiles_Hash",
                table: "PaperFiles",
                column: "Hash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_RateSheets_ProjectId",
                table: "RateSheets",
                column: "ProjectId");

            migrationBuilder.CreateIndex(
                name: "IX_SignCodes_VersionId_PersonId",
                table: "SignCodes",
                columns: new[] { "VersionId", "PersonId" },
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "OfferTemplates");

            migrationBuilder.DropTable(
                name: "PaperFiles");

            migrationBuilder.DropTable(
                name: "RateSheets");

            migrationBuilder.DropTable(
                name: "SignCodes");

            migrationBuilder.DropIndex(
                name: "IX_Signatures_VersionId_PersonId",
                table: "Signatures");

            migrationBuilder.DropIndex(
                name: "OneOfASide",
                table: "Signatures");

            migrationBuilder.DropColumn(
                name: "SharedServicesEdition",
                table: "Studio");

            migrationBuilder.DropColumn(
                name: "PersonId",
                table: "Signatures");

            migrationBuilder.DropColumn(
                name: "Proof",
                table: "Signatures");

            migrationBuilder.DropColumn(
                name: "Cost",
                table: "Services");

            migrationBuilder.DropColumn(
                name: "Gross",
                table: "Services");

            migrationBuilder.DropColumn(
                name: "Hours",
                table: "Services");

            migrationBuilder.DropColumn(
                name: "Link",
                table: "Services");

            migrationBuilder.DropColumn(
                name: "OnRateSheet",
                table: "Services");

            migrationBuilder.DropColumn(
                name: "Picture",
                table: "Services");

            migrationBuilder.DropColumn(
                name: "PutAway",
                table: "Services");

            migrationBuilder.DropColumn(
                name: "Steps",
                table: "Services");

            migrationBuilder.DropColumn(
                name: "Text",
                table: "Services");

            migrationBuilder.DropColumn(
                name: "Standing_Currency",
                table: "Projects");

            migrationBuilder.DropColumn(
                name: "Sealed",
                table: "Papers");

            migrationBuilder.DropColumn(
                name: "Signing",
                table: "OfferDrafts");

            migrationBuilder.DropColumn(
                name: "AsksCode",
                table: "ContractTemplates");

            migrationBuilder.DropColumn(
                name: "File",
                table: "ContractTemplates");

            migrationBuilder.DropColumn(
                name: "FileName",
                table: "ContractTemplates");

            migrationBuilder.RenameColumn(
                name: "ForKind",
                table: "Services",
                newName: "KindId");

            migrationBuilder.RenameIndex(
                name: "IX_Services_ForKind",
                table: "Services",
                newName: "IX_Services_KindId");

            migrationBuilder.AlterColumn<long>(
                name: "KindId",
                table: "Services",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0L,
                oldClrType: typeof(long),
                oldType: "INTEGER",
                oldNullable: true);

            migrationBuilder.CreateIndex(
                name: "IX_Signatures_VersionId_Signer",
                table: "Signatures",
                columns: new[] { "VersionId", "Signer" },
                unique: true);
        }
    }
}
