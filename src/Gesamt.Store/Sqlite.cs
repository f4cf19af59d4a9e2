using System.Data.Common;
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

    public static DbContextOptionsBuilder UseGesamt(this DbContextOptionsBuilder builder, string file) =>
        builder
            .UseSqlite($"Data Source={file};Default Timeout={PatienceSeconds}")
            .AddInterceptors(new Pragmas())
            .ReplaceService<IMigrationsSqlGenerator, StrictTables>();

    /// <summary>Brings the file to the newest schema. A process killed in here once leaves a lock row that would stop every later start, so it is cleared first.</summary>
    /// <returns>Whether an older file was brought up, so that what is derived must be computed anew.</returns>
    public static async Task<bool> MigrateAsync(GesamtDb db, CancellationToken stop = default)
    {
        var isOlder = false;
        if (await db.Database.GetService<IHistoryRepository>().ExistsAsync(stop))
        {
            await db.Database.ExecuteSqlRawAsync(
                "CREATE TABLE IF NOT EXISTS __EFMigrationsLock (Id INTEGER NOT NULL PRIMARY KEY, Timestamp TEXT NOT NULL)",
                stop
            );
            await db.Database.ExecuteSqlRawAsync("DELETE FROM __EFMigrationsLock", stop);
            isOlder = (await db.Database.GetPendingMigrationsAsync(stop)).Any();
        }
        await db.Database.MigrateAsync(stop);
        return isOlder;
    }

    /// <summary>The migrations this program knows.</summary>
    public static IReadOnlySet<string> Migrations() =>
        typeof(Sqlite)
            .Assembly.GetTypes()
            .Select(type => type.GetCustomAttributes(typeof(MigrationAttribute), false))
            .SelectMany(found => found)
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

    private static T GetService<T>(this Microsoft.EntityFrameworkCore.Infrastructure.DatabaseFacade facade)
        where T : class => Microsoft.EntityFrameworkCore.Infrastructure.AccessorExtensions.GetService<T>(facade);

    private sealed class Pragmas : DbConnectionInterceptor
    {
        // foreign_keys, busy_timeout and synchronous belong to the connection; the log mode stays in the file
        private const string Text =
            "PRAGMA journal_mode=WAL; PRAGMA busy_timeout=5000; PRAGMA foreign_keys=ON; PRAGMA synchronous=FULL; PRAGMA cache_size=-1024;";

        public override void ConnectionOpened(DbConnection connection, ConnectionEndEventData eventData)
        {
            using var command = connection.CreateCommand();
            command.CommandText = Text;
            command.ExecuteNonQuery();
        }

        public override async Task ConnectionOpenedAsync(
            DbConnection connection,
            ConnectionEndEventData eventData,
            CancellationToken cancellationToken = default
        )
        {
            await using var command = connection.CreateCommand();
            command.CommandText = Text;
            await command.ExecuteNonQueryAsync(cancellationToken);
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
