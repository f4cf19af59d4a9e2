using System.Net;
using System.Reflection;
using System.Text;
using Gesamt.Core.Facts;
using Gesamt.Store;
using Gesamt.Store.Erasing;
using Gesamt.Store.Model;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore.Metadata;

namespace Gesamt.Web.Tests;

/// <summary>Somebody is erased: a word of its own is planted in every column of theirs that holds text, and afterwards in every file of the data folder it is looked for.</summary>
public sealed class ErasureTests : IAsyncDisposable
{
    private const string Word = "zwetschgenmus";

    // columns that hold no words of anybody: what finds rows, and what the program itself calls things
    private static readonly HashSet<string> NoWords =
    [
        "Access.PublicId",
        "Answers.Form",
        "BankLines.Account",
        "BankLines.Currency",
        "BankLines.Key",
        "Briefs.Part",
        "Checkouts.Session",
        "Costs.Category",
        "Costs.Currency",
        "Facts.Kind",
        "Facts.Payload",
        "Files.PublicId",
        "Files.Type",
        "Files.Phase",
        "Invoices.Currency",
        "Invoices.Number",
        "Invoices.PublicId",
        "Invoices.Series",
        "Invoices.Snapshot",
        "Letters.MessageId",
        "Letters.Step",
        "Letters.Template",
        "Links.PublicId",
        "ListEntries.Key",
        "Lists.PublicId",
        "Meetings.PublicId",
        "Meetings.Uid",
        "Meetings.Zone",
        "Notes.Pin",
        "Outbox.Key",
        "Outbox.MessageId",
        "Papers.Data",
        "Papers.Hash",
        "Payments.Currency",
        "PlannedSteps.Step",
        "Projects.Code",
        "Projects.FurtherKinds",
        "Projects.PageGroup",
        // kept where other projects have the same
        "Projects.Source",
        "Projects.Campaign",
        "Quotes.Currency",
        "Recurring.Bill",
        "RecurringCosts.Category",
        "RecurringCosts.Currency",
        "Refunds.Currency",
        "Refunds.Key",
        "Reviews.Files",
        "Reviews.Phase",
        "Reviews.PublicId",
        "Runs.Key",
        "Runs.Routine",
        "Signatures.Hash",
        "Tasks.MadeFrom",
        "Tasks.Phase",
        "Tasks.PublicId",
        "Versions.Hash",
    ];

    private readonly FullStudio studio = new();

    public ValueTask DisposeAsync() => studio.DisposeAsync();

    /// <summary>Somebody with all there is: a signed contract, paid invoices, letters.</summary>
    private async Task<(PersonId Person, List<ProjectId> Projects)> SomebodyAsync() =>
        await studio.LookAsync(
            async (GesamtDb db) =>
            {
                var person = await db
                    .People.Where(p =>
                        p.MergedInto == null
                        && db.Projects.Any(x => x.ClientId == p.Id)
                        && db.Projects.Where(x => x.ClientId == p.Id)
                            .All(x =>
                                x.Standing.FinishedAt != null
                                && x.Standing.OwedMinor == 0
                                && db.Invoices.Any(i => i.ProjectId == x.Id)
                                && db.Papers.Any(paper => paper.ProjectId == x.Id && paper.VersionId != null)
                                && db.Letters.Any(l => l.ProjectId == x.Id)
                            )
                    )
                    .OrderBy(p => p.Id)
                    .Select(p => p.Id)
                    .FirstAsync();
                return (person, await db.Projects.Where(x => x.ClientId == person).Select(x => x.Id).ToListAsync());
            }
        );

    /// <summary>Plants its own word in every column of text that belongs to projects and their client.</summary>
    /// <returns>What was planted, with how long it stays.</returns>
    private async Task<List<(string Word, Kept Kept)>> PlantAsync(PersonId person, List<ProjectId> projects)
    {
        var model = await studio.LookAsync((GesamtDb db) => Task.FromResult(db.Model));
        var ids = string.Join(", ", projects.Select(project => project.Value));
        List<(string, Kept)> planted = [];
        await using var open = new SqliteConnection(
            $"Data Source={Path.Combine(studio.Data, "gesamt.db")};Pooling=False"
        );
        await open.OpenAsync();
        foreach (var entity in model.GetEntityTypes().Where(entity => !entity.IsOwned()))
        {
            var table = entity.GetTableName()!;
            var rows =
                entity.ClrType == typeof(PersonRow) ? $"Id = {person.Value}" : Blanking.OfProjects(entity.ClrType, ids);
            if (rows is null)
                continue;
            // of what they have none, they get something of somebody else's
            if (entity.FindProperty("ProjectId") is not null && !Told.Contains(entity.ClrType))
                await RunAsync(
                    open,
                    $"""UPDATE "{table}" SET ProjectId = {projects[0].Value} WHERE NOT EXISTS (SELECT 1 FROM "{table}" WHERE {rows}) AND rowid = (SELECT max(rowid) FROM "{table}")"""
                );
            foreach (var column in entity.GetProperties().Where(p => p.ClrType == typeof(string)))
            {
                var mark =
                    column.PropertyInfo?.GetCustomAttribute<PersonalAttribute>()
                    ?? entity.ClrType.GetCustomAttribute<PersonalAttribute>();
                if (NoWords.Contains($"{table}.{column.GetColumnName()}") || IsDerived(column))
                    continue;
                var word = $"{Word}-{table}-{column.GetColumnName()}".ToLowerInvariant();
                var sql =
                    column.PropertyInfo!.IsDefined(typeof(HoldsJsonAttribute))
                        ? $"""UPDATE "{table}" SET "{column.GetColumnName()}" = '["{word}"]' WHERE {rows}"""
                    : column.PropertyInfo!.IsDefined(typeof(NamesFileAttribute)) ? "SELECT 1"
                    : $"""UPDATE "{table}" SET "{column.GetColumnName()}" = '{word} ' || rowid WHERE {rows}""";
                if (await RunAsync(open, sql) > 0)
                    planted.Add((word, mark?.Kept ?? Kept.Not));
            }
        }
        return planted;
    }

    // by what happened all else is told
    private static readonly HashSet<Type> Told =
    [
        typeof(FactRow),
        typeof(RunRow),
        typeof(PlannedStepRow),
        typeof(StayRow),
        typeof(InvoiceRow),
        typeof(VersionRow),
        typeof(LinkRow),
        typeof(ProjectPersonRow),
        typeof(RecurringRow),
        typeof(ErasureRow),
    ];

    private static async Task<int> RunAsync(SqliteConnection open, string sql)
    {
        await using var command = open.CreateCommand();
        command.CommandText = sql;
        return await command.ExecuteNonQueryAsync();
    }

    private static bool IsDerived(IProperty column) =>
        column.PropertyInfo is not { } property || property.IsDefined(typeof(DerivedAttribute));

    /// <summary>Which of some texts stand in any file of the data folder, whatever their case.</summary>
    /// <remarks>The log of a database is read before the database: what a checkpoint moves meanwhile is found there.</remarks>
    private List<string> Found(IReadOnlyCollection<string> words)
    {
        List<string> found = [];
        foreach (
            var path in Directory
                .GetFiles(studio.Data, "*", SearchOption.AllDirectories)
                .Where(path => !path.EndsWith(".lock", StringComparison.Ordinal))
                .OrderBy(path => path.EndsWith(".db", StringComparison.Ordinal))
        )
        {
            var text = Encoding.Latin1.GetString(Bytes(path)).ToLowerInvariant();
            found.AddRange(
                words
                    .Where(word => text.Contains(word, StringComparison.Ordinal))
                    .Select(word => $"{word} in {Path.GetRelativePath(studio.Data, path)}")
            );
        }
        return found;
    }

    /// <summary>Nothing of a file that is gone by now, as the log of a database is once its last reader leaves.</summary>
    private static byte[] Bytes(string path)
    {
        try
        {
            using var file = new FileStream(
                path,
                FileMode.Open,
                FileAccess.Read,
                FileShare.ReadWrite | FileShare.Delete
            );
            using var bytes = new MemoryStream();
            file.CopyTo(bytes);
            return bytes.ToArray();
        }
        catch (FileNotFoundException)
        {
            return [];
        }
    }

    [Fact]
    public async Task Who_is_erased_stands_in_no_file_but_for_what_the_law_keeps_and_later_not_in_that()
    {
        var owner = await studio.OwnerAsync();
        var (person, projects) = await SomebodyAsync();
        var known = await studio.LookAsync(
            async (GesamtDb db) =>
            {
                var row = await db.People.SingleAsync(p => p.Id == person);
                return new[] { row.Name, row.Mail! };
            }
        );
        // an archive that is kept goes too
        Directory.CreateDirectory(Path.Combine(studio.Data, "archives"));
        await File.WriteAllTextAsync(
            Path.Combine(studio.Data, "archives", "gesamt-archive-20270101-000000.zip"),
            known[0]
        );
        var page = await studio.LookAsync(
            (GesamtDb db) =>
                db.Links.Where(l => l.ProjectId == projects[0]).Select(l => l.PublicId).FirstOrDefaultAsync()
        );
        var facts = await FactsAsync(projects);
        var planted = await PlantAsync(person, projects);
        Assert.True(planted.Count > 60, $"{planted.Count} columns were planted.");
        Assert.Equal(
            planted.Count,
            Found([.. planted.Select(one => one.Word)]).Select(f => f.Split(' ')[0]).Distinct().Count()
        );

        // what is still going on is to be ended first
        Assert.Contains(
            "comes again",
            await (await owner.PostAsync($"/api/people/{person.Value}/erase", new { })).Content.ReadAsStringAsync()
        );
        await studio.LookAsync(
            async (GesamtDb db) =>
                await db.Clocks.Where(c => projects.Contains(c.ProjectId)).ExecuteDeleteAsync()
                + await db
                    .RecurringCosts.Where(c => projects.Contains(c.ProjectId!.Value))
                    .ExecuteUpdateAsync(set => set.SetProperty(c => c.Next, (LocalDate?)null))
        );
        var erased = await owner.PostAsync($"/api/people/{person.Value}/erase", new { });
        Assert.True(erased.IsSuccessStatusCode, await erased.Content.ReadAsStringAsync());

        var left = Found([.. planted.Where(one => one.Kept == Kept.Not).Select(one => one.Word)]);
        Assert.True(left.Count == 0, string.Join("\n", left));
        // what the law keeps is there
        Assert.NotEmpty(Found([.. planted.Where(one => one.Kept == Kept.AsAgreement).Select(one => one.Word)]));
        Assert.NotEmpty(Found([.. planted.Where(one => one.Kept == Kept.AsBooks).Select(one => one.Word)]));
        Assert.Equal(facts, await FactsAsync(projects));
        if (page is not null)
            Assert.NotNull(
                await studio.LookAsync(
                    (GesamtDb db) => db.Links.Where(l => l.PublicId == page).Select(l => l.EndedAt).SingleAsync()
                )
            );
        Assert.Equal(HttpStatusCode.NotFound, (await owner.AskAsync($"/api/people/{person.Value}")).StatusCode);
        await LooksAsync(owner, projects);

        // as long as it is kept it cannot go, and once its years are over it is offered
        var kept = (await owner.GetAsync("/api/erased")).GetProperty("kept").EnumerateArray().ToList();
        Assert.Equal(
            projects.Select(p => p.Value).Order(),
            kept.Select(k => k.GetProperty("project").GetInt64()).Order()
        );
        Assert.All(kept, k => Assert.False(k.GetProperty("over").GetBoolean()));
        // nothing more is said of them by hand
        Assert.Equal(
            HttpStatusCode.Conflict,
            (
                await owner.PostAsync(
                    $"/api/projects/{projects[0].Value}/happened",
                    new { sort = "Call", words = "She rang once more." }
                )
            ).StatusCode
        );
        // nor are letters brought back out of an old mailbox
        using var message = new ByteArrayContent(
            "From: somebody@elsewhere.example\r\nSubject: late\r\nDate: Mon, 25 Jan 2027 09:00:00 +0000\r\nMessage-ID: <late@elsewhere.example>\r\n\r\nlate\r\n"u8.ToArray()
        );
        message.Headers.ContentType = new("application/octet-stream");
        Assert.Equal(
            HttpStatusCode.Conflict,
            (
                await owner.SendAsync(HttpMethod.Post, $"/api/projects/{projects[0].Value}/letters/take-over", message)
            ).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await owner.PostAsync($"/api/erased/{projects[0].Value}/papers", new { })).StatusCode
        );
        Assert.True(
            (
                await owner.SendAsync(
                    HttpMethod.Put,
                    "/api/erased/years",
                    System.Net.Http.Json.JsonContent.Create(new { bookYears = 0, agreementYears = 0 })
                )
            ).IsSuccessStatusCode
        );
        await studio.WaitUntilAsync(Instant.FromUtc(2028, 1, 3, 9, 0));
        owner = await studio.OwnerAsync();
        Assert.Contains("erase them on the page of the studio", (await owner.GetAsync("/api/today")).ToString());
        foreach (var k in (await owner.GetAsync("/api/erased")).GetProperty("kept").EnumerateArray())
        {
            Assert.True(k.GetProperty("over").GetBoolean(), k.ToString());
            var gone = await owner.PostAsync($"/api/erased/{k.GetProperty("project").GetInt64()}/papers", new { });
            Assert.True(gone.IsSuccessStatusCode, await gone.Content.ReadAsStringAsync());
        }
        left = Found([.. planted.Select(one => one.Word), .. known.Select(text => text.ToLowerInvariant())]);
        Assert.True(left.Count == 0, string.Join("\n", left));
        Assert.Empty((await owner.GetAsync("/api/erased")).GetProperty("kept").EnumerateArray());
        Assert.Equal(facts, await FactsAsync(projects));
        await LooksAsync(owner, projects);
    }

    [Fact]
    public async Task A_table_that_brought_them_is_emptied_and_can_still_be_taken_back()
    {
        var owner = await studio.OwnerAsync();
        var (person, projects) = await SomebodyAsync();
        var import = await studio.LookAsync(
            async (Hosting.Desk desk) =>
            {
                using var table = new MemoryStream(
                    Encoding.UTF8.GetBytes($"name,mail\n{Word}-table,t@lanternhouse.example\n")
                );
                var (hash, _) = await desk.Vault.KeepAsync(table, table.Length, CancellationToken.None);
                var row = new ImportRow
                {
                    Name = "table.csv",
                    Hash = hash,
                    State = ImportState.Done,
                };
                desk.Db.Imports.Add(row);
                await desk.Db.SaveChangesAsync();
                desk.Db.Imported.AddRange(
                    projects.Select(project => new ImportedRow
                    {
                        ImportId = row.Id,
                        ProjectId = project,
                        PersonId = person,
                        NewPerson = true,
                    })
                );
                await desk.Db.SaveChangesAsync();
                return row.Id;
            }
        );
        Assert.NotEmpty(Found([$"{Word}-table"]));
        Assert.True((await owner.PostAsync($"/api/people/{person.Value}/erase", new { })).IsSuccessStatusCode);
        Assert.Empty(Found([$"{Word}-table"]));
        var undone = await owner.PostAsync($"/api/imports/{import}/undo", new { });
        Assert.True(undone.IsSuccessStatusCode, await undone.Content.ReadAsStringAsync());
        // what happened stays, as it was asked
        await LooksAsync(owner, projects);
    }

    /// <summary>Every view opens, with an erased project in it.</summary>
    private static async Task LooksAsync(Visitor owner, List<ProjectId> projects)
    {
        foreach (
            var address in projects
                .SelectMany(p =>
                    new[]
                    {
                        $"/api/projects/{p.Value}",
                        $"/api/projects/{p.Value}/history.pdf",
                        $"/api/projects/{p.Value}/everything.zip",
                    }
                )
                .Concat([
                    "/api/today",
                    "/api/turns",
                    "/api/register",
                    "/api/people",
                    "/api/invoices",
                    "/api/money?year=all",
                    "/api/reports?year=all&by=Service",
                    "/api/came-in",
                    "/api/season",
                    "/api/search?words=erased",
                ])
        )
        {
            var answer = await owner.AskAsync(address);
            Assert.True(
                answer.IsSuccessStatusCode,
                $"{address}: {answer.StatusCode} {await answer.Content.ReadAsStringAsync()}"
            );
        }
    }

    /// <summary>What happened, when and by whom: all that a fact is but for names.</summary>
    private Task<List<string>> FactsAsync(List<ProjectId> projects) =>
        studio.LookAsync(
            async (GesamtDb db) =>
                (await db.Facts.Where(f => projects.Contains(f.ProjectId)).OrderBy(f => f.Id).ToListAsync()).ConvertAll(
                    f => $"{f.Id.Value} {f.Happened} {f.By} {f.Kind}"
                )
        );

    [Fact]
    public void Every_column_of_text_of_a_project_says_whether_it_is_personal()
    {
        using var db = new GesamtDb(
            new Microsoft.EntityFrameworkCore.DbContextOptionsBuilder<GesamtDb>()
                .UseSqlite("Data Source=:memory:")
                .Options
        );
        var untold = db
            .Model.GetEntityTypes()
            .Where(entity =>
                !entity.IsOwned()
                && (entity.ClrType == typeof(PersonRow) || Blanking.OfProjects(entity.ClrType, "0") is not null)
                && !entity.ClrType.IsDefined(typeof(PersonalAttribute))
            )
            .SelectMany(entity =>
                entity
                    .GetProperties()
                    .Where(p =>
                        (p.ClrType == typeof(string) || p.ClrType == typeof(byte[]))
                        && p.PropertyInfo is { } property
                        && !property.IsDefined(typeof(PersonalAttribute))
                        && !IsDerived(p)
                    )
                    .Select(p => $"{entity.GetTableName()}.{p.GetColumnName()}")
            )
            .Where(column => !NoWords.Contains(column) && column != "Versions.Canonical");
        Assert.Empty(untold);
    }
}
