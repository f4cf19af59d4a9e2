using Gesamt.Core;
using NodaTime;

namespace Gesamt.Store.Model;

/// <summary>A short text written down in the bar. Without a project it lies in the tray.</summary>
[Personal]
public sealed class SlipRow
{
    public int Id { get; set; }
    public required string Text { get; set; }
    public Instant At { get; set; }
    public ProjectId? ProjectId { get; set; }
    public TaskId? TaskId { get; set; }
    public NoteId? NoteId { get; set; }

    /// <summary>It was dealt with, taken back, or put into the bin.</summary>
    public Instant? GoneAt { get; set; }
}

/// <summary>A file a visitor has handed in with a form that is not sent yet.</summary>
[StaysHere]
public sealed class UploadRow
{
    public int Id { get; set; }
    public required string PublicId { get; set; }
    public int FormId { get; set; }
    public required string Name { get; set; }

    [NamesFile(nameof(Name))]
    public required string Hash { get; set; }
    public long Size { get; set; }
    public required string Type { get; set; }
    public Instant At { get; set; }

    /// <summary>The address it came from, for the quota of what is not sent yet.</summary>
    public string From { get; set; } = "";
    public bool Taken { get; set; }
}

/// <summary>What a detail of a project is known to be.</summary>
[Personal]
public sealed class DetailRow
{
    public int Id { get; set; }
    public ProjectId ProjectId { get; set; }
    public required string Name { get; set; }
    public required string Value { get; set; }
}

/// <summary>An answer that says something else than what is known of a detail: the owner decides, and nothing is overwritten before.</summary>
[Personal]
public sealed class DetailDoubtRow
{
    public int Id { get; set; }
    public ProjectId ProjectId { get; set; }
    public required string Name { get; set; }
    public required string Said { get; set; }
    public Instant At { get; set; }

    /// <summary>When it was decided.</summary>
    public Instant? GoneAt { get; set; }
}

/// <summary>A part of a project's brief.</summary>
public sealed class BriefRow
{
    public int Id { get; set; }
    public ProjectId ProjectId { get; set; }
    public required string Part { get; set; }

    [Personal]
    public required string Text { get; set; }
    public int Edition { get; set; }
}

public enum ImportState
{
    Matching,
    Running,
    Done,
    Failed,
    Undone,
}

/// <summary>A table being taken over.</summary>
public sealed class ImportRow
{
    public int Id { get; set; }
    public required string Name { get; set; }

    [NamesFile(nameof(Name))]
    public required string Hash { get; set; }
    public ImportState State { get; set; }

    /// <summary>Which column is what, and how dates and numbers are written, as JSON.</summary>
    [HoldsJson]
    public string Matching { get; set; } = "{}";
    public int Total { get; set; }
    public int Read { get; set; }
    public int Made { get; set; }

    /// <summary>Rows that were not taken over, with what is wrong, as JSON.</summary>
    [HoldsJson]
    public string Errors { get; set; } = "[]";
    public Instant At { get; set; }
    public string? Problem { get; set; }
}

/// <summary>A project that an import made.</summary>
public sealed class ImportedRow
{
    public int Id { get; set; }
    public int ImportId { get; set; }
    public ProjectId ProjectId { get; set; }
    public PersonId PersonId { get; set; }
    public bool NewPerson { get; set; }
}

/// <summary>What was handed in beside a table.</summary>
public enum ImportPart
{
    Letter,
    File,
}

/// <summary>A letter or a file that was handed in beside a table, until it is laid to one of its projects or forgotten.</summary>
[StaysHere]
public sealed class ImportPartRow
{
    public int Id { get; set; }
    public int ImportId { get; set; }
    public ImportPart Sort { get; set; }

    /// <summary>A file's name, a letter's subject.</summary>
    public required string Name { get; set; }

    /// <summary>A file's folders, parted by slashes; a letter's addresses, one a line, the writer's first.</summary>
    public required string Place { get; set; }

    /// <summary>What the people of a letter are called.</summary>
    public string People { get; set; } = "";

    /// <summary>When a letter was written.</summary>
    public Instant? At { get; set; }

    [NamesFile(nameof(Name))]
    public required string Hash { get; set; }
    public long Size { get; set; }
    public required string Type { get; set; }

    /// <summary>The row it was laid to when that was taken over; null while it waits, and for what belonged nowhere.</summary>
    public int? TakenTo { get; set; }
}
