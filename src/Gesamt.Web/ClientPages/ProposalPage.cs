using Gesamt.Core;
using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Proposals;
using Gesamt.Core.Turns;
using Gesamt.Formats.Texts;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Store.Projects;
using Gesamt.Web.Contracts;
using Gesamt.Web.Hosting;
using Gesamt.Web.Papers;
using Gesamt.Web.Proposals;
using Microsoft.EntityFrameworkCore;

namespace Gesamt.Web.ClientPages;

/// <summary>A line of a proposal as its client can choose it.</summary>
/// <param name="Detail">One line below its title.</param>
/// <param name="Text">More about it.</param>
/// <param name="Picture">SHA-256 of its picture.</param>
/// <param name="HowMuch">“4 days at 130.00”; empty for one of it.</param>
/// <param name="Unit">For several of it.</param>
/// <param name="Price">In the quantity proposed.</param>
/// <param name="Limits">Between which its quantity may be changed; null where it is fixed.</param>
public sealed record ChoiceLineDto(
    string Key,
    LineRole Role,
    string? Group,
    string Title,
    string Detail,
    IReadOnlyList<TextBlock> Text,
    string Link,
    string? Picture,
    string HowMuch,
    string Unit,
    string Price,
    LimitsDto? Limits
);

/// <summary>A day of the timeline as it is read.</summary>
public sealed record ReadDayDto(string When, string Words);

/// <summary>A part of the page as it is read.</summary>
/// <param name="Text">Of a text; what stands under a picture.</param>
public sealed record ReadPartDto(
    PartSort Sort,
    string Heading,
    IReadOnlyList<TextBlock> Text,
    IReadOnlyList<ReadDayDto> Days,
    string? Picture
);

/// <summary>The proposal on the page.</summary>
/// <param name="Version">Counted from 1.</param>
/// <param name="Before">What is different from the version they had before; empty for the first.</param>
/// <param name="Gross">Whether its prices include the tax.</param>
/// <param name="File">The owner’s own file, which the prices belong to; null for none.</param>
public sealed record ProposalPageDto(
    string Title,
    IReadOnlyList<ReadPartDto> Parts,
    string ValidUntil,
    bool RanOut,
    int Version,
    IReadOnlyList<DifferenceDto> Before,
    bool Gross,
    OfferFileDto? File,
    IReadOnlyList<ChoiceLineDto> Lines,
    PricedDto Priced
);

/// <summary>A proposal as its reader has it: on the client's page, and seen beforehand by the owner.</summary>
public static class ProposalPage
{
    /// <summary>The proposal to choose from; before anybody has signed also the one that was chosen from, with that choice.</summary>
    public static async Task<ProposalPageDto?> OfAsync(
        Desk desk,
        ProjectFile file,
        ClientStep step,
        VersionRow? contract
    )
    {
        var version = step switch
        {
            ClientStep.Choose => await Contracting.OpenVersionAsync(desk, file),
            ClientStep.Sign => await Contracting.ChoosableAsync(desk, file),
            _ => null,
        };
        if (version is null)
            return null;
        var offer = Versions.OfferOf(version);
        var choice =
            step == ClientStep.Sign ? Versions.Read<ContractSnapshot>(contract!).Choice : Pricing.Suggested(offer);
        var before = await SentProposals.BeforeAsync(desk, file, version);
        return Of(
            desk,
            offer,
            Pricing.Of(offer, choice, PlanDates.Of(file.Case, desk.Today)),
            version.Number,
            before is null ? [] : SentProposals.Differences(Versions.OfferOf(before), offer)
        );
    }

    /// <summary>A draft as it would be read, with what is different from what was sent last.</summary>
    /// <exception cref="RefusedException">It has no price yet.</exception>
    public static async Task<ProposalPageDto> OfDraftAsync(Desk desk, ProjectFile file)
    {
        var offer = StoreJson.Read<Offer>((await Drafts.OfAsync(desk, file)).Offer);
        var dates = PlanDates.Of(file.Case, desk.Today);
        if (OfferCheck.Faults(offer, dates).FirstOrDefault() is { } fault)
            throw new RefusedException(fault.Words);
        var sent = await SentProposals.LastAsync(desk, file);
        return Of(
            desk,
            offer,
            Pricing.Of(offer, Pricing.Suggested(offer), dates),
            (sent?.Number ?? 0) + 1,
            sent is null ? [] : SentProposals.Differences(Versions.OfferOf(sent), offer)
        );
    }

    /// <summary>A proposal that went out, to read: with what was chosen where something was, else as it was suggested.</summary>
    /// <exception cref="MissingException">It is no proposal.</exception>
    public static async Task<ProposalPageDto> OfVersionAsync(Desk desk, VersionId id)
    {
        var version =
            await desk.Db.Versions.AsNoTracking().SingleOrDefaultAsync(v => v.Id == id && v.Sort == PaperSort.Proposal)
            ?? throw new MissingException("proposal");
        var file = await desk.OpenAsync(version.ProjectId);
        var offer = Versions.OfferOf(version);
        var priced = await desk.Db.Versions.AnyAsync(v => v.FromProposal == id)
            ? (await Agreements.OfVersionAsync(desk, file, id)).Priced
            : Pricing.Of(offer, Pricing.Suggested(offer), PlanDates.Of(file.Case, desk.Calendar.DateOf(version.At)));
        var before = await SentProposals.BeforeAsync(desk, file, version);
        return Of(
            desk,
            offer,
            priced,
            version.Number,
            before is null ? [] : SentProposals.Differences(Versions.OfferOf(before), offer)
        );
    }

    /// <summary>An offer to read, with a choice out of it.</summary>
    public static ProposalPageDto Of(
        Desk desk,
        Offer offer,
        PricedChoice priced,
        int version,
        IReadOnlyList<DifferenceDto> before
    ) =>
        new(
            offer.Title,
            [.. offer.Parts.Select(part => Of(desk, part))],
            DateWords.Long(offer.ValidUntil),
            !offer.IsValidOn(desk.Today),
            version,
            before,
            offer.Gross,
            offer.File is { } own ? new(own.Hash, own.Name) : null,
            [.. offer.Lines.Select(line => Of(line, offer.Currency))],
            PricedDto.Of(offer, priced)
        );

    private static ChoiceLineDto Of(OfferLine line, Currency currency) =>
        new(
            line.Key,
            line.Role,
            line.Group,
            line.Title,
            Print.Detail(line, currency),
            MarkdownText.Blocks(line.Text),
            line.Link,
            line.Picture,
            line.Quantity == 1 && line.Unit.Length == 0 ? "" : Print.HowMuch(line, currency),
            UnitWords.Several(line.Unit),
            MoneyText.Figures(line.Priced(currency).Net),
            line.Limits is { } limits ? new(NumberText.Number(limits.Least), NumberText.Number(limits.Most)) : null
        );

    private static ReadPartDto Of(Desk desk, OfferPart part) =>
        part switch
        {
            OfferPart.Words words => new(
                Enum.Parse<PartSort>(words.Sort.ToString()),
                words.Heading,
                MarkdownText.Blocks(words.Body),
                [],
                null
            ),
            OfferPart.Timeline timeline => new(
                PartSort.Timeline,
                timeline.Heading,
                [],
                [
                    .. timeline.Days.Select(day => new ReadDayDto(
                        day.Until is { } until
                            ? $"{DateWords.Short(day.On, desk.Today)} to {DateWords.Short(until, desk.Today)}"
                            : DateWords.Short(day.On, desk.Today),
                        day.Words
                    )),
                ],
                null
            ),
            OfferPart.Picture picture => new(
                PartSort.Picture,
                "",
                MarkdownText.Blocks(picture.Caption),
                [],
                picture.Hash
            ),
            _ => new(PartSort.Services, "", [], [], null),
        };
}
