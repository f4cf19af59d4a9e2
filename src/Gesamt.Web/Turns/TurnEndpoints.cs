using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Turns;

/// <summary>The addresses of Today, Turns and the live channel.</summary>
public static class TurnEndpoints
{
    public static void MapTurns(this RouteGroupBuilder api)
    {
        api.MapGet(
            "/today",
            (SharedAnswers shared, KeyRing ring, Disk disk) =>
                shared.OfAsync("today", desk => TodayView.OfAsync(desk, ring, disk))
        );
        api.MapGet("/turns", (SharedAnswers shared) => shared.OfAsync("turns", TurnsView.OfAsync));
        api.MapGet("/came-in", (int? past, CameInSort? sort, Desk desk) => CameIn.PageAsync(desk, past ?? 0, sort));
        api.MapPost(
            "/today/looked",
            async (Desk desk) =>
            {
                var now = desk.Now;
                await desk.Db.Studio.ExecuteUpdateAsync(set => set.SetProperty(studio => studio.LookedAt, now));
                return TypedResults.NoContent();
            }
        );
        api.MapGet(
                "/live",
                (Live live, IHostApplicationLifetime life, HttpContext http) =>
                    TypedResults.ServerSentEvents(
                        live.ListenAsync(
                            CancellationTokenSource
                                .CreateLinkedTokenSource(http.RequestAborted, life.ApplicationStopping)
                                .Token
                        )
                    )
            )
            .ExcludeFromDescription();
    }
}
