using System.Security.Cryptography;
using System.Text.Json;
using Gesamt.Store;
using Gesamt.Store.Backups;

namespace Gesamt.Web.Tests;

/// <summary>A folder of an earlier release opens, and everything in it is where it was.</summary>
/// <remarks>Each archive in Folders was made by that release's own demo and its own backup; the first had no list of its entries yet, the first two kept no papers. From the third on they are shorter demos, for their papers’ sake; the fourth has a recurring invoice that charges a kept card, and a statement of the bank, the fifth lists, boards, a run sheet, tasks with their plan and pinned remarks, the sixth books: accounts, transfers, costs that come again, a year handed over, the seventh somebody who was erased and a table that was taken over.</remarks>
public sealed class OlderFolderTests
{
    public static TheoryData<string> Releases =>
        [
            .. Directory
                .GetFiles(Path.Combine(Studio.Root, "tests", "Gesamt.Web.Tests", "Folders"))
                .Select(file => Path.GetFileName(file)),
        ];

    [Theory]
    [MemberData(nameof(Releases))]
    public async Task A_folder_of_an_earlier_release_opens_and_all_of_it_is_there(string release)
    {
        using var folder = new Folder();
        var data = await LaidAsync(folder, release);
        var before = Server.Read(data, "gesamt.db", "SELECT Id || Kind || Payload FROM Facts ORDER BY Id");
        var standings = Server.Read(
            data,
            "gesamt.db",
            "SELECT Id || Standing_Stage || Standing_Turn || Standing_PaidMinor || Standing_OwedMinor FROM Projects ORDER BY Id"
        );
        Assert.True(before.Count > 300 && standings.Count >= 15, $"{before.Count} facts, {standings.Count} projects");
        // at the moment it was left, so that what a day changes by itself is not taken for the release’s doing
        var left = Instant.FromUnixTimeTicks(
            long.Parse(
                Server
                    .Read(
                        data,
                        "gesamt.db",
                        "SELECT MAX(At) FROM (SELECT MAX(Recorded) AS At FROM Facts UNION ALL SELECT MAX(Standing_Since) FROM Projects)"
                    )
                    .Single(),
                System.Globalization.CultureInfo.InvariantCulture
            )
        );
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();

        await using var studio = new OnFolder(data, left);
        var owner = await studio.OwnerAsync();
        await TheWayBackIsThereAsync(folder, data, before);
        await studio.TickAsync();
        Assert.Equal(
            before,
            Server.Read(data, "gesamt.db", "SELECT Id || Kind || Payload FROM Facts ORDER BY Id").Take(before.Count)
        );
        Assert.Equal(
            standings,
            Server.Read(
                data,
                "gesamt.db",
                "SELECT Id || Standing_Stage || Standing_Turn || Standing_PaidMinor || Standing_OwedMinor FROM Projects ORDER BY Id"
            )
        );
        foreach (
            var page in new[]
            {
                "/api/today",
                "/api/turns",
                "/api/register",
                "/api/people",
                "/api/tray",
                "/api/routines",
                "/api/kinds",
                "/api/letter-texts",
                "/api/sessions",
                "/api/week",
                "/api/season",
                "/api/money",
                "/api/money/years",
                "/api/accounts",
                "/api/reports?year=all",
                "/api/goals",
            }
        )
            Assert.True((await owner.AskAsync(page)).IsSuccessStatusCode, page);
        // a year that was handed over adds up as it did then
        Assert.All(
            (await owner.GetAsync("/api/money/years")).EnumerateArray(),
            year => Assert.Equal("", year.GetProperty("changed").GetString())
        );
        foreach (var id in await studio.LookAsync(db => db.Projects.Select(p => p.Id).ToListAsync()))
        {
            var record = await owner.GetAsync($"/api/projects/{id.Value}");
            Assert.DoesNotContain("cannot be told", record.GetRawText());
            foreach (
                var paper in record
                    .GetProperty("sheet")
                    .GetProperty("papers")
                    .EnumerateArray()
                    .Select(one => one.GetProperty("file").GetString())
                    .OfType<string>()
            )
                Assert.True((await owner.AskAsync(paper)).IsSuccessStatusCode);
        }
        foreach (var file in await studio.LookAsync(db => db.Files.Select(f => f.Id).ToListAsync()))
            Assert.True((await owner.AskAsync($"/api/files/{file.Value}")).IsSuccessStatusCode);
        // what only later releases find is found in it
        var words = await studio.LookAsync(db =>
            db.Tasks.Where(task => !task.Removed).Select(task => task.Title).FirstAsync()
        );
        Assert.Contains(
            (await owner.GetAsync($"/api/search?words={Uri.EscapeDataString(words)}")).EnumerateArray(),
            hit => hit.GetProperty("sort").GetString() == "Task"
        );
        // links in letters sent then open now
        var letters = (await owner.GetAsync("/api/post-office"))
            .EnumerateArray()
            .Where(l => l.GetProperty("fromStudio").GetBoolean())
            .Select(l => l.GetProperty("id").GetInt64());
        var opened = 0;
        foreach (var letter in letters.Take(30))
        foreach (
            System.Text.RegularExpressions.Match link in System.Text.RegularExpressions.Regex.Matches(
                (await owner.GetAsync($"/api/post-office/{letter}")).GetProperty("text").GetString()!,
                @"http://studio\.example(/p/\S+)"
            )
        )
            if ((await new Visitor(studio).AskAsync(link.Groups[1].Value)).Headers.Contains("Set-Cookie"))
                opened++;
        Assert.True(opened > 0);
        Assert.Equal(
            JsonValueKind.Array,
            (await owner.GetAsync("/api/today")).GetProperty("ready").GetProperty("troubles").ValueKind
        );
        Assert.Empty(
            (await owner.GetAsync("/api/today")).GetProperty("ready").GetProperty("troubles").EnumerateArray()
        );
    }

    /// <summary>Before it was changed the folder was kept under a name that says before what, and comes back from it as it was.</summary>
    private static async Task TheWayBackIsThereAsync(Folder folder, string data, IReadOnlyList<string> facts)
    {
        var newest = Sqlite.Migrations().Max(StringComparer.Ordinal);
        var kept = Path.Combine(data, "backups", $"gesamt-before-{newest}.tar.gz");
        Assert.True(File.Exists(kept), "nothing was kept before the upgrade");
        await Backup.RestoreAsync(kept, folder.Of("way back"), TestContext.Current.CancellationToken);
        Assert.Equal(
            facts,
            Server.Read(folder.Of("way back"), "gesamt.db", "SELECT Id || Kind || Payload FROM Facts ORDER BY Id")
        );
        Assert.DoesNotContain(
            newest!,
            Server.Read(folder.Of("way back"), "gesamt.db", "SELECT MigrationId FROM __EFMigrationsHistory")
        );
    }

    [Fact]
    [System.Runtime.Versioning.UnsupportedOSPlatform("windows")]
    public async Task Where_the_way_back_cannot_be_kept_nothing_is_changed_and_the_start_says_so()
    {
        using var folder = new Folder();
        var data = await LaidAsync(folder, "2026-11-29.tar.gz");
        const string Migrations = "SELECT MigrationId FROM __EFMigrationsHistory ORDER BY 1";
        var before = Server.Read(data, "gesamt.db", Migrations);
        var inTheWay = folder.Of("in the way");
        await File.WriteAllTextAsync(inTheWay, "", TestContext.Current.CancellationToken);
        using (var server = Server.StartReal(data, ("Gesamt__Backups", inTheWay)))
        {
            Assert.False(await server.AnswersAsync());
            var said = await server.Said;
            Assert.Contains("Nothing was changed", said);
            Assert.DoesNotContain("   at ", said); // no stack trace
        }
        Assert.Equal(before, Server.Read(data, "gesamt.db", Migrations));
    }

    [Fact]
    public async Task One_damaged_project_keeps_no_folder_of_an_earlier_release_from_opening()
    {
        using var folder = new Folder();
        var data = await LaidAsync(folder, "2026-11-29.tar.gz");
        var damaged = Server.Read(data, "gesamt.db", "UPDATE Projects SET Rules = '{' WHERE Id = 1 RETURNING Title");
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        await using var studio = new OnFolder(data);
        var owner = await studio.OwnerAsync();
        var rows = (await owner.GetAsync("/api/register")).GetRawText();
        Assert.Contains(Assert.Single(damaged), rows, StringComparison.Ordinal);
        // all others are computed anew, and nothing is asked for once more at the next start
        Assert.True(await studio.LookAsync((GesamtDb db) => Sqlite.IsDerivedAsync(db)));
        Assert.True((await owner.AskAsync("/api/today")).IsSuccessStatusCode);
    }

    [Theory]
    [InlineData("2026-11-25.tar.gz")]
    [InlineData("2026-11-26.tar.gz")]
    public async Task What_an_earlier_release_signed_and_issued_is_drawn_at_the_first_start_marked_so_and_kept_from_then_on(
        string release
    )
    {
        using var folder = new Folder();
        var data = await LaidAsync(folder, release);
        var invoices = Server.Read(data, "gesamt.db", "SELECT Id FROM Invoices").Select(long.Parse).ToHashSet();
        var signed = Server
            .Read(data, "gesamt.db", "SELECT DISTINCT VersionId FROM Signatures")
            .Select(long.Parse)
            .ToHashSet();
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        await using var studio = new OnFolder(data);
        var owner = await studio.OwnerAsync();
        await studio.TickAsync();
        var papers = await studio.LookAsync(db => db.Papers.ToListAsync());
        papers.RemoveAll(p => p.InvoiceId is { } id && !invoices.Contains(id.Value)); // issued since
        Assert.True(signed.Count > 10 && invoices.Count > 40);
        Assert.Equal(
            invoices,
            papers.Where(p => p.InvoiceId is not null).Select(p => p.InvoiceId!.Value.Value).ToHashSet()
        );
        Assert.Superset(
            signed,
            papers.Where(p => p.VersionId is not null).Select(p => p.VersionId!.Value.Value).ToHashSet()
        );
        Assert.All(papers, paper => Assert.True(paper.DrawnLater));

        var paths = papers
            .Select(p =>
                p.InvoiceId is { } id
                    ? $"/api/invoices/{id.Value}.pdf"
                    : $"/api/contracts/{p.VersionId!.Value.Value}.pdf"
            )
            .Distinct()
            .ToList();
        async Task<List<string>> HashesAsync()
        {
            var hashes = new List<string>();
            foreach (var path in paths)
                hashes.Add(
                    Convert.ToHexStringLower(
                        SHA256.HashData(await (await owner.AskAsync(path)).Content.ReadAsByteArrayAsync())
                    )
                );
            return hashes;
        }
        var before = await HashesAsync();
        Assert.Subset(papers.Select(p => p.Hash).ToHashSet(), before.ToHashSet());
        await owner.ChangeStudioAsync(now =>
            (now["names"]!["name"], now["names"]!["address"], now["look"]!["brand"], now["money"]!["iban"]) = (
                "Another name",
                "Elsewhere",
                "#552200",
                "DE89370400440532013000"
            )
        );
        Assert.Equal(before, await HashesAsync());
    }

    [Fact] // a migration and what is computed for it are two commits
    public async Task A_kill_between_new_columns_and_their_values_is_mended_at_the_next_start()
    {
        using Folder folder = new(),
            other = new();
        var release = Releases.Select(row => row.Data).Min(StringComparer.Ordinal)!;
        async Task<(string Turns, string Routines)> LookAsync(string data)
        {
            await using var studio = new OnFolder(data);
            var owner = await studio.OwnerAsync();
            return (
                (await owner.GetAsync("/api/turns")).GetRawText(),
                (await owner.GetAsync("/api/routines")).GetRawText()
            );
        }
        var whole = await LookAsync(await LaidAsync(folder, release));
        Assert.Contains("\"cards\":[{", whole.Turns);
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        var killed = await LaidAsync(other, release);
        await using (var db = new GesamtDb(Options(killed)))
        {
            await Sqlite.MigrateAsync(db, TestContext.Current.CancellationToken);
            Assert.False(await Sqlite.IsDerivedAsync(db, TestContext.Current.CancellationToken));
            Assert.False(await db.Projects.AnyAsync(p => p.Standing.OnTable, TestContext.Current.CancellationToken));
        }
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        Assert.Equal(whole, await LookAsync(killed));
    }

    private static DbContextOptions<GesamtDb> Options(string data)
    {
        var options = new DbContextOptionsBuilder<GesamtDb>();
        options.UseGesamt(Path.Combine(data, "gesamt.db"));
        return options.Options;
    }

    private static async Task<string> LaidAsync(Folder folder, string release)
    {
        var data = folder.Of("studio");
        await Backup.RestoreAsync(
            Path.Combine(Studio.Root, "tests", "Gesamt.Web.Tests", "Folders", release),
            data,
            TestContext.Current.CancellationToken
        );
        return data;
    }
}
