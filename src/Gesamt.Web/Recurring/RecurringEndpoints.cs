using Gesamt.Core.Facts;
using Gesamt.Web.Hosting;
using Gesamt.Web.Invoicing;

namespace Gesamt.Web.Recurring;

/// <summary>The addresses of invoices that come again.</summary>
public static class RecurringEndpoints
{
    public static void MapRecurring(this RouteGroupBuilder api)
    {
        api.MapPost(
            "/projects/{id:long}/bill/recurring",
            async (long id, BeginRecurringDto begin, Desk desk) =>
            {
                await Recurrences.BeginAsync(desk, new(id), begin);
                return TypedResults.NoContent();
            }
        );
        api.MapPost(
            "/projects/{id:long}/recurring/{recurring:long}/open",
            async (long id, long recurring, Desk desk) =>
            {
                await Recurrences.OpenAsync(desk, new(id), new(recurring));
                return TypedResults.NoContent();
            }
        );
        api.MapPut(
            "/projects/{id:long}/recurring/{recurring:long}",
            async (long id, long recurring, ChangeRecurringDto change, Desk desk) =>
            {
                await Recurrences.ChangeAsync(desk, new(id), new(recurring), change);
                return TypedResults.NoContent();
            }
        );
        api.MapPost(
            "/projects/{id:long}/recurring/{recurring:long}/stop",
            async (long id, long recurring, Desk desk) =>
            {
                await Recurrences.StopAsync(desk, new(id), new(recurring));
                return TypedResults.NoContent();
            }
        );
        api.MapPost(
            "/projects/{id:long}/kept-means/take-back",
            async (long id, Desk desk) =>
            {
                await KeptMeans.TakeBackAsync(desk, new(id), Actor.Owner);
                return TypedResults.NoContent();
            }
        );
    }
}
