using Gesamt.Core.Amounts;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Proposals;

/// <param name="Edition">The edition that was edited; a stale one is refused with both texts.</param>
public sealed record SaveDraftDto(int Edition, OfferDto Offer, string Contract);

/// <summary>A service of the price list.</summary>
public sealed record ServiceDto(long Id, string Title, string Detail, string Unit, string UnitPrice, string Tax);

/// <summary>A service that a proposal can take.</summary>
/// <param name="Quantity">How much of it the project needs, as far as the record knows; else one.</param>
public sealed record OfferedServiceDto(ServiceDto Service, string Quantity);

/// <summary>The addresses of proposals.</summary>
public static class ProposalEndpoints
{
    public static void MapProposals(this RouteGroupBuilder api)
    {
        api.MapGet(
            "/projects/{id:long}/proposal",
            async (long id, Desk desk) =>
            {
                var file = await desk.OpenAsync(new(id));
                return await DraftDto.OfAsync(desk, file, await Drafts.OfAsync(desk, file));
            }
        );

        api.MapPut(
            "/projects/{id:long}/proposal",
            async (long id, SaveDraftDto save, Desk desk) =>
            {
                return await desk.ActAsync(async act =>
                {
                    var file = await desk.OpenAsync(new(id));
                    var draft = await Drafts.SaveAsync(
                        desk,
                        file,
                        OfferReading.Of(save.Offer, desk.Currency),
                        save.Contract,
                        save.Edition
                    );
                    return await DraftDto.OfAsync(desk, file, draft);
                });
            }
        );

        api.MapPost(
            "/projects/{id:long}/proposal/send",
            async (long id, LetterTextDto letter, Desk desk, Settings settings) =>
                new SentDto(
                    (await Drafts.SendAsync(desk, new(id), letter.Subject, letter.Body)).Id.Value,
                    settings.HoldSeconds
                )
        );

        api.MapPost(
            "/projects/{id:long}/proposal/renew",
            async (long id, Desk desk, Settings settings) =>
                new SentDto((await Drafts.RenewAsync(desk, new(id))).Id.Value, settings.HoldSeconds)
        );

        api.MapPost(
            "/projects/{id:long}/contract/send",
            async (long id, LetterTextDto letter, Desk desk, Settings settings) =>
                new SentDto(
                    (await Contracts.Contracting.SendAsync(desk, new(id), letter.Subject, letter.Body)).Id.Value,
                    settings.HoldSeconds
                )
        );

        api.MapGet(
            "/projects/{id:long}/services",
            async (long id, Desk desk) =>
            {
                var file = await desk.OpenAsync(new(id));
                var quantities = await KnownQuantities.OfAsync(desk, file);
                return (
                    await desk
                        .Db.Services.AsNoTracking()
                        .Where(s => s.KindId == file.Row.KindId)
                        .OrderBy(s => s.Position)
                        .ToListAsync()
                )
                    .Select(s => new OfferedServiceDto(
                        new(
                            s.Id,
                            s.Title,
                            s.Detail,
                            s.Unit,
                            NumberText.Number(s.UnitPrice),
                            NumberText.Number(s.TaxPartsPerMillion / 10_000m)
                        ),
                        NumberText.Number(quantities.Of(s.Unit))
                    ))
                    .ToList();
            }
        );
        api.MapGet(
            "/projects/{id:long}/proposal/earlier",
            async (long id, Desk desk) => await EarlierOffers.OfAsync(desk, await desk.OpenAsync(new(id)))
        );
        api.MapGet(
            "/projects/{id:long}/proposal/earlier/{version:long}",
            async (long id, long version, Desk desk) =>
                await EarlierOffers.LinesAsync(desk, await desk.OpenAsync(new(id)), new(version))
        );
    }
}
