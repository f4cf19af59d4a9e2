using Gesamt.Web.Contracts;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Proposals;

/// <param name="Edition">The edition that was edited; a stale one is refused with both texts.</param>
/// <param name="Signing">How its contract is signed; null leaves it as it is.</param>
public sealed record SaveDraftDto(int Edition, OfferDto Offer, string Contract, SigningDto? Signing = null);

/// <summary>A service of the price list as a line of this proposal.</summary>
/// <param name="Name">With its price, to choose it by.</param>
/// <param name="Line">In the quantity the project needs, as far as the record knows; else one.</param>
public sealed record OfferedServiceDto(int Id, string Name, bool ForAllKinds, OfferLineDto Line);

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
                    var before = SigningReading.Stored((await Drafts.OfAsync(desk, file)).Signing);
                    var draft = await Drafts.SaveAsync(
                        desk,
                        file,
                        OfferReading.Of(save.Offer, desk.Currency),
                        save.Contract,
                        save.Signing is { } signing
                            ? await SigningReading.ReadAsync(desk, file, signing, before)
                            : null,
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
            "/projects/{id:long}/proposal/amend",
            async (long id, Desk desk) =>
                await desk.ActAsync(async act =>
                {
                    var file = await desk.OpenAsync(new(id));
                    return await DraftDto.OfAsync(desk, file, await Amending.BeginAsync(desk, file));
                })
        );

        api.MapGet(
            "/projects/{id:long}/services",
            async (long id, bool? gross, Desk desk) =>
                await OfferedServices.OfAsync(desk, await desk.OpenAsync(new(id)), gross ?? false)
        );
        api.MapGet(
            "/projects/{id:long}/proposal/beginnings",
            async (long id, Desk desk) => await Beginnings.OfAsync(desk, await desk.OpenAsync(new(id)))
        );
        api.MapPost(
            "/projects/{id:long}/proposal/begin",
            async (long id, BeginWithDto from, Desk desk) =>
                await desk.ActAsync(async act =>
                {
                    var file = await desk.OpenAsync(new(id));
                    return await DraftDto.OfAsync(desk, file, await Beginnings.BeginAsync(desk, file, from));
                })
        );
        api.MapPost(
            "/projects/{id:long}/proposal/template",
            async (long id, TemplateNameDto template, Desk desk) =>
            {
                await desk.ActAsync(async act =>
                    await Beginnings.KeepAsync(desk, await desk.OpenAsync(new(id)), template.Name)
                );
                return TypedResults.NoContent();
            }
        );
        api.MapDelete(
            "/offer-templates/{id:int}",
            async (int id, Desk desk) =>
            {
                await desk.ActAsync(act => desk.Db.OfferTemplates.Where(t => t.Id == id).ExecuteDeleteAsync());
                return TypedResults.NoContent();
            }
        );
    }
}
