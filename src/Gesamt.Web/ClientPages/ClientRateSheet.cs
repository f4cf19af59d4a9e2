using Gesamt.Web.Access;
using Gesamt.Web.Hosting;
using Gesamt.Web.Prices;
using Gesamt.Web.Proposals;

namespace Gesamt.Web.ClientPages;

/// <summary>Services that were ticked, of the price list.</summary>
public sealed record TickedDto(IReadOnlyList<int> Services);

/// <summary>Ticking a rate sheet on the client's page.</summary>
public static class ClientRateSheet
{
    public static RouteGroupBuilder MapClientRateSheets(this RouteGroupBuilder page)
    {
        page.MapPost(
            "/rate-sheet",
            async (HttpContext http, Desk desk, TickedDto ticked) =>
            {
                var project = ClientLink.Link(http).ProjectId;
                await desk.ActAsync(async act =>
                {
                    var file = await desk.OpenAsync(project);
                    await RateSheet.TickAsync(act, file, ticked.Services);
                    await Beginnings.TakeTickedAsync(desk, file);
                });
                return Results.NoContent();
            }
        );
        return page;
    }
}
