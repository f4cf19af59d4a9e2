using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Proposals;
using Gesamt.Store;
using Gesamt.Web.Hosting;
using Gesamt.Web.Papers;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Books;

/// <summary>What proposals ask for as they are suggested, tax included.</summary>
internal static class Suggested
{
    // a version is written once and its hash names its bytes: what they come to is worked out once
    private static readonly Remembered<Money> Known = new(500);

    private sealed record Hashed(VersionId Id, string Hash);

    private static readonly Func<GesamtDb, IReadOnlyCollection<VersionId>, Task<List<Hashed>>> Hashes = Prepared.Rows(
        (GesamtDb db, IReadOnlyCollection<VersionId> versions) =>
            db.Versions.Where(v => versions.Contains(v.Id)).Select(v => new Hashed(v.Id, v.Hash))
    );

    /// <summary>Of these versions; nothing is asked by one that cannot be told.</summary>
    public static async Task<IReadOnlyDictionary<VersionId, Money>> OfAsync(Desk desk, List<VersionId> versions)
    {
        var hashes = (await Hashes(desk.Db, versions)).ToDictionary(v => v.Id, v => v.Hash);
        Dictionary<string, Money> sums = new(StringComparer.Ordinal);
        // the same bytes may have been sent to two
        foreach (var hash in hashes.Values)
            if (Known.TryGet(hash, out var known))
                sums[hash] = known;
        var unread = hashes.Where(one => !sums.ContainsKey(one.Value)).Select(one => one.Key).ToList();
        if (unread.Count > 0)
            foreach (
                var version in await desk.Db.Versions.AsNoTracking().Where(v => unread.Contains(v.Id)).ToListAsync()
            )
                if (desk.Tell(() => (Money?)SumOf(Versions.OfferOf(version)), () => null) is { } sum)
                    sums[version.Hash] = Known.Keep(version.Hash, sum);
        return hashes.Where(one => sums.ContainsKey(one.Value)).ToDictionary(one => one.Key, one => sums[one.Value]);
    }

    private static Money SumOf(Offer offer) => Pricing.Sums(offer, Pricing.Suggested(offer)).Totals.Payable;
}
