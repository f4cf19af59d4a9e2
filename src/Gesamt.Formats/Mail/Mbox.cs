using System.Globalization;
using System.Text;
using MimeKit;
using NodaTime;

namespace Gesamt.Formats.Mail;

/// <summary>A message as it lies in a mailbox file.</summary>
public sealed record StoredMessage(string Sender, Instant At, byte[] Message);

/// <summary>Mailbox files (RFC 4155): messages one after another, each begun by a line of its own; lines in them that look like it are quoted, and so are quoted ones, so that nothing is lost (“mboxrd”, common practice).</summary>
/// <remarks>Bytes all the way: a line ends with a line feed and nothing else, so that no byte of any encoding is taken for one. What was written is read back byte for byte.</remarks>
public static class Mbox
{
    private static readonly byte[] From = "From "u8.ToArray();

    public static byte[] Write(IEnumerable<StoredMessage> messages)
    {
        using var file = new MemoryStream();
        foreach (var message in messages)
        {
            file.Write(
                Encoding.ASCII.GetBytes(
                    $"From {(message.Sender.Length > 0 ? message.Sender : "MAILER-DAEMON")} {message.At.ToDateTimeUtc().ToString("ddd MMM d HH:mm:ss yyyy", CultureInfo.InvariantCulture)}\n"
                )
            );
            foreach (var line in Lines(message.Message))
            {
                if (IsMark(line.Span))
                    file.WriteByte((byte)'>');
                file.Write(line.Span);
            }
            if (message.Message is not [.., (byte)'\n'])
                file.WriteByte((byte)'\n');
            file.WriteByte((byte)'\n');
        }
        return file.ToArray();
    }

    /// <summary>The messages of a mailbox file, or the one message of an .eml file; none when it is neither.</summary>
    public static IReadOnlyList<byte[]> Read(byte[] bytes)
    {
        if (!bytes.AsSpan().StartsWith(From))
            return IsMessage(bytes) ? [bytes] : [];
        List<MemoryStream> messages = [];
        var afterEmpty = true;
        foreach (var line in Lines(bytes))
        {
            if (afterEmpty && line.Span.StartsWith(From))
                messages.Add(new());
            else
                messages[^1].Write(line.Span is [(byte)'>', ..] && IsMark(line.Span) ? line.Span[1..] : line.Span);
            afterEmpty = line.Span is [(byte)'\n'] or [(byte)'\r', (byte)'\n'];
        }
        return [.. messages.Select(message => WithoutLast(message.ToArray()))];
    }

    /// <summary>The empty line that parts messages belongs to the file, not to the message.</summary>
    private static byte[] WithoutLast(byte[] message) =>
        message switch
        {
            [.., (byte)'\n', (byte)'\r', (byte)'\n'] => message[..^2],
            [.., (byte)'\n', (byte)'\n'] => message[..^1],
            _ => message,
        };

    /// <summary>Whether a line reads as the beginning of a message, quoted or not.</summary>
    private static bool IsMark(ReadOnlySpan<byte> line) => line.TrimStart((byte)'>').StartsWith(From);

    /// <summary>The lines of a file with their ends.</summary>
    private static IEnumerable<ReadOnlyMemory<byte>> Lines(ReadOnlyMemory<byte> bytes)
    {
        while (!bytes.IsEmpty)
        {
            var end = bytes.Span.IndexOf((byte)'\n') is >= 0 and var at ? at + 1 : bytes.Length;
            yield return bytes[..end];
            bytes = bytes[end..];
        }
    }

    private static bool IsMessage(byte[] bytes)
    {
        try
        {
            using var stream = new MemoryStream(bytes);
            return MimeMessage.Load(stream).From.Count > 0;
        }
        catch (FormatException)
        {
            return false;
        }
    }
}
