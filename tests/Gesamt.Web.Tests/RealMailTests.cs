using System.Text.Json;
using Gesamt.Store.Model;
using MailKit.Net.Smtp;
using MailKit.Security;
using MimeKit;

namespace Gesamt.Web.Tests;

/// <summary>Letters out and in through real servers: set, tried with clear errors, sent, answered, and tried again after a server was away.</summary>
public sealed class RealMailTests : IAsyncDisposable
{
    private readonly MailServers servers = new();
    private readonly EmptyStudio studio = new();

    private object Account(
        int edition = 0,
        int? smtp = null,
        int? imap = null,
        string password = MailServers.Password,
        string smtpSecurity = "None"
    ) =>
        new
        {
            smtp = new
            {
                host = "127.0.0.1",
                port = smtp ?? servers.SmtpPort,
                security = smtpSecurity,
                user = "",
                password = (string?)null,
                hasPassword = false,
            },
            imap = new
            {
                host = "127.0.0.1",
                port = imap ?? servers.ImapPort,
                security = "None",
                user = "isolde",
                password = password.Replace(" ", ""),
                hasPassword = false,
            },
            edition,
            mayLeave = true,
            problem = (string?)null,
        };

    private static Task<HttpResponseMessage> PutAsync(Visitor owner, object account) =>
        owner.SendAsync(HttpMethod.Put, "/api/mail-account", System.Net.Http.Json.JsonContent.Create(account));

    private async Task AdvanceAsync(Duration by) =>
        await studio.WaitUntilAsync(
            await studio.LookAsync((Gesamt.Web.Hosting.Desk desk) => Task.FromResult(desk.Now)) + by
        );

    private async Task AnswerAsync(LetterRow letter, string reply, string text, string? automatic = null)
    {
        var message = new MimeMessage
        {
            Subject = $"Re: {letter.Subject}",
            InReplyTo = letter.MessageId,
            Body = new TextPart("plain") { Text = $"{text}\n\nOn Monday, Isolde wrote:\n> Thank you\n" },
        };
        message.From.Add(new MailboxAddress("Mona", "mona@lanternhouse.example"));
        message.To.Add(MailboxAddress.Parse(reply));
        if (automatic is not null)
            message.Headers.Add("Auto-Submitted", automatic);
        using var client = new SmtpClient();
        await client.ConnectAsync(
            "127.0.0.1",
            servers.SmtpPort,
            SecureSocketOptions.None,
            TestContext.Current.CancellationToken
        );
        await client.SendAsync(message, TestContext.Current.CancellationToken);
        await client.DisconnectAsync(true, TestContext.Current.CancellationToken);
    }

    [Fact]
    public async Task Letters_go_out_and_come_in_through_real_servers()
    {
        var owner = await studio.OwnerAsync();
        Assert.True((await PutAsync(owner, Account())) is { IsSuccessStatusCode: true } kept, "not kept");
        Assert.DoesNotContain("harbour", (await owner.GetAsync("/api/mail-account")).GetRawText()); // a password is never sent out
        var project = await studio.InquireAsync(new Visitor(studio));
        var sent = await studio.LookAsync(db => db.Letters.SingleAsync(l => l.ProjectId == new ProjectId(project)));
        Assert.Equal(LetterState.Sent, sent.State);
        Assert.Equal(0, (await owner.GetAsync("/api/post-office")).GetArrayLength()); // the stand-in took nothing

        var reply = (await owner.GetAsync($"/api/projects/{project}"))
            .GetProperty("involved")
            .GetProperty("replyAddress")
            .GetString()!;
        await AnswerAsync(sent, reply, "Out of the house.", automatic: "auto-replied");
        await AnswerAsync(sent, reply, "In May, please.");
        for (var i = 0; i < 3; i++)
            await AdvanceAsync(Duration.FromMinutes(1));
        var came = await studio.LookAsync(db =>
            db.Letters.Where(l => l.ProjectId == new ProjectId(project) && l.State == LetterState.Received)
                .OrderBy(l => l.Id)
                .ToListAsync()
        );
        Assert.Equal(
            [("Out of the house.", true), ("In May, please.", false)],
            came.Select(l => (l.Body, l.Automatic))
        );
        Assert.Equal(3, await studio.LookAsync(db => db.Letters.CountAsync())); // our own, seen again in the inbox, is known
        Assert.True(await studio.LookAsync(db => db.MailAccounts.Select(a => a.LastUid).SingleAsync()) >= 3);
    }

    [Fact]
    public async Task What_lay_in_the_inbox_before_is_left_alone()
    {
        await AnswerAsync(
            new LetterRow
            {
                FromName = "",
                FromMail = "",
                ToName = "",
                ToMail = "",
                Subject = "Old",
                MessageId = "old@lanternhouse.example",
            },
            "isolde@studio.example",
            "Long ago."
        );
        var owner = await studio.OwnerAsync();
        Assert.True((await PutAsync(owner, Account())).IsSuccessStatusCode);
        await AdvanceAsync(Duration.FromMinutes(2));
        Assert.Equal(0, await studio.LookAsync(db => db.Letters.CountAsync()));
    }

    [Fact]
    public async Task What_is_wrong_with_a_server_is_said_in_words()
    {
        var owner = await studio.OwnerAsync();
        async Task<List<(bool, string)>> TryAsync(object account) =>
            [
                .. JsonDocument
                    .Parse(await (await owner.PostAsync("/api/mail-account/test", account)).Content.ReadAsStringAsync())
                    .RootElement.EnumerateArray()
                    .Select(t => (t.GetProperty("works").GetBoolean(), t.GetProperty("words").GetString()!)),
            ];
        Assert.All(await TryAsync(Account()), test => Assert.True(test.Item1, test.Item2));
        var wrong = await TryAsync(Account(password: "wrong", smtpSecurity: "StartTls"));
        Assert.Contains("offers no STARTTLS", wrong[0].Item2);
        Assert.Contains("does not accept this user and password", wrong[1].Item2);
        // an SMTP server asked for TLS from the beginning, and nobody at the other port
        var closed = await TryAsync(Account(imap: 1, smtpSecurity: "Tls"));
        Assert.Contains("STARTTLS may be what it wants", closed[0].Item2);
        Assert.Contains("does not answer on port 1", closed[1].Item2);
        Assert.Contains(
            "imap.host",
            await (await PutAsync(owner, Account(password: "wrong"))).Content.ReadAsStringAsync()
        );
        Assert.Contains(
            "smtp.security",
            await (
                await PutAsync(
                    owner,
                    new
                    {
                        smtp = new
                        {
                            host = "mail.place.example",
                            port = 25,
                            security = "None",
                            user = "",
                            password = (string?)null,
                            hasPassword = false,
                        },
                        imap = new
                        {
                            host = "",
                            port = 993,
                            security = "Tls",
                            user = "",
                            password = (string?)null,
                            hasPassword = false,
                        },
                        edition = 0,
                        mayLeave = true,
                        problem = (string?)null,
                    }
                )
            ).Content.ReadAsStringAsync()
        );
    }

    [Fact]
    public async Task A_server_that_is_away_is_tried_again_with_growing_gaps_and_seen_meanwhile()
    {
        var owner = await studio.OwnerAsync();
        Assert.True((await PutAsync(owner, Account())).IsSuccessStatusCode);
        servers.StopSmtp();
        var project = await studio.InquireAsync(new Visitor(studio));
        Assert.Contains(
            "does not answer on port",
            (await owner.GetAsync("/api/today")).GetProperty("ready").GetProperty("uncertain").GetRawText()
        );
        Assert.Contains(
            "tried again at 10:32",
            (await owner.GetAsync($"/api/projects/{project}")).GetProperty("line").GetProperty("ahead").GetRawText()
        );
        await AdvanceAsync(Duration.FromMinutes(2));
        await AdvanceAsync(Duration.FromMinutes(1)); // not yet: the gap is four minutes now
        Assert.Equal(2, await studio.LookAsync(db => db.Outbox.Select(o => o.Failures).SingleAsync()));
        servers.StartSmtp();
        await AdvanceAsync(Duration.FromMinutes(4));
        Assert.Equal(LetterState.Sent, await studio.LookAsync(db => db.Letters.Select(l => l.State).FirstAsync()));
        Assert.Equal(
            0,
            (await owner.GetAsync("/api/today")).GetProperty("ready").GetProperty("uncertain").GetArrayLength()
        );
    }

    public async ValueTask DisposeAsync()
    {
        await studio.DisposeAsync();
        servers.Dispose();
    }
}
