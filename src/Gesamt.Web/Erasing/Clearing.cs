using Gesamt.Store.Erasing;
using Gesamt.Store.Files;
using Gesamt.Store.Search;
using Gesamt.Web.Archives;
using Gesamt.Web.Hosting;
using Gesamt.Web.Upkeep;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

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
        await PagesAsync(stop);
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
        await PagesAsync(stop);
    }

    private async Task PagesAsync(CancellationToken stop)
    {
        await one.WaitAsync(stop);
        try
        {
            if (!await FreePages.ClearAsync(settings.Database, SearchIndex.Indexes, stop))
                return;
            await InScopeAsync(async desk =>
            {
                (await Upkeeping.RowAsync(desk)).ClearSince = null;
                return await desk.Db.SaveChangesAsync(stop);
            });
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
