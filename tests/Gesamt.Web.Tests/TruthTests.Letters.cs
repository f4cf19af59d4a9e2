using System.Text;
using Gesamt.Core.Facts;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;

namespace Gesamt.Web.Tests;

/// <summary>Letters and mail say what is so, and are kept as they came.</summary>
public sealed partial class TruthTests
{
    [Fact] // at eight in the evening, outside sending hours
    public async Task What_the_client_does_is_confirmed_at_once_with_the_signed_paper()
    {
        await using var own = new EmptyStudio();
        var (owner, client) = (await own.OwnerAsync(), new Visitor(own));
        var (project, page) = await own.ProposeAsync(owner, client, "evening@lanternhouse.example");
        await own.WaitUntilAsync(Instant.FromUtc(2027, 1, 26, 20, 0));
        owner = await own.OwnerAsync();
        await own.SignedAsync(client, page);
        await own.TickAsync();
        var signed = await own.LookAsync(db =>
            db.Letters.Include(l => l.Files).AsNoTracking().SingleAsync(l => l.Template == "signed")
        );
        Assert.Equal((LetterState.Sent, "contract.pdf"), (signed.State, signed.Files.Single().Name));
        using (
            var pdf = UglyToad.PdfPig.PdfDocument.Open(
                own.Services.GetRequiredService<Gesamt.Store.Files.FileVault>().Read(signed.Files[0].Hash)
            )
        )
            Assert.Contains(
                "MonaDelarue",
                string.Concat(pdf.GetPages().SelectMany(sheet => sheet.Text).Where(c => !char.IsWhiteSpace(c)))
            );
        var invoice = (await owner.GetAsync($"/api/projects/{project}"))
            .GetProperty("sheet")
            .GetProperty("toPay")
            .GetProperty("invoices")[0];
        // a transfer of the day before, written down in the evening
        Assert.True(
            (
                await SayAsync(
                    owner,
                    project,
                    new
                    {
                        sort = "Paid",
                        on = "2027-01-25",
                        amount = invoice.EnumerateObject().Last().Value.GetString(),
                        invoice = invoice.GetProperty("id").GetInt64(),
                        means = "Transfer",
                    }
                )
            ).IsSuccessStatusCode
        );
        await own.TickAsync();
        Assert.True(
            await own.LookAsync(db => db.Letters.AnyAsync(l => l.Template == "receipt" && l.State == LetterState.Sent))
        );
        Assert.True(
            (await SayAsync(owner, project, new { sort = "Countersign", words = "Isolde Marrin" })).IsSuccessStatusCode
        );
        await own.TickAsync();
        Assert.Equal(
            LetterState.Sent,
            await own.LookAsync(db => db.Letters.Where(l => l.Template == "welcome").Select(l => l.State).SingleAsync())
        );
    }

    [Fact]
    public async Task Send_all_sends_one_to_a_project_and_what_was_sent_is_asked_about_no_more()
    {
        await using var own = new EmptyStudio();
        var project = await own.InquireAndAnswerAsync("ready@lanternhouse.example");
        await own.WaitUntilAsync(Instant.FromUtc(2027, 2, 4, 10, 0));
        var owner = await own.OwnerAsync();
        var letter = (await owner.GetAsync("/api/today"))
            .GetProperty("ready")
            .GetProperty("letters")[0]
            .GetProperty("letter")
            .GetInt64();
        await own.LookAsync(async db =>
        {
            var held = await db.Letters.AsNoTracking().SingleAsync(l => l.Id == new LetterId(letter));
            (held.Id, held.MessageId) = (default, null);
            db.Letters.Add(held);
            return await db.SaveChangesAsync();
        });
        Assert.Equal(
            1,
            (await JsonAsync(await owner.PostAsync("/api/letters/release", new { template = "still-interested" })))
                .GetProperty("count")
                .GetInt32()
        );
        // on its way, and not handed over yet
        Assert.DoesNotContain(
            (await owner.GetAsync("/api/today")).GetProperty("ready").GetProperty("asked").EnumerateArray(),
            one => one.GetProperty("project").GetInt64() == project
        );
    }

    [Fact]
    public async Task Mail_is_kept_byte_for_byte_on_the_day_it_arrived()
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), "bytes@lanternhouse.example");
        var code = await studio.LookAsync(db =>
            db.Projects.Where(p => p.Id == new ProjectId(project)).Select(p => p.Code).SingleAsync()
        );
        var now = await studio.LookAsync((Desk desk) => Task.FromResult(desk.Now));
        await studio.WaitUntilAsync(now + Duration.FromDays(2));
        owner = await studio.OwnerAsync();
        var arrived = now + Duration.FromHours(5);
        byte[] raw =
        [
            .. Encoding.UTF8.GetBytes(
                $"Received: by mx.example; {arrived.ToDateTimeUtc():ddd, dd MMM yyyy HH:mm:ss} +0000\r\nFrom: Mona <bytes@lanternhouse.example>\r\nTo: {code}@marrin-murals.example\r\nMessage-ID: <one@lanternhouse.example>\r\nContent-Type: text/html; charset=utf-8\r\n\r\n<p>zażółć … </p><script>alert(1)</script>\r\n"
            ),
            0x85,
            (byte)'\r',
            (byte)'\n',
        ];
        studio.Mail(raw);
        await studio.TickAsync();
        var letter = await studio.LookAsync(db =>
            db.Letters.AsNoTracking().SingleAsync(l => l.MessageId == "one@lanternhouse.example")
        );
        Assert.Equal((arrived.ToUnixTimeSeconds(), true), (letter.At.ToUnixTimeSeconds(), letter.HasHtml));
        Assert.Equal(
            arrived.ToUnixTimeSeconds(),
            await studio.LookAsync(async db =>
                (
                    await db
                        .Facts.AsNoTracking()
                        .Where(f => f.ProjectId == new ProjectId(project) && f.Kind == nameof(Happening.LetterReceived))
                        .SingleAsync()
                ).Happened.ToUnixTimeSeconds()
            )
        );
        Assert.Equal(
            raw,
            await (await owner.AskAsync($"/api/letters/{letter.Id.Value}.eml")).Content.ReadAsByteArrayAsync()
        );
        Assert.Contains(
            raw,
            Formats.Mail.Mbox.Read(
                await (await owner.AskAsync($"/api/projects/{project}/letters.mbox")).Content.ReadAsByteArrayAsync()
            )
        );
        var html = await owner.AskAsync($"/api/letters/{letter.Id.Value}/html");
        Assert.Contains("sandbox", html.Headers.GetValues("Content-Security-Policy").Single());
        var shown = await html.Content.ReadAsStringAsync();
        Assert.Contains("zażółć", shown);
        Assert.DoesNotContain("script", shown);
    }

    [Fact]
    public async Task A_letter_without_a_sender_lies_in_the_tray()
    {
        var owner = await studio.OwnerAsync();
        studio.Mail("Subject: no sender at all\r\nMessage-ID: <nobody@nowhere.example>\r\n\r\nIt is peeling off.\r\n");
        await studio.TickAsync();
        Assert.Contains("no sender at all", (await owner.GetAsync("/api/tray")).GetRawText());
    }

    [Fact]
    public async Task A_letter_after_the_finish_and_a_calendar_that_declines_are_told()
    {
        var (owner, _, project, _) = await SignedAsync("after@lanternhouse.example");
        var kind = await studio.LookAsync(db => db.MeetingKinds.OrderBy(k => k.Id).Select(k => k.Id).FirstAsync());
        var start = "2027-02-09T11:00:00";
        Assert.True(
            (await owner.PostAsync($"/api/projects/{project}/meetings", new { kind, start })).IsSuccessStatusCode
        );
        await studio.TickAsync();
        var (uid, invitation) = await studio.LookAsync(async db =>
            (
                await db.Meetings.Where(m => m.ProjectId == new ProjectId(project)).Select(m => m.Uid).SingleAsync(),
                await db
                    .Letters.Where(l => l.ProjectId == new ProjectId(project) && l.Invitation != null)
                    .Select(l => l.Invitation!)
                    .FirstAsync()
            )
        );
        Assert.Contains("PARTSTAT=NEEDS-ACTION", invitation.Replace("\r\n ", "", StringComparison.Ordinal));
        var code = await studio.LookAsync(db =>
            db.Projects.Where(p => p.Id == new ProjectId(project)).Select(p => p.Code).SingleAsync()
        );
        studio.Mail(
            $"From: after@lanternhouse.example\r\nTo: {code}@marrin-murals.example\r\nMessage-ID: <reply-{project}@x.example>\r\nSubject: Declined\r\nContent-Type: text/calendar; method=REPLY\r\n\r\nBEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nMETHOD:REPLY\r\nBEGIN:VEVENT\r\nUID:{uid}\r\nDTSTAMP:20270125T103000Z\r\nATTENDEE;PARTSTAT=DECLINED:mailto:after@lanternhouse.example\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"
        );
        await studio.TickAsync();
        Assert.Contains("declined in their calendar", (await owner.GetAsync($"/api/projects/{project}")).GetRawText());
    }
}
