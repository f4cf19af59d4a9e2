using Gesamt.Core;
using NodaTime;

namespace Gesamt.Store.Model;

/// <summary>A file of bank statements that was taken in; its bytes lie under their SHA-256.</summary>
public sealed class BankFileRow
{
    public int Id { get; set; }
    public required string Name { get; set; }

    [NamesFile(nameof(Name))]
    public required string Hash { get; set; }
    public Instant At { get; set; }

    /// <summary>Lines in it, and those that were not known before.</summary>
    public int Lines { get; set; }
    public int New { get; set; }
}

/// <summary>How the columns of a bank's table were matched: remembered by its headings.</summary>
public sealed class BankColumnsRow
{
    public int Id { get; set; }

    /// <summary>As they stand, a line each.</summary>
    public required string Headings { get; set; }
    public required string Account { get; set; }

    /// <summary>What each column is, as JSON.</summary>
    [HoldsJson]
    public required string Columns { get; set; }
}

/// <summary>What became of a line.</summary>
public enum BankLineState
{
    /// <summary>Nobody has said yet what it is.</summary>
    Open,
    Booked,

    /// <summary>It pays no invoice of this studio.</summary>
    SetAside,
}

/// <summary>A line of a bank statement, once, in whatever files it came.</summary>
public sealed class BankLineRow
{
    public BankLineId Id { get; set; }
    public int FileId { get; set; }

    /// <summary>By what it is known again.</summary>
    public required string Key { get; set; }
    public required string Account { get; set; }
    public LocalDate On { get; set; }

    /// <summary>Money in is positive.</summary>
    public long AmountMinor { get; set; }
    public required string Currency { get; set; }

    [Personal(Kept = Kept.AsBooks)]
    public required string Party { get; set; }

    [Personal(Kept = Kept.AsBooks)]
    public required string Text { get; set; }

    [Personal(Kept = Kept.AsBooks)]
    public required string Reference { get; set; }
    public BankLineState State { get; set; }

    /// <summary>Booked without being asked, because reference and amount left no doubt.</summary>
    public bool ByItself { get; set; }

    /// <summary>The cost that this money out paid.</summary>
    public CostId? CostId { get; set; }

    /// <summary>When it was booked or set aside.</summary>
    public Instant? DoneAt { get; set; }
}

/// <summary>A payment that a line of the bank brought: one line can pay several invoices.</summary>
public sealed class BankBookingRow
{
    public int Id { get; set; }
    public BankLineId LineId { get; set; }
    public PaymentId PaymentId { get; set; }
}
