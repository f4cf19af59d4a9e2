using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Papers;

/// <summary>Draws and keeps every paper soon after it was made, and, at the first start on an older folder, those that were never kept.</summary>
/// <remarks>It remembers how far it has come, so that a look when nothing is new costs next to nothing; what it missed by a kill it finds at the next start.</remarks>
public sealed class PaperRound(IServiceScopeFactory scopes, ILogger<PaperRound> log)
{
    private const int AtOnce = 100;
    private readonly SemaphoreSlim one = new(1, 1);
    private Newest seen = new(0, 0, 0);

    /// <summary>The last number of what papers are made from.</summary>
    private sealed record Newest(long Invoice, long Version, long Signature);

    /// <summary>Keeps what is not kept yet. One that cannot be drawn is logged, and holds up no other.</summary>
    public async Task KeepAsync(CancellationToken stop)
    {
        await one.WaitAsync(stop);
        try
        {
            var newest = await InScopeAsync(desk => NewestAsync(desk, stop));
            if (newest == seen)
                return;
            var invoices = await InScopeAsync(desk => InvoicesAsync(desk, stop));
            var contracts = await InScopeAsync(desk => ContractsAsync(desk, stop));
            await ChunksAsync("paper of an invoice", invoices, InvoiceAsync, stop);
            await ChunksAsync("paper of a contract", contracts, ContractAsync, stop);
            seen = newest;
        }
        finally
        {
            one.Release();
        }
    }

    private static Task<Newest> NewestAsync(Desk desk, CancellationToken stop) =>
        desk
            .Db.Database.SqlQuery<Newest>(
                $"SELECT (SELECT ifnull(max(Id), 0) FROM Invoices) AS Invoice, (SELECT ifnull(max(Id), 0) FROM Versions) AS Version, (SELECT ifnull(max(Id), 0) FROM Signatures) AS Signature"
            )
            .SingleAsync(stop);

    private Task<List<long>> InvoicesAsync(Desk desk, CancellationToken stop) =>
        desk
            .Db.Database.SqlQuery<long>(
                $"SELECT Id AS Value FROM Invoices AS i WHERE Id > {seen.Invoice} AND NOT EXISTS (SELECT 1 FROM Papers WHERE InvoiceId = i.Id) AND NOT EXISTS (SELECT 1 FROM Erasures WHERE ProjectId = i.ProjectId AND BooksAt IS NOT NULL)"
            )
            .ToListAsync(stop);

    /// <summary>Contracts that lack the paper of all who have signed by now, here or on a print.</summary>
    private Task<List<long>> ContractsAsync(Desk desk, CancellationToken stop) =>
        desk
            .Db.Database.SqlQuery<long>(
                $"""
                SELECT v.Id AS Value
                FROM (
                    SELECT Id, ProjectId, (SELECT count(*) FROM Signatures WHERE VersionId = c.Id) AS Signed
                    FROM Versions AS c
                    WHERE Sort = {nameof(PaperSort.Contract)}
                        AND (Id > {seen.Version} OR Id IN (SELECT VersionId FROM Signatures WHERE Id > {seen.Signature}))
                ) AS v
                WHERE NOT EXISTS (SELECT 1 FROM Papers WHERE VersionId = v.Id AND Signatures = v.Signed)
                    AND NOT EXISTS (SELECT 1 FROM Erasures WHERE ProjectId = v.ProjectId AND AgreementsAt IS NOT NULL)
                    AND (
                        v.Signed > 0
                        OR EXISTS (
                            SELECT 1 FROM Facts
                            WHERE ProjectId = v.ProjectId AND Kind = {nameof(
                    Happening.ContractSigned
                )} AND Payload ->> 'contract' = v.Id
                        )
                    )
                """
            )
            .ToListAsync(stop);

    private static async Task InvoiceAsync(Desk desk, long id) =>
        await KeptPapers.OfAsync(
            desk,
            await desk.Db.Invoices.AsNoTracking().SingleAsync(i => i.Id == new InvoiceId(id))
        );

    private static async Task ContractAsync(Desk desk, long id) =>
        await KeptPapers.OfAsync(
            desk,
            await desk.Db.Versions.AsNoTracking().SingleAsync(v => v.Id == new VersionId(id))
        );

    /// <summary>A desk for a hundred at a time, so that it does not grow.</summary>
    private async Task ChunksAsync(string part, List<long> ids, Func<Desk, long, Task> keep, CancellationToken stop)
    {
        foreach (var chunk in ids.Chunk(AtOnce))
            await InScopeAsync(async desk =>
            {
                await Independent.EachAsync(log, part, chunk, id => keep(desk, id), stop);
                return true;
            });
    }

    private async Task<T> InScopeAsync<T>(Func<Desk, Task<T>> act)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await act(scope.ServiceProvider.GetRequiredService<Desk>());
    }
}
