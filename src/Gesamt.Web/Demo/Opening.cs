using System.Data.Common;
using Gesamt.Core;
using Gesamt.Store;
using Gesamt.Store.Backups;
using Gesamt.Store.Projects;
using Gesamt.Store.Search;
using Gesamt.Web.Hosting;
using Gesamt.Web.SettingUp;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Demo;

/// <summary>What happens before the first request: the schema, and a studio to open with.</summary>
public static class Opening
{
    /// <summary>Brings the folder to this program’s schema, computes what is derived anew where that has changed, and lays a demo where there is no studio.</summary>
    /// <exception cref="SetUpException">The folder cannot be opened, and is as it was.</exception>
    public static async Task PrepareAsync(WebApplication app)
    {
        var settings = app.Services.GetRequiredService<Settings>();
        var laying = Path.Combine(settings.Data, "demo.laying");
        // a demo that was stopped while it was laid is laid anew
        if (settings.Mode == RunMode.Demo && File.Exists(laying))
            Clear(settings);
        await using var scope = app.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<GesamtDb>();
        await BackUpBeforeAsync(db, settings, app.Logger);
        await Sqlite.MigrateAsync(db);
        var isDerived = await Sqlite.IsDerivedAsync(db);
        var isNew = !isDerived && !await db.Studio.AnyAsync();
        if (!isDerived)
            await SearchIndex.PrepareAsync(db);
        await app.Services.GetRequiredService<KeyRing>().OpenLinksAsync(db);
        var clock = app.Services.GetRequiredService<TimeProvider>() as AdjustableClock;
        if (clock is not null && settings.ClockAt is { } at)
            clock.Set(at, settings.ClockStands);
        if (settings.Mode != RunMode.Real && settings.DemoFiles is { } files && !await db.Studio.AnyAsync())
        {
            await File.WriteAllTextAsync(laying, "");
            await DemoPlay.LayAsync(app.Services, clock!, files, settings.UsualSet, settings.DemoProjects);
            File.Delete(laying);
        }
        else if (settings.Mode != RunMode.Real && clock is not null)
            await ResumeAsync(db, clock);
        if (isNew)
            await Sqlite.MarkDerivedAsync(db);
        else if (!isDerived)
            await RebuildAsync(app.Services, app.Logger);
    }

    /// <summary>What a newer program changes for good is kept first, under a name that says before what: the way back.</summary>
    private static async Task BackUpBeforeAsync(GesamtDb db, Settings settings, ILogger log)
    {
        if (settings.Mode == RunMode.Demo || await Sqlite.UpgradeAsync(db) is not { } upgrade)
            return;
        try
        {
            Directory.CreateDirectory(settings.BackupFolder);
            var kept = await Backup.WriteBeforeAsync(settings.Data, settings.BackupFolder, upgrade);
            log.LogInformation("This version changes the database. What was before is kept in {Backup}", kept);
        }
        catch (Exception e)
            when (e is IOException or InvalidDataException or UnauthorizedAccessException or DbException)
        {
            throw new SetUpException(
                $"This version changes the database, and the backup before that could not be made: {e.Message.TrimEnd('.')}. Nothing was changed. Make room, or name another folder (Gesamt__Backups), and start again."
            );
        }
    }

    private static void Clear(Settings settings)
    {
        foreach (var path in Directory.GetFiles(settings.Data, "*.db*"))
            File.Delete(path);
        if (Directory.Exists(settings.Files))
            Directory.Delete(settings.Files, recursive: true);
    }

    private const int AtOnce = 100;

    /// <summary>What is derived may have gained columns: it is computed anew from the facts. A project that cannot be told keeps what it had: it never keeps the others from opening.</summary>
    private static async Task RebuildAsync(IServiceProvider services, ILogger log)
    {
        await using (var scope = services.CreateAsyncScope())
        {
            var desk = scope.ServiceProvider.GetRequiredService<Desk>();
            await desk.ActAsync(async act =>
            {
                foreach (var person in await desk.Db.People.Where(p => p.PlainName == "").ToListAsync())
                    person.Rename(person.Name);
                await desk.Db.SaveChangesAsync();
                desk.Db.ChangeTracker.Clear();
                var ids = await desk.Db.Projects.Select(p => p.Id).ToListAsync();
                log.LogInformation(
                    "Computing {Count} projects anew for this version; Gesamt opens after that",
                    ids.Count
                );
                foreach (var some in ids.Chunk(AtOnce))
                {
                    if (!await TryAsync(log, "Some projects are computed one by one", () => TogetherAsync(act, some)))
                        foreach (var id in some)
                        {
                            desk.Db.ChangeTracker.Clear();
                            await TryAsync(
                                log,
                                $"Project {id.Value} cannot be computed anew",
                                async () => await act.Ledger.RebuildAsync(await desk.OpenAsync(id), desk.Now)
                            );
                        }
                    desk.Db.ChangeTracker.Clear();
                }
            });
        }
        await RebuildRehearsalsAsync(services, log);
        await using var last = services.CreateAsyncScope();
        var db = last.ServiceProvider.GetRequiredService<GesamtDb>();
        await Sqlite.MarkDerivedAsync(db);
        await Sqlite.LearnSizesAsync(db);
    }

    private static async Task TogetherAsync(Act act, ProjectId[] some)
    {
        var files = await act.Db.OpenManyAsync(some, act.Desk.Calendar, toChange: true);
        if (files.Count < some.Length)
            throw new InvalidDataException("One of them cannot be read.");
        await act.Ledger.RebuildAsync([.. files.Values], act.Now);
    }

    /// <summary>Each has a clock of its own, and so a desk of its own.</summary>
    private static async Task RebuildRehearsalsAsync(IServiceProvider services, ILogger log)
    {
        List<ProjectId> ids;
        await using (var scope = services.CreateAsyncScope())
            ids = await scope.ServiceProvider.GetRequiredService<GesamtDb>().Rehearsals.Select(p => p.Id).ToListAsync();
        foreach (var id in ids)
        {
            await using var scope = services.CreateAsyncScope();
            var desk = scope.ServiceProvider.GetRequiredService<Desk>();
            await TryAsync(
                log,
                $"Rehearsal {id.Value} cannot be computed anew",
                () =>
                    desk.ActAsync(async act =>
                    {
                        var file = await desk.OpenAsync(id);
                        await act.Ledger.RebuildAsync(file, desk.Now);
                    })
            );
        }
    }

    /// <summary>Whether it went well. A disk that is full is another matter: then nothing is marked as done.</summary>
    private static async Task<bool> TryAsync(ILogger log, string otherwise, Func<Task> act)
    {
        try
        {
            await act();
            return true;
        }
        catch (Exception e) when (e is not (DbException or DbUpdateException))
        {
            log.LogError(e, "{Otherwise}", otherwise);
            return false;
        }
    }

    /// <summary>A demo started again does not go back behind what happened in it.</summary>
    private static async Task ResumeAsync(GesamtDb db, AdjustableClock clock)
    {
        var last = await db.Facts.MaxAsync(f => (NodaTime.Instant?)f.Recorded);
        if (last > clock.Now())
            clock.Set(last.Value, clock.Stands);
    }
}
