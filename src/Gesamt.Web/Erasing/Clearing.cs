using Gesamt.Store.Erasing;
using Gesamt.Store.Files;
using Gesamt.Store.Search;
using Gesamt.Web.Archives;
using Gesamt.Web.Hosting;
using Gesamt.Web.Upkeep;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Erasing;

/// <summary>What of somebody erased may lie with services outside.</summary>
/// <param name="Letters">By their Message-IDs.</param>
/// <param name="Addresses">In lower case.</param>
/// <param name="Checkouts">By the provider's sessions.</param>
/// <param name="Rooms">By their addresses.</param>
public sealed record GoneOutside(
    IReadOnlyList<string> Letters,
    IReadOnlyList<string> Addresses,
    IReadOnlyList<string> Checkouts,
    IReadOnlyList<string> Rooms
)
{
    public static readonly GoneOutside Nothing = new([], [], [], []);
}

/// <summary>A stand-in of a service, whose memory lies in the data folder; real services are asked by the owner.</summary>
public interface IStandInMemory
{
    void Forget(GoneOutside gone);
}

/// <summary>Clears what was erased off the disk: files that nothing names, free pages, the log, the kept archive.</summary>
public sealed class Clearing(
    IServiceScopeFactory scopes,
    Settings settings,
    FileVault vault,
    Archiving archiving,
    IEnumerable<IStandInMemory> outside,
    ILogger<Clearing> log
)
{
    /// <summary>A file handed in is named by a row before this is over.</summary>
    private static readonly TimeSpan Young = TimeSpan.FromMinutes(5);

    private readonly SemaphoreSlim one = new(1, 1);

    // what is due since then lies in the log alone: the file is not written anew once more for a reader who never ends
    private Instant? rewritten;

    /// <summary>Notes, in the act that erases, that there is something to clear: a kill does not forget it.</summary>
    public static async Task DueAsync(Desk desk) => (await Upkeeping.RowAsync(desk)).ClearSince = desk.Now;

    /// <summary>At once, after the act.</summary>
    /// <param name="files">Hashes of files that rows named before.</param>
    public async Task ClearAsync(IReadOnlySet<string> files, GoneOutside gone, CancellationToken stop)
    {
        foreach (var memory in outside)
            memory.Forget(gone);
        archiving.Stop();
        archiving.Forget();
        var named = await NamedAsync(stop);
        vault.Delete(files.Where(hash => !named.Contains(hash)));
        await PagesAsync(anew: true, stop);
    }

    /// <summary>What a kill, or somebody who read at that moment, left over.</summary>
    public async Task RetryAsync(CancellationToken stop)
    {
        if (!await InScopeAsync(desk => desk.Db.Upkeep.AnyAsync(row => row.ClearSince != null, stop)))
            return;
        archiving.Forget();
        var named = await NamedAsync(stop);
        // files carry the machine's time, whatever the studio's clock was set to
        vault.Sweep(named.Contains, TimeProvider.System.GetUtcNow().UtcDateTime - Young);
        await PagesAsync(anew: false, stop);
    }

    private async Task PagesAsync(bool anew, CancellationToken stop)
    {
        await one.WaitAsync(stop);
        try
        {
            var due = await InScopeAsync(desk =>
                desk.Db.Upkeep.Select(row => row.ClearSince).SingleOrDefaultAsync(stop)
            );
            var isClear =
                anew || rewritten is null || rewritten != due
                    ? await FreePages.ClearAsync(settings.Database, SearchIndex.Indexes, stop)
                    : await FreePages.EmptyLogAsync(settings.Database, stop);
            if (!isClear && rewritten != due)
                log.LogWarning(
                    "What was erased still lies in the log of the database, which somebody reads, such as a replicator; it is emptied later"
                );
            rewritten = isClear ? null : due;
            if (isClear)
                // another erasure may have come since, which is cleared after this
                await InScopeAsync(desk =>
                    desk.Db.Upkeep.Where(row => row.ClearSince == due)
                        .ExecuteUpdateAsync(set => set.SetProperty(row => row.ClearSince, (Instant?)null), stop)
                );
        }
        catch (SqliteException e)
        {
            // a disk without the room; upkeep tries again
            log.LogWarning(e, "What was erased still lies in free pages of the database; it is cleared later");
        }
        finally
        {
            one.Release();
        }
    }

    private Task<HashSet<string>> NamedAsync(CancellationToken stop) =>
        InScopeAsync(desk => NamedFiles.HashesAsync(desk.Db, stop));

    private async Task<T> InScopeAsync<T>(Func<Desk, Task<T>> act)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await act(scope.ServiceProvider.GetRequiredService<Desk>());
    }
}
