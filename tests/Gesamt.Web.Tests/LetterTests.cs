using System.Net;
using System.Net.Http.Headers;
using System.Text;
using System.Text.Json;
using Gesamt.Core.Facts;
using Gesamt.Store.Model;

namespace Gesamt.Web.Tests;

/// <summary>Letters with files, answers, later, put off, sent together, taken out as files and in again.</summary>
public sealed partial class LetterTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    private static readonly byte[] Pdf = Encoding.ASCII.GetBytes("%PDF-1.4\n1 0 obj<<>>endobj\ntrailer<<>>\n%%EOF\n");

    private static async Task<JsonElement> AttachAsync(Visitor owner, string name, byte[] bytes)
    {
        var content = new ByteArrayContent(bytes);
        content.Headers.ContentType = new MediaTypeHeaderValue("application/octet-stream");
        var answer = await owner.SendAsync(HttpMethod.Post, $"/api/letter-files?name={name}", content);
        Assert.True(answer.IsSuccessStatusCode, await answer.Content.ReadAsStringAsync());
        return JsonDocument.Parse(await answer.Content.ReadAsStringAsync()).RootElement;
    }

    private async Task<MimeKit.MimeMessage> NewestToAsync(Visitor owner, string mail)
    {
        var raw = await studio.LookAsync(
            async (Gesamt.Web.Hosting.Desk desk) =>
            {
                var letter = await desk
                    .Db.Letters.Include(l => l.Files)
                    .Where(l => l.ToMail == mail && desk.Db.Outbox.Any(o => o.LetterId == l.Id))
                    .OrderByDescending(l => l.Id)
                    .FirstAsync();
                return Gesamt.Web.Letters.Sending.Compose(
                    desk,
                    (await desk.OpenAsync(letter.ProjectId!.Value)).Row,
                    letter
                );
            }
        );
        _ = owner;
        return MimeKit.MimeMessage.Load(new MemoryStream(raw));
    }

    private async Task<LetterState> StateAsync(long letter) =>
        await studio.LookAsync(db =>
            db.Letters.Where(l => l.Id == new LetterId(letter)).Select(l => l.State).SingleAsync()
        );

    private async Task AdvanceAsync(Duration by) =>
        await studio.WaitUntilAsync(
            await studio.LookAsync((Gesamt.Web.Hosting.Desk desk) => Task.FromResult(desk.Now)) + by
        );

    [Fact]
    public async Task A_file_goes_with_a_letter_and_one_of_no_kept_kind_does_not()
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), "files@lanternhouse.example");
        var file = await AttachAsync(owner, "plan.pdf", Pdf);
        var sent = await owner.PostAsync(
            $"/api/projects/{project}/letter",
            new
            {
                subject = "The plan",
                body = "Here it is.",
                files = new[] { file },
            }
        );
        Assert.True(sent.IsSuccessStatusCode, await sent.Content.ReadAsStringAsync());
        var message = await NewestToAsync(owner, "files@lanternhouse.example");
        var part = Assert.IsType<MimeKit.MimePart>(Assert.Single(message.Attachments));
        Assert.Equal("plan.pdf", part.FileName);
        using var bytes = new MemoryStream();
        part.Content!.DecodeTo(bytes, TestContext.Current.CancellationToken);
        Assert.Equal(Pdf, bytes.ToArray());

        var script = new ByteArrayContent("#!/bin/sh\nrm -rf /\n"u8.ToArray());
        script.Headers.ContentType = new MediaTypeHeaderValue("application/octet-stream");
        Assert.Equal(
            HttpStatusCode.BadRequest,
            (await owner.SendAsync(HttpMethod.Post, "/api/letter-files?name=a.sh", script)).StatusCode
        );
        var invented = await owner.PostAsync(
            $"/api/projects/{project}/letter",
            new
            {
                subject = "x",
                body = "x",
                files = new[]
                {
                    new
                    {
                        name = "a.pdf",
                        hash = "../../../etc/passwd",
                        size = 1,
                        type = "x",
                    },
                },
            }
        );
        Assert.Contains("\"files\"", await invented.Content.ReadAsStringAsync());
    }

    [Fact]
    public async Task A_letters_standing_files_go_with_it_by_hand_and_by_a_routine()
    {
        await using var own = new EmptyStudio();
        var owner = await own.OwnerAsync();
        var file = await AttachAsync(owner, "rates.pdf", Pdf);
        var thanks = (await owner.GetAsync("/api/letter-texts"))
            .EnumerateArray()
            .Single(l => l.GetProperty("key").GetString() == "thank-you");
        Assert.NotEmpty(thanks.GetProperty("usedBy").EnumerateArray());
        var kept = await owner.SendAsync(
            HttpMethod.Put,
            $"/api/letter-texts/{await owner.LetterAsync("thank-you")}",
            System.Net.Http.Json.JsonContent.Create(
                new
                {
                    name = "Thank you",
                    number = 3,
                    subject = "Thank you",
                    body = "Hello [first name]",
                    edition = 0,
                    files = new[] { file },
                }
            )
        );
        Assert.True(kept.IsSuccessStatusCode, await kept.Content.ReadAsStringAsync());
        var project = await own.InquireAsync(new Visitor(own), "standing@lanternhouse.example");
        Assert.Equal(
            "rates.pdf",
            await own.LookAsync(db =>
                db.LetterFiles.Where(f =>
                        db.Letters.Any(l => l.Id == f.LetterId && l.ProjectId == new ProjectId(project))
                    )
                    .Select(f => f.Name)
                    .SingleAsync()
            )
        );
        var desk = await owner.GetAsync($"/api/projects/{project}/letter");
        var template = desk.GetProperty("templates")
            .EnumerateArray()
            .Single(t => t.GetProperty("number").ValueKind == JsonValueKind.Number);
        Assert.Equal(
            ("thank-you", "Hello [first name]", "Hello Mona"),
            (
                template.GetProperty("key").GetString(),
                template.GetProperty("openBody").GetString(),
                template.GetProperty("body").GetString()
            )
        );
        // a number is one letter's alone
        var taken = await owner.PostAsync(
            "/api/letter-texts",
            new
            {
                name = "Other",
                number = 3,
                subject = "x",
                body = "x",
                edition = 0,
                files = Array.Empty<object>(),
            }
        );
        Assert.Contains("“Thank you” has this number", await taken.Content.ReadAsStringAsync());
    }

    [Fact] // it was never handed over, so nobody is asked whether it arrived
    public async Task A_letter_whose_file_is_gone_comes_back_with_the_reason_and_is_not_taken_for_sent()
    {
        await using var own = new EmptyStudio();
        var owner = await own.OwnerAsync();
        var project = await own.InquireAsync(new Visitor(own), "gone@lanternhouse.example");
        var file = await AttachAsync(owner, "plan.pdf", Pdf);
        var sent = await owner.PostAsync(
            $"/api/projects/{project}/letter",
            new
            {
                subject = "The plan",
                body = "Here it is.",
                files = new[] { file },
                sendAt = "2027-02-01T10:00:00",
            }
        );
        Assert.True(sent.IsSuccessStatusCode, await sent.Content.ReadAsStringAsync());
        File.Delete(
            Directory.GetFiles(own.Data, file.GetProperty("hash").GetString()!, SearchOption.AllDirectories).Single()
        );
        await own.WaitUntilAsync(Instant.FromUtc(2027, 2, 1, 12, 0));
        await own.TickAsync();
        var letter = await own.LookAsync(db => db.Letters.SingleAsync(l => l.Subject == "The plan"));
        Assert.Equal(LetterState.Draft, letter.State);
        Assert.Contains("cannot be read", letter.Problem);
        Assert.Equal(0, await own.LookAsync(db => db.Outbox.CountAsync(o => o.LetterId == letter.Id)));
    }

    [Fact] // RFC 4155: what goes out as a mailbox comes in again as it was
    public async Task Letters_go_out_as_a_mailbox_and_come_in_elsewhere_without_moving_anything()
    {
        var owner = await studio.OwnerAsync();
        var (from, to) = (
            await studio.InquireAsync(new Visitor(studio), "out@lanternhouse.example"),
            await studio.InquireAsync(new Visitor(studio), "in@lanternhouse.example")
        );
        Assert.True(
            (
                await owner.PostAsync(
                    $"/api/projects/{from}/letter",
                    new { subject = "From here", body = "From the quay\n>From a friend\nyou see it all." }
                )
            ).IsSuccessStatusCode
        );
        await studio.TickAsync();
        var mbox = await (await owner.AskAsync($"/api/projects/{from}/letters.mbox")).Content.ReadAsByteArrayAsync();
        var text = Encoding.UTF8.GetString(mbox);
        Assert.StartsWith("From isolde@", text);
        // what was known stays where it is
        async Task<JsonElement> TakeAsync(byte[] bytes)
        {
            var content = new ByteArrayContent(bytes);
            content.Headers.ContentType = new MediaTypeHeaderValue("application/octet-stream");
            return JsonDocument
                .Parse(
                    await (
                        await owner.SendAsync(HttpMethod.Post, $"/api/projects/{to}/letters/take-over", content)
                    ).Content.ReadAsStringAsync()
                )
                .RootElement;
        }
        Assert.Equal(
            (0, 2),
            (await TakeAsync(mbox)) is var known
                ? (known.GetProperty("kept").GetInt32(), known.GetProperty("known").GetInt32())
                : default
        );
        var turn = (await owner.GetAsync($"/api/projects/{to}")).GetProperty("path").GetProperty("turn").GetRawText();
        var others = Encoding.UTF8.GetBytes(
            text.Replace("@marrin", "@elsewhere.marrin", StringComparison.Ordinal)
                .Replace("Message-Id: <", "Message-Id: <other-", StringComparison.OrdinalIgnoreCase)
        );
        Assert.Equal(2, (await TakeAsync(others)).GetProperty("kept").GetInt32());
        Assert.Equal(
            "From the quay\n>From a friend\nyou see it all.",
            (
                await studio.LookAsync(db =>
                    db.Letters.Where(l =>
                            l.ProjectId == new ProjectId(to) && l.State == LetterState.Kept && l.Subject == "From here"
                        )
                        .Select(l => l.Body)
                        .SingleAsync()
                )
            )
                .Split("\n\n-- ")[0]
                .Trim()
        );
        Assert.Equal(
            turn,
            (await owner.GetAsync($"/api/projects/{to}")).GetProperty("path").GetProperty("turn").GetRawText()
        );
        Assert.Contains("\"file\"", (await TakeAsync("no mail at all"u8.ToArray())).GetProperty("errors").GetRawText());
    }

    [Fact]
    public async Task What_came_with_a_letter_becomes_the_projects_and_no_client_sees_it_unshown()
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), "photo@lanternhouse.example");
        var reply = (await owner.GetAsync($"/api/projects/{project}"))
            .GetProperty("involved")
            .GetProperty("replyAddress")
            .GetString()!;
        var message = new MimeKit.MimeMessage
        {
            Subject = "A plan",
            MessageId = "plan@lanternhouse.example",
            Body = new MimeKit.Multipart("mixed")
            {
                new MimeKit.TextPart("plain") { Text = "See the plan." },
                new MimeKit.MimePart("application", "pdf")
                {
                    Content = new MimeKit.MimeContent(new MemoryStream(Pdf)),
                    ContentDisposition = new("attachment"),
                    FileName = "../../plan.pdf",
                },
            },
        };
        message.From.Add(MimeKit.MailboxAddress.Parse("photo@lanternhouse.example"));
        message.To.Add(MimeKit.MailboxAddress.Parse(reply));
        using var bytes = new MemoryStream();
        await message.WriteToAsync(bytes, TestContext.Current.CancellationToken);
        var content = new ByteArrayContent(bytes.ToArray());
        content.Headers.ContentType = new MediaTypeHeaderValue("application/octet-stream");
        // dropped as a file, it lies in the tray, and its file waits with it
        var read = JsonDocument
            .Parse(
                await (
                    await owner.SendAsync(HttpMethod.Post, "/api/inquiries/letter", content)
                ).Content.ReadAsStringAsync()
            )
            .RootElement;
        Assert.Equal(
            HttpStatusCode.NoContent,
            (
                await owner.PostAsync($"/api/letters/{read.GetProperty("letter").GetInt64()}/file", new { project })
            ).StatusCode
        );
        var file = await studio.LookAsync(db =>
            db.Files.Where(f => f.ProjectId == new ProjectId(project) && f.Name == "plan.pdf").SingleAsync()
        );
        Assert.Equal(FileGroup.Supplied, file.Group);
        Assert.DoesNotContain(
            file.Id,
            Gesamt.Core.ClientPages.Sight.Shown(
                await studio.LookAsync(
                    async (Gesamt.Web.Hosting.Desk desk) => (await desk.OpenAsync(new(project))).History
                )
            )
        );
    }
}
