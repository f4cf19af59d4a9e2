using Gesamt.Core;
using Gesamt.Core.Calendar;
using Gesamt.Core.Stages;
using NodaTime;

namespace Gesamt.Store.Model;

/// <summary>Where money lies: a bank account, a cash box.</summary>
public sealed class AccountRow
{
    public AccountId Id { get; set; }
    public required string Name { get; set; }
    public required string Currency { get; set; }

    /// <summary>The bank's own number; a statement of it books here.</summary>
    public string Iban { get; set; } = "";

    /// <summary>Means of payment that arrive here, as JSON.</summary>
    [HoldsJson]
    public string Takes { get; set; } = "[]";

    /// <summary>Its books begin with this day, at its beginning with this balance.</summary>
    public LocalDate OpenedOn { get; set; }
    public long OpeningMinor { get; set; }
    public bool Removed { get; set; }
}

/// <summary>Money moved between two accounts: neither income nor cost.</summary>
public sealed class TransferRow
{
    public TransferId Id { get; set; }
    public LocalDate On { get; set; }
    public AccountId FromId { get; set; }
    public AccountId ToId { get; set; }

    /// <summary>In the currency of the account it left, and of the one it went to.</summary>
    public long LeftMinor { get; set; }
    public long ArrivedMinor { get; set; }
    public string Words { get; set; } = "";
    public bool Removed { get; set; }
}

/// <summary>Money from somebody who is no client.</summary>
public sealed class IncomeRow
{
    public IncomeId Id { get; set; }
    public LocalDate On { get; set; }
    public required string Payer { get; set; }
    public required string What { get; set; }
    public string Category { get; set; } = "";

    /// <summary>With its tax.</summary>
    public long GrossMinor { get; set; }
    public required string Currency { get; set; }
    public int TaxPartsPerMillion { get; set; }

    /// <summary>Where it arrived; null for the first account of its currency.</summary>
    public AccountId? AccountId { get; set; }
    public bool Removed { get; set; }
}

/// <summary>A cost that books itself on its days.</summary>
public sealed class RecurringCostRow
{
    public RecurringCostId Id { get; set; }

    /// <summary>Null for a cost of the studio as a whole.</summary>
    public ProjectId? ProjectId { get; set; }

    [Personal(PersonalAttribute.Erased, Kept = Kept.AsBooks)]
    public required string Payee { get; set; }

    [Personal(PersonalAttribute.Erased, Kept = Kept.AsBooks)]
    public required string What { get; set; }
    public string Category { get; set; } = "";

    /// <summary>With its tax; of those ahead.</summary>
    public long GrossMinor { get; set; }
    public required string Currency { get; set; }
    public int TaxPartsPerMillion { get; set; }
    public AccountId? AccountId { get; set; }
    public Every Every { get; set; }
    public LocalDate First { get; set; }

    /// <summary>The last day on which one can be; null for no such day.</summary>
    public LocalDate? Until { get; set; }

    /// <summary>How many of its occurrences were booked.</summary>
    public int Booked { get; set; }

    /// <summary>The day of the next one; null where it is over or stopped.</summary>
    public LocalDate? Next { get; set; }

    /// <summary>Its days.</summary>
    public Recurrence Recurrence => new(Every, First, Until);
}

/// <summary>A year that was closed and handed over.</summary>
public sealed class ClosedYearRow
{
    public int Year { get; set; }
    public Instant At { get; set; }

    /// <summary>What its entries came to by currency when it was closed, as JSON.</summary>
    [HoldsJson]
    public required string Control { get; set; }
}

/// <summary>How likely projects of a stage are to be booked, as the owner sees it.</summary>
/// <param name="Percent">0 to 100.</param>
public sealed record OwnChance(Stage Stage, int Percent);
