using Gesamt.Web.Erasing;
using Gesamt.Web.Hosting;
using Gesamt.Web.Letters;
using MimeKit;

namespace Gesamt.Web.StandIns;

/// <summary>A letter as its recipient finds it.</summary>
public sealed record PostedDto(long Id, string From, string To, string Subject, DateTimeOffset At, bool FromStudio);

/// <param name="Text">The plain part; addresses of links stand in it in full.</param>
public sealed record PostedLetterDto(
    long Id,
    string From,
    string To,
    string Subject,
    string Text,
    DateTimeOffset At,
    bool FromStudio
);

/// <summary>The stand-in post office: takes each Message-ID once, can say which it knows, and lets its letters be read and answered as their recipient.</summary>
public sealed class PostOffice(Settings settings)
    : StandInFile(
        settings.Data,
        "post-office.db",
        """
        CREATE TABLE IF NOT EXISTS Messages(
            Id INTEGER PRIMARY KEY, MessageId TEXT NOT NULL UNIQUE, FromStudio INTEGER NOT NULL, Fetched INTEGER NOT NULL,
            Sender TEXT NOT NULL, Recipient TEXT NOT NULL, Subject TEXT NOT NULL, At TEXT NOT NULL, Raw BLOB NOT NULL) STRICT;
        """
    ),
        IStandInMail,
        IStandInMemory
{
    /// <inheritdoc/>
    public void Forget(GoneOutside gone)
    {
        using var open = Open();
        foreach (var letter in gone.Letters)
            Run(open, "DELETE FROM Messages WHERE MessageId = $id", ("$id", letter));
        foreach (var address in gone.Addresses)
            Run(
                open,
                "DELETE FROM Messages WHERE instr(lower(Sender), $a) > 0 OR instr(lower(Recipient), $a) > 0",
                ("$a", address)
            );
        Clear(open);
    }

    /// <inheritdoc/>
    public Task<HandOver> SendAsync(string messageId, byte[] message, CancellationToken stop)
    {
        KillPoints.Reach("carrier-before");
        Put(message, fromStudio: true);
        KillPoints.Reach("carrier-after");
        return Task.FromResult<HandOver>(new HandOver.Accepted());
    }

    /// <inheritdoc/>
    public Task<bool?> KnowsAsync(string messageId, CancellationToken stop)
    {
        using var open = Open();
        return Task.FromResult<bool?>(
            Read(open, "SELECT 1 FROM Messages WHERE MessageId = $id", _ => true, ("$id", messageId)).Count > 0
        );
    }

    /// <inheritdoc/>
    public Task<IReadOnlyList<(long Number, byte[] Message)>> FetchAsync(CancellationToken stop)
    {
        using var open = Open();
        return Task.FromResult<IReadOnlyList<(long, byte[])>>(
            Read(
                open,
                "SELECT Id, Raw FROM Messages WHERE FromStudio = 0 AND Fetched = 0 ORDER BY Id",
                row => (row.GetInt64(0), (byte[])row.GetValue(1))
            )
        );
    }

    /// <inheritdoc/>
    public Task FiledAsync(long number, CancellationToken stop)
    {
        using var open = Open();
        Run(open, "UPDATE Messages SET Fetched = 1 WHERE Id = $id", ("$id", number));
        return Task.CompletedTask;
    }

    /// <summary>The newest letters, at most 200, of all or of one address.</summary>
    public IReadOnlyList<PostedDto> List(string? address)
    {
        using var open = Open();
        return Read(
            open,
            "SELECT Id, Sender, Recipient, Subject, At, FromStudio FROM Messages WHERE $a IS NULL OR Sender LIKE '%' || $a || '%' OR Recipient LIKE '%' || $a || '%' ORDER BY Id DESC LIMIT 200",
            row => new PostedDto(
                row.GetInt64(0),
                row.GetString(1),
                row.GetString(2),
                row.GetString(3),
                DateTimeOffset.Parse(row.GetString(4), System.Globalization.CultureInfo.InvariantCulture),
                row.GetInt64(5) == 1
            ),
            ("$a", address)
        );
    }

    /// <exception cref="MissingException">There is no such letter.</exception>
    public PostedLetterDto Letter(long id)
    {
        var (message, fromStudio) = Load(id);
        return new(
            id,
            Shown(message.From),
            Shown(message.To),
            message.Subject ?? "",
            message.TextBody ?? "",
            message.Date,
            fromStudio
        );
    }

    /// <summary>The recipient's answer to a letter of the studio, quoting it as mail programs do.</summary>
    public void Answer(long id, string text, DateTimeOffset at)
    {
        var (letter, fromStudio) = Load(id);
        if (!fromStudio)
            throw new RefusedException("This is an answer itself; choose a letter of the studio to answer.");
        var me = letter.To.Mailboxes.First();
        var quoted = string.Join(
            '\n',
            (letter.TextBody ?? "").ReplaceLineEndings("\n").TrimEnd().Split('\n').Select(line => $"> {line}")
        );
        Write(
            me,
            letter.ReplyTo.Mailboxes.FirstOrDefault() ?? letter.From.Mailboxes.First(),
            $"Re: {letter.Subject}",
            $"{text}\n\nOn {letter.Date:d MMM yyyy}, {letter.From.Mailboxes.First().Name} wrote:\n{quoted}\n",
            at,
            letter.MessageId
        );
    }

    /// <summary>A letter from anybody to the studio.</summary>
    public void Write(
        MailboxAddress from,
        MailboxAddress to,
        string subject,
        string text,
        DateTimeOffset at,
        string? answers
    )
    {
        var message = new MimeMessage
        {
            Subject = subject,
            Date = at,
            MessageId = $"{Guid.NewGuid():n}@post.example",
            Body = new TextPart("plain") { Text = text },
        };
        message.From.Add(from);
        message.To.Add(to);
        if (answers is not null)
        {
            message.InReplyTo = answers;
            message.References.Add(answers);
        }
        using var stream = new MemoryStream();
        message.WriteTo(stream);
        Put(stream.ToArray(), fromStudio: false);
    }

    /// <summary>“Oskar Lind &lt;oskar@quaystreet.example&gt;”.</summary>
    private static string Shown(InternetAddressList addresses) =>
        string.Join(
            ", ",
            addresses.Mailboxes.Select(a => string.IsNullOrEmpty(a.Name) ? a.Address : $"{a.Name} <{a.Address}>")
        );

    /// <summary>A message to the studio as it comes over the wire, whatever its bytes are.</summary>
    public void Receive(byte[] bytes)
    {
        using var open = Open();
        Run(
            open,
            "INSERT INTO Messages(MessageId, FromStudio, Fetched, Sender, Recipient, Subject, At, Raw) VALUES($m, 0, 0, '', '', 'as it came', '1970-01-01T00:00:00Z', $b)",
            ("$m", $"{Guid.NewGuid():n}@wire.example"),
            ("$b", bytes)
        );
    }

    private void Put(byte[] bytes, bool fromStudio)
    {
        using var stream = new MemoryStream(bytes);
        var message = MimeMessage.Load(stream);
        using var open = Open();
        Run(
            open,
            "INSERT INTO Messages(MessageId, FromStudio, Fetched, Sender, Recipient, Subject, At, Raw) VALUES($m, $f, 0, $s, $r, $j, $a, $b) ON CONFLICT(MessageId) DO NOTHING",
            ("$m", message.MessageId),
            ("$f", fromStudio ? 1 : 0),
            ("$s", Shown(message.From)),
            ("$r", Shown(message.To)),
            ("$j", message.Subject ?? ""),
            ("$a", message.Date.ToString("O")),
            ("$b", bytes)
        );
    }

    private (MimeMessage Message, bool FromStudio) Load(long id)
    {
        using var open = Open();
        var rows = Read(
            open,
            "SELECT Raw, FromStudio FROM Messages WHERE Id = $id",
            row => ((byte[])row.GetValue(0), row.GetInt64(1) == 1),
            ("$id", id)
        );
        if (rows.Count == 0)
            throw new MissingException("letter");
        using var stream = new MemoryStream(rows[0].Item1);
        try
        {
            return (MimeMessage.Load(stream), rows[0].Item2);
        }
        catch (FormatException)
        {
            throw new RefusedException(
                "What was sent here does not read as mail. It lies in the studio's tray, as it came."
            );
        }
    }
}
