using System.Globalization;
using Gesamt.Core;
using Gesamt.Core.Proposals;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Contracts;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using Gesamt.Web.Papers;
using Gesamt.Web.Prices;
using Gesamt.Web.Proposals;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Demo;

/// <summary>Rate sheets, several signatures and amendments of the demo.</summary>
internal static class DemoSelling
{
    private static readonly HashSet<string> Acts = ["rates", "ticks", "signers", "amends"];

    public static bool Knows(string act) => Acts.Contains(act);

    /// <summary>One event of the selling.</summary>
    public static Task PlayAsync(Desk desk, ProjectId id, DemoEvent e) =>
        e.Act switch
        {
            "rates" => RatesAsync(desk, id, e.Rest),
            "ticks" => TickAsync(desk, id, e.Rest),
            "signers" => SignersAsync(desk, id),
            _ => AmendAsync(desk, id, e.Rest),
        };

    /// <summary>“Fascia lettering, Gold leaf”.</summary>
    private static async Task RatesAsync(Desk desk, ProjectId id, string titles) =>
        await RateSheet.SendAsync(
            desk,
            id,
            new(
                [.. (await ServicesAsync(desk, id, titles)).Select(service => service.Id)],
                UsualLetters.RateSheet.Subject,
                UsualLetters.RateSheet.Body
            )
        );

    private static async Task TickAsync(Desk desk, ProjectId id, string titles) =>
        await desk.ActAsync(async act =>
            await RateSheet.TickAsync(
                act,
                await desk.OpenAsync(id),
                [.. (await ServicesAsync(desk, id, titles)).Select(service => service.Id)]
            )
        );

    /// <summary>Everybody who can sign for the client does, one after the other.</summary>
    private static Task SignersAsync(Desk desk, ProjectId id) =>
        desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(id);
            var draft = await Drafts.OfAsync(desk, file);
            draft.Signing = StoreJson.Write(
                new SigningTerms([
                    .. (await SigningReading.WhoCanAsync(desk, file)).Select(one => new SignerTerms(
                        new(one.Person),
                        one.Name
                    )),
                ])
            );
        });

    /// <summary>“Hand-lettered name × 6”: what comes on top.</summary>
    private static async Task AmendAsync(Desk desk, ProjectId id, string more)
    {
        var parts = more.Split('×', StringSplitOptions.TrimEntries);
        var service = (await ServicesAsync(desk, id, parts[0]))[0];
        await desk.ActAsync(async act =>
        {
            var file = await desk.OpenAsync(id);
            var draft = await Amending.BeginAsync(desk, file);
            var offer = StoreJson.Read<Offer>(draft.Offer);
            draft.Offer = StoreJson.Write(
                offer with
                {
                    Lines = offer.Lines.Add(
                        OfferedServices.Line(
                            service,
                            decimal.Parse(parts[1], CultureInfo.InvariantCulture),
                            offer.Gross
                        ) with
                        {
                            Key = "more",
                        }
                    ),
                }
            );
        });
        await Drafts.SendAsync(desk, id, UsualLetters.Amendment.Subject, UsualLetters.Amendment.Body);
    }

    private static async Task<IReadOnlyList<ServiceRow>> ServicesAsync(Desk desk, ProjectId id, string titles)
    {
        var kind = await desk.Db.Projects.Where(p => p.Id == id).Select(p => p.KindId).SingleAsync();
        var known = await PriceList.OfferedAsync(desk, [kind]);
        return
        [
            .. titles
                .Split(',', StringSplitOptions.TrimEntries)
                .Select(title =>
                    known.FirstOrDefault(service => service.Title == title)
                    ?? throw new FormatException($"No service “{title}”.")
                ),
        ];
    }
}
