using System.Collections.Immutable;
using System.Text;
using Gesamt.Core.Letters;
using Gesamt.Core.Texts;
using MimeKit;
using MimeKit.Utils;
using NodaTime;

namespace Gesamt.Formats.Mail;

/// <summary>A message that came in, as far as Gesamt reads it.</summary>
/// <param name="Automatic">An automatic reply (RFC 3834) or a delivery report (RFC 3464): no answer from a person.</param>
public sealed record IncomingLetter(
    string FromName,
    string FromAddress,
    ImmutableArray<string> Recipients,
    string Subject,
    string Text,
    string MessageId,
    string? InReplyTo,
    ImmutableArray<string> References,
    Instant? Date,
    bool Automatic,
    ImmutableArray<MailFile> Files
)
{
    /// <summary>When the mail server took it (the topmost Received line, RFC 5321, 4.4); the date it names itself where none says.</summary>
    public Instant? Arrived { get; init; }

    /// <summary>What those it was written to are called.</summary>
    public ImmutableArray<string> RecipientNames { get; init; } = [];

    /// <summary>It has a part in HTML.</summary>
    public bool HasHtml { get; init; }

    /// <summary>The answer of a calendar program to an invitation (RFC 5546, 3.2.3), as iCalendar text.</summary>
    public string? Reply { get; init; }

    public IncomingMarks Marks => new(References, Recipients, FromAddress);
}

/// <summary>Reads messages, lenient in what they get wrong.</summary>
public static class IncomingMail
{
    /// <summary>What a letter is read for: more text or more files than this come only as the whole message.</summary>
    public const int MostText = 200_000,
        MostFiles = 100,
        MostBytes = 64 * 1024 * 1024;

    /// <summary>How long reading one message may take.</summary>
    public static readonly TimeSpan Longest = TimeSpan.FromSeconds(5);

    private const int MostName = 120,
        MostSubject = 300,
        MostId = 900,
        Deepest = 40;

    static IncomingMail() => Encoding.RegisterProvider(CodePagesEncodingProvider.Instance); // windows-1252 and its kin, before MimeKit is first used

    /// <summary>Reads a message within <see cref="Longest"/>.</summary>
    /// <exception cref="FormatException">The bytes are no message, or it is larger or slower to read than any letter.</exception>
    public static IncomingLetter Read(byte[] bytes)
    {
        if (bytes.Length > MostBytes)
            throw new FormatException($"The message has more than {MostBytes / (1024 * 1024)} MB.");
        using var time = new CancellationTokenSource(Longest);
        try
        {
            return Read(bytes, time.Token);
        }
        catch (OperationCanceledException e)
        {
            throw new FormatException("The message takes too long to read.", e);
        }
        catch (Exception e) when (e is not (FormatException or OutOfMemoryException))
        {
            // whatever a stranger made of it, it is no letter that can be read
            throw new FormatException($"The message cannot be read: {e.Message}", e);
        }
    }

    private static IncomingLetter Read(byte[] bytes, CancellationToken stop)
    {
        using var stream = new MemoryStream(bytes);
        var message = MimeMessage.Load(new ParserOptions { MaxMimeDepth = Deepest }, stream, stop);
        var from = message.From.Mailboxes.FirstOrDefault() ?? message.Sender;
        var (text, files) = (TextOf(message, stop), FilesOf(message, stop));
        return new(
            ShortText.Of(
                from is null ? "Nobody named"
                    : string.IsNullOrWhiteSpace(from.Name) ? from.Address
                    : from.Name,
                MostName
            ),
            from?.Address.ToLowerInvariant() ?? "",
            [.. message.To.Mailboxes.Concat(message.Cc.Mailboxes).Select(to => to.Address.ToLowerInvariant())],
            ShortText.Of(message.Subject ?? "", MostSubject),
            text.Length <= MostText
                ? text
                : text[..(char.IsHighSurrogate(text[MostText - 1]) ? MostText - 1 : MostText)],
            message.MessageId is not { Length: > 0 and <= MostId }
                ? $"none-{Core.Papers.CanonicalJson.Hash(bytes)}@gesamt.invalid"
                : message.MessageId,
            message.InReplyTo,
            [.. message.References.Concat(message.InReplyTo is { } one ? [one] : []).Distinct()],
            message.Date == default ? null : Instant.FromDateTimeOffset(message.Date),
            IsAutomatic(message),
            text.Length <= MostText && files.Length <= MostFiles ? files : [.. files.Take(MostFiles), Whole(bytes)]
        )
        {
            Arrived = ArrivedAt(message) ?? (message.Date == default ? null : Instant.FromDateTimeOffset(message.Date)),
            RecipientNames =
            [
                .. message
                    .To.Mailboxes.Concat(message.Cc.Mailboxes)
                    .Where(to => !string.IsNullOrWhiteSpace(to.Name))
                    .Select(to => ShortText.Of(to.Name!, MostName)),
            ],
            HasHtml = message.HtmlBody is not null,
            Reply = ReplyOf(message),
        };
    }

    /// <summary>The HTML part of a message as it came; null where it has none or cannot be read.</summary>
    public static string? HtmlOf(byte[] bytes)
    {
        if (bytes.Length > MostBytes)
            return null;
        try
        {
            using var time = new CancellationTokenSource(Longest);
            using var stream = new MemoryStream(bytes);
            return MimeMessage.Load(new ParserOptions { MaxMimeDepth = Deepest }, stream, time.Token).HtmlBody;
        }
        catch (Exception e) when (e is not OutOfMemoryException)
        {
            return null;
        }
    }

    /// <summary>The date of the topmost Received line: what stands behind its last semicolon.</summary>
    private static Instant? ArrivedAt(MimeMessage message) =>
        message.Headers[HeaderId.Received] is { } received
        && received.LastIndexOf(';') is > 0 and var mark
        && DateUtils.TryParse(received[(mark + 1)..], out var at)
            ? Instant.FromDateTimeOffset(at)
            : null;

    private static string? ReplyOf(MimeMessage message) =>
        message
            .BodyParts.OfType<MimeKit.TextPart>()
            .FirstOrDefault(part =>
                part.ContentType.IsMimeType("text", "calendar")
                && string.Equals(part.ContentType.Parameters["method"], "REPLY", StringComparison.OrdinalIgnoreCase)
            )
            is { } reply
        && reply.Text.Length < MostText
            ? reply.Text
            : null;

    /// <summary>The message itself as a file.</summary>
    public static MailFile Whole(byte[] bytes) => new("message.eml", "message/rfc822", bytes);

    /// <summary>Parts that are files: attachments, and named parts beside the text. A message that was passed on is one, too.</summary>
    private static ImmutableArray<MailFile> FilesOf(MimeMessage message, CancellationToken stop)
    {
        var files = ImmutableArray.CreateBuilder<MailFile>();
        foreach (var part in message.BodyParts.Where(IsFile).Take(MostFiles + 1))
        {
            stop.ThrowIfCancellationRequested();
            using var bytes = new MemoryStream();
            if (part is MessagePart passedOn)
                passedOn.Message?.WriteTo(bytes);
            else if (part is MimePart { Content: { } content })
                content.DecodeTo(bytes);
            var name = part switch
            {
                MimePart { FileName: { Length: > 0 } named } => named,
                MessagePart => "message.eml",
                _ => "file",
            };
            if (bytes.Length > 0)
                files.Add(new(name, part.ContentType.MimeType, bytes.ToArray()));
        }
        return files.ToImmutable();
    }

    private static bool IsFile(MimeEntity part) => part is not MimePart { IsAttachment: false, FileName: null };

    /// <summary>The plain part, else the text of the HTML part; one character more than is kept where there is more.</summary>
    private static string TextOf(MimeMessage message, CancellationToken stop) =>
        message.TextBody ?? (message.HtmlBody is { } html ? HtmlText.Of(html, MostText + 1, stop) : "");

    private static bool IsAutomatic(MimeMessage message) =>
        message.Headers["Auto-Submitted"] is { } submitted
            && !submitted.Trim().Equals("no", StringComparison.OrdinalIgnoreCase)
        || message.Body is MultipartReport
        || message.Headers["Return-Path"]?.Trim() == "<>";
}
