using Gesamt.Core.Proposals;
using Gesamt.Web.Hosting;
using Gesamt.Web.Prices;
using NodaTime;

namespace Gesamt.Web.Proposals;

/// <summary>Between which quantities the client may choose.</summary>
public sealed record LimitsDto(string Least, string Most);

/// <summary>What a line may have besides its price.</summary>
/// <param name="Text">Markdown.</param>
/// <param name="Picture">SHA-256 of a file for papers.</param>
/// <param name="Service">Of the price list.</param>
public sealed record LineMoreDto(
    string Text,
    string Link,
    string? Picture,
    LimitsDto? Limits,
    PriceStepDto[] Steps,
    DiscountDto? Less,
    int? Service
);

/// <param name="UnitPrice">In major units with a point, such as “140” or “19.99”; exact.</param>
/// <param name="Tax">Per cent, such as “23”.</param>
public sealed record OfferLineDto(
    string Key,
    LineRole Role,
    string? Group,
    string Title,
    string Detail,
    string Quantity,
    string Unit,
    string UnitPrice,
    string Tax,
    bool Suggested,
    LineMoreDto? More = null
);

/// <summary>When an instalment is due: on booking, around the date that matters or another date of the project, on a date, or with the handover.</summary>
public enum DueSort
{
    OnBooking,
    AroundMainDate,
    AroundDate,
    OnDate,
    OnHandover,
}

/// <param name="Share">Per cent of the price, or of the rest beside fixed amounts.</param>
/// <param name="Days">After the signature, or after (negative: before) the date.</param>
/// <param name="Amount">A fixed amount in place of a share.</param>
/// <param name="Name">Of the project’s date that it hangs on.</param>
public sealed record PlanPartDto(
    string Share,
    DueSort Sort,
    int Days,
    LocalDate? Date,
    int InvoiceDaysBefore,
    string? Amount = null,
    string? Name = null
);

/// <summary>What a part of the page is.</summary>
public enum PartSort
{
    Why,
    Scope,
    AboutUs,
    Terms,
    Free,
    Timeline,
    Picture,
    Services,
}

/// <summary>A day of the timeline, or several.</summary>
public sealed record TimelineDayDto(LocalDate On, LocalDate? Until, string Words);

/// <param name="Heading">Of a text or a timeline.</param>
/// <param name="Body">Markdown of a text; what stands under a picture.</param>
public sealed record OfferPartDto(
    PartSort Sort,
    string Heading = "",
    string Body = "",
    TimelineDayDto[]? Days = null,
    string? Picture = null
);

/// <summary>The owner's own file as the proposal.</summary>
public sealed record OfferFileDto(string Hash, string Name);

/// <summary>An offer as it is written.</summary>
/// <param name="Currency">ISO 4217; null for the studio’s.</param>
/// <param name="Gross">Whether prices include the tax.</param>
/// <param name="Parts">The page in its order; null for one with the services alone.</param>
public sealed record OfferDto(
    string Title,
    LocalDate ValidUntil,
    IReadOnlyList<OfferLineDto> Lines,
    IReadOnlyList<PlanPartDto> Plan,
    IReadOnlyList<OfferPartDto>? Parts = null,
    string? Currency = null,
    bool Gross = false,
    DiscountDto? Less = null,
    OfferFileDto? File = null
);
