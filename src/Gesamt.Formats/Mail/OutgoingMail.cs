using System.Collections.Immutable;
using System.Net;
using System.Security.Cryptography;
using System.Text;
using System.Text.RegularExpressions;
using Gesamt.Core.Texts;
using MimeKit;
using NodaTime;

namespace Gesamt.Formats.Mail;

/// <summary>A letter ready to be made a message.</summary>
/// <param name="ReplyTo">The project's own address, by which an answer is filed.</param>
/// <param name="MessageId">Without angle brackets (RFC 5322, 3.6.4).</param>
/// <param name="InReplyTo">Message-ID of the letter it answers, without angle brackets.</param>
/// <param name="Invitation">An iCalendar text that goes with it (RFC 6047, 2.4).</param>
/// <param name="Automatic">Sent by itself: marked Auto-Submitted (RFC 3834, 5), so that no robot answers it.</param>
public sealed record MailLetter(
    (string Name, string Address) From,
    (string Name, string Address) To,
    string ReplyTo,
    string Subject,
    string Body,
    string MessageId,
    string? InReplyTo,
    Instant Date,
    bool Automatic,
    string? Invitation = null,
    ImmutableArray<MailFile> Files = default
);

/// <summary>A file that goes with a letter, or came with one.</summary>
public sealed record MailFile(string Name, string Type, byte[] Content);

/// <summary>Makes messages of letters: RFC 5322 with a plain and an HTML part.</summary>
public static partial class OutgoingMail
{
    /// <summary>The whole message as bytes, as it is kept and handed over.</summary>
    /// <exception cref="ParseException">An address is none.</exception>
    public static byte[] Compose(MailLetter letter)
    {
        var message = new MimeMessage
        {
            Subject = letter.Subject,
            Date = letter.Date.ToDateTimeOffset(),
            MessageId = letter.MessageId,
        };
        message.From.Add(Address(letter.From));
        message.To.Add(Address(letter.To));
        message.ReplyTo.Add(MailboxAddress.Parse(letter.ReplyTo));
        if (letter.InReplyTo is { } answered)
        {
            message.InReplyTo = answered;
            message.References.Add(answered);
        }
        if (letter.Automatic)
            message.Headers.Add("Auto-Submitted", "auto-generated");
        var body = new MultipartAlternative { Text("plain", letter.Body), Text("html", Html(letter.Body)) };
        if (letter.Invitation is { } invitation)
            body.Add(Calendar(invitation));
        message.Body = letter.Files.IsDefaultOrEmpty ? body : WithFiles(body, letter.Files);
        Part(message.Body, letter.MessageId);
        return Bytes(message);
    }

    /// <summary>Boundaries that follow from the message's own name, so that the same letter is the same bytes each time. “=_” stands in no part: neither quoted-printable nor base64 can hold it (RFC 2045, 6.7).</summary>
    private static void Part(MimeEntity body, string messageId)
    {
        var name = Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(messageId)))[..24];
        var at = 0;
        for (var part = body as Multipart; part is not null; part = part.OfType<Multipart>().FirstOrDefault())
            part.Boundary = $"=_{at++}_{name}";
    }

    private static Multipart WithFiles(MimeEntity body, ImmutableArray<MailFile> files)
    {
        var mixed = new Multipart("mixed") { body };
        foreach (var file in files)
            mixed.Add(
                new MimePart(file.Type)
                {
                    Content = new MimeContent(new MemoryStream(file.Content)),
                    ContentDisposition = new(ContentDisposition.Attachment),
                    ContentTransferEncoding = ContentEncoding.Base64,
                    FileName = file.Name,
                }
            );
        return mixed;
    }

    /// <summary>The same message with a placeholder replaced in its text parts by what it stands for.</summary>
    public static byte[] Replace(byte[] message, string placeholder, string value)
    {
        using var stream = new MemoryStream(message);
        var loaded = MimeMessage.Load(stream);
        var found = loaded
            .BodyParts.OfType<TextPart>()
            .Where(part => part.Text.Contains(placeholder, StringComparison.Ordinal))
            .ToList();
        if (found.Count == 0)
            return message;
        foreach (var part in found)
        {
            var shown = part.IsHtml
                ? $"<a href=\"{WebUtility.HtmlEncode(value)}\">{WebUtility.HtmlEncode(value)}</a>"
                : value;
            part.SetText("utf-8", part.Text.Replace(placeholder, shown, StringComparison.Ordinal));
        }
        return Bytes(loaded);
    }

    /// <summary>The same message to somebody else, with a word before its subject.</summary>
    public static byte[] Readdress(byte[] message, (string Name, string Address) to, string before)
    {
        using var stream = new MemoryStream(message);
        var loaded = MimeMessage.Load(stream);
        loaded.To.Clear();
        loaded.To.Add(Address(to));
        loaded.Cc.Clear();
        loaded.Subject = before + loaded.Subject;
        return Bytes(loaded);
    }

    private static MailboxAddress Address((string Name, string Address) who) =>
        new(Typed.OneLine(who.Name), MailboxAddress.Parse(who.Address).Address);

    /// <summary>The invitation as a part of its own; its method is told in the type too, as RFC 6047 asks.</summary>
    private static TextPart Calendar(string text)
    {
        var part = Text("calendar", text);
        part.ContentType.Parameters.Add(
            "method",
            text.Contains("METHOD:CANCEL", StringComparison.Ordinal) ? "CANCEL" : "REQUEST"
        );
        return part;
    }

    private static TextPart Text(string subtype, string text)
    {
        var part = new TextPart(subtype) { ContentTransferEncoding = ContentEncoding.QuotedPrintable };
        part.SetText("utf-8", text);
        return part;
    }

    /// <summary>Paragraphs of escaped text; only addresses beginning with http become links.</summary>
    private static string Html(string body)
    {
        var paragraphs = WebUtility
            .HtmlEncode(body.ReplaceLineEndings("\n"))
            .Split("\n\n", StringSplitOptions.RemoveEmptyEntries)
            .Select(paragraph =>
                $"<p>{Link().Replace(paragraph, "<a href=\"$0\">$0</a>").Replace("\n", "<br>\n", StringComparison.Ordinal)}</p>"
            );
        return $"<!doctype html><html><body>\n{string.Join('\n', paragraphs)}\n</body></html>\n";
    }

    private static byte[] Bytes(MimeMessage message)
    {
        using var stream = new MemoryStream();
        message.WriteTo(new FormatOptions { NewLineFormat = NewLineFormat.Dos }, stream);
        return stream.ToArray();
    }

    [GeneratedRegex(@"https?://[^\s<>""]+")]
    private static partial Regex Link();
}
