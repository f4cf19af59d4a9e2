using Gesamt.Store.Backups;
using Gesamt.Web.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Upkeep;

/// <summary>A backup that is kept.</summary>
public sealed record KeptBackupDto(string Name, string When, string Size);

/// <summary>How backups are kept.</summary>
/// <param name="Folder">Where they lie on the machine.</param>
/// <param name="Nightly">What became of the last nightly one.</param>
/// <param name="Failed">Whether that failed.</param>
public sealed record BackupsDto(string Folder, string Nightly, bool Failed, IReadOnlyList<KeptBackupDto> Kept);

/// <summary>The addresses of backups, for whoever owns the studio.</summary>
public static class BackupEndpoints
{
    public static void MapBackups(this RouteGroupBuilder api)
    {
        api.MapGet("/backups", OfAsync);
        api.MapPost(
            "/backups",
            async (Desk desk, Settings settings, TimeProvider time, CancellationToken stop) =>
            {
                Directory.CreateDirectory(settings.BackupFolder);
                await Backup.WriteAsync(settings.Data, settings.BackupFolder, time.GetUtcNow(), stop);
                return await OfAsync(desk, settings);
            }
        );
        api.MapGet(
                "/backups/{name}",
                (string name, Settings settings) =>
                    // chosen from the list alone: a name is never a path
                    Backup.Kept(settings.BackupFolder).FirstOrDefault(one => one.Name == name)
                        is { } found
                        ? Results.File(found.Path, "application/gzip", found.Name)
                        : throw new MissingException("backup")
            )
            .ExcludeFromDescription();
    }

    private static async Task<BackupsDto> OfAsync(Desk desk, Settings settings)
    {
        var row = await desk.Db.Upkeep.AsNoTracking().SingleOrDefaultAsync();
        return new(
            Path.GetFullPath(settings.BackupFolder),
            row switch
            {
                { BackupProblem: { } problem } => $"The last nightly backup failed: {problem.TrimEnd('.')}.",
                { BackupAt: { } at } =>
                    $"The last nightly backup is of {desk.Precisely(at)}. It was read back and found sound.",
                _ when settings.Mode == RunMode.Demo => "The demo makes none by itself.",
                _ => "The first one is made in the coming night, at 3.",
            },
            row?.BackupProblem is not null,
            [
                .. Backup
                    .Kept(settings.BackupFolder)
                    .OrderByDescending(one => one.At)
                    .Select(one => new KeptBackupDto(
                        one.Name,
                        desk.Precisely(NodaTime.Instant.FromDateTimeUtc(one.At)),
                        FileSize.Words(one.Bytes)
                    )),
            ]
        );
    }
}
