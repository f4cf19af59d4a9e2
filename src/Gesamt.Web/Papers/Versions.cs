using System.Collections.Immutable;
using System.Text.Json;
using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Papers;
using Gesamt.Core.Proposals;
using Gesamt.Formats.Pdf;
using Gesamt.Formats.Texts;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Papers;

/// <summary>What a proposal freezes: the offer, the contract's text that goes with it, and for whom.</summary>
/// <param name="Signing">How its contract is signed; null in versions of an older Gesamt.</param>
public sealed record ProposalSnapshot(
    Offer Offer,
    string ContractTitle,
    string ContractText,
    string For,
    SigningTerms? Signing = null
);

/// <summary>What a contract freezes: its filled text, exactly the choice that was made, and all else that is printed.</summary>
/// <param name="Printed">Null in versions of an older Gesamt.</param>
/// <param name="Markdown">Whether the text is Markdown; false in versions of an older Gesamt.</param>
/// <param name="Quantities">Of what was chosen in another quantity than proposed.</param>
/// <param name="Signing">How it is signed; null in versions of an older Gesamt.</param>
/// <param name="Replaces">The contract that stood when it was put, and that it takes the place of once it is signed.</param>
/// <param name="Amends">What it rests on, for an amendment.</param>
public sealed record ContractSnapshot(
    string Title,
    string Text,
    ImmutableArray<string> Parties,
    string Project,
    ImmutableArray<string> Chosen,
    string ProposalHash,
    PrintedTerms? Printed = null,
    ImmutableSortedDictionary<string, decimal>? Quantities = null,
    bool Markdown = false,
    SigningTerms? Signing = null,
    VersionId? Replaces = null,
    AmendmentTerms? Amends = null
)
{
    /// <summary>How it is signed.</summary>
    public SigningTerms SignedBy => Signing ?? SigningTerms.Plain;

    /// <summary>Its text in blocks, the same on the page and on paper. One of an older Gesamt is read as it was written, and its paragraphs bear no numbers.</summary>
    public ImmutableArray<TextBlock> Blocks =>
        Markdown
            ? MarkdownText.Numbered(Text)
            :
            [
                .. Text.ReplaceLineEndings("\n")
                    .Split("\n\n", StringSplitOptions.RemoveEmptyEntries)
                    .Select(paragraph => new TextBlock(BlockSort.Paragraph, 0, null, [new(paragraph)])),
            ];

    /// <summary>What was chosen out of the proposal.</summary>
    public Choice Choice => new([.. Chosen], Quantities ?? ImmutableSortedDictionary<string, decimal>.Empty);
}

/// <summary>From whom, for what and how it is paid, as it is printed and shown: nothing that changes later changes it.</summary>
/// <param name="Sums">Null for a contract signed on paper before any price was agreed.</param>
public sealed record PrintedTerms(
    Letterhead Head,
    ImmutableArray<PaperLine> Lines,
    PaperSums? Sums,
    ImmutableArray<PaperPayment> Payments,
    Money? OnBooking
);

/// <summary>Sent papers as versions: RFC 8785 bytes and their SHA-256, written once.</summary>
public static class Versions
{
    /// <summary>Adds the next version of a sort; what is signed later is bound to its hash.</summary>
    public static async Task<VersionRow> AddAsync<T>(
        Desk desk,
        ProjectId project,
        PaperSort sort,
        T snapshot,
        VersionId? from = null
    )
    {
        var bytes = CanonicalJson.Of(JsonSerializer.SerializeToNode(snapshot, StoreJson.Options));
        var last =
            await desk.Db.Versions.Where(v => v.ProjectId == project && v.Sort == sort).MaxAsync(v => (int?)v.Number)
            ?? 0;
        var version = new VersionRow
        {
            ProjectId = project,
            Sort = sort,
            Number = last + 1,
            Canonical = bytes,
            Hash = CanonicalJson.Hash(bytes),
            At = desk.Now,
            FromProposal = from,
        };
        desk.Db.Versions.Add(version);
        await desk.Db.SaveChangesAsync();
        return version;
    }

    /// <summary>What the version of a snapshot would be known by.</summary>
    public static string HashOf<T>(T snapshot) =>
        CanonicalJson.Hash(CanonicalJson.Of(JsonSerializer.SerializeToNode(snapshot, StoreJson.Options)));

    /// <summary>What a version holds.</summary>
    public static T Read<T>(VersionRow version) =>
        JsonSerializer.Deserialize<T>(version.Canonical, StoreJson.Options)
        ?? throw new JsonException($"Version {version.Number} is empty.");

    /// <summary>The offer of a sent proposal.</summary>
    public static Offer OfferOf(VersionRow version) => Read<ProposalSnapshot>(version).Offer;
}
