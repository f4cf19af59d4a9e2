using Gesamt.Core;
using Gesamt.Core.Facts;
using NodaTime;

namespace Gesamt.Store.Model;

/// <summary>A kept file; its bytes lie beside the database under their SHA-256.</summary>
public sealed class FileRow
{
    public FileId Id { get; set; }
    public ProjectId ProjectId { get; set; }

    /// <summary>Its name in clients' addresses.</summary>
    public required string PublicId { get; set; }
    public FileGroup Group { get; set; }
    public string? Phase { get; set; }

    /// <summary>Counts the drafts of a project.</summary>
    public int Version { get; set; }

    [Personal(PersonalAttribute.Erased)]
    public required string Name { get; set; }

    /// <summary>A word on its use, for final files.</summary>
    [Personal]
    public string Use { get; set; } = "";

    /// <summary>SHA-256 of its bytes; empty once they were erased.</summary>
    [NamesFile(nameof(Name))]
    [Personal]
    public required string Hash { get; set; }
    public long Size { get; set; }

    /// <summary>The media type its bytes say it is.</summary>
    public required string Type { get; set; }
    public Instant At { get; set; }
    public Actor By { get; set; }

    [Personal(true)]
    public bool Removed { get; set; }
}

/// <summary>A round of review: what was put up and what was said with it.</summary>
public sealed class ReviewRow
{
    public ReviewId Id { get; set; }
    public ProjectId ProjectId { get; set; }
    public required string PublicId { get; set; }
    public string? Phase { get; set; }

    [Personal]
    public string Words { get; set; } = "";

    /// <summary>Numbers of the files put up, as JSON.</summary>
    [HoldsJson]
    public required string Files { get; set; }

    /// <summary>Who returned or approved it.</summary>
    [Personal]
    public string? AnsweredBy { get; set; }
    public Instant At { get; set; }
}

/// <summary>A view of the Register that was given a name.</summary>
public sealed class SavedViewRow
{
    public int Id { get; set; }
    public required string Name { get; set; }
    public required string Query { get; set; }
}
