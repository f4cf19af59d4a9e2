using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;

namespace Gesamt.Web.Work;

/// <summary>Whether a project is put away.</summary>
public sealed record AwayDto(bool Away);

/// <summary>Whether a client’s link opens.</summary>
public sealed record LinkDto(bool Open);

/// <summary>The addresses of the work: tasks, phases, handover.</summary>
public static class WorkEndpoints
{
    public static void MapWork(this RouteGroupBuilder api)
    {
        var project = api.MapGroup("/projects/{id:long}");
        project
            .MapGet(
                "/tasks.csv",
                async (long id, Desk desk) => await TaskTable.OfAsync(desk, await desk.OpenAsync(new(id)))
            )
            .ExcludeFromDescription();
        project.MapPost(
            "/tasks",
            async (long id, TaskDto task, Desk desk) =>
                new TaskMadeDto((await Tasks.AddAsync(desk, new(id), task)).Value)
        );
        project.MapPut(
            "/tasks/{task:long}",
            async (long id, long task, TaskDto to, Desk desk) =>
            {
                await Tasks.ChangeAsync(desk, new(id), new(task), to);
                return TypedResults.NoContent();
            }
        );
        project.MapPost(
            "/tasks/{task:long}/done",
            async (long id, long task, TaskDoneDto to, Desk desk) =>
            {
                await Tasks.DoneAsync(desk, new(id), new(task), to.Done);
                return TypedResults.NoContent();
            }
        );
        project.MapPost(
            "/tasks/{task:long}/step",
            async (long id, long task, TaskStepDoneDto to, Desk desk) =>
            {
                await Tasks.StepDoneAsync(desk, new(id), new(task), to);
                return TypedResults.NoContent();
            }
        );
        project.MapPost(
            "/tasks/{task:long}/day",
            async (long id, long task, TaskDayDto to, Desk desk) =>
            {
                await Tasks.WorkOnAsync(desk, new(id), new(task), to.Day);
                return TypedResults.NoContent();
            }
        );
        project.MapPost(
            "/tasks/{task:long}/estimate",
            async (long id, long task, TaskEstimateDto to, Desk desk) =>
            {
                await Tasks.EstimateAsync(desk, new(id), new(task), to.Estimate);
                return TypedResults.NoContent();
            }
        );
        project.MapGet(
            "/task-lists",
            async (long id, Desk desk) => await LaidLists.OfAsync(desk, await desk.OpenAsync(new(id)))
        );
        project.MapPost(
            "/task-lists",
            async (long id, LayListsDto lay, Desk desk) => new CountDto(await LaidLists.LayAsync(desk, new(id), lay))
        );
        project.MapPost(
            "/tasks/{task:long}/removed",
            async (long id, long task, RemovedDto to, Desk desk) =>
            {
                await Tasks.RemoveAsync(desk, new(id), new(task), to.Removed);
                return TypedResults.NoContent();
            }
        );
        project.MapPost(
            "/date",
            async (long id, MoveDateDto move, Desk desk) => await Dates.MoveAsync(desk, new(id), move)
        );
        project.MapPost(
            "/steps",
            async (long id, StepMoveDto move, Desk desk) =>
            {
                await Dates.FixAsync(desk, new(id), move);
                return TypedResults.NoContent();
            }
        );
        project.MapPost(
            "/phases",
            async (long id, PhaseDto to, Desk desk) =>
            {
                await Handover.SetPhaseAsync(desk, new(id), to);
                return TypedResults.NoContent();
            }
        );
        project.MapPut(
            "/phases",
            async (long id, ArrangePhasesDto arrange, Desk desk) =>
            {
                await ProjectPhases.ArrangeAsync(desk, new(id), arrange);
                return TypedResults.NoContent();
            }
        );
        project.MapPost(
            "/parts",
            async (long id, PartDto to, Desk desk) =>
            {
                await Handover.SetPartAsync(desk, new(id), to);
                return TypedResults.NoContent();
            }
        );
        project.MapPost(
            "/link",
            async (long id, LinkDto to, Desk desk) =>
            {
                await Handover.RenewLinkAsync(desk, new(id), to.Open);
                return TypedResults.NoContent();
            }
        );
        project.MapPost(
            "/handover",
            async (long id, HandOverDto over, Desk desk, Settings settings) =>
                new SentDto((await Handover.HandOverAsync(desk, new(id), over)).Id.Value, settings.HoldSeconds)
        );
        project.MapPost(
            "/away",
            async (long id, AwayDto to, Desk desk) =>
            {
                await Handover.PutAwayAsync(desk, new(id), to.Away);
                return TypedResults.NoContent();
            }
        );
    }
}
