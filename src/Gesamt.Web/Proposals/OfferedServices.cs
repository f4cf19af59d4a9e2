using Gesamt.Core.Amounts;
using Gesamt.Core.Proposals;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Prices;

namespace Gesamt.Web.Proposals;

/// <summary>Services of the price list as lines of a proposal.</summary>
internal static class OfferedServices
{
    /// <param name="gross">Whether the proposal's prices include the tax; a price of the other sort is worked out.</param>
    public static async Task<IReadOnlyList<OfferedServiceDto>> OfAsync(Desk desk, ProjectFile file, bool gross)
    {
        var quantities = await KnownQuantities.OfAsync(desk, file);
        return
        [
            .. (await PriceList.OfferedAsync(desk, file.Row.Kinds)).Select(service =>
            {
                var line = Line(service, quantities.Of(service.Unit), gross);
                return new OfferedServiceDto(
                    service.Id,
                    $"{service.Title}, {NumberText.Number(line.UnitPrice)}{PriceList.PerOne(service.Unit)}",
                    service.KindId is null,
                    OfferWire.Of(line)
                );
            }),
        ];
    }

    /// <summary>Included, without a key yet.</summary>
    public static OfferLine Line(ServiceRow service, decimal quantity, bool gross)
    {
        var tax = new Rate(service.TaxPartsPerMillion);
        return new(
            "",
            LineRole.Included,
            null,
            service.Title,
            service.Detail,
            quantity,
            service.Unit,
            PriceIn(service.UnitPrice, tax, service.Gross, gross),
            tax,
            Suggested: false
        )
        {
            Text = service.Text,
            Link = service.Link,
            Picture = service.Picture,
            Steps =
            [
                .. PriceList
                    .StepsOf(service)
                    .Select(step => step with { UnitPrice = PriceIn(step.UnitPrice, tax, service.Gross, gross) }),
            ],
            Service = service.Id,
        };
    }

    /// <summary>A price with or without its tax, to six decimals.</summary>
    public static decimal PriceIn(decimal price, Rate tax, bool isGross, bool gross) =>
        isGross == gross ? price
        : gross ? decimal.Round(price * (1 + tax.Fraction), 6)
        : decimal.Round(price / (1 + tax.Fraction), 6);
}
