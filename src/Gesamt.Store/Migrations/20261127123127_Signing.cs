using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Gesamt.Store.Migrations
{
    /// <inheritdoc />
    public partial class Signing : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.RenameColumn(
                name: "Hash",
                table: "SignCodes",
                newName: "Seed");

            migrationBuilder.AddColumn<long>(
                name: "Amends",
                table: "OfferDrafts",
                type: "INTEGER",
                nullable: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "Amends",
                table: "OfferDrafts");

            migrationBuilder.RenameColumn(
                name: "Seed",
                table: "SignCodes",
                newName: "Hash");
        }
    }
}
