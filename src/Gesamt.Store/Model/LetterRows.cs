using Gesamt.Core;
using NodaTime;

namespace Gesamt.Store.Model;

/// <summary>Where a letter stands. Aside: it belongs to no project. Ready: handed over in a few seconds unless taken back. Uncertain: it may have gone out, and is never sent again by itself.</summary>
/// <remarks>Put off: a held one that comes up again at the time of its step. Kept: taken over from a file; it says what was written, and moves nothing.</remarks>
public enum LetterState
{
    Draft,
    Held,
    Ready,
    Sent,
    Uncertain,
    Stopped,
    Skipped,
    Received,
    Unfiled,
    Aside,
    PutOff,
    Kept,
}

/// <summary>A letter in or out, with its own copy of the text.</summary>
public sealed class LetterRow
{
    public LetterId Id { get; set; }
    public ProjectId? ProjectId { get; set; }
    public LetterState State { get; set; }
    public bool ByItself { get; set; }

    [Personal(PersonalAttribute.Erased)]
    public required string FromName { get; set; }

    [Personal(PersonalAttribute.Nowhere)]
    public required string FromMail { get; set; }

    [Personal(PersonalAttribute.Erased)]
    public required string ToName { get; set; }

    [Personal(PersonalAttribute.Nowhere)]
    public required string ToMail { get; set; }

    /// <summary>Whose address it is, which is whose link it carries; the client when nothing is said.</summary>
    public PersonId? ToPerson { get; set; }

    [Personal(PersonalAttribute.Erased)]
    public string Subject { get; set; } = "";

    [Personal]
    public string Body { get; set; } = "";

    [Personal]
    public string Quoted { get; set; } = "";
    public Instant At { get; set; }
    public string? MessageId { get; set; }

    /// <summary>An invitation that goes with it (RFC 5546), as text.</summary>
    [Personal]
    public string? Invitation { get; set; }

    [Personal]
    public string? InReplyTo { get; set; }

    /// <summary>SHA-256 of the message as it came in, byte for byte.</summary>
    [NamesFile]
    [Personal]
    public string? Original { get; set; }

    /// <summary>It has a part in HTML, which can be shown beside its text.</summary>
    [Personal(false)]
    public bool HasHtml { get; set; }

    /// <summary>The blanks nothing filled, by name; sending waits for them.</summary>
    [Personal]
    public string Gaps { get; set; } = "";
    public RunId? RunId { get; set; }
    public string? Step { get; set; }
    public int? Occurrence { get; set; }

    /// <summary>A proposal that becomes sent when this letter is handed over.</summary>
    public VersionId? SendsVersion { get; set; }

    /// <summary>An invoice or credit note that goes with it, as PDF and as data.</summary>
    public InvoiceId? CarriesInvoice { get; set; }

    /// <summary>Why the mail server refused it, until it is sent again.</summary>
    [Personal]
    public string? Problem { get; set; }

    /// <summary>It came from a robot, or tells of a failed delivery.</summary>
    public bool Automatic { get; set; }

    /// <summary>The text it began with, by its key.</summary>
    public string? Template { get; set; }

    /// <summary>When it goes out, for one that is to be sent later.</summary>
    public Instant? GoesAt { get; set; }

    /// <summary>Raised by every edit; a stale save is answered with both texts.</summary>
    public int Edition { get; set; }
    public List<LetterFileRow> Files { get; set; } = [];
}

/// <summary>A file that goes with a letter, or came with one; its bytes lie under their SHA-256.</summary>
[Personal]
public sealed class LetterFileRow
{
    public int Id { get; set; }
    public LetterId LetterId { get; set; }
    public required string Name { get; set; }

    [NamesFile(nameof(Name))]
    public required string Hash { get; set; }
    public long Size { get; set; }
    public required string Type { get; set; }
}

/// <summary>The mail servers of the studio, and how far its inbox was read.</summary>
public sealed class MailAccountRow
{
    public int Id { get; set; } = 1;
    public string SmtpHost { get; set; } = "";
    public int SmtpPort { get; set; }
    public MailSecurity SmtpSecurity { get; set; }
    public string SmtpUser { get; set; } = "";

    /// <summary>Protected by the keys beside the database; never leaves the server.</summary>
    [StaysHere]
    public string SmtpPassword { get; set; } = "";
    public string ImapHost { get; set; } = "";
    public int ImapPort { get; set; }
    public MailSecurity ImapSecurity { get; set; }
    public string ImapUser { get; set; } = "";

    [StaysHere]
    public string ImapPassword { get; set; } = "";
    public int Edition { get; set; }

    /// <summary>UIDVALIDITY and the last UID that was filed (RFC 3501, 2.3.1.1).</summary>
    public long UidValidity { get; set; }
    public long LastUid { get; set; }

    /// <summary>What was wrong when the inbox was read last.</summary>
    public string? Problem { get; set; }
}

/// <summary>How a line to a mail server is kept from others: TLS from the beginning, begun by STARTTLS, or not at all, for a server on the same machine.</summary>
public enum MailSecurity
{
    Tls,
    StartTls,
    None,
}

public enum OutboxState
{
    Claimed,
    Confirmed,
    Withdrawn,
    Uncertain,
}

/// <summary>A finished message on its way out, claimed under a key that exists once.</summary>
public sealed class OutboxRow
{
    public int Id { get; set; }
    public required string Key { get; set; }
    public LetterId LetterId { get; set; }
    public ProjectId ProjectId { get; set; }
    public required string MessageId { get; set; }
    public Instant NotBefore { get; set; }
    public OutboxState State { get; set; }

    /// <summary>Set before the carrier is called; found set after a restart, the carrier is asked whether it has the message.</summary>
    public Instant? HandOverBegan { get; set; }
    public int Failures { get; set; }

    [Personal]
    public string? LastError { get; set; }
}
