using System.Buffers;
using System.Globalization;
using System.IO.Pipelines;
using System.Runtime.CompilerServices;
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
        var parting = new Parting();
        List<byte[]> messages = [];
        foreach (var line in Lines(bytes))
            if (parting.Next(line.Span) is { } message)
                messages.Add(message);
        messages.Add(parting.Last());
        return messages;
    }

    /// <summary>The same, message by message, of a mailbox larger than memory.</summary>
    /// <exception cref="FormatException">One message has more than <paramref name="most"/> bytes.</exception>
    public static async IAsyncEnumerable<byte[]> ReadAsync(
        Stream file,
        int most,
        [EnumeratorCancellation] CancellationToken stop
    )
    {
        var reader = PipeReader.Create(file);
        var parting = new Parting();
        var (isBox, whole) = ((bool?)null, false);
        while (!whole)
        {
            // as much as is there; of the beginning enough to tell what it is
            var read = isBox is null ? await reader.ReadAtLeastAsync(From.Length, stop) : await reader.ReadAsync(stop);
            whole = read.IsCompleted;
            var rest = read.Buffer;
            isBox ??= rest.Slice(0, Math.Min(rest.Length, From.Length)).ToArray().AsSpan().SequenceEqual(From);
            if (rest.Length + parting.Length > most)
                throw new FormatException($"A message of more than {most / (1024 * 1024)} MB cannot be taken over.");
            if (isBox == true)
            {
                while (rest.PositionOf((byte)'\n') is { } end)
                {
                    var line = rest.Slice(0, rest.GetPosition(1, end));
                    if (parting.Next(line.ToArray()) is { } message)
                        yield return message;
                    rest = rest.Slice(line.End);
                }
                if (whole && !rest.IsEmpty && parting.Next(rest.ToArray()) is { } last)
                    yield return last;
            }
            else if (whole && rest.ToArray() is var one && IsMessage(one))
                yield return one;
            reader.AdvanceTo(whole ? rest.End : rest.Start, rest.End);
        }
        if (isBox == true)
            yield return parting.Last();
    }

    /// <summary>Puts lines together to messages.</summary>
    private sealed class Parting
    {
        private readonly MemoryStream message = new();
        private bool begun,
            afterEmpty = true;

        /// <summary>How much there is of the message that is being put together.</summary>
        public long Length => message.Length;

        /// <summary>Takes a line with its end.</summary>
        /// <returns>The message that ended before it, if one did.</returns>
        public byte[]? Next(ReadOnlySpan<byte> line)
        {
            byte[]? ended = null;
            if (afterEmpty && line.StartsWith(From))
            {
                if (begun)
                    ended = Last();
                begun = true;
            }
            else
                message.Write(line is [(byte)'>', ..] && IsMark(line) ? line[1..] : line);
            afterEmpty = line is [(byte)'\n'] or [(byte)'\r', (byte)'\n'];
            return ended;
        }

        public byte[] Last()
        {
            var last = WithoutLast(message.ToArray());
            message.SetLength(0);
            return last;
        }
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
