using System.Globalization;
using Gesamt.Store;
using Gesamt.Store.Archives;
using Gesamt.Store.Backups;
using Gesamt.Web.Hosting;
using Gesamt.Web.Papers;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.Archives;

/// <summary>How far an archive has come, in entries; <paramref name="All"/> is about right.</summary>
public sealed record ArchiveProgress(int Done, int All);

/// <summary>Makes archives while the studio goes on: from a copy of the database of one instant, and files that are only ever added.</summary>
public sealed class Archiving(
    IServiceScopeFactory scopes,
    Settings settings,
    PaperRound papers,
    TimeProvider time,
    Live live,
    ILogger<Archiving> log
) : IDisposable
{
    private const string Begins = "gesamt-archive-",
        Ends = ".zip",
        Unfinished = ".part",
        TimeFormat = "yyyyMMdd-HHmmss";

    private readonly Lock gate = new();
    private CancellationTokenSource? running;

    /// <summary>How far the one that is being made has come; null while none is.</summary>
    public ArchiveProgress? Progress { get; private set; }

    /// <summary>Why the last one was not made; null when it was, or was stopped.</summary>
    public string? Problem { get; private set; }

    private string Folder => Path.Combine(settings.Data, "archives");

    /// <summary>The archive that is kept, to be fetched; null while there is none.</summary>
    public FileInfo? Kept =>
        Directory.Exists(Folder)
            ? new DirectoryInfo(Folder).GetFiles($"{Begins}*{Ends}").MaxBy(file => file.Name, StringComparer.Ordinal)
            : null;

    /// <summary>When it was made, in UTC.</summary>
    public static DateTime MadeAt(FileInfo kept) =>
        DateTime.SpecifyKind(
            DateTime.ParseExact(kept.Name[Begins.Length..^Ends.Length], TimeFormat, CultureInfo.InvariantCulture),
            DateTimeKind.Utc
        );

    /// <summary>Begins one; nothing where one is being made.</summary>
    /// <param name="withLinks">Takes along what opens clients' links.</param>
    public void Begin(bool withLinks)
    {
        lock (gate)
        {
            if (running is not null)
                return;
            running = new();
            (Progress, Problem) = (new(0, 0), null);
            _ = Task.Run(() => KeepAsync(withLinks, running.Token));
        }
    }

    /// <summary>Stops the one that is being made, and leaves nothing of it.</summary>
    public void Stop()
    {
        lock (gate)
            running?.Cancel();
    }

    /// <summary>Takes the kept one away.</summary>
    public void Forget()
    {
        if (Directory.Exists(Folder))
            foreach (var kept in Directory.GetFiles(Folder, $"{Begins}*{Ends}"))
                File.Delete(kept);
    }

    /// <summary>Takes away what is left of one that broke off with the program; called at the start.</summary>
    public void TidyUp()
    {
        if (Directory.Exists(Folder))
            foreach (var left in Directory.GetFiles(Folder, $"*{Unfinished}*"))
                File.Delete(left);
    }

    private async Task KeepAsync(bool withLinks, CancellationToken stop)
    {
        try
        {
            Directory.CreateDirectory(Folder);
            TidyUp();
            var made = time.GetUtcNow();
            var file = Path.Combine(
                Folder,
                $"{Begins}{made.UtcDateTime.ToString(TimeFormat, CultureInfo.InvariantCulture)}{Ends}"
            );
            await WriteAsync(file, withLinks, Report, stop);
            foreach (var earlier in Directory.GetFiles(Folder, $"{Begins}*{Ends}").Where(path => path != file))
                File.Delete(earlier);
        }
        catch (OperationCanceledException)
        {
            // as it was asked
        }
        catch (Exception e)
        {
            log.LogError(e, "The archive could not be made");
            Problem = HouseTrouble.Of(e) ?? e.Message;
        }
        lock (gate)
        {
            running?.Dispose();
            (running, Progress) = (null, null);
        }
        live.ChangedAll();
    }

    private void Report(ArchiveProgress progress) => Progress = progress;

    /// <summary>Writes an archive of the studio as it is now.</summary>
    /// <param name="file">Stands there only once it is whole.</param>
    public async Task WriteAsync(string file, bool withLinks, Action<ArchiveProgress> report, CancellationToken stop)
    {
        var (unfinished, copy) = ($"{file}{Unfinished}", $"{file}{Unfinished}.db");
        try
        {
            await using var scope = scopes.CreateAsyncScope();
            var db = scope.ServiceProvider.GetRequiredService<GesamtDb>();
            if (!await Sqlite.IsNewestAsync(db, stop))
                throw new InvalidDataException(
                    "This studio was last opened by an older Gesamt. Start it once with this one, then make the archive."
                );
            // a studio that was brought back and never started has no dates yet, and they stand in the calendar
            if (!await Sqlite.IsDerivedAsync(db, stop))
                await Rederiving.DoAsync(scopes, log, stop);
            // so that every paper there is stands in it
            await papers.KeepAsync(stop);
            Backup.Copy(settings.Database, copy);
            var options = new DbContextOptionsBuilder<GesamtDb>();
            options.UseGesamt(copy, flushes: false);
            await using (var copied = new GesamtDb(options.Options))
            await using (var to = new FileStream(unfinished, FileMode.Create, FileAccess.ReadWrite))
            {
                await WriteAsync(
                    ActivatorUtilities.CreateInstance<Desk>(scope.ServiceProvider, copied),
                    to,
                    withLinks,
                    report,
                    stop
                );
                to.Flush(flushToDisk: true);
            }
            File.Move(unfinished, file, overwrite: true);
        }
        finally
        {
            using (var pool = new SqliteConnection($"Data Source={copy};Default Timeout={Sqlite.PatienceSeconds}"))
                SqliteConnection.ClearPool(pool);
            foreach (var left in new[] { unfinished, copy, $"{copy}-wal", $"{copy}-shm" })
                File.Delete(left);
        }
    }

    private async Task WriteAsync(
        Desk desk,
        Stream to,
        bool withLinks,
        Action<ArchiveProgress> report,
        CancellationToken stop
    )
    {
        var (done, all) = (0, await ArchiveContents.CountAsync(desk, stop));
        report(new(done, all));
        using var archive = new ArchiveWriter(to, time.GetUtcNow());
        var contents = new ArchiveContents(desk, archive, () => report(new(++done, Math.Max(done, all))), stop);
        await contents.WriteAsync();
        var key = Path.Combine(settings.Keys, TakingIn.LinksKey);
        if (withLinks && File.Exists(key))
            await archive.AddAsync(TakingIn.LinksKey, await File.ReadAllBytesAsync(key, stop));
        await archive.EndAsync(desk.Studio.Name, contents.Left, stop);
    }

    public void Dispose() => running?.Dispose();
}
