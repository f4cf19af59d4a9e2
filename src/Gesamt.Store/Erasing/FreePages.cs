using Microsoft.Data.Sqlite;

namespace Gesamt.Store.Erasing;

/// <summary>Clears what was deleted out of a SQLite file, where it lies in free pages and in the log until something else is written over it.</summary>
public static class FreePages
{
    /// <summary>Writes the file anew with what is in it, and empties its log.</summary>
    /// <param name="rebuilt">Indexes of FTS5, which keep the words of what was deleted until they are made anew.</param>
    /// <returns>Whether nothing is left: somebody who reads at that moment keeps the log.</returns>
    /// <remarks>VACUUM takes as much room again as the file has, and writers wait for it. SQLite's own docs: lang_vacuum, pragma_wal_checkpoint, fts5 4.5.</remarks>
    public static async Task<bool> ClearAsync(string file, IReadOnlyList<string> rebuilt, CancellationToken stop)
    {
        await using var open = new SqliteConnection(
            new SqliteConnectionStringBuilder
            {
                DataSource = file,
                Pooling = false,
                DefaultTimeout = 60,
            }.ToString()
        );
        await open.OpenAsync(stop);
        await RunAsync(open, "PRAGMA secure_delete = ON", stop);
        foreach (var index in rebuilt)
            await RunAsync(open, $"INSERT INTO {index}({index}) VALUES('rebuild')", stop);
        await RunAsync(open, "VACUUM", stop);
        return await EmptyLogAsync(open, stop);
    }

    /// <summary>Empties the log of a file that was written anew already.</summary>
    /// <returns>Whether it is empty: whoever reads, and a replicator does all the time, keeps it.</returns>
    public static async Task<bool> EmptyLogAsync(string file, CancellationToken stop)
    {
        await using var open = new SqliteConnection($"Data Source={file};Pooling=False");
        await open.OpenAsync(stop);
        return await EmptyLogAsync(open, stop);
    }

    private static async Task<bool> EmptyLogAsync(SqliteConnection open, CancellationToken stop)
    {
        await using var command = open.CreateCommand();
        command.CommandText = "PRAGMA wal_checkpoint(TRUNCATE)";
        return await command.ExecuteScalarAsync(stop) is 0L;
    }

    /// <summary>How much of a file is free, from 0 to 1, and how many bytes that is.</summary>
    public static async Task<(double Share, long Bytes)> OfAsync(string file, CancellationToken stop)
    {
        await using var open = new SqliteConnection($"Data Source={file};Pooling=False;Mode=ReadOnly");
        await open.OpenAsync(stop);
        async Task<long> AskAsync(string what)
        {
            await using var command = open.CreateCommand();
            command.CommandText = $"PRAGMA {what}";
            return (long)(await command.ExecuteScalarAsync(stop))!;
        }
        var (free, all) = (await AskAsync("freelist_count"), await AskAsync("page_count"));
        return (all == 0 ? 0 : (double)free / all, free * await AskAsync("page_size"));
    }

    private static async Task RunAsync(SqliteConnection open, string sql, CancellationToken stop)
    {
        await using var command = open.CreateCommand();
        command.CommandText = sql;
        await command.ExecuteNonQueryAsync(stop);
    }
}
