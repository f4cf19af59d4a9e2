using Gesamt.Store.Files;
using Gesamt.Web.Files;
using Gesamt.Web.Hosting;
using Microsoft.AspNetCore.Mvc;

namespace Gesamt.Web.Spent;

/// <summary>The addresses of hours and costs.</summary>
public static class SpentEndpoints
{
    public static void MapSpent(this RouteGroupBuilder api)
    {
        var project = api.MapGroup("/projects/{id:long}");
        project
            .MapGet(
                "/hours.csv",
                async (long id, Desk desk) => await SpentTables.HoursAsync(desk, await desk.OpenAsync(new(id)))
            )
            .ExcludeFromDescription();
        project
            .MapGet(
                "/costs.csv",
                async (long id, Desk desk) => await SpentTables.CostsAsync(desk, await desk.OpenAsync(new(id)))
            )
            .ExcludeFromDescription();
        project.MapGet(
            "/spent",
            async (long id, Desk desk) => await SpentView.OfAsync(desk, await desk.OpenAsync(new(id)))
        );
        project.MapGet(
            "/spent/lines",
            async (
                long id,
                long[] hours,
                long[] costs,
                string? rate,
                bool? each,
                string? currency,
                bool? gross,
                Desk desk
            ) =>
            {
                var file = await desk.OpenAsync(new(id));
                return await SpentView.LinesAsync(
                    desk,
                    file,
                    (hours, costs),
                    rate,
                    each ?? false,
                    new(currency ?? desk.CurrencyOf(file).Code, gross ?? false)
                );
            }
        );
        project.MapPost(
            "/hours",
            async (long id, KeepHoursDto hours, Desk desk) =>
                new SpentIdDto((await Keeping.AddAsync(desk, new(id), hours)).Value)
        );
        project.MapPut(
            "/hours/{hours:long}",
            async (long id, long hours, KeepHoursDto to, Desk desk) =>
            {
                await Keeping.ChangeAsync(desk, new(id), new Core.HoursId(hours), to);
                return TypedResults.NoContent();
            }
        );
        project.MapPost(
            "/hours/{hours:long}/removed",
            async (long id, long hours, RemovedDto to, Desk desk) =>
            {
                await Keeping.RemoveAsync(desk, new(id), new Core.HoursId(hours), to.Removed);
                return TypedResults.NoContent();
            }
        );
        project.MapPost(
            "/costs",
            async (long id, KeepCostDto cost, Desk desk) =>
                new SpentIdDto((await Keeping.AddAsync(desk, new(id), cost)).Value)
        );
        project.MapPut(
            "/costs/{cost:long}",
            async (long id, long cost, KeepCostDto to, Desk desk) =>
            {
                await Keeping.ChangeAsync(desk, new(id), new Core.CostId(cost), to);
                return TypedResults.NoContent();
            }
        );
        project.MapPost(
            "/costs/{cost:long}/removed",
            async (long id, long cost, RemovedDto to, Desk desk) =>
            {
                await Keeping.RemoveAsync(desk, new(id), new Core.CostId(cost), to.Removed);
                return TypedResults.NoContent();
            }
        );
        project
            .MapPost(
                "/costs/{cost:long}/receipt",
                async (long id, long cost, string name, Desk desk, HttpContext http, CancellationToken stop) =>
                {
                    await Keeping.ReceiptAsync(desk, new(id), new(cost), name, http.Request.Body, stop);
                    return TypedResults.NoContent();
                }
            )
            .WithMetadata(new RequestSizeLimitAttribute(KeptFiles.Most + 1024))
            .Accepts<byte[]>("application/octet-stream");
        project
            .MapGet(
                "/costs/{cost:long}/receipt",
                async (long id, long cost, Desk desk, FileVault vault, HttpContext http) =>
                {
                    var row = await Keeping.WithReceiptAsync(desk, new(id), new(cost));
                    return FileEndpoints.Whole(http, vault, row.ReceiptHash!, row.ReceiptName!, row.ReceiptType!);
                }
            )
            .ExcludeFromDescription();
    }
}
