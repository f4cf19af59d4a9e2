using Gesamt.Core;
using Gesamt.Core.Proposals;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Papers;
using Gesamt.Web.Prices;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Proposals;

/// <summary>A proposal to begin with: a template of the kind, or what was sent for another project of it.</summary>
/// <param name="Template">Null for another project's.</param>
/// <param name="Version">Null for a template.</param>
public sealed record BeginningDto(int? Template, long? Version, string Name, int Services);

/// <summary>Which of them.</summary>
public sealed record BeginWithDto(int? Template, long? Version);

/// <summary>The name of a template.</summary>
public sealed record TemplateNameDto(string Name);

/// <summary>What a proposal can begin with.</summary>
public static class Beginnings
{
    private const int MostEarlier = 5,
        MostTemplates = 30;

    /// <summary>The kind's templates, then the newest proposal of other projects of the kind.</summary>
    public static async Task<IReadOnlyList<BeginningDto>> OfAsync(Desk desk, ProjectFile file) =>
        [
            .. (
                await desk
                    .Db.OfferTemplates.AsNoTracking()
                    .Where(t => t.KindId == file.Row.KindId)
                    .OrderBy(t => t.Id)
                    .ToListAsync()
            ).Select(t => new BeginningDto(t.Id, null, t.Name, StoreJson.Read<Offer>(t.Offer).Lines.Length)),
            .. await EarlierAsync(desk, file),
        ];

    /// <summary>Writes the draft anew from a beginning: its page, services and payments, at the prices of the list as it is now where they stand in it, in the quantities this project needs where they are known.</summary>
    /// <exception cref="MissingException">There is no such beginning of the kind.</exception>
    public static async Task<OfferDraftRow> BeginAsync(Desk desk, ProjectFile file, BeginWithDto from)
    {
        var begun = await WithAsync(desk, file, await OfferAsync(desk, file, from));
        var draft = await Drafts.OfAsync(desk, file);
        draft.Offer = StoreJson.Write(begun);
        draft.Edition++;
        draft.ChangedAt = desk.Now;
        await desk.Db.SaveChangesAsync();
        return draft;
    }

    /// <summary>What a kind's first template gives a new project; null where it has none.</summary>
    public static async Task<Offer?> FirstOfKindAsync(Desk desk, ProjectFile file) =>
        await desk
            .Db.OfferTemplates.AsNoTracking()
            .Where(t => t.KindId == file.Row.KindId)
            .OrderBy(t => t.Id)
            .FirstOrDefaultAsync()
            is { } template
            ? await WithAsync(desk, file, StoreJson.Read<Offer>(template.Offer))
            : null;

    /// <summary>An offer with what the client ticked on the rate sheet, where no service stands in it yet.</summary>
    public static async Task<Offer> WithTickedAsync(Desk desk, ProjectFile file, Offer offer)
    {
        if (!offer.Lines.IsEmpty || await RateSheet.TickedServicesAsync(desk, file.Id) is not { Count: > 0 } ticked)
            return offer;
        var quantities = await KnownQuantities.OfAsync(desk, file);
        return offer with
        {
            Lines =
            [
                .. (await PriceList.OfferedAsync(desk, file.Row.Kinds))
                    .Where(service => ticked.Contains(service.Id))
                    .Select(service =>
                        OfferedServices.Line(service, quantities.Of(service.Unit), offer.Gross) with
                        {
                            Key = $"s{service.Id}",
                        }
                    ),
            ],
        };
    }

    /// <summary>Puts what was ticked into a draft that was begun already, and has no service yet.</summary>
    public static async Task TakeTickedAsync(Desk desk, ProjectFile file)
    {
        if (await desk.Db.OfferDrafts.SingleOrDefaultAsync(d => d.ProjectId == file.Id) is not { } draft)
            return;
        var offer = StoreJson.Read<Offer>(draft.Offer);
        var ticked = await WithTickedAsync(desk, file, offer);
        if (ReferenceEquals(ticked, offer))
            return;
        (draft.Offer, draft.ChangedAt) = (StoreJson.Write(ticked), desk.Now);
        draft.Edition++;
    }

    /// <summary>Keeps a project's draft as a template of its kind; one of the same name is replaced.</summary>
    public static async Task KeepAsync(Desk desk, ProjectFile file, string name)
    {
        var named = name.Trim();
        if (named.Length is 0 or > 80)
            throw new InvalidException(("name", "A template needs a name of 1 to 80 characters."));
        var draft = await Drafts.OfAsync(desk, file);
        var kept = await desk.Db.OfferTemplates.Where(t => t.KindId == file.Row.KindId).ToListAsync();
        var row = kept.FirstOrDefault(t => t.Name == named);
        if (row is null && kept.Count >= MostTemplates)
            throw new RefusedException($"A kind keeps at most {MostTemplates} templates. Take one out first.");
        if (row is null)
            desk.Db.OfferTemplates.Add(
                row = new()
                {
                    KindId = file.Row.KindId,
                    Name = named,
                    Offer = "",
                }
            );
        (row.Offer, row.ChangedAt) = (draft.Offer, desk.Now);
        await desk.Db.SaveChangesAsync();
    }

    private static async Task<IReadOnlyList<BeginningDto>> EarlierAsync(Desk desk, ProjectFile file)
    {
        var newest = await desk
            .Db.Versions.AsNoTracking()
            .Where(v => v.Sort == PaperSort.Proposal && v.ProjectId != file.Id)
            .Join(
                desk.Db.Projects.Where(p => p.KindId == file.Row.KindId),
                v => v.ProjectId,
                p => p.Id,
                (v, p) => new { Version = v, p.Title }
            )
            .OrderByDescending(one => one.Version.Id)
            // an agreed price is kept as a proposal of one line, which is nothing to begin with
            .Take(4 * MostEarlier)
            .ToListAsync();
        return
        [
            .. newest
                .Select(one => (one.Version, one.Title, Lines: Versions.OfferOf(one.Version).Lines.Length))
                .Where(one => one.Lines > 1)
                .DistinctBy(one => one.Version.ProjectId)
                .Take(MostEarlier)
                .Select(one => new BeginningDto(null, one.Version.Id.Value, one.Title, one.Lines)),
        ];
    }

    private static async Task<Offer> OfferAsync(Desk desk, ProjectFile file, BeginWithDto from)
    {
        if (from.Template is { } id)
            return
                await desk
                    .Db.OfferTemplates.AsNoTracking()
                    .SingleOrDefaultAsync(t => t.Id == id && t.KindId == file.Row.KindId)
                    is { } template
                ? StoreJson.Read<Offer>(template.Offer)
                : throw new MissingException("template");
        var version = new VersionId(from.Version ?? 0);
        return
            await desk
                .Db.Versions.AsNoTracking()
                .SingleOrDefaultAsync(v =>
                    v.Id == version
                    && v.Sort == PaperSort.Proposal
                    && desk.Db.Projects.Any(p => p.Id == v.ProjectId && p.KindId == file.Row.KindId)
                )
                is { } sent
            ? Versions.OfferOf(sent)
            : throw new MissingException("proposal");
    }

    private static async Task<Offer> WithAsync(Desk desk, ProjectFile file, Offer begun)
    {
        var prices = (await PriceList.OfferedAsync(desk, file.Row.Kinds)).ToLookup(service => service.Title);
        var quantities = await KnownQuantities.OfAsync(desk, file);
        return begun with
        {
            Title = file.Row.Title,
            ValidUntil = UsualOffer.ValidUntil(desk.Today, desk.Studio.Habits()),
            Lines =
            [
                .. begun.Lines.Select(line =>
                    prices[line.Title].FirstOrDefault() is { } service
                    && begun.Currency == desk.Currency
                    && OfferedServices.Line(service, 1, begun.Gross) is var now
                        ? InQuantity(
                            line with
                            {
                                UnitPrice = now.UnitPrice,
                                Tax = now.Tax,
                                Category = now.Category,
                                Steps = now.Steps,
                            },
                            quantities
                        )
                        : InQuantity(line, quantities)
                ),
            ],
        };
    }

    private static OfferLine InQuantity(OfferLine line, KnownQuantities quantities) =>
        quantities.Of(line.Unit, line.Quantity) is var quantity && (line.Limits?.Holds(quantity) ?? true)
            ? line with
            {
                Quantity = quantity,
            }
            : line;
}
