using Gesamt.Core;
using Gesamt.Core.Proposals;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Gesamt.Web.Papers;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Reports;

/// <summary>What a line of an agreement comes to.</summary>
/// <param name="Service">Of the price list; null for a line written by hand.</param>
/// <param name="NetMinor">Without tax, after every discount.</param>
internal sealed record AgreedLine(int? Service, string Title, long NetMinor);

/// <summary>Agreed prices by the lines of their proposals.</summary>
internal static class AgreedLines
{
    /// <summary>The lines of each project add up to its agreed net; a project whose price its papers do not come to is left out.</summary>
    public static async Task<IReadOnlyDictionary<ProjectId, List<AgreedLine>>> OfAsync(
        Desk desk,
        IReadOnlyCollection<Came> booked
    )
    {
        var ids = booked.Select(one => one.AgreedBy).OfType<VersionId>().ToList();
        var proposals = (
            await desk.Db.Versions.AsNoTracking().Where(v => ids.Contains(v.Id)).ToListAsync()
        ).ToDictionary(v => v.Id);
        var from = ids.Select(id => (VersionId?)id).ToList();
        var contracts = (
            await desk
                .Db.Versions.AsNoTracking()
                .Where(v => v.FromProposal != null && from.Contains(v.FromProposal))
                .OrderBy(v => v.Number)
                .ToListAsync()
        ).ToLookup(v => v.FromProposal!.Value);
        var lines = new Dictionary<ProjectId, List<AgreedLine>>();
        foreach (var one in booked)
            if (
                one is { AgreedBy: { } by, NetMinor: { } net }
                && proposals.TryGetValue(by, out var proposal)
                && desk.Tell(() => Split(proposal, contracts[by], net), () => null) is { } split
            )
                lines[one.Id] = split;
        return lines;
    }

    private static List<AgreedLine>? Split(VersionRow proposal, IEnumerable<VersionRow> contracts, long net)
    {
        var offer = Versions.OfferOf(proposal);
        foreach (
            var choice in contracts
                .Select(Versions.Read<ContractSnapshot>)
                .Where(contract => contract.Amends is null)
                .Select(contract => contract.Choice)
                .Append(Choice.Nothing)
        )
            if (Priced(offer, choice) is { } priced && priced.Totals.Net.Minor == net)
                return Split(offer, priced);
        return null;
    }

    private static PricedChoice? Priced(Offer offer, Choice choice)
    {
        try
        {
            return Pricing.Sums(offer, choice);
        }
        catch (OfferException)
        {
            return null;
        }
    }

    /// <summary>A discount on the whole is shared among the lines in proportion.</summary>
    private static List<AgreedLine>? Split(Offer offer, PricedChoice priced)
    {
        var weights = priced
            .Lines.Select(line =>
            {
                var own = line.Priced(offer.Currency).Net;
                return (offer.Gross ? Core.Books.Taxes.OfGross(own, line.Tax).Net : own).Minor;
            })
            .ToArray();
        if (weights.All(weight => weight == 0) || weights.Any(weight => weight < 0))
            return null;
        var shares = priced.Totals.Net.Split(weights);
        return [.. priced.Lines.Select((line, i) => new AgreedLine(line.Service, line.Title, shares[i].Minor))];
    }
}
