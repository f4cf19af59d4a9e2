using Gesamt.Core;
using Gesamt.Core.Facts;
using Gesamt.Core.Work;
using NodaTime;

namespace Gesamt.Store.Model;

/// <summary>A list of the owner's making, a mood board or shared notes: of a project, or kept to be laid.</summary>
public sealed class ListRow
{
    public ListId Id { get; set; }

    /// <summary>Null where it is kept to be laid.</summary>
    public ProjectId? ProjectId { get; set; }

    /// <summary>Its random name in addresses.</summary>
    public required string PublicId { get; set; }
    public ListSort Sort { get; set; }

    [Personal(PersonalAttribute.Erased)]
    public required string Name { get; set; }

    /// <summary>Who reads and who changes it.</summary>
    public ListReader Reader { get; set; }

    /// <summary>Its columns as JSON; none on boards and notes.</summary>
    [HoldsJson]
    [Personal("[]")]
    public string Columns { get; set; } = "[]";

    /// <summary>A board that was put to the client to be approved: they change nothing any more.</summary>
    public bool Final { get; set; }

    /// <summary>Counts changes of its name, reader and columns.</summary>
    public int Edition { get; set; }

    [Personal(true)]
    public bool Removed { get; set; }
}

/// <summary>An entry of a list.</summary>
public sealed class EntryRow
{
    public EntryId Id { get; set; }
    public ListId ListId { get; set; }

    /// <summary>Its random name in addresses.</summary>
    public required string Key { get; set; }

    /// <summary>Its place among the entries.</summary>
    public int Place { get; set; }

    /// <summary>What its cells hold, as JSON by the keys of their columns.</summary>
    [HoldsJson]
    [Personal("{}")]
    public string Cells { get; set; } = "{}";
    public bool Struck { get; set; }

    [Personal(true)]
    public bool Removed { get; set; }

    /// <summary>The day of its first step that is not done; null without one.</summary>
    public LocalDate? NextStep { get; set; }

    /// <summary>Counts its changes.</summary>
    public int Edition { get; set; }

    /// <summary>SHA-256 of its picture.</summary>
    [NamesFile(nameof(FileName))]
    [Personal]
    public string? Hash { get; set; }

    /// <summary>The file's name.</summary>
    [Personal]
    public string? FileName { get; set; }

    /// <summary>Media type of the picture.</summary>
    [Personal]
    public string? Type { get; set; }

    /// <summary>Bytes of the picture.</summary>
    public long Size { get; set; }
    public Actor By { get; set; }
    public Instant At { get; set; }
}

/// <summary>What a client changed in a list, marked until the owner has seen it.</summary>
[Personal]
public sealed class ListChangeRow
{
    public ListChangeId Id { get; set; }
    public ListId ListId { get; set; }
    public EntryId EntryId { get; set; }

    /// <summary>Who it was, by the name they had.</summary>
    public required string Who { get; set; }
    public Instant At { get; set; }

    /// <summary>The entry before, as JSON; null where they added it.</summary>
    [HoldsJson]
    public string? Before { get; set; }

    /// <summary>The entry as they left it, as JSON: undone only while it still stands so.</summary>
    [HoldsJson]
    public required string After { get; set; }
    public Instant? SeenAt { get; set; }
    public Instant? UndoneAt { get; set; }
}
