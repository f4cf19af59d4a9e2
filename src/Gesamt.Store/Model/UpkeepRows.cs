using NodaTime;

namespace Gesamt.Store.Model;

/// <summary>How the house keeps itself: its nightly backup, its look over kept files, its keys.</summary>
[StaysHere]
public sealed class UpkeepRow
{
    public int Id { get; set; } = 1;

    /// <summary>When a backup was last made and found sound.</summary>
    public Instant? BackupAt { get; set; }

    /// <summary>When one was last tried.</summary>
    public Instant? BackupTriedAt { get; set; }

    /// <summary>Why the last one failed.</summary>
    public string? BackupProblem { get; set; }

    /// <summary>The hash up to which kept files were looked over in this round.</summary>
    public string ScrubbedTo { get; set; } = "";
    public Instant? ScrubbedAt { get; set; }

    /// <summary>Hashes of kept files whose bytes are not what was kept, one a line.</summary>
    public string Changed { get; set; } = "";

    /// <summary>Since when what was erased still lies in free pages of the file; null once they were cleared.</summary>
    public Instant? ClearSince { get; set; }

    /// <summary>A fingerprint of the key of client links, so that another one is noticed.</summary>
    public string? LinksKey { get; set; }
}

/// <summary>A browser the owner signed in with.</summary>
[StaysHere]
public sealed class SessionRow
{
    public int Id { get; set; }

    /// <summary>Random; stands in the cookie, and opens nothing once the session has ended.</summary>
    public required string Name { get; set; }
    public Instant Began { get; set; }
    public Instant SeenAt { get; set; }
    public string Agent { get; set; } = "";
    public string Address { get; set; } = "";
    public Instant? EndedAt { get; set; }
}
