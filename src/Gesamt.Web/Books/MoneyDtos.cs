using Gesamt.Web.Spent;
using NodaTime;

namespace Gesamt.Web.Books;

/// <summary>What a figure is made of.</summary>
public enum MoneyShow
{
    /// <summary>From clients, less what went back; as billed, invoices less credit notes.</summary>
    Received,

    /// <summary>From somebody who is no client.</summary>
    Other,
    Sent,
    Late,
    ToCome,
    Likely,
    Spent,

    /// <summary>Costs that will book themselves.</summary>
    Recurs,
}

/// <summary>The books over some days.</summary>
/// <param name="Undated">What is to come on a day nobody knows yet.</param>
/// <param name="BankWaits">Lines of the bank that nobody has said yet what they are.</param>
public sealed record MoneyOverviewDto(
    MoneyHeadDto Head,
    MoneyScaleDto Scale,
    IReadOnlyList<MoneyColumnDto> Columns,
    IReadOnlyList<MoneyPartDto> Undated,
    OwedToYouDto Owed,
    EveryMonthDto Every,
    MoneyChoicesDto Choices,
    int BankWaits
);

/// <summary>What the days are called, and what they come to.</summary>
/// <param name="Until">Included.</param>
/// <param name="Other">Empty where there is none.</param>
/// <param name="Result">Received and other income less what was spent.</param>
public sealed record MoneyHeadDto(
    string Title,
    LocalDate From,
    LocalDate Until,
    string Received,
    string Other,
    string Spent,
    string Result
);

/// <summary>How high the picture is, in minor units.</summary>
public sealed record MoneyScaleDto(long Top, long Bottom, IReadOnlyList<MoneyTickDto> Ticks);

/// <summary>A line across the picture.</summary>
public sealed record MoneyTickDto(long At, string Words);

/// <summary>A month or a year of the picture.</summary>
/// <param name="Until">Included.</param>
/// <param name="Present">Today lies in it.</param>
/// <param name="Result">In minor units and in words; of days that have begun.</param>
public sealed record MoneyColumnDto(
    string Name,
    string Long,
    LocalDate From,
    LocalDate Until,
    bool Present,
    IReadOnlyList<MoneyPartDto> Parts,
    MoneyResultDto? Result
);

/// <summary>What is left of some days.</summary>
public sealed record MoneyResultDto(long Minor, string Amount);

/// <summary>A part of a column, in minor units and in words.</summary>
public sealed record MoneyPartDto(MoneyShow Show, long Minor, string Amount);

/// <summary>What clients owe, the oldest first.</summary>
public sealed record OwedToYouDto(string Sum, string Late, int Count, IReadOnlyList<OwedRowDto> Rows);

/// <param name="When">“20 days late”, “due Fri 12 March”.</param>
/// <param name="Next">What becomes of it, or what was done: “a letter asks for your OK”, “reminded 4 times, last Mon 25 Jan”; empty for nothing.</param>
public sealed record OwedRowDto(
    long Project,
    string Title,
    string Number,
    string When,
    bool Late,
    string Next,
    string Amount
);

/// <summary>What comes and goes every month.</summary>
/// <param name="Months">The names of the last four.</param>
public sealed record EveryMonthDto(
    IReadOnlyList<string> Months,
    IReadOnlyList<MonthlyClientDto> Clients,
    IReadOnlyList<RecurringCostDto> Costs,
    string CostsAMonth
);

/// <summary>How a month's invoice stands.</summary>
public enum MonthPaid
{
    None,
    ToCome,
    Sent,
    Late,
    Paid,
}

/// <summary>A client who is invoiced again and again.</summary>
public sealed record MonthlyClientDto(long Project, string Title, IReadOnlyList<MonthPaid> Months, string Amount);

/// <summary>What else can be looked at.</summary>
/// <param name="Currencies">Those in which anything moved or is owed.</param>
public sealed record MoneyChoicesDto(IReadOnlyList<int> Years, IReadOnlyList<string> Currencies, bool HasAccounts);

/// <summary>What a figure is made of.</summary>
/// <param name="More">How many are left out.</param>
public sealed record MoneyPartsDto(string Title, int Count, string Sum, IReadOnlyList<MoneyRowDto> Rows, int More);

/// <summary>An entry, or an amount still to come.</summary>
/// <param name="Amount">With its sign.</param>
public sealed record MoneyRowDto(string Key, string On, string Title, string Words, string Amount, MoneyLinkDto Of);

/// <summary>What an entry belongs to.</summary>
/// <param name="Cost">A cost that can be opened.</param>
/// <param name="Receipt">Whether it has one.</param>
public sealed record MoneyLinkDto(long? Project, long? Cost, long? Income, bool Receipt);

/// <summary>A cost as it is opened to be changed.</summary>
/// <param name="Project">Null for one of the studio as a whole.</param>
/// <param name="Receipt">Its name; null without one.</param>
/// <param name="Fixed">Why it does not change any more; empty while it can.</param>
public sealed record OpenedCostDto(
    long Id,
    long? Project,
    string ProjectTitle,
    KeepCostDto Said,
    string? Receipt,
    string Fixed
);

/// <summary>Other income as it is kept.</summary>
/// <param name="Account">Null for the first account of the studio's currency.</param>
public sealed record KeepIncomeDto(
    LocalDate? On,
    string Payer,
    string What,
    string Category,
    string Amount,
    string Tax,
    long? Account = null
);

/// <summary>What is usual when money is written down.</summary>
public sealed record BookUsualDto(
    IReadOnlyList<string> Categories,
    IReadOnlyList<string> Payees,
    IReadOnlyList<AccountNameDto> Accounts,
    string Tax
);

public sealed record AccountNameDto(long Id, string Name, string Currency);

/// <summary>A cost that books itself, as it is made and changed.</summary>
/// <param name="When">Its days; null leaves them as they are.</param>
public sealed record SaveRecurringCostDto(
    string Payee,
    string What,
    string Category,
    string Amount,
    string Tax,
    long? Account,
    long? Project,
    CostDaysDto? When
);

/// <param name="First">Null for today.</param>
/// <param name="Until">The last day on which one can be; null for no such day.</param>
public sealed record CostDaysDto(Core.Calendar.Every Every, LocalDate? First, LocalDate? Until);

/// <summary>A cost that books itself.</summary>
/// <param name="Title">What it is for, or whom it is paid to.</param>
/// <param name="Next">“next Mon 15 February”; “over” where it comes no more.</param>
/// <param name="Monthly">What it comes to in a month, and in a year.</param>
public sealed record RecurringCostDto(
    long Id,
    string Title,
    string Next,
    bool Stopped,
    string Amount,
    string Monthly,
    string Yearly,
    SaveRecurringCostDto Said
);

/// <summary>Whether it is stopped.</summary>
public sealed record StoppedDto(bool Stopped);
