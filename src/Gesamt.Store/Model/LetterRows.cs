using Gesamt.Core;
using NodaTime;

namespace Gesamt.Store.Model;

/// <summary>Where a letter stands. Aside: it belongs to no project. Ready: handed over in a few seconds unless taken back. Uncertain: it may have gone out, and is never sent again by itself.</summary>
public enum LetterState { Draft, Held, Ready, Sent, Uncertain, Stopped, Skipped, Received, Unfiled, Aside }

/// <summary>A letter in or out, with its own copy of the text.</summary>
public sealed class LetterRow
{
    public LetterId Id { get; set; }
    public ProjectId? ProjectId { get; set; }
    public LetterState State { get; set; }
    public bool ByItself { get; set; }
    public required string FromName { get; set; }
    public required string FromMail { get; set; }
    public required string ToName { get; set; }
    public required string ToMail { get; set; }
    /// <summary>Whose address it is, which is whose link it carries; the client when nothing is said.</summary>
    public PersonId? ToPerson { get; set; }
    public string Subject { get; set; } = "";
    public string Body { get; set; } = "";
    public string Quoted { get; set; } = "";
    public Instant At { get; set; }
    public string? MessageId { get; set; }
    /// <summary>An invitation that goes with it (RFC 5546), as text.</summary>
    public string? Invitation { get; set; }
    public string? InReplyTo { get; set; }
    /// <summary>The blanks nothing filled, by name; sending waits for them.</summary>
    public string Gaps { get; set; } = "";
    public RunId? RunId { get; set; }
    public string? Step { get; set; }
    public int? Occurrence { get; set; }
    /// <summary>A proposal that becomes sent when this letter is handed over.</summary>
    public VersionId? SendsVersion { get; set; }
    /// <summary>Raised by every edit; a stale save is answered with both texts.</summary>
    public int Edition { get; set; }
}

public enum OutboxState { Claimed, Confirmed, Withdrawn, Uncertain }

/// <summary>A finished message on its way out, claimed under a key that exists once.</summary>
public sealed class OutboxRow
{
    public int Id { get; set; }
    public required string Key { get; set; }
    public LetterId LetterId { get; set; }
    public ProjectId ProjectId { get; set; }
    public required string MessageId { get; set; }
    public required byte[] Message { get; set; }
    public Instant NotBefore { get; set; }
    public OutboxState State { get; set; }
    /// <summary>Set before the carrier is called; found set after a restart, the carrier is asked whether it has the message.</summary>
    public Instant? HandOverBegan { get; set; }
    public int Failures { get; set; }
    public string? LastError { get; set; }
}
