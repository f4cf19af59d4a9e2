using System.Collections.Immutable;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Proposals;
using Gesamt.Web.Hosting;
using Gesamt.Web.Prices;

namespace Gesamt.Web.Proposals;

/// <summary>Offers as the page edits them.</summary>
public static class OfferWire
{
    public static OfferDto Of(Offer offer) =>
        new(
            offer.Title,
            offer.ValidUntil,
            [.. offer.Lines.Select(Of)],
            [.. offer.Plan.Select(Of)],
            [.. offer.Parts.Select(Of)],
            offer.Currency.Code,
            offer.Gross,
            offer.Less is { } less ? TypedDiscount.Of(less.Of, less.Why) : null,
            offer.File is { } file ? new(file.Hash, file.Name) : null
        );

    public static OfferLineDto Of(OfferLine line) =>
        new(
            line.Key,
            line.Role,
            line.Group,
            line.Title,
            line.Detail,
            NumberText.Number(line.Quantity),
            line.Unit,
            NumberText.Number(line.UnitPrice),
            TaxText.Of(line.Tax, line.Category),
            line.Suggested,
            new(
                line.Text,
                line.Link,
                line.Picture,
                line.Limits is { } limits ? new(NumberText.Number(limits.Least), NumberText.Number(limits.Most)) : null,
                [
                    .. line.Steps.Select(step => new PriceStepDto(
                        NumberText.Number(step.From),
                        NumberText.Number(step.UnitPrice)
                    )),
                ],
                line.Less is { } less ? TypedDiscount.Of(less) : null,
                line.Service
            )
        );

    private static OfferPartDto Of(OfferPart part) =>
        part switch
        {
            OfferPart.Words words => new(Enum.Parse<PartSort>(words.Sort.ToString()), words.Heading, words.Body),
            OfferPart.Timeline timeline => new(
                PartSort.Timeline,
                timeline.Heading,
                Days: [.. timeline.Days.Select(day => new TimelineDayDto(day.On, day.Until, day.Words))]
            ),
            OfferPart.Picture picture => new(PartSort.Picture, Body: picture.Caption, Picture: picture.Hash),
            _ => new(PartSort.Services),
        };

    private static PlanPartDto Of(PlanPart part)
    {
        var share = NumberText.Number(part.Share.InPercent);
        var amount = part.Amount is { } major ? NumberText.Number(major) : null;
        return part.Due switch
        {
            DueRule.OnBooking booking => new(share, DueSort.OnBooking, booking.Days, null, 0, amount),
            DueRule.OnHandover handover => new(share, DueSort.OnHandover, handover.Days, null, 0, amount),
            DueRule.AroundMainDate around => new(
                share,
                DueSort.AroundMainDate,
                around.Offset.Count,
                null,
                around.InvoiceDaysBefore,
                amount
            ),
            DueRule.AroundDate around => new(
                share,
                DueSort.AroundDate,
                around.Offset.Count,
                null,
                around.InvoiceDaysBefore,
                amount,
                around.Name
            ),
            DueRule.OnDate date => new(share, DueSort.OnDate, 0, date.Date, date.InvoiceDaysBefore, amount),
            _ => throw new ArgumentOutOfRangeException(nameof(part), part.Due, "No such due rule."),
        };
    }
}

/// <summary>Reads an offer as it was typed; every number is checked and named by its field.</summary>
internal sealed class OfferReading : TypedFields
{
    private const int MostLines = 200,
        MostParts = 60,
        MostPayments = 36,
        LongestText = 20_000;

    /// <exception cref="InvalidException">A number, a rate or a link is not one, or something is longer than can be kept.</exception>
    public static Offer Of(OfferDto dto, Currency otherwise)
    {
        var reading = new OfferReading();
        var offer = reading.Read(dto, otherwise);
        reading.Demand();
        return offer;
    }

    private Offer Read(OfferDto dto, Currency otherwise)
    {
        Most("lines", dto.Lines.Count, MostLines, "services");
        Most("plan", dto.Plan.Count, MostPayments, "payments");
        Most("parts", dto.Parts?.Count ?? 0, MostParts, "parts");
        return new(
            Text("title", dto.Title, 200),
            "",
            "",
            CurrencyOf(dto.Currency, otherwise),
            dto.ValidUntil,
            [.. dto.Lines.Select(Line)],
            [.. dto.Plan.Select(Part)]
        )
        {
            Parts = dto.Parts is { } parts ? Parts(parts) : default,
            Gross = dto.Gross,
            Less = dto.Less is { } less ? new(DiscountOf("less", less), Text("less", less.Why, 200)) : null,
            File = dto.File is { } file ? new(Hash("file", file.Hash), Text("file", file.Name, 200)) : null,
        };
    }

    private OfferLine Line(OfferLineDto line, int i)
    {
        var at = $"lines[{i}]";
        var more = line.More;
        var tax = Tax($"{at}.tax", line.Tax, line.Title);
        return new(
            line.Key,
            line.Role,
            line.Group,
            Text($"{at}.title", line.Title, 200),
            Text($"{at}.detail", line.Detail, 500),
            Number($"{at}.quantity", line.Quantity, $"The quantity of “{line.Title}”"),
            Text($"{at}.unit", line.Unit, 40),
            Number($"{at}.unitPrice", line.UnitPrice, $"The price of “{line.Title}”"),
            tax.Rate,
            line.Suggested
        )
        {
            Category = tax.Category,
            Text = Text($"{at}.text", more?.Text ?? "", LongestText),
            Link = Link($"{at}.link", more?.Link ?? ""),
            Picture = more?.Picture is { } picture ? Hash($"{at}.picture", picture) : null,
            Limits = more?.Limits is { } limits
                ? new(
                    Number($"{at}.least", limits.Least, $"The least of “{line.Title}”"),
                    Number($"{at}.most", limits.Most, $"The most of “{line.Title}”")
                )
                : null,
            Steps =
            [
                .. (more?.Steps ?? [])
                    .Select(
                        (step, j) =>
                            new PriceStep(
                                Number($"{at}.steps[{j}].from", step.From, "A price step"),
                                Number($"{at}.steps[{j}].unitPrice", step.UnitPrice, "The price of a step")
                            )
                    )
                    .OrderBy(step => step.From),
            ],
            Less = more?.Less is { } less ? DiscountOf($"{at}.less", less) : null,
            Service = more?.Service,
        };
    }

    /// <summary>The services stand once: a page without them, or with them twice, is mended.</summary>
    private ImmutableArray<OfferPart> Parts(IReadOnlyList<OfferPartDto> parts)
    {
        var read = parts.Select(Part).ToList();
        var services = read.OfType<OfferPart.Services>().FirstOrDefault();
        if (services is null)
            read.Add(new OfferPart.Services());
        return
        [
            .. read.Where(part =>
                part is not OfferPart.Services || services is null || ReferenceEquals(part, services)
            ),
        ];
    }

    private OfferPart Part(OfferPartDto part, int i)
    {
        var at = $"parts[{i}]";
        return part.Sort switch
        {
            PartSort.Services => new OfferPart.Services(),
            PartSort.Picture => new OfferPart.Picture(
                Hash($"{at}.picture", part.Picture ?? ""),
                Text($"{at}.body", part.Body, 300)
            ),
            PartSort.Timeline => new OfferPart.Timeline(
                Text($"{at}.heading", part.Heading, 200),
                [.. (part.Days ?? []).Select((day, j) => Day($"{at}.days[{j}]", day))]
            ),
            _ => new OfferPart.Words(
                Enum.Parse<TextSort>(part.Sort.ToString()),
                Text($"{at}.heading", part.Heading, 200),
                Text($"{at}.body", part.Body, LongestText)
            ),
        };
    }

    private TimelineDay Day(string field, TimelineDayDto day)
    {
        if (day.Until < day.On)
            Wrong(field, "The last day lies before the first.");
        return new(day.On, day.Until, Text(field, day.Words, 300));
    }

    private PlanPart Part(PlanPartDto part, int i)
    {
        var due = DueOf(part, $"plan[{i}]");
        return part.Amount is { } amount
            ? new(new(0), due, Number($"plan[{i}].amount", amount, "A fixed payment"))
            : new(Percent($"plan[{i}].share", part.Share, "A share"), due);
    }

    private DueRule DueOf(PlanPartDto part, string at)
    {
        if (part.Days is < -3650 or > 3650 || part.InvoiceDaysBefore is < 0 or > 365)
            Wrong($"{at}.days", "Days must lie within ten years, the invoice at most 365 days before.");
        if (part is { Sort: DueSort.OnDate, Date: null })
            Wrong($"{at}.date", "Give the date on which it is due.");
        if (part.Sort == DueSort.AroundDate && string.IsNullOrWhiteSpace(part.Name))
            Wrong($"{at}.name", "Say which date of the project it hangs on.");
        return part.Sort switch
        {
            DueSort.OnBooking => new DueRule.OnBooking(part.Days),
            DueSort.OnHandover => new DueRule.OnHandover(part.Days),
            DueSort.AroundMainDate => new DueRule.AroundMainDate(Span.Days(part.Days), part.InvoiceDaysBefore),
            DueSort.AroundDate => new DueRule.AroundDate(
                Text($"{at}.name", part.Name ?? "", 60),
                Span.Days(part.Days),
                part.InvoiceDaysBefore
            ),
            _ => new DueRule.OnDate(part.Date ?? default, part.InvoiceDaysBefore),
        };
    }

    private string Link(string field, string text)
    {
        var address = WebAddress.Meant(text);
        if (address.Length > 0 && !WebAddress.Is(address))
            Wrong(field, WebAddress.Allowed);
        return address;
    }

    private void Most(string field, int count, int most, string what)
    {
        if (count > most)
            Wrong(field, $"A proposal has at most {most} {what}; these are {count}.");
    }
}
