using System.Collections.Immutable;
using System.Text;
using AngleSharp.Html.Parser;
using Gesamt.Core.Letters;
using MimeKit;
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
    ImmutableArray<MailFile> Files)
{
    public IncomingMarks Marks => new(References, Recipients, FromAddress);
}

/// <summary>Reads messages, lenient in what they get wrong.</summary>
public static class IncomingMail
{
    static IncomingMail() => Encoding.RegisterProvider(CodePagesEncodingProvider.Instance); // windows-1252 and its kin, before MimeKit is first used

    /// <exception cref="FormatException">The bytes are no message.</exception>
    public static IncomingLetter Read(byte[] bytes)
    {
        using var stream = new MemoryStream(bytes);
        var message = MimeMessage.Load(stream);
        var from = message.From.Mailboxes.FirstOrDefault() ?? message.Sender;
        if (from is null) throw new FormatException("The message names no sender.");
        return new(
            string.IsNullOrWhiteSpace(from.Name) ? from.Address : from.Name,
            from.Address.ToLowerInvariant(),
            [.. message.To.Mailboxes.Concat(message.Cc.Mailboxes).Select(to => to.Address.ToLowerInvariant())],
            message.Subject ?? "",
            TextOf(message),
            string.IsNullOrEmpty(message.MessageId) ? $"none-{Core.Papers.CanonicalJson.Hash(bytes)}@gesamt.invalid" : message.MessageId,
            message.InReplyTo,
            [.. message.References.Concat(message.InReplyTo is { } one ? [one] : []).Distinct()],
            message.Date == default ? null : Instant.FromDateTimeOffset(message.Date),
            IsAutomatic(message),
            FilesOf(message));
    }

    /// <summary>Parts that are files: attachments, and named parts beside the text. A message that was passed on is one, too.</summary>
    private static ImmutableArray<MailFile> FilesOf(MimeMessage message)
    {
        var files = ImmutableArray.CreateBuilder<MailFile>();
        foreach (var part in message.BodyParts)
        {
            if (part is MimeKit.TextPart { IsAttachment: false, FileName: null } || part is MimePart { IsAttachment: false, FileName: null }) continue;
            using var bytes = new MemoryStream();
            if (part is MessagePart passedOn) passedOn.Message?.WriteTo(bytes);
            else if (part is MimePart { Content: { } content }) content.DecodeTo(bytes);
            var name = part switch { MimePart { FileName: { Length: > 0 } named } => named, MessagePart => "message.eml", _ => "file" };
            if (bytes.Length > 0) files.Add(new(name, part.ContentType.MimeType, bytes.ToArray()));
        }
        return files.ToImmutable();
    }

    private static string TextOf(MimeMessage message) =>
        message.TextBody ?? (message.HtmlBody is { } html ? new HtmlParser().ParseDocument(html).Body?.TextContent.Trim() ?? "" : "");

    private static bool IsAutomatic(MimeMessage message) =>
        message.Headers["Auto-Submitted"] is { } submitted && !submitted.Trim().Equals("no", StringComparison.OrdinalIgnoreCase)
        || message.Body is MultipartReport
        || message.Headers["Return-Path"]?.Trim() == "<>";
}
