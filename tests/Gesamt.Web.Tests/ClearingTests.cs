using System.Text;
using Gesamt.Store;
using Gesamt.Web.Erasing;
using Microsoft.Data.Sqlite;

namespace Gesamt.Web.Tests;

/// <summary>What was erased, and somebody who reads the database all the time, as a replicator does: SQLite keeps the log for them.</summary>
public sealed class ClearingTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    private const string Word = "Xylophagous";

    private string Database => Path.Combine(studio.Data, "gesamt.db");

    [Fact]
    public async Task A_reader_keeps_the_log_for_which_the_database_is_not_written_anew_again_and_again()
    {
        var clearing = studio.Services.GetRequiredService<Clearing>();
        using (var reader = new SqliteConnection($"Data Source={Database};Pooling=False"))
        {
            reader.Open();
            using var reading = reader.BeginTransaction(deferred: true);
            using var command = reader.CreateCommand();
            (command.Transaction, command.CommandText) = (reading, "SELECT count(*) FROM Facts");
            command.ExecuteScalar();
            await EraseSomebodyAsync();
            Assert.Equal(["gesamt.db-wal"], Holding());
            var log = new FileInfo(Database + "-wal").Length;
            await clearing.RetryAsync(CancellationToken.None);
            await clearing.RetryAsync(CancellationToken.None);
            Assert.Equal(log, new FileInfo(Database + "-wal").Length);
            Assert.NotNull(await DueAsync());
        }
        await clearing.RetryAsync(CancellationToken.None);
        Assert.Empty(Holding());
        Assert.Null(await DueAsync());
    }

    private async Task EraseSomebodyAsync()
    {
        var owner = await studio.OwnerAsync();
        var id = await studio.LookAsync(
            async (GesamtDb db) =>
            {
                var row = new Gesamt.Store.Model.PersonRow { Name = Word };
                db.People.Add(row);
                await db.SaveChangesAsync();
                return row.Id;
            }
        );
        Assert.NotEmpty(Holding());
        Assert.True((await owner.PostAsync($"/api/people/{id.Value}/erase", new { })).IsSuccessStatusCode);
    }

    private Task<Instant?> DueAsync() =>
        studio.LookAsync((GesamtDb db) => db.Upkeep.Select(row => row.ClearSince).SingleAsync());

    private List<string> Holding() =>
        [
            .. Directory
                .EnumerateFiles(studio.Data, "gesamt.db*")
                .Where(file => Encoding.UTF8.GetString(Read(file)).Contains(Word, StringComparison.Ordinal))
                .Select(file => Path.GetFileName(file)!)
                .Order(StringComparer.Ordinal),
        ];

    private static byte[] Read(string file)
    {
        using var open = new FileStream(file, FileMode.Open, FileAccess.Read, FileShare.ReadWrite);
        var bytes = new byte[open.Length];
        open.ReadExactly(bytes);
        return bytes;
    }
}
