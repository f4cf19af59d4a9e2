using Gesamt.Core.Meetings;
using Gesamt.Core.Texts;
using NodaTime;

namespace Gesamt.Web.Studios;

/// <summary>Who the studio is, as clients see it.</summary>
/// <param name="Site">Its own site.</param>
/// <param name="ClientAddress">Where clients reach this program.</param>
public sealed record StudioNamesDto(
    string Name,
    string Owner,
    string Mail,
    string Phone,
    string Site,
    string Address,
    string Signature,
    string ClientAddress
);

/// <summary>How its pages and papers look.</summary>
/// <param name="Brand">A colour such as #0f4c46, dark enough for white text.</param>
public sealed record StudioLookDto(string Brand, bool HasLogo);

/// <summary>What stands on its invoices, and how they are numbered.</summary>
/// <param name="InvoiceFirst">The number of the first invoice of this year.</param>
/// <param name="NextNumber">What the next invoice will be called; only told.</param>
public sealed record StudioMoneyDto(
    string Currency,
    string TaxNumber,
    string Bank,
    string Iban,
    string Bic,
    string InvoiceSeries,
    int InvoiceFirst,
    string NextNumber
);

/// <summary>What its invoices say, and what is asked for late payment.</summary>
/// <param name="Country">By its two letters (ISO 3166-1).</param>
/// <param name="InvoiceNote">Below the sums of every invoice.</param>
/// <param name="PayAt">A way to pay of its own choosing: a link, or a few words.</param>
/// <param name="ExemptReason">Why its work is exempt of tax, where some is.</param>
/// <param name="Late">What is asked.</param>
/// <param name="LateFigure">An amount, or per cent a month; empty otherwise.</param>
/// <param name="Rates">The reference rates that are known.</param>
public sealed record StudioBillingDto(
    string Country,
    string InvoiceNote,
    string PayAt,
    string ExemptReason,
    LateSort Late,
    string LateFigure,
    HalfYearRateDto[] Rates
);

/// <summary>What is asked for late payment.</summary>
public enum LateSort
{
    Nothing,
    Fixed,
    PerMonth,
    Statutory,
}

/// <summary>The reference rate of a half-year.</summary>
/// <param name="Half">1 or 2.</param>
/// <param name="Percent">May be negative.</param>
public sealed record HalfYearRateDto(int Year, int Half, string Percent);

/// <summary>What it usually does.</summary>
/// <param name="OnBooking">The share due on booking, in per cent.</param>
/// <param name="DueDays">Days a payment has.</param>
/// <param name="ValidDays">How long a proposal is valid.</param>
/// <param name="SignsAtOnce">Whether the owner's signature is given with every contract: it stands under it as it is put to the client.</param>
/// <param name="PutAwayDays">Days after which a finished project is put away by itself; null for never.</param>
/// <param name="HoursOff">Whether no hours are kept; null leaves that as it is.</param>
public sealed record StudioHabitsDto(
    string OnBooking,
    int DueDays,
    int ValidDays,
    bool SignsAtOnce,
    int? PutAwayDays,
    bool? HoursOff = null
);

/// <summary>How it writes numbers, days and times, and where its days begin.</summary>
public sealed record StudioStyleDto(string Zone, NumberLook Numbers, DayOrder Days, ClockHours Clock);

/// <summary>When meetings can be, and when letters leave.</summary>
/// <param name="DaysOff">Each as it was typed; they are given as YYYY-MM-DD.</param>
public sealed record StudioHoursDto(LocalTime SendFrom, LocalTime SendUntil, string[] DaysOff, OpenSpan[] OpenHours);

/// <summary>A style with how it looks.</summary>
public sealed record StyleChoiceDto(string Value, string Looks);

/// <summary>What can be chosen.</summary>
public sealed record StudioChoicesDto(
    IReadOnlyList<string> Currencies,
    IReadOnlyList<string> Countries,
    IReadOnlyList<string> Zones,
    IReadOnlyList<StyleChoiceDto> Numbers,
    IReadOnlyList<StyleChoiceDto> Days,
    IReadOnlyList<StyleChoiceDto> Clocks
);

/// <summary>The studio's settings as they are saved.</summary>
public sealed record SaveStudioDto(
    int Edition,
    StudioNamesDto Names,
    StudioLookDto Look,
    StudioMoneyDto Money,
    StudioHabitsDto Habits,
    StudioStyleDto Style,
    StudioHoursDto Hours,
    StudioBillingDto? Billing = null
);

/// <summary>The studio's settings.</summary>
/// <param name="Feed">The private address of its own calendar; empty while there is none.</param>
/// <param name="FixedAddress">Where clients reach it when the machine it runs on says so, and this page does not.</param>
public sealed record StudioDto(SaveStudioDto Said, string Feed, string? FixedAddress, StudioChoicesDto Choices);
