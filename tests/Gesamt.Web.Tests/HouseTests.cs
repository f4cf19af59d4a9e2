using System.Data.Common;
using System.Diagnostics;
using System.Net;
using Gesamt.Store;
using Gesamt.Web.Hosting;
using Microsoft.AspNetCore.Hosting;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore.Diagnostics;

namespace Gesamt.Web.Tests;

/// <summary>A full disk, a folder that cannot be written, a database that is locked: a sentence that says what to do, and nothing lost.</summary>
public sealed class HouseTests
{
    /// <summary>Makes every connection of a studio behave as on a broken disk, once it is told to.</summary>
    private sealed class Broken : DbConnectionInterceptor
    {
        public string? Pragma { get; set; }

        public override async Task ConnectionOpenedAsync(
            DbConnection connection,
            ConnectionEndEventData eventData,
            CancellationToken cancellationToken = default
        )
        {
            await using var command = connection.CreateCommand();
            // a pooled connection keeps what was said to it
            command.CommandText = Pragma ?? "PRAGMA max_page_count=1073741823; PRAGMA query_only=OFF";
            await command.ExecuteNonQueryAsync(cancellationToken);
        }
    }

    private sealed class BrokenStudio(Broken broken) : Studio(withProjects: false)
    {
        protected override void ConfigureWebHost(IWebHostBuilder builder)
        {
            base.ConfigureWebHost(builder);
            builder.ConfigureServices(services =>
                services.ConfigureDbContext<GesamtDb>(options => options.AddInterceptors(broken))
            );
        }
    }

    [Theory]
    [InlineData("PRAGMA max_page_count=1", "The disk is full"), InlineData("PRAGMA query_only=ON", "cannot be written")]
    public async Task The_owner_reads_what_to_do_and_everything_is_there_afterwards(string pragma, string said)
    {
        var broken = new Broken();
        await using var studio = new BrokenStudio(broken);
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio));
        var visitor = new Visitor(studio);
        await visitor.TokenAsync("/forms/mural");
        // no page of the file is free, and what is written needs several
        await studio.LookAsync((GesamtDb db) => db.Database.ExecuteSqlRawAsync("VACUUM"));
        broken.Pragma = pragma;
        var note = await owner.PostAsync($"/api/projects/{project}/notes", new { text = new string('字', 9_000) });
        Assert.Equal(HttpStatusCode.ServiceUnavailable, note.StatusCode);
        Assert.Contains(said, await note.Content.ReadAsStringAsync());
        Assert.Contains("Nothing was lost", await note.Content.ReadAsStringAsync());
        foreach (var page in new[] { "/api/today", $"/api/projects/{project}", "/api/turns" })
            Assert.True((await owner.AskAsync(page)).IsSuccessStatusCode, page);
        // a visitor without scripts gets a page that keeps what was typed
        using var form = new MultipartFormDataContent
        {
            { new StringContent(visitor.Token), "token" },
            { new StringContent(""), "website" },
        };
        foreach (
            var (key, value) in new Dictionary<string, string>(Studio.Answers)
            {
                ["wish"] = "A lantern, please. " + new string('字', 4_900),
            }
        )
            form.Add(new StringContent(value), $"f-{key}");
        var answer = await visitor.SendAsync(HttpMethod.Post, "/forms/mural/plain", form);
        Assert.Equal(
            ("text/html", HttpStatusCode.ServiceUnavailable),
            (answer.Content.Headers.ContentType!.MediaType, answer.StatusCode)
        );
        Assert.Contains("A lantern, please.", await answer.Content.ReadAsStringAsync());
        broken.Pragma = null;
        Assert.True(
            (
                await owner.PostAsync($"/api/projects/{project}/notes", new { text = new string('字', 9_000) })
            ).IsSuccessStatusCode
        );
        Assert.Equal(1, await studio.LookAsync(db => db.Projects.CountAsync()));
    }

    [Fact]
    public async Task A_full_disk_costs_no_number_and_no_line_of_the_bank()
    {
        var broken = new Broken();
        await using var studio = new BrokenStudio(broken);
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio));
        // more than the pages of the file have room for
        var bill = Bills.Of([
            .. Enumerable.Range(0, 60).Select(i => Bills.Line($"{i} {new string('w', 180)}", "1", "20", "23")),
        ]);
        var kept = await owner.KeepBillAsync(project, bill);
        var statement = await (
            await owner.AskAsync("/api/stand-in-bank/statement?form=Camt08")
        ).Content.ReadAsByteArrayAsync(TestContext.Current.CancellationToken);
        async Task<HttpStatusCode> IssueAsync() =>
            (
                await owner.PostAsync(
                    $"/api/projects/{project}/bill/issue",
                    new { edition = kept.GetProperty("edition").GetInt32() }
                )
            ).StatusCode;
        broken.Pragma = "PRAGMA max_page_count=1";
        Assert.Equal(HttpStatusCode.ServiceUnavailable, await IssueAsync());
        Assert.Equal(0, await studio.LookAsync(db => db.Invoices.CountAsync()));
        broken.Pragma = "PRAGMA query_only=ON";
        Assert.Equal(HttpStatusCode.ServiceUnavailable, (await TakeAsync()).StatusCode);
        broken.Pragma = null;
        Assert.Equal(HttpStatusCode.OK, await IssueAsync());
        Assert.Equal(["2027-001"], await studio.LookAsync(db => db.Invoices.Select(i => i.Number).ToListAsync()));
        Assert.Equal(HttpStatusCode.OK, (await TakeAsync()).StatusCode);
        Assert.Equal(2, await studio.LookAsync(db => db.BankLines.CountAsync()));

        Task<HttpResponseMessage> TakeAsync() =>
            owner.SendAsync(
                HttpMethod.Post,
                "/api/bank/statements?name=today.xml",
                new ByteArrayContent(statement) { Headers = { ContentType = new("application/octet-stream") } }
            );
    }

    [Fact]
    public async Task A_lock_is_answered_in_a_sentence_and_what_is_read_is_read()
    {
        await using var studio = new EmptyStudio();
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio));
        await using var other = new SqliteConnection(
            $"Data Source={Path.Combine(studio.Data, "gesamt.db")};Pooling=False"
        );
        await other.OpenAsync(TestContext.Current.CancellationToken);
        await using (var held = await other.BeginTransactionAsync(TestContext.Current.CancellationToken))
        {
            var watch = Stopwatch.StartNew();
            var answer = await owner.PostAsync($"/api/projects/{project}/notes", new { text = "while it is locked" });
            Assert.Equal(HttpStatusCode.ServiceUnavailable, answer.StatusCode);
            Assert.Contains("try again in a minute", await answer.Content.ReadAsStringAsync());
            Assert.True(watch.Elapsed < TimeSpan.FromSeconds(30), $"{watch.Elapsed}"); // it would be waited out for 45
            Assert.True((await owner.AskAsync("/api/today")).IsSuccessStatusCode);
        }
        Assert.True(
            (await owner.PostAsync($"/api/projects/{project}/notes", new { text = "afterwards" })).IsSuccessStatusCode
        );
    }

    // nobody waits for it, so nobody would be told that it fails: a start would only be slower
    [Fact]
    public void What_a_start_makes_ready_ahead_needs_no_file() => Assert.Null(Record.Exception(Sqlite.WarmUp));

    [Fact] // errno of Linux: ENOSPC 28, EROFS 30, EDQUOT 122
    public void What_a_disk_answers_is_told_apart()
    {
        Assert.Contains("disk is full", HouseTrouble.Of(new IOException("No space left on device", 28)));
        Assert.Contains(
            "disk is full",
            HouseTrouble.Of(new InvalidOperationException("x", new IOException("Disk quota exceeded", 122)))
        );
        Assert.Contains("cannot be written", HouseTrouble.Of(new IOException("Read-only file system", 30)));
        Assert.Contains("cannot be written", HouseTrouble.Of(new UnauthorizedAccessException()));
        Assert.Null(HouseTrouble.Of(new IOException("The client hung up")));
        Assert.Null(HouseTrouble.Of(new InvalidOperationException()));
    }
}
