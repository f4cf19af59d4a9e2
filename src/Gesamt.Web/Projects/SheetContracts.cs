using Gesamt.Core.Calendar;
using Gesamt.Core.Stages;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Contracts;
using Gesamt.Web.Hosting;
using Gesamt.Web.Papers;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Projects;

/// <summary>Contracts and amendments among the papers at hand, with where each stands.</summary>
internal static class SheetContracts
{
    public static async Task<IReadOnlyList<SheetPaperDto>> OfAsync(Desk desk, ProjectFile file)
    {
        List<SheetPaperDto> papers = [];
        var standing = ContractRule.Standing(file.History);
        foreach (var paper in ContractRule.Papers(file.History))
        {
            var row = await desk.Db.Versions.AsNoTracking().SingleAsync(v => v.Id == paper.Version);
            papers.Add(
                new(
                    Versions.Read<ContractSnapshot>(row).Title,
                    await AboutAsync(desk, paper, row),
                    $"/api/contracts/{paper.Version.Value}.pdf",
                    null,
                    paper.Gone || paper is { Amends: not null, Client: not null }
                        ? null
                        : new(
                            paper.Version.Value,
                            paper.Version == standing && ContractRule.MaySend(file.Case) && paper.Amends is null
                        )
                )
            );
        }
        return papers;
    }

    private static async Task<string> AboutAsync(Desk desk, ContractPaper paper, VersionRow row)
    {
        string On(NodaTime.Instant at) => DateWords.Short(desk.Calendar.DateOf(at), desk.Today);
        if (paper.Gone)
            return paper.Client is null ? "void, was not signed" : "void, was signed";
        if (paper is { Client: { } client, Owner: { } owner })
            return $"signed by both, {On(client.Happened > owner.Happened ? client.Happened : owner.Happened)}";
        if (paper.Client is { } theirs)
            return $"signed by the client {On(theirs.Happened)}, waits for your signature";
        var signers = await Signers.OfAsync(desk, row);
        return signers.FirstOrDefault(one => !one.Signed) is not { } next ? "not signed yet"
            : signers.LastOrDefault(one => one.Signed) is { } last ? $"signed by {last.Name}, {next.Name} signs next"
            : $"{next.Name} signs first";
    }
}
