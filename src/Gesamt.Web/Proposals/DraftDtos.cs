using System.Collections.Immutable;
using Gesamt.Core.Amounts;
using Gesamt.Core.Proposals;
using Gesamt.Core.Stages;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Contracts;
using Gesamt.Web.Hosting;
using Gesamt.Web.Papers;

namespace Gesamt.Web.Proposals;

/// <summary>One thing that is looked at before a proposal goes.</summary>
/// <param name="Blocks">It cannot go while this is not done.</param>
/// <param name="Where">The field it stands in, such as “title” or “lines.gable”; “record” or “person” for what lies elsewhere.</param>
public sealed record PointDto(string Words, bool Done, bool Blocks, string Where);

/// <summary>What changed from one version to the next.</summary>
public sealed record DifferenceDto(DifferenceSort Sort, string What, string? Before, string? After);

/// <summary>The version that was sent last.</summary>
/// <param name="Opened">When, how often and how long ago it was opened; null while it was not.</param>
/// <param name="RanOut">Whether it can be chosen no more.</param>
public sealed record SentVersionDto(int Number, string At, string ValidUntil, bool RanOut, string? Opened);

/// <summary>A draft with what it comes to as suggested, and what is looked at before it goes.</summary>
/// <param name="Dates">The project's dates that a payment can hang on, besides the one that matters.</param>
/// <param name="WithEveryExtra">What it comes to with everything that can be added; null where that is the same.</param>
/// <param name="Expected">Hours and costs as suggested; null where the price list says none.</param>
/// <param name="Each">What each line comes to, whether it is suggested or not; in its words how much of it is had at which price.</param>
/// <param name="Differences">What is different from the version that was sent last; empty where none was.</param>
/// <param name="Who">Who can sign for the client.</param>
/// <param name="Amends">What it changes; null for a proposal.</param>
/// <param name="Closed">Why nothing can be sent any more: a price is agreed.</param>
/// <param name="CanAmend">Whether an amendment can be begun.</param>
public sealed record DraftDto(
    string Project,
    string Client,
    long Person,
    string Brand,
    string MainDate,
    IReadOnlyList<string> Dates,
    IReadOnlyList<string> Currencies,
    int Edition,
    OfferDto Offer,
    string Contract,
    SigningDto Signing,
    IReadOnlyList<SignerDto> Who,
    AmendsDto? Amends,
    IReadOnlyList<PricedLineDto> Each,
    PricedDto? Priced,
    string? WithEveryExtra,
    ExpectedDto? Expected,
    IReadOnlyList<PointDto> Points,
    SentVersionDto? Sent,
    IReadOnlyList<DifferenceDto> Differences,
    string? Closed,
    bool CanAmend
)
{
    /// <summary>A draft with its prices computed.</summary>
    public static async Task<DraftDto> OfAsync(Desk desk, ProjectFile file, OfferDraftRow draft)
    {
        var offer = StoreJson.Read<Offer>(draft.Offer);
        var signing = SigningReading.Stored(draft.Signing);
        var dates = PlanDates.Of(file.Case, desk.Today);
        var amendment = Amending.IsAmendment(file, draft) ? await AmendmentDraft.OfAsync(desk, file, draft) : null;
        var faults = amendment?.Faults ?? Drafts.Faults(file, offer, dates);
        var priced =
            faults.Count > 0 || amendment is not null ? null : Pricing.Of(offer, Pricing.Suggested(offer), dates);
        var sent = amendment is null ? await SentProposals.LastAsync(desk, file) : null;
        return new(
            file.Row.Title,
            file.Row.Client!.Name,
            file.Row.ClientId.Value,
            desk.Studio.Brand,
            file.Case.Kind.MainDate,
            SentProposals.OtherDates(file),
            SentProposals.Currencies(desk),
            draft.Edition,
            OfferWire.Of(offer),
            draft.Contract,
            SigningReading.Of(signing),
            await SigningReading.WhoCanAsync(desk, file),
            amendment?.Amends,
            [
                .. offer.Lines.Select(line => new PricedLineDto(
                    line.Key,
                    Print.HowMuch(line, offer.Currency),
                    Net(line, offer.Currency)
                )),
            ],
            amendment is not null ? amendment.Priced
                : priced is null ? null
                : PricedDto.Of(offer, priced),
            priced is null ? null : WithEveryExtraOf(offer, priced, dates),
            priced is null ? null : await ExpectedWork.OfAsync(desk, priced.Lines, offer.Currency, priced.Totals.Net),
            [
                .. amendment?.Points
                    ?? await BeforeSending.PointsAsync(desk, file, offer, draft.Contract, signing, faults, priced),
                .. (await SigningReading.FaultsAsync(desk, file, signing)).Select(fault => new PointDto(
                    fault,
                    false,
                    true,
                    "person"
                )),
            ],
            sent is null ? null : SentProposals.Of(desk, file, sent),
            amendment?.Changes ?? (sent is null ? [] : [.. DifferentFrom(sent, offer, draft.Contract, signing)]),
            amendment is null ? Drafts.Agreed(desk, file) : Amending.WhyNot(file),
            ContractRule.CanAmend(file.Case)
        );
    }

    /// <summary>From the version that was sent, its contract among it.</summary>
    private static IEnumerable<DifferenceDto> DifferentFrom(
        VersionRow sent,
        Offer offer,
        string contract,
        SigningTerms signing
    )
    {
        var before = Versions.Read<ProposalSnapshot>(sent);
        foreach (var one in SentProposals.Differences(before.Offer, offer))
            yield return one;
        if (before.ContractText.Trim() != contract.Trim())
            yield return new(DifferenceSort.Changed, "Contract text", null, null);
        if (StoreJson.Write(before.Signing ?? SigningTerms.Plain) != StoreJson.Write(signing))
            yield return new(DifferenceSort.Changed, "How the contract is signed", null, null);
    }

    /// <summary>Empty for one that is more than can be counted.</summary>
    private static string Net(OfferLine line, Currency currency)
    {
        try
        {
            return MoneyText.Figures(line.Priced(currency).Net);
        }
        catch (OverflowException)
        {
            return "";
        }
    }

    private static string? WithEveryExtraOf(Offer offer, PricedChoice suggested, PlanDates dates) =>
        Pricing.Of(offer, Pricing.WithEveryExtra(offer), dates).Totals.Payable is var all
        && all != suggested.Totals.Payable
            ? MoneyText.Of(all)
            : null;
}

/// <summary>What an amendment changes.</summary>
/// <param name="AgreedOn">When it was agreed.</param>
/// <param name="Before">The price until then.</param>
/// <param name="Invoiced">What is invoiced of it, and stays.</param>
/// <param name="Credited">What of it would be taken back; null for nothing.</param>
/// <param name="Left">What is left to be invoiced; null while it has no price.</param>
public sealed record AmendsDto(string AgreedOn, string Before, string Invoiced, string? Credited, string? Left);

/// <summary>A choice priced by the server, ready to show.</summary>
/// <param name="Lines">Before tax, or with it where <paramref name="Gross"/>.</param>
/// <param name="Less">A discount on the whole.</param>
/// <param name="Quantities">Of the lines whose quantity can be changed.</param>
public sealed record PricedDto(
    ImmutableArray<PricedLineDto> Lines,
    bool Gross,
    LabelledDto? Less,
    string Net,
    ImmutableArray<LabelledDto> Taxes,
    string? Rounding,
    string Total,
    ImmutableArray<LabelledDto> Instalments,
    string DueOnBooking,
    bool HasDeposit,
    ImmutableArray<string> Chosen,
    ImmutableArray<QuantityDto> Quantities
)
{
    /// <summary>A choice with its prices.</summary>
    public static PricedDto Of(Offer offer, PricedChoice choice) =>
        new(
            [
                .. choice.Lines.Select(line => new PricedLineDto(
                    line.Key,
                    line.Words,
                    MoneyText.Figures(line.Priced(offer.Currency).Net)
                )),
            ],
            offer.Gross,
            offer.Less is { } less ? new(Print.LessWords(less, offer.Currency), MoneyText.Figures(-choice.Less)) : null,
            MoneyText.Figures(choice.Totals.Net),
            [
                .. choice.Totals.Parts.Select(part => new LabelledDto(
                    $"VAT {part.Category.Words(part.Rate)}",
                    MoneyText.Figures(part.Tax)
                )),
            ],
            choice.Totals.RoundingAmount.Minor == 0 ? null : MoneyText.Figures(choice.Totals.RoundingAmount),
            MoneyText.Of(choice.Totals.Payable),
            [.. choice.Instalments.Select(i => new LabelledDto(i.Words, MoneyText.Figures(i.Part.Payable)))],
            MoneyText.Of(choice.DueOnBooking),
            choice.DueOnBooking.Minor > 0,
            [.. choice.Lines.Where(line => line.Role != LineRole.Included).Select(line => line.Key)],
            [
                .. choice
                    .Lines.Where(line => line.Limits is not null)
                    .Select(line => new QuantityDto(line.Key, NumberText.Number(line.Quantity))),
            ]
        );

    /// <summary>What a contract binds to, from its own copy; null for one signed on paper before any price was agreed.</summary>
    public static PricedDto? Of(PrintedTerms terms) =>
        terms is not { Sums: { } sums, OnBooking: { } onBooking }
            ? null
            : new(
                [
                    .. terms.Lines.Select(line => new PricedLineDto(
                        "",
                        line.Quantity is null or "1" || line.Quantity.StartsWith("1 ", StringComparison.Ordinal)
                            ? line.Title
                            : $"{line.Title}, {line.Quantity}",
                        MoneyText.Figures(line.Net)
                    )),
                ],
                sums.Gross,
                sums.Less is { } less ? new(less.Words, MoneyText.Figures(-less.Amount)) : null,
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
                onBooking.Minor > 0,
                [],
                []
            );
}

/// <summary>A line with its price.</summary>
public sealed record PricedLineDto(string Key, string Words, string Net);

/// <summary>How much of a line.</summary>
public sealed record QuantityDto(string Key, string Quantity);

/// <summary>An amount with its name.</summary>
public sealed record LabelledDto(string Label, string Amount);
