using System.Data.Common;
using Gesamt.Store;
using Gesamt.Store.Backups;
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
        {
            if (await db.Projects.AnyAsync())
                app.Logger.LogInformation("Every project is computed anew for this version; Gesamt opens after that");
            await Rederiving.DoAsync(app.Services.GetRequiredService<IServiceScopeFactory>(), app.Logger);
            await Sqlite.LearnSizesAsync(db);
        }
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

    /// <summary>A demo started again does not go back behind what happened in it.</summary>
    private static async Task ResumeAsync(GesamtDb db, AdjustableClock clock)
    {
        var last = await db.Facts.MaxAsync(f => (NodaTime.Instant?)f.Recorded);
        if (last > clock.Now())
            clock.Set(last.Value, clock.Stands);
    }
}
