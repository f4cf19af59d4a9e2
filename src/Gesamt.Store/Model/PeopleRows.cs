using Gesamt.Core;
using Gesamt.Core.Invoicing;
using Gesamt.Core.People;
using NodaTime;

namespace Gesamt.Store.Model;

/// <summary>What somebody is to the studio.</summary>
public enum PersonSort
{
    Client,
    Colleague,
    Supplier,
    Venue,
    Partner,
}

/// <summary>The way somebody prefers to be reached.</summary>
public enum ReachBy
{
    Mail,
    Phone,
    Profile,
}

/// <summary>A person or their organisation, with one way at least to reach them.</summary>
public sealed class PersonRow
{
    public PersonId Id { get; set; }
    public PersonSort Sort { get; set; }

    [Personal("Somebody erased")]
    public required string Name
    {
        get;
        set => Rename(field = value);
    }

    /// <summary>The name without accents, case and the order of its words, by which likeness is looked for.</summary>
    [Derived]
    [Personal("erased somebody")]
    public string PlainName { get; private set; } = "";

    /// <summary>Sets the plain name again; rows of an older Gesamt have none.</summary>
    public void Rename(string name) => PlainName = Matching.Plain(name) ?? "";

    /// <summary>How letters greet them, where it is not their first name.</summary>
    [Personal]
    public string? Greeted { get; set; }

    [Personal]
    public string? Organisation { get; set; }

    [Personal]
    public string? Mail { get; set; }

    [Personal]
    public string? Phone { get; set; }

    /// <summary>Further mail addresses and phone numbers, one a line.</summary>
    [Personal]
    public string Also { get; set; } = "";

    /// <summary>The UID of the vCard they came with (RFC 6350, 6.7.6), by which the same card is known again.</summary>
    [Personal]
    public string? CardUid { get; set; }

    /// <summary>A link to a profile elsewhere.</summary>
    [Personal]
    public string? Profile { get; set; }

    [Personal]
    public ReachBy? Prefers { get; set; }

    [Personal]
    public string? Address { get; set; }

    [Personal]
    public string? TaxNumber { get; set; }

    /// <summary>By its two letters (ISO 3166-1); null for the studio's own.</summary>
    [Personal]
    public string? Country { get; set; }

    /// <summary>What they are as the law of late payment asks.</summary>
    public BuyerSort Buyer { get; set; }

    /// <summary>The owner's own notes.</summary>
    [Personal]
    public string Notes { get; set; } = "";

    /// <summary>SHA-256 of a picture or logo.</summary>
    [NamesFile]
    [Personal]
    public string? Picture { get; set; }
    public int Edition { get; set; }

    /// <summary>Set while this one was found to be the same as another, who stands for both.</summary>
    public PersonId? MergedInto { get; set; }
    public Instant? RemovedAt { get; set; }

    /// <summary>When they were erased: nothing says who they were.</summary>
    public Instant? ErasedAt { get; set; }
}

/// <summary>A project whose client was erased: what was said in it is blank. What the law keeps goes later.</summary>
public sealed class ErasureRow
{
    public int Id { get; set; }
    public ProjectId ProjectId { get; set; }
    public Instant At { get; set; }

    /// <summary>When its agreements went; null while there are any.</summary>
    public Instant? AgreementsAt { get; set; }

    /// <summary>When its invoices, payments and receipts went; null while there are any.</summary>
    public Instant? BooksAt { get; set; }
}

/// <summary>Somebody with a part in a project besides its client.</summary>
public sealed class ProjectPersonRow
{
    public int Id { get; set; }
    public ProjectId ProjectId { get; set; }
    public PersonId PersonId { get; set; }
    public PersonRow? Person { get; set; }
    public PersonPart Part { get; set; }
}

public enum JoinSort
{
    Merged,
    Split,
    Different,
}

/// <summary>Two people told to be one, one told to be two, or two told to be different; a merge or split can be undone.</summary>
[Personal]
public sealed class JoinRow
{
    public int Id { get; set; }
    public JoinSort Sort { get; set; }
    public PersonId FromId { get; set; }
    public PersonId ToId { get; set; }

    /// <summary>What changed hands and what was filled in, as JSON, so that it can be undone.</summary>
    [HoldsJson]
    public string Moved { get; set; } = "{}";
    public Instant At { get; set; }
    public Instant? UndoneAt { get; set; }
}

/// <summary>A label on a project, a person or a task.</summary>
[Personal]
public sealed class LabelRow
{
    public int Id { get; set; }
    public required string Label { get; set; }
    public ProjectId? ProjectId { get; set; }
    public PersonId? PersonId { get; set; }
    public TaskId? TaskId { get; set; }
}
