using System.Data.Common;
using Gesamt.Core;
using Gesamt.Store;
using Gesamt.Store.Projects;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Hosting;

/// <summary>Computes anew, from the facts, what is derived of every project: after a program that derives more, or when the studio's calendar changed.</summary>
/// <remarks>In many acts, so that nobody waits long for one; what broke off is done again, because the mark comes last.</remarks>
public static class Rederiving
{
    private const int AtOnce = 100;

    /// <summary>A project that cannot be told keeps what it had: it never keeps the others from opening.</summary>
    public static async Task DoAsync(IServiceScopeFactory scopes, ILogger log, CancellationToken stop = default)
    {
        var (begun, projects, rehearsals) = await InScopeAsync(
            scopes,
            async desk =>
                (
                    await Sqlite.DerivedByAsync(desk.Db, stop),
                    await desk.Db.Projects.Select(p => p.Id).ToListAsync(stop),
                    await desk.Db.Rehearsals.Select(p => p.Id).ToListAsync(stop)
                )
        );
        await InScopeAsync(scopes, desk => NamePlainlyAsync(desk.Db));
        foreach (var some in projects.Chunk(AtOnce))
        {
            stop.ThrowIfCancellationRequested();
            if (!await TryAsync(scopes, log, "Some projects are computed one by one", act => TogetherAsync(act, some)))
                foreach (var id in some)
                    await AloneAsync(scopes, log, id);
        }
        // each has a clock of its own, and so a desk of its own
        foreach (var id in rehearsals)
            await AloneAsync(scopes, log, id);
        await InScopeAsync(
            scopes,
            desk =>
                desk.ActAsync(async act =>
                {
                    if (await Sqlite.DerivedByAsync(act.Db, stop) == begun)
                        await Sqlite.MarkDerivedAsync(act.Db, stop);
                    return true;
                })
        );
    }

    /// <summary>People of a folder that had no plain names.</summary>
    private static async Task<int> NamePlainlyAsync(GesamtDb db)
    {
        foreach (var person in await db.People.Where(p => p.PlainName == "").ToListAsync())
            person.Rename(person.Name);
        return await db.SaveChangesAsync();
    }

    private static Task<bool> AloneAsync(IServiceScopeFactory scopes, ILogger log, ProjectId id) =>
        TryAsync(
            scopes,
            log,
            $"Project {id.Value} cannot be computed anew",
            async act => await act.Ledger.RebuildAsync([await act.OpenAsync(id)], act.Now)
        );

    private static async Task TogetherAsync(Act act, ProjectId[] some)
    {
        var files = await act.Db.OpenManyAsync(some, act.Calendar, toChange: true);
        if (files.Count < some.Length)
            throw new InvalidDataException("One of them cannot be read.");
        await act.Ledger.RebuildAsync([.. files.Values], act.Now);
    }

    /// <summary>Whether it went well. A disk that is full is another matter: then nothing is marked as done.</summary>
    private static async Task<bool> TryAsync(
        IServiceScopeFactory scopes,
        ILogger log,
        string otherwise,
        Func<Act, Task> what
    )
    {
        try
        {
            await InScopeAsync(
                scopes,
                async desk =>
                {
                    await desk.ActAsync(what);
                    return true;
                }
            );
            return true;
        }
        catch (Exception e) when (e is not (DbException or DbUpdateException))
        {
            log.LogError(e, "{Otherwise}", otherwise);
            return false;
        }
    }

    private static async Task<T> InScopeAsync<T>(IServiceScopeFactory scopes, Func<Desk, Task<T>> what)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await what(scope.ServiceProvider.GetRequiredService<Desk>());
    }
}
