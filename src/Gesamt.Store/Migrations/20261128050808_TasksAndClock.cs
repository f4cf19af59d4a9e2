using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Gesamt.Store.Migrations
{
    /// <inheritdoc />
    public partial class TasksAndClock : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Description",
                table: "Tasks",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<int>(
                name: "Edition",
                table: "Tasks",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<int>(
                name: "Effort",
                table: "Tasks",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Finished",
                table: "Tasks",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "List",
                table: "Tasks",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "PublicId",
                table: "Tasks",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Steps",
                table: "Tasks",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<string>(
                name: "WorkOn",
                table: "Tasks",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "HoursOff",
                table: "Studio",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<long>(
                name: "TaskId",
                table: "Hours",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "Clocks",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    ProjectId = table.Column<long>(type: "INTEGER", nullable: false),
                    TaskId = table.Column<long>(type: "INTEGER", nullable: true),
                    Words = table.Column<string>(type: "TEXT", nullable: false),
                    StartedAt = table.Column<long>(type: "INTEGER", nullable: false),
                    IsRunning = table.Column<bool>(type: "INTEGER", nullable: false),
                    StoppedAt = table.Column<long>(type: "INTEGER", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Clocks", x => x.Id);
                    table.CheckConstraint("RunsOrStopped", "IsRunning = (StoppedAt IS NULL)");
                    table.ForeignKey(
                        name: "FK_Clocks_Projects_ProjectId",
                        column: x => x.ProjectId,
                        principalTable: "Projects",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "FK_Clocks_Tasks_TaskId",
                        column: x => x.TaskId,
                        principalTable: "Tasks",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Tasks_PublicId",
                table: "Tasks",
                column: "PublicId",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Clocks_IsRunning",
                table: "Clocks",
                column: "IsRunning",
                unique: true,
                filter: "IsRunning");

            migrationBuilder.CreateIndex(
                name: "IX_Clocks_ProjectId",
                table: "Clocks",
                column: "ProjectId");

            migrationBuilder.CreateIndex(
                name: "IX_Clocks_TaskId",
                table: "Clocks",
                column: "TaskId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Clocks");

            migrationBuilder.DropIndex(
                name: "IX_Tasks_PublicId",
                table: "Tasks");

            migrationBuilder.DropColumn(
                name: "Description",
                table: "Tasks");

            migrationBuilder.DropColumn(
                name: "Edition",
                table: "Tasks");

            migrationBuilder.DropColumn(
                name: "Effort",
                table: "Tasks");

            migrationBuilder.DropColumn(
                name: "Finished",
                table: "Tasks");

            migrationBuilder.DropColumn(
                name: "List",
                table: "Tasks");

            migrationBuilder.DropColumn(
                name: "PublicId",
                table: "Tasks");

            migrationBuilder.DropColumn(
                name: "Steps",
                table: "Tasks");

            migrationBuilder.DropColumn(
                name: "WorkOn",
                table: "Tasks");

            migrationBuilder.DropColumn(
                name: "HoursOff",
                table: "Studio");

            migrationBuilder.DropColumn(
                name: "TaskId",
                table: "Hours");
        }
    }
}
