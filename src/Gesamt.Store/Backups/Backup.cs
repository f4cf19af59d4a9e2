using System.Formats.Tar;
using System.Globalization;
using System.IO.Compression;
using System.Security.Cryptography;
using System.Text.Json;
using Gesamt.Store.Files;
using Microsoft.Data.Sqlite;

namespace Gesamt.Store.Backups;

/// <summary>A whole studio in one file, taken while it is running: database first, then files, then keys.</summary>
/// <remarks>
/// Files are only ever added under their hash, so every file a row of the copied database names is there when the files are copied after it.
/// The archive is a gzipped tar readable by its owner alone; what stands in it is what stands in the data folder, and last a list of every entry with its SHA-256.
/// </remarks>
public static class Backup
{
    private const string List = "backup.json",
        Begins = "gesamt-",
        Before = "gesamt-before-",
        Ends = ".tar.gz",
        Unfinished = ".part",
        TimeFormat = "yyyyMMdd-HHmmss";
    private static readonly string[] Folders = ["files", "keys"];
    private static readonly string[] Databases = ["gesamt.db", "post-office.db"];

    /// <param name="Entries">SHA-256 in lower-case hex by the path of each entry.</param>
    private sealed record Contents(int Version, Dictionary<string, string> Entries);

    /// <summary>Writes a backup of a data folder.</summary>
    /// <returns>The archive's path: the one given, or one named by the time in the folder given.</returns>
    /// <exception cref="InvalidDataException">The copy of a database is not sound; no archive is left behind.</exception>
    /// <exception cref="FileNotFoundException">There is no studio in the data folder.</exception>
    public static async Task<string> WriteAsync(
        string data,
        string to,
        DateTimeOffset now,
        CancellationToken stop = default
    )
    {
        if (!File.Exists(Path.Combine(data, Databases[0])))
            throw new FileNotFoundException($"There is no studio in {data}.");
        var archive = Directory.Exists(to)
            ? Path.Combine(to, $"{Begins}{now.ToString(TimeFormat, CultureInfo.InvariantCulture)}{Ends}")
            : to;
        // beside the archive, where there must be room for it anyway
        var aside = Directory.CreateDirectory($"{archive}.{Guid.NewGuid():n}{Unfinished}").FullName;
        var unfinished = $"{archive}{Unfinished}";
        try
        {
            foreach (var name in Databases.Where(name => File.Exists(Path.Combine(data, name))))
                Copy(Path.Combine(data, name), Path.Combine(aside, name));
            await using (var file = new FileStream(unfinished, FileMode.Create, FileAccess.Write))
            {
                await using (var zip = new GZipStream(file, CompressionLevel.Fastest, leaveOpen: true))
                await using (var tar = new TarWriter(zip))
                {
                    Dictionary<string, string> entries = [];
                    foreach (var path in Directory.GetFiles(aside))
                        await AddAsync(tar, entries, path, Path.GetFileName(path), stop);
                    foreach (var folder in Folders.Where(folder => Directory.Exists(Path.Combine(data, folder))))
                        await FolderAsync(tar, entries, data, folder, stop);
                    await tar.WriteEntryAsync(
                        new PaxTarEntry(TarEntryType.RegularFile, List)
                        {
                            DataStream = new MemoryStream(
                                JsonSerializer.SerializeToUtf8Bytes(new Contents(1, entries))
                            ),
                        },
                        stop
                    );
                }
                file.Flush(flushToDisk: true);
            }
            File.Move(unfinished, archive, overwrite: true);
            return archive;
        }
        finally
        {
            File.Delete(unfinished);
            Directory.Delete(aside, recursive: true);
        }
    }

    // as many upgrades as anybody goes back
    private const int MostBefore = 3;

    /// <summary>Keeps a studio as it is before an upgrade, in a file that is named by it; the newest three such are kept.</summary>
    /// <param name="upgrade">The migration that is about to be made, which begins with its day.</param>
    public static async Task<string> WriteBeforeAsync(
        string data,
        string folder,
        string upgrade,
        CancellationToken stop = default
    )
    {
        var kept = await WriteAsync(data, Path.Combine(folder, $"{Before}{upgrade}{Ends}"), default, stop);
        foreach (
            var old in Directory
                .GetFiles(folder, $"{Before}*{Ends}")
                .OrderDescending(StringComparer.Ordinal)
                .Skip(MostBefore)
        )
            File.Delete(old);
        return kept;
    }

    /// <summary>A backup in a folder, known by its name.</summary>
    /// <param name="At">When it was made, in UTC.</param>
    public sealed record KeptFile(string Path, string Name, DateTime At, long Bytes);

    /// <summary>The backups that a folder keeps; none where there is no such folder.</summary>
    public static IReadOnlyList<KeptFile> Kept(string folder) =>
        Directory.Exists(folder)
            ?
            [
                .. new DirectoryInfo(folder)
                    .GetFiles($"{Begins}*{Ends}")
                    .Where(file => TimeOf(file.FullName) is not null)
                    .Select(file => new KeptFile(
                        file.FullName,
                        file.Name,
                        DateTime.SpecifyKind(TimeOf(file.FullName)!.Value, DateTimeKind.Utc),
                        file.Length
                    )),
            ]
            : [];

    /// <summary>Deletes backups in a folder that need not be kept any more (see <see cref="Retention"/>), and what is left of ones that broke off. Files of other names are left alone.</summary>
    public static void Prune(string folder)
    {
        var made = Directory
            .GetFiles(folder, $"{Begins}*{Ends}")
            .Select(path => (path, At: TimeOf(path)))
            .Where(one => one.At is not null)
            .ToList();
        var kept = Retention.Kept(made.Select(one => one.At!.Value));
        foreach (var (path, _) in made.Where(one => !kept.Contains(one.At!.Value)))
            File.Delete(path);
        foreach (var path in Directory.GetFileSystemEntries(folder, $"{Begins}*{Unfinished}"))
            if (Directory.Exists(path))
                Directory.Delete(path, recursive: true);
            else
                File.Delete(path);
    }

    /// <summary>Puts a backup back into an empty folder. It is read and checked whole beside that folder first: what is not sound leaves nothing behind and is never served.</summary>
    /// <exception cref="IOException">The folder holds something already; nothing is overwritten.</exception>
    /// <exception cref="InvalidDataException">The archive holds no sound studio; says what is wrong with it.</exception>
    public static Task RestoreAsync(string archive, string data, CancellationToken stop = default) =>
        EmptyFolder.FillAsync(
            data,
            async aside =>
            {
                await ExtractAsync(archive, aside, stop);
                await CheckAsync(archive, aside, stop);
            }
        );

    private static async Task ExtractAsync(string archive, string to, CancellationToken stop)
    {
        try
        {
            await using var file = File.OpenRead(archive);
            await using var zip = new GZipStream(file, CompressionMode.Decompress);
            await TarFile.ExtractToDirectoryAsync(zip, to, overwriteFiles: false, stop);
        }
        catch (Exception e) when (e is InvalidDataException or EndOfStreamException or FormatException)
        {
            throw new InvalidDataException(
                $"{archive} is no backup of a studio, or is damaged: it cannot be read to its end.",
                e
            );
        }
    }

    /// <summary>Every entry against the list, every kept file against its name, the database against SQLite and against what Gesamt makes.</summary>
    private static async Task CheckAsync(string archive, string folder, CancellationToken stop)
    {
        var database = Path.Combine(folder, Databases[0]);
        if (!File.Exists(database))
            throw new InvalidDataException($"{archive} is no backup of a studio: it holds no {Databases[0]}.");
        var list = Path.Combine(folder, List);
        // backups of an older Gesamt have no list; their files are named by their hashes all the same
        var listed = File.Exists(list)
            ? JsonSerializer.Deserialize<Contents>(await File.ReadAllBytesAsync(list, stop))?.Entries ?? []
            : null;
        File.Delete(list);
        var there = Directory
            .EnumerateFiles(folder, "*", SearchOption.AllDirectories)
            .Select(path => Path.GetRelativePath(folder, path).Replace('\\', '/'))
            .ToHashSet();
        if (listed?.Keys.FirstOrDefault(name => !there.Contains(name)) is { } missing)
            throw new InvalidDataException($"{archive} is damaged: {missing} is missing.");
        foreach (var name in there)
        {
            var hash = await HashAsync(Path.Combine(folder, name), stop);
            var wanted =
                listed is not null ? listed.GetValueOrDefault(name)
                : name.StartsWith("files/", StringComparison.Ordinal) && !name.Contains('.', StringComparison.Ordinal)
                    ? Path.GetFileName(name)
                : hash;
            if (hash != wanted)
                throw new InvalidDataException($"{archive} is damaged: {name} is not what was kept.");
        }
        foreach (var name in Databases.Where(there.Contains))
            Check(Path.Combine(folder, name));
        IsGesamts(archive, database);
    }

    private static void IsGesamts(string archive, string database)
    {
        using var open = new SqliteConnection($"Data Source={database};Pooling=False");
        open.Open();
        using var command = open.CreateCommand();
        command.CommandText =
            "SELECT count(*) FROM sqlite_master WHERE type = 'table' AND name IN ('Studio', 'Facts', '__EFMigrationsHistory')";
        if (command.ExecuteScalar() is not 3L)
            throw new InvalidDataException($"{archive} is no backup of a studio: its database is not Gesamt's.");
        command.CommandText = "SELECT MigrationId FROM __EFMigrationsHistory";
        var known = Sqlite.Migrations();
        using var reader = command.ExecuteReader();
        while (reader.Read())
            if (!known.Contains(reader.GetString(0)))
                throw new InvalidDataException(
                    $"{archive} was made by a newer Gesamt ({reader.GetString(0)}). Restore it with that one."
                );
    }

    /// <summary>SQLite's own online backup: a sound copy of one instant, however much is written meanwhile.</summary>
    public static void Copy(string from, string to)
    {
        using var source = new SqliteConnection($"Data Source={from};Mode=ReadOnly;Pooling=False");
        using var target = new SqliteConnection($"Data Source={to};Pooling=False");
        source.Open();
        target.Open();
        source.BackupDatabase(target);
        target.Close();
        Check(to);
    }

    private static void Check(string database)
    {
        try
        {
            using var open = new SqliteConnection($"Data Source={database};Pooling=False");
            open.Open();
            using var command = open.CreateCommand();
            command.CommandText = "PRAGMA integrity_check";
            if (command.ExecuteScalar() is not "ok")
                throw new InvalidDataException($"The database {Path.GetFileName(database)} is not sound.");
        }
        catch (SqliteException e)
        {
            throw new InvalidDataException($"The database {Path.GetFileName(database)} is not sound: {e.Message}", e);
        }
    }

    private static async Task FolderAsync(
        TarWriter tar,
        Dictionary<string, string> entries,
        string data,
        string folder,
        CancellationToken stop
    )
    {
        // what is half written belongs to nobody yet, and small pictures can be made again
        foreach (
            var path in Directory
                .EnumerateFiles(Path.Combine(data, folder), "*", SearchOption.AllDirectories)
                .Where(path => Path.GetExtension(path) is not (".part" or ".small"))
        )
            await AddAsync(tar, entries, path, Path.GetRelativePath(data, path).Replace('\\', '/'), stop);
    }

    private static async Task AddAsync(
        TarWriter tar,
        Dictionary<string, string> entries,
        string path,
        string name,
        CancellationToken stop
    )
    {
        entries.Add(name, await HashAsync(path, stop));
        await tar.WriteEntryAsync(path, name, stop);
    }

    private static async Task<string> HashAsync(string path, CancellationToken stop)
    {
        await using var file = File.OpenRead(path);
        return Convert.ToHexStringLower(await SHA256.HashDataAsync(file, stop));
    }

    private static DateTime? TimeOf(string path) =>
        DateTime.TryParseExact(
            Path.GetFileName(path)[Begins.Length..^Ends.Length],
            TimeFormat,
            CultureInfo.InvariantCulture,
            DateTimeStyles.None,
            out var at
        )
            ? at
            : null;
}
