using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Nodes;
using Gesamt.Core;
using Gesamt.Core.Papers;
using Gesamt.Core.Proposals;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Proposals;

/// <summary>What a proposal freezes: the offer, the contract's text that goes with it, and for whom.</summary>
public sealed record ProposalSnapshot(Offer Offer, string ContractTitle, string ContractText, string For);

/// <summary>What a contract freezes: its filled text and exactly the choice that was made.</summary>
public sealed record ContractSnapshot(string Title, string Text, ImmutableArray<string> Parties, string Project, ImmutableArray<string> Chosen, string ProposalHash);

/// <summary>Sent papers as versions: RFC 8785 bytes and their SHA-256, written once.</summary>
public static class Versions
{
    public static async Task<VersionRow> AddAsync<T>(Desk desk, ProjectId project, PaperSort sort, T snapshot, VersionId? from = null)
    {
        var bytes = CanonicalJson.Of(JsonSerializer.SerializeToNode(snapshot, StoreJson.Options));
        var last = await desk.Db.Versions.Where(v => v.ProjectId == project && v.Sort == sort).MaxAsync(v => (int?)v.Number) ?? 0;
        var version = new VersionRow { ProjectId = project, Sort = sort, Number = last + 1, Canonical = bytes, Hash = CanonicalJson.Hash(bytes), At = desk.Now, FromProposal = from };
        desk.Db.Versions.Add(version);
        await desk.Db.SaveChangesAsync();
        return version;
    }

    public static T Read<T>(VersionRow version) => JsonNode.Parse(version.Canonical).Deserialize<T>(StoreJson.Options)
        ?? throw new JsonException($"Version {version.Number} is empty.");

    public static Offer OfferOf(VersionRow version) => Read<ProposalSnapshot>(version).Offer;
}
