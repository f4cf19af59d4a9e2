using Gesamt.Web.Hosting;
using NodaTime;

namespace Gesamt.Web.Invoicing;

/// <param name="UnitPrice">In major units, exact.</param>
/// <param name="Tax">Per cent, “exempt” or “reverse charge”.</param>
/// <param name="Hours">The kept hours that it charges.</param>
/// <param name="Costs">The costs that it charges on.</param>
public sealed record BillLineDto(
    string Key,
    string Title,
    string Detail,
    string Quantity,
    string Unit,
    string UnitPrice,
    string Tax,
    DiscountDto? Less = null,
    long[]? Hours = null,
    long[]? Costs = null
);

/// <summary>A file that goes with its letter.</summary>
/// <param name="Hash">SHA-256.</param>
public sealed record BillFileDto(string Hash, string Name);

/// <summary>What an invoice says besides its lines.</summary>
/// <param name="About">Below its title.</param>
/// <param name="PurchaseReference">The client's own order number.</param>
/// <param name="ExemptReason">Why a part of it is exempt.</param>
/// <param name="Note">Below its sums.</param>
/// <param name="DueDays">Days from its issue.</param>
public sealed record BillSaysDto(
    string About,
    string PurchaseReference,
    LocalDate? PerformedFrom,
    LocalDate? PerformedUntil,
    string ExemptReason,
    string Note,
    int DueDays,
    BillFileDto[] Files
);

/// <summary>An invoice as the page edits it.</summary>
public sealed record BillDto(string Currency, bool Gross, BillLineDto[] Lines, DiscountDto? Less, BillSaysDto Says);

/// <summary>An invoice that is kept as it is, also while it is not yet complete.</summary>
/// <param name="Of">What one is for that was thrown away and is brought back; null for every other.</param>
public sealed record SaveBillDto(int Edition, BillDto Bill, BillPurposeDto? Of = null);

/// <summary>What an invoice is written for besides being one.</summary>
/// <param name="Changes">The recurring invoice that it changes for what lies ahead; null for none.</param>
/// <param name="InterestOf">The late invoice whose interest it asks for; null for none.</param>
public sealed record BillPurposeDto(long? Changes, long? InterestOf);

/// <summary>A sum of an invoice by its name.</summary>
public sealed record BilledSumDto(string Label, string Amount);

/// <summary>What it comes to.</summary>
/// <param name="Lines">What each line comes to, in their order.</param>
/// <param name="Rows">From the discount to the rounding.</param>
public sealed record BilledDto(string[] Lines, BilledSumDto[] Rows, string Total);

/// <summary>What is missing, or worth a look.</summary>
/// <param name="Blocks">Whether it cannot be issued so.</param>
public sealed record BillPointDto(string Field, string Words, bool Blocks);

/// <summary>The letter that carries it, its blanks not filled yet.</summary>
public sealed record BillLetterDto(string Subject, string Body, string? To);

/// <summary>An invoice that is being written.</summary>
/// <param name="NoData">Why it will have no data beside it; null where it has.</param>
public sealed record BillDraftDto(
    int Edition,
    BillDto Bill,
    BillForDto For,
    BilledDto? Sums,
    BillPointDto[] Points,
    BillLetterDto Letter,
    string? NoData
);

/// <summary>Whom it is for, and how it will be called.</summary>
/// <param name="Number">What it will be called if it is issued now.</param>
/// <param name="Due">When it is due then.</param>
/// <param name="Interest">The number of the late invoice whose interest it asks for; null for none.</param>
public sealed record BillForDto(
    string Project,
    string Client,
    long Person,
    string Number,
    string Due,
    string? Interest,
    BillPurposeDto Of,
    string[] Addressee
);

/// <param name="Subject">Of the letter that carries it; null for none.</param>
public sealed record IssueBillDto(int Edition, string? Subject = null, string? Body = null);

/// <param name="Letter">Null where it goes without one.</param>
/// <param name="Subject">Of that letter, as it was filled.</param>
public sealed record IssuedDto(long Invoice, string Number, long? Letter, string Subject = "");
