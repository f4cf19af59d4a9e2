using System.Data.Common;
using System.Runtime.CompilerServices;
using Gesamt.Core.Texts;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Design;
using Microsoft.EntityFrameworkCore.Diagnostics;
using Microsoft.EntityFrameworkCore.Metadata;
using Microsoft.EntityFrameworkCore.Migrations;
using Microsoft.EntityFrameworkCore.Migrations.Operations;

namespace Gesamt.Store;

/// <summary>How the file is opened: write-ahead log, every commit flushed, foreign keys on, all tables strict.</summary>
public static class Sqlite
{
    /// <summary>How long a write waits for another to end before whoever asked is told so.</summary>
    public const int PatienceSeconds = 5;

    /// <param name="flushes">Whether every commit is on the disk before it is confirmed. Only a studio that nobody minds losing says no.</param>
    public static DbContextOptionsBuilder UseGesamt(
        this DbContextOptionsBuilder builder,
        string file,
        bool flushes = true
    ) =>
        builder
            .UseSqlite(
                $"Data Source={file};Default Timeout={PatienceSeconds}",
                // a list is one parameter (json_each): a parameter for each of its values is another statement for each length, written anew each time
                sqlite => sqlite.UseParameterizedCollectionMode(ParameterTranslationMode.Parameter)
            )
            .AddInterceptors(new Pragmas(flushes), new Holding())
            .ReplaceService<IMigrationsSqlGenerator, StrictTables>();

    /// <summary>Makes the model ready, and what reads by it, without opening a file. It is a third of a start and needs nothing of the rest, so another processor can do it meanwhile.</summary>
    public static void WarmUp()
    {
        var options = new DbContextOptionsBuilder<GesamtDb>();
        options.UseGesamt("");
        using var db = new GesamtDb(options.Options);
        _ = db.Upkeep.AsNoTracking().Select(upkeep => upkeep.LinksKey).ToQueryString();
    }

    /// <summary>Brings the file to the newest schema. A process killed in here once leaves a lock row that would stop every later start, so it is cleared first.</summary>
    public static async Task MigrateAsync(GesamtDb db, CancellationToken stop = default)
    {
        // the tools of migrations build the whole model once more: they are called for only where there is something to do
        if (await IsNewestAsync(db, stop))
            return;
        var last = await LastMigrationAsync(db, stop);
        if (last is not null)
        {
            await db.Database.ExecuteSqlRawAsync(
                "CREATE TABLE IF NOT EXISTS __EFMigrationsLock (Id INTEGER NOT NULL PRIMARY KEY, Timestamp TEXT NOT NULL)",
                stop
            );
            await db.Database.ExecuteSqlRawAsync("DELETE FROM __EFMigrationsLock", stop);
        }
        await db.Database.MigrateAsync(stop);
    }

    /// <summary>Whether a file has this program's schema.</summary>
    public static async Task<bool> IsNewestAsync(GesamtDb db, CancellationToken stop = default) =>
        string.CompareOrdinal(await LastMigrationAsync(db, stop), Migrations().Max(StringComparer.Ordinal)) >= 0;

    /// <summary>The newest migration that a file has still to be brought to; null where it is there, and for a new file.</summary>
    public static async Task<string?> UpgradeAsync(GesamtDb db, CancellationToken stop = default) =>
        await LastMigrationAsync(db, stop) is null || await IsNewestAsync(db, stop)
            ? null
            : Migrations().Max(StringComparer.Ordinal);

    // counted up where something is derived otherwise, or more of it is found, without a migration
    private const int Edition = 1;

    private static int Derivation => 100 * Edition + Migrations().Count;

    /// <summary>Whether what is derived was computed since the last migration, and since the calendar it follows from changed. It may have gained columns, and a kill can come between those and their values.</summary>
    public static async Task<bool> IsDerivedAsync(GesamtDb db, CancellationToken stop = default) =>
        await DerivedByAsync(db, stop) == Derivation;

    /// <summary>What the file says of what is derived in it: the same as long as nothing changed that.</summary>
    public static async Task<long> DerivedByAsync(GesamtDb db, CancellationToken stop = default) =>
        await ScalarAsync(db, "PRAGMA user_version", stop) is long version ? version : 0;

    /// <summary>Notes in the file, in the caller's transaction, that what is derived must be computed anew.</summary>
    /// <param name="edition">Another than the last time, so that whoever is computing meanwhile knows that it was in vain.</param>
    public static Task MarkStaleAsync(GesamtDb db, int edition)
    {
        var mark = $"PRAGMA user_version = {-edition}";
        return db.Database.ExecuteSqlRawAsync(mark);
    }

    /// <summary>Notes in the file, in the caller's transaction, that what is derived is as this program computes it.</summary>
    public static Task MarkDerivedAsync(GesamtDb db, CancellationToken stop = default)
    {
        // a pragma takes no parameter
        var mark = $"PRAGMA user_version = {Derivation}";
        return db.Database.ExecuteSqlRawAsync(mark, stop);
    }

    /// <summary>The migration that a file was brought to last; null for a new file.</summary>
    private static async Task<string?> LastMigrationAsync(GesamtDb db, CancellationToken stop) =>
        await ScalarAsync(db, "SELECT count(*) FROM sqlite_master WHERE name = '__EFMigrationsHistory'", stop) is 0L
            ? null
            : await ScalarAsync(db, "SELECT max(MigrationId) FROM __EFMigrationsHistory", stop) as string;

    /// <summary>One value, past the model: it is asked for at every start.</summary>
    private static async Task<object?> ScalarAsync(GesamtDb db, string sql, CancellationToken stop)
    {
        await db.Database.OpenConnectionAsync(stop);
        try
        {
            await using var command = db.Database.GetDbConnection().CreateCommand();
            command.CommandText = sql;
            return await command.ExecuteScalarAsync(stop);
        }
        finally
        {
            await db.Database.CloseConnectionAsync();
        }
    }

    /// <summary>Lets SQLite look at tables that have grown, so that it chooses its ways by what is there; nothing when none has.</summary>
    public static Task LearnSizesAsync(GesamtDb db, CancellationToken stop = default) =>
        db.Database.ExecuteSqlRawAsync("PRAGMA optimize=0x10002", stop);

    /// <summary>The migrations this program knows.</summary>
    public static IReadOnlySet<string> Migrations() =>
        typeof(Sqlite)
            .Assembly.GetTypes()
            .Where(type => type.BaseType == typeof(Migration))
            .SelectMany(type => type.GetCustomAttributes(typeof(MigrationAttribute), false))
            .Cast<MigrationAttribute>()
            .Select(found => found.Id)
            .ToHashSet();

    /// <summary>Whether a file holds a whole studio: it is there, has Gesamt's tables, and somebody owns it.</summary>
    /// <exception cref="Microsoft.Data.Sqlite.SqliteException">The file is damaged.</exception>
    public static bool HoldsStudio(string file)
    {
        if (!File.Exists(file) || new FileInfo(file).Length == 0)
            return false;
        using var open = new Microsoft.Data.Sqlite.SqliteConnection($"Data Source={file};Pooling=False");
        open.Open();
        using var command = open.CreateCommand();
        command.CommandText = "SELECT count(*) FROM sqlite_master WHERE type = 'table' AND name = 'Studio'";
        if (command.ExecuteScalar() is not 1L)
            return false;
        command.CommandText = "SELECT count(*) FROM Studio WHERE PasswordHash IS NOT NULL";
        return command.ExecuteScalar() is 1L;
    }

    /// <summary>Teaches a connection <see cref="GesamtDb.Holds"/> when a query asks for it: most ask for nothing of the kind, and what goes back to the pool forgets functions.</summary>
    /// <remarks>SQLite's own LIKE knows case of ASCII alone, and reads % and _ as more than themselves.</remarks>
    private sealed class Holding : DbCommandInterceptor
    {
        public override InterceptionResult<DbDataReader> ReaderExecuting(
            DbCommand command,
            CommandEventData eventData,
            InterceptionResult<DbDataReader> result
        )
        {
            if (
                command.Connection is SqliteConnection sqlite
                && command.CommandText.Contains("\"holds\"", StringComparison.Ordinal)
            )
                sqlite.CreateFunction<string?, string, bool>("holds", Holds, isDeterministic: true);
            return result;
        }

        public override ValueTask<InterceptionResult<DbDataReader>> ReaderExecutingAsync(
            DbCommand command,
            CommandEventData eventData,
            InterceptionResult<DbDataReader> result,
            CancellationToken cancellationToken = default
        ) => ValueTask.FromResult(ReaderExecuting(command, eventData, result));

        private static bool Holds(string? text, string words) =>
            text is not null && BareText.Of(text).Contains(BareText.Of(words), StringComparison.Ordinal);
    }

    private sealed class Pragmas(bool flushes) : DbConnectionInterceptor
    {
        // foreign_keys, busy_timeout and synchronous belong to the connection; the log mode stays in the file.
        // Ten years are scanned from 8 MB of pages in half the time that they take from one
        private readonly string text =
            $"PRAGMA journal_mode=WAL; PRAGMA busy_timeout=5000; PRAGMA foreign_keys=ON; PRAGMA synchronous={(flushes ? "FULL" : "OFF")}; PRAGMA cache_size=-8192;";

        // what comes from the pool was told already
        private readonly ConditionalWeakTable<object, string> told = [];

        public override void ConnectionOpened(DbConnection connection, ConnectionEndEventData eventData)
        {
            if (connection is not SqliteConnection { Handle: { } handle } || !told.TryAdd(handle, text))
                return;
            using var command = connection.CreateCommand();
            command.CommandText = text;
            command.ExecuteNonQuery();
        }

        public override Task ConnectionOpenedAsync(
            DbConnection connection,
            ConnectionEndEventData eventData,
            CancellationToken cancellationToken = default
        )
        {
            ConnectionOpened(connection, eventData);
            return Task.CompletedTask;
        }
    }

#pragma warning disable EF1001 // the only place where a table can be made STRICT
    private sealed class StrictTables(
        MigrationsSqlGeneratorDependencies dependencies,
        IRelationalAnnotationProvider annotations
    ) : SqliteMigrationsSqlGenerator(dependencies, annotations)
    {
        protected override void Generate(
            CreateTableOperation operation,
            IModel? model,
            MigrationCommandListBuilder builder,
            bool terminate = true
        )
        {
            base.Generate(operation, model, builder, terminate: false);
            builder.Append(" STRICT");
            if (!terminate)
                return;
            builder.AppendLine(Dependencies.SqlGenerationHelper.StatementTerminator);
            EndStatement(builder);
        }
    }
#pragma warning restore EF1001
}

/// <summary>For the migrations tool alone.</summary>
public sealed class DesignTimeDb : IDesignTimeDbContextFactory<GesamtDb>
{
    public GesamtDb CreateDbContext(string[] args)
    {
        var options = new DbContextOptionsBuilder<GesamtDb>();
        options.UseGesamt("design.db");
        return new(options.Options);
    }
}
