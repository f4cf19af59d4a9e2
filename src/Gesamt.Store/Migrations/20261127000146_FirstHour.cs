using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Gesamt.Store.Migrations
{
    /// <inheritdoc />
    public partial class FirstHour : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_LetterTemplates_Key",
                table: "LetterTemplates");

            migrationBuilder.DropIndex(
                name: "IX_Invoices_Sort_Year_Sequence",
                table: "Invoices");

            migrationBuilder.AddColumn<string>(
                name: "Bank",
                table: "Studio",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "Bic",
                table: "Studio",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "ClientAddress",
                table: "Studio",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "Clock",
                table: "Studio",
                type: "TEXT",
                nullable: false,
                defaultValue: "TwentyFour");

            migrationBuilder.AddColumn<string>(
                name: "Days",
                table: "Studio",
                type: "TEXT",
                nullable: false,
                defaultValue: "DayFirst");

            migrationBuilder.AddColumn<int>(
                name: "DueDays",
                table: "Studio",
                type: "INTEGER",
                nullable: false,
                defaultValue: 14);

            migrationBuilder.AddColumn<string>(
                name: "FirstSteps",
                table: "Studio",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "InvoiceFirst",
                table: "Studio",
                type: "INTEGER",
                nullable: false,
                defaultValue: 1);

            migrationBuilder.AddColumn<int>(
                name: "InvoiceFirstYear",
                table: "Studio",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<string>(
                name: "InvoiceSeries",
                table: "Studio",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "Numbers",
                table: "Studio",
                type: "TEXT",
                nullable: false,
                defaultValue: "SpacePoint");

            migrationBuilder.AddColumn<int>(
                name: "OnBookingPartsPerMillion",
                table: "Studio",
                type: "INTEGER",
                nullable: false,
                defaultValue: 400000);

            migrationBuilder.AddColumn<string>(
                name: "Phone",
                table: "Studio",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<int>(
                name: "PutAwayDays",
                table: "Studio",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "SignsAtOnce",
                table: "Studio",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "Site",
                table: "Studio",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<int>(
                name: "ValidDays",
                table: "Studio",
                type: "INTEGER",
                nullable: false,
                defaultValue: 14);

            migrationBuilder.AddColumn<string>(
                name: "Standing_Milestone",
                table: "Projects",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "KindId",
                table: "LetterTemplates",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Series",
                table: "Invoices",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "EarlierSlugs",
                table: "Forms",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.CreateIndex(
                name: "IX_LetterTemplates_KindId_Key",
                table: "LetterTemplates",
                columns: new[] { "KindId", "Key" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "SharedLetter",
                table: "LetterTemplates",
                column: "Key",
                unique: true,
                filter: "KindId IS NULL");

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_Sort_Series_Year_Sequence",
                table: "Invoices",
                columns: new[] { "Sort", "Series", "Year", "Sequence" },
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_LetterTemplates_KindId_Key",
                table: "LetterTemplates");

            migrationBuilder.DropIndex(
                name: "SharedLetter",
                table: "LetterTemplates");

            migrationBuilder.DropIndex(
                name: "IX_Invoices_Sort_Series_Year_Sequence",
                table: "Invoices");

            migrationBuilder.DropColumn(
                name: "Bank",
                table: "Studio");

            migrationBuilder.DropColumn(
                name: "Bic",
                table: "Studio");

            migrationBuilder.DropColumn(
                name: "ClientAddress",
                table: "Studio");

            migrationBuilder.DropColumn(
                name: "Clock",
                table: "Studio");

            migrationBuilder.DropColumn(
                name: "Days",
                table: "Studio");

            migrationBuilder.DropColumn(
                name: "DueDays",
                table: "Studio");

            migrationBuilder.DropColumn(
                name: "FirstSteps",
                table: "Studio");

            migrationBuilder.DropColumn(
                name: "InvoiceFirst",
                table: "Studio");

            migrationBuilder.DropColumn(
                name: "InvoiceFirstYear",
                table: "Studio");

            migrationBuilder.DropColumn(
                name: "InvoiceSeries",
                table: "Studio");

            migrationBuilder.DropColumn(
                name: "Numbers",
                table: "Studio");

            migrationBuilder.DropColumn(
                name: "OnBookingPartsPerMillion",
                table: "Studio");

            migrationBuilder.DropColumn(
                name: "Phone",
                table: "Studio");

            migrationBuilder.DropColumn(
                name: "PutAwayDays",
                table: "Studio");

            migrationBuilder.DropColumn(
                name: "SignsAtOnce",
                table: "Studio");

            migrationBuilder.DropColumn(
                name: "Site",
                table: "Studio");

            migrationBuilder.DropColumn(
                name: "ValidDays",
                table: "Studio");

            migrationBuilder.DropColumn(
                name: "Standing_Milestone",
                table: "Projects");

            migrationBuilder.DropColumn(
                name: "KindId",
                table: "LetterTemplates");

            migrationBuilder.DropColumn(
                name: "Series",
                table: "Invoices");

            migrationBuilder.DropColumn(
                name: "EarlierSlugs",
                table: "Forms");

            migrationBuilder.CreateIndex(
                name: "IX_LetterTemplates_Key",
                table: "LetterTemplates",
                column: "Key",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_Sort_Year_Sequence",
                table: "Invoices",
                columns: new[] { "Sort", "Year", "Sequence" },
                unique: true);
        }
    }
}
