using Gesamt.Store;
using Gesamt.Store.Backups;
using Gesamt.Store.Erasing;
using Gesamt.Store.Files;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using Gesamt.Web.Inquiries;
using Microsoft.EntityFrameworkCore;
using NodaTime;

namespace Gesamt.Web.Upkeep;

/// <summary>Keeps the house without a keeper: a backup every night, an hourly look over a part of the kept files, and what nobody needs any more goes.</summary>
public sealed class Upkeeping(
    IServiceScopeFactory scopes,
    FileVault vault,
    Settings settings,
    TimeProvider time,
    ILogger<Upkeeping> log
)
{
    /// <summary>How long a write can be sent again under its key.</summary>
    public static readonly Duration KeysLive = Duration.FromDays(8);

    /// <summary>How long a table is kept that was never taken over, and what was handed in beside one.</summary>
    public static readonly Duration TablesLive = Duration.FromDays(30);

    private static readonly LocalTime Night = new(3, 0);
    private static readonly Duration Hour = Duration.FromHours(1);
    private const long BytesAnHour = 500L * 1024 * 1024,
        WorthIt = 4L * 1024 * 1024;
    private const double MuchFree = 0.25;

    /// <summary>Does what is due; each part whatever becomes of the others.</summary>
    public async Task DoDueAsync(CancellationToken stop)
    {
        await Independent.TryAsync(log, "forgetting what is over", ForgetAsync, stop);
        await Independent.TryAsync(log, "nightly backup", BackupAsync, stop);
        await Independent.TryAsync(log, "look over kept files", ScrubAsync, stop);
        await Independent.TryAsync(
            log,
            "sizes of tables",
            s => InScopeAsync(desk => Sqlite.LearnSizesAsync(desk.Db, s)),
            stop
        );
    }

    /// <summary>Keys of writes received long ago, uploads whose form was never sent, tables that were never taken over.</summary>
    private Task ForgetAsync(CancellationToken stop) =>
        InScopeAsync(async desk =>
        {
            var before = desk.Now - KeysLive;
            await desk.Db.Requests.Where(r => r.At < before).ExecuteDeleteAsync(stop);
            await Uploads.PruneAsync(desk);
            await ForgetTablesAsync(desk, stop);
        });

    private static async Task ForgetTablesAsync(Desk desk, CancellationToken stop)
    {
        var before = desk.Now - TablesLive;
        await desk
            .Db.ImportParts.Where(part =>
                desk.Db.Imports.Any(i => i.Id == part.ImportId && i.State != ImportState.Running && i.At < before)
            )
            .ExecuteDeleteAsync(stop);
        await desk.Db.Imports.Where(i => i.State == ImportState.Matching && i.At < before).ExecuteDeleteAsync(stop);
    }

    /// <summary>Whether a backup is due: the night has passed since the last one, and the last try is an hour ago.</summary>
    private static bool IsDue(Desk desk, UpkeepRow row)
    {
        var night = desk.Calendar.At(desk.Today + Night);
        if (night > desk.Now)
            night = desk.Calendar.At(desk.Today.PlusDays(-1) + Night);
        return (row.BackupAt is null || row.BackupAt < night)
            && (row.BackupTriedAt is null || desk.Now - row.BackupTriedAt >= Hour);
    }

    private async Task BackupAsync(CancellationToken stop)
    {
        if (settings.Mode == RunMode.Demo || !await InScopeAsync(async desk => IsDue(desk, await RowAsync(desk))))
            return;
        string? problem = null;
        try
        {
            Directory.CreateDirectory(settings.BackupFolder);
            await Backup.WriteAsync(settings.Data, settings.BackupFolder, time.GetUtcNow(), stop);
        }
        catch (Exception e) when (!stop.IsCancellationRequested)
        {
            log.LogError(e, "The nightly backup failed");
            problem = HouseTrouble.Of(e) ?? e.Message;
        }
        await InScopeAsync(async desk =>
        {
            var row = await RowAsync(desk);
            (row.BackupTriedAt, row.BackupProblem) = (desk.Now, problem);
            if (problem is null)
                row.BackupAt = desk.Now;
            await desk.Db.SaveChangesAsync(stop);
        });
        if (problem is not null)
            return;
        Backup.Prune(settings.BackupFolder);
        // only after a backup, which holds what is swept now
        await SweepAsync(stop);
        await Independent.TryAsync(log, "writing the database anew", CompactAsync, stop);
    }

    /// <summary>A database of which much is free is written anew without its holes, at night: writers wait meanwhile.</summary>
    private async Task CompactAsync(CancellationToken stop)
    {
        var (share, bytes) = await FreePages.OfAsync(settings.Database, stop);
        if (share < MuchFree || bytes < WorthIt)
            return;
        await FreePages.ClearAsync(settings.Database, [], stop);
        log.LogInformation("The database was written anew: {Share:P0} of it was free", share);
    }

    /// <summary>Deletes kept files that no row names.</summary>
    private async Task SweepAsync(CancellationToken stop)
    {
        var named = await NamedAsync(stop);
        // files carry the machine's time, whatever the studio's clock was set to
        var gone = vault.Sweep(named.Contains, TimeProvider.System.GetUtcNow().UtcDateTime.AddDays(-1));
        if (gone > 0)
            log.LogInformation("{Count} files that nothing names were swept", gone);
    }

    private Task<HashSet<string>> NamedAsync(CancellationToken stop) =>
        InScopeAsync(desk => NamedFiles.HashesAsync(desk.Db, stop));

    /// <summary>Reads a part of the kept files and compares them with their names.</summary>
    private async Task ScrubAsync(CancellationToken stop)
    {
        var row = await InScopeAsync(desk => RowAsync(desk));
        if (row.ScrubbedAt is { } last && time.Now() - last < Hour && time.Now() >= last)
            return;
        var changed = row.Changed.Split('\n', StringSplitOptions.RemoveEmptyEntries).ToHashSet();
        var named = (await NamedAsync(stop)).Order(StringComparer.Ordinal).ToList();
        var (read, to) = (0L, "");
        foreach (var hash in named.Where(hash => string.CompareOrdinal(hash, row.ScrubbedTo) > 0))
        {
            if (await vault.IsWholeAsync(hash, stop))
                changed.Remove(hash);
            else
                changed.Add(hash);
            read += vault.SizeOf(hash);
            to = hash;
            if (read >= BytesAnHour)
                break;
        }
        changed.IntersectWith(named);
        // what was found before is looked at every time: it may have been put back
        foreach (var hash in changed.ToList())
            if (await vault.IsWholeAsync(hash, stop))
                changed.Remove(hash);
        await InScopeAsync(async desk =>
        {
            var kept = await RowAsync(desk);
            kept.ScrubbedTo = read >= BytesAnHour ? to : "";
            (kept.ScrubbedAt, kept.Changed) = (desk.Now, string.Join('\n', changed.Order(StringComparer.Ordinal)));
            await desk.Db.SaveChangesAsync(stop);
        });
    }

    /// <summary>The one row; made where there is none.</summary>
    public static async Task<UpkeepRow> RowAsync(Desk desk)
    {
        if (await desk.Db.Upkeep.SingleOrDefaultAsync() is { } row)
            return row;
        desk.Db.Upkeep.Add(row = new());
        await desk.Db.SaveChangesAsync();
        return row;
    }

    private async Task<T> InScopeAsync<T>(Func<Desk, Task<T>> act)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await act(scope.ServiceProvider.GetRequiredService<Desk>());
    }

    private Task InScopeAsync(Func<Desk, Task> act) =>
        InScopeAsync(async desk =>
        {
            await act(desk);
            return true;
        });
}
