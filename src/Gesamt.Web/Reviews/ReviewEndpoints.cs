using Gesamt.Core.Facts;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;

namespace Gesamt.Web.Reviews;

/// <param name="Files">Drafts to put up.</param>
/// <param name="Beyond">That more rounds than agreed are meant.</param>
public sealed record PutUpDto(long[] Files, string? Phase, string Subject, string Body, bool Beyond);

/// <summary>The addresses of drafts that are put up for approval.</summary>
public static class ReviewEndpoints
{
    public static void MapReviews(this RouteGroupBuilder api)
    {
        api.MapPost(
            "/projects/{id:long}/reviews",
            async (long id, PutUpDto up, Desk desk, Settings settings) =>
                new SentDto(
                    (await Reviewing.PutUpAsync(desk, new(id), up.Files, up.Phase, up.Subject, up.Body, up.Beyond))
                        .Id
                        .Value,
                    settings.HoldSeconds
                )
        );
        api.MapPost(
            "/reviews/{id:long}/withdraw",
            async (long id, Desk desk) =>
            {
                await Reviewing.WithdrawAsync(desk, new(id));
                return TypedResults.NoContent();
            }
        );
        api.MapPost(
            "/reviews/{id:long}/reopen",
            async (long id, Desk desk) =>
            {
                await Reviewing.ReopenAsync(desk, new(id), Actor.Owner);
                return TypedResults.NoContent();
            }
        );
    }
}
