using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Contracts;
using Gesamt.Core.Facts;
using Gesamt.Formats.Texts;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Contracts;
using Gesamt.Web.Hosting;
using Gesamt.Web.Papers;
using Gesamt.Web.Proposals;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.ClientPages;

/// <summary>Who has signed, and when.</summary>
public sealed record SignedDto(string Name, string Side, string At);

/// <summary>Whose signature it waits for.</summary>
/// <param name="Signers">Those who sign for the client, in their order; none where whoever decides signs alone.</param>
/// <param name="Yours">Whether whoever looks at the page signs now.</param>
/// <param name="AsksCode">Whether a code that goes to their mail address is typed with it.</param>
public sealed record SigningTurnDto(IReadOnlyList<SignerTurnDto> Signers, bool Yours, bool AsksCode);

public sealed record SignerTurnDto(string Name, bool Signed, bool Next);

/// <summary>What was agreed before, for an amendment.</summary>
public sealed record AmendedDto(string Before, IReadOnlyList<DifferenceDto> Changes);

/// <param name="Priced">What was chosen; none for a contract signed on paper before any price was agreed.</param>
/// <param name="File">The owner’s own file in place of the text.</param>
/// <param name="Amends">What it changes; null for a contract of its own.</param>
/// <param name="Asked">Whether the client asked about it, and waits for an answer.</param>
public sealed record ContractPageDto(
    string Title,
    IReadOnlyList<TextBlock> Text,
    ContractFileDto? File,
    IReadOnlyList<string> Parties,
    string Hash,
    string Consent,
    PricedDto? Priced,
    AmendedDto? Amends,
    SigningTurnDto Turn,
    bool Asked,
    IReadOnlyList<SignedDto> Signatures
);

/// <summary>A contract or amendment to keep.</summary>
/// <param name="Number">Of its version; its file has this name.</param>
public sealed record KeptContractDto(string Title, int Number, bool Voided, IReadOnlyList<SignedDto> Signatures);

/// <summary>Contracts as their reader has them.</summary>
public static class ContractPage
{
    /// <param name="person">Whose page it is; null for the owner, who looks at it.</param>
    public static async Task<ContractPageDto> OfAsync(
        Desk desk,
        ProjectFile file,
        VersionRow contract,
        PersonId? person
    )
    {
        var snapshot = Versions.Read<ContractSnapshot>(contract);
        var terms = await Agreements.TermsAsync(desk, contract);
        return new(
            snapshot.Title,
            snapshot.Blocks,
            snapshot.SignedBy.File is { } own ? new(own.Hash, own.Name) : null,
            snapshot.Parties,
            contract.Hash,
            Signing.ConsentTo(contract),
            PricedDto.Of(terms),
            snapshot.Amends is { } amends ? await AmendedAsync(desk, file, contract, amends) : null,
            await TurnAsync(desk, contract, snapshot.SignedBy, person),
            IsAsked(file, contract.Id),
            await SignaturesAsync(desk, contract)
        );
    }

    /// <summary>Everything that was signed or can be; what was voided unsigned is none.</summary>
    public static async Task<IReadOnlyList<KeptContractDto>> KeptAsync(Desk desk, ProjectFile file)
    {
        List<KeptContractDto> kept = [];
        foreach (var paper in ContractState.Papers(file.History).Where(one => !one.Gone || one.Client is not null))
        {
            var row = await desk.Db.Versions.AsNoTracking().SingleAsync(v => v.Id == paper.Version);
            kept.Add(
                new(
                    Versions.Read<ContractSnapshot>(row).Title,
                    row.Number,
                    paper.Gone,
                    await SignaturesAsync(desk, row)
                )
            );
        }
        return kept;
    }

    private static async Task<AmendedDto> AmendedAsync(
        Desk desk,
        ProjectFile file,
        VersionRow contract,
        AmendmentTerms terms
    )
    {
        var before = await Agreements.OfVersionAsync(desk, file, terms.Version);
        var offer = Versions.OfferOf(
            await desk.Db.Versions.AsNoTracking().SingleAsync(v => v.Id == contract.FromProposal)
        );
        return new(MoneyText.Of(before.Priced.Totals.Payable), Amending.Changes(before, offer));
    }

    private static async Task<SigningTurnDto> TurnAsync(
        Desk desk,
        VersionRow contract,
        SigningTerms terms,
        PersonId? person
    )
    {
        var signers = await Signers.OfAsync(desk, contract);
        var next = signers.FirstOrDefault(one => !one.Signed);
        return new(
            [.. signers.Select(one => new SignerTurnDto(one.Name, one.Signed, one == next))],
            signers.Count == 0 || next is not null && person is { } who && await Signers.IsAsync(desk, who, next),
            terms.AsksCode
        );
    }

    private static bool IsAsked(ProjectFile file, VersionId contract) =>
        file.History.Last<Happening.ContractAsked>(asked => asked.Contract == contract) is { } last
        && !file.History.Facts.Any(fact =>
            History.IsAfter(fact, last.Fact)
            && fact.What is Happening.LetterSent { ByItself: false } or Happening.CallHeld
        );

    private static async Task<IReadOnlyList<SignedDto>> SignaturesAsync(Desk desk, VersionRow contract) =>
        [
            .. (
                await desk
                    .Db.Signatures.AsNoTracking()
                    .Where(s => s.VersionId == contract.Id)
                    .OrderBy(s => s.Id)
                    .ToListAsync()
            ).Select(s => new SignedDto(s.Name, s.Signer == Signer.Client ? "client" : "studio", desk.Precisely(s.At))),
        ];
}
