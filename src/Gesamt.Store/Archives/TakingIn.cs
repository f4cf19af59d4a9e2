using System.Reflection;
using System.Security.Cryptography;
using System.Text.Json;
using Gesamt.Store.Files;
using Gesamt.Store.Model;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Store.Archives;

/// <summary>Puts an archive into an empty folder. It is read and checked whole first, and laid beside the folder: what is not sound leaves nothing behind and is never served.</summary>
/// <remarks>What is derived is not in it, and is computed at the first start (<see cref="Sqlite.IsDerivedAsync"/>).</remarks>
public static class TakingIn
{
    private const string StudioEntry = "tables/studio.json",
        NoStudio = $"The archive holds no studio: {StudioEntry} has no row.";

    /// <summary>The key of clients' links, where it was taken along.</summary>
    public const string LinksKey = "links.key";
    private const int LinksKeyBytes = 32;

    /// <summary>The list of an archive, and its studio as it will be laid; reads and checks all of it.</summary>
    /// <exception cref="InvalidDataException">It is not sound; says what is wrong with it.</exception>
    public static async Task<(ArchiveList List, StudioRow Studio)> LookAsync(
        string archive,
        CancellationToken stop = default
    )
    {
        using var reader = await ArchiveReader.OpenAsync(archive, stop);
        try
        {
            await using var content = reader.Open(StudioEntry);
            var rows = await JsonSerializer.DeserializeAsync<List<StudioRow>>(content, RowJson.Options, stop);
            return rows is [{ } studio] ? (reader.List, studio) : throw new InvalidDataException(NoStudio);
        }
        catch (JsonException e)
        {
            throw new InvalidDataException($"{StudioEntry}: {e.Message}", e);
        }
    }

    /// <summary>Lays the studio of an archive.</summary>
    /// <param name="own">Gives the studio what stays in no archive: its owner's password, and what else opens it.</param>
    /// <exception cref="IOException">The folder holds something already; nothing is overwritten.</exception>
    /// <exception cref="InvalidDataException">The archive holds no sound studio; says what is wrong with it.</exception>
    public static Task LayAsync(string archive, string data, Action<StudioRow> own, CancellationToken stop = default) =>
        EmptyFolder.FillAsync(
            data,
            async aside =>
            {
                using var reader = await ArchiveReader.OpenAsync(archive, stop);
                var named = await RowsAsync(reader, Path.Combine(aside, "gesamt.db"), own, stop);
                await FilesAsync(reader, new(Path.Combine(aside, "files")), named, stop);
                await KeyAsync(reader, Directory.CreateDirectory(Path.Combine(aside, "keys")).FullName, stop);
            }
        );

    /// <returns>The SHA-256 of every file that its rows name.</returns>
    private static async Task<HashSet<string>> RowsAsync(
        ArchiveReader reader,
        string database,
        Action<StudioRow> own,
        CancellationToken stop
    )
    {
        HashSet<string> named = [];
        var options = new DbContextOptionsBuilder<GesamtDb>();
        // it lies aside until all of it is there: one flush at the end will do
        options.UseGesamt(database, flushes: false);
        await using (var db = new GesamtDb(options.Options))
        {
            await Sqlite.MigrateAsync(db, stop);
            db.ChangeTracker.AutoDetectChangesEnabled = false;
            await using var transaction = await db.Database.BeginTransactionAsync(stop);
            // tables name each other both ways
            await db.Database.ExecuteSqlRawAsync("PRAGMA defer_foreign_keys = ON", stop);
            var naming = NamedFiles
                .Columns(db.Model)
                .Select(column => column.Row.GetProperty(column.Column)!)
                .ToLookup(property => property.DeclaringType!);
            var studios = 0;
            foreach (var table in ArchiveTables.Of(db.Model).Where(table => reader.Has(table.Entry)))
            {
                await using var content = reader.Open(table.Entry);
                await table.LayAsync(
                    db,
                    content,
                    row =>
                    {
                        Prepare(row);
                        named.UnionWith(Hashes(row, naming[row.GetType()]));
                        return Task.CompletedTask;
                    },
                    stop
                );
            }
            if (studios != 1)
                throw new InvalidDataException(NoStudio);
            await CheckAsync(db, stop);
            await db.SaveChangesAsync(stop);
            await transaction.CommitAsync(stop);
            await db.Database.ExecuteSqlRawAsync("PRAGMA wal_checkpoint(TRUNCATE)", stop);

            void Prepare(object row)
            {
                if (row is StudioRow studio)
                {
                    studios++;
                    own(studio);
                }
                // a receiver that is told with another secret refuses it: better than one that anybody knows
                if (row is HookRow hook)
                    hook.Secret = Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(32));
            }
        }
        SqliteConnection.ClearAllPools();
        return named;
    }

    /// <summary>Whether every row that is named is there.</summary>
    private static async Task CheckAsync(GesamtDb db, CancellationToken stop)
    {
        await using var command = db.Database.GetDbConnection().CreateCommand();
        command.CommandText = "SELECT \"table\", rowid, parent FROM pragma_foreign_key_check LIMIT 1";
        await using var broken = await command.ExecuteReaderAsync(stop);
        if (await broken.ReadAsync(stop))
            throw new InvalidDataException(
                $"The archive is not whole: row {broken.GetInt64(1)} of {broken.GetString(0)} names one of {broken.GetString(2)} that is not there."
            );
    }

    private static IEnumerable<string> Hashes(object row, IEnumerable<PropertyInfo> naming) =>
        naming.Select(property => property.GetValue(row)).OfType<string>();

    private static async Task FilesAsync(
        ArchiveReader reader,
        FileVault vault,
        HashSet<string> named,
        CancellationToken stop
    )
    {
        foreach (var entry in reader.List.Entries)
        {
            if (!named.Remove(entry.Sha256))
                continue;
            await using var content = reader.Open(entry.Name);
            await vault.KeepAsync(content, entry.Bytes, stop);
        }
        // what was left behind is said in the list, and was missing in the studio itself
        named.ExceptWith(reader.List.LeftBehind.Select(left => left.What));
        if (named.Order(StringComparer.Ordinal).FirstOrDefault() is { } missing)
            throw new InvalidDataException(
                $"The archive is not whole: the file {missing} that a row names is missing."
            );
    }

    private static async Task KeyAsync(ArchiveReader reader, string keys, CancellationToken stop)
    {
        await using var file = File.Create(Path.Combine(keys, LinksKey));
        if (reader.Has(LinksKey))
        {
            await using var content = reader.Open(LinksKey);
            await content.CopyToAsync(file, stop);
        }
        else
            // links are made with another key from here on: those in letters that were sent do not open any more
            await file.WriteAsync(RandomNumberGenerator.GetBytes(LinksKeyBytes), stop);
    }
}
