using Gesamt.Web.Hosting;

namespace Gesamt.Web.Reports;

/// <summary>The addresses of the reports: what became of inquiries, the projects behind each figure, the goals of a year.</summary>
public static class ReportEndpoints
{
    public static void MapReports(this RouteGroupBuilder api)
    {
        var reports = api.MapGroup("/reports");
        reports.MapGet(
            "",
            ([AsParameters] ReportQuery query, ReportBy? by, int? most, Desk desk) =>
                ReportOverview.OfAsync(desk, query, by ?? ReportBy.Source, most ?? ReportOverview.Usual)
        );
        reports
            .MapGet(
                "/brought.csv",
                ([AsParameters] ReportQuery query, ReportBy? by, Desk desk) =>
                    ReportOverview.TableAsync(desk, query, by ?? ReportBy.Source)
            )
            .ExcludeFromDescription();
        reports.MapGet(
            "/projects",
            ([AsParameters] ReportQuery query, [AsParameters] ReportPick pick, Desk desk) =>
                ReportProjects.OfAsync(desk, query, pick)
        );
        var goals = api.MapGroup("/goals");
        goals.MapGet("", (int? year, Desk desk) => Goals.OfAsync(desk, year));
        api.MapGet("/goals.csv", (int? year, Desk desk) => Goals.TableAsync(desk, year)).ExcludeFromDescription();
        goals.MapPost(
            "",
            async (SaveGoalDto save, Desk desk) => new GoalIdDto((await Goals.SaveAsync(desk, null, save)).Value)
        );
        goals.MapPut(
            "/{id:long}",
            async (long id, SaveGoalDto save, Desk desk) =>
            {
                await Goals.SaveAsync(desk, new(id), save);
                return TypedResults.NoContent();
            }
        );
        goals.MapPost(
            "/{id:long}/removed",
            async (long id, RemovedDto to, Desk desk) =>
            {
                await Goals.RemoveAsync(desk, new(id), to.Removed);
                return TypedResults.NoContent();
            }
        );
    }
}
