using System.Formats.Tar;
using System.IO.Compression;
using Microsoft.Data.Sqlite;

namespace Gesamt.Store.Backups;

/// <summary>A whole studio in one file, taken while it is running: database first, then files, then keys.</summary>
/// <remarks>
/// Files are only ever added under their hash, so every file a row of the copied database names is there when the files are copied after it.
/// The archive is a gzipped tar; what stands in it is what stands in the data folder.
/// </remarks>
public static class Backup
{
    private static readonly string[] Folders = ["files", "keys"];
    private static readonly string[] Databases = ["gesamt.db", "post-office.db"];

    /// <summary>Writes a backup of a data folder.</summary>
    /// <returns>The archive's path: the one given, or one named by the time in the folder given.</returns>
    /// <exception cref="InvalidDataException">The copy of a database is not sound; no archive is left behind.</exception>
    /// <exception cref="FileNotFoundException">There is no studio in the data folder.</exception>
    public static async Task<string> WriteAsync(string data, string to, DateTimeOffset now, CancellationToken stop = default)
    {
        if (!File.Exists(Path.Combine(data, Databases[0]))) throw new FileNotFoundException($"There is no studio in {data}.");
        var archive = Directory.Exists(to) ? Path.Combine(to, $"gesamt-{now:yyyyMMdd-HHmmss}.tar.gz") : to;
        var aside = Directory.CreateTempSubdirectory("gesamt-backup").FullName;
        var unfinished = $"{archive}.part";
        try
        {
            foreach (var name in Databases.Where(name => File.Exists(Path.Combine(data, name)))) Copy(Path.Combine(data, name), Path.Combine(aside, name));
            await using (var file = new FileStream(unfinished, FileMode.Create, FileAccess.Write))
            await using (var zip = new GZipStream(file, CompressionLevel.Fastest))
            await using (var tar = new TarWriter(zip))
            {
                foreach (var path in Directory.GetFiles(aside)) await tar.WriteEntryAsync(path, Path.GetFileName(path), stop);
                foreach (var folder in Folders.Where(folder => Directory.Exists(Path.Combine(data, folder)))) await FolderAsync(tar, data, folder, stop);
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

    /// <summary>Puts a backup back into an empty folder.</summary>
    /// <exception cref="IOException">The folder holds something already; nothing is overwritten.</exception>
    /// <exception cref="InvalidDataException">The archive holds no sound studio.</exception>
    public static async Task RestoreAsync(string archive, string data, CancellationToken stop = default)
    {
        if (Directory.Exists(data) && Directory.EnumerateFileSystemEntries(data).Any()) throw new IOException($"{data} is not empty. Restore into a folder of its own, so that nothing is overwritten.");
        Directory.CreateDirectory(data);
        await using (var file = File.OpenRead(archive))
        await using (var zip = new GZipStream(file, CompressionMode.Decompress))
            await TarFile.ExtractToDirectoryAsync(zip, data, overwriteFiles: false, stop);
        var database = Path.Combine(data, Databases[0]);
        if (!File.Exists(database)) throw new InvalidDataException($"{archive} is no backup of a studio.");
        Check(database);
    }

    /// <summary>SQLite's own online backup: a sound copy of one instant, however much is written meanwhile.</summary>
    private static void Copy(string from, string to)
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
        using var open = new SqliteConnection($"Data Source={database};Pooling=False");
        open.Open();
        using var command = open.CreateCommand();
        command.CommandText = "PRAGMA integrity_check";
        if (command.ExecuteScalar() is not "ok") throw new InvalidDataException($"The database in {database} is not sound.");
    }

    private static async Task FolderAsync(TarWriter tar, string data, string folder, CancellationToken stop)
    {
        foreach (var path in Directory.EnumerateFiles(Path.Combine(data, folder), "*", SearchOption.AllDirectories).Where(path => !path.EndsWith(".part", StringComparison.Ordinal)))
            await tar.WriteEntryAsync(path, Path.GetRelativePath(data, path).Replace('\\', '/'), stop);
    }
}
