using Gesamt.Core.Calendar;
using Gesamt.Core.Contracts;
using Gesamt.Core.Stages;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Papers;
using Gesamt.Web.Words;

namespace Gesamt.Web.Projects;

/// <summary>Contracts and amendments among the papers at hand, with where each stands.</summary>
internal static class SheetContracts
{
    public static IEnumerable<SheetPaperDto> Of(Desk desk, ProjectFile file, LineRows rows)
    {
        var standing = ContractState.Standing(file.History);
        foreach (var paper in ContractState.Papers(file.History))
        {
            var snapshot = Versions.Read<ContractSnapshot>(rows.Versions[paper.Version]);
            yield return new(
                snapshot.Title,
                About(desk, paper, snapshot.SignedBy, rows),
                $"/api/contracts/{paper.Version.Value}.pdf",
                null,
                paper.Gone || paper is { Amends: not null, Client: not null }
                    ? null
                    : new(
                        paper.Version.Value,
                        paper.Version == standing && paper.Amends is null && ContractRule.MaySend(file.Case)
                    )
            );
        }
    }

    private static string About(Desk desk, ContractPaper paper, SigningTerms terms, LineRows rows)
    {
        string On(NodaTime.Instant at) => DateWords.Short(desk.Calendar.DateOf(at), desk.Today);
        if (paper.Gone)
            return paper.Client is null ? "void, was not signed" : "void, was signed";
        if (paper is { Client: { } client, Owner: { } owner })
            return $"signed by both, {On(client.Happened > owner.Happened ? client.Happened : owner.Happened)}";
        if (paper.Client is { } theirs)
            return $"signed by the client {On(theirs.Happened)}, waits for your signature";
        var signed = rows.Signatures[paper.Version].Select(signature => signature.PersonId).ToHashSet();
        return terms.Signers.FirstOrDefault(one => !signed.Contains(one.Person)) is not { } next ? "not signed yet"
            : terms.Signers.LastOrDefault(one => signed.Contains(one.Person)) is { } last
                ? $"signed by {last.Name}, {next.Name} signs next"
            : $"{next.Name} signs first";
    }
}
