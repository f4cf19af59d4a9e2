using System.Text;
using CsCheck;
using Gesamt.Core.Letters;
using Gesamt.Formats.Mail;
using NodaTime;
using Xunit;

namespace Gesamt.Formats.Tests;

/// <summary>Mail as it comes: every byte of it, without a sender, as HTML alone, with quotes of every mail program.</summary>
public sealed class MailAsItComesTests
{
    private static byte[] Message(string text) => Encoding.Latin1.GetBytes(text.ReplaceLineEndings("\r\n"));

    [Fact] // 0x85 is a line end in Latin-1 to some readers, and part of ą, Å, х and … in UTF-8 and windows-1252
    public void A_mailbox_gives_back_every_byte()
    {
        var utf8 = Encoding.UTF8.GetBytes(
            "From: a@b.example\r\nSubject: x\r\n\r\nzażółć gęślą jaźń, Åse, хлеб, …\r\nFrom here on\r\n>From there\r\n"
        );
        var western = Message("From: a@b.example\n\n\u0085 and \u0085\n\nFrom the top\n\n\n");
        var read = Mbox.Read(
            Mbox.Write([
                new("a@b.example", Instant.FromUtc(2027, 1, 25, 9, 0), utf8),
                new("a@b.example", Instant.FromUtc(2027, 1, 26, 9, 0), western),
            ])
        );
        Assert.Equal([utf8, western], read);
    }

    [Fact]
    public void A_mailbox_reads_the_same_in_small_pieces() =>
        Gen
            .Byte.Array[0, 200]
            .Select(
                Gen.Int[0, 3],
                Gen.Bool,
                (bytes, froms, box) =>
                    (byte[])
                        [
                            .. box ? "From a@b.example Mon Jan 25 09:00:00 2027\n"u8 : default,
                            .. "From: a@b.example\n\n"u8,
                            .. bytes,
                            .. Enumerable
                                .Repeat("\n\nFrom x\n>From y\r\n\r\nFrom z"u8.ToArray(), froms)
                                .SelectMany(x => x),
                        ]
            )
            .Sample(bytes =>
                Assert.Equal(
                    Mbox.Read(bytes),
                    Mbox.ReadAsync(new InPieces(bytes), 1 << 20, TestContext.Current.CancellationToken)
                        .ToBlockingEnumerable()
                        .ToList()
                )
            );

    [Fact]
    public async Task A_message_larger_than_any_letter_stops_a_mailbox()
    {
        var large = Encoding.ASCII.GetBytes("From a@b.example x\nFrom: a@b.example\n\n" + new string('x', 5000));
        var e = await Assert.ThrowsAsync<FormatException>(async () =>
        {
            await foreach (
                var _ in Mbox.ReadAsync(new MemoryStream(large), 4096, TestContext.Current.CancellationToken)
            ) { }
        });
        Assert.Contains("A message of more than", e.Message);
    }

    /// <summary>Gives seven bytes at most at once, as a network may.</summary>
    private sealed class InPieces(byte[] bytes) : MemoryStream(bytes)
    {
        public override int Read(Span<byte> buffer) => base.Read(buffer[..Math.Min(7, buffer.Length)]);

        public override ValueTask<int> ReadAsync(Memory<byte> buffer, CancellationToken cancellationToken = default) =>
            ValueTask.FromResult(Read(buffer.Span));
    }

    [Fact]
    public void Any_messages_that_end_with_a_line_come_back_byte_for_byte() =>
        Gen
            .Byte.Array[0, 80]
            .Select(
                Gen.Int[0, 3],
                (bytes, froms) =>
                    (byte[])
                        [
                            .. "From: a@b.example\n\n"u8,
                            .. bytes,
                            .. Enumerable.Repeat("\nFrom >From \n"u8.ToArray(), froms).SelectMany(x => x),
                            (byte)'\n',
                        ]
            )
            .Array[1, 4]
            .Sample(
                messages =>
                    Assert.Equal(
                        messages,
                        Mbox.Read(
                            Mbox.Write(
                                messages.Select(message => new StoredMessage(
                                    "a@b.example",
                                    Instant.FromUtc(2027, 1, 25, 9, 0),
                                    message
                                ))
                            )
                        )
                    ),
                iter: 2_000
            );

    [Fact] // read by Python's own mailbox module
    public void Another_reader_finds_the_same_messages()
    {
        var file = Encoding.Latin1.GetString(
            Mbox.Write([
                new(
                    "a@b.example",
                    Instant.FromUtc(2027, 1, 25, 9, 0),
                    Message("From: a@b.example\nSubject: one\n\nHello\n\nFrom me\n")
                ),
                new(
                    "c@d.example",
                    Instant.FromUtc(2027, 1, 26, 9, 0),
                    Message("From: c@d.example\nSubject: two\n\nBye\n")
                ),
            ])
        );
        Assert.Equal(
            ["one", "two"],
            Python.Run(
                "import sys, mailbox, tempfile\nf = tempfile.NamedTemporaryFile()\nf.write(sys.stdin.read().encode('latin-1')); f.flush()\nfor m in mailbox.mbox(f.name): print(m['Subject'])",
                file
            )
        );
    }

    [Fact]
    public void A_letter_without_a_sender_is_read_all_the_same()
    {
        var letter = IncomingMail.Read(Message("Subject: the wall\n\nIt is peeling off.\n"));
        Assert.Equal(
            ("Nobody named", "", "the wall", "It is peeling off."),
            (letter.FromName, letter.FromAddress, letter.Subject, letter.Text.Trim())
        );
    }

    [Fact] // RFC 5321, 4.4: the topmost Received line is the last server's
    public void A_letter_arrived_when_the_last_server_took_it()
    {
        var letter = IncomingMail.Read(
            Message(
                "Received: from a by b; Sat, 23 Jan 2027 21:15:00 +0100\nReceived: from c by a; Sat, 23 Jan 2027 20:00:00 +0100\nFrom: a@b.example\nDate: Thu, 21 Jan 2027 10:00:00 +0100\n\nHello\n"
            )
        );
        Assert.Equal(Instant.FromUtc(2027, 1, 23, 20, 15), letter.Arrived);
        Assert.Equal(
            Instant.FromUtc(2027, 1, 21, 9, 0),
            IncomingMail.Read(Message("From: a@b.example\nDate: Thu, 21 Jan 2027 10:00:00 +0100\n\nHello\n")).Arrived
        );
    }

    [Theory] // windows-1250, windows-1252 and UTF-8, as the header says
    [
        InlineData(1250, "windows-1250", "zażółć gęślą jaźń"),
        InlineData(1252, "windows-1252", "Gröhl – “Übermut” …"),
        InlineData(65001, "utf-8", "хлеб и …")
    ]
    public void Letters_of_every_code_page_are_read(int page, string name, string words)
    {
        Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);
        byte[] message =
        [
            .. Message(
                $"From: a@b.example\nContent-Type: text/plain; charset={name}\nContent-Transfer-Encoding: 8bit\n\n"
            ),
            .. Encoding.GetEncoding(page).GetBytes(words),
        ];
        Assert.Equal(words, IncomingMail.Read(message).Text);
    }

    [Fact]
    public void A_letter_in_HTML_alone_keeps_its_lines_and_nothing_that_acts()
    {
        const string html =
            "<html><head><style>p{color:red}</style><script>alert(1)</script></head><body><p>Hello,</p><div>the wall<br>is ready.</div><img src='https://spy.example/x.gif'><a href='https://studio.example/x' onclick='steal()'>here</a><form action='https://evil.example'><input name=p></form></body></html>";
        var letter = IncomingMail.Read(Message($"From: a@b.example\nContent-Type: text/html\n\n{html}\n"));
        Assert.Equal(
            ["Hello,", "the wall", "is ready."],
            letter.Text.Split('\n').Where(line => line.Length > 0).Take(3)
        );
        Assert.DoesNotContain("alert", letter.Text);
        Assert.DoesNotContain("color", letter.Text);
        Assert.True(letter.HasHtml);
        var view = HtmlView.Of(html)!;
        Assert.Contains("the wall", view);
        Assert.Contains("https://studio.example/x", view);
        foreach (var gone in new[] { "script", "onclick", "spy.example", "<form", "<input", "evil.example" })
            Assert.DoesNotContain(gone, view);
    }

    [Fact] // a tree of it would end the process
    public void What_is_nested_too_deep_is_not_shown() =>
        Assert.Null(HtmlView.Of(string.Concat(Enumerable.Repeat("<div>", 200_000)) + "x"));

    [Fact]
    public void The_answer_of_a_calendar_program_is_found()
    {
        var letter = IncomingMail.Read(
            Message(
                "From: a@b.example\nContent-Type: text/calendar; method=REPLY; charset=utf-8\n\nBEGIN:VCALENDAR\nMETHOD:REPLY\nBEGIN:VEVENT\nUID:m1@studio.example\nDTSTAMP:20270101T000000Z\nATTENDEE;PARTSTAT=DECLINED:mailto:a@b.example\nEND:VEVENT\nEND:VCALENDAR\n"
            )
        );
        Assert.Equal(
            ("m1@studio.example", Gesamt.Formats.Calendars.Attendance.Declined),
            Gesamt.Formats.Calendars.Invitations.ReplyIn(letter.Reply!)
        );
        Assert.Null(Gesamt.Formats.Calendars.Invitations.ReplyIn("no calendar"));
    }

    [Theory] // common practice of mail programs in the languages of Europe
    [InlineData(
        "Yes, gladly.\n\nOn Mon, 25 Jan 2027 at 10:30, Isolde Marrin <isolde@marrin.example> wrote:\n> Shall we?\n> Isolde"
    )]
    [InlineData(
        "Yes, gladly.\n\nOn Mon, 25 Jan 2027 at 10:30, Isolde Marrin\n<isolde@marrin.example> wrote:\n\n> Shall we?"
    )]
    [InlineData("Yes, gladly.\n\nAm 25.01.2027 um 10:30 schrieb Isolde Marrin:\n> Shall we?")]
    [InlineData(
        "Yes, gladly.\n\nLe lun. 25 janv. 2027 à 10:30, Isolde Marrin <isolde@marrin.example> a écrit :\n> Shall we?"
    )]
    [InlineData("Yes, gladly.\n\nW dniu 25.01.2027 o 10:30, Isolde Marrin napisał(a):\n> Shall we?")]
    [InlineData(
        "Yes, gladly.\n\nOn 25 Jan 2027, at 10:30, Isolde Marrin <isolde@marrin.example> wrote:\n\nShall we?\n\nIsolde"
    )]
    [InlineData("Yes, gladly.\n\n-----Original Message-----\nFrom: Isolde Marrin\nSent: Monday\nShall we?")]
    [InlineData(
        "Yes, gladly.\n\n________________________________\nFrom: Isolde Marrin <isolde@marrin.example>\nSent: Monday, 25 January 2027 10:30\nTo: Mona\nSubject: The wall\n\nShall we?"
    )]
    [InlineData(
        "Yes, gladly.\n\nVon: Isolde Marrin\nGesendet: Montag, 25. Januar 2027 10:30\nAn: Mona\nBetreff: Die Wand\n\nShall we?"
    )]
    [InlineData(
        "On Mon, 25 Jan 2027 at 10:30, Isolde Marrin <isolde@marrin.example> wrote:\n> Shall we?\n> Isolde\n\nYes, gladly."
    )]
    [InlineData("> Shall we?\n\nYes, gladly.")]
    public void Quotes_of_every_mail_program_are_folded(string body)
    {
        var (own, quoted) = QuotedText.Split(body);
        Assert.Equal("Yes, gladly.", own.Trim('_', '\n'));
        Assert.Contains("Shall we?", quoted);
    }

    [Theory]
    [
        InlineData("I was told: come on Monday."),
        InlineData("From: where do you come?\nI wrote: nothing."),
        InlineData("> first?\nYes.\n> second?\nNo."),
        InlineData("On Monday I painted the wall and wrote to the council:\nthey agree.\nThen I slept.\n\nMona")
    ]
    public void What_only_looks_like_a_quote_stays(string body) => Assert.Equal((body, ""), QuotedText.Split(body));

    [Fact] // nothing of a letter is lost by folding
    public void Own_and_quoted_together_are_all_of_it() =>
        Gen.Int[0, Pieces.Length - 1]
            .Select(i => Pieces[i])
            .Array[0, 12]
            .Sample(
                lines =>
                {
                    var (own, quoted) = QuotedText.Split(string.Join('\n', lines));
                    Assert.Equal(
                        lines.Where(line => line.Length > 0).Order(),
                        $"{own}\n{quoted}".Split('\n').Where(line => line.Length > 0).Order()
                    );
                },
                iter: 3_000
            );

    private static readonly string[] Pieces =
    [
        "Hello",
        "> quoted",
        "",
        "On Mon, A wrote:",
        "-----Original Message-----",
        "From: A",
        "Sent: B",
        "To: C",
        "Subject: D",
        "you wrote:",
    ];
}
