using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;

namespace Gesamt.Web.Contracts;

/// <summary>Why a contract is voided; may be empty.</summary>
public sealed record VoidDto(string Words);

/// <summary>The addresses of contracts.</summary>
public static class ContractEndpoints
{
    public static void MapContracts(this RouteGroupBuilder api)
    {
        api.MapGet(
            "/projects/{id:long}/contract",
            async (long id, Desk desk) => await ContractWriting.OfAsync(desk, await desk.OpenAsync(new(id)))
        );
        api.MapPost(
            "/projects/{id:long}/contract/send",
            async (long id, SendContractDto send, Desk desk, Settings settings) =>
                new SentDto(
                    (await ContractWriting.SendAsync(desk, await desk.OpenAsync(new(id)), send)).Id.Value,
                    settings.HoldSeconds
                )
        );
        api.MapPost(
            "/projects/{id:long}/contract/{version:long}/void",
            async (long id, long version, VoidDto why, Desk desk) =>
            {
                await Contracting.VoidAsync(desk, new(id), new(version), why.Words);
                return TypedResults.NoContent();
            }
        );
    }
}
