using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Papers;

/// <summary>Draws and keeps every paper soon after it was made, and, at the first start on an older folder, those that were never kept.</summary>
/// <remarks>It remembers how far it has come, so that a look when nothing is new costs next to nothing. What it missed by a kill it finds at the next start.</remarks>
public sealed class PaperRound(IServiceScopeFactory scopes, ILogger<PaperRound> log)
{
    private const int AtOnce = 100;
    private readonly SemaphoreSlim one = new(1, 1);
    private long invoice,
        version;
    private int signature;

    public async Task KeepAsync(CancellationToken stop)
    {
        await one.WaitAsync(stop);
        try
        {
            while (await SomeAsync(stop)) { }
        }
        finally
        {
            one.Release();
        }
    }

    /// <returns>Whether there may be more.</returns>
    private async Task<bool> SomeAsync(CancellationToken stop)
    {
        await using var scope = scopes.CreateAsyncScope();
        var desk = scope.ServiceProvider.GetRequiredService<Desk>();
        var db = desk.Db;
        var isNew = await db
            .Database.SqlQuery<bool>(
                $"SELECT EXISTS (SELECT 1 FROM Invoices WHERE Id > {invoice}) OR EXISTS (SELECT 1 FROM Versions WHERE Id > {version}) OR EXISTS (SELECT 1 FROM Signatures WHERE Id > {signature}) AS Value"
            )
            .SingleAsync(stop);
        if (!isNew)
            return false;
        var invoices = await db
            .Invoices.FromSql($"SELECT * FROM Invoices WHERE Id > {invoice}")
            .AsNoTracking()
            .OrderBy(i => i.Id)
            .Take(AtOnce)
            .ToListAsync(stop);
        var versions = await db
            .Versions.FromSql($"SELECT * FROM Versions WHERE Id > {version}")
            .AsNoTracking()
            .OrderBy(v => v.Id)
            .Take(AtOnce)
            .ToListAsync(stop);
        var signatures = await db
            .Signatures.AsNoTracking()
            .Where(s => s.Id > signature)
            .OrderBy(s => s.Id)
            .Take(AtOnce)
            .Select(s => new { s.Id, s.VersionId })
            .ToListAsync(stop);
        var signed = signatures.Select(s => s.VersionId).Distinct().ToList();
        var contracts = await db.Versions.AsNoTracking().Where(v => signed.Contains(v.Id)).ToListAsync(stop);
        await Independent.EachAsync(log, "paper of an invoice", invoices, row => KeptPapers.OfAsync(desk, row), stop);
        await Independent.EachAsync(
            log,
            "paper of a contract",
            contracts.UnionBy(versions.Where(row => row.Sort == PaperSort.Contract), row => row.Id),
            row => KeptPapers.OfAsync(desk, row),
            stop
        );
        if (invoices.Count > 0)
            invoice = invoices[^1].Id.Value;
        if (versions.Count > 0)
            version = versions[^1].Id.Value;
        if (signatures.Count > 0)
            signature = signatures[^1].Id;
        return invoices.Count == AtOnce || versions.Count == AtOnce || signatures.Count == AtOnce;
    }
}
