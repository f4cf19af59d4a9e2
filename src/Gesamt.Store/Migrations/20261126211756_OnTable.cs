using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Gesamt.Store.Migrations
{
    /// <inheritdoc />
    public partial class OnTable : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Runs_Offered",
                table: "Runs");

            migrationBuilder.DropIndex(
                name: "IX_Projects_Standing_Turn",
                table: "Projects");

            migrationBuilder.DropIndex(
                name: "IX_PlannedSteps_RunId_State",
                table: "PlannedSteps");

            migrationBuilder.AddColumn<long>(
                name: "KindId",
                table: "Runs",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0L);

            migrationBuilder.Sql(
                "UPDATE Runs SET KindId = (SELECT KindId FROM Projects WHERE Projects.Id = Runs.ProjectId)"
            );

            migrationBuilder.AddColumn<string>(
                name: "State",
                table: "Runs",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "Standing_OnTable",
                table: "Projects",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<long>(
                name: "Standing_TouchAt",
                table: "Projects",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "Since",
                table: "PlannedSteps",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.CreateIndex(
                name: "IX_Runs_Id",
                table: "Runs",
                column: "Id",
                filter: "Offered");

            migrationBuilder.CreateIndex(
                name: "IX_Runs_KindId_Key_State_ProjectId",
                table: "Runs",
                columns: new[] { "KindId", "Key", "State", "ProjectId" });

            migrationBuilder.CreateIndex(
                name: "IX_Projects_Id",
                table: "Projects",
                column: "Id",
                filter: "Rehearsal");

            migrationBuilder.CreateIndex(
                name: "IX_Projects_Standing_OnTable",
                table: "Projects",
                column: "Standing_OnTable",
                filter: "Standing_OnTable");

            migrationBuilder.CreateIndex(
                name: "IX_PlannedSteps_Due",
                table: "PlannedSteps",
                column: "Due",
                filter: "State = 'Held'");

            migrationBuilder.CreateIndex(
                name: "IX_People_Name",
                table: "People",
                column: "Name",
                filter: "MergedInto IS NULL AND RemovedAt IS NULL");

            migrationBuilder.CreateIndex(
                name: "IX_Letters_At",
                table: "Letters",
                column: "At",
                filter: "State = 'Held'");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Runs_Id",
                table: "Runs");

            migrationBuilder.DropIndex(
                name: "IX_Runs_KindId_Key_State_ProjectId",
                table: "Runs");

            migrationBuilder.DropIndex(
                name: "IX_Projects_Id",
                table: "Projects");

            migrationBuilder.DropIndex(
                name: "IX_Projects_Standing_OnTable",
                table: "Projects");

            migrationBuilder.DropIndex(
                name: "IX_PlannedSteps_Due",
                table: "PlannedSteps");

            migrationBuilder.DropIndex(
                name: "IX_People_Name",
                table: "People");

            migrationBuilder.DropIndex(
                name: "IX_Letters_At",
                table: "Letters");

            migrationBuilder.DropColumn(
                name: "KindId",
                table: "Runs");

            migrationBuilder.DropColumn(
                name: "State",
                table: "Runs");

            migrationBuilder.DropColumn(
                name: "Standing_OnTable",
                table: "Projects");

            migrationBuilder.DropColumn(
                name: "Standing_TouchAt",
                table: "Projects");

            migrationBuilder.DropColumn(
                name: "Since",
                table: "PlannedSteps");

            migrationBuilder.CreateIndex(
                name: "IX_Runs_Offered",
                table: "Runs",
                column: "Offered");

            migrationBuilder.CreateIndex(
                name: "IX_Projects_Standing_Turn",
                table: "Projects",
                column: "Standing_Turn");

            migrationBuilder.CreateIndex(
                name: "IX_PlannedSteps_RunId_State",
                table: "PlannedSteps",
                columns: new[] { "RunId", "State" });
        }
    }
}
