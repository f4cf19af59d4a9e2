using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Gesamt.Store.Migrations
{
    /// <inheritdoc />
    public partial class Work : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Letters_State",
                table: "Letters");

            migrationBuilder.DropIndex(
                name: "IX_Invoices_Year_Sequence",
                table: "Invoices");

            migrationBuilder.AddColumn<bool>(
                name: "Closing",
                table: "Tasks",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<bool>(
                name: "Fixed",
                table: "Tasks",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<int>(
                name: "OffsetCount",
                table: "Tasks",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "OffsetUnit",
                table: "Tasks",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Phase",
                table: "Tasks",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "Removed",
                table: "Tasks",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<int>(
                name: "Position",
                table: "Services",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<int>(
                name: "Edition",
                table: "Routines",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<long>(
                name: "Standing_BeganAt",
                table: "Projects",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "Standing_FinishedAt",
                table: "Projects",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "Standing_InvoiceAt",
                table: "Projects",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "Standing_NetMinor",
                table: "Projects",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "Standing_OwedMinor",
                table: "Projects",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0L);

            migrationBuilder.AddColumn<long>(
                name: "Standing_PaidMinor",
                table: "Projects",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0L);

            migrationBuilder.AddColumn<bool>(
                name: "Standing_PutAway",
                table: "Projects",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<long>(
                name: "GoneAt",
                table: "Payments",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "ReviewId",
                table: "Notes",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "Edition",
                table: "LetterTemplates",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<int>(
                name: "Edition",
                table: "Kinds",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<long>(
                name: "Credits",
                table: "Invoices",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "OwedMinor",
                table: "Invoices",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0L);

            migrationBuilder.AddColumn<string>(
                name: "Sort",
                table: "Invoices",
                type: "TEXT",
                nullable: false,
                defaultValue: "Invoice");

            migrationBuilder.AddColumn<int>(
                name: "Edition",
                table: "ContractTemplates",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.CreateTable(
                name: "Files",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    ProjectId = table.Column<long>(type: "INTEGER", nullable: false),
                    PublicId = table.Column<string>(type: "TEXT", nullable: false),
                    Group = table.Column<string>(type: "TEXT", nullable: false),
                    Phase = table.Column<string>(type: "TEXT", nullable: true),
                    Version = table.Column<int>(type: "INTEGER", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Use = table.Column<string>(type: "TEXT", nullable: false),
                    Hash = table.Column<string>(type: "TEXT", nullable: false),
                    Size = table.Column<long>(type: "INTEGER", nullable: false),
                    Type = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    By = table.Column<string>(type: "TEXT", nullable: false),
                    Removed = table.Column<bool>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Files", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Files_Projects_ProjectId",
                        column: x => x.ProjectId,
                        principalTable: "Projects",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "Reviews",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    ProjectId = table.Column<long>(type: "INTEGER", nullable: false),
                    PublicId = table.Column<string>(type: "TEXT", nullable: false),
                    Phase = table.Column<string>(type: "TEXT", nullable: true),
                    Words = table.Column<string>(type: "TEXT", nullable: false),
                    Files = table.Column<string>(type: "TEXT", nullable: false),
                    AnsweredBy = table.Column<string>(type: "TEXT", nullable: true),
                    At = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Reviews", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Reviews_Projects_ProjectId",
                        column: x => x.ProjectId,
                        principalTable: "Projects",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "SavedViews",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Query = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_SavedViews", x => x.Id);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Tasks_DoneAt_Due",
                table: "Tasks",
                columns: new[] { "DoneAt", "Due" });

            migrationBuilder.CreateIndex(
                name: "IX_Projects_Source",
                table: "Projects",
                column: "Source");

            migrationBuilder.CreateIndex(
                name: "IX_Projects_Standing_BeganAt",
                table: "Projects",
                column: "Standing_BeganAt");

            migrationBuilder.CreateIndex(
                name: "IX_Projects_Standing_BookedAt",
                table: "Projects",
                column: "Standing_BookedAt");

            migrationBuilder.CreateIndex(
                name: "IX_Projects_Standing_InvoiceAt",
                table: "Projects",
                column: "Standing_InvoiceAt");

            migrationBuilder.CreateIndex(
                name: "IX_Projects_Standing_Turn",
                table: "Projects",
                column: "Standing_Turn");

            migrationBuilder.CreateIndex(
                name: "IX_Payments_At",
                table: "Payments",
                column: "At");

            migrationBuilder.CreateIndex(
                name: "IX_Letters_State_ProjectId",
                table: "Letters",
                columns: new[] { "State", "ProjectId" });

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_OwedMinor_Due",
                table: "Invoices",
                columns: new[] { "OwedMinor", "Due" });

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_Sort_Year_Sequence",
                table: "Invoices",
                columns: new[] { "Sort", "Year", "Sequence" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Files_Hash",
                table: "Files",
                column: "Hash");

            migrationBuilder.CreateIndex(
                name: "IX_Files_ProjectId",
                table: "Files",
                column: "ProjectId");

            migrationBuilder.CreateIndex(
                name: "IX_Files_PublicId",
                table: "Files",
                column: "PublicId",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Reviews_ProjectId",
                table: "Reviews",
                column: "ProjectId");

            migrationBuilder.CreateIndex(
                name: "IX_Reviews_PublicId",
                table: "Reviews",
                column: "PublicId",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_SavedViews_Name",
                table: "SavedViews",
                column: "Name",
                unique: true);

            // kinds and the rules pinned on projects gained phases, rounds and closing steps
            foreach (var table in new[] { "Kinds", "Projects" })
                migrationBuilder.Sql($"UPDATE {table} SET Rules = json_set(Rules, '$.phases', json('[]'), '$.rounds', 3, '$.closingSteps', json('[]'))");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Files");

            migrationBuilder.DropTable(
                name: "Reviews");

            migrationBuilder.DropTable(
                name: "SavedViews");

            migrationBuilder.DropIndex(
                name: "IX_Tasks_DoneAt_Due",
                table: "Tasks");

            migrationBuilder.DropIndex(
                name: "IX_Projects_Source",
                table: "Projects");

            migrationBuilder.DropIndex(
                name: "IX_Projects_Standing_BeganAt",
                table: "Projects");

            migrationBuilder.DropIndex(
                name: "IX_Projects_Standing_BookedAt",
                table: "Projects");

            migrationBuilder.DropIndex(
                name: "IX_Projects_Standing_InvoiceAt",
                table: "Projects");

            migrationBuilder.DropIndex(
                name: "IX_Projects_Standing_Turn",
                table: "Projects");

            migrationBuilder.DropIndex(
                name: "IX_Payments_At",
                table: "Payments");

            migrationBuilder.DropIndex(
                name: "IX_Letters_State_ProjectId",
                table: "Letters");

            migrationBuilder.DropIndex(
                name: "IX_Invoices_OwedMinor_Due",
                table: "Invoices");

            migrationBuilder.DropIndex(
                name: "IX_Invoices_Sort_Year_Sequence",
                table: "Invoices");

            migrationBuilder.DropColumn(
                name: "Closing",
                table: "Tasks");

            migrationBuilder.DropColumn(
                name: "Fixed",
                table: "Tasks");

            migrationBuilder.DropColumn(
                name: "OffsetCount",
                table: "Tasks");

            migrationBuilder.DropColumn(
                name: "OffsetUnit",
                table: "Tasks");

            migrationBuilder.DropColumn(
                name: "Phase",
                table: "Tasks");

            migrationBuilder.DropColumn(
                name: "Removed",
                table: "Tasks");

            migrationBuilder.DropColumn(
                name: "Position",
                table: "Services");

            migrationBuilder.DropColumn(
                name: "Edition",
                table: "Routines");

            migrationBuilder.DropColumn(
                name: "Standing_BeganAt",
                table: "Projects");

            migrationBuilder.DropColumn(
                name: "Standing_FinishedAt",
                table: "Projects");

            migrationBuilder.DropColumn(
                name: "Standing_InvoiceAt",
                table: "Projects");

            migrationBuilder.DropColumn(
                name: "Standing_NetMinor",
                table: "Projects");

            migrationBuilder.DropColumn(
                name: "Standing_OwedMinor",
                table: "Projects");

            migrationBuilder.DropColumn(
                name: "Standing_PaidMinor",
                table: "Projects");

            migrationBuilder.DropColumn(
                name: "Standing_PutAway",
                table: "Projects");

            migrationBuilder.DropColumn(
                name: "GoneAt",
                table: "Payments");

            migrationBuilder.DropColumn(
                name: "ReviewId",
                table: "Notes");

            migrationBuilder.DropColumn(
                name: "Edition",
                table: "LetterTemplates");

            migrationBuilder.DropColumn(
                name: "Edition",
                table: "Kinds");

            migrationBuilder.DropColumn(
                name: "Credits",
                table: "Invoices");

            migrationBuilder.DropColumn(
                name: "OwedMinor",
                table: "Invoices");

            migrationBuilder.DropColumn(
                name: "Sort",
                table: "Invoices");

            migrationBuilder.DropColumn(
                name: "Edition",
                table: "ContractTemplates");

            migrationBuilder.CreateIndex(
                name: "IX_Letters_State",
                table: "Letters",
                column: "State");

            migrationBuilder.CreateIndex(
                name: "IX_Invoices_Year_Sequence",
                table: "Invoices",
                columns: new[] { "Year", "Sequence" },
                unique: true);
        }
    }
}
