using System.Globalization;
using System.Text;
using MimeKit;
using NodaTime;

namespace Gesamt.Formats.Mail;

/// <summary>A message as it lies in a mailbox file.</summary>
public sealed record StoredMessage(string Sender, Instant At, byte[] Message);

/// <summary>Mailbox files (RFC 4155): messages one after another, each begun by a line of its own; lines in them that look like it are quoted, and so are quoted ones, so that nothing is lost (“mboxrd”, common practice).</summary>
public static class Mbox
{
    public static byte[] Write(IEnumerable<StoredMessage> messages)
    {
        using var file = new MemoryStream();
        void Line(string text) => file.Write(Encoding.Latin1.GetBytes(text + "\n"));
        foreach (var message in messages)
        {
            Line($"From {message.Sender} {message.At.ToDateTimeUtc().ToString("ddd MMM d HH:mm:ss yyyy", CultureInfo.InvariantCulture)}");
            // Latin-1 keeps every byte as it is
            foreach (var line in Encoding.Latin1.GetString(message.Message).ReplaceLineEndings("\n").TrimEnd('\n').Split('\n'))
                Line(line.TrimStart('>').StartsWith("From ", StringComparison.Ordinal) ? $">{line}" : line);
            Line("");
        }
        return file.ToArray();
    }

    /// <summary>The messages of a mailbox file, or the one message of an .eml file; none when it is neither.</summary>
    public static IReadOnlyList<byte[]> Read(byte[] bytes)
    {
        var text = Encoding.Latin1.GetString(bytes).ReplaceLineEndings("\n");
        if (!text.StartsWith("From ", StringComparison.Ordinal)) return IsMessage(bytes) ? [bytes] : [];
        List<StringBuilder> messages = [];
        var afterEmpty = true;
        foreach (var line in text.Split('\n'))
        {
            if (afterEmpty && line.StartsWith("From ", StringComparison.Ordinal)) messages.Add(new());
            else messages[^1].Append(line.Length > 0 && line[0] == '>' && line.TrimStart('>').StartsWith("From ", StringComparison.Ordinal) ? line[1..] : line).Append("\r\n");
            afterEmpty = line.Length == 0;
        }
        return [.. messages.Select(message => Encoding.Latin1.GetBytes(message.ToString().TrimEnd('\r', '\n') + "\r\n"))];
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
