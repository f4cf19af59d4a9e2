using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Papers;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Proposals;

/// <summary>A proposal of another project of the kind, to begin with its services.</summary>
public sealed record EarlierOfferDto(long Version, string Project, int Services);

/// <summary>Proposals that were sent for projects of the same kind.</summary>
internal static class EarlierOffers
{
    private const int Most = 5;

    /// <summary>The newest of each other project, newest first.</summary>
    public static async Task<IReadOnlyList<EarlierOfferDto>> OfAsync(Desk desk, ProjectFile file)
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
            .Take(4 * Most)
            .ToListAsync();
        return
        [
            .. newest
                .Select(one => (one.Version, one.Title, Lines: Versions.OfferOf(one.Version).Lines.Length))
                .Where(one => one.Lines > 1)
                .DistinctBy(one => one.Version.ProjectId)
                .Take(Most)
                .Select(one => new EarlierOfferDto(one.Version.Id.Value, one.Title, one.Lines)),
        ];
    }

    /// <summary>The services of one, at the prices of the list as it is now where they stand in it, and in the quantities this project needs where they are known.</summary>
    /// <exception cref="MissingException">There is no such proposal of the kind.</exception>
    public static async Task<IReadOnlyList<OfferLineDto>> LinesAsync(Desk desk, ProjectFile file, VersionId id)
    {
        var version =
            await desk
                .Db.Versions.AsNoTracking()
                .SingleOrDefaultAsync(v =>
                    v.Id == id
                    && v.Sort == PaperSort.Proposal
                    && desk.Db.Projects.Any(p => p.Id == v.ProjectId && p.KindId == file.Row.KindId)
                )
            ?? throw new MissingException("proposal");
        var prices = (
            await desk.Db.Services.AsNoTracking().Where(s => s.KindId == file.Row.KindId).ToListAsync()
        ).ToLookup(s => s.Title);
        var quantities = await KnownQuantities.OfAsync(desk, file);
        var offer = Versions.OfferOf(version) with { Plan = [], Title = "", Intro = "", Terms = "" };
        return OfferWire
            .Of(
                offer with
                {
                    Lines =
                    [
                        .. offer.Lines.Select(line =>
                            prices[line.Title].FirstOrDefault() is { } now
                                ? line with
                                {
                                    Quantity = quantities.Of(line.Unit, line.Quantity),
                                    UnitPrice = now.UnitPrice,
                                    Tax = new Rate(now.TaxPartsPerMillion),
                                }
                                : line with
                                {
                                    Quantity = quantities.Of(line.Unit, line.Quantity),
                                }
                        ),
                    ],
                }
            )
            .Lines;
    }
}
