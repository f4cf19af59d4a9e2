using System.Collections.Immutable;
using Gesamt.Core.Amounts;
using Gesamt.Core.Proposals;
using Gesamt.Formats.Invoices;
using Gesamt.Formats.Pdf;
using Gesamt.Store.Model;
using Gesamt.Web.Hosting;
using NodaTime.TimeZones;

namespace Gesamt.Web.Papers;

/// <summary>What stands on papers, as data: taken once, when a paper is made, and never read from the record again.</summary>
public static class Print
{
    /// <summary>The head of a paper as the studio is now.</summary>
    public static Letterhead Letterhead(Desk desk) =>
        new(
            desk.Studio.Name,
            desk.Studio.Address,
            desk.Studio.Mail,
            desk.Studio.TaxNumber,
            desk.Studio.Brand,
            desk.Studio.Logo,
            desk.Studio.Phone,
            desk.Studio.Site,
            desk.Studio.Bank,
            desk.Studio.Bic
        );

    /// <summary>The picture a letterhead names; null for none.</summary>
    public static byte[]? Logo(Desk desk, Letterhead head) =>
        head.Logo is { } hash && desk.Vault.Has(hash) ? desk.Vault.Read(hash) : null;

    /// <summary>To whom a paper goes: name, organisation, postal address, else the mail address, and the tax number.</summary>
    public static ImmutableArray<string> Addressee(PersonRow client) =>
        [
            .. new[] { client.Name, client.Organisation }.OfType<string>(),
            .. client.Address is { Length: > 0 } address
                ? address.ReplaceLineEndings("\n").Split('\n')
                : new[] { client.Mail }.OfType<string>(),
            .. client.TaxNumber is { Length: > 0 } number ? new[] { $"Tax number {number}" } : [],
        ];

    /// <summary>The studio as the seller of an invoice.</summary>
    public static EParty Seller(Desk desk) =>
        new(
            desk.Studio.Name,
            Lines(desk.Studio.Address),
            Country(desk),
            desk.Studio.TaxNumber,
            desk.Studio.Mail,
            desk.Studio.Owner,
            desk.Studio.Phone
        );

    /// <summary>A client as the buyer: the organisation, where there is one.</summary>
    public static EParty Buyer(Desk desk, PersonRow client) =>
        new(
            client.Organisation is { Length: > 0 } organisation ? organisation : client.Name,
            Lines(client.Address ?? ""),
            client.Country is { Length: > 0 } country ? country : Country(desk),
            client.TaxNumber ?? "",
            client.Mail ?? "",
            client.Organisation is { Length: > 0 } ? client.Name : ""
        );

    /// <summary>Where the studio is: as it says, else the country its zone is named after.</summary>
    public static string Country(Desk desk) =>
        desk.Studio.Country.Length > 0
            ? desk.Studio.Country
            : TzdbDateTimeZoneSource
                .Default.ZoneLocations?.FirstOrDefault(location => location.ZoneId == desk.Studio.Zone)
                ?.CountryCode
                ?? "";

    private static ImmutableArray<string> Lines(string text) =>
        [
            .. text.ReplaceLineEndings("\n")
                .Split('\n', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries),
        ];

    /// <summary>What was chosen, what it comes to and when it is paid.</summary>
    public static PrintedTerms Terms(Desk desk, Offer offer, PricedChoice priced) =>
        new(
            Letterhead(desk),
            [.. priced.Lines.Select(line => Combined(line, offer.Currency))],
            Sums(priced.Totals) with
            {
                Gross = offer.Gross,
                Less = offer.Less is { } less ? new(LessWords(less, offer.Currency), priced.Less) : null,
            },
            [.. priced.Instalments.Select(part => new PaperPayment(part.Words, part.Part.Payable))],
            priced.DueOnBooking
        );

    /// <summary>Sums as a paper says them.</summary>
    public static PaperSums Sums(Totals totals) =>
        new(
            totals.Net,
            [.. totals.Parts.Select(part => new PaperTax(part.Category.Words(part.Rate), part.Tax))],
            totals.RoundingAmount,
            totals.Payable
        );

    /// <summary>“Less 5 %, second project”.</summary>
    public static string LessWords(Reduction less, Currency currency) =>
        $"Less {less.Of.Words(currency)}{(less.Why.Length > 0 ? $", {less.Why}" : "")}";

    /// <summary>A service as an invoice prints it, its number and its unit apart.</summary>
    public static PaperLine Line(OfferLine line, Currency currency) =>
        Combined(line, currency) with
        {
            Quantity = NumberText.Number(line.Quantity),
            Unit = line.Quantity == 1 ? UnitWords.One(line.Unit) : UnitWords.Several(line.Unit),
        };

    private static PaperLine Combined(OfferLine line, Currency currency) =>
        new(
            line.Title,
            Detail(line, currency),
            line.Priced(currency).Net,
            UnitWords.Counted(line.Quantity, line.Unit),
            UnitPrice(line.PriceEach, currency),
            line.Category.Words(line.Tax)
        );

    /// <summary>What stands below its title, with its discount.</summary>
    public static string Detail(OfferLine line, Currency currency) => Detail(line.Detail, line.Less, currency);

    /// <inheritdoc cref="Detail(OfferLine, Currency)"/>
    public static string Detail(string detail, Discount? less, Currency currency) =>
        less is null ? detail
        : detail.Length == 0 ? $"less {less.Words(currency)}"
        : $"{detail}, less {less.Words(currency)}";

    /// <summary>“4 days at 130.00”.</summary>
    public static string HowMuch(OfferLine line, Currency currency) =>
        $"{UnitWords.Counted(line.Quantity, line.Unit)} at {UnitPrice(line.PriceEach, currency)}";

    /// <summary>With the decimals of its currency, or as many more as it has.</summary>
    public static string UnitPrice(decimal price, Currency currency) =>
        Money.Of(price, currency) is var rounded && rounded.Major == price
            ? MoneyText.Figures(rounded)
            : NumberText.Number(price);
}
