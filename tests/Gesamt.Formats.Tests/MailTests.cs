using System.Text;
using CsCheck;
using Gesamt.Core.People;
using Gesamt.Formats.Mail;
using MimeKit;
using NodaTime;
using Xunit;

namespace Gesamt.Formats.Tests;

/// <summary>Letters as messages, read back by MimeKit on its own.</summary>
public sealed class MailTests
{
    private static MailLetter Letter(
        string body = "Hello Zoë,\n\n.see you\n",
        string? answers = null,
        bool automatic = false
    ) =>
        new(
            ("Isolde Márrin", "isolde@studio.example"),
            ("Zoë Gröhl", "zoe@place.example"),
            "p1@studio.example",
            "Grüße aus dem Hafen",
            body,
            "m1@studio.example",
            answers,
            Instant.FromUtc(2027, 1, 25, 10, 30),
            automatic
        );

    private static MimeMessage Read(byte[] bytes) => MimeMessage.Load(new MemoryStream(bytes));

    [Fact]
    public void What_was_written_is_what_is_read()
    {
        var message = Read(OutgoingMail.Compose(Letter()));
        Assert.Equal("Grüße aus dem Hafen", message.Subject);
        Assert.Equal("Zoë Gröhl", message.To.Mailboxes.Single().Name);
        Assert.Equal("p1@studio.example", message.ReplyTo.Mailboxes.Single().Address);
        Assert.Equal("Hello Zoë,\n\n.see you\n", message.TextBody!.ReplaceLineEndings("\n"));
        Assert.Equal("m1@studio.example", message.MessageId);
    }

    [Fact] // RFC 5322, 3.6.4
    public void An_answer_names_what_it_answers()
    {
        var message = Read(OutgoingMail.Compose(Letter(answers: "theirs@place.example")));
        Assert.Equal("theirs@place.example", message.InReplyTo);
        Assert.Contains("theirs@place.example", message.References);
    }

    [Fact] // RFC 3834, 5
    public void What_leaves_by_itself_says_so() =>
        Assert.Equal("auto-generated", Read(OutgoingMail.Compose(Letter(automatic: true))).Headers["Auto-Submitted"]);

    [Fact]
    public void Html_is_escaped_and_only_addresses_become_links()
    {
        var html = Read(OutgoingMail.Compose(Letter("<b>5 < 6</b> see https://studio.example/p/1"))).HtmlBody;
        Assert.Contains("&lt;b&gt;5 &lt; 6&lt;/b&gt;", html);
        Assert.Contains("<a href=\"https://studio.example/p/1\">", html);
    }

    [Fact]
    public void A_placeholder_is_replaced_in_every_part_and_kept_nowhere()
    {
        var filled = Read(
            OutgoingMail.Replace(
                OutgoingMail.Compose(Letter("Open ⟦link⟧ please")),
                "⟦link⟧",
                "https://studio.example/p/x/enter/t?a=1&b=2"
            )
        );
        Assert.Contains("https://studio.example/p/x/enter/t?a=1&b=2", filled.TextBody);
        Assert.Contains("a=1&amp;b=2", filled.HtmlBody);
        Assert.DoesNotContain("⟦", filled.TextBody + filled.HtmlBody);
        Assert.Equal("m1@studio.example", filled.MessageId);
    }

    [Theory]
    [
        InlineData("Auto-Submitted: auto-replied", true),
        InlineData("Auto-Submitted: no", false),
        InlineData("X-Other: yes", false)
    ] // RFC 3834
    public void Automatic_replies_are_known(string header, bool automatic) =>
        Assert.Equal(automatic, IncomingMail.Read(Raw(header, "Out of office")).Automatic);

    [Fact] // RFC 3464
    public void A_delivery_report_is_automatic() =>
        Assert.True(
            IncomingMail
                .Read(
                    Encoding.ASCII.GetBytes(
                        "From: <mailer@place.example>\r\nTo: isolde@studio.example\r\nMIME-Version: 1.0\r\nContent-Type: multipart/report; report-type=delivery-status; boundary=b\r\n\r\n--b\r\nContent-Type: text/plain\r\n\r\nfailed\r\n--b--\r\n"
                    )
                )
                .Automatic
        );

    [Fact]
    public void Windows_1252_is_read() // its code for the euro sign is 0x80
    {
        byte[] raw =
        [
            .. Encoding.ASCII.GetBytes(
                "From: a@place.example\r\nTo: b@studio.example\r\nContent-Type: text/plain; charset=windows-1252\r\n\r\n"
            ),
            0x80,
            .. Encoding.ASCII.GetBytes(" 40\r\n"),
        ];
        Assert.Equal("€ 40", IncomingMail.Read(raw).Text.Trim());
    }

    [Fact]
    public void An_html_letter_is_read_as_its_text() =>
        Assert.Equal(
            "Hello there",
            IncomingMail
                .Read(
                    Encoding.ASCII.GetBytes(
                        "From: a@place.example\r\nTo: b@studio.example\r\nContent-Type: text/html\r\n\r\n<p>Hello <b>there</b></p>\r\n"
                    )
                )
                .Text.Trim()
        );

    [Fact]
    public void What_is_no_message_is_refused() =>
        Assert.Throws<FormatException>(() => IncomingMail.Read("nothing at all"u8.ToArray()));

    [Fact] // the mail library as oracle: what is an address here it reads as the same one, and a message to it is written and read back
    public void Whatever_is_an_address_can_be_written_to()
    {
        var valid = 0;
        Gen.Select(
                Pieces.Array[1, 4].Select(string.Concat),
                Labels.Array[1, 3].Select(labels => string.Join('.', labels))
            )
            .Sample(
                (local, domain) =>
                {
                    var address = $"{local}@{domain}";
                    if (!MailAddress.IsValid(address))
                        return;
                    Interlocked.Increment(ref valid);
                    Assert.Equal(address, MimeKit.MailboxAddress.Parse(address).Address, ignoreCase: true); // a domain is the same in either case
                    Assert.Equal(
                        address,
                        Read(OutgoingMail.Compose(Letter("Hello") with { To = ("Somebody", address) }))
                            .To.Mailboxes.Single()
                            .Address,
                        ignoreCase: true
                    );
                },
                iter: 5_000
            );
        Assert.True(valid > 100, $"{valid} of them were addresses");
    }

    private static readonly Gen<string> Labels = Gen.OneOf(
        Gen.Const("a"),
        Gen.Const("example"),
        Gen.Const("x-1"),
        Gen.Const("é墙"),
        Gen.Const("-a"),
        Gen.Const(""),
        Gen.Const("B9"),
        Gen.Const("b_c")
    );

    private static readonly Gen<string> Pieces = Gen.OneOf(
        Gen.Const("a"),
        Gen.Const("Z9"),
        Gen.Const("."),
        Gen.Const("-"),
        Gen.Const("+"),
        Gen.Const("'"),
        Gen.Const("é"),
        Gen.Const("墙"),
        Gen.Const("_"),
        Gen.Const("{|}"),
        Gen.Const("@"),
        Gen.Const(" "),
        Gen.Const("\""),
        Gen.Const("example"),
        Gen.Const(".example"),
        Gen.Const("("),
        Gen.Const("\u0000")
    );

    [Theory]
    [InlineData("<p>Hello <b>there</b></p><p>Second</p>", "Hello there\n\nSecond")]
    [InlineData(
        "<html><head><title>No</title><style>p{}</style></head><body>One<br>two<script>no()</script></body></html>",
        "One\ntwo"
    )]
    [InlineData("<ul><li>a<li>b</ul>&amp; &#8364; 40", "- a\n- b\n\n& € 40")]
    [InlineData("<div>Hello,<br>it rains.</div><div><br></div><div>Ida</div>", "Hello,\nit rains.\n\nIda")]
    [InlineData("<table><tr><td>x</td><td>y</td></tr><tr><td>z</td></tr></table>", "x\ty\nz")]
    public void Html_is_read_block_by_block(string html, string text) => Assert.Equal(text, HtmlText.Of(html, 1_000));

    private static byte[] Raw(string header, string text) =>
        Encoding.ASCII.GetBytes(
            $"From: Mona <mona@place.example>\r\nTo: isolde@studio.example\r\nSubject: Re\r\nMessage-ID: <x@place.example>\r\n{header}\r\n\r\n{text}\r\n"
        );

    [Fact] // whatever a person or a studio calls itself, its letter reads back as one to that address
    public void A_name_never_hides_the_address_it_stands_before() =>
        Gen.OneOf(
                Gen.String,
                Gen.String[Gen.Char["\"\\()<>@,;:.[]=?_ \u00a0\u202eéЖ山"], 0, 300],
                Gen.Const(
                        new[]
                        {
                            "\ud83d",
                            "=?utf-8?q?x?=",
                            "a\\",
                            "\"",
                            "墙",
                            "👩‍👩‍👧‍👦",
                            "x@y.example",
                            "<x@y.example>",
                        }
                    )
                    .SelectMany(words => Gen.Int[0, words.Length - 1].Select(at => words[at]))
                    .SelectMany(word => Gen.Int[1, 400].Select(times => string.Concat(Enumerable.Repeat(word, times))))
            )
            .Sample(
                name =>
                {
                    var message = Read(
                        OutgoingMail.Replace(
                            OutgoingMail.Compose(
                                Letter("Hello ⟦link⟧") with
                                {
                                    From = (name, "ida@studio.example"),
                                    To = (name, "mona@lanternhouse.example"),
                                    Subject = name,
                                }
                            ),
                            "⟦link⟧",
                            "https://studio.example/p/x"
                        )
                    );
                    Assert.Equal(
                        ("ida@studio.example", "mona@lanternhouse.example"),
                        (message.From.Mailboxes.Single().Address, message.To.Mailboxes.Single().Address)
                    );
                },
                iter: 3_000
            );
}
