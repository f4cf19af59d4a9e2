using System.Formats.Tar;
using System.IO.Compression;
using System.Text;
using Gesamt.Store;
using Gesamt.Store.Backups;
using Gesamt.Web.Upkeep;
using Microsoft.AspNetCore.Hosting;

namespace Gesamt.Web.Tests;

/// <summary>The house keeps itself: backups, files, keys, and what is over.</summary>
[System.Runtime.Versioning.UnsupportedOSPlatform("windows")]
public sealed class UpkeepTests
{
    private static readonly DateTimeOffset At = new(2027, 1, 25, 10, 30, 0, TimeSpan.Zero);

    private static async Task KeepAsync(Studio studio) =>
        await studio.Services.GetRequiredService<Upkeeping>().DoDueAsync(TestContext.Current.CancellationToken);

    private static async Task<string[]> TroublesAsync(Visitor owner) =>
        [
            .. (await owner.GetAsync("/api/today"))
                .GetProperty("ready")
                .GetProperty("troubles")
                .EnumerateArray()
                .Select(t => t.GetString()!),
        ];

    /// <summary>With more room asked for than any disk has.</summary>
    private sealed class CrampedStudio(string backups = "")
        : Studio(withProjects: false, Laid.Copy(withProjects: false))
    {
        protected override void ConfigureWebHost(IWebHostBuilder builder)
        {
            base.ConfigureWebHost(builder);
            builder.UseSetting("Gesamt:DiskMegabytes", $"{long.MaxValue}").UseSetting("Gesamt:Backups", backups);
        }
    }

    [Fact]
    public async Task Little_room_on_the_disk_is_told()
    {
        await using var studio = new CrampedStudio();
        var owner = await studio.OwnerAsync();
        Assert.Contains("MB left. When it is full,", Assert.Single(await TroublesAsync(owner)));
        using var watcher = studio.CreateClient();
        Assert.Equal("Degraded", await watcher.GetStringAsync("/health", TestContext.Current.CancellationToken));
    }

    [Fact]
    public async Task Little_room_on_the_disk_of_the_backups_is_told_where_it_is_another()
    {
        // in memory, as large as the system lets it be
        const string Another = "/dev/shm";
        Assert.SkipUnless(Directory.Exists(Another), "There is no second disk here.");
        await using var studio = new CrampedStudio(Another);
        Assert.Collection(
            await TroublesAsync(await studio.OwnerAsync()),
            told => Assert.StartsWith("The disk of the studio has only", told),
            told => Assert.StartsWith("The disk of the backups has only", told)
        );
    }

    private static HttpContent Bytes(string text)
    {
        var content = new ByteArrayContent(Encoding.UTF8.GetBytes(text));
        content.Headers.ContentType = new("application/octet-stream");
        return content;
    }

    private static async Task<long> FileAsync(Studio studio, Visitor owner, string text)
    {
        var project = await studio.InquireAsync(new Visitor(studio), $"file{Guid.NewGuid():n}@lanternhouse.example");
        var answer = await owner.SendAsync(
            HttpMethod.Post,
            $"/api/projects/{project}/files?name=plan.txt&group=Supplied",
            Bytes(text)
        );
        Assert.True(answer.IsSuccessStatusCode);
        return project;
    }

    [Fact]
    public async Task Every_night_a_backup_is_made_and_what_is_old_goes()
    {
        await using var studio = new EmptyStudio();
        var backups = Path.Combine(studio.Data, "backups");
        await studio.OwnerAsync();
        await KeepAsync(studio);
        Assert.Single(Directory.GetFiles(backups));
        await KeepAsync(studio); // once a night
        Assert.Single(Directory.GetFiles(backups));
        for (var day = 1; day <= 40; day++)
        {
            await studio.WaitUntilAsync(Instant.FromDateTimeOffset(At) + Duration.FromDays(day));
            await KeepAsync(studio);
        }
        // seven days, the weeks before them, the months before those
        Assert.InRange(Directory.GetFiles(backups).Length, 9, 12);
        Assert.All(
            Directory.GetFiles(backups),
            path => Assert.Equal(UnixFileMode.UserRead | UnixFileMode.UserWrite, File.GetUnixFileMode(path))
        );
        using var folder = new Folder();
        await Backup.RestoreAsync(
            Directory.GetFiles(backups).Order().Last(),
            folder.Of("again"),
            TestContext.Current.CancellationToken
        );
    }

    [Fact]
    public async Task A_database_of_which_much_is_free_is_written_anew_at_night()
    {
        await using var studio = new EmptyStudio();
        await studio.OwnerAsync();
        var file = Path.Combine(studio.Data, "gesamt.db");
        await studio.LookAsync(
            async (GesamtDb db) =>
                await db.Database.ExecuteSqlRawAsync(
                    "CREATE TABLE Big AS WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n WHERE i < 12000) SELECT i, randomblob(1000) AS b FROM n"
                )
                + await db.Database.ExecuteSqlRawAsync("DROP TABLE Big")
                + await db.Database.ExecuteSqlRawAsync("PRAGMA wal_checkpoint(TRUNCATE)")
        );
        var before = new FileInfo(file).Length;
        Assert.True(before > 12_000_000, $"{before} bytes");
        await KeepAsync(studio);
        Assert.True(new FileInfo(file).Length < before / 2, $"{new FileInfo(file).Length} of {before} bytes");
        Assert.Equal("ok", Assert.Single(Server.Read(studio.Data, "gesamt.db", "PRAGMA integrity_check")));
    }

    [Fact]
    public async Task A_backup_that_fails_is_said_on_today_until_one_succeeds()
    {
        await using var studio = new EmptyStudio();
        var owner = await studio.OwnerAsync();
        File.WriteAllText(Path.Combine(studio.Data, "backups"), "in the way");
        await KeepAsync(studio);
        Assert.Contains(
            await TroublesAsync(owner),
            trouble =>
                trouble.StartsWith("The nightly backup failed", StringComparison.Ordinal)
                && trouble.Contains("There is none yet")
        );
        File.Delete(Path.Combine(studio.Data, "backups"));
        await studio.WaitUntilAsync(Instant.FromDateTimeOffset(At) + Duration.FromHours(2));
        await KeepAsync(studio);
        Assert.Empty(await TroublesAsync(owner));
    }

    [Theory]
    [
        InlineData("a byte of a kept file"),
        InlineData("a file left out"),
        InlineData("a file too many"),
        InlineData("the database"),
        InlineData("cut off"),
        InlineData("no archive"),
        InlineData("another program's database"),
        InlineData("a newer Gesamt")
    ]
    public async Task A_backup_that_is_not_whole_is_refused_and_leaves_nothing_behind(string damage)
    {
        await using var studio = new EmptyStudio();
        var owner = await studio.OwnerAsync();
        await FileAsync(studio, owner, "A plan of the wall.");
        using var folder = new Folder();
        var archive = await Backup.WriteAsync(
            studio.Data,
            folder.Of("whole.tar.gz"),
            At,
            TestContext.Current.CancellationToken
        );
        if (damage == "cut off")
            File.WriteAllBytes(archive, File.ReadAllBytes(archive)[..^2_000]);
        else if (damage == "no archive")
            File.WriteAllText(archive, "hello");
        else
            await DamageAsync(archive, folder.Of("inside"), damage);
        await Assert.ThrowsAsync<InvalidDataException>(() => Backup.RestoreAsync(archive, folder.Of("again")));
        Assert.Empty(Directory.GetDirectories(folder.Path, "again*"));
    }

    private static async Task DamageAsync(string archive, string inside, string damage)
    {
        Directory.CreateDirectory(inside);
        await using (var zip = new GZipStream(File.OpenRead(archive), CompressionMode.Decompress))
            await TarFile.ExtractToDirectoryAsync(zip, inside, false);
        var kept = Directory.GetFiles(Path.Combine(inside, "files"), "*", SearchOption.AllDirectories).Single();
        var database = Path.Combine(inside, "gesamt.db");
        switch (damage)
        {
            case "a byte of a kept file":
                File.WriteAllText(kept, "A plan of the well.");
                break;
            case "a file left out":
                File.Delete(kept);
                break;
            case "a file too many":
                File.WriteAllText(Path.Combine(inside, "more"), "x");
                break;
            case "the database":
                Flip(database, 9_000);
                break;
            case "another program's database":
                File.Delete(database);
                Write(database, "CREATE TABLE T(X)");
                break;
            default:
                Write(database, "INSERT INTO __EFMigrationsHistory VALUES('29990101000000_Later', '99.0')");
                break;
        }
        if (damage is "another program's database" or "a newer Gesamt")
        {
            // the list says the same, so that only what the database holds can tell
            var list = System.Text.Json.Nodes.JsonNode.Parse(File.ReadAllText(Path.Combine(inside, "backup.json")))!;
            list["Entries"]!["gesamt.db"] = Convert.ToHexStringLower(
                System.Security.Cryptography.SHA256.HashData(File.ReadAllBytes(database))
            );
            File.WriteAllText(Path.Combine(inside, "backup.json"), list.ToJsonString());
        }
        File.Delete(archive);
        await using var file = File.Create(archive);
        await using var again = new GZipStream(file, CompressionLevel.Fastest);
        await TarFile.CreateFromDirectoryAsync(inside, again, includeBaseDirectory: false);
    }

    private static void Flip(string path, int at)
    {
        var bytes = File.ReadAllBytes(path);
        bytes[at] ^= 0xff;
        File.WriteAllBytes(path, bytes);
    }

    private static void Write(string database, string sql)
    {
        using var open = new Microsoft.Data.Sqlite.SqliteConnection($"Data Source={database};Pooling=False");
        open.Open();
        using var command = open.CreateCommand();
        command.CommandText = sql;
        command.ExecuteNonQuery();
    }

    [Fact]
    public async Task A_kept_file_whose_bytes_changed_is_noticed_and_named_until_it_is_put_back()
    {
        await using var studio = new EmptyStudio();
        var owner = await studio.OwnerAsync();
        await FileAsync(studio, owner, "A plan of the wall.");
        await KeepAsync(studio);
        Assert.Empty(await TroublesAsync(owner));
        var path = Directory.GetFiles(Path.Combine(studio.Data, "files"), "*", SearchOption.AllDirectories).Single();
        File.WriteAllText(path, "A plan of the well.");
        await studio.WaitUntilAsync(Instant.FromDateTimeOffset(At) + Duration.FromHours(2));
        await KeepAsync(studio);
        Assert.Contains("plan.txt", Assert.Single(await TroublesAsync(owner)));
        File.WriteAllText(path, "A plan of the wall.");
        await studio.WaitUntilAsync(Instant.FromDateTimeOffset(At) + Duration.FromHours(4));
        await KeepAsync(studio);
        Assert.Empty(await TroublesAsync(owner));
    }

    [Fact]
    public async Task What_no_row_names_is_swept_after_a_backup_and_what_is_named_stays()
    {
        await using var studio = new EmptyStudio();
        var owner = await studio.OwnerAsync();
        var project = await FileAsync(studio, owner, "A plan of the wall.");
        var visitor = new Visitor(studio);
        var token = Uri.EscapeDataString((await visitor.GetAsync("/forms/mural")).GetProperty("token").GetString()!);
        Assert.True(
            (
                await visitor.SendAsync(
                    HttpMethod.Post,
                    $"/forms/mural/files?name=a.txt&token={token}",
                    Bytes("never sent")
                )
            ).IsSuccessStatusCode
        );
        string[] Kept() => Directory.GetFiles(Path.Combine(studio.Data, "files"), "*", SearchOption.AllDirectories);
        Assert.Equal(2, Kept().Length);
        await KeepAsync(studio);
        Assert.Equal(2, Kept().Length); // a day to live
        foreach (var path in Kept())
            File.SetLastWriteTimeUtc(path, DateTime.UtcNow.AddDays(-2));
        await studio.WaitUntilAsync(Instant.FromDateTimeOffset(At) + Duration.FromDays(2));
        await KeepAsync(studio);
        Assert.Single(Kept());
        owner = await studio.OwnerAsync();
        Assert.Equal("A plan of the wall.", await (await owner.AskAsync("/api/files/1")).Content.ReadAsStringAsync());
        Assert.True(project > 0);
    }

    [Fact]
    public async Task What_is_refused_takes_no_room_and_uploads_have_a_quota()
    {
        await using var studio = new SmallStudio();
        var visitor = new Visitor(studio);
        var token = Uri.EscapeDataString((await visitor.GetAsync("/forms/mural")).GetProperty("token").GetString()!);
        Task<HttpResponseMessage> SendAsync(string name, string text) =>
            visitor.SendAsync(HttpMethod.Post, $"/forms/mural/files?name={name}&token={token}", Bytes(text));
        for (var i = 0; i < 3; i++)
            Assert.Equal(400, (int)(await SendAsync("a.html", $"<html>{i}{new string(' ', 100_000)}")).StatusCode);
        Assert.False(
            Directory.Exists(Path.Combine(studio.Data, "files"))
                && Directory.GetFiles(Path.Combine(studio.Data, "files"), "*", SearchOption.AllDirectories).Length > 0
        );
        Assert.True((await SendAsync("a.txt", new string('a', 600_000))).IsSuccessStatusCode);
        var refused = await SendAsync("b.txt", new string('b', 600_000));
        Assert.Equal(400, (int)refused.StatusCode);
        Assert.Contains("before the form is sent", await refused.Content.ReadAsStringAsync());
        Assert.Equal(1, await studio.LookAsync(db => db.Uploads.CountAsync()));
    }

    private sealed class SmallStudio() : Studio(withProjects: false)
    {
        protected override void ConfigureWebHost(IWebHostBuilder builder)
        {
            base.ConfigureWebHost(builder);
            builder.UseSetting("Gesamt:UploadMegabytesPerAddress", "1");
        }
    }

    [Fact]
    public async Task Keys_of_writes_are_forgotten_in_time_and_what_was_refused_leaves_none()
    {
        await using var studio = new EmptyStudio();
        var owner = await studio.OwnerAsync();
        var before = await studio.LookAsync(db => db.Requests.CountAsync());
        for (var i = 0; i < 5; i++)
            Assert.Equal(404, (int)(await owner.PostAsync("/api/projects/999/notes", new { text = "x" })).StatusCode);
        Assert.False((await new Visitor(studio).PostAsync("/p/none/api/opened")).IsSuccessStatusCode);
        Assert.Equal(before, await studio.LookAsync(db => db.Requests.CountAsync()));
        Assert.True(
            (await owner.PostAsync("/api/slips", new { text = "Ring Ada", project = (long?)null })).IsSuccessStatusCode
        );
        Assert.Equal(before + 1, await studio.LookAsync(db => db.Requests.CountAsync()));
        await studio.WaitUntilAsync(Instant.FromDateTimeOffset(At) + Duration.FromDays(9));
        await KeepAsync(studio);
        Assert.Equal(0, await studio.LookAsync(db => db.Requests.CountAsync()));
    }

    [Theory]
    [InlineData("empty"), InlineData("another"), InlineData("gone")]
    public async Task A_key_of_client_links_that_is_not_the_one_is_said_and_forges_nothing(string damage)
    {
        using var folder = new Folder();
        var data = folder.Of("studio");
        string page;
        await using (var first = new OnFolder(data))
        {
            (_, page) = await first.ProposeAsync(await first.OwnerAsync(), new Visitor(first));
        }
        var path = Path.Combine(data, "keys", "links.key");
        if (damage == "gone")
            File.Delete(path);
        else
            File.WriteAllBytes(
                path,
                damage == "empty" ? [] : System.Security.Cryptography.RandomNumberGenerator.GetBytes(32)
            );
        await using var studio = new OnFolder(data);
        var owner = await studio.OwnerAsync();
        Assert.Contains("keys/links.key", Assert.Single(await TroublesAsync(owner)));
        // as anybody could compute it with an empty key
        var link = page.Split('/')[^1];
        var forged = System.Buffers.Text.Base64Url.EncodeToString(
            System.Security.Cryptography.HMACSHA256.HashData(Array.Empty<byte>(), Encoding.UTF8.GetBytes($"{link}:1"))
        );
        Assert.False((await new Visitor(studio).AskAsync($"{page}/enter/{forged}")).Headers.Contains("Set-Cookie"));
        foreach (var open in new[] { "/api/turns", "/api/projects/1", "/api/people" })
            Assert.True((await owner.AskAsync(open)).IsSuccessStatusCode);
    }

    [Theory]
    [InlineData(""), InlineData("<key"), InlineData("<key id=\"none\"/>")]
    public async Task A_damaged_protection_key_is_put_aside_and_said_and_every_page_answers(string damage)
    {
        using var folder = new Folder();
        var data = folder.Of("studio");
        await using (var first = new OnFolder(data))
            await first.OwnerAsync();
        File.WriteAllText(Directory.GetFiles(Path.Combine(data, "keys"), "*.xml").Single(), damage);
        await using var studio = new OnFolder(data);
        Assert.Contains("restore it from a backup", Assert.Single(await TroublesAsync(await studio.OwnerAsync())));
        Assert.True((await new Visitor(studio).AskAsync("/forms/mural")).IsSuccessStatusCode);
    }
}
