using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;

namespace Gesamt.Web.Prices;

/// <summary>The addresses of rate sheets.</summary>
public static class RateSheetEndpoints
{
    public static void MapRateSheets(this RouteGroupBuilder api)
    {
        api.MapGet(
            "/projects/{id:long}/rate-sheet",
            async (long id, Desk desk) => await RateSheet.OfAsync(desk, await desk.OpenAsync(new(id)))
        );
        api.MapPost(
            "/projects/{id:long}/rate-sheet",
            async (long id, SendRateSheetDto send, Desk desk, Settings settings) =>
                new SentDto((await RateSheet.SendAsync(desk, new(id), send)).Id.Value, settings.HoldSeconds)
        );
        api.MapPost(
            "/projects/{id:long}/rate-sheet/back",
            async (long id, Desk desk) =>
            {
                await RateSheet.TakeBackAsync(desk, new(id));
                return TypedResults.NoContent();
            }
        );
    }
}
