using System.Collections.Immutable;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Proposals;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Papers;
using NodaTime;

namespace Gesamt.Web.Proposals;

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
    bool Suggested
);

/// <summary>When an instalment is due: on booking, around the date that matters, or on a date.</summary>
public enum DueSort
{
    OnBooking,
    AroundMainDate,
    OnDate,
    OnHandover,
}

/// <param name="Share">Per cent.</param>
/// <param name="Days">After the signature, or after (negative: before) the date that matters.</param>
public sealed record PlanPartDto(string Share, DueSort Sort, int Days, LocalDate? Date, int InvoiceDaysBefore);

/// <summary>An offer as it is written.</summary>
public sealed record OfferDto(
    string Title,
    string Intro,
    string Terms,
    LocalDate ValidUntil,
    IReadOnlyList<OfferLineDto> Lines,
    IReadOnlyList<PlanPartDto> Plan
);

/// <summary>A draft with what it comes to as suggested, or why it cannot be sent yet.</summary>
public sealed record DraftDto(
    string Project,
    string Client,
    string MainDate,
    int Edition,
    OfferDto Offer,
    string Contract,
    PricedDto? Priced,
    string? Missing
)
{
    /// <summary>A draft with its prices computed.</summary>
    public static DraftDto Of(Desk desk, ProjectFile file, OfferDraftRow draft)
    {
        var offer = StoreJson.Read<Offer>(draft.Offer);
        var (priced, missing) = Drafts.Agreed(desk, file) is { } agreed ? (null, agreed) : Try(desk, file, offer);
        return new(
            file.Row.Title,
            file.Row.Client!.Name,
            file.Case.Kind.MainDate,
            draft.Edition,
            Wire.Of(offer),
            draft.Contract,
            priced,
            missing
        );
    }

    private static (PricedDto?, string?) Try(Desk desk, ProjectFile file, Offer offer)
    {
        try
        {
            Pricing.Check(offer, desk.Today);
            return (
                PricedDto.Of(
                    offer,
                    Pricing.Of(offer, Pricing.Suggested(offer), file.Case.MainDate?.Date, desk.Today, desk.Calendar)
                ),
                null
            );
        }
        catch (Exception e) when (e is OfferException or InstalmentException)
        {
            return (null, e.Message);
        }
    }
}

/// <summary>A choice priced by the server, ready to show.</summary>
public sealed record PricedDto(
    ImmutableArray<PricedLineDto> Lines,
    string Net,
    ImmutableArray<LabelledDto> Taxes,
    string? Rounding,
    string Total,
    ImmutableArray<LabelledDto> Instalments,
    string DueOnBooking,
    ImmutableArray<string> Chosen
)
{
    /// <summary>A choice with its prices.</summary>
    public static PricedDto Of(Offer offer, PricedChoice choice) =>
        new(
            [
                .. choice.Lines.Select(line => new PricedLineDto(
                    line.Words,
                    MoneyText.Figures(line.Priced(offer.Currency).Net)
                )),
            ],
            MoneyText.Figures(choice.Totals.Net),
            [.. choice.Totals.Parts.Select(part => new LabelledDto($"VAT {part.Rate}", MoneyText.Figures(part.Tax)))],
            choice.Totals.RoundingAmount.Minor == 0 ? null : MoneyText.Figures(choice.Totals.RoundingAmount),
            MoneyText.Of(choice.Totals.Payable),
            [.. choice.Instalments.Select(i => new LabelledDto(i.Words, MoneyText.Figures(i.Part.Payable)))],
            MoneyText.Of(choice.DueOnBooking(offer)),
            [.. choice.Lines.Where(line => line.Role != LineRole.Included).Select(line => line.Key)]
        );

    /// <summary>What a contract binds to, from its own copy; null for one signed on paper before any price was agreed.</summary>
    public static PricedDto? Of(PrintedTerms terms) =>
        terms is not { Sums: { } sums, OnBooking: { } onBooking }
            ? null
            : new(
                [
                    .. terms.Lines.Select(line => new PricedLineDto(
                        line.Quantity is null or "1" ? line.Title : $"{line.Title}, {line.Quantity}",
                        MoneyText.Figures(line.Net)
                    )),
                ],
                MoneyText.Figures(sums.Net),
                [.. sums.Taxes.Select(tax => new LabelledDto($"VAT {tax.Rate}", MoneyText.Figures(tax.Tax)))],
                sums.Rounding.Minor == 0 ? null : MoneyText.Figures(sums.Rounding),
                MoneyText.Of(sums.Total),
                [
                    .. terms.Payments.Select(payment => new LabelledDto(
                        payment.Words,
                        MoneyText.Figures(payment.Amount)
                    )),
                ],
                MoneyText.Of(onBooking),
                []
            );
}

/// <summary>A line with its price.</summary>
public sealed record PricedLineDto(string Words, string Net);

/// <summary>An amount with its name.</summary>
public sealed record LabelledDto(string Label, string Amount);

/// <summary>Offers to and from the wire; every number is checked and named by its field.</summary>
public static class Wire
{
    /// <summary>An offer as the page edits it.</summary>
    public static OfferDto Of(Offer offer) =>
        new(
            offer.Title,
            offer.Intro,
            offer.Terms,
            offer.ValidUntil,
            [
                .. offer.Lines.Select(line => new OfferLineDto(
                    line.Key,
                    line.Role,
                    line.Group,
                    line.Title,
                    line.Detail,
                    NumberText.Number(line.Quantity),
                    line.Unit,
                    NumberText.Number(line.UnitPrice),
                    NumberText.Number(line.Tax.InPercent),
                    line.Suggested
                )),
            ],
            [.. offer.Plan.Select(Of)]
        );

    /// <exception cref="InvalidException">A number or a rate is not one.</exception>
    public static Offer Read(OfferDto dto, Currency currency)
    {
        List<(string, string)> errors = [];
        decimal Parse(string field, string text, string what)
        {
            if (NumberText.Exact(text) is { } number && decimal.Round(number, 6) == number)
                return number;
            errors.Add(
                (
                    field,
                    $"{what} must be a number such as {NumberText.Number(12.5m)}, with at most six decimals; “{text}” is not.{NumberText.Doubt(text)}"
                )
            );
            return 0;
        }
        Rate Percent(string field, string text, string what)
        {
            var number = Parse(field, text, what);
            if (number is >= 0 and <= 100 && decimal.Round(number, 4) == number)
                return Rate.Percent(number);
            errors.Add((field, $"{what} must lie between 0 and 100 with at most four decimals."));
            return new(0);
        }
        var lines = dto
            .Lines.Select(
                (line, i) =>
                    new OfferLine(
                        line.Key,
                        line.Role,
                        line.Group,
                        line.Title.Trim(),
                        line.Detail.Trim(),
                        Parse($"lines[{i}].quantity", line.Quantity, $"The quantity of “{line.Title}”"),
                        line.Unit.Trim(),
                        Parse($"lines[{i}].unitPrice", line.UnitPrice, $"The price of “{line.Title}”"),
                        Percent($"lines[{i}].tax", line.Tax, $"The tax of “{line.Title}”"),
                        line.Suggested
                    )
            )
            .ToImmutableArray();
        var plan = dto
            .Plan.Select(
                (part, i) => new PlanPart(Percent($"plan[{i}].share", part.Share, "A share"), DueOf(part, i, errors))
            )
            .ToImmutableArray();
        if (errors.Count > 0)
            throw new InvalidException([.. errors]);
        return new(dto.Title.Trim(), dto.Intro.Trim(), dto.Terms.Trim(), currency, dto.ValidUntil, lines, plan);
    }

    private static DueRule DueOf(PlanPartDto part, int i, List<(string, string)> errors)
    {
        if (part.Days is < -3650 or > 3650 || part.InvoiceDaysBefore is < 0 or > 365)
            errors.Add(($"plan[{i}].days", "Days must lie within ten years, the invoice at most 365 days before."));
        if (part is { Sort: DueSort.OnDate, Date: null })
            errors.Add(($"plan[{i}].date", "Give the date on which it is due."));
        return part.Sort switch
        {
            DueSort.OnBooking => new DueRule.OnBooking(part.Days),
            DueSort.OnHandover => new DueRule.OnHandover(part.Days),
            DueSort.AroundMainDate => new DueRule.AroundMainDate(Span.Days(part.Days), part.InvoiceDaysBefore),
            _ => new DueRule.OnDate(part.Date ?? default, part.InvoiceDaysBefore),
        };
    }

    private static PlanPartDto Of(PlanPart part) =>
        part.Due switch
        {
            DueRule.OnBooking booking => new(Percent(part), DueSort.OnBooking, booking.Days, null, 0),
            DueRule.OnHandover handover => new(Percent(part), DueSort.OnHandover, handover.Days, null, 0),
            DueRule.AroundMainDate around => new(
                Percent(part),
                DueSort.AroundMainDate,
                around.Offset.Count,
                null,
                around.InvoiceDaysBefore
            ),
            DueRule.OnDate date => new(Percent(part), DueSort.OnDate, 0, date.Date, date.InvoiceDaysBefore),
            _ => throw new ArgumentOutOfRangeException(nameof(part), part.Due, "No such due rule."),
        };

    private static string Percent(PlanPart part) => NumberText.Number(part.Share.InPercent);
}
