using System.Net;
using System.Text;
using System.Text.Json;
using Gesamt.Core.Facts;
using Gesamt.Core.Stages;
using Gesamt.Store.Backups;
using Gesamt.Store.Model;
using Gesamt.Web.Demo;

namespace Gesamt.Web.Tests;

/// <summary>From booking to put away: files, rounds, dates, money, as the server does them.</summary>
public sealed class DeliveryTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    private static readonly byte[] Picture = DemoPictures.Draw("test.png");

    private static ByteArrayContent Bytes(byte[] bytes) =>
        new(bytes) { Headers = { ContentType = new("application/octet-stream") } };

    private static async Task<long> KeepAsync(
        Visitor owner,
        long project,
        string group,
        string name = "sketch.png",
        byte[]? bytes = null
    )
    {
        var answer = await owner.SendAsync(
            HttpMethod.Post,
            $"/api/projects/{project}/files?name={name}&group={group}",
            Bytes(bytes ?? Picture)
        );
        Assert.True(answer.IsSuccessStatusCode, await answer.Content.ReadAsStringAsync());
        return JsonDocument.Parse(await answer.Content.ReadAsStringAsync()).RootElement.GetProperty("id").GetInt64();
    }

    private static async Task DoAsync(Visitor owner, long project, string what, object body)
    {
        var answer = await owner.PostAsync($"/api/projects/{project}/{what}", body);
        Assert.True(answer.IsSuccessStatusCode, $"{what}: {await answer.Content.ReadAsStringAsync()}");
    }

    /// <summary>A project that is booked without a client page: price by phone, signed on paper, paid by transfer.</summary>
    private static async Task<long> BookedAsync(Studio studio, Visitor owner, string mail, string price = "1000")
    {
        var project = await studio.InquireAsync(new Visitor(studio), mail);
        await DoAsync(owner, project, "happened", new { sort = "Fit" });
        await DoAsync(
            owner,
            project,
            "happened",
            new
            {
                sort = "PriceAgreed",
                amount = price,
                tax = "23",
                onBooking = "40",
            }
        );
        var scan = await KeepAsync(
            owner,
            project,
            "Supplied",
            "contract.pdf",
            Encoding.ASCII.GetBytes("%PDF-1.4 signed")
        );
        await DoAsync(owner, project, "happened", new { sort = "SignedOnPaper", file = scan });
        var open = (await owner.GetAsync($"/api/projects/{project}"))
            .GetProperty("sheet")
            .GetProperty("toPay")
            .GetProperty("invoices")[0];
        await DoAsync(
            owner,
            project,
            "happened",
            new
            {
                sort = "Paid",
                amount = open.GetProperty("owed").GetString(),
                means = "Transfer",
                invoice = open.GetProperty("id").GetInt64(),
            }
        );
        return project;
    }

    private Task<StandingColumns> StandingAsync(long project) => StandingAsync(studio, project);

    private static Task<StandingColumns> StandingAsync(Studio studio, long project) =>
        studio.LookAsync(db =>
            db.Projects.AsNoTracking().Where(p => p.Id == new ProjectId(project)).Select(p => p.Standing).SingleAsync()
        );

    [Fact]
    public async Task A_project_is_booked_by_phone_paper_and_transfer_and_its_gates_say_so()
    {
        var project = await BookedAsync(studio, await studio.OwnerAsync(), "phone@lanternhouse.example");
        var standing = await StandingAsync(project);
        Assert.Equal(
            (Stage.Delivery, 123_000L, 100_000L, 49_200L),
            (standing.Stage, standing.AgreedMinor, standing.NetMinor, standing.PaidMinor)
        );
        Assert.NotNull(standing.BookedAt);
        var contract = await studio.LookAsync(db =>
            db.Versions.AsNoTracking()
                .SingleAsync(v => v.ProjectId == new ProjectId(project) && v.Sort == PaperSort.Contract)
        );
        var scan = await studio.LookAsync(db =>
            db.Files.AsNoTracking().Where(f => f.ProjectId == new ProjectId(project)).Select(f => f.Hash).SingleAsync()
        );
        Assert.Contains(scan, Encoding.UTF8.GetString(contract.Canonical)); // the snapshot names the attachment by its SHA-256
    }

    [Fact]
    public async Task A_payment_comes_in_parts_and_never_more_than_is_owed()
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), "parts@lanternhouse.example");
        await DoAsync(
            owner,
            project,
            "happened",
            new
            {
                sort = "PriceAgreed",
                amount = "1000",
                tax = "23",
                onBooking = "40",
            }
        );
        await DoAsync(
            owner,
            project,
            "happened",
            new
            {
                sort = "SignedOnPaper",
                file = await KeepAsync(owner, project, "Supplied", "c.pdf", "%PDF-1.4"u8.ToArray()),
            }
        );
        var invoice = (await owner.GetAsync($"/api/projects/{project}"))
            .GetProperty("sheet")
            .GetProperty("toPay")
            .GetProperty("invoices")[0]
            .GetProperty("id")
            .GetInt64();
        var most = await owner.PostAsync(
            $"/api/projects/{project}/happened",
            new
            {
                sort = "Paid",
                amount = "492.01",
                means = "Cheque",
                invoice,
            }
        );
        Assert.Contains("At most", await most.Content.ReadAsStringAsync());
        await DoAsync(
            owner,
            project,
            "happened",
            new
            {
                sort = "Paid",
                amount = "192",
                means = "Cash",
                invoice,
            }
        );
        Assert.Equal(
            (Stage.Payment, 30_000L),
            ((await StandingAsync(project)).Stage, (await StandingAsync(project)).OwedMinor)
        );
        await DoAsync(
            owner,
            project,
            "happened",
            new
            {
                sort = "Paid",
                amount = "300",
                means = "Cheque",
                invoice,
            }
        );
        Assert.Equal(Stage.Delivery, (await StandingAsync(project)).Stage);
    }

    [Fact]
    public async Task Ending_an_unbooked_project_credits_what_is_unpaid_and_leaves_what_was_paid()
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), "ends@lanternhouse.example");
        await DoAsync(
            owner,
            project,
            "happened",
            new
            {
                sort = "PriceAgreed",
                amount = "1000",
                tax = "23",
                onBooking = "40",
            }
        );
        await DoAsync(
            owner,
            project,
            "happened",
            new
            {
                sort = "SignedOnPaper",
                file = await KeepAsync(owner, project, "Supplied", "c.pdf", "%PDF-1.4"u8.ToArray()),
            }
        );
        var invoice = (await owner.GetAsync($"/api/projects/{project}"))
            .GetProperty("sheet")
            .GetProperty("toPay")
            .GetProperty("invoices")[0]
            .GetProperty("id")
            .GetInt64();
        await DoAsync(
            owner,
            project,
            "happened",
            new
            {
                sort = "Paid",
                amount = "100",
                means = "Cash",
                invoice,
            }
        );
        await DoAsync(
            owner,
            project,
            "happened",
            new
            {
                sort = "Lost",
                words = "They took another offer",
                credit = true,
            }
        );
        var papers = await studio.LookAsync(db =>
            db.Invoices.AsNoTracking()
                .Where(i => i.ProjectId == new ProjectId(project))
                .OrderBy(i => i.Id)
                .ToListAsync()
        );
        Assert.Equal(
            [(InvoiceSort.Invoice, 49_200L, 0L), (InvoiceSort.CreditNote, 39_200L, 0L)],
            papers.Select(p => (p.Sort, p.TotalMinor, p.OwedMinor))
        );
        Assert.StartsWith("C2027-", papers[1].Number);
        var standing = await StandingAsync(project);
        Assert.Equal((EndReason.Lost, 10_000L, 0L), (standing.Ended, standing.PaidMinor, standing.OwedMinor));
        Assert.StartsWith(
            "%PDF",
            await (await owner.AskAsync($"/api/invoices/{papers[1].Id.Value}.pdf")).Content.ReadAsStringAsync()
        );
    }

    [Fact]
    public async Task Private_files_notes_and_tasks_reach_no_address_of_the_client()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (project, page) = await studio.ProposeAsync(owner, client, "private@lanternhouse.example");
        await studio.SignedAsync(client, page);
        await DoAsync(owner, project, "notes", new { text = "SECRET-NOTE he never pays in time" });
        await DoAsync(
            owner,
            project,
            "tasks",
            new
            {
                title = "SECRET-TASK",
                due = "2027-02-01",
                phase = (string?)null,
            }
        );
        foreach (var group in new[] { "Drafts", "Final", "Supplied" })
            await KeepAsync(owner, project, group, $"SECRET-{group}.png");
        foreach (var part in new[] { "Whole", "Drafts", "Files", "Help" })
            await DoAsync(owner, project, "parts", new { part, open = true });
        var names = await studio.LookAsync(db =>
            db.Files.AsNoTracking()
                .Where(f => f.ProjectId == new ProjectId(project))
                .Select(f => f.PublicId)
                .ToListAsync()
        );

        var all = (await client.GetAsync($"{page}/api")).GetRawText();
        Assert.DoesNotContain("SECRET", all);
        Assert.DoesNotContain("routine", all, StringComparison.OrdinalIgnoreCase);
        foreach (var name in names)
        {
            Assert.Equal(HttpStatusCode.NotFound, (await client.AskAsync($"{page}/api/files/{name}")).StatusCode);
            Assert.Equal(
                HttpStatusCode.NotFound,
                (await client.AskAsync($"{page}/api/files/{name}/preview")).StatusCode
            );
            Assert.Equal(
                HttpStatusCode.NotFound,
                (await client.PostAsync($"{page}/api/files/{name}/fetched")).StatusCode
            );
        }
        // one is shown: it alone opens; its part closed, it does not open any more
        var final = await studio.LookAsync(db =>
            db.Files.AsNoTracking()
                .SingleAsync(f => f.ProjectId == new ProjectId(project) && f.Name == "SECRET-Final.png")
        );
        await DoAsync(owner, project, $"files/{final.Id.Value}/shown", new { shown = true, use = "for print" });
        var answer = await client.AskAsync($"{page}/api/files/{final.PublicId}");
        Assert.Equal(
            (HttpStatusCode.OK, "attachment"),
            (answer.StatusCode, answer.Content.Headers.ContentDisposition!.DispositionType)
        );
        Assert.Contains("sandbox", answer.Headers.GetValues("Content-Security-Policy").Single());
        Assert.Equal(Picture, await answer.Content.ReadAsByteArrayAsync());
        Assert.Equal(
            "image/jpeg",
            (await client.AskAsync($"{page}/api/files/{final.PublicId}/preview")).Content.Headers.ContentType!.MediaType
        );
        await DoAsync(owner, project, "parts", new { part = "Files", open = false });
        Assert.Equal(HttpStatusCode.NotFound, (await client.AskAsync($"{page}/api/files/{final.PublicId}")).StatusCode);
        // nor does a client upload where the part is closed
        Assert.Equal(
            HttpStatusCode.NotFound,
            (
                await client.SendAsync(HttpMethod.Post, $"{page}/api/files?name=a.txt", Bytes("hello"u8.ToArray()))
            ).StatusCode
        );
    }

    [Theory]
    [
        InlineData("page.html", "<html><script>alert(1)</script>"),
        InlineData("picture.png", "<svg onload=alert(1)>"),
        InlineData("run.sh", "#!/bin/sh\nrm -rf"),
        InlineData("empty.txt", ""),
        InlineData("program.exe", "MZ\u0000\u0001")
    ]
    public async Task A_file_is_what_its_bytes_say_and_some_are_not_kept(string name, string bytes)
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), $"kind{name}@lanternhouse.example");
        var answer = await owner.SendAsync(
            HttpMethod.Post,
            $"/api/projects/{project}/files?name={name}&group=Supplied",
            Bytes(Encoding.UTF8.GetBytes(bytes))
        );
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        Assert.Contains("of a kind that is not kept", await answer.Content.ReadAsStringAsync());
        Assert.Equal(0, await studio.LookAsync(db => db.Files.CountAsync(f => f.ProjectId == new ProjectId(project))));
    }

    [Fact]
    public async Task A_file_above_the_limit_is_refused_and_leaves_nothing_behind()
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), "large@lanternhouse.example");
        var answer = await owner.SendAsync(
            HttpMethod.Post,
            $"/api/projects/{project}/files?name=large.png&group=Supplied",
            Bytes([.. Picture, .. new byte[50 * 1024 * 1024]])
        );
        Assert.Equal(HttpStatusCode.RequestEntityTooLarge, answer.StatusCode);
        Assert.Empty(Directory.EnumerateFiles(Path.Combine(studio.Data, "files"), "*.part"));
    }

    [Fact]
    public async Task One_round_too_many_is_refused_until_it_is_said_to_be_meant()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (project, page) = await studio.ProposeAsync(owner, client, "rounds@lanternhouse.example");
        await studio.SignedAsync(client, page);
        var draft = await KeepAsync(owner, project, "Drafts");
        object Up(bool beyond) =>
            new
            {
                files = new[] { draft },
                phase = "sketch",
                subject = "A draft",
                body = "Here: [page link]",
                beyond,
            };
        for (var round = 1; round <= 3; round++)
        {
            await DoAsync(owner, project, "reviews", Up(false));
            var open = (await client.GetAsync($"{page}/api"))
                .GetProperty("parts")
                .GetProperty("drafts")
                .GetProperty("rounds")[0];
            Assert.Equal($"Sketch, round {round} of 3", open.GetProperty("title").GetString());
            Assert.Equal(round == 3, open.GetProperty("last").GetBoolean());
            var again = await owner.PostAsync($"/api/projects/{project}/reviews", Up(false));
            Assert.Contains("still with the client", await again.Content.ReadAsStringAsync());
            await DoAsync(
                client,
                page,
                $"rounds/{open.GetProperty("id").GetString()}/changes",
                new { words = "Different, please." }
            );
        }
        var refused = await owner.PostAsync($"/api/projects/{project}/reviews", Up(false));
        Assert.Contains("3 rounds were agreed and this is round 4", await refused.Content.ReadAsStringAsync());
        await DoAsync(owner, project, "reviews", Up(true));
        Assert.True(
            (await client.GetAsync($"{page}/api"))
                .GetProperty("parts")
                .GetProperty("drafts")
                .GetProperty("rounds")[0]
                .GetProperty("beyond")
                .GetBoolean()
        );
    }

    private static async Task DoAsync(Visitor client, string page, string what, object body)
    {
        var answer = await client.PostAsync($"{page}/api/{what}", body);
        Assert.True(answer.IsSuccessStatusCode, $"{what}: {await answer.Content.ReadAsStringAsync()}");
    }

    [Fact]
    public async Task The_page_seen_as_the_client_is_the_page_the_client_sees()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (project, page) = await studio.ProposeAsync(owner, client, "same@lanternhouse.example");
        await studio.SignedAsync(client, page);
        var before = await owner.GetAsync($"/api/projects/{project}/as-client?with=Whole");
        Assert.NotEmpty(before.GetProperty("alsoVisible").EnumerateArray());
        Assert.Equal(
            JsonValueKind.Null,
            (await client.GetAsync($"{page}/api")).GetProperty("parts").GetProperty("whole").ValueKind
        ); // looking opens nothing
        await DoAsync(owner, project, "parts", new { part = "Whole", open = true });
        Assert.Equal(
            before.GetProperty("page").GetProperty("parts").GetProperty("whole").GetRawText(),
            (await client.GetAsync($"{page}/api")).GetProperty("parts").GetProperty("whole").GetRawText()
        );
    }

    [Fact]
    public async Task Closing_the_page_ends_its_link_and_a_new_one_does_not_revive_the_old()
    {
        var (owner, client) = (await studio.OwnerAsync(), new Visitor(studio));
        var (project, page) = await studio.ProposeAsync(owner, client, "closed@lanternhouse.example");
        await DoAsync(owner, project, "link", new { open = false });
        Assert.Equal(HttpStatusCode.Unauthorized, (await client.AskAsync($"{page}/api")).StatusCode);
        await DoAsync(owner, project, "link", new { open = true });
        Assert.Equal(HttpStatusCode.Unauthorized, (await client.AskAsync($"{page}/api")).StatusCode);
    }

    [Fact]
    public async Task A_finished_project_is_put_away_found_and_counted_once()
    {
        // time goes on here, so it has a studio of its own
        await using var later = new EmptyStudio();
        var owner = await later.OwnerAsync();
        var project = await BookedAsync(later, owner, "quicksilver@lanternhouse.example", "2000");
        var refused = await owner.PostAsync($"/api/projects/{project}/away", new { away = true });
        Assert.Equal(HttpStatusCode.Conflict, refused.StatusCode);
        await DoAsync(owner, project, "happened", new { sort = "HandedOver" });
        await DoAsync(owner, project, "happened", new { sort = "Approved" });
        await later.WaitUntilAsync(Instant.FromUtc(2027, 5, 3, 9, 0)); // 14 days before the opening day
        owner = await later.OwnerAsync();
        var open = (await owner.GetAsync($"/api/projects/{project}"))
            .GetProperty("sheet")
            .GetProperty("toPay")
            .GetProperty("invoices")[0];
        await DoAsync(
            owner,
            project,
            "happened",
            new
            {
                sort = "Paid",
                amount = open.GetProperty("owed").GetString(),
                means = "Transfer",
                invoice = open.GetProperty("id").GetInt64(),
            }
        );
        foreach (
            var task in (await owner.GetAsync($"/api/projects/{project}"))
                .GetProperty("sheet")
                .GetProperty("tasks")
                .EnumerateArray()
                .ToList()
        )
            await DoAsync(owner, project, $"tasks/{task.GetProperty("id").GetInt64()}/done", new { done = true });
        Assert.Equal(Stage.Finished, (await StandingAsync(later, project)).Stage);
        await DoAsync(owner, project, "away", new { away = true });
        var register = await owner.GetAsync("/api/register?standing=PutAway&columns=Value&columns=Paid");
        Assert.Equal(
            ["€\u00a02\u202f000.00", "€\u00a02\u202f460.00"],
            register.GetProperty("groups")[0].GetProperty("sums").EnumerateArray().Select(sum => sum.GetString())
        );
        Assert.Contains("quicksilver", (await owner.GetAsync("/api/search?words=quicksilver")).GetRawText());
        Assert.DoesNotContain($"\"id\":{project},", (await owner.GetAsync("/api/turns")).GetRawText());
    }

    [Fact]
    public async Task Templates_are_edited_with_their_blanks_checked_and_stale_saves_refused()
    {
        var owner = await studio.OwnerAsync();
        var kind = (await owner.GetAsync("/api/kinds"))
            .EnumerateArray()
            .Single(k => k.GetProperty("name").GetString() == "Upkeep")
            .GetProperty("id")
            .GetInt64();
        async Task<HttpResponseMessage> PutAsync(string path, object body) =>
            await owner.SendAsync(HttpMethod.Put, path, System.Net.Http.Json.JsonContent.Create(body));
        Assert.Contains(
            "fist name",
            await (
                await PutAsync(
                    "/api/letter-texts/welcome",
                    new
                    {
                        name = "Welcome",
                        number = (int?)null,
                        subject = "Hello",
                        body = "Hello [fist name]",
                        edition = 0,
                        files = Array.Empty<object>(),
                    }
                )
            ).Content.ReadAsStringAsync()
        );
        Assert.True(
            (
                await PutAsync(
                    "/api/letter-texts/before-the-date",
                    new
                    {
                        name = "Before",
                        number = 7,
                        subject = "Soon",
                        body = "Hello [first name]",
                        edition = 0,
                        files = Array.Empty<object>(),
                    }
                )
            ).IsSuccessStatusCode
        );
        Assert.Equal(
            HttpStatusCode.Conflict,
            (
                await PutAsync(
                    "/api/letter-texts/before-the-date",
                    new
                    {
                        name = "Before",
                        number = 7,
                        subject = "Soon",
                        body = "Mine",
                        edition = 0,
                        files = Array.Empty<object>(),
                    }
                )
            ).StatusCode
        );
        var page = await owner.GetAsync($"/api/kinds/{kind}");
        var wrong = await PutAsync(
            $"/api/kinds/{kind}/services",
            new
            {
                edition = page.GetProperty("edition").GetInt32(),
                services = new[]
                {
                    new
                    {
                        id = 0,
                        title = "",
                        detail = "",
                        unit = "",
                        unitPrice = "x",
                        tax = "300",
                    },
                },
            }
        );
        Assert.Equal(
            ["services[0].tax", "services[0].title", "services[0].unitPrice"],
            JsonDocument
                .Parse(await wrong.Content.ReadAsStringAsync())
                .RootElement.GetProperty("errors")
                .EnumerateObject()
                .Select(e => e.Name)
                .Order()
        );
        var id = page.GetProperty("routines")
            .EnumerateArray()
            .Single(r => r.GetProperty("name").GetString() == "After an inquiry")
            .GetProperty("id")
            .GetInt32();
        var routine = System.Text.Json.Nodes.JsonNode.Parse(
            (await owner.GetAsync($"/api/routines/{id}")).GetProperty("routine").GetRawText()
        )!;
        routine["steps"]![3]!["count"] = -3;
        var back = await PutAsync($"/api/routines/{id}", new { edition = 0, routine });
        Assert.Contains("steps[3].count", await back.Content.ReadAsStringAsync());
        routine["steps"]![3]!["count"] = 12;
        Assert.True((await PutAsync($"/api/routines/{id}", new { edition = 0, routine })).IsSuccessStatusCode);
        Assert.Contains(
            "when: 12 days after the step before",
            (await owner.GetAsync($"/api/routines/{id}")).GetProperty("text").GetString()
        );
    }

    [Fact]
    public async Task A_backup_taken_while_writes_go_on_is_whole_and_restores()
    {
        await using var busy = new EmptyStudio();
        var owner = await busy.OwnerAsync();
        var project = await busy.InquireAsync(new Visitor(busy), "backup@lanternhouse.example");
        await KeepAsync(owner, project, "Supplied");
        using var stop = new CancellationTokenSource();
        var writing = Task.Run(async () =>
        {
            for (var i = 0; !stop.IsCancellationRequested; i++)
                await DoAsync(owner, project, "notes", new { text = $"note {i}" });
        });
        while (await busy.LookAsync(db => db.Notes.CountAsync()) < 5)
            await Task.Yield();
        var folder = Directory.CreateTempSubdirectory("gesamt-restored").FullName;
        try
        {
            var archive = await Backup.WriteAsync(
                busy.Data,
                folder,
                new DateTimeOffset(2027, 1, 25, 10, 30, 0, TimeSpan.Zero)
            );
            await stop.CancelAsync();
            await writing;
            var restored = Path.Combine(folder, "studio");
            await Backup.RestoreAsync(archive, restored);
            await using var again = new Restored(restored);
            var found = await (await again.OwnerAsync()).GetAsync($"/api/projects/{project}");
            Assert.Equal(
                "sketch.png",
                found.GetProperty("sheet").GetProperty("work").GetProperty("files")[0].GetProperty("name").GetString()
            );
            Assert.Equal(
                Picture,
                await (await (await again.OwnerAsync()).AskAsync("/api/files/1")).Content.ReadAsByteArrayAsync()
            );
            Assert.InRange(
                await again.LookAsync(db => db.Notes.CountAsync()),
                5,
                await busy.LookAsync(db => db.Notes.CountAsync())
            );
            await Assert.ThrowsAsync<IOException>(() => Backup.RestoreAsync(archive, restored)); // never over something
        }
        finally
        {
            Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
            Directory.Delete(folder, recursive: true);
        }
    }

    private sealed class Restored(string data) : Studio(withProjects: false, data);
}
