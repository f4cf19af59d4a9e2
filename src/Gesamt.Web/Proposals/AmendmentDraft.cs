using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Proposals;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Contracts;
using Gesamt.Web.Hosting;
using Gesamt.Web.Papers;

namespace Gesamt.Web.Proposals;

/// <summary>An amendment being written: what it would come to, and what is looked at before it goes.</summary>
/// <param name="Priced">Null while there are faults.</param>
internal sealed record AmendmentDraft(
    AmendsDto Amends,
    PricedDto? Priced,
    IReadOnlyList<OfferFault> Faults,
    IReadOnlyList<PointDto> Points,
    IReadOnlyList<DifferenceDto> Changes
)
{
    public static async Task<AmendmentDraft> OfAsync(Desk desk, ProjectFile file, OfferDraftRow draft)
    {
        var offer = StoreJson.Read<Offer>(draft.Offer);
        var agreed = (await Agreements.OfAsync(desk, file))!;
        var price = AgreedPrice.Of(file.History)!;
        var billed = await Amendments.BilledAsync(desk, file);
        var dates = PlanDates.Of(file.Case, desk.Today);
        IReadOnlyList<OfferFault> faults = [.. OfferCheck.Faults(offer, billed, dates)];
        var changes = Amending.Changes(agreed, offer);
        var amendment = faults.Count == 0 ? Amendment.Of(offer, billed, dates) : null;
        var invoiced = billed.Aggregate(Totals.Zero(price.Agreed.Currency), (sum, part) => sum.Plus(part.Left));
        return new(
            new(
                DateWords.Long(desk.Calendar.DateOf(price.Fact.Happened)),
                MoneyText.Of(price.Agreed),
                MoneyText.Of(invoiced.Payable),
                amendment?.Credited.Payable is { Minor: > 0 } credited ? MoneyText.Of(credited) : null,
                amendment is null ? null : MoneyText.Of(amendment.Rest.Payable)
            ),
            amendment is null ? null : PricedDto.Of(Amending.Terms(desk, offer, amendment)),
            faults,
            [
                .. faults.Select(fault => new PointDto(fault.Words, false, true, fault.Field)),
                changes.Count == 0
                    ? new PointDto("Nothing is different from what is agreed", false, true, "lines")
                    : new PointDto($"Different from what is agreed: {changes.Count}", true, false, "lines"),
                .. amendment is null || changes.Count == 0
                    ? []
                    : await TextAsync(desk, file, draft, agreed, offer, amendment),
                .. file.MailTo is null
                    ? new[]
                    {
                        new PointDto(
                            $"{file.Row.Client!.Name} has no mail address: the letter cannot go",
                            false,
                            true,
                            "person"
                        ),
                    }
                    : [],
            ],
            changes
        );
    }

    private static async Task<IReadOnlyList<PointDto>> TextAsync(
        Desk desk,
        ProjectFile file,
        OfferDraftRow draft,
        Agreement agreed,
        Offer offer,
        Amendment amendment
    )
    {
        var filled = await Amending.FillAsync(desk, file, draft.Contract, agreed, offer, amendment);
        return filled.HasGaps
            ? [new($"The amendment lacks: {string.Join(", ", filled.Gaps)}", false, true, "contract")]
            : [new("Its text is filled, no gap", true, false, "contract")];
    }
}
