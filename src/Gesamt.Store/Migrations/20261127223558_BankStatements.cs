using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Gesamt.Store.Migrations
{
    /// <inheritdoc />
    public partial class BankStatements : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "BankColumns",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Headings = table.Column<string>(type: "TEXT", nullable: false),
                    Account = table.Column<string>(type: "TEXT", nullable: false),
                    Columns = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_BankColumns", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "BankFiles",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Hash = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    Lines = table.Column<int>(type: "INTEGER", nullable: false),
                    New = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_BankFiles", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "BankLines",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    FileId = table.Column<int>(type: "INTEGER", nullable: false),
                    Key = table.Column<string>(type: "TEXT", nullable: false),
                    Account = table.Column<string>(type: "TEXT", nullable: false),
                    On = table.Column<string>(type: "TEXT", nullable: false),
                    AmountMinor = table.Column<long>(type: "INTEGER", nullable: false),
                    Currency = table.Column<string>(type: "TEXT", nullable: false),
                    Party = table.Column<string>(type: "TEXT", nullable: false),
                    Text = table.Column<string>(type: "TEXT", nullable: false),
                    Reference = table.Column<string>(type: "TEXT", nullable: false),
                    State = table.Column<string>(type: "TEXT", nullable: false),
                    ByItself = table.Column<bool>(type: "INTEGER", nullable: false),
                    DoneAt = table.Column<long>(type: "INTEGER", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_BankLines", x => x.Id);
                    table.CheckConstraint("NotNothing", "AmountMinor <> 0");
                    table.ForeignKey(
                        name: "FK_BankLines_BankFiles_FileId",
                        column: x => x.FileId,
                        principalTable: "BankFiles",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "BankBookings",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    LineId = table.Column<long>(type: "INTEGER", nullable: false),
                    PaymentId = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_BankBookings", x => x.Id);
                    table.ForeignKey(
                        name: "FK_BankBookings_BankLines_LineId",
                        column: x => x.LineId,
                        principalTable: "BankLines",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "FK_BankBookings_Payments_PaymentId",
                        column: x => x.PaymentId,
                        principalTable: "Payments",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateIndex(
                name: "IX_BankBookings_LineId",
                table: "BankBookings",
                column: "LineId");

            migrationBuilder.CreateIndex(
                name: "IX_BankBookings_PaymentId",
                table: "BankBookings",
                column: "PaymentId",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_BankColumns_Headings",
                table: "BankColumns",
                column: "Headings",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_BankLines_FileId",
                table: "BankLines",
                column: "FileId");

            migrationBuilder.CreateIndex(
                name: "IX_BankLines_Key",
                table: "BankLines",
                column: "Key",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_BankLines_State_On",
                table: "BankLines",
                columns: new[] { "State", "On" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "BankBookings");

            migrationBuilder.DropTable(
                name: "BankColumns");

            migrationBuilder.DropTable(
                name: "BankLines");

            migrationBuilder.DropTable(
                name: "BankFiles");
        }
    }
}
