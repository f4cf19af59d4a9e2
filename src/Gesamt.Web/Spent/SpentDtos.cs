using Gesamt.Web.Invoicing;
using NodaTime;

namespace Gesamt.Web.Spent;

/// <summary>Work to be kept.</summary>
/// <param name="On">Its day; null for today.</param>
/// <param name="Time">As people write it: “2.25”, “1:30”, “90 min”; a number alone counts hours.</param>
/// <param name="Task">The task they went into; null for the project as a whole.</param>
public sealed record KeepHoursDto(LocalDate? On, string Time, string Words, long? Task = null);

/// <summary>A cost to be kept.</summary>
/// <param name="On">Its day; null for today.</param>
/// <param name="Amount">With its tax, in major units of the project’s currency.</param>
/// <param name="Tax">The rate in it, per cent.</param>
/// <param name="ChargeOn">Whether the client pays it besides.</param>
/// <param name="Account">Where it was paid from; null for the first account of its currency.</param>
public sealed record KeepCostDto(
    LocalDate? On,
    string Payee,
    string What,
    string Category,
    string Amount,
    string Tax,
    bool ChargeOn,
    long? Account = null
);

/// <summary>The number of what was just kept.</summary>
public sealed record SpentIdDto(long Id);

/// <summary>Work of a day.</summary>
/// <param name="Time">“2 h 15 min”.</param>
/// <param name="Charged">Where it is charged, “on 2027-004”; null while it is not. What is charged does not change any more.</param>
/// <param name="Task">The task they went into.</param>
public sealed record HoursDto(
    long Id,
    LocalDate On,
    string Day,
    string Time,
    string Words,
    string? Charged,
    TaskOfHoursDto? Task
);

/// <summary>The task that hours went into.</summary>
public sealed record TaskOfHoursDto(long Id, string Title);

/// <summary>What an hour earns, after the costs that the client does not pay besides.</summary>
/// <param name="SoFar">With the hours so far.</param>
/// <param name="Forecast">With what is still to do, as far as it is estimated; null where that is nothing.</param>
public sealed record EarnsDto(string SoFar, string? Forecast);

/// <summary>A cost of the project.</summary>
/// <param name="Amount">As a field takes it.</param>
/// <param name="Said">With its currency.</param>
/// <param name="Receipt">The name of its receipt; null without one.</param>
/// <param name="Charged">Where it is charged on; null while it is not. What is charged does not change any more.</param>
public sealed record CostDto(
    long Id,
    LocalDate On,
    string Day,
    string Payee,
    string What,
    string Category,
    string Amount,
    string Said,
    string Tax,
    bool ChargeOn,
    string? Receipt,
    string? Charged
);

/// <param name="Hours">“14 h 30 min”; null without any.</param>
/// <param name="HoursFree">Of them what no invoice charges; null where that is nothing.</param>
/// <param name="Costs">With tax; null without any.</param>
/// <param name="CostsFree">Of them what is to be charged on and is not; null where that is nothing.</param>
public sealed record SpentSumsDto(string? Hours, string? HoursFree, string? Costs, string? CostsFree);

/// <summary>What a supplier would ask.</summary>
/// <param name="Said">With its currency.</param>
/// <param name="Stands">“valid until Fri 12 March”, “ran out Fri 12 March”, “taken”; empty for no day.</param>
/// <param name="File">The name of its file; null without one.</param>
/// <param name="Taken">It became a cost.</param>
public sealed record QuoteDto(long Id, KeepQuoteDto Kept, string Said, string Stands, string? File, bool Taken);

/// <summary>What a supplier would ask, to be kept.</summary>
/// <param name="Amount">With its tax, in major units of the project’s currency.</param>
/// <param name="Tax">The rate in it, per cent.</param>
/// <param name="ValidUntil">The last day on which it holds.</param>
public sealed record KeepQuoteDto(string Supplier, string What, string Amount, string Tax, LocalDate? ValidUntil);

/// <summary>What is usual of costs and hours here.</summary>
/// <param name="Categories">Of costs, those that were said before.</param>
/// <param name="Rate">An hour’s price in the price list; empty where it has none.</param>
/// <param name="Tax">The rate of tax that costs mostly have here.</param>
public sealed record SpentUsualDto(IReadOnlyList<string> Categories, string Rate, string Tax);

/// <summary>What a project took, the last first.</summary>
/// <param name="Quotes">What suppliers would ask.</param>
/// <param name="Earns">What an hour earns; null without hours or an agreed price.</param>
/// <param name="HoursOff">No hours are kept in this studio.</param>
public sealed record SpentDto(
    IReadOnlyList<HoursDto> Hours,
    IReadOnlyList<CostDto> Costs,
    IReadOnlyList<QuoteDto> Quotes,
    SpentSumsDto Sums,
    SpentUsualDto Usual,
    EarnsDto? Earns,
    bool HoursOff
);

/// <summary>Lines of an invoice that charge what was kept, and the days it is of.</summary>
public sealed record SpentLinesDto(BillLineDto[] Lines, LocalDate From, LocalDate Until);

/// <summary>How an invoice writes its prices.</summary>
/// <param name="Currency">By ISO 4217.</param>
/// <param name="Gross">Whether they include the tax.</param>
internal sealed record BillPrices(string Currency, bool Gross);
