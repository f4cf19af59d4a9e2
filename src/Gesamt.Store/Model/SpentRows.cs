using Gesamt.Core;
using NodaTime;

namespace Gesamt.Store.Model;

/// <summary>Work on a project: how long, on which day.</summary>
public sealed class HoursRow
{
    public HoursId Id { get; set; }
    public ProjectId ProjectId { get; set; }
    public LocalDate On { get; set; }
    public int Minutes { get; set; }

    [Personal]
    public string Words { get; set; } = "";

    /// <summary>The task they went into; null for the project as a whole.</summary>
    public TaskId? TaskId { get; set; }

    /// <summary>The invoice that charged them; they are free again once all of it is credited.</summary>
    public InvoiceId? InvoiceId { get; set; }
    public bool Removed { get; set; }
}

/// <summary>The one clock: work that is going on, or that went on for so long that its time is asked about.</summary>
public sealed class ClockRow
{
    public int Id { get; set; }
    public ProjectId ProjectId { get; set; }
    public TaskId? TaskId { get; set; }

    [Personal]
    public string Words { get; set; } = "";
    public Instant StartedAt { get; set; }

    /// <summary>One runs at a time.</summary>
    public bool IsRunning { get; set; }

    /// <summary>When it was stopped; null while it runs.</summary>
    public Instant? StoppedAt { get; set; }
}

/// <summary>What was spent: for a project, or for the studio as a whole.</summary>
public sealed class CostRow
{
    public CostId Id { get; set; }

    /// <summary>Null for a cost of the studio as a whole.</summary>
    public ProjectId? ProjectId { get; set; }
    public LocalDate On { get; set; }

    [Personal(PersonalAttribute.Erased, Kept = Kept.AsBooks)]
    public required string Payee { get; set; }

    [Personal(PersonalAttribute.Erased, Kept = Kept.AsBooks)]
    public required string What { get; set; }
    public string Category { get; set; } = "";

    /// <summary>With its tax.</summary>
    public long GrossMinor { get; set; }
    public required string Currency { get; set; }
    public int TaxPartsPerMillion { get; set; }

    /// <summary>Whether the client pays it besides.</summary>
    public bool ChargeOn { get; set; }

    /// <summary>The invoice that charged it; it is free again once all of it is credited.</summary>
    public InvoiceId? InvoiceId { get; set; }

    /// <summary>SHA-256 of its receipt.</summary>
    [NamesFile(nameof(ReceiptName))]
    [Personal(Kept = Kept.AsBooks)]
    public string? ReceiptHash { get; set; }

    [Personal(Kept = Kept.AsBooks)]
    public string? ReceiptName { get; set; }

    [Personal(Kept = Kept.AsBooks)]
    public string? ReceiptType { get; set; }

    /// <summary>Where it was paid from; null for the first account of its currency.</summary>
    public AccountId? AccountId { get; set; }

    /// <summary>The recurring cost whose occurrence this is, and which, from 0; once each.</summary>
    public RecurringCostId? Recurring { get; set; }
    public int? Occurrence { get; set; }
    public bool Removed { get; set; }
}

/// <summary>What a supplier would ask for something, until a day; taken, it becomes a cost.</summary>
public sealed class QuoteRow
{
    public QuoteId Id { get; set; }
    public ProjectId ProjectId { get; set; }

    [Personal(PersonalAttribute.Erased)]
    public required string Supplier { get; set; }

    [Personal(PersonalAttribute.Erased)]
    public required string What { get; set; }

    /// <summary>With its tax.</summary>
    public long GrossMinor { get; set; }
    public required string Currency { get; set; }
    public int TaxPartsPerMillion { get; set; }

    /// <summary>The last day on which it holds; null where that was not said.</summary>
    public LocalDate? ValidUntil { get; set; }

    /// <summary>SHA-256 of its file.</summary>
    [NamesFile(nameof(FileName))]
    [Personal]
    public string? FileHash { get; set; }

    [Personal]
    public string? FileName { get; set; }

    [Personal]
    public string? FileType { get; set; }

    /// <summary>The cost it became.</summary>
    public CostId? CostId { get; set; }
    public bool Removed { get; set; }
}
