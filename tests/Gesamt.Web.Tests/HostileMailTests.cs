using System.Text;
using Gesamt.Formats.Mail;
using Gesamt.Store.Model;

namespace Gesamt.Web.Tests;

/// <summary>Messages nobody sends in good faith: each is filed or put aside whole, and the mailbox and the sending go on.</summary>
public sealed class HostileMailTests(EmptyStudio studio) : IClassFixture<EmptyStudio>
{
    private static string Message(string head, string body) =>
        $"From: Mona <mona@lanternhouse.example>\r\nTo: isolde@marrin-murals.example\r\nMessage-ID: <{Guid.NewGuid():n}@x.example>\r\nSubject: Hello\r\nMIME-Version: 1.0\r\n{head}\r\n\r\n{body}\r\n";

    private static string WithFile(string disposition) =>
        Message(
            "Content-Type: multipart/mixed; boundary=b",
            $"--b\r\nContent-Type: text/plain\r\n\r\nSee the file.\r\n--b\r\nContent-Type: text/plain\r\nContent-Disposition: {disposition}\r\n\r\nThe file.\r\n--b--"
        );

    public static TheoryData<string, string> Messages =>
        new()
        {
            {
                "a file whose ending is longer than any name",
                WithFile($"attachment; filename=\"a.{new string('b', 300)}\"")
            },
            { "a file whose name is all ending", WithFile($"attachment; filename=\".{new string('b', 500)}\"") },
            { "a file named by dots", WithFile("attachment; filename=\"....\"") },
            { "a file named in torn UTF-16", WithFile("attachment; filename*=utf-16''%00%D8%41") },
            { "a charset nobody knows", Message("Content-Type: text/plain; charset=no-such-set", "Hello") },
            { "a charset that is no word", Message("Content-Type: text/plain; charset=\"\"", "Hello") },
            { "a multipart without a boundary", Message("Content-Type: multipart/mixed", "Hello") },
            {
                "multiparts in multiparts",
                string.Concat(
                    Enumerable
                        .Range(0, 3_000)
                        .Select(i => $"Content-Type: multipart/mixed; boundary=b{i}\r\n\r\n--b{i}\r\n")
                )
                    is var deep
                    ? Message(deep.TrimEnd(), "end")
                    : ""
            },
            {
                "messages in messages",
                string.Concat(Enumerable.Repeat("Content-Type: message/rfc822\r\n\r\n", 3_000)) is var nested
                    ? Message(nested.TrimEnd(), "end")
                    : ""
            },
            {
                "ten thousand parts",
                Message(
                    "Content-Type: multipart/mixed; boundary=b",
                    string.Concat(
                        Enumerable.Repeat("--b\r\nContent-Disposition: attachment; filename=a.txt\r\n\r\nx\r\n", 10_000)
                    ) + "--b--"
                )
            },
            { "no head at all", "Hello, it is me.\r\n" },
            { "nothing", "" },
            { "zeros", new string('\0', 5_000) },
            { "no sender", "To: isolde@marrin-murals.example\r\nSubject: Hello\r\n\r\nHello\r\n" },
            { "a sender that is none", "From: <<<>>>@@@\r\nTo: isolde@marrin-murals.example\r\n\r\nHello\r\n" },
            {
                "a subject of a megabyte",
                Message($"X: y", "Hello")
                    .Replace("Subject: Hello", "Subject: " + new string('s', 1_000_000), StringComparison.Ordinal)
            },
            { "a date before all calendars", Message("Date: Mon, 1 Jan 0001 00:00:00 +1400", "Hello") },
            {
                "an own name of a megabyte",
                Message("Message-ID: <" + new string('m', 1_000_000) + "@x.example>", "Hello")
                    .Replace("Message-ID: <", "X-First: <", StringComparison.Ordinal)
            },
            { "a word of a megabyte", Message("Content-Type: text/plain", new string('w', 1_000_000)) },
        };

    [Theory, MemberData(nameof(Messages))]
    public async Task It_is_kept_and_the_next_letter_comes_in_and_another_goes_out(string what, string message)
    {
        var owner = await studio.OwnerAsync();
        var project = await studio.InquireAsync(new Visitor(studio), $"hostile{Guid.NewGuid():n}@lanternhouse.example");
        var before = await studio.LookAsync(db =>
            db.Letters.CountAsync(l => l.State == LetterState.Unfiled || l.State == LetterState.Received)
        );
        studio.Mail(message);
        studio.Mail(Message("Content-Type: text/plain", "The next letter."));
        // the post office shows what it can show, and says so of what is no mail
        foreach (
            var id in (await owner.GetAsync("/api/post-office"))
                .EnumerateArray()
                .Take(2)
                .Select(letter => letter.GetProperty("id").GetInt64())
        )
        {
            Assert.InRange((int)(await owner.AskAsync($"/api/post-office/{id}")).StatusCode, 200, 409);
            Assert.Equal(
                409,
                (int)(await owner.PostAsync($"/api/post-office/{id}/answer", new { text = "Hello" })).StatusCode
            );
        }
        Assert.True(
            (
                await owner.PostAsync(
                    $"/api/projects/{project}/letter",
                    new { subject = "Hello", body = "Hello there." }
                )
            ).IsSuccessStatusCode
        );
        await studio.TickAsync();
        await studio.TickAsync();
        Assert.True(
            before + 2
                == await studio.LookAsync(db =>
                    db.Letters.CountAsync(l => l.State == LetterState.Unfiled || l.State == LetterState.Received)
                ),
            what
        );
        Assert.Equal(
            LetterState.Sent,
            await studio.LookAsync(db =>
                db.Letters.Where(l => l.ProjectId == new ProjectId(project) && l.Subject == "Hello")
                    .Select(l => l.State)
                    .SingleAsync()
            )
        );
        Assert.True((await owner.AskAsync("/api/tray")).IsSuccessStatusCode);
        foreach (var candidate in await studio.LookAsync(db => db.Projects.Select(p => p.Id).ToListAsync()))
            Assert.True((await owner.AskAsync($"/api/projects/{candidate.Value}")).IsSuccessStatusCode);
    }

    [Fact]
    public async Task What_cannot_be_read_lies_in_the_tray_whole_and_is_told_once()
    {
        await using var alone = new EmptyStudio();
        var owner = await alone.OwnerAsync();
        var message = Encoding.Latin1.GetBytes(new string('\0', 2_000) + "no head, and the bytes \u0085\u00ff");
        alone.Mail(message);
        alone.Mail(message);
        await alone.TickAsync();
        var letter = (await owner.GetAsync("/api/tray")).GetProperty("letters").EnumerateArray().Single();
        Assert.Equal("A message that cannot be read", letter.GetProperty("subject").GetString());
        var file = await alone.LookAsync(db => db.LetterFiles.SingleAsync());
        Assert.Equal(("message.eml", "message/rfc822"), (file.Name, file.Type));
        var answer = await owner.AskAsync($"/api/letters/{letter.GetProperty("id").GetInt64()}/files/{file.Id}");
        Assert.Equal(message, await answer.Content.ReadAsByteArrayAsync());
    }

    [Theory] // reading has a budget of seconds, which only what costs more than its length breaks
    [
        InlineData("<b>", 200_000),
        InlineData("<div><p>", 200_000),
        InlineData("<table><tr><td>", 100_000),
        InlineData("<a href=x>", 200_000),
        InlineData("<!--", 300_000),
        InlineData("&#x41;", 300_000),
        InlineData("<", 1_000_000)
    ]
    public void Html_however_deep_is_read_in_its_length(string piece, int times) =>
        Assert.Equal(
            "mona@lanternhouse.example",
            IncomingMail
                .Read(
                    Encoding.ASCII.GetBytes(
                        Message("Content-Type: text/html", string.Concat(Enumerable.Repeat(piece, times)) + "The end")
                    )
                )
                .FromAddress
        );
}
