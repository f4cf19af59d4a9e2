using System.IO.Compression;
using System.Text;
using System.Text.Json.Nodes;
using Gesamt.Store;
using Gesamt.Store.Archives;
using Gesamt.Web.Archives;
using Gesamt.Web.Hosting;
using Gesamt.Web.SettingUp;
using Gesamt.Web.SignIn;

namespace Gesamt.Web.Tests;

/// <summary>Everything in one file of open formats, and back.</summary>
public sealed class ArchiveTests
{
    private const string Password = "harbour light";

    [Fact]
    public async Task An_archive_put_into_an_empty_studio_gives_the_same_archive_again_and_the_same_standings()
    {
        using var folder = new Folder();
        await using var studio = new FullStudio();
        var first = await MadeAsync(studio, folder.Of("first.zip"));
        Assert.Empty(first.LeftBehind);
        var standings = await StandingsAsync(studio);
        await using var again = await TakenInAsync(folder, folder.Of("first.zip"));
        var owner = await again.OwnerAsync();
        Assert.Equal(standings, await StandingsAsync(again));
        var second = await MadeAsync(again, folder.Of("second.zip"));
        Assert.Equal(first.Entries, second.Entries);
        Assert.True(first.Entries.Count > 300, $"{first.Entries.Count} entries");
        Assert.Empty(
            (await owner.GetAsync("/api/today")).GetProperty("ready").GetProperty("troubles").EnumerateArray()
        );
    }

    [Fact] // as a folder is that was brought back and never started
    public async Task What_is_derived_is_computed_before_it_stands_in_an_archive()
    {
        using var folder = new Folder();
        await using var studio = await TakenInAsync(folder, Path.Combine(Kept, "version-2.zip"));
        var first = await MadeAsync(studio, folder.Of("first.zip"));
        var dates = await studio.LookAsync(
            async (GesamtDb db) =>
            {
                await Sqlite.MarkStaleAsync(db, edition: 1);
                return await db
                    .Projects.Where(p => p.Standing.MainDate != null)
                    .ExecuteUpdateAsync(set => set.SetProperty(p => p.Standing.MainDate, (LocalDate?)null));
            }
        );
        Assert.NotEqual(0, dates);
        Assert.Equal(first.Entries, (await MadeAsync(studio, folder.Of("second.zip"))).Entries);
    }

    [Fact] // GESAMT_WRITE=1 writes it anew: whoever changes a row raises the version of the format where an older Gesamt would misread it
    public void The_schema_beside_the_description_is_that_of_the_rows()
    {
        var file = Path.Combine(Studio.Root, "docs", "archive.schema.json");
        if (Environment.GetEnvironmentVariable("GESAMT_WRITE") is not null)
            File.WriteAllText(file, ArchiveSchema.Text());
        Assert.Equal(ArchiveSchema.Text(), File.ReadAllText(file));
    }

    [Fact] // with Python's own readers, jsonschema, icalendar and vobject
    public async Task Somebody_elses_program_reads_all_of_it_by_its_description()
    {
        using var folder = new Folder();
        await using var studio = new FullStudio();
        var list = await MadeAsync(studio, folder.Of("archive.zip"));
        var (code, said) = PdfTools.Run(
            "/usr/bin/python3",
            await File.ReadAllBytesAsync(folder.Of("archive.zip"), TestContext.Current.CancellationToken),
            Path.Combine(Studio.Root, "tests", "Gesamt.Web.Tests", "Tools", "read_archive.py"),
            "FILE"
        );
        Assert.True(code == 0, said);
        var found = said.Split('\n', StringSplitOptions.RemoveEmptyEntries);
        async Task IsToldAsync(string what, Func<GesamtDb, Task<int>> count) =>
            Assert.Contains($"{what} {await studio.LookAsync(count)}", found);
        Assert.Contains($"entries {list.Entries.Count}", found);
        await IsToldAsync("facts", db => db.Facts.CountAsync());
        await IsToldAsync("table people", db => db.People.CountAsync());
        await IsToldAsync("table letters", db => db.Letters.CountAsync());
        await IsToldAsync("cards", db => db.People.CountAsync(p => p.MergedInto == null && p.RemovedAt == null));
        await IsToldAsync(
            "papers",
            async db => await db.Papers.CountAsync() + await db.Papers.CountAsync(p => p.Data != null)
        );
        await IsToldAsync(
            "events",
            async db =>
                await db.Meetings.CountAsync()
                + await db.Appointments.CountAsync(a => !a.Removed)
                + await db.Projects.CountAsync(p => p.Standing.MainDate != null)
                + await db.Projects.SumAsync(p =>
                    db.Tasks.Count(t => t.ProjectId == p.Id && t.Due != null && t.DoneAt == null && !t.Removed)
                )
        );
        // every version, by the hash that was signed
        Assert.Equal(
            await studio.LookAsync((GesamtDb db) => db.Versions.CountAsync()),
            found.Count(line => line.StartsWith("sealed ", StringComparison.Ordinal))
        );
    }

    private static readonly string Kept = Path.Combine(Studio.Root, "tests", "Gesamt.Web.Tests", "Archives");

    /// <summary>An archive of each version of the format, written by the release that had it.</summary>
    public static TheoryData<string> Versions => [.. Directory.GetFiles(Kept).Select(file => Path.GetFileName(file))];

    [Theory]
    [MemberData(nameof(Versions))]
    public async Task An_archive_of_every_version_is_taken_in(string name)
    {
        using var folder = new Folder();
        await using var studio = await TakenInAsync(folder, Path.Combine(Kept, name));
        var owner = await studio.OwnerAsync();
        var project = await studio.LookAsync((GesamtDb db) => db.Projects.Select(p => p.Id).SingleAsync());
        var record = await owner.GetAsync($"/api/projects/{project.Value}");
        Assert.DoesNotContain("cannot be told", record.GetRawText());
        Assert.Contains("Signed", record.GetRawText());
        foreach (
            var paper in record
                .GetProperty("sheet")
                .GetProperty("papers")
                .EnumerateArray()
                .Select(one => one.GetProperty("file").GetString())
                .OfType<string>()
        )
            Assert.True((await owner.AskAsync(paper)).IsSuccessStatusCode, paper);
    }

    [Fact] // a new version of the format leaves one of its own behind: GESAMT_WRITE=1 writes it where there is none
    public async Task There_is_an_archive_of_the_version_that_is_written_now()
    {
        var file = Path.Combine(Kept, $"version-{ArchiveFile.Version}.zip");
        if (Environment.GetEnvironmentVariable("GESAMT_WRITE") is not null && !File.Exists(file))
        {
            await using var studio = new EmptyStudio();
            await studio.SignedByAllAsync("mona@lanternhouse.example");
            await MadeAsync(studio, file);
        }
        Assert.True(File.Exists(file), file);
    }

    [Fact]
    public async Task What_opens_the_house_is_in_no_archive()
    {
        using var folder = new Folder();
        await using var studio = new FullStudio();
        var owner = await studio.OwnerAsync();
        Assert.True(
            (
                await owner.PostAsync(
                    "/api/keys",
                    new
                    {
                        name = "Table program",
                        mayRead = true,
                        mayInquire = false,
                    }
                )
            ).IsSuccessStatusCode
        );
        var list = await MadeAsync(studio, folder.Of("archive.zip"));
        Assert.DoesNotContain(list.Entries, entry => entry.Name == TakingIn.LinksKey);
        var secrets = await studio.LookAsync(
            async (GesamtDb db) =>
            {
                var row = await db.Studio.SingleAsync();
                List<string?> all = [row.PasswordHash, row.SecurityStamp, row.FeedKey, row.CodeSecret];
                all.AddRange(await db.Sessions.Select(s => s.Name).ToListAsync());
                all.AddRange(await db.ApiKeys.Select(k => k.Hash).ToListAsync());
                all.AddRange(await db.Hooks.Select(h => h.Secret).ToListAsync());
                all.AddRange(await db.MailAccounts.Select(m => m.SmtpPassword).ToListAsync());
                return all.Where(one => one is { Length: > 0 }).Cast<string>().ToList();
            }
        );
        Assert.True(secrets.Count >= 4, $"{secrets.Count} secrets");
        using (
            var reader = await ArchiveReader.OpenAsync(folder.Of("archive.zip"), TestContext.Current.CancellationToken)
        )
            foreach (var entry in list.Entries)
            {
                using var text = new StreamReader(reader.Open(entry.Name));
                var all = await text.ReadToEndAsync(TestContext.Current.CancellationToken);
                Assert.DoesNotContain(secrets, secret => all.Contains(secret, StringComparison.Ordinal));
            }
        var withLinks = await MadeAsync(studio, folder.Of("with links.zip"), withLinks: true);
        Assert.Equal(
            Convert.ToHexStringLower(
                System.Security.Cryptography.SHA256.HashData(
                    await File.ReadAllBytesAsync(
                        Path.Combine(studio.Data, "keys", "links.key"),
                        TestContext.Current.CancellationToken
                    )
                )
            ),
            withLinks.Entries.Single(entry => entry.Name == TakingIn.LinksKey).Sha256
        );
    }

    /// <summary>What can be wrong with an archive, and what is said of it.</summary>
    public static TheoryData<string, string> Wrongs =>
        new()
        {
            { "half", "only a part of one" },
            { "nothing", "no archive, or only a part" },
            { "a ZIP of something else", "it holds no archive.json" },
            { "a list of something else", "its list is another kind of file" },
            { "a list that cannot be read", "its list archive.json cannot be read" },
            { "newer", "made by a newer Gesamt: its format is 3" },
            { "an entry changed", "tables/people.json is not what was kept" },
            { "an entry gone", "tables/people.json is missing" },
            { "an entry more", "surprise.txt does not stand in its list" },
            { "no studio", "no studio" },
            { "a column that nobody knows", "tables/people.json, row 1" },
            { "a row twice", "tables/people.json" },
            { "a row that names what is not there", "People that is not there" },
            { "a file that is not there", "that a row names is missing" },
        };

    [Theory]
    [MemberData(nameof(Wrongs))]
    public async Task An_archive_that_is_not_sound_is_refused_in_a_sentence_and_leaves_nothing_behind(
        string wrong,
        string said
    )
    {
        using var folder = new Folder();
        var (archive, data) = (folder.Of("archive.zip"), folder.Of("data"));
        File.Copy(await Small.Value, archive);
        Spoil(archive, wrong);
        var refused = await Assert.ThrowsAsync<InvalidDataException>(() =>
            FirstStart.TakeInAsync(
                new() { Data = data },
                SignInEndpoints.NewHasher(),
                archive,
                Password,
                TestContext.Current.CancellationToken
            )
        );
        Assert.Contains(said, refused.Message);
        Assert.Equal([archive], Directory.GetFileSystemEntries(folder.Path));
    }

    [Fact]
    public async Task A_studio_that_is_not_empty_takes_no_archive_in()
    {
        using var folder = new Folder();
        Directory.CreateDirectory(folder.Of("data"));
        await File.WriteAllTextAsync(folder.Of("data/note.txt"), "mine", TestContext.Current.CancellationToken);
        var archive = await Small.Value;
        var refused = await Assert.ThrowsAsync<IOException>(() =>
            FirstStart.TakeInAsync(new() { Data = folder.Of("data") }, SignInEndpoints.NewHasher(), archive, Password)
        );
        Assert.Contains("not empty", refused.Message);
        Assert.Equal(
            "mine",
            await File.ReadAllTextAsync(folder.Of("data/note.txt"), TestContext.Current.CancellationToken)
        );
    }

    /// <summary>The archive of a studio with one project, a file and a receipt; made once.</summary>
    private static readonly Lazy<Task<string>> Small = new(async () =>
    {
        var file = Path.Combine(Path.GetTempPath(), $"gesamt-small-{Guid.NewGuid():n}.zip");
        AppDomain.CurrentDomain.ProcessExit += (_, _) => File.Delete(file);
        await using var studio = new EmptyStudio();
        await studio.InquireAsync(new Visitor(studio));
        await studio.LookAsync(
            async (Desk desk) =>
            {
                using var content = new MemoryStream("a receipt"u8.ToArray());
                var (hash, _) = await desk.Vault.KeepAsync(content, 1_000, CancellationToken.None);
                desk.Db.Costs.Add(
                    new()
                    {
                        On = new(2027, 1, 4),
                        Payee = "Paper house",
                        What = "Paper",
                        GrossMinor = 1_230,
                        Currency = "EUR",
                        ReceiptHash = hash,
                        ReceiptName = "paper.txt",
                        ReceiptType = "text/plain",
                    }
                );
                await desk.Db.SaveChangesAsync();
                return true;
            }
        );
        await MadeAsync(studio, file);
        return file;
    });

    private static void Spoil(string archive, string wrong)
    {
        if (wrong is "half" or "nothing")
        {
            var bytes = File.ReadAllBytes(archive);
            File.WriteAllBytes(archive, wrong == "half" ? bytes[..(bytes.Length / 2)] : []);
            return;
        }
        var entries = Entries(archive);
        var people = JsonNode.Parse(entries["tables/people.json"])!.AsArray();
        switch (wrong)
        {
            case "a ZIP of something else":
                entries.Remove("archive.json");
                break;
            case "a list of something else":
                entries["archive.json"] = """{"format": "photographs"}"""u8.ToArray();
                break;
            case "a list that cannot be read":
                entries["archive.json"] = entries["archive.json"][..40];
                break;
            case "newer":
                var list = JsonNode.Parse(entries["archive.json"])!;
                list["version"] = ArchiveFile.Version + 1;
                list["entries"] = "told otherwise";
                entries["archive.json"] = Encoding.UTF8.GetBytes(list.ToJsonString());
                break;
            case "an entry changed":
                entries["tables/people.json"][^4] ^= 1;
                break;
            case "an entry gone":
                entries.Remove("tables/people.json");
                break;
            case "an entry more":
                entries["surprise.txt"] = [1];
                break;
            case "no studio":
                entries["tables/studio.json"] = "[]"u8.ToArray();
                List(entries);
                break;
            case "a column that nobody knows":
                people[0]!["shoeSize"] = 44;
                People();
                break;
            case "a row twice":
                people.Add(people[0]!.DeepClone());
                People();
                break;
            case "a row that names what is not there":
                people.Clear();
                People();
                break;
            case "a file that is not there":
                entries.Remove("files/costs/paper.txt");
                List(entries);
                break;
            default:
                throw new ArgumentException(wrong);
        }
        File.Delete(archive);
        using var zip = ZipFile.Open(archive, ZipArchiveMode.Create);
        foreach (var (name, bytes) in entries)
        {
            using var to = zip.CreateEntry(name).Open();
            to.Write(bytes);
        }

        void People()
        {
            entries["tables/people.json"] = Encoding.UTF8.GetBytes(people.ToJsonString());
            List(entries);
        }
    }

    internal static SortedDictionary<string, byte[]> Entries(string archive)
    {
        using var zip = ZipFile.OpenRead(archive);
        var entries = new SortedDictionary<string, byte[]>(StringComparer.Ordinal);
        foreach (var entry in zip.Entries)
        {
            using var bytes = new MemoryStream();
            using var content = entry.Open();
            content.CopyTo(bytes);
            entries.Add(entry.FullName, bytes.ToArray());
        }
        return entries;
    }

    /// <summary>Writes the list anew, as somebody would who changed something on purpose.</summary>
    private static void List(SortedDictionary<string, byte[]> entries)
    {
        var list = JsonNode.Parse(entries["archive.json"])!;
        list["entries"] = new JsonArray([
            .. entries
                .Where(entry => entry.Key != "archive.json")
                .Select(entry =>
                    (JsonNode)
                        new JsonObject
                        {
                            ["name"] = entry.Key,
                            ["bytes"] = entry.Value.Length,
                            ["sha256"] = Convert.ToHexStringLower(
                                System.Security.Cryptography.SHA256.HashData(entry.Value)
                            ),
                        }
                ),
        ]);
        entries["archive.json"] = Encoding.UTF8.GetBytes(list.ToJsonString());
    }

    internal static async Task<ArchiveList> MadeAsync(Studio studio, string file, bool withLinks = false)
    {
        await studio
            .Services.GetRequiredService<Archiving>()
            .WriteAsync(file, withLinks, _ => { }, TestContext.Current.CancellationToken);
        using var reader = await ArchiveReader.OpenAsync(file, TestContext.Current.CancellationToken);
        return reader.List;
    }

    /// <summary>A studio on a folder of its own that took an archive in.</summary>
    internal static async Task<OnFolder> TakenInAsync(Folder folder, string archive, Instant? at = null)
    {
        var data = folder.Of($"taken in {Guid.NewGuid():n}");
        await FirstStart.TakeInAsync(
            new() { Data = data },
            SignInEndpoints.NewHasher(),
            archive,
            Password,
            TestContext.Current.CancellationToken
        );
        return new(data, at);
    }

    /// <summary>All that is derived, in one text.</summary>
    internal static async Task<string> StandingsAsync(Studio studio)
    {
        var text = new StringBuilder();
        foreach (
            var sql in new[]
            {
                // a rehearsal's is computed anew only when it is opened
                "SELECT * FROM Projects WHERE NOT Rehearsal ORDER BY Id",
                "SELECT ProjectId, Gate, BeganAt, Since, Days, Left FROM Stays ORDER BY ProjectId, Gate",
                "SELECT ProjectId, RunId, Step, Occurrence, State, Due, Since FROM PlannedSteps ORDER BY RunId, Step, Occurrence",
                "SELECT * FROM Invoices ORDER BY Id",
                "SELECT * FROM Runs ORDER BY Id",
                "SELECT * FROM People ORDER BY Id",
            }
        )
            await studio.LookAsync(
                async (GesamtDb db) =>
                {
                    await using var command = db.Database.GetDbConnection().CreateCommand();
                    await db.Database.OpenConnectionAsync();
                    command.CommandText = sql;
                    await using var reader = await command.ExecuteReaderAsync();
                    while (await reader.ReadAsync())
                        text.AppendJoin(
                                '|',
                                Enumerable
                                    .Range(0, reader.FieldCount)
                                    .Select(at => $"{reader.GetName(at)}={reader.GetValue(at)}")
                            )
                            .Append('\n');
                    return true;
                }
            );
        return text.ToString();
    }
}
