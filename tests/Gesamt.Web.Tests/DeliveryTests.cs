using System.Net;
using System.Text;
using System.Text.Json;
using Gesamt.Core.Facts;
using Gesamt.Core.Stages;
using Gesamt.Store.Model;
using Gesamt.Web.Demo;

namespace Gesamt.Web.Tests;

/// <summary>From booking to put away: files, rounds, dates, money, as the server does them.</summary>
public sealed partial class DeliveryTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
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
    public async Task A_payment_comes_in_parts_and_more_than_is_owed_is_asked_about()
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
        // a slip of the hand more often than money: it says what is open and asks
        Assert.Equal(HttpStatusCode.BadRequest, most.StatusCode);
        Assert.Contains("492.00 is open on this invoice", await most.Content.ReadAsStringAsync());
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
}
