using System.Collections.Immutable;
using Gesamt.Core.Facts;

namespace Gesamt.Core.Contracts;

/// <summary>A contract, or an amendment to one, as far as it has come.</summary>
/// <param name="Amends">The version whose price it changes; null for a contract of its own.</param>
/// <param name="Sent">When it was put to the client; null for one that was signed on paper.</param>
/// <param name="Client">The client's signature.</param>
/// <param name="Owner">The owner's signature.</param>
/// <param name="Gone">Voided, or declined by the client.</param>
public sealed record ContractPaper(
    VersionId Version,
    VersionId? Amends,
    Seen<Happening.ContractSent>? Sent,
    Seen<Happening.ContractSigned>? Client,
    Seen<Happening.ContractSigned>? Owner,
    bool Gone
);

/// <summary>Where the contract stands, and the amendments to it.</summary>
public static class ContractState
{
    /// <summary>Everything that was put to the client or signed, in that order.</summary>
    public static ImmutableArray<ContractPaper> Papers(History history)
    {
        List<ContractPaper> papers = [];
        void Change(VersionId version, Func<ContractPaper, ContractPaper> how)
        {
            var at = papers.FindIndex(paper => paper.Version == version);
            if (at < 0)
            {
                papers.Add(new(version, null, null, null, null, false));
                at = papers.Count - 1;
            }
            papers[at] = how(papers[at]);
        }
        foreach (var fact in history.Facts)
            switch (fact.What)
            {
                case Happening.ContractSent sent:
                    Change(sent.Contract, paper => paper with { Amends = sent.Amends, Sent = new(fact, sent) });
                    break;
                case Happening.ContractSigned signed:
                    Change(
                        signed.Contract,
                        paper =>
                            signed.Signer == Signer.Client
                                ? paper with
                                {
                                    Client = new(fact, signed),
                                }
                                : paper with
                                {
                                    Owner = new(fact, signed),
                                }
                    );
                    break;
                case Happening.ContractDeclined declined:
                    Change(declined.Contract, paper => paper with { Gone = true });
                    break;
                case Happening.ContractVoided voided:
                    Change(voided.Contract, paper => paper with { Gone = true });
                    break;
                default:
                    break;
            }
        return [.. papers];
    }

    /// <summary>The contract that is out or signed: the latest, unless it was voided or declined; then the one that the client signed before. Null while there is none.</summary>
    public static VersionId? Standing(History history)
    {
        var contracts = Papers(history).Where(paper => paper.Amends is null).ToList();
        return contracts
            .LastOrDefault(paper => !paper.Gone && (paper == contracts[^1] || paper.Client is not null))
            ?.Version;
    }

    /// <summary>The client's signature that waits for the owner's.</summary>
    public static Seen<Happening.ContractSigned>? Countersign(History history)
    {
        var standing = Standing(history);
        return Papers(history)
            .FirstOrDefault(paper =>
                paper is { Gone: false, Client: not null, Owner: null }
                && (paper.Amends is not null || paper.Version == standing)
            )
            ?.Client;
    }

    /// <summary>The contract or amendment that is with the client to sign; the owner's signature may stand under it already.</summary>
    public static Seen<Happening.ContractSent>? Open(History history) =>
        Papers(history).LastOrDefault() is { Gone: false, Client: null, Sent: { } sent } ? sent : null;

    /// <summary>Versions that change a price, and are no contract of their own.</summary>
    public static ImmutableHashSet<VersionId> Amendments(History history) =>
        [
            .. history
                .Of<Happening.ContractSent>()
                .Where(sent => sent.What.Amends is not null)
                .Select(sent => sent.What.Contract),
        ];
}
