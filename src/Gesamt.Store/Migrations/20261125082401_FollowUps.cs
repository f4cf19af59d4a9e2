using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Gesamt.Store.Migrations
{
    /// <inheritdoc />
    public partial class FollowUps : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<int>(
                name: "Edition",
                table: "TaskLists",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<string>(
                name: "Name",
                table: "TaskLists",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<bool>(
                name: "Removed",
                table: "TaskLists",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<bool>(
                name: "Offered",
                table: "Runs",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<bool>(
                name: "Off",
                table: "Routines",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<int>(
                name: "Position",
                table: "Routines",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<bool>(
                name: "Removed",
                table: "Routines",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "Trouble",
                table: "Routines",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<bool>(
                name: "Rehearsal",
                table: "Projects",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<bool>(
                name: "ToOwner",
                table: "Projects",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<long>(
                name: "WoundTo",
                table: "Projects",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "Automatic",
                table: "Letters",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<long>(
                name: "GoesAt",
                table: "Letters",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Problem",
                table: "Letters",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Template",
                table: "Letters",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "Number",
                table: "LetterTemplates",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "Removed",
                table: "LetterTemplates",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<int>(
                name: "Position",
                table: "Kinds",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<bool>(
                name: "Removed",
                table: "Kinds",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "Purpose",
                table: "Forms",
                type: "TEXT",
                nullable: false,
                defaultValue: "Inquiry");

            migrationBuilder.CreateTable(
                name: "ApiKeys",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Begins = table.Column<string>(type: "TEXT", nullable: false),
                    Hash = table.Column<string>(type: "TEXT", nullable: false),
                    MayRead = table.Column<bool>(type: "INTEGER", nullable: false),
                    MayInquire = table.Column<bool>(type: "INTEGER", nullable: false),
                    MadeAt = table.Column<long>(type: "INTEGER", nullable: false),
                    UsedAt = table.Column<long>(type: "INTEGER", nullable: true),
                    EndedAt = table.Column<long>(type: "INTEGER", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ApiKeys", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "FormDrafts",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    ProjectId = table.Column<long>(type: "INTEGER", nullable: false),
                    FormId = table.Column<int>(type: "INTEGER", nullable: false),
                    Given = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_FormDrafts", x => x.Id);
                    table.ForeignKey(
                        name: "FK_FormDrafts_Projects_ProjectId",
                        column: x => x.ProjectId,
                        principalTable: "Projects",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "Hooks",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Address = table.Column<string>(type: "TEXT", nullable: false),
                    Secret = table.Column<string>(type: "TEXT", nullable: false),
                    Events = table.Column<string>(type: "TEXT", nullable: false),
                    Inside = table.Column<bool>(type: "INTEGER", nullable: false),
                    Off = table.Column<bool>(type: "INTEGER", nullable: false),
                    Edition = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Hooks", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "LetterFiles",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    LetterId = table.Column<long>(type: "INTEGER", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Hash = table.Column<string>(type: "TEXT", nullable: false),
                    Size = table.Column<long>(type: "INTEGER", nullable: false),
                    Type = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_LetterFiles", x => x.Id);
                    table.ForeignKey(
                        name: "FK_LetterFiles_Letters_LetterId",
                        column: x => x.LetterId,
                        principalTable: "Letters",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "MailAccounts",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false),
                    SmtpHost = table.Column<string>(type: "TEXT", nullable: false),
                    SmtpPort = table.Column<int>(type: "INTEGER", nullable: false),
                    SmtpSecurity = table.Column<string>(type: "TEXT", nullable: false),
                    SmtpUser = table.Column<string>(type: "TEXT", nullable: false),
                    SmtpPassword = table.Column<string>(type: "TEXT", nullable: false),
                    ImapHost = table.Column<string>(type: "TEXT", nullable: false),
                    ImapPort = table.Column<int>(type: "INTEGER", nullable: false),
                    ImapSecurity = table.Column<string>(type: "TEXT", nullable: false),
                    ImapUser = table.Column<string>(type: "TEXT", nullable: false),
                    ImapPassword = table.Column<string>(type: "TEXT", nullable: false),
                    Edition = table.Column<int>(type: "INTEGER", nullable: false),
                    UidValidity = table.Column<long>(type: "INTEGER", nullable: false),
                    LastUid = table.Column<long>(type: "INTEGER", nullable: false),
                    Problem = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_MailAccounts", x => x.Id);
                    table.CheckConstraint("OneAccount", "Id = 1");
                });

            migrationBuilder.CreateTable(
                name: "TemplateFiles",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    TemplateId = table.Column<int>(type: "INTEGER", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Hash = table.Column<string>(type: "TEXT", nullable: false),
                    Size = table.Column<long>(type: "INTEGER", nullable: false),
                    Type = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_TemplateFiles", x => x.Id);
                    table.ForeignKey(
                        name: "FK_TemplateFiles_LetterTemplates_TemplateId",
                        column: x => x.TemplateId,
                        principalTable: "LetterTemplates",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "HookCalls",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Key = table.Column<string>(type: "TEXT", nullable: false),
                    HookId = table.Column<int>(type: "INTEGER", nullable: false),
                    ProjectId = table.Column<long>(type: "INTEGER", nullable: false),
                    Event = table.Column<string>(type: "TEXT", nullable: false),
                    Body = table.Column<string>(type: "TEXT", nullable: false),
                    State = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    NotBefore = table.Column<long>(type: "INTEGER", nullable: false),
                    Failures = table.Column<int>(type: "INTEGER", nullable: false),
                    LastError = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_HookCalls", x => x.Id);
                    table.ForeignKey(
                        name: "FK_HookCalls_Hooks_HookId",
                        column: x => x.HookId,
                        principalTable: "Hooks",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_HookCalls_Projects_ProjectId",
                        column: x => x.ProjectId,
                        principalTable: "Projects",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Runs_Offered",
                table: "Runs",
                column: "Offered");

            migrationBuilder.CreateIndex(
                name: "IX_LetterTemplates_Number",
                table: "LetterTemplates",
                column: "Number",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_ApiKeys_Hash",
                table: "ApiKeys",
                column: "Hash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_FormDrafts_ProjectId_FormId",
                table: "FormDrafts",
                columns: new[] { "ProjectId", "FormId" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_HookCalls_HookId",
                table: "HookCalls",
                column: "HookId");

            migrationBuilder.CreateIndex(
                name: "IX_HookCalls_Key",
                table: "HookCalls",
                column: "Key",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_HookCalls_ProjectId",
                table: "HookCalls",
                column: "ProjectId");

            migrationBuilder.CreateIndex(
                name: "IX_HookCalls_State_NotBefore",
                table: "HookCalls",
                columns: new[] { "State", "NotBefore" });

            migrationBuilder.CreateIndex(
                name: "IX_Hooks_Name",
                table: "Hooks",
                column: "Name",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_LetterFiles_LetterId",
                table: "LetterFiles",
                column: "LetterId");

            migrationBuilder.CreateIndex(
                name: "IX_TemplateFiles_TemplateId",
                table: "TemplateFiles",
                column: "TemplateId");

            // lists had no name of their own before
            migrationBuilder.Sql("UPDATE TaskLists SET Name = (SELECT k.Name FROM Kinds k WHERE k.Key = TaskLists.Key) WHERE EXISTS (SELECT 1 FROM Kinds k WHERE k.Key = TaskLists.Key)");
            migrationBuilder.Sql("UPDATE TaskLists SET Name = Key WHERE Name = ''");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "ApiKeys");

            migrationBuilder.DropTable(
                name: "FormDrafts");

            migrationBuilder.DropTable(
                name: "HookCalls");

            migrationBuilder.DropTable(
                name: "LetterFiles");

            migrationBuilder.DropTable(
                name: "MailAccounts");

            migrationBuilder.DropTable(
                name: "TemplateFiles");

            migrationBuilder.DropTable(
                name: "Hooks");

            migrationBuilder.DropIndex(
                name: "IX_Runs_Offered",
                table: "Runs");

            migrationBuilder.DropIndex(
                name: "IX_LetterTemplates_Number",
                table: "LetterTemplates");

            migrationBuilder.DropColumn(
                name: "Edition",
                table: "TaskLists");

            migrationBuilder.DropColumn(
                name: "Name",
                table: "TaskLists");

            migrationBuilder.DropColumn(
                name: "Removed",
                table: "TaskLists");

            migrationBuilder.DropColumn(
                name: "Offered",
                table: "Runs");

            migrationBuilder.DropColumn(
                name: "Off",
                table: "Routines");

            migrationBuilder.DropColumn(
                name: "Position",
                table: "Routines");

            migrationBuilder.DropColumn(
                name: "Removed",
                table: "Routines");

            migrationBuilder.DropColumn(
                name: "Trouble",
                table: "Routines");

            migrationBuilder.DropColumn(
                name: "Rehearsal",
                table: "Projects");

            migrationBuilder.DropColumn(
                name: "ToOwner",
                table: "Projects");

            migrationBuilder.DropColumn(
                name: "WoundTo",
                table: "Projects");

            migrationBuilder.DropColumn(
                name: "Automatic",
                table: "Letters");

            migrationBuilder.DropColumn(
                name: "GoesAt",
                table: "Letters");

            migrationBuilder.DropColumn(
                name: "Problem",
                table: "Letters");

            migrationBuilder.DropColumn(
                name: "Template",
                table: "Letters");

            migrationBuilder.DropColumn(
                name: "Number",
                table: "LetterTemplates");

            migrationBuilder.DropColumn(
                name: "Removed",
                table: "LetterTemplates");

            migrationBuilder.DropColumn(
                name: "Position",
                table: "Kinds");

            migrationBuilder.DropColumn(
                name: "Removed",
                table: "Kinds");

            migrationBuilder.DropColumn(
                name: "Purpose",
                table: "Forms");
        }
    }
}
