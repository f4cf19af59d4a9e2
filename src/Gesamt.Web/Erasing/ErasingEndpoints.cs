using Gesamt.Core.Erasing;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Erasing;

/// <summary>For how many years the law keeps papers.</summary>
public sealed record KeepingDto(int BookYears, int AgreementYears);

/// <summary>Papers that stay of a project whose client was erased.</summary>
/// <param name="Over">Whether something of it may go.</param>
public sealed record KeptOfErasedDto(long Project, IReadOnlyList<string> What, bool Over);

/// <summary>What stays of everybody who was erased.</summary>
/// <param name="Clearing">Since when the disk is to be cleared of what was erased; null when it is.</param>
public sealed record ErasedDto(KeepingDto Years, IReadOnlyList<KeptOfErasedDto> Kept, string? Clearing);

/// <summary>The addresses of erasing.</summary>
public static class ErasingEndpoints
{
    public static void MapErasing(this RouteGroupBuilder api)
    {
        api.MapGet(
            "/people/{id:long}/erasing",
            (long id, Desk desk, Settings settings) => ErasingPreview.OfAsync(desk, new(id), settings)
        );
        api.MapPost(
            "/people/{id:long}/erase",
            async (long id, Erasure erasure, CancellationToken stop) =>
            {
                await erasure.EraseAsync(new(id), stop);
                return TypedResults.NoContent();
            }
        );
        api.MapGet("/erased", OfAsync);
        api.MapPut(
            "/erased/years",
            async (KeepingDto years, Desk desk) =>
            {
                if (years.BookYears is < 0 or > Keeping.MostYears)
                    throw new InvalidException(("bookYears", $"From 0 to {Keeping.MostYears} years."));
                if (years.AgreementYears is < 0 or > Keeping.MostYears)
                    throw new InvalidException(("agreementYears", $"From 0 to {Keeping.MostYears} years."));
                await desk.Db.Studio.ExecuteUpdateAsync(set =>
                    set.SetProperty(s => s.BookYears, years.BookYears)
                        .SetProperty(s => s.AgreementYears, years.AgreementYears)
                );
                return TypedResults.NoContent();
            }
        );
        api.MapPost(
            "/erased/{project:long}/papers",
            async (long project, Erasure erasure, CancellationToken stop) =>
            {
                await erasure.ErasePapersAsync(new(project), stop);
                return TypedResults.NoContent();
            }
        );
    }

    private static async Task<ErasedDto> OfAsync(Desk desk) =>
        new(
            new(desk.Studio.BookYears, desk.Studio.AgreementYears),
            await KeptPapersOfErased.AllAsync(desk),
            await desk.Db.Upkeep.Select(row => row.ClearSince).SingleOrDefaultAsync() is { } since
                ? desk.Precisely(since)
                : null
        );
}
