using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Gesamt.Store.Migrations
{
    /// <inheritdoc />
    public partial class InvoiceIndexes : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateIndex(
                name: "IX_Invoices_Credits",
                table: "Invoices",
                column: "Credits",
                filter: "Credits IS NOT NULL");

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_IssuedOn",
                table: "Invoices",
                column: "IssuedOn",
                filter: "Year > 0");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Invoices_Credits",
                table: "Invoices");

            migrationBuilder.DropIndex(
                name: "IX_Invoices_IssuedOn",
                table: "Invoices");
        }
    }
}
